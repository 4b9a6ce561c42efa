"""Tables as CSV in one archive: open, complete, with units in the headings."""

import csv
import io
import json
import zipfile
from collections.abc import Iterable, Iterator, Sequence
from datetime import datetime
from typing import Any

RISKY = ("=", "+", "-", "@", "\t", "\r")
"""What a spreadsheet takes for a formula when a text begins with it."""
GUARD = "'"


def cell_of(value: object) -> str | int | float:
    """A value as a cell: times in ISO 8601, lists as JSON, no text that a spreadsheet would run.

    >>> cell_of("=1+1"), cell_of(-2.5), cell_of(None), cell_of([1, 2])
    ("'=1+1", -2.5, '', '[1, 2]')
    """
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, (int, float)):
        return value
    if isinstance(value, datetime):
        return value.isoformat()
    if isinstance(value, (dict, list)):
        return json.dumps(value, ensure_ascii=False)
    text = str(value)
    return GUARD + text if text.startswith((*RISKY, GUARD)) else text


def value_of(cell: str) -> str:
    """A text cell as it was before it was guarded.

    >>> value_of(str(cell_of("-rusty"))), value_of("plain")
    ('-rusty', 'plain')
    """
    return cell[1:] if cell.startswith(GUARD) else cell


LINES_A_PART = 2000
PART_BYTES = 65_536


def csv_parts(names: Sequence[str], rows: Iterable[Sequence[object]]) -> Iterator[str]:
    """A table with its headings, some thousand lines at a time."""
    text = io.StringIO()
    writer = csv.writer(text, lineterminator="\r\n")
    writer.writerow(names)
    for number, row in enumerate(rows, 1):
        writer.writerow([cell_of(v) for v in row])
        if number % LINES_A_PART == 0:
            yield text.getvalue()
            text.seek(0)
            text.truncate()
    yield text.getvalue()


def table_csv(names: Sequence[str], rows: Iterable[Sequence[object]]) -> str:
    """A table with its headings."""
    return "".join(csv_parts(names, rows))


class _Outlet(io.RawIOBase):
    """Takes what a zip writes, until it is handed on; it cannot be gone back in."""

    def __init__(self) -> None:
        self.parts: list[bytes] = []
        self.size = 0

    def writable(self) -> bool:
        return True

    def write(self, data: Any) -> int:
        self.parts.append(bytes(data))
        self.size += len(self.parts[-1])
        return len(self.parts[-1])

    def drained(self) -> bytes:
        found = b"".join(self.parts)
        self.parts, self.size = [], 0
        return found


def archive_parts(files: Iterable[tuple[str, Iterable[str | bytes]]]) -> Iterator[bytes]:
    """Files, each in parts, as one zip that comes in parts too: never whole in memory."""
    outlet = _Outlet()
    with zipfile.ZipFile(outlet, "w", zipfile.ZIP_DEFLATED) as packed:
        for name, parts in files:
            with packed.open(name, "w", force_zip64=True) as entry:
                for part in parts:
                    entry.write(part.encode() if isinstance(part, str) else part)
                    if outlet.size > PART_BYTES:
                        yield outlet.drained()
    yield outlet.drained()
