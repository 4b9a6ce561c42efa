"""What a saw that is only considered would do with the shop's own jobs."""

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.choosing.choose import Ranked, choose
from jade_ribbon.core.choosing.considered import SAID, Against, Stands, against_own, summed
from jade_ribbon.core.job import Job
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
from jade_ribbon.services.shop.saws import core_saw
from jade_ribbon.store.models import JobRow, SawRow

MOST_JOBS = 12
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
    said: str
    saved: float | None


@dataclass(frozen=True)
class ConsideredAnswer:
    """All jobs asked, newest first, and what they say together."""

    lines: list[ConsideredLine]
    words: str


def _asked(snapshot: Snapshot, row: SawRow, job: JobRow) -> Job:
    """A job on a saw with all types that can be bought."""
    return job_for(snapshot, row, plan_input(job, row.id), type_candidates(snapshot))


def _best(asked: Job) -> Ranked | None:
    """The type that would be chosen; None where none goes."""
    try:
        return choose(asked, brief=True).best
    except InputError:
        return None


def _why_not(asked: Job) -> Said:
    """What keeps every type from a job."""
    try:
        choice = choose(asked)
    except InputError as error:
        return error.faults[0].message
    return choice.stop.text if choice.stop else prevented(choice)


def _for(row: SawRow, job: JobRow) -> bool:
    """A mill is asked with logs, and with what is planned on it."""
    return job.operation == "mill" or job.saw_id == row.id or not core_saw(row).is_mill


def _line(snapshot: Snapshot, row: SawRow, job: JobRow) -> tuple[ConsideredLine, Against]:
    """A job on both saws, each with new common types, so that no old edge speaks."""
    asked = _asked(snapshot, row, job)
    best = _best(asked)
    tried = [
        (saw.name, _best(_asked(snapshot, saw, job))) for saw in snapshot.saws if _for(saw, job)
    ]
    able = [(found.total, name) for name, found in tried if found is not None]
    own_cost, own_saw = min(able, default=(None, ""))
    cost = best.total if best is not None else None
    against = against_own(cost, own_cost, job.count)
    line = ConsideredLine(
        job.id,
        job.name or f"Job {job.id}",
        best.evaluation.facts.band.label if best is not None else "",
        "" if best is not None else _why_not(asked),
        best.run.feed_m_min if best is not None else None,
        cost,
        own_saw,
        own_cost,
        against.stands,
        SAID[against.stands],
        against.saved,
    )
    return line, against


def considered_saw(session: Session, saw_id: int) -> ConsideredAnswer:
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
    return ConsideredAnswer(
        [line for line, _ in asked], summed([a for _, a in asked], snapshot.shop.currency)
    )
