"""What a saw that is only considered would do with the shop's own jobs."""

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.choosing.choose import Ranked, choose
from jade_ribbon.core.choosing.conflicts import Reason
from jade_ribbon.core.choosing.considered import Against, Stands, against_own, summed
from jade_ribbon.core.money.changing import prevented
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import Said
from jade_ribbon.services.planning.jobs import plan_input
from jade_ribbon.services.planning.snapshot import (
    Snapshot,
    job_for,
    read_snapshot,
    type_candidates,
)
from jade_ribbon.services.records import get
from jade_ribbon.store.models import JobRow, SawRow

MOST_JOBS = 20
"""So many of the latest jobs are asked: each is a choice on either saw."""


@dataclass(frozen=True)
class ConsideredLine:
    """One job: the type a considered saw would take and its cost a piece, against one's own."""

    job_id: int
    name: str
    band: str
    """The type it would take; '' where it cannot."""
    words: Said
    """Why it cannot; '' where it can."""
    feed_m_min: float | None
    cost: float | None
    own_saw: str
    own_cost: float | None
    stands: Stands
    saved: float | None


@dataclass(frozen=True)
class ConsideredAnswer:
    """All jobs asked, newest first, and what they say together."""

    lines: list[ConsideredLine]
    words: str


def _best(snapshot: Snapshot, row: SawRow, job: JobRow) -> tuple[Ranked | None, Said]:
    """The type of least cost on a saw for a job; else why there is none."""
    asked = job_for(snapshot, row, plan_input(job, row.id), type_candidates(snapshot))
    try:
        choice = choose(asked, brief=True)
        if choice.best is None:
            choice = choose(asked)
    except InputError as error:
        return None, error.faults[0].message
    stop: Reason | None = choice.stop
    if choice.best is None:
        return None, stop.text if stop else prevented(choice)
    return choice.best, ""


def _line(snapshot: Snapshot, row: SawRow, job: JobRow) -> tuple[ConsideredLine, Against, float]:
    """A job on both saws, each with new common types, so that no old edge speaks."""
    best, words = _best(snapshot, row, job)
    owned = [s for s in snapshot.saws if job.saw_id in (None, s.id)] or list(snapshot.saws)
    tried = [(saw.name, _best(snapshot, saw, job)[0]) for saw in owned]
    able = [(found.total, name) for name, found in tried if found is not None]
    own_cost, own_saw = min(able, default=(None, ""))
    cost = best.total if best is not None else None
    against = against_own(cost, own_cost, job.count)
    line = ConsideredLine(
        job.id,
        job.name or f"Job {job.id}",
        best.evaluation.facts.band.label if best is not None else "",
        words,
        best.run.feed_m_min if best is not None else None,
        cost,
        own_saw,
        own_cost,
        against.stands,
        against.saved,
    )
    both = own_cost is not None and cost is not None
    return line, against, (own_cost or 0.0) * job.count if both else 0.0


def considered(session: Session, saw_id: int) -> ConsideredAnswer:
    """What a saw would do with the latest jobs: which, with which bands, at what cost."""
    row: SawRow = get(session, "saw", saw_id)
    snapshot = read_snapshot(session)
    jobs = session.scalars(
        select(JobRow)
        .where(JobRow.deleted_at.is_(None))
        .order_by(JobRow.id.desc())
        .limit(MOST_JOBS)
    ).all()
    asked = [_line(snapshot, row, job) for job in jobs]
    money = sum(own for _, _, own in asked)
    return ConsideredAnswer([line for line, _, _ in asked], summed([a for _, a, _ in asked], money))
