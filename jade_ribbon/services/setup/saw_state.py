"""The saw as it stands: what is on it, how set, what is wrong, and what it can do as it is."""

import dataclasses
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy.orm import Session

from jade_ribbon.core.choosing.choose import Choice, choose
from jade_ribbon.core.job import Drive, Job
from jade_ribbon.core.money.changing import Way, cannot, changed_way, prevented, way
from jade_ribbon.core.money.changing import change_verdict as change_or_leave
from jade_ribbon.core.quantities.words import Said
from jade_ribbon.core.setup.saw_verdict import SawVerdict
from jade_ribbon.services.clock import now
from jade_ribbon.services.field_types import Id
from jade_ribbon.services.planning.jobs import plan_input
from jade_ribbon.services.planning.snapshot import Snapshot, job_for, rack_candidates, read_snapshot
from jade_ribbon.services.records import ChangeId, as_record, get, log_change
from jade_ribbon.services.setup.guide_life import GuideLife, guide_lives
from jade_ribbon.services.setup.inputs import CloseDefectInput, DefectInput, FittingsInput
from jade_ribbon.services.setup.past_setups import KeptSetup, kept_setups
from jade_ribbon.services.setup.roles import fittings_record
from jade_ribbon.services.setup.verdicts import verdict_of
from jade_ribbon.services.shop.defects import open_defects
from jade_ribbon.services.shop.saws import SawAnswer, one_saw
from jade_ribbon.store.models import DefectRow, JobRow, SawRow


@dataclass(frozen=True)
class Defect:
    """Something wrong with a saw."""

    id: int
    text: str
    stops: bool
    at: datetime
    who: str


@dataclass(frozen=True)
class NextJob:
    """Can it do the next job as it is, and what would changing gain."""

    job_id: int
    job_name: str
    as_it_is: Way
    changed: Way | None
    words: Said


@dataclass(frozen=True)
class SawState:
    """A saw as it stands."""

    saw: SawAnswer
    speed_set_m_s: float | None
    last: KeptSetup | None
    setups: list[KeptSetup]
    guides: list[GuideLife]
    defects: list[Defect]
    verdict: SawVerdict
    fittings: FittingsInput
    next_job: NextJob | None


def _speed_held(job: Job, speed: float | None) -> Job:
    """The job on the saw's speed as set, where it is known."""
    if speed is None:
        return job
    drive = Drive("fixed", speeds_m_s=(speed,))
    return dataclasses.replace(job, saw=dataclasses.replace(job.saw, drive=drive))


def _as_it_is(row: SawRow, job: Job, label: str) -> Way:
    """With the band that is on, at the tension and speed it was left at."""
    on = tuple(b for b in job.bands if b.mounted)
    if not on:
        return cannot(label or "nothing", "No band is on it.")
    held = dataclasses.replace(
        _speed_held(job, row.speed_set_m_s), bands=on, stress_MPa=row.tension_stress_MPa
    )
    choice: Choice = choose(held)
    if choice.best is None:
        words = choice.stop.text if choice.stop else prevented(choice)
        return cannot(on[0].label, words)
    return way(choice.best, held, 0.0)


def next_job(
    session: Session, row: SawRow, job_row: JobRow, snapshot: Snapshot, *, ready: bool
) -> NextJob:
    """What this saw would do with a job as it stands, against changing the band."""
    given = plan_input(job_row, row.id)
    job = job_for(snapshot, row, given, rack_candidates(snapshot, row.id, given))
    label = next((b.label for b in job.bands if b.mounted), "")
    as_it_is = _as_it_is(row, job, label)
    best = choose(job).best
    changed = changed_way(best, job, as_it_is) if best is not None else None
    name = job_row.name or f"Job {job_row.id}"
    words = change_or_leave(as_it_is, changed, snapshot.shop.currency, ready=ready)
    return NextJob(job_row.id, name, as_it_is, changed, words)


def _defects(session: Session, saw_id: int) -> list[Defect]:
    return [Defect(d.id, d.text, d.stops, d.at, d.who) for d in open_defects(session, saw_id)]


def saw_stands(session: Session, saw_id: int, job_id: Id | None = None) -> SawState:
    """A saw as it stands, and the job asked about."""
    row: SawRow = get(session, "saw", saw_id)
    kept = kept_setups(session, saw_id=saw_id)
    defects = _defects(session, saw_id)
    verdict = verdict_of(session, saw_id)
    asked = None
    if job_id is not None:
        job, snapshot = get(session, "job", job_id), read_snapshot(session)
        asked = next_job(session, row, job, snapshot, ready=not verdict.against)
    return SawState(
        saw=one_saw(session, saw_id),
        speed_set_m_s=row.speed_set_m_s,
        last=next((s for s in kept if s.finished_at is not None), None),
        setups=kept,
        guides=guide_lives(session, row),
        defects=defects,
        verdict=verdict,
        fittings=fittings_record(row),
        next_job=asked,
    )


def add_defect(session: Session, saw_id: int, given: DefectInput) -> Defect:
    """Note something wrong with a saw."""
    get(session, "saw", saw_id)
    row = DefectRow(saw_id=saw_id, at=now(), **given.model_dump())
    session.add(row)
    log_change(session, row, "add", None)
    return Defect(row.id, row.text, row.stops, row.at, row.who)


def close_defect(session: Session, defect_id: int, given: CloseDefectInput) -> ChangeId:
    """Close a defect by name; the id of the change, for undo."""
    row: DefectRow = get(session, "defect", defect_id)
    before = as_record(row)
    row.closed_at, row.closed_by = now(), given.who
    return log_change(session, row, "close", before).id
