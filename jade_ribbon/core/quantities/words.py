"""Figures inside sentences, written as people write them, in the reader's units."""

import math
import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal
from itertools import product
from typing import NoReturn, get_args

from jade_ribbon.core.quantities.constants import MM_PER_INCH
from jade_ribbon.reference.quantities import Kind, Units
from jade_ribbon.reference.quantities import units as units_table


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


UNITS: dict[Units, dict[Kind, Unit]] = {"metric": {}, "inch": {}}
for _row in units_table():
    for _kind, _system in product(get_args(Kind), get_args(Units)):
        if _kind in _row.kinds and _system in _row.shown:
            UNITS[_system][_kind] = Unit(_row.name, _row.size, _row.digits or 0)
EXACT_MM = 0.02
"""An inch fraction, to 1/64, is said for a length this near to it."""
NOMINAL_MM, NOMINAL_SHARE = 0.06, 0.008
"""A length is called by a sixteenth from this near: a band of 19 mm is sold as 3/4."""
MEASURED = ("stress", "force", "speed")
"""Kinds of which nobody knows more than three digits."""
LOOSE = ("length", "plain")
"""Kinds whose trailing zeros say nothing."""


@dataclass(frozen=True)
class Quantity:
    """A quantity inside a sentence: SI value, or a range up to `high`, and its kind."""

    value: float
    kind: Kind
    high: float | None = None

    def said(self, units: Units) -> str:
        """The quantity in the reader's units, with the unit's name."""
        words = number(self.value, self.kind, units)
        if self.high is not None:
            words = f"{words} to {number(self.high, self.kind, units)}"
        return f"{words} {UNITS[units][self.kind].name}".rstrip()


def _ten_digits(value: float) -> float:
    """A value freed of what binary fractions add, so that a half is rounded as a half."""
    return float(f"{value:.10g}")


def quantity(value: float, kind: Kind) -> Quantity:
    """A quantity, left open for the reader's units.

    >>> quantity(134.5, "stress").said("metric")
    '135 MPa'
    """
    return Quantity(_ten_digits(value), kind)


def between(low: float, high: float, kind: Kind) -> Quantity:
    """A range, left open: said as '3 to 25 mm'."""
    return Quantity(_ten_digits(low), kind, _ten_digits(high))


@dataclass(frozen=True)
class Sentence:
    """Words with their quantities open: a reader's units fill them in.

    What people wrote is a plain part, and never taken for a quantity.
    """

    parts: tuple[str | Quantity, ...]

    def said(self, units: Units = "metric") -> str:
        """The whole sentence for a reader."""
        return "".join(p if isinstance(p, str) else p.said(units) for p in self.parts)

    def __add__(self, more: "Words") -> "Sentence":
        return sentence(self, more)

    def __radd__(self, before: str) -> "Sentence":
        return sentence(before, self)

    def __bool__(self) -> bool:
        return any(self.parts)

    def __str__(self) -> str:
        return self.said()

    def __format__(self, _: str) -> NoReturn:
        raise TypeError("a sentence in an f-string would lose its quantities: use sentence()")


Words = str | Quantity | Sentence
"""What a sentence is made of."""
Said = str | Sentence
"""What is told to a reader: plain words, or words with their quantities open."""


def sentence(*parts: Words) -> Sentence:
    """Words, quantities and sentences put together.

    >>> sentence("Raise it to ", quantity(134.5, "stress"), ", gap ", quantity(0.1, "thin")).said()
    'Raise it to 135 MPa, gap 0.10 mm'
    """
    found: list[str | Quantity] = []
    for part in parts:
        for piece in part.parts if isinstance(part, Sentence) else (part,):
            if isinstance(piece, str) and found and isinstance(found[-1], str):
                found[-1] += piece
            elif piece != "":
                found.append(piece)
    return Sentence(tuple(found))


def join(separator: str, parts: Iterable[Words]) -> Sentence:
    """Sentences one after the other, parted by a separator."""
    pieces: list[Words] = []
    for part in parts:
        pieces += [separator, part] if pieces else [part]
    return sentence(*pieces)


_HOLE = re.compile(r"\{(\w+)\}")


def fill(template: str, words: Mapping[str, Words]) -> Sentence:
    """A text of the reference tables with its {names} filled in. KeyError for an unknown one.

    Runs of spaces that an empty word leaves become one.
    """
    pieces = _HOLE.split(template)
    filled = [words[p] if i % 2 else p for i, p in enumerate(pieces)]
    return _tidy(sentence(*filled))


_IN_TABLE = re.compile(r"\{([\d.]+)(?:-([\d.]+))? (\w+)\}")


def table_text(text: str) -> Said:
    """A text of the reference tables whose quantities stand in braces, as {0.1 thin}.

    >>> metric(table_text("paper-thin ({0.1 thin}), {3-25 length}"))
    'paper-thin (0.10 mm), 3 to 25 mm'
    """
    pieces: list[Words] = []
    last = 0
    for found in _IN_TABLE.finditer(text):
        low, high, kind = found.groups()
        known = next(k for k in UNITS["metric"] if k == kind)
        pieces += [text[last : found.start()]]
        pieces += [
            quantity(float(low), known) if high is None else between(float(low), float(high), known)
        ]
        last = found.end()
    return sentence(*pieces, text[last:]) if pieces else text


def _tidy(text: Sentence) -> Sentence:
    """One space where an empty word left two; none at the ends."""
    parts = [re.sub(r"\s+", " ", p) if isinstance(p, str) else p for p in text.parts]
    if parts and isinstance(parts[0], str):
        parts[0] = parts[0].lstrip()
    if parts and isinstance(parts[-1], str):
        parts[-1] = parts[-1].rstrip()
    return sentence(*parts)


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


def number(value: float, kind: Kind, units: Units = "metric") -> str:
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


def said(text: Words, units: Units = "metric") -> str:
    """Words for a reader; plain words stay as they are."""
    return text if isinstance(text, str) else text.said(units)


def metric(text: Words) -> str:
    """Words with their quantities in SI's usual units."""
    return said(text, "metric")
