"""The shopping list: bands that open jobs want and the rack cannot give."""

from collections import defaultdict
from dataclasses import dataclass, replace

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.choosing.catalogue import type_label
from jade_ribbon.core.choosing.choose import Choice, Ranked, choose
from jade_ribbon.core.choosing.explanation.explain import worth_buying
from jade_ribbon.core.job import BandType, Candidate, type_of
from jade_ribbon.core.money.changing import prevented
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import Said, join
from jade_ribbon.services.memo import remembered
from jade_ribbon.services.planning.inputs import PlanInput
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
class ShoppingLine(BandType):
    """One type to buy: to which length, how many, what for and why."""

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


class _Wants:
    """What open jobs want, worked out once for jobs that are alike."""

    def __init__(self, snapshot: Snapshot) -> None:
        self._snapshot = snapshot
        self._bands: dict[tuple[int, str], tuple[Candidate, ...]] = {}
        self._known: dict[str, _Want | None] = {}

    def of(self, row: JobRow, saw: SawRow) -> _Want | None:
        """What a job wants bought, if anything. InputError for one that cannot be."""
        given = plan_input(row, saw.id)
        alike = f"{saw.id} {given.model_dump_json(exclude={'name', 'note'})}"
        if alike not in self._known:
            kind = (saw.id, given.material)
            if kind not in self._bands:
                self._bands[kind] = rack_candidates(self._snapshot, saw.id, given)
            self._known[alike] = _want(saw, self._snapshot, given, self._bands[kind])
        found = self._known[alike]
        if found is None:
            return None
        return replace(found, line=replace(found.line, jobs=[row.name or f"Job {row.id}"]))


def _to_buy(on_rack: Ranked | None, of_types: Ranked | None) -> Ranked | None:
    """The type that a job wants: one more of what the rack gives it, unless another costs less."""
    if on_rack is None or (of_types is not None and worth_buying(of_types, on_rack)):
        return of_types
    return on_rack


def _want(
    saw: SawRow, snapshot: Snapshot, given: PlanInput, bands: tuple[Candidate, ...]
) -> _Want | None:
    """What one open job wants bought, if anything."""
    job = job_for(snapshot, saw, given, bands)
    rack, cuts = choose(job), job.cut.cuts
    used = _edges_used(rack, cuts)
    if rack.best is not None and used <= LEAST_CHANCE_OF_LASTING:
        return None
    types = choose(job_for(snapshot, saw, given, type_candidates(snapshot)))
    best = _to_buy(rack.best, types.best)
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
    label = band.label
    if band.band_id is not None:
        kind = (band.width_mm, band.thickness_mm, band.tpi_lo, band.tpi_hi, band.form, band.steel)
        label = type_label(*kind)
    return _Want(
        (label, facts.length_mm),
        ShoppingLine(
            **type_of(band) | {"label": label},
            length_mm=facts.length_mm,
            count=max(1, round(per_edge + 0.49)),
            price=facts.price,
            jobs=[],
            why=why,
        ),
    )


def shopping_list(session: Session) -> list[ShoppingLine]:
    """What to buy for the open jobs, one line for each type and length."""
    return remembered(session, "shopping", lambda: _shopping_list(session))


def _shopping_list(session: Session) -> list[ShoppingLine]:
    snapshot = read_snapshot(session)
    saws = {s.id: s for s in snapshot.saws}
    rows = session.scalars(
        select(JobRow).where(JobRow.deleted_at.is_(None), JobRow.state.in_(OPEN_STATES))
    )
    lines: dict[tuple[str, float], list[ShoppingLine]] = defaultdict(list)
    wants = _Wants(snapshot)
    for row in rows:
        saw = saws.get(row.saw_id or 0)
        if saw is None:
            continue
        try:
            want = wants.of(row, saw)
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
