"""Saws: add, edit, mount, tension state."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import Select, select
from sqlalchemy.orm import Session

from jade_ribbon.core.choosing.conflicts import misfits
from jade_ribbon.core.job import Candidate, Drive, Saw, type_of
from jade_ribbon.core.quantities.words import metric
from jade_ribbon.core.saw_defaults.first_job import FirstJob, first_job
from jade_ribbon.core.saw_defaults.worked_out import WorkedOut, worked_out
from jade_ribbon.core.setup.readiness import TensionState
from jade_ribbon.formats.job import SawFile, saw_file
from jade_ribbon.services.clock import now
from jade_ribbon.services.edits import Edit, edit_of
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.records import ChangeId, as_record, get, log_change, must_hold
from jade_ribbon.services.shop.inputs import MountInput, SawInput, TensionInput, WorkOutInput
from jade_ribbon.store.models import BandEventRow, BandRow, SawRow

SAW_PLAIN = tuple(
    n for n in SawFile.model_fields if n not in ("drive", "band_length_mm", "band_width_mm")
)


@dataclass(frozen=True)
class SawAnswer:
    """A saw as shown: its figures, what is mounted, whether under tension."""

    id: int
    saw: SawFile
    assumed: list[str]
    note: str
    considered: bool
    mounted_band_id: int | None
    mounted_label: str | None
    tension_state: TensionState
    tension_since: datetime | None
    tension_stress_MPa: float | None
    first_job: FirstJob
    """What a new job on it starts with."""
    version: int


SawEdit = edit_of(SawInput)


def core_saw(row: SawRow) -> Saw:
    """The core's saw of a row."""
    plain: dict[str, Any] = {n: getattr(row, n) for n in SAW_PLAIN}
    plain["wheel_diameters_mm"] = tuple(row.wheel_diameters_mm)
    plain["band_length_mm"] = (row.band_length_min_mm, row.band_length_max_mm)
    plain["band_width_mm"] = (row.band_width_min_mm, row.band_width_max_mm)
    drive: dict[str, Any] = {
        k: tuple(v) if isinstance(v, list) else v for k, v in row.drive.items()
    }
    return Saw(
        drive=Drive(**drive),
        wheels_out=row.wheels_out,
        down=tuple(sorted(k for k, v in (row.accessories or {}).items() if v == "down")),
        force_assumed="wheel_force_max_N" in row.assumed,
        **plain,
    )


def saw_answer(row: SawRow, label: str | None) -> SawAnswer:
    saw = core_saw(row)
    return SawAnswer(
        id=row.id,
        saw=saw_file(saw),
        assumed=row.assumed,
        note=row.note,
        considered=row.considered,
        mounted_band_id=row.mounted_band_id,
        mounted_label=label,
        tension_state=row.tension_state,
        tension_since=row.tension_since,
        tension_stress_MPa=row.tension_stress_MPa,
        first_job=first_job(saw),
        version=row.version,
    )


def owned_saws() -> Select[SawRow]:
    """The saws that are worked with, in order: live ones, not those only considered."""
    owned = (SawRow.deleted_at.is_(None), SawRow.considered.is_(False))
    return select(SawRow).where(*owned).order_by(SawRow.id)


def check_owned(row: SawRow) -> None:
    """ConflictError for a saw that is only considered: nothing is worked on it."""
    if row.considered:
        raise ConflictError(
            f"{row.name} is only considered: say that it is yours before work is planned on it."
        )


def list_saws(session: Session) -> list[SawAnswer]:
    """All live saws with the label of what is on them; one statement."""
    rows = session.execute(
        select(SawRow, BandRow.label)
        .outerjoin(BandRow, SawRow.mounted_band_id == BandRow.id)
        .where(SawRow.deleted_at.is_(None))
        .order_by(SawRow.id)
    )
    return [saw_answer(saw, label) for saw, label in rows]


def one_saw(session: Session, saw_id: int) -> SawAnswer:
    """One saw. NotFoundError."""
    row = get(session, "saw", saw_id)
    band = session.get(BandRow, row.mounted_band_id) if row.mounted_band_id else None
    return saw_answer(row, band.label if band else None)


def work_out_saw(given: WorkOutInput) -> WorkedOut:
    """Speed, length and force that follow from what is known of a saw."""
    known = given.model_dump()
    return worked_out(wheels_mm=tuple(known.pop("wheels_mm")), **known)


def _apply(row: SawRow, given: SawInput) -> None:
    for name in SAW_PLAIN:
        setattr(row, name, getattr(given, name))
    row.band_length_min_mm, row.band_length_max_mm = given.band_length_mm
    row.band_width_min_mm, row.band_width_max_mm = given.band_width_mm
    row.drive = given.drive.model_dump(exclude_none=True)
    row.assumed, row.note, row.considered = given.assumed, given.note, given.considered


def add_saw(session: Session, given: SawInput) -> SawAnswer:
    """Add a saw. InputError."""
    row = SawRow(tension_state="unknown", version=1)
    _apply(row, given)
    session.add(row)
    log_change(session, row, "add", None)
    return saw_answer(row, None)


def edit_saw(session: Session, saw_id: int, given: SawInput) -> SawAnswer:
    row = get(session, "saw", saw_id)
    before = as_record(row)
    _apply(row, given)
    log_change(session, row, "edit", before)
    return one_saw(session, saw_id)


def save_saw(session: Session, saw_id: int, edit: Edit) -> SawAnswer:
    """Save what was changed of a saw. StaleError when it was saved by somebody else since."""
    row: SawRow = get(session, "saw", saw_id)
    current = saw_file(core_saw(row)).model_dump() | {
        "assumed": row.assumed,
        "note": row.note,
        "considered": row.considered,
    }
    return edit_saw(session, saw_id, edit.onto(SawInput, current, row.version))


@must_hold("saw")
def saw_and_its_band(session: Session, row: SawRow) -> None:
    """What is on a saw is on the rack and on no other; a saw with a band on it is not deleted."""
    if row.mounted_band_id is None:
        if row.tension_state == "on":
            raise ConflictError(f"No band is on {row.name}: mount one before tensioning.")
        return
    if row.considered:
        raise ConflictError(f"{row.name} is only considered: no band goes on it.")
    band = session.get(BandRow, row.mounted_band_id)
    if band is None or band.deleted_at is not None:
        raise ConflictError(f"The band that was on {row.name} was deleted.")
    if row.deleted_at is not None:
        raise ConflictError(f"{band.label} is on {row.name}: take it off before deleting the saw.")
    if band.state != "rack":
        raise ConflictError(f"Band {band.label} is {band.state}; it cannot be mounted.")
    other = session.scalars(
        select(SawRow).where(SawRow.mounted_band_id == band.id, SawRow.id != row.id)
    ).first()
    if other is not None:
        raise ConflictError(f"Band {band.label} is on {other.name}: take it off there first.")


def delete_saw(session: Session, saw_id: int) -> ChangeId:
    """Delete a saw; the id of the change, for undo."""
    row = get(session, "saw", saw_id)
    before = as_record(row)
    row.deleted_at = now()
    return log_change(session, row, "delete", before).id


def _tell_band(session: Session, row: SawRow, kind: str, who: str, at: datetime) -> None:
    """Put in its band's record that it was put on a saw, or taken off."""
    event = BandEventRow(band_id=row.mounted_band_id, at=at, kind=kind, detail=row.name, who=who)
    session.add(event)
    log_change(session, event, "add", None)


def _take_off(session: Session, row: SawRow, who: str, at: datetime) -> None:
    if row.mounted_band_id is not None:
        _tell_band(session, row, "dismounted", who, at)
    row.mounted_band_id = None
    row.tension_state, row.tension_since, row.tension_stress_MPa = "slack", at, None


def _check_fits(row: SawRow, band: BandRow) -> None:
    """ConflictError for a band that does not go on a saw: too long, short, wide, narrow, thick."""
    found = Candidate(**type_of(band), length_mm=band.length_mm)
    wrong = [metric(reason.text) for reason in misfits(found, core_saw(row))]
    if wrong:
        raise ConflictError(f"{band.label} does not go on {row.name}: {'; '.join(wrong)}.")


def mount(session: Session, saw_id: int, given: MountInput, *, at: datetime | None = None) -> None:
    """Put a band on a saw (slack until tensioned), or take it off.

    ConflictError when the band is on another saw, out, or scrapped.
    """
    when = at or now()
    row: SawRow = get(session, "saw", saw_id)
    if given.band_id is not None and given.band_id == row.mounted_band_id:
        return
    before = as_record(row)
    if given.band_id is not None:
        _check_fits(row, get(session, "band", given.band_id))
    with session.no_autoflush:
        _take_off(session, row, given.who, when)
        row.mounted_band_id = given.band_id
        log_change(session, row, "mount", before)
    if given.band_id is not None:
        _tell_band(session, row, "mounted", given.who, when)


def set_tension(
    session: Session, saw_id: int, given: TensionInput, *, at: datetime | None = None
) -> SawAnswer:
    """Record whether a saw is under tension. ConflictError with nothing on it."""
    row: SawRow = get(session, "saw", saw_id)
    before = as_record(row)
    row.tension_state, row.tension_since = given.state, at or now()
    row.tension_stress_MPa = given.stress_MPa if given.state == "on" else None
    log_change(session, row, "tension", before)
    return one_saw(session, saw_id)
