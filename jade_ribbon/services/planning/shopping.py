"""The shopping list: bands that open jobs want and the rack cannot give."""

from collections import defaultdict
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.choosing.choose import Choice, choose
from jade_ribbon.core.money.changing import prevented
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import Said, join
from jade_ribbon.services.planning.jobs import plan_input
from jade_ribbon.services.planning.snapshot import (
    Snapshot,
    job_for,
    rack_candidates,
    read_snapshot,
    type_candidates,
)
from jade_ribbon.store.models import JobRow, SawRow

OPEN_STATES = ("planned", "ready", "running")
LEAST_CHANCE_OF_LASTING = 1.0
"""A job that wears more than one whole edge wants a spare."""


@dataclass(frozen=True)
class ShoppingLine:
    """One type to buy: to which length, how many, what for and why."""

    label: str
    width_mm: float
    thickness_mm: float
    tpi_lo: float | None
    tpi_hi: float | None
    form: str
    steel: str
    length_mm: float
    count: int
    price: float
    jobs: list[str]
    why: Said


@dataclass(frozen=True)
class _Want:
    key: tuple[str, float]
    line: ShoppingLine


def _edges_used(choice: Choice, cuts: int) -> float:
    """Whole edges that a job wears, with the chosen band."""
    best = choice.best
    if best is None:
        return 0.0
    facts = best.evaluation.facts
    return facts.band.dullness + best.run.equivalent_m * cuts / facts.life_m


def _want(row: JobRow, saw: SawRow, snapshot: Snapshot) -> _Want | None:
    """What one open job wants bought, if anything."""
    given = plan_input(row, saw.id)
    job = job_for(snapshot, saw, given, rack_candidates(snapshot, saw.id, given))
    rack, cuts = choose(job), job.cut.cuts
    used = _edges_used(rack, cuts)
    if rack.best is not None and used <= LEAST_CHANCE_OF_LASTING:
        return None
    types = choose(job_for(snapshot, saw, given, type_candidates(snapshot)))
    best = types.best
    if best is None or rack.stop is not None:
        return None
    facts = best.evaluation.facts
    per_edge = best.run.equivalent_m * cuts / facts.life_m
    why = (
        prevented(rack)
        if rack.best is None
        else f"The job wears {used:.1f} edges; a spare keeps it going"
    )
    band = facts.band
    return _Want(
        (band.label, facts.length_mm),
        ShoppingLine(
            label=band.label,
            width_mm=band.width_mm,
            thickness_mm=band.thickness_mm,
            tpi_lo=band.tpi_lo,
            tpi_hi=band.tpi_hi,
            form=band.form,
            steel=band.steel,
            length_mm=facts.length_mm,
            count=max(1, round(per_edge + 0.49)),
            price=facts.price,
            jobs=[row.name or f"Job {row.id}"],
            why=why,
        ),
    )


def shopping_list(session: Session) -> list[ShoppingLine]:
    """What to buy for the open jobs, one line for each type and length."""
    snapshot = read_snapshot(session)
    saws = {s.id: s for s in snapshot.saws}
    rows = session.scalars(
        select(JobRow).where(JobRow.deleted_at.is_(None), JobRow.state.in_(OPEN_STATES))
    )
    lines: dict[tuple[str, float], list[ShoppingLine]] = defaultdict(list)
    for row in rows:
        saw = saws.get(row.saw_id or 0)
        if saw is None:
            continue
        try:
            want = _want(row, saw, snapshot)
        except InputError:
            continue
        if want is not None:
            lines[want.key].append(want.line)
    return [_together(found) for found in lines.values()]


def _together(found: list[ShoppingLine]) -> ShoppingLine:
    """Lines of one type and length as one: the counts added, the jobs named."""
    first = found[0]
    return ShoppingLine(
        **{
            name: getattr(first, name)
            for name in ShoppingLine.__dataclass_fields__
            if name not in ("count", "jobs", "why")
        },
        count=sum(line.count for line in found),
        jobs=[name for line in found for name in line.jobs],
        why=join("; ", dict.fromkeys(line.why for line in found)),
    )
