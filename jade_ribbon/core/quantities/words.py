"""Figures inside sentences, written as people write them, in the reader's units."""

import math
import re
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal
from typing import Literal

Units = Literal["metric", "inch"]


def figure(value: float, digits: int = 2) -> str:
    """Significant digits without exponent; thousands parted by a thin space.

    >>> figure(4612.0), figure(0.0298), figure(14.5, 3)
    ('4\\u202f600', '0.030', '14.5')
    """
    if value == 0 or not math.isfinite(value):
        return "0" if value == 0 else "–"
    places = digits - 1 - math.floor(math.log10(abs(value)))
    rounded = round(value, places)
    return f"{rounded:,.{max(places, 0)}f}".replace(",", "\u202f")


def percent(share: float, digits: int = 2) -> str:
    """A share as per cent, with the space that belongs there.

    >>> percent(0.85)
    '85 %'
    """
    return f"{figure(100.0 * share, digits)} %"


@dataclass(frozen=True)
class Unit:
    """A unit of a kind of quantity: its name, its size in SI, digits shown."""

    name: str
    size: float
    digits: int


MM_PER_INCH = 25.4
M_PER_FT = 0.3048
MPA_PER_PSI = 1.0 / 145.03773773
N_PER_LBF = 4.4482216152605
UNITS: dict[Units, dict[str, Unit]] = {
    "metric": {
        "length": Unit("mm", 1.0, 3),
        "thin": Unit("mm", 1.0, 2),
        "feed": Unit("m/min", 1.0, 2),
        "speed": Unit("m/s", 1.0, 3),
        "stress": Unit("MPa", 1.0, 3),
        "force": Unit("N", 1.0, 3),
        "stretch": Unit("µm", 1.0, 2),
        "plain": Unit("", 1.0, 3),
    },
    "inch": {
        "length": Unit("in", MM_PER_INCH, 3),
        "thin": Unit("in", MM_PER_INCH, 2),
        "feed": Unit("ft/min", M_PER_FT, 2),
        "speed": Unit("ft/min", M_PER_FT / 60.0, 3),
        "stress": Unit("psi", MPA_PER_PSI, 3),
        "force": Unit("lbf", N_PER_LBF, 3),
        "stretch": Unit("thou", MM_PER_INCH, 2),
        "plain": Unit("", 1.0, 3),
    },
}
EXACT_MM = 0.02
"""An inch fraction, to 1/64, is said for a length this near to it."""
NOMINAL_MM, NOMINAL_SHARE = 0.06, 0.008
"""A length is called by a sixteenth from this near: a band of 19 mm is sold as 3/4."""
MEASURED = ("stress", "force", "speed")
"""Kinds of which nobody knows more than three digits."""
LOOSE = ("length", "plain")
"""Kinds whose trailing zeros say nothing."""

_NUMBER = r"-?\d+(?:\.\d+)?(?:e[-+]?\d+)?"
QUANTITY = re.compile(
    rf"\[\[({_NUMBER})(?::({_NUMBER}))?\|({'|'.join(UNITS['metric'])})\]\]", re.ASCII
)
"""What `quantity` and `between` leave open; whatever else people write stays as it is."""


def quantity(value: float, kind: str) -> str:
    """A quantity inside a sentence, left open for the reader's units: [[134.5|stress]]."""
    return f"[[{value:.10g}|{kind}]]"


def between(low: float, high: float, kind: str) -> str:
    """A range inside a sentence, left open: [[3:25|length]], said as '3 to 25 mm'."""
    return f"[[{low:.10g}:{high:.10g}|{kind}]]"


def _fraction(inches: float) -> str | None:
    near = max(min(NOMINAL_MM, NOMINAL_SHARE * inches * MM_PER_INCH), EXACT_MM)
    for denominator in (1, 2, 4, 8, 16, 32, 64):
        numerator = math.floor(inches * denominator + 0.5)
        off = abs(numerator / denominator - inches) * MM_PER_INCH
        if off > (near if denominator <= 16 else EXACT_MM):
            continue
        whole, rest = divmod(numerator, denominator)
        if rest == 0:
            return f"{whole}"
        return f"{whole} {rest}/{denominator}" if whole > 0 else f"{rest}/{denominator}"
    return None


def _significant(value: float, digits: int, keep_zeros: bool) -> str:
    if value == 0 or not math.isfinite(value):
        return "0" if value == 0 else "–"
    places = min(max(0, digits - 1 - math.floor(math.log10(abs(value)))), 6)
    exact = Decimal(value).quantize(Decimal(1).scaleb(-places), ROUND_HALF_UP)
    fixed = f"{exact:f}"
    return fixed if keep_zeros or "." not in fixed else fixed.rstrip("0").rstrip(".")


def number(value: float, kind: str, units: Units = "metric") -> str:
    """The number of an SI quantity in a unit, without the unit's name."""
    unit = UNITS[units][kind]
    shown = value / unit.size
    if units == "inch" and kind == "length":
        return _fraction(shown) or _significant(shown, 4, False)
    if abs(shown) >= 1000 and kind in MEASURED:
        step = 10.0 ** (math.floor(math.log10(abs(shown))) - 2)
        return _significant(math.floor(shown / step + 0.5) * step, 3, False)
    digits = 4 if abs(shown) >= 1000 else unit.digits
    if kind == "thin" and 1.0 <= abs(shown) < 1000:
        digits = 3
    return _significant(shown, digits, kind not in LOOSE)


def said(text: str, units: Units = "metric") -> str:
    """A sentence with its quantities in the reader's units.

    >>> said("Raise it to [[134.5|stress]], gap [[0.1|thin]], [[3:25|length]] wide.")
    'Raise it to 135 MPa, gap 0.10 mm, 3 to 25 mm wide.'
    """

    def fill(found: re.Match[str]) -> str:
        low, high, kind = found.groups()
        words = number(float(low), kind, units)
        if high is not None:
            words = f"{words} to {number(float(high), kind, units)}"
        return f"{words} {UNITS[units][kind].name}".rstrip()

    return QUANTITY.sub(fill, text) if "|" in text else text


def metric(text: str) -> str:
    """A sentence with its quantities in SI's usual units."""
    return said(text, "metric")
