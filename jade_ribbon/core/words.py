"""Figures inside sentences, written as people write them."""

import math


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
