"""Quantities and units: what a formula stands of each, what a shop enters, what is usual; names.

A formula's range is the limit of its sense, deliberately wide. What a shop may enter is narrower,
and read by every form, file and reading. What is usual on a shop floor is no limit: outside it the
interface asks ("did you mean 0.64 mm?").
"""

import math
import re
from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from jade_ribbon.reference.tables import keyed, rows_of

Units = Literal["metric", "inch"]
Kind = Literal[
    "length",
    "long",
    "thin",
    "feed",
    "speed",
    "stress",
    "force",
    "stretch",
    "power",
    "motor",
    "section",
    "area",
    "plain",
]
LEAST = 1e-9
"""No quantity that must be more than nothing is less: 5e-324 mm is a slip of the hand."""


@dataclass(frozen=True)
class Range:
    """Accepted interval of a number; `open_low` leaves the lower end out."""

    low: float
    high: float
    open_low: bool = False
    choices: tuple[str, ...] = ()

    def words(self) -> str:
        """The range as said to a person."""
        if self.choices:
            return "one of " + ", ".join(self.choices)
        if self.open_low:
            return f"more than {self.low:g} and at most {self.high:g}"
        return f"{self.low:g} to {self.high:g}"

    def holds(self, value: float) -> bool:
        above = value >= self.low + LEAST if self.open_low else value >= self.low
        return math.isfinite(value) and above and value <= self.high


_INTERVAL = re.compile(r"(over|from) (\S+) to (\S+)")


def _range(cell: str) -> Range:
    """A cell of the table: "over 0 to 3000", "from -60 to 60", or names to choose among."""
    found = _INTERVAL.fullmatch(cell)
    if found is None:
        return Range(0, 0, choices=tuple(cell.split("|")))
    return Range(float(found[2]), float(found[3]), open_low=found[1] == "over")


@dataclass(frozen=True)
class QuantityRow:
    """A row of quantities.csv; an empty range: it is not asked there."""

    key: str
    formula: str
    entry: str
    usual: str


@lru_cache
def ranges(which: Literal["formula", "entry", "usual"]) -> Mapping[str, Range]:
    """The ranges of one column, by quantity."""
    rows = keyed("quantities", QuantityRow).values()
    return {row.key: _range(cell) for row in rows if (cell := getattr(row, which))}


@dataclass(frozen=True)
class UnitRow:
    """A row of units.csv: of which kinds, its size in SI's usual unit, what people write for it,
    and in which system it is the one shown, with so many digits.
    """

    kinds: tuple[str, ...]
    name: str
    size: float
    written: tuple[str, ...]
    shown: tuple[str, ...]
    digits: int | None


@lru_cache
def units() -> tuple[UnitRow, ...]:
    """All units, in the table's order."""
    return tuple(rows_of("units", UnitRow))


def size_of(kind: Kind, name: str) -> float:
    """How much of SI's usual unit one of a unit is. LookupError for an unknown one."""
    return next(u.size for u in units() if kind in u.kinds and u.name == name)
