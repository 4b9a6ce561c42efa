"""A table of records as CSV, out and in: what was written is read as the same, to the byte."""

import csv
import io
import json
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any, Literal

from jade_ribbon.core.quantities.errors import Fault, refuse
from jade_ribbon.formats.plain_text import odd_sign
from jade_ribbon.formats.tables_csv import csv_parts, value_of

ColumnKind = Literal["text", "number", "whole", "yes_no", "list", "time"]
MOST_LINES = 250_000
MARKS = ",;\t"


@dataclass(frozen=True)
class Column:
    """A column by its heading, and how its cells are read; `fixed` once a record is there."""

    name: str
    kind: ColumnKind = "text"
    fixed: bool = False


@dataclass(frozen=True)
class CsvLine:
    """A line read: values by column, and what could not be read."""

    number: int
    values: dict[str, Any]
    faults: tuple[Fault, ...]


def out(columns: Sequence[Column], records: Iterable[Mapping[str, Any]]) -> Iterator[str]:
    """Records as a CSV, one a line, in the order given; in parts."""
    return csv_parts([c.name for c in columns], ([r[c.name] for c in columns] for r in records))


def _number(cell: str) -> float:
    return float(cell)


def _time(cell: str) -> datetime:
    at = datetime.fromisoformat(cell)
    try:
        return at.astimezone(UTC) if at.tzinfo is not None else at.replace(tzinfo=UTC)
    except OverflowError as problem:
        raise ValueError(cell) from problem


def _list(cell: str) -> list[Any]:
    found = json.loads(cell)
    if not isinstance(found, list):
        raise ValueError(cell)
    return found


def _yes_no(cell: str) -> bool:
    return {"yes": True, "no": False}[cell.lower()]


READ: Mapping[str, tuple[Callable[[str], Any], str]] = {
    "number": (_number, "a number with a point"),
    "whole": (int, "a whole number"),
    "yes_no": (_yes_no, "yes or no"),
    "list": (_list, 'a list such as ["burn"]'),
    "time": (_time, "a time such as 2026-03-12T14:05:00+00:00"),
}


def _read(column: Column, cell: str) -> tuple[Any, Fault | None]:
    if column.kind == "text":
        odd = odd_sign(cell)
        words = f"holds {odd}, which nobody sees; accepted: letters, digits, signs"
        return value_of(cell), Fault(column.name, words) if odd else None
    if cell.strip() == "":
        return None, None
    reader, accepted = READ[column.kind]
    try:
        return reader(value_of(cell.strip())), None
    except (ValueError, KeyError, RecursionError):
        words = f"{cell[:60]!r} cannot be read; accepted: {accepted}"
        return None, Fault(column.name, words, cell[:60])


def read(columns: Sequence[Column], text: str) -> list[CsvLine]:
    """Lines of a CSV under the headings of a table; columns left out are not in the values.

    InputError for what is no such table: unknown headings, one twice, no lines.
    """
    text = text.removeprefix("\ufeff")
    first = text.splitlines()[0] if text.strip() else ""
    mark = max(MARKS, key=first.count)
    try:
        found = [r for r in csv.reader(io.StringIO(text), delimiter=mark) if any(r)]
    except csv.Error as problem:
        raise refuse("text", f"cannot be read as CSV: {problem}") from problem
    if not found:
        raise refuse("text", "is empty; accepted: a line of headings and a line a record")
    if len(found) > MOST_LINES:
        raise refuse("text", f"has {len(found)} lines; accepted: at most {MOST_LINES}")
    headings = [h.strip() for h in found[0]]
    known = {c.name: c for c in columns}
    for heading in headings:
        if heading not in known:
            words = f"{heading[:60]!r} is no column of it; accepted: {', '.join(known)}"
            raise refuse("text", words, heading[:60])
        if headings.count(heading) > 1:
            raise refuse("text", f"the column {heading} is there twice; accepted: once", heading)
    lines = []
    for number, row in enumerate(found[1:], 2):
        values, faults = {}, []
        if len(row) > len(headings):
            words = f"has {len(row)} cells; accepted: {len(headings)}"
            faults.append(Fault("line", words))
        for heading, cell in zip(headings, row, strict=False):
            value, fault = _read(known[heading], cell)
            values[heading] = value
            faults += [fault] if fault else []
        lines.append(CsvLine(number, values, tuple(faults)))
    return lines
