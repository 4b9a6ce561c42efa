"""A saw's own tension scale, calibrated here; and its speeds, measured here."""

import dataclasses
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated

from pydantic import Field
from sqlalchemy.orm import Session

from jade_ribbon.core.job import Saw
from jade_ribbon.core.mechanics.speed import rim_speed
from jade_ribbon.core.quantities.words import Said
from jade_ribbon.core.setup.drive_settings import (
    TACHOMETER_SHARE,
    PulleyChange,
    Setting,
    check_step,
    corrected,
    counting_uncertainty,
    pulley_change,
    settings,
    speed_from_turns,
    speed_verdict,
)
from jade_ribbon.core.setup.tension.calibration import PrintedMark, ScaleFit
from jade_ribbon.core.setup.tension.printed_scale import printed_marks
from jade_ribbon.formats.job import SawFile, saw_file, saw_record
from jade_ribbon.services.clock import now
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.records import ChangeId, as_record, get, log_change
from jade_ribbon.services.setup.inputs import ScalePointInput, SpeedMeasured
from jade_ribbon.services.setup.roles import KeptPoint, core_fittings, fit_or_none, scale_points
from jade_ribbon.services.shop.saws import core_saw
from jade_ribbon.store.models import SawRow, ScalePointRow


@dataclass(frozen=True)
class ScalePoint:
    """A point as shown: what it is off the line by."""

    id: int
    at: datetime
    band_label: str
    width_mm: float
    reading: float
    stress_MPa: float
    force_N: float
    residual_N: float | None
    means: str
    who: str


@dataclass(frozen=True)
class ScaleAnswer:
    """A scale's points, its line, and how far its printed marks are off."""

    points: list[ScalePoint]
    fit: ScaleFit | None
    why_not: Said
    marks: list[PrintedMark]
    change_id: int | None


def _points(points: list[KeptPoint], fit: ScaleFit | None, saw: Saw) -> list[ScalePoint]:
    residuals = fit.residuals_N if fit else [None] * len(points)
    return [
        ScalePoint(
            id=p.row.id,
            at=p.row.at,
            band_label=p.band.label,
            width_mm=p.band.width_mm,
            reading=p.row.reading,
            stress_MPa=p.row.stress_MPa,
            force_N=p.point.wheel_force_N(saw.force_per_strand),
            residual_N=residual,
            means=p.row.means,
            who=p.row.who,
        )
        for p, residual in zip(points, residuals, strict=True)
    ]


def saw_scale(session: Session, saw_id: int, *, change_id: int | None = None) -> ScaleAnswer:
    """The calibration of a saw's own scale as it stands."""
    row: SawRow = get(session, "saw", saw_id)
    saw = core_saw(row)
    points = scale_points(session, saw_id)
    fit, why = fit_or_none(points, saw.force_per_strand)
    per_strand = saw.force_per_strand
    printed = core_fittings(row).printed_marks
    marks = printed_marks(fit, printed, force_per_strand=per_strand) if fit else []
    return ScaleAnswer(_points(points, fit, saw), fit, why, marks, change_id)


def add_scale_point(session: Session, saw_id: int, given: ScalePointInput) -> ScaleAnswer:
    """Keep a point, with the band that is on the saw. ConflictError when none is."""
    saw: SawRow = get(session, "saw", saw_id)
    if saw.mounted_band_id is None:
        raise ConflictError(f"No band is on {saw.name}: a point needs the band it was measured on.")
    row = ScalePointRow(saw_id=saw_id, band_id=saw.mounted_band_id, at=now(), **given.model_dump())
    session.add(row)
    change = log_change(session, row, "add", None)
    return saw_scale(session, saw_id, change_id=change.id)


def delete_scale_point(session: Session, point_id: int) -> ChangeId:
    """Delete a point; the id of the change, for undo."""
    row: ScalePointRow = get(session, "scale_point", point_id)
    before = as_record(row)
    row.deleted_at = now()
    return log_change(session, row, "delete", before).id


@dataclass(frozen=True)
class SpeedsAnswer:
    """The speeds a saw has against a target, and pulleys where no step is near."""

    target_m_s: float
    settings: tuple[Setting, ...]
    pulleys: PulleyChange | None
    why_no_pulleys: str


SpeedAsked = Annotated[float, Field(ge=0.05, le=150, allow_inf_nan=False)]


def saw_speeds(session: Session, saw_id: int, target_m_s: SpeedAsked) -> SpeedsAnswer:
    """Settings of a saw's drive for a band speed (m/s)."""
    row: SawRow = get(session, "saw", saw_id)
    drive, fittings = core_saw(row).drive, core_fittings(row)
    change, why = None, ""
    if drive.kind == "inverter":
        why = "An inverter gives any speed in its range."
    elif fittings.motor_pulley_mm and fittings.wheel_pulley_mm:
        change = pulley_change(
            drive,
            target_speed_m_s=target_m_s,
            motor_pulley_mm=fittings.motor_pulley_mm,
            wheel_pulley_mm=fittings.wheel_pulley_mm,
        )
    else:
        why = "The saw's pulleys are not recorded."
    return SpeedsAnswer(target_m_s, settings(drive, target_m_s=target_m_s), change, why)


@dataclass(frozen=True)
class MeasuredSpeed:
    """A speed as measured against the saw's record; kept when asked."""

    speed_m_s: float
    uncertainty_m_s: float
    nominal_m_s: float
    off_share: float
    words: Said
    saw: SawFile
    change_id: int | None


def measure_speed(session: Session, saw_id: int, given: SpeedMeasured) -> MeasuredSpeed:
    """Band speed from counted turns or a tachometer; corrects the saw's record when asked."""
    row: SawRow = get(session, "saw", saw_id)
    saw = core_saw(row)
    diameter = saw.wheel_diameters_mm[-1]
    if given.turns is not None and given.seconds is not None:
        speed = speed_from_turns(
            turns=given.turns, seconds=given.seconds, wheel_diameter_mm=diameter
        )
        share = counting_uncertainty(given.turns, given.seconds)
    else:
        speed = rim_speed(wheel_diameter_mm=diameter, wheel_rpm=given.wheel_rpm or 0.0)
        share = TACHOMETER_SHARE
    off = speed / given.nominal_m_s - 1.0
    words = speed_verdict(speed, nominal_m_s=given.nominal_m_s, share=share)
    change = None
    if given.keep:
        check_step(saw.drive, given.nominal_m_s)
        before = as_record(row)
        drive = corrected(saw.drive, nominal_m_s=given.nominal_m_s, measured_m_s=speed)
        row.drive = saw_record(dataclasses.replace(saw, drive=drive))["drive"]
        change = log_change(session, row, "edit", before).id
    record = saw_file(core_saw(row))
    return MeasuredSpeed(speed, share * speed, given.nominal_m_s, off, words, record, change)
