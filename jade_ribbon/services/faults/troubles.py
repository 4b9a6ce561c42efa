"""Troubles: told, asked about, mended, watched, closed; each step kept, and taken back."""

from datetime import datetime

from sqlalchemy.orm import Session

from jade_ribbon.core.faults.acting import complaint_of, stops
from jade_ribbon.core.faults.diagnosis import infer
from jade_ribbon.core.faults.measured import Measured
from jade_ribbon.core.faults.measures import measure
from jade_ribbon.reference.faults import causes
from jade_ribbon.services.clock import now
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.faults.answers import (
    MINOR,
    TroubleAnswer,
    first_causes,
    trouble_answer,
)
from jade_ribbon.services.faults.context import saw_context, scene_of
from jade_ribbon.services.faults.inputs import (
    AnswerInput,
    AnyCheck,
    AsideInput,
    CloseTroubleInput,
    MeasureInput,
    RemedyInput,
    SignsInput,
    StopInput,
    TroubleInput,
)
from jade_ribbon.services.faults.readings import readings_from_records
from jade_ribbon.services.faults.trouble_log import (
    ANSWER,
    REMEDY,
    STILL,
    STOPPED,
    TOLD,
    Step,
    diagnosis_of,
    learned_faults,
    told_of,
)
from jade_ribbon.services.records import ChangeId, as_record, get, log_change
from jade_ribbon.store.models import TroubleRow

ENDED = ("closed", "gone")


def _open(session: Session, trouble_id: int) -> TroubleRow:
    """A trouble that is not ended. ConflictError for one that is."""
    row: TroubleRow = get(session, "trouble", trouble_id)
    if row.state in ENDED:
        raise ConflictError("This trouble is closed: take the closing back first, or tell it anew.")
    return row


def tell_trouble(session: Session, given: TroubleInput, at: datetime | None = None) -> TroubleRow:
    """A trouble as first told, with what the records say of it by then."""
    get(session, "saw", given.saw_id)
    for noun in ("band", "job", "run"):
        key = getattr(given, f"{noun}_id")
        if key is not None:
            get(session, noun, key)
    when = at or now()
    scene = scene_of(session, given.saw_id, given.band_id, given.job_id, when)
    reads = {
        r.reads: {"value": r.value, "source": r.source, "at": r.at.isoformat() if r.at else ""}
        for r in readings_from_records(session, scene)
    }
    row = TroubleRow(
        saw_id=given.saw_id,
        band_id=given.band_id,
        job_id=given.job_id,
        run_id=given.run_id,
        began=given.began,
        opened_at=when,
        symptoms=dict(given.symptoms),
        reads=reads,
        aside=[],
        path=[],
        state="open",
        causes=[],
        note=given.note,
        who=given.who,
    )
    session.add(row)
    log_change(session, row, "add", None)
    return row


def add_trouble(session: Session, given: TroubleInput) -> TroubleAnswer:
    """A trouble as first told."""
    return trouble_answer(session, tell_trouble(session, given))


def one_trouble(session: Session, trouble_id: int, check: AnyCheck = "") -> TroubleAnswer:
    """A trouble as it stands, with a check that somebody chose."""
    return trouble_answer(session, get(session, "trouble", trouble_id), check=check)


def take_step(session: Session, row: TroubleRow, step: Step, at: datetime | None = None) -> int:
    """A step more of the path, with what stood first after it; the id of the change."""
    before = as_record(row)
    step = {**step, "at": (at or now()).isoformat()}
    path = [*row.path, step]
    found = infer(told_of(session, row, path), learned_faults(session).knowledge)
    row.path = [*row.path, {**step, "first": first_causes(found)}]
    return log_change(session, row, "edit", before).id


def _go(session: Session, row: TroubleRow, step: Step, at: datetime | None = None) -> TroubleAnswer:
    return trouble_answer(session, row, take_step(session, row, step, at))


def answer_check(session: Session, trouble_id: int, given: AnswerInput) -> TroubleAnswer:
    """What a check came to; also that nobody could tell, or that it was skipped."""
    row = _open(session, trouble_id)
    step = {"kind": ANSWER, "check": given.check, "outcome": given.outcome, "who": given.who}
    return _go(session, row, step)


def tell_signs(session: Session, trouble_id: int, given: SignsInput) -> TroubleAnswer:
    """Signs seen on the way, or told otherwise."""
    row = _open(session, trouble_id)
    return _go(session, row, {"kind": TOLD, "symptoms": dict(given.symptoms)})


def take_back_step(session: Session, trouble_id: int) -> TroubleAnswer:
    """The last step taken back. ConflictError at the start."""
    row = _open(session, trouble_id)
    if not row.path:
        raise ConflictError("Nothing was answered yet.")
    before = as_record(row)
    last = row.path[-1]
    row.path = row.path[:-1]
    if last["kind"] == REMEDY:
        row.state, row.remedy, row.remedied_at, row.remedy_minutes = "open", "", None, None
    if last["kind"] == STILL:
        row.state, row.remedy = "watching", last["cause"]
        row.remedied_at = datetime.fromisoformat(last["remedied_at"])
    change = log_change(session, row, "edit", before)
    return trouble_answer(session, row, change.id)


def set_readings_aside(session: Session, trouble_id: int, given: AsideInput) -> TroubleAnswer:
    """Readings that are not so here are left out; all others count."""
    row = _open(session, trouble_id)
    before = as_record(row)
    row.aside = [key for key in given.reads if key in row.reads]
    change = log_change(session, row, "edit", before)
    return trouble_answer(session, row, change.id)


def measure_check(session: Session, trouble_id: int, given: MeasureInput) -> Measured:
    """Which answer a check's figures are; nothing is kept till it is answered."""
    row: TroubleRow = get(session, "trouble", trouble_id)
    scene = scene_of(session, row.saw_id, row.band_id, row.job_id, row.opened_at)
    complaint = complaint_of(told_of(session, row, row.path))
    return measure(given.check, given.figures, saw_context(session, scene, complaint))


def acknowledge_stop(session: Session, trouble_id: int, given: StopInput) -> TroubleAnswer:
    """A stop is acknowledged by name. ConflictError for one that does not stand."""
    row = _open(session, trouble_id)
    if given.stop not in [s.key for s in stops(diagnosis_of(session, row))]:
        raise ConflictError(f"{given.stop} is no stop here now.")
    return _go(session, row, {"kind": STOPPED, "stop": given.stop, "who": given.who})


def mend(session: Session, row: TroubleRow, given: RemedyInput, at: datetime | None = None) -> int:
    """A remedy is done: the next run tells whether it went; the id of the change."""
    minutes = causes()[given.cause].remedy_minutes if given.minutes is None else given.minutes
    row.state, row.remedy, row.remedied_at = "watching", given.cause, at or now()
    row.remedy_minutes = minutes
    step = {"kind": REMEDY, "cause": given.cause, "minutes": minutes, "who": given.who}
    return take_step(session, row, step, at)


def remedy_done(session: Session, trouble_id: int, given: RemedyInput) -> TroubleAnswer:
    """A remedy is done."""
    row = _open(session, trouble_id)
    return trouble_answer(session, row, mend(session, row, given))


def still_there(session: Session, trouble_id: int, *, who: str = "") -> TroubleAnswer:
    """The remedy did not help: that speaks against its cause, and the asking goes on."""
    row = _open(session, trouble_id)
    if row.state != "watching" or row.remedied_at is None:
        raise ConflictError("No remedy was done yet: do one first.")
    step = {
        "kind": STILL,
        "cause": row.remedy,
        "remedied_at": row.remedied_at.isoformat(),
        "who": who,
    }
    row.state, row.remedy, row.remedied_at, row.remedy_minutes = "open", "", None, None
    return _go(session, row, step)


def end(
    session: Session, row: TroubleRow, given: CloseTroubleInput, at: datetime | None = None
) -> int:
    """Closed with its true causes, which teaches; or without, which teaches nothing."""
    before = as_record(row)
    found = given.causes if given.gone else []
    row.state = "closed" if found else "gone"
    row.causes, row.closed_at = list(found), at or now()
    if given.spoiled is not None:
        row.spoiled_minor = round(given.spoiled * MINOR)
    if given.note:
        row.note = given.note
    return log_change(session, row, "edit", before).id


def close_trouble(session: Session, trouble_id: int, given: CloseTroubleInput) -> TroubleAnswer:
    """A trouble closed; the id of the change for undo."""
    row = _open(session, trouble_id)
    return trouble_answer(session, row, end(session, row, given))


def delete_trouble(session: Session, trouble_id: int) -> ChangeId:
    """A trouble taken out of the book; the id of the change, for undo."""
    row: TroubleRow = get(session, "trouble", trouble_id)
    before = as_record(row)
    row.deleted_at = now()
    return log_change(session, row, "delete", before).id
