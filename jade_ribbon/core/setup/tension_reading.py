"""A reading of tension by whichever means: what stress it says, how surely, what to mind."""

import math
from dataclasses import dataclass
from typing import Literal, get_args

from jade_ribbon.core.mechanics.tension import (
    SIDE_PUSH_LINEAR_SHARE,
    side_push_extra_strain_share,
    stress_from_gauge,
    stress_from_pluck,
    stress_from_side_push,
    stress_from_travel,
)
from jade_ribbon.core.quantities.entries import ENTRIES
from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.words import Said, figure, percent, quantity, sentence
from jade_ribbon.core.setup.calibration import ScaleFit, stress_from_scale

Means = Literal["gauge", "pluck", "push", "scale", "travel"]
MEANS: tuple[Means, ...] = get_args(Means)
GAUGE_READING_UM = 2.0
"""A dial read, and zeroed, to so much each."""
PLUCK_SPAN_SHARE = 0.01
"""How well the free span is known; stress goes with its square."""
LEAST_NOTE_SHARE = 0.01
PUSH_SHARE = 0.10
TRAVEL_SHARE = 0.20
ROUNDING = 1.0 + 1e-6
"""A target set to the frame's limit exactly is not over it."""


@dataclass(frozen=True)
class TensionBand:
    """The band and saw a reading is taken on: mm; span None on three wheels."""

    width_mm: float
    body_width_mm: float
    gullet_depth_mm: float
    thickness_mm: float
    band_length_mm: float
    free_span_mm: float | None
    force_per_strand: float
    wheel_force_max_N: float | None
    yield_MPa: float
    """Of its steel: a reading that says more was misread."""


@dataclass(frozen=True)
class Calibrated:
    """What calibrating found on this saw: its scale's line, and what travel gives away."""

    scale: ScaleFit | None = None
    travel_give: float | None = None


@dataclass(frozen=True)
class TensionReading:
    """Stress by a means, its uncertainty, the force it puts on the frame, and warnings."""

    means: Means
    stress_MPa: float
    uncertainty_MPa: float
    wheel_force_N: float
    frame_share: float | None
    warnings: tuple[Said, ...]


def _span(band: TensionBand) -> float:
    if band.free_span_mm is None:
        raise refuse(
            "means",
            "needs one free span between two wheels; accepted on three wheels: gauge, scale",
            None,
        )
    return band.free_span_mm


def gauge_share(stretch_um: float) -> float:
    """Relative uncertainty of a stretch read on a dial that was zeroed as roughly."""
    return math.sqrt(2.0) * GAUGE_READING_UM / max(stretch_um, GAUGE_READING_UM)


def pluck_share(spread_share: float = 0.0) -> float:
    """Relative uncertainty of a stress from a note: it goes with the square of note and span."""
    return 2.0 * math.hypot(PLUCK_SPAN_SHARE, max(spread_share, LEAST_NOTE_SHARE))


def _gauge(band: TensionBand, value: float, gauge_length_mm: float) -> tuple[float, float]:
    stress = stress_from_gauge(gauge_stretch_um=value, gauge_length_mm=gauge_length_mm).stress_MPa
    return stress, stress * gauge_share(value)


def _pluck(band: TensionBand, value: float, spread_share: float) -> tuple[float, float]:
    stress = stress_from_pluck(
        frequency_Hz=value,
        width_mm=band.width_mm,
        gullet_depth_mm=band.gullet_depth_mm,
        thickness_mm=band.thickness_mm,
        span_mm=_span(band),
    ).stress_MPa
    return stress, stress * pluck_share(spread_share)


def _push(band: TensionBand, value: float, deflection_mm: float) -> tuple[float, float, str]:
    span = _span(band)
    stress = stress_from_side_push(
        side_force_N=value,
        body_width_mm=band.body_width_mm,
        thickness_mm=band.thickness_mm,
        span_mm=span,
        deflection_mm=deflection_mm,
    ).stress_MPa
    added = side_push_extra_strain_share(
        stress_MPa=stress, span_mm=span, deflection_mm=deflection_mm
    )
    warning = ""
    if added > SIDE_PUSH_LINEAR_SHARE:
        warning = (
            f"The push itself adds {percent(added)} to the strain: push less far, or it reads high."
        )
    return stress, stress * math.hypot(PUSH_SHARE, added), warning


def _scale(band: TensionBand, value: float, known: Calibrated) -> tuple[float, float, str]:
    fit = known.scale
    if fit is None:
        raise refuse(
            "means", "this saw's scale is not calibrated; measure three points first", None
        )
    area = band.body_width_mm * band.thickness_mm * band.force_per_strand
    stress = stress_from_scale(
        fit,
        reading=value,
        body_width_mm=band.body_width_mm,
        thickness_mm=band.thickness_mm,
        force_per_strand=band.force_per_strand,
    )
    outside = not fit.lowest <= value <= fit.highest
    warning = (
        f"{figure(value, 3)} is outside the readings calibrated here, {fit.lowest:g} to "
        f"{fit.highest:g}."
        if outside
        else ""
    )
    return stress, fit.uncertainty_N(value) / area, warning


def _travel(band: TensionBand, value: float, known: Calibrated) -> tuple[float, float, str]:
    _span(band)
    give = known.travel_give
    stress = stress_from_travel(
        wheel_travel_mm=value, band_length_mm=band.band_length_mm, give=give or 0.0
    ).stress_MPa
    if give is not None:
        return stress, stress * TRAVEL_SHARE / 2.0, ""
    warning = "Tyres and frame give too: without calibrating here the band is slacker than this."
    return stress, stress * TRAVEL_SHARE, warning


def _check_stands(band: TensionBand, stress_MPa: float, value: float) -> None:
    """InputError for a reading that says more than any band of this steel stands."""
    most = min(ENTRIES["stress_MPa"].high, band.yield_MPa)
    if stress_MPa > most:
        words = sentence(
            f"{value:g} would be ",
            quantity(stress_MPa, "stress"),
            "; accepted: what comes to at most ",
            quantity(most, "stress"),
            ", since no band of this steel stands more. Read again, and mind span and unit",
        )
        raise refuse("values", words, value)


def tension_reading(
    band: TensionBand,
    *,
    means: Means,
    value: float,
    gauge_length_mm: float,
    deflection_mm: float | None = None,
    spread_share: float = 0.0,
    known: Calibrated | None = None,
) -> TensionReading:
    """Stress from a reading: gauge (um), pluck (Hz), push (N), scale (its own), travel (mm).

    Raises InputError for a means this saw cannot use, or a value out of its range.
    """
    warning = ""
    calibrated = known or Calibrated()
    if means == "gauge":
        stress, spread = _gauge(band, value, gauge_length_mm)
    elif means == "pluck":
        stress, spread = _pluck(band, value, spread_share)
    elif means == "push":
        if deflection_mm is None:
            raise refuse("deflection_mm", "is missing; say how far the push bent the band", None)
        stress, spread, warning = _push(band, value, deflection_mm)
    elif means == "scale":
        stress, spread, warning = _scale(band, value, calibrated)
    elif means == "travel":
        stress, spread, warning = _travel(band, value, calibrated)
    else:
        raise refuse("means", f"{means!r} is not accepted; give one of {', '.join(MEANS)}", means)
    _check_stands(band, stress, value)
    force = stress * band.body_width_mm * band.thickness_mm * band.force_per_strand
    limit = band.wheel_force_max_N
    warnings: list[Said] = [warning] if warning else []
    if limit is not None and force > limit * ROUNDING:
        warnings.append(
            sentence(
                quantity(force, "force"),
                " at the wheel is over the frame's ",
                quantity(limit, "force"),
                ": slacken.",
            )
        )
    share = None if limit is None else force / limit
    return TensionReading(means, stress, spread, force, share, tuple(warnings))


def stands(reading: TensionReading, *, target: float, low: float, high: float) -> Said:
    """Too slack, right or too tight, with the uncertainty minded."""
    stress, spread = reading.stress_MPa, reading.uncertainty_MPa
    if abs(stress - target) <= max(spread, 0.03 * target):
        return "On target, as surely as this means can tell."
    if stress < low:
        return sentence("Too slack by ", quantity(target - stress, "stress"), ": more.")
    if stress > high:
        return sentence("Too tight by ", quantity(stress - target, "stress"), ": less.")
    more = "more" if stress < target else "less"
    left = quantity(abs(target - stress), "stress")
    return sentence("Within what this steel wants; ", left, f" {more} to the target.")
