"""Who may do what, which instruments are used, and what is known of a saw's fittings."""

import dataclasses
from dataclasses import dataclass
from statistics import median
from types import MappingProxyType
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.bands.facts import body_width_of
from jade_ribbon.core.job import Saw
from jade_ribbon.core.mechanics.tension import stress_from_pluck, travel_give
from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.quantities.words import Said, sentence
from jade_ribbon.core.setup.figures import free_span_of
from jade_ribbon.core.setup.fittings import Fittings, PrintedScaleMark
from jade_ribbon.core.setup.tension.calibration import CalibrationPoint, ScaleFit, fit_scale
from jade_ribbon.core.setup.tension.tension_reading import Calibrated
from jade_ribbon.devices.instrument import SPECS
from jade_ribbon.reference.care import holding
from jade_ribbon.reference.forms import names_of
from jade_ribbon.reference.tables import setup_step_texts
from jade_ribbon.services.edits import Edit, edit_of
from jade_ribbon.services.errors import ConflictError, NotAllowedError
from jade_ribbon.services.rack.edges import band_type
from jade_ribbon.services.records import ChangeId, as_record, get, log_change
from jade_ribbon.services.setup.inputs import FittingsInput, SettingUpInput
from jade_ribbon.services.shop.saws import core_saw
from jade_ribbon.services.shop.settings import shop_row
from jade_ribbon.store.models import BandRow, SawRow, ScalePointRow

INSTRUMENTS = (*SPECS, "microphone")


@dataclass(frozen=True)
class SettingUp:
    """Settings of a shop for setting up."""

    reserved: list[str]
    authorised: list[str]
    instruments: dict[str, str]
    holding: list[str]
    """Clamps, cradles and the like that this shop has."""
    version: int
    change_id: int | None = None


SettingUpEdit = edit_of(SettingUpInput)
FittingsEdit = edit_of(FittingsInput)


def read_setting_up(session: Session) -> SettingUp:
    """The shop's settings, each instrument read by hand unless chosen otherwise."""
    kept = shop_row(session).setting_up or {}
    chosen = kept.get("instruments", {})
    return SettingUp(
        reserved=kept.get("reserved", []),
        authorised=kept.get("authorised", []),
        instruments={k: chosen.get(k, "by_hand") for k in INSTRUMENTS},
        holding=kept.get("holding", []),
        version=shop_row(session).version,
    )


def write_setting_up(session: Session, given: SettingUpInput) -> SettingUp:
    """Save them. InputError for an unknown instrument; the change is kept for undo."""
    faults = [
        Fault(f"instruments.{k}", f"is unknown; accepted: {', '.join(INSTRUMENTS)}", k)
        for k in given.instruments
        if k not in INSTRUMENTS
    ]
    faults += [
        Fault(f"holding.{i}", f"{key!r} is unknown; accepted: {', '.join(holding())}", key)
        for i, key in enumerate(given.holding)
        if key not in holding()
    ]
    if faults:
        raise InputError(faults)
    row = shop_row(session)
    session.add(row)
    session.flush()
    before = as_record(row)
    row.setting_up = given.model_dump()
    change = log_change(session, row, "edit", before)
    kept = read_setting_up(session)
    return dataclasses.replace(kept, change_id=change.id)


def save_setting_up(session: Session, edit: Edit) -> SettingUp:
    """Save what was changed of them. StaleError when somebody else saved them since."""
    row = shop_row(session)
    return write_setting_up(session, edit.onto(SettingUpInput, row.setting_up or {}, row.version))


def remember_holding(session: Session, key: str) -> None:
    """One more means that this shop has; nothing where it is known already."""
    row = shop_row(session)
    kept = row.setting_up or {}
    if key not in kept.get("holding", []):
        have = {**kept, "holding": [*kept.get("holding", []), key]}
        write_setting_up(session, SettingUpInput.model_validate(have))


def check_device(session: Session, reserve: str) -> None:
    """NotAllowedError from a device of anyone's use, for what this shop reserves."""
    if reserve not in read_setting_up(session).reserved:
        return
    if session.info.get("role", "owner") == "anyone":
        raise NotAllowedError(
            f"{_reserved(reserve)} is reserved here, and this device joined for anyone's use: "
            "do it on one that joined as authorised."
        )


def _reserved(reserve: str) -> str:
    return names_of("reserve")[reserve].capitalize()


def check_authorised(session: Session, reserve: str, name: str) -> None:
    """ConflictError unless the step is free to all, or an authorised person's name is given.

    NotAllowedError from a device that may not, whatever name it gives.
    """
    settings = read_setting_up(session)
    if not reserve or reserve not in settings.reserved:
        return
    check_device(session, reserve)
    if name.strip() in settings.authorised and name.strip():
        return
    who = ", ".join(settings.authorised) or "nobody yet: name them in Shop"
    raise ConflictError(
        f"{_reserved(reserve)} is reserved here: an authorised person's name is needed ({who})."
    )


def fittings_record(row: SawRow) -> FittingsInput:
    """What is known of a saw's fittings, as saved and shown."""
    return FittingsInput.model_validate(row.fittings or {})


def core_fittings(row: SawRow) -> Fittings:
    """The core's fittings of a saw."""
    record = fittings_record(row)
    plain: dict[str, Any] = record.model_dump(exclude={"printed_marks", "good_for_h"})
    marks = tuple(PrintedScaleMark(m.width_mm, m.reading) for m in record.printed_marks)
    return Fittings(printed_marks=marks, good_for_h=MappingProxyType(record.good_for_h), **plain)


def save_fittings(session: Session, saw_id: int, edit: Edit) -> ChangeId:
    """Save what was changed of a saw's fittings. StaleError when the saw was saved since."""
    row: SawRow = get(session, "saw", saw_id)
    given = edit.onto(FittingsInput, fittings_record(row).model_dump(), row.version)
    return write_fittings(session, saw_id, given)


def write_fittings(session: Session, saw_id: int, given: FittingsInput) -> int:
    """Save what is known of a saw's fittings; the id of the change, for undo."""
    keys = {t.key for t in setup_step_texts()}
    faults = [
        Fault(f"good_for_h.{k}", f"is no step; accepted: {', '.join(sorted(keys))}", k)
        for k in given.good_for_h
        if k not in keys
    ]
    if faults:
        raise InputError(faults)
    row: SawRow = get(session, "saw", saw_id)
    before = as_record(row)
    row.fittings = given.model_dump()
    return log_change(session, row, "edit", before).id


@dataclass(frozen=True)
class KeptPoint:
    """A calibration point with the band it was measured on."""

    row: ScalePointRow
    band: BandRow
    point: CalibrationPoint


def scale_points(session: Session, saw_id: int) -> list[KeptPoint]:
    """The points of a saw's scale, oldest first."""
    rows = session.execute(
        select(ScalePointRow, BandRow)
        .join(BandRow, ScalePointRow.band_id == BandRow.id)
        .where(ScalePointRow.saw_id == saw_id, ScalePointRow.deleted_at.is_(None))
        .order_by(ScalePointRow.id)
    )
    return [
        KeptPoint(
            row,
            band,
            CalibrationPoint(
                row.reading, row.stress_MPa, body_width_of(band_type(band)), band.thickness_mm
            ),
        )
        for row, band in rows
    ]


def fit_or_none(points: list[KeptPoint], per_strand: float) -> tuple[ScaleFit | None, Said]:
    """The fitted line, or why there is none yet."""
    try:
        return fit_scale([p.point for p in points], force_per_strand=per_strand), ""
    except InputError as error:
        return None, sentence(f"{error.faults[0].path} ", error.faults[0].message)


def calibrated(session: Session, saw: SawRow) -> Calibrated:
    """What calibrating found on a saw, from its points."""
    points = scale_points(session, saw.id)
    core = core_saw(saw)
    fit, _ = fit_or_none(points, core.force_per_strand)
    gives = [
        travel_give(
            wheel_travel_mm=p.row.travel_mm,
            band_length_mm=p.band.length_mm,
            stress_MPa=p.row.stress_MPa,
        )
        for p in points
        if p.row.travel_mm is not None
    ]
    give = sorted(gives)[len(gives) // 2] if gives else None
    return Calibrated(
        fit, None if give is None else min(max(give, 0.0), 0.9), _note_factor(points, core)
    )


def _note_factor(points: list[KeptPoint], saw: Saw) -> float | None:
    """Stress by the gauge over stress by the note of the same band, where both were taken."""
    factors = []
    for p in points:
        span = free_span_of(saw, p.band.length_mm)
        if p.row.note_Hz is None or p.row.means != "gauge" or span is None:
            continue
        noted = stress_from_pluck(
            frequency_Hz=p.row.note_Hz,
            width_mm=p.band.width_mm,
            gullet_depth_mm=p.band.width_mm - p.point.body_width_mm,
            thickness_mm=p.band.thickness_mm,
            span_mm=span,
        ).stress_MPa
        factors.append(p.row.stress_MPa / noted)
    return median(factors) if factors else None
