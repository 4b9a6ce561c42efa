"""What is usual on a shop floor, per field: outside it the interface asks before it computes.

Not limits: a value outside is allowed once confirmed. Tens, inches, minutes and
diameters are the usual slips, so a value that fits after one of them is offered.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from jade_ribbon.core.quantities.constants import MM_PER_INCH


@dataclass(frozen=True)
class Usual:
    """Usual interval of a field in its own unit."""

    low: float
    high: float


USUAL: Mapping[str, Usual] = {
    "height_mm": Usual(2, 700),
    "length_mm": Usual(20, 12_000),
    "count": Usual(1, 500),
    "slice_mm": Usual(0.5, 120),
    "billet_mm": Usual(10, 700),
    "backing_mm": Usual(3, 60),
    "stack": Usual(1, 40),
    "throat_need_mm": Usual(20, 1500),
    "min_radius_mm": Usual(3, 3000),
    "width_mm": Usual(2, 60),
    "thickness_mm": Usual(0.3, 1.4),
    "tpi": Usual(0.7, 32),
    "band_length_mm": Usual(1400, 7000),
    "set_per_side_mm": Usual(0.05, 0.8),
    "wheel_diameter_mm": Usual(180, 1100),
    "wheel_force_max_N": Usual(400, 20_000),
    "motor_kW": Usual(0.2, 25),
    "drive_efficiency": Usual(0.5, 0.97),
    "saw_height_mm": Usual(80, 900),
    "throat_mm": Usual(150, 1500),
    "guide_span_base_mm": Usual(30, 250),
    "hand_force_N": Usual(20, 200),
    "feed_m_min": Usual(0.02, 40),
    "time_s": Usual(2, 40_000),
    "stress_MPa": Usual(40, 330),
    "tolerance_mm": Usual(0.05, 10),
    "angle_deg": Usual(0, 45),
    "speed_m_s": Usual(0.2, 45),
    "guard_gap_mm": Usual(4, 50),
}

MISTAKES = (0.1, 10.0, MM_PER_INCH, 1 / MM_PER_INCH, 0.01, 100.0, 1000.0, 0.001, 0.5, 2.0, 60.0)
"""Factors by which people slip: decimals, inches, metres, diameters, minutes."""
FT_MIN = 0.00508
SPEED_MISTAKES = (1.0 / 60.0, FT_MIN, *MISTAKES)
"""A speed is typed in m/min or ft/min before a nought is too many."""
INCH_PARTS = 64
"""A length that is a whole number of 64ths under two was read off an inch rule."""
INCHES_UNDER = 2.0


def _slips(field: str, value: float) -> tuple[float, ...]:
    """Factors to try, the likeliest slip first."""
    if field == "speed_m_s":
        return SPEED_MISTAKES
    parts = value * INCH_PARTS
    whole = (abs(parts - round(parts)) < 1e-9 and value != round(value, 1)) or value == 0.5
    if field.endswith("_mm") and value < INCHES_UNDER and whole:
        return (MM_PER_INCH, *MISTAKES)
    return MISTAKES


def meant(field: str, value: float) -> float | None:
    """The value probably meant, when the one given is unusual and a slip explains it.

    >>> meant("thickness_mm", 6.4)
    0.64
    >>> meant("thickness_mm", 0.64) is None
    True
    >>> meant("width_mm", 0.75), meant("width_mm", 0.5)
    (19.05, 12.7)
    >>> meant("speed_m_s", 3000)
    15.24
    """
    usual = USUAL.get(field)
    if usual is None or usual.low <= value <= usual.high:
        return None
    for factor in _slips(field, value):
        if usual.low <= value * factor <= usual.high:
            return round(value * factor, 6)
    return None
