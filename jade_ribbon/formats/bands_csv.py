"""A sheet of bands as people keep it: pasted or a CSV file, headings guessed, quantities read."""

import csv
import io
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any

from jade_ribbon.core.quantities.constants import MM_PER_INCH
from jade_ribbon.core.quantities.errors import Fault, refuse
from jade_ribbon.core.quantities.typical import USUAL
from jade_ribbon.core.quantities.words import quantity, sentence
from jade_ribbon.formats.tables_csv import value_of
from jade_ribbon.formats.written import numbers, read_written
from jade_ribbon.reference.tables import BandColumn, band_columns, band_words, steels, tooth_forms

MOST_ROWS = 2000
MOST_COLUMNS = 60
DELIMITERS = "\t;,|"
INCH = re.compile(r'\(?\b(in|inch|inches)\b\)?|"')
MILLIMETRE = re.compile(r"\(?\bmm\b\)?")
USUAL_OF = {"width_mm": "width_mm", "thickness_mm": "thickness_mm", "length_mm": "band_length_mm"}
"""What is usual on a shop floor, by column: an inch taken for a millimetre is asked about."""


@dataclass(frozen=True)
class SheetRow:
    """One line of the sheet: what was read of it by column key, and what could not be."""

    line: int
    values: dict[str, Any]
    faults: tuple[Fault, ...]


@dataclass(frozen=True)
class BandSheet:
    """A sheet with its headings, which column each is taken for, and its rows."""

    headings: tuple[str, ...]
    columns: dict[str, int]
    rows: tuple[SheetRow, ...]


def _cells(text: str) -> list[list[str]]:
    """Lines of cells, empty lines left out. InputError for a sheet too large or not a sheet."""
    lines = [line for line in text.splitlines() if line.strip(f"{DELIMITERS} ")]
    if not lines:
        raise refuse("text", "is empty; accepted: a line of headings and a line a band")
    mark = max(DELIMITERS, key=lambda d: (lines[0].count(d), d == "\t"))
    try:
        found = list(csv.reader(io.StringIO("\n".join(lines)), delimiter=mark))
    except csv.Error as problem:
        raise refuse("text", f"cannot be read as a sheet: {problem}") from problem
    if len(found) > MOST_ROWS + 1:
        raise refuse("text", f"has {len(found) - 1} lines; accepted: at most {MOST_ROWS}")
    if max(map(len, found)) > MOST_COLUMNS:
        raise refuse("text", f"has lines of {max(map(len, found))} cells; at most {MOST_COLUMNS}")
    return [[cell.strip() for cell in row] for row in found if any(c.strip() for c in row)]


def _plain(heading: str) -> str:
    """A heading without its unit, in small letters."""
    bare = re.sub(r"\(.*?\)|\[.*?\]", "", heading.lower().replace("_", " "))
    bare = re.sub(r"\b(mm|in|inch|inches)\b", "", bare)
    return re.sub(r"[^a-z ]+", "", bare).strip()


def guessed(headings: Sequence[str]) -> dict[str, int]:
    """Which column each heading is, by what people call it; each column once, the surest first."""
    found: dict[str, int] = {}
    for exact in (True, False):
        for at, heading in enumerate(headings):
            plain = _plain(heading)
            if at in found.values() or not plain:
                continue
            for key, column in band_columns().items():
                words = plain.split()
                hit = plain in column.called if exact else any(w in words for w in column.called)
                if key not in found and hit:
                    found[key] = at
                    break
    return found


def _tpi(cell: str) -> tuple[float, float] | None:
    """Teeth per inch as one or as two, coarser first."""
    parts = re.split(r"\s*(?:/|-|–|to)\s*", re.sub(r"\s*tpi\b", "", cell.lower()).strip())
    read = [numbers(p) for p in parts]
    if len(read) not in (1, 2) or any(len(r) != 1 for r in read):
        return None
    values = sorted(r[0] for r in read)
    return values[0], values[-1]


def _word(kind: str, cell: str) -> str | None:
    """The key of a steel, a form or a look by what it is called."""
    plain = " ".join(cell.lower().replace("_", " ").split())
    names = {
        "steel": {k: s.name for k, s in steels().items()},
        "form": {k: f.name for k, f in tooth_forms().items()},
    }
    for key, name in names.get(kind, {}).items():
        if plain in (key.replace("_", " "), name.lower()):
            return key
    return next((w.key for w in band_words() if w.kind == kind and plain in w.called), None)


def _date(cell: str) -> tuple[date, ...]:
    """A day as written; two where day and month may be either."""
    for pattern, order in (
        (r"(\d{4})-(\d{1,2})-(\d{1,2})", "ymd"),
        (r"(\d{1,2})\.(\d{1,2})\.(\d{4})", "dmy"),
    ):
        if match := re.fullmatch(pattern, cell):
            parts = dict(zip(order, map(int, match.groups()), strict=True))
            return _days([(parts["y"], parts["m"], parts["d"])])
    if match := re.fullmatch(r"(\d{1,2})/(\d{1,2})/(\d{4})", cell):
        a, b, year = map(int, match.groups())
        return _days([(year, b, a), (year, a, b)])
    return ()


def _days(parts: Sequence[tuple[int, int, int]]) -> tuple[date, ...]:
    found: dict[date, None] = {}
    for year, month, day in parts:
        try:
            found[date(year, month, day)] = None
        except ValueError:
            continue
    return tuple(found)


def _length(column: BandColumn, cell: str, size: float, *, said: bool) -> tuple[Any, Fault | None]:
    """A length; one that is only usual as inches is asked about where no unit was written."""
    read = read_written(cell, column.kind, usual_size=size)
    if len(read.values) == 2:
        low, high = read.values
        words = sentence(
            f"{cell!r} may be either ", quantity(low, "length"), " or ", quantity(high, "length")
        )
        return None, Fault(column.key, words, cell)
    if read.value is None:
        return None, Fault(column.key, f"{cell!r} cannot be read as a length", cell)
    usual = USUAL.get(USUAL_OF.get(column.key, ""))
    bare = numbers(cell.strip()) != ()
    if usual and bare and not said:
        other = read.value * MM_PER_INCH / size
        if read.value < usual.low <= other <= usual.high:
            words = sentence(
                f'{cell!r} may be inches: write {cell}" for ', quantity(other, "length")
            )
            return None, Fault(column.key, words, cell)
    return read.value, None


def _read(column: BandColumn, cell: str, size: float, *, said: bool) -> tuple[Any, Fault | None]:
    """A cell as its column takes it, or the fault in it."""
    if column.kind == "text":
        return value_of(cell), None
    if column.kind in ("length", "thin"):
        return _length(column, cell, size, said=said)
    if column.kind == "tpi":
        teeth = _tpi(cell)
        return teeth, None if teeth else Fault(
            "tpi", f"{cell!r} cannot be read as teeth an inch; accepted: 4 or 4/6", cell
        )
    if column.kind == "number":
        read = numbers(cell)
        told = f"{cell!r} cannot be read as a number"
        return (read[0], None) if len(read) == 1 else (None, Fault(column.key, told, cell))
    if column.kind == "date":
        days = _date(cell)
        if len(days) == 1:
            return days[0], None
        either = " or ".join(d.isoformat() for d in days)
        told = (
            f"{cell!r} may be {either}: write it so"
            if days
            else f"{cell!r} is no day; accepted: 2026-03-12"
        )
        return None, Fault(column.key, told, cell)
    key = _word(column.kind, cell)
    accepted = ", ".join(dict.fromkeys(w.key for w in band_words() if w.kind == column.kind))
    return key, None if key else Fault(
        column.key, f"{cell!r} is unknown; accepted: {accepted}", cell
    )


def read_bands(text: str, *, inch: bool, columns: Mapping[str, int] | None = None) -> BandSheet:
    """A sheet of bands, its first line the headings. InputError for what is no sheet.

    Lengths without a unit are in the heading's, else in the shop's. Unreadable cells are faults of
    their rows.
    """
    headings, *lines = _cells(text)
    taken = dict(columns) if columns is not None else guessed(headings)
    for key, at in taken.items():
        if key not in band_columns():
            raise refuse(f"columns.{key}", f"is unknown; accepted: {', '.join(band_columns())}")
        if not 0 <= at < len(headings):
            raise refuse(f"columns.{key}", f"{at} is no column; accepted: 0 to {len(headings) - 1}")
    sizes: dict[int, tuple[float, bool]] = {}
    for at, heading in enumerate(headings):
        plain = heading.lower().replace("_", " ")
        if INCH.search(plain):
            sizes[at] = (MM_PER_INCH, True)
        else:
            sizes[at] = (
                (1.0, True) if MILLIMETRE.search(plain) else (MM_PER_INCH if inch else 1.0, False)
            )
    rows = []
    for n, line in enumerate(lines):
        values: dict[str, Any] = {}
        faults: list[Fault] = []
        for key, at in taken.items():
            cell = line[at] if at < len(line) else ""
            if cell in ("", "-", "–"):
                continue
            size, said = sizes[at]
            value, fault = _read(band_columns()[key], cell, size, said=said)
            if fault is None:
                values[key] = value
            else:
                faults.append(fault)
        rows.append(SheetRow(n + 2, values, tuple(faults)))
    return BandSheet(tuple(headings), taken, tuple(rows))
