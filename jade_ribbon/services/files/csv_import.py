"""Records out as CSV, and in: what would change, line by line; all of it, or none."""

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Any, Literal

from sqlalchemy.orm import Session

from jade_ribbon.core.quantities.errors import Fault, InputError, refuse
from jade_ribbon.formats.records_csv import CsvLine, out, read
from jade_ribbon.formats.sandbox import read_apart
from jade_ribbon.formats.workbook import sheet_text
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.files.lines import FileTable, Record
from jade_ribbon.services.files.tables import table_of

Action = Literal["same", "add", "change", "bad"]
SHOWN = 500
"""Lines that a look tells of; those that stay the same are counted only."""


@dataclass(frozen=True)
class LineLook:
    """One line: what it would do, in words, and what is wrong with it."""

    line: int
    action: Action
    words: str
    faults: tuple[Fault, ...]


@dataclass(frozen=True)
class FileLook:
    """What a file would do: lines that change anything, and how many of each."""

    table: str
    lines: list[LineLook]
    same: int
    added: int
    changed: int
    bad: int


def written_out(session: Session, key: str) -> Iterator[str]:
    """All living records of a table as CSV, in parts."""
    table = table_of(key)
    return out(table.columns, table.records(session))


def _said(value: Any) -> str:
    return "nothing" if value in (None, "", []) else f"{value}"


def _plain(value: Any) -> Any:
    """What nothing is, however it was written."""
    return None if value == "" else value


def _differences(table: FileTable, line: CsvLine, before: Record) -> tuple[list[str], list[Fault]]:
    """What a line changes of a record, and what it must not."""
    words, faults = [], []
    for column in table.columns:
        if column.name not in line.values:
            continue
        new, old = _plain(line.values[column.name]), _plain(before[column.name])
        if new == old:
            continue
        words.append(f"{column.name} {_said(old)} → {_said(new)}")
        if column.fixed:
            told = f"{_said(new)} is not accepted: {_said(old)} stays, put it right on its own page"
            faults.append(Fault(column.name, told))
    return words, faults


def _line(session: Session, table: FileTable, line: CsvLine, known: dict[Any, Record]) -> LineLook:
    """One line, written within a savepoint of its own: bad ones leave nothing."""
    faults = list(line.faults)
    identity = table.identity(line.values)
    before = None if identity is None else known.get(identity)
    words: list[str] = []
    if before is not None:
        words, wrong = _differences(table, line, before)
        faults += wrong
        if not words and not faults:
            return LineLook(line.number, "same", "", ())
    if faults:
        return LineLook(line.number, "bad", ", ".join(words), tuple(faults))
    values = {**(before or {}), **line.values}
    try:
        with session.begin_nested():
            table.write(session, values, before)
    except InputError as error:
        return LineLook(line.number, "bad", ", ".join(words), tuple(error.faults))
    except ConflictError as problem:
        return LineLook(line.number, "bad", ", ".join(words), (Fault("line", str(problem)),))
    if identity is not None:
        known[identity] = values
    return LineLook(line.number, "add" if before is None else "change", ", ".join(words), ())


def _looks(
    session: Session, table: FileTable, lines: Iterable[CsvLine], known: dict[Any, Record]
) -> list[LineLook]:
    """Every line written in its turn; the same record twice is bad."""
    seen: set[Any] = set()
    looks = []
    for line in lines:
        identity = table.identity(line.values)
        if identity is not None and identity in seen:
            twice = Fault("line", "is the same record as a line before it; accepted: once")
            looks.append(LineLook(line.number, "bad", "", (twice,)))
            continue
        seen.add(identity)
        looks.append(_line(session, table, line, known))
    return looks


def _through(session: Session, key: str, text: str) -> FileLook:
    table = table_of(key)
    lines = read(table.columns, text)
    known = {table.identity(r): r for r in table.records(session)}
    with table.within(session):
        looks = _looks(session, table, lines, known)
    count = Counter(x.action for x in looks)
    return FileLook(
        key,
        [x for x in looks if x.action != "same"][:SHOWN],
        same=count["same"],
        added=count["add"],
        changed=count["change"],
        bad=count["bad"],
    )


@dataclass(frozen=True)
class SheetText:
    """A spreadsheet's first sheet as it would be pasted."""

    text: str


def read_workbook(workbook: bytes) -> SheetText:
    """A spreadsheet's first sheet as text."""
    return SheetText(read_apart("workbook", sheet_text, workbook))


Table = Literal["bands", "types", "runs", "events", "materials"]


def _decoded(text: bytes) -> str:
    try:
        return text.decode("utf-8-sig")
    except UnicodeDecodeError as problem:
        raise refuse("text", "is not UTF-8; accepted: a CSV saved as UTF-8") from problem


def look_at_file(session: Session, table: Table, text: bytes) -> FileLook:
    """What a file would do. Nothing is kept: whatever was tried is taken back."""
    try:
        return _through(session, table, _decoded(text))
    finally:
        session.rollback()


def bring_file_in(session: Session, table: Table, text: bytes) -> FileLook:
    """Bring a file in, as one deed. InputError with every bad line: then nothing came in."""
    found = _through(session, table, _decoded(text))
    faults = [f.under(f"line {x.line}") for x in found.lines for f in x.faults]
    if faults:
        raise InputError(faults)
    return found
