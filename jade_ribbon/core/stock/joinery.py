"""Rings of wedges and circles about a pin: what an error of an angle makes of them."""

import math
from dataclasses import dataclass
from typing import Literal

from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.formula_limits import within_limits


@dataclass(frozen=True)
class SegmentGap:
    """The gap left where a ring closes (mm), and the error a face may have (degrees)."""

    closing_gap_mm: float
    error_allowed_deg: float


@within_limits
def segment_gap(
    *, segments: int, face_error_deg: float, joint_width_mm: float, gap_allowed_mm: float
) -> SegmentGap:
    """What is left open in a ring of segments when each of their faces is off by an angle.

    gap = 2 n tan(error) width; the error that just leaves the gap allowed is its inverse.

    Source: plane geometry; docs/model "Stock".

    >>> round(segment_gap(segments=9, face_error_deg=0.058, joint_width_mm=75,
    ...     gap_allowed_mm=0.1).closing_gap_mm, 3)
    1.367
    """
    reach = 2.0 * segments * joint_width_mm
    return SegmentGap(
        reach * math.tan(math.radians(face_error_deg)),
        math.degrees(math.atan(gap_allowed_mm / reach)),
    )


@dataclass(frozen=True)
class Pivot:
    """Where the pin belongs, how the work is steered with it elsewhere, the radius really cut."""

    right_behind_mm: float
    steer_deg: float
    cut_radius_mm: float


@within_limits
def pivot(*, radius_mm: float, drift_deg: float, pivot_behind_tooth_line_mm: float) -> Pivot:
    """A circle about a pin: its right place behind the tooth line is R tan(drift).

    Drift is positive when the band pulls toward the pin. Elsewhere the work is steered off the
    band's own line by atan2(place, R) - drift, and the circle cut is hypot(R, place).

    Source: plane geometry; docs/model "Stock".

    >>> found = pivot(radius_mm=564, drift_deg=2.37, pivot_behind_tooth_line_mm=7.8)
    >>> round(found.right_behind_mm, 2), round(found.steer_deg, 3)
    (23.34, -1.578)
    """
    place = pivot_behind_tooth_line_mm
    return Pivot(
        radius_mm * math.tan(math.radians(drift_deg)),
        math.degrees(math.atan2(place, radius_mm)) - drift_deg,
        math.hypot(radius_mm, place),
    )


@dataclass(frozen=True)
class Ring:
    """Segments of a ring as they are cut, and what it is to close: mm and degrees."""

    face_deg: float
    """Each face is off square by so much."""
    outer_mm: float
    inner_mm: float
    """Length of a segment along its outer and its inner edge."""
    stock_mm: float
    """Length of strip that all segments take, laid head to tail, with their kerfs."""
    error_allowed_deg: float
    closing_gap_mm: float
    closes: Literal["yes", "no", "cannot_tell"]
    """Whether the gap stays within what is allowed for the whole range of the angle's error."""


@within_limits
def ring(
    *,
    segments: int,
    radius_mm: float,
    joint_width_mm: float,
    gap_allowed_mm: float,
    face_error_deg: float,
    error_doubt_deg: float,
    kerf_mm: float,
) -> Ring:
    """A ring of straight segments about a circle of some radius, as it is cut from a strip.

    Faces stand at 180/n; an outer edge is 2 R tan(180/n) long, the inner one joint width nearer.
    Turned over each time, a segment takes the mean of both edges of the strip, and a kerf. It
    closes only where the whole range of the angle's error lets it. InputError for a joint as wide
    as the radius.

    Source: plane geometry; docs/model "Stock".

    >>> found = ring(segments=8, radius_mm=200, joint_width_mm=40, gap_allowed_mm=0.2,
    ...     face_error_deg=0.0, error_doubt_deg=0.01, kerf_mm=1.4)
    >>> round(found.face_deg, 2), round(found.outer_mm, 1), found.closes
    (22.5, 165.7, 'yes')
    """
    if joint_width_mm >= radius_mm:
        words = f"{joint_width_mm:g} reaches the middle; accepted: under {radius_mm:g}"
        raise refuse("joint_width_mm", words, joint_width_mm)
    half = math.radians(180.0 / segments)
    outer = 2.0 * radius_mm * math.tan(half)
    inner = 2.0 * (radius_mm - joint_width_mm) * math.tan(half)
    gap = segment_gap(
        segments=segments,
        face_error_deg=face_error_deg,
        joint_width_mm=joint_width_mm,
        gap_allowed_mm=gap_allowed_mm,
    )
    least = max(0.0, abs(face_error_deg) - error_doubt_deg)
    most = abs(face_error_deg) + error_doubt_deg
    closes: Literal["yes", "no", "cannot_tell"] = "cannot_tell"
    if most <= gap.error_allowed_deg:
        closes = "yes"
    elif least > gap.error_allowed_deg:
        closes = "no"
    return Ring(
        180.0 / segments,
        outer,
        inner,
        segments * ((outer + inner) / 2.0 + kerf_mm / math.cos(half)),
        gap.error_allowed_deg,
        gap.closing_gap_mm,
        closes,
    )


@dataclass(frozen=True)
class CircleJig:
    """A circle cut about a pin: the pin's place, the room it takes, how the cut begins; mm."""

    pin: Pivot
    extension_mm: float
    """The table must be so much longer for the pin to stand on it."""
    entry_mm: float
    """Straight in from the blank's edge to where the circle begins."""
    corner_mm: float
    """How far the blank's farthest corner swings from the pin."""
    throat_needed_mm: float
    clears: bool


@within_limits
def circle_jig(
    *,
    radius_mm: float,
    drift_deg: float,
    pivot_behind_tooth_line_mm: float,
    blank_mm: float,
    throat_mm: float,
    table_reach_mm: float,
) -> CircleJig:
    """A circle from a square blank, the pin at its middle and to the side away from the column.

    The farthest corner, half the diagonal from the pin, swings past the column: it takes the
    diagonal less the radius of throat. InputError for a blank smaller than the circle.

    Source: plane geometry; docs/model "Stock".

    >>> found = circle_jig(radius_mm=300, drift_deg=0, pivot_behind_tooth_line_mm=0, blank_mm=640,
    ...     throat_mm=390, table_reach_mm=250)
    >>> round(found.corner_mm, 1), round(found.throat_needed_mm, 1), found.extension_mm
    (452.5, 152.5, 50)
    """
    if blank_mm < 2.0 * radius_mm:
        words = f"{blank_mm:g} is less than the circle; accepted: {2.0 * radius_mm:g} or more"
        raise refuse("blank_mm", words, blank_mm)
    corner = blank_mm / math.sqrt(2.0)
    needed = max(0.0, corner - radius_mm)
    return CircleJig(
        pivot(
            radius_mm=radius_mm,
            drift_deg=drift_deg,
            pivot_behind_tooth_line_mm=pivot_behind_tooth_line_mm,
        ),
        max(0.0, radius_mm - table_reach_mm),
        blank_mm / 2.0 - radius_mm,
        corner,
        needed,
        needed <= throat_mm,
    )
