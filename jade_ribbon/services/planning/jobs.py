"""Jobs: save, duplicate, reopen, export and import as a job file."""

import json
from collections.abc import Mapping
from datetime import datetime
from typing import Any, Literal

from sqlalchemy import func, literal, select, tuple_
from sqlalchemy.orm import Session

from jade_ribbon.core.job import Job
from jade_ribbon.core.mechanics.outline import Stretch
from jade_ribbon.formats.job import CutFile, JobFile, RatesFile, RulesFile, SawFile, saw_record
from jade_ribbon.formats.recommendation import band_line
from jade_ribbon.formats.validation import read_json
from jade_ribbon.reference.tables import Material
from jade_ribbon.services.clock import now
from jade_ribbon.services.edits import Edit, edit_of
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.field_types import Id
from jade_ribbon.services.planning.inputs import JobInput, PlanInput
from jade_ribbon.services.planning.snapshot import Snapshot, job_for, rack_candidates, read_snapshot
from jade_ribbon.services.records import ChangeId, as_record, get, log_change
from jade_ribbon.services.shop.materials import material_table, own_file, take_file
from jade_ribbon.services.shop.saws import check_owned, core_saw, owned_saws
from jade_ribbon.services.shop.settings import read_shop, rules_for
from jade_ribbon.store.models import BandRow, JobRow, RunRow, SawRow, SetupRow, UtcDateTime

CUT_KEYS = tuple(CutFile.model_fields)
SLICE_KEYS = ("slice_mm", "billet_mm")
"""What the sentence says of slices beside the cut."""
EDITED = (*CUT_KEYS, *SLICE_KEYS, "name", "note", "rules", "saw_id", "band_id")
JobEdit = edit_of(JobInput)
STATES = ("planned", "ready", "running", "done")


class JobAnswer(CutFile):
    """A job as the ticket shows it: its cut, and what is said and known beside it."""

    id: int
    name: str
    note: str
    material_name: str
    slice_mm: float | None
    billet_mm: float | None
    stretches: list[Stretch]
    rules: dict[str, Any]
    what_if: dict[str, float] | None
    saw_id: int | None
    saw_name: str | None
    band_id: int | None
    band_label: str | None
    stock_id: int | None
    state: str
    done_pieces: int
    setup_id: int | None
    updated_at: datetime
    version: int


def cut_file(row: JobRow) -> CutFile:
    """The cut of a job."""
    return CutFile(**{k: getattr(row, k) for k in CUT_KEYS})


def plan_input(row: JobRow, saw_id: int) -> PlanInput:
    """The question a job puts to Plan, for the shop as it is: nothing tried out."""
    return PlanInput(
        **{k: getattr(row, k) for k in CUT_KEYS},
        saw_id=saw_id,
        **{k: getattr(row, k) for k in SLICE_KEYS},
        rules=row.rules,
    )


def job_with_band(session: Session, row: JobRow, saw: SawRow, band_id: int) -> tuple[Job, Snapshot]:
    """The core's job of a saved one with a single band of the rack; with none that is not there."""
    given = plan_input(row, saw.id)
    snapshot = read_snapshot(session)
    bands = tuple(b for b in rack_candidates(snapshot, saw.id, given) if b.band_id == band_id)
    return job_for(snapshot, saw, given, bands), snapshot


def rules_file(session: Session, row: JobRow) -> RulesFile:
    """House rules of the shop with this job's overrides."""
    rules = rules_for(read_shop(session), row.rules)
    return RulesFile(**{k: getattr(rules, k) for k in RulesFile.model_fields})


def _answer(
    row: JobRow,
    saw: str | None,
    band: str | None,
    done: int,
    setup_id: int | None,
    table: Mapping[str, Material],
) -> JobAnswer:
    material = table.get(row.material)
    found: JobAnswer = JobAnswer.model_construct(
        id=row.id,
        name=row.name or f"Job {row.id}",
        note=row.note,
        material_name=material.name if material else row.material,
        saw_name=saw,
        band_label=band,
        done_pieces=done,
        setup_id=setup_id,
        **{k: getattr(row, k) for k in SLICE_KEYS},
        rules=row.rules,
        what_if=row.what_if or None,
        saw_id=row.saw_id,
        band_id=row.band_id,
        stock_id=row.stock_id,
        state=row.state,
        updated_at=row.updated_at,
        version=row.version,
        stretches=[Stretch(**s) for s in row.stretches],
        **{k: getattr(row, k) for k in CUT_KEYS if k != "stretches"},
    )
    return found


OPEN_LISTED, DONE_LISTED = 200, 100
"""Jobs of one page: those that are open, and the done ones after them."""


def _listed(session: Session, before: int | None) -> list[int]:
    """Which jobs a page lists: all open ones and the latest done; or done ones before a job."""
    newest = (JobRow.updated_at.desc(), JobRow.id.desc())
    is_done = JobRow.state == "done"
    live = select(JobRow.id).where(JobRow.deleted_at.is_(None)).order_by(*newest)
    if before is not None:
        job: JobRow = get(session, "job", before)
        older = tuple_(JobRow.updated_at, JobRow.id) < tuple_(
            literal(job.updated_at, UtcDateTime), literal(job.id)
        )
        return list(session.scalars(live.where(is_done, older).limit(DONE_LISTED)))
    return [
        *session.scalars(live.where(~is_done).limit(OPEN_LISTED)),
        *session.scalars(live.where(is_done).limit(DONE_LISTED)),
    ]


def list_jobs(session: Session, before: Id | None = None) -> list[JobAnswer]:
    """A page of live jobs, newest first; five statements."""
    ids = _listed(session, before)
    rows = session.execute(
        select(JobRow, SawRow.name, BandRow.label)
        .outerjoin(SawRow, JobRow.saw_id == SawRow.id)
        .outerjoin(BandRow, JobRow.band_id == BandRow.id)
        .where(JobRow.id.in_(ids))
        .order_by(JobRow.updated_at.desc(), JobRow.id.desc())
    ).all()
    runs = (
        select(RunRow.job_id, func.sum(RunRow.pieces))
        .where(RunRow.job_id.in_(ids), RunRow.deleted_at.is_(None))
        .group_by(RunRow.job_id)
    )
    cards = (
        select(SetupRow.job_id, func.max(SetupRow.id))
        .where(SetupRow.job_id.in_(ids), SetupRow.deleted_at.is_(None))
        .group_by(SetupRow.job_id)
    )
    done = {row[0]: row[1] for row in session.execute(runs)}
    setups = {row[0]: row[1] for row in session.execute(cards)}
    table = material_table(session)
    return [_answer(j, s, b, done.get(j.id, 0), setups.get(j.id), table) for j, s, b in rows]


def one_job(session: Session, job_id: int) -> JobAnswer:
    """One job. NotFoundError."""
    row: JobRow = get(session, "job", job_id)
    saw = session.get(SawRow, row.saw_id) if row.saw_id else None
    band = session.get(BandRow, row.band_id) if row.band_id else None
    pieces = session.scalars(
        select(RunRow.pieces).where(RunRow.job_id == job_id, RunRow.deleted_at.is_(None))
    )
    setup = session.scalars(
        select(SetupRow.id)
        .where(SetupRow.job_id == job_id, SetupRow.deleted_at.is_(None))
        .order_by(SetupRow.id.desc())
    ).first()
    return _answer(
        row,
        saw.name if saw else None,
        band.label if band else None,
        sum(pieces),
        setup,
        material_table(session),
    )


def _apply(session: Session, row: JobRow, given: JobInput) -> None:
    given.to_core(material_table(session))
    if given.saw_id is not None:
        check_owned(get(session, "saw", given.saw_id))
    if given.band_id is not None:
        get(session, "band", given.band_id)
    for key, value in given.model_dump(include=set(EDITED)).items():
        setattr(row, key, value)
    tried = given.what_if.model_dump(exclude_none=True) if given.what_if else {}
    row.what_if = tried
    row.updated_at = now()


def add_job(session: Session, given: JobInput, *, at: datetime | None = None) -> JobAnswer:
    """Save a new job. InputError."""
    when = at or now()
    row = JobRow(created_at=when, updated_at=when, state="planned")
    _apply(session, row, given)
    row.updated_at = when
    session.add(row)
    log_change(session, row, "add", None)
    return one_job(session, row.id)


def edit_job(session: Session, job_id: int, given: JobInput) -> JobAnswer:
    """Save a job's cut. A changed cut asks for a new set-up: it is planned again."""
    row: JobRow = get(session, "job", job_id)
    before = as_record(row)
    _apply(session, row, given)
    changed = any(before[k] != getattr(row, k) for k in (*CUT_KEYS, "saw_id", "band_id"))
    if changed and row.state in ("ready", "running"):
        row.state = "planned"
    log_change(session, row, "edit", before)
    return one_job(session, job_id)


def save_job(session: Session, job_id: int, edit: Edit) -> JobAnswer:
    """Save what was changed of a job. StaleError when it was saved by somebody else since."""
    row: JobRow = get(session, "job", job_id)
    current = {k: getattr(row, k) for k in EDITED} | {"what_if": row.what_if or None}
    return edit_job(session, job_id, edit.onto(JobInput, current, row.version))


def set_state(session: Session, row: JobRow, state: str) -> None:
    """Move a job along: planned, ready, running, done."""
    if row.state != state:
        before = as_record(row)
        row.state, row.updated_at = state, now()
        log_change(session, row, state, before)


def set_job_state(session: Session, job_id: int, state: Literal["planned", "done"]) -> JobAnswer:
    """Close a job, or open a closed one again. ConflictError for anything else."""
    row: JobRow = get(session, "job", job_id)
    if state == "done" and row.state == "done":
        raise ConflictError("This job is done already.")
    set_state(session, row, state)
    return one_job(session, job_id)


def duplicate_job(session: Session, job_id: int) -> JobAnswer:
    """A new planned job with the same cut."""
    row: JobRow = get(session, "job", job_id)
    copied = {
        k: getattr(row, k)
        for k in (*CUT_KEYS, *SLICE_KEYS, "rules", "what_if", "saw_id", "band_id")
    }
    copy = JobRow(
        **copied,
        name=f"{row.name or f'Job {row.id}'}, again"[:120],
        state="planned",
        created_at=now(),
        updated_at=now(),
    )
    session.add(copy)
    log_change(session, copy, "add", None)
    return one_job(session, copy.id)


def delete_job(session: Session, job_id: int) -> ChangeId:
    """Delete a job; the id of the change, for undo."""
    row = get(session, "job", job_id)
    before = as_record(row)
    row.deleted_at = now()
    return log_change(session, row, "delete", before).id


def export_job(session: Session, job_id: int) -> dict[str, Any]:
    """The job as a job file with its saw, the rules in force and the rack."""
    row: JobRow = get(session, "job", job_id)
    if row.saw_id is None:
        raise ConflictError("Choose a saw first: a job file names one.")
    saw_row: SawRow = get(session, "saw", row.saw_id)
    snapshot = read_snapshot(session)
    cut = cut_file(row)
    bands = []
    for band in rack_candidates(snapshot, row.saw_id, plan_input(row, row.saw_id)):
        record = band_line(band)
        bands.append(record | {"dullness": min(band.dullness, 1.0)})
    rates = RatesFile(**{k: getattr(snapshot.shop.rates, k) for k in RatesFile.model_fields})
    own = own_file(session, row.material)
    return {
        "format": "jade-ribbon/job",
        "version": 1,
        "saw": saw_record(core_saw(saw_row)),
        "cut": cut.model_dump(),
        "rules": rules_file(session, row).model_dump(),
        "rates": rates.model_dump(),
        "bands": bands,
    } | ({"materials": {row.material: own}} if own else {})


def import_job(session: Session, text: bytes) -> JobAnswer:
    """A job from a job file. Its saw is the shop's saw of that name, if there is one."""
    document: JobFile = read_json(JobFile, text)
    document.to_core()
    key = document.cut.material
    if key in document.materials:
        key = take_file(session, key, document.materials[key])
    saw = _saw_named(session, document.saw)
    defaults = RulesFile().model_dump()
    overrides = {k: v for k, v in document.rules.model_dump().items() if v != defaults[k]}
    given = JobInput(
        **document.cut.model_dump(exclude={"material"}),
        material=key,
        name=f"From file: {document.saw.name or 'unnamed saw'}"[:120],
        rules=json.loads(json.dumps(overrides)),
        saw_id=saw.id if saw else None,
    )
    return add_job(session, given)


def _saw_named(session: Session, file: SawFile) -> SawRow | None:
    return session.scalars(owned_saws().where(SawRow.name == file.name)).first()
