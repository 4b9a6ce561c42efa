"""Quantities as people write them: 12½, 8' 6", 1 200, 1 hp, 40 kgf/cm².

The rules are tables of patterns and units. Python reads by them here; the interface is sent the
same tables and reads by them where there is no network. What can be read two ways is asked about.
"""

import re
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from jade_ribbon.core.quantities.constants import M_PER_FT, MM_PER_INCH
from jade_ribbon.reference.quantities import units

LENGTHS = ("length", "long", "thin")

REPLACED: tuple[tuple[str, str], ...] = (
    ("[\\u00a0\\u202f\\u2009\\t]", " "),
    ("[\\u2212\\u2013]", "-"),
    ("[\\u2032\\u2019]", "'"),
    ("[\\u2033\\u201d]|''", '"'),
    ("\\u2044", "/"),
    ("\\u00bd", " 1/2"),
    ("\\u00bc", " 1/4"),
    ("\\u00be", " 3/4"),
    ("\\u215b", " 1/8"),
    ("\\u215c", " 3/8"),
    ("\\u215d", " 5/8"),
    ("\\u215e", " 7/8"),
    ("\\u00b2", "2"),
    ("\\u00b5|\\u03bc", "u"),
    (" +", " "),
)
"""Signs that stand for others, by pattern, in this order."""

Form = Literal["plain", "grouped", "spaced", "fraction", "either"]
FORMS: tuple[tuple[Form, str], ...] = (
    ("fraction", "^([+-]?)(?:(\\d+)[ -])?(\\d+) ?/ ?(\\d+)$"),
    ("spaced", "^[+-]?\\d{1,3}(?: \\d{3})+(?:[.,]\\d+)?$"),
    ("grouped", "^[+-]?\\d{1,3}(?:,\\d{3})+\\.\\d+$|^[+-]?\\d{1,3}(?:\\.\\d{3})+,\\d+$"),
    ("grouped", "^[+-]?\\d{1,3}(?:,\\d{3}){2,}$|^[+-]?\\d{1,3}(?:\\.\\d{3}){2,}$"),
    ("either", "^[+-]?[1-9]\\d{0,2},\\d{3}$"),
    ("plain", "^[+-]?\\d*[.,]?\\d+$|^[+-]?\\d+[.,]$"),
)
"""How a number may be written, tried in this order. A comma before three digits is either."""

FEET = "^(.+?) ?(?:'|ft|foot|feet) ?(?:(.+?) ?(?:\"|in|inch|inches)?)?$"
"""Feet with inches after them."""
PARTED = "^([+-]?[\\d.,][\\d .,/-]*?) ?([a-z\"'%][a-z0-9/\"'%^*]*)?$"
"""A number and what its unit is called, small letters."""


@dataclass(frozen=True)
class WrittenUnit:
    """Names of a unit of one kind, and how much of what it is kept in one of it is."""

    kind: str
    names: tuple[str, ...]
    size: float


@dataclass(frozen=True)
class WrittenForm:
    """One way to write a number."""

    form: Form
    pattern: str


@dataclass(frozen=True)
class WrittenSign:
    """Signs, by pattern, that stand for another."""

    pattern: str
    sign: str


@dataclass(frozen=True)
class WrittenRules:
    """All rules by which what is typed is read; the interface reads by the same."""

    replaced: tuple[WrittenSign, ...]
    forms: tuple[WrittenForm, ...]
    feet: str
    parted: str
    units: tuple[WrittenUnit, ...]


@lru_cache
def written_rules() -> WrittenRules:
    """The rules, with every unit's names and size from the table of units."""
    found = tuple(
        WrittenUnit(kind, tuple(map(_clean, row.written)), float(f"{row.size:.12g}"))
        for row in units()
        for kind in row.kinds
        if row.written
    )
    forms = tuple(WrittenForm(form, pattern) for form, pattern in FORMS)
    signs = tuple(WrittenSign(*each) for each in REPLACED)
    return WrittenRules(signs, forms, FEET, PARTED, found)


@dataclass(frozen=True)
class Written:
    """What was read: one value, two that it may be, or none; in what the kind is kept in."""

    values: tuple[float, ...]

    @property
    def value(self) -> float | None:
        """The one value; None where it cannot be read, or may be either."""
        return self.values[0] if len(self.values) == 1 else None


def _clean(text: str) -> str:
    for pattern, sign in REPLACED:
        text = re.sub(pattern, sign, text)
    return text.strip().lower()


def numbers(text: str) -> tuple[float, ...]:
    """What a number may be: one value, two where a comma is either, or none.

    >>> numbers("12 1/2"), numbers("1,200"), numbers("1 200,5"), numbers("twelve")
    ((12.5,), (1200.0, 1.2), (1200.5,), ())
    """
    for form, pattern in FORMS:
        match = re.match(pattern, text)
        if match is None:
            continue
        if form == "fraction":
            sign, whole, top, bottom = match.groups()
            if int(bottom) == 0:
                return ()
            value = int(whole or 0) + int(top) / int(bottom)
            return (-value if sign == "-" else value,)
        if form == "spaced":
            return (float(text.replace(" ", "").replace(",", ".")),)
        if form == "grouped":
            last = max(text.rfind(","), text.rfind("."))
            many = text.count(text[last]) > 1
            whole, part = (text, "") if many else (text[:last], text[last + 1 :])
            return (float(re.sub("[.,]", "", whole) + (f".{part}" if part else "")),)
        if form == "either":
            return (float(text.replace(",", "")), float(text.replace(",", ".")))
        return (float(text.replace(",", ".")),)
    return ()


def _size(name: str, kind: str) -> float | None:
    units = written_rules().units
    return next((u.size for u in units if u.kind == kind and name in u.names), None)


def read_written(text: str, kind: str, *, usual_size: float) -> Written:
    """What was typed of a kind of quantity; without a unit, in units of the usual size.

    >>> read_written("8 ft 6 in", "length", usual_size=1.0).value
    2590.8
    >>> read_written("1,200", "length", usual_size=1.0).values
    (1200.0, 1.2)
    >>> read_written("1 hp", "power", usual_size=1.0).value
    745.699871582
    """
    clean = _clean(text)
    feet = re.match(FEET, clean) if kind in LENGTHS else None
    if feet is not None:
        foot, inch = numbers(feet[1]), numbers(feet[2]) if feet[2] else (0.0,)
        if len(foot) == 1 and len(inch) == 1:
            return Written((round(1000.0 * M_PER_FT * foot[0] + MM_PER_INCH * inch[0], 9),))
    parted = re.match(PARTED, clean)
    if parted is None:
        return Written(())
    name = parted[2] or ""
    size = usual_size if not name else _size(name, kind)
    if size is None:
        return Written(())
    return Written(tuple(float(f"{n * size:.12g}") for n in numbers(parted[1])))
