"""A band looked over when it arrives: measured against what it was sold as."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import fmean, stdev
from typing import Literal

from jade_ribbon.core.quantities.words import Said, quantity, sentence
from jade_ribbon.reference.quantities import Kind

Verdict = Literal["right", "claim", "cannot_tell"]
TEETH_WANTED = 5
"""Teeth measured on each side before anything is said of the set; ten are asked for."""
LENGTH_OFF = 0.002
LENGTH_OFF_MM = 5.0
WIDTH_OFF_MM = 0.5
THICKNESS_OFF = 0.06
PITCH_OFF = 0.02
SET_OFF = 0.2
UNEVEN_MM = 0.05
SCATTER_OFF = 0.15
BACK_BOW_MM_PER_M = 0.5
"""Our limits where the trade gives no figure: what shows in the cut of an ordinary shop."""
SURE = 2.0
"""A difference counts once it is twice its own doubt."""


@dataclass(frozen=True)
class SoldAs:
    """What the band should be: mm; pitches in teeth per inch."""

    length_mm: float
    width_mm: float
    thickness_mm: float
    tpi_lo: float | None
    tpi_hi: float | None
    set_per_side_mm: float | None


@dataclass(frozen=True)
class ArrivalFigures:
    """What was measured and seen; None where nobody looked."""

    length_mm: float | None = None
    width_mm: float | None = None
    thickness_mm: float | None = None
    pitch_mm: float | None = None
    """Over ten teeth, one of them."""
    set_left_mm: Sequence[float] = ()
    set_right_mm: Sequence[float] = ()
    back_bow_mm: float | None = None
    """Over a metre of straightedge."""
    weld_right: bool | None = None
    direction_right: bool | None = None
    tag_right: bool | None = None


@dataclass(frozen=True)
class Finding:
    """One thing looked at: what it should be, what it is, what follows."""

    key: str
    name: str
    verdict: Verdict
    words: Said


@dataclass(frozen=True)
class SetMeasured:
    """The set of both sides: means, their doubt, and what they do to the cut. mm."""

    left_mm: float
    right_mm: float
    doubt_mm: float
    scatter_mm: float
    kerf_mm: float
    uneven_mm: float
    """Left over right: positive leads to the left, seen from the infeed."""


@dataclass(frozen=True)
class Arrival:
    """All findings, and whether the band passes, is claimed, or cannot be told yet."""

    findings: tuple[Finding, ...]
    measured_set: SetMeasured | None
    verdict: Verdict


def measured_set(measured: ArrivalFigures, thickness_mm: float) -> SetMeasured | None:
    """Both sides' set; None before five teeth of each side."""
    left, right = measured.set_left_mm, measured.set_right_mm
    if min(len(left), len(right)) < TEETH_WANTED:
        return None
    doubt = math.hypot(stdev(left) / math.sqrt(len(left)), stdev(right) / math.sqrt(len(right)))
    a, b = fmean(left), fmean(right)
    return SetMeasured(
        left_mm=a,
        right_mm=b,
        doubt_mm=doubt,
        scatter_mm=max(stdev(left), stdev(right)),
        kerf_mm=thickness_mm + a + b,
        uneven_mm=a - b,
    )


def _size(key: str, name: str, want: float, got: float | None, off: float) -> Finding:
    if got is None:
        return Finding(key, name, "cannot_tell", "not measured")
    kind: Kind = "thin" if key in ("thickness", "pitch", "set") else "length"
    said = sentence(quantity(got, kind), ", should be ", quantity(want, kind))
    return Finding(key, name, "right" if abs(got - want) <= off else "claim", said)


def _seen(key: str, name: str, right: bool | None, wrong: str) -> Finding:
    if right is None:
        return Finding(key, name, "cannot_tell", "not looked at")
    return Finding(key, name, "right" if right else "claim", "as it should be" if right else wrong)


def _sets(sold: SoldAs, measured: ArrivalFigures, found: SetMeasured | None) -> list[Finding]:
    """Mean set, its evenness and its scatter, each with its doubt."""
    if found is None:
        words = f"measure {TEETH_WANTED} teeth of each side or more; ten are better"
        return [Finding("set", "Set", "cannot_tell", words)]
    mean = (found.left_mm + found.right_mm) / 2.0
    findings = []
    if sold.set_per_side_mm is not None:
        findings.append(
            _size("set", "Set", sold.set_per_side_mm, mean, SET_OFF * sold.set_per_side_mm)
        )
    off = abs(found.uneven_mm)
    if off <= UNEVEN_MM and off + SURE * found.doubt_mm <= 2.0 * UNEVEN_MM:
        even: Verdict = "right"
    elif off - SURE * found.doubt_mm > UNEVEN_MM:
        even = "claim"
    else:
        even = "cannot_tell"
    side = "left" if found.uneven_mm > 0 else "right"
    told = {
        "right": sentence("within ", quantity(UNEVEN_MM, "thin"), " of each other"),
        "claim": sentence(
            "wider by ", quantity(off, "thin"), f" on the {side}: it leads to the {side}"
        ),
        "cannot_tell": sentence(
            quantity(off, "thin"), " apart, which this many teeth cannot tell from even"
        ),
    }
    findings.append(Finding("even", "Sides even", even, told[even]))
    steady = found.scatter_mm <= SCATTER_OFF * mean
    findings.append(
        Finding(
            "scatter",
            "Tooth to tooth",
            "right" if steady else "claim",
            sentence("scatters by ", quantity(found.scatter_mm, "thin")),
        )
    )
    return findings


def look_over(sold: SoldAs, measured: ArrivalFigures) -> Arrival:
    """Every finding of an arrival; it passes only by what was looked at.

    Source: gauge practice; judgement the limits, give or take a third; docs/model "Arrivals".
    """
    thickness = measured.thickness_mm or sold.thickness_mm
    found = measured_set(measured, thickness)
    length_off = max(LENGTH_OFF_MM, LENGTH_OFF * sold.length_mm)
    findings = [
        _size("length", "Length", sold.length_mm, measured.length_mm, length_off),
        _size("width", "Width", sold.width_mm, measured.width_mm, WIDTH_OFF_MM),
        _size(
            "thickness",
            "Thickness",
            sold.thickness_mm,
            measured.thickness_mm,
            THICKNESS_OFF * sold.thickness_mm,
        ),
    ]
    if sold.tpi_lo is not None and sold.tpi_lo == sold.tpi_hi:
        pitch = 25.4 / sold.tpi_lo
        findings.append(_size("pitch", "Pitch", pitch, measured.pitch_mm, PITCH_OFF * pitch))
    if sold.tpi_lo is not None:
        findings += _sets(sold, measured, found)
    bow = measured.back_bow_mm
    findings.append(
        Finding("back", "Back straight", "cannot_tell", "not measured")
        if bow is None
        else Finding(
            "back",
            "Back straight",
            "right" if bow <= BACK_BOW_MM_PER_M else "claim",
            sentence(quantity(bow, "thin"), " in a metre"),
        )
    )
    findings += [
        _seen("weld", "Weld, both faces and back", measured.weld_right, "stepped, hard or thick"),
        _seen("direction", "Teeth point the right way", measured.direction_right, "inside out"),
        _seen("tag", "Tag says what it is", measured.tag_right, "another band's"),
    ]
    verdicts = {f.verdict for f in findings}
    whole: Verdict = (
        "claim" if "claim" in verdicts else "cannot_tell" if "cannot_tell" in verdicts else "right"
    )
    return Arrival(tuple(findings), found, whole)
