"""Figures inside sentences, written as people write them."""

import math
import re


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


QUANTITY = re.compile(r"\[\[([-+.\deE]+)\|(\w+)\]\]")
METRIC = {
    "stress": ("MPa", 3),
    "thin": ("mm", 2),
    "length": ("mm", 4),
    "speed": ("m/s", 3),
    "feed": ("m/min", 2),
    "stretch": ("µm", 2),
    "force": ("N", 3),
}


def quantity(value: float, kind: str) -> str:
    """A quantity inside a sentence, left open for the reader's units: [[134.5|stress]]."""
    return f"[[{value:.10g}|{kind}]]"


def metric(text: str) -> str:
    """A sentence with its quantities in metric units.

    >>> metric("Raise it to [[134.5|stress]], gap [[0.1|thin]].")
    'Raise it to 134 MPa, gap 0.10 mm.'
    """

    def said(found: re.Match[str]) -> str:
        unit, digits = METRIC[found[2]]
        value = float(found[1])
        short = f"{value:.{digits}g}" if found[2] == "length" else figure(value, digits)
        return f"{short} {unit}"

    return QUANTITY.sub(said, text)
