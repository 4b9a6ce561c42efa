"""Drift: the angle a freehand cut steers off."""

import math
from dataclasses import dataclass

from jade_ribbon.core.quantities.arrays import atan
from jade_ribbon.core.quantities.formula_limits import within_limits


@dataclass(frozen=True)
class Drift:
    angle_deg: float
    fence_shift_mm: float


@within_limits
def drift(*, offset_mm: float, run_mm: float, fence_bolt_spacing_mm: float) -> Drift:
    """Angle (deg) a freehand cut steers off, and the fence shift (mm) over its bolts.

    Source: plane trigonometry, tangent of an angle.

    >>> round(drift(offset_mm=14.5, run_mm=329, fence_bolt_spacing_mm=93).fence_shift_mm, 3)
    4.099
    """
    slope = offset_mm / run_mm
    return Drift(math.degrees(1.0) * atan(slope), slope * fence_bolt_spacing_mm)
