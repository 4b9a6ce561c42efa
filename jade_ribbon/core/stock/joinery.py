"""Rings of wedges and circles about a pin: what an error of an angle makes of them."""

import math
from dataclasses import dataclass

from jade_ribbon.core.quantities.fields import checked


@dataclass(frozen=True)
class SegmentGap:
    """The gap left where a ring closes (mm), and the error a face may have (degrees)."""

    closing_gap_mm: float
    error_allowed_deg: float


@checked
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


@checked
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
