"""A price asked for a band: dear or cheap by the metre, and by what it will cut."""

from collections.abc import Sequence
from dataclasses import dataclass
from statistics import median
from typing import Literal

SAME = 0.10
"""Within a tenth is the same price."""
ENOUGH = 2

Told = Literal["dear", "cheap", "same", "cannot_tell"]


@dataclass(frozen=True)
class Priced:
    """Money per metre of band and per 1 000 equivalent metres of cut."""

    per_m: float
    per_1000_m: float


@dataclass(frozen=True)
class PriceLook:
    """A price against those paid: by the metre and by the cut, as shares over them."""

    asked: Priced
    paid: Priced | None
    of: int
    by_metre: Told
    by_cut: Told
    words: str


def _told(share: float) -> Told:
    return "same" if abs(share) <= SAME else "dear" if share > 0.0 else "cheap"


def _words(told: Told, share: float, of: str) -> str:
    if told == "same":
        return f"about what you pay per {of}"
    return f"{told} by {abs(100.0 * share):.0f} % per {of}"


def look_at_price(asked: Priced, paid: Sequence[Priced]) -> PriceLook:
    """A price against the median of what was paid; nothing is told of fewer than two.

    >>> look_at_price(Priced(6, 3), [Priced(4, 4), Priced(4, 4)]).words
    'Dear by 50 % per metre, cheap by 25 % per 1 000 m of cut.'
    """
    if len(paid) < ENOUGH:
        words = "Nothing to hold it against: give what you paid for bands alike."
        return PriceLook(asked, None, len(paid), "cannot_tell", "cannot_tell", words)
    usual = Priced(median(p.per_m for p in paid), median(p.per_1000_m for p in paid))
    metre = asked.per_m / usual.per_m - 1.0 if usual.per_m > 0.0 else 0.0
    cut = asked.per_1000_m / usual.per_1000_m - 1.0 if usual.per_1000_m > 0.0 else 0.0
    words = f"{_words(_told(metre), metre, 'metre')}, {_words(_told(cut), cut, '1 000 m of cut')}."
    said = words[0].upper() + words[1:]
    return PriceLook(asked, usual, len(paid), _told(metre), _told(cut), said)
