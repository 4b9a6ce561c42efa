"""What is usual on a shop floor, per field: outside it the interface asks before it computes.

Not limits: a value outside is allowed once confirmed. Tens, inches, minutes and
diameters are the usual slips, so a value that fits after one of them is offered.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from jade_ribbon.core.quantities.constants import MM_PER_INCH
from jade_ribbon.reference.quantities import ranges, size_of


@dataclass(frozen=True)
class Usual:
    """Usual interval of a field in its own unit."""

    low: float
    high: float


USUAL: Mapping[str, Usual] = {k: Usual(r.low, r.high) for k, r in ranges("usual").items()}

MISTAKES = (0.1, 10.0, MM_PER_INCH, 1 / MM_PER_INCH, 0.01, 100.0, 1000.0, 0.001, 0.5, 2.0, 60.0)
"""Factors by which people slip: decimals, inches, metres, diameters, minutes."""
FT_MIN = size_of("speed", "ft/min")
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
