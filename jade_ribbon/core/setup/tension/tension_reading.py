"""A reading of tension by whichever means: what stress it says, how surely, what to mind."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal, get_args

from jade_ribbon.core.mechanics.tension import (
    SIDE_PUSH_LINEAR_SHARE,
    deflection_for_share,
    side_push_extra_MPa,
    stress_from_gauge,
    stress_from_pluck,
    stress_from_side_push,
    stress_from_travel,
)
from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.input_limits import ENTRIES
from jade_ribbon.core.quantities.words import Said, figure, quantity, sentence
from jade_ribbon.core.setup.readiness import READING_SLACK
from jade_ribbon.core.setup.tension.calibration import ScaleFit, stress_from_scale

Means = Literal["gauge", "pluck", "push", "scale", "travel"]
MEANS: tuple[Means, ...] = get_args(Means)
GAUGE_READING_UM = 2.0
"""A dial read, and zeroed, to so much each."""
PLUCK_SPAN_SHARE = 0.01
"""How well the free span is known; stress goes with its square."""
PLUCK_MODEL_SHARE = 0.05
"""What set, gullets and the tyres' contact do to a note, until checked by a gauge on this saw."""
LEAST_NOTE_SHARE = 0.01
PUSH_SHARE = 0.10
TRAVEL_SHARE = 0.10
"""Of calibrated travel; uncalibrated it is no reading."""
PUSH_MOST_SHARE = 0.10
"""A push that adds more than this of the band's stress says too little of the band."""
SURE_90 = 1.645
"""Standard deviations each side that hold ninety per cent."""
OVERTONES = (4.0, 0.25)
OVERTONE_SHARE = 0.12
"""A note twice or half the target's is four times or a quarter of its stress, to so much."""


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
    note_factor: float | None = None
    """A gauge's stress over the stress of the same band's note, found on this saw."""


@dataclass(frozen=True)
class TensionReading:
    """Stress by a means, its uncertainty, the force it puts on the frame, and warnings."""

    means: Means
    stress_MPa: float
    uncertainty_MPa: float
    wheel_force_N: float
    frame_share: float | None
    warnings: tuple[Said, ...]

    @property
    def interval_MPa(self) -> tuple[float, float]:
        """Between these the stress lies, nine times in ten."""
        half = SURE_90 * self.uncertainty_MPa
        return self.stress_MPa - half, self.stress_MPa + half


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


def pluck_share(spread_share: float = 0.0, *, checked: bool = False) -> float:
    """Relative uncertainty of a stress from a note: it goes with the square of note and span.

    The model's own doubt comes on top, unless a gauge checked it on this saw.
    """
    noted = 2.0 * math.hypot(PLUCK_SPAN_SHARE, max(spread_share, LEAST_NOTE_SHARE))
    return noted if checked else math.hypot(noted, PLUCK_MODEL_SHARE)


def _gauge(band: TensionBand, value: float, gauge_length_mm: float) -> tuple[float, float]:
    stress = stress_from_gauge(gauge_stretch_um=value, gauge_length_mm=gauge_length_mm).stress_MPa
    return stress, stress * gauge_share(value)


def _pluck(
    band: TensionBand, value: float, spread_share: float, factor: float | None
) -> tuple[float, float]:
    stress = stress_from_pluck(
        frequency_Hz=value,
        width_mm=band.width_mm,
        gullet_depth_mm=band.gullet_depth_mm,
        thickness_mm=band.thickness_mm,
        span_mm=_span(band),
    ).stress_MPa
    stress *= factor or 1.0
    return stress, stress * pluck_share(spread_share, checked=factor is not None)


def _push(band: TensionBand, value: float, deflection_mm: float) -> tuple[float, float]:
    """Stress less what the push itself strained into the band. InputError past a tenth of it."""
    span = _span(band)
    pushed = stress_from_side_push(
        side_force_N=value,
        body_width_mm=band.body_width_mm,
        thickness_mm=band.thickness_mm,
        span_mm=span,
        deflection_mm=deflection_mm,
    ).stress_MPa
    added = side_push_extra_MPa(span_mm=span, deflection_mm=deflection_mm)
    stress = pushed - added
    if added > PUSH_MOST_SHARE * stress:
        use = deflection_for_share(
            stress_MPa=max(stress, 0.2 * pushed), span_mm=span, share=SIDE_PUSH_LINEAR_SHARE
        )
        words = sentence(
            "so far aside the push itself adds ",
            quantity(added, "stress"),
            ", and leaves ",
            quantity(max(stress, 0.0), "stress"),
            " for the band: too much of a guess; accepted: push again, about ",
            quantity(float(f"{use:.2g}"), "length"),
            " aside",
        )
        raise refuse("deflection_mm", words, deflection_mm)
    return stress, stress * math.hypot(PUSH_SHARE, added / stress)


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


def _travel(band: TensionBand, value: float, known: Calibrated) -> tuple[float, float]:
    _span(band)
    if known.travel_give is None:
        raise refuse(
            "means",
            "wheel travel says nothing until it is calibrated on this saw, since tyres and frame "
            "give too; accepted: after one reading by the gauge with its travel",
            None,
        )
    stress = stress_from_travel(
        wheel_travel_mm=value, band_length_mm=band.band_length_mm, give=known.travel_give
    ).stress_MPa
    return stress, stress * TRAVEL_SHARE


SLIPS: Mapping[Means, tuple[tuple[float, str], ...]] = {
    "gauge": ((0.1, "a figure ten times too large"), (10.0, "a figure ten times too small")),
    "pluck": (
        (0.25, "the octave above heard for the note"),
        (4.0, "the octave below, or a hum, heard for the note"),
        (0.01, "a figure ten times too large"),
    ),
    "push": ((0.1, "a figure ten times too large"), (10.0, "a figure ten times too small")),
    "scale": ((0.1, "a figure ten times too large"), (10.0, "a figure ten times too small")),
    "travel": ((0.1, "a figure ten times too large"), (10.0, "a figure ten times too small")),
}
"""What a slip does to the stress, and its name."""
PLAIN_LOW, PLAIN_HIGH = 0.5, 1.4
"""Outside these shares of the steel's range a reading is asked about."""


def likely_slip(means: Means, stress_MPa: float, *, low: float, high: float) -> Said:
    """What slip would explain a stress no band is left at; '' where none does or needs to.

    Low and high are the steel's range, MPa.
    """
    if PLAIN_LOW * low <= stress_MPa <= PLAIN_HIGH * high:
        return ""
    for factor, slip in SLIPS[means]:
        meant = stress_MPa * factor
        if PLAIN_LOW * low <= meant <= PLAIN_HIGH * high:
            return sentence(
                quantity(stress_MPa, "stress"),
                f"? With {slip} it would be ",
                quantity(meant, "stress"),
                ". Read again, and mind span and unit.",
            )
    return sentence(
        quantity(stress_MPa, "stress"), "? No band is left so. Read again, and mind span and unit."
    )


def _check_stands(band: TensionBand, means: Means, stress_MPa: float, value: float) -> None:
    """InputError for a reading that says more than any band of this steel stands."""
    most = min(ENTRIES["stress_MPa"].high, band.yield_MPa)
    if stress_MPa > most:
        slip = SLIPS[means][0]
        words = sentence(
            f"{value:g} would be ",
            quantity(stress_MPa, "stress"),
            "; accepted: what comes to at most ",
            quantity(most, "stress"),
            f", since no band of this steel stands more. With {slip[1]} it would be ",
            quantity(stress_MPa * slip[0], "stress"),
            ". Read again, and mind span and unit",
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
        stress, spread = _pluck(band, value, spread_share, calibrated.note_factor)
    elif means == "push":
        if deflection_mm is None:
            raise refuse("deflection_mm", "is missing; say how far the push bent the band", None)
        stress, spread = _push(band, value, deflection_mm)
    elif means == "scale":
        stress, spread, warning = _scale(band, value, calibrated)
    elif means == "travel":
        stress, spread = _travel(band, value, calibrated)
    else:
        raise refuse("means", f"{means!r} is not accepted; give one of {', '.join(MEANS)}", means)
    _check_stands(band, means, stress, value)
    force = stress * band.body_width_mm * band.thickness_mm * band.force_per_strand
    limit = band.wheel_force_max_N
    warnings: list[Said] = [warning] if warning else []
    if limit is not None and force > limit * READING_SLACK:
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


StandVerdict = Literal["on_target", "slack", "tight", "cannot_tell"]
MEANS_WORDS: Mapping[Means, str] = {
    "gauge": "the strain gauge",
    "pluck": "the note of the plucked band",
    "push": "a side push",
    "scale": "the saw's own scale",
    "travel": "wheel travel",
}


@dataclass(frozen=True)
class AgainstTarget:
    """How a reading stands to what is wanted; on target only when it cannot be otherwise."""

    verdict: StandVerdict
    words: Said


def _finer(
    shares: Mapping[str, float], used: Means, *, target: float, low: float, high: float
) -> Said:
    """Which means could tell, from how surely each reads the target; never the one just used."""
    room = min(target - low, high - target) / target
    able = [m for m in MEANS if m != used and m in shares and SURE_90 * shares[m] <= room]
    if able:
        return f"use {MEANS_WORDS[able[0]]}"
    return "a gauge over a greater length, or a finer dial"


def _overtone(share_of_target: float) -> str:
    """What is asked of a note an octave off the target's; '' of any other."""
    for times in OVERTONES:
        if abs(share_of_target / times - 1.0) <= OVERTONE_SHARE:
            octave = "twice" if times > 1.0 else "half"
            return (
                f"That is {octave} the note of the target: an overtone, or the wrong octave named? "
                "Pluck it at the middle of the free span, guides off, and read again before you "
                "turn anything."
            )
    return ""


def stands(
    reading: TensionReading,
    *,
    target: float,
    low: float,
    high: float,
    shares: Mapping[str, float] | None = None,
) -> AgainstTarget:
    """Too slack, right or too tight: on target only with the whole 90 % interval in the range.

    MPa; shares are each means' relative uncertainty on this band, to say which could tell.
    """
    least, most = reading.interval_MPa
    stress = reading.stress_MPa
    if slip := likely_slip(reading.means, stress, low=low, high=high):
        return AgainstTarget("cannot_tell", slip)
    if reading.means == "pluck" and (asked := _overtone(stress / target)):
        return AgainstTarget("cannot_tell", asked)
    if least >= low and most <= high:
        more = "more" if stress < target else "less"
        left = quantity(abs(target - stress), "stress")
        return AgainstTarget(
            "on_target", sentence("On target: ", left, f" {more} would be the middle.")
        )
    if most < low:
        return AgainstTarget(
            "slack", sentence("Too slack by ", quantity(target - stress, "stress"), ": more.")
        )
    if least > high:
        return AgainstTarget(
            "tight", sentence("Too tight by ", quantity(stress - target, "stress"), ": less.")
        )
    turn = "more" if stress < low else "less" if stress > high else ""
    first = f"Probably {'slack' if turn == 'more' else 'tight'}: {turn}, then read again. " * bool(
        turn
    )
    return AgainstTarget(
        "cannot_tell",
        sentence(
            first,
            "Cannot tell with this means: between ",
            quantity(max(least, 0.0), "stress"),
            " and ",
            quantity(most, "stress"),
            "; wanted ",
            quantity(low, "stress"),
            " to ",
            quantity(high, "stress"),
            "; ",
            _finer(shares or {}, reading.means, target=target, low=low, high=high),
            ".",
        ),
    )


def means_agree(reading: TensionReading, other: TensionReading) -> tuple[bool, Said]:
    """Whether two means agree within what they can tell, and which to believe if not."""
    apart = abs(reading.stress_MPa - other.stress_MPa)
    agree = apart <= SURE_90 * math.hypot(reading.uncertainty_MPa, other.uncertainty_MPa)
    better, worse = sorted((reading, other), key=lambda r: r.uncertainty_MPa / r.stress_MPa)
    both = f"{MEANS_WORDS[better.means]} and {MEANS_WORDS[worse.means]}"
    if agree:
        words = sentence(f"{both[0].upper()}{both[1:]} agree within what they can tell.")
        return True, words
    return False, sentence(
        f"{both[0].upper()}{both[1:]} differ by ",
        quantity(apart, "stress"),
        f", more than both can explain: believe {MEANS_WORDS[better.means]}, and look why.",
    )


def judged(
    reading: TensionReading,
    other: TensionReading | None,
    *,
    target: float,
    low: float,
    high: float,
    shares: Mapping[str, float],
) -> tuple[AgainstTarget, Said]:
    """How a reading stands, held against one by another means: '' where there is none.

    Two that do not agree leave nothing on target.
    """
    stand = stands(reading, target=target, low=low, high=high, shares=shares)
    if reading.frame_share is not None and reading.frame_share > READING_SLACK:
        stand = AgainstTarget("tight", "Over what the frame holds: slacken.")
    if other is None or other.means == reading.means:
        return stand, ""
    agree, words = means_agree(reading, other)
    if not agree and stand.verdict == "on_target":
        stand = AgainstTarget("cannot_tell", "Cannot tell: two means say different things.")
    return stand, words
