"""Tables as CSV in one archive: open, complete, with units in the headings."""

import csv
import io
import json
import zipfile
from collections.abc import Iterable, Mapping, Sequence
from datetime import datetime

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


def table_csv(names: Sequence[str], rows: Iterable[Sequence[object]]) -> str:
    """A table with its headings."""
    text = io.StringIO()
    writer = csv.writer(text, lineterminator="\r\n")
    writer.writerow(names)
    writer.writerows([cell_of(v) for v in row] for row in rows)
    return text.getvalue()


def archive(files: Mapping[str, str | bytes]) -> bytes:
    """Files in one zip."""
    kept = io.BytesIO()
    with zipfile.ZipFile(kept, "w", zipfile.ZIP_DEFLATED) as packed:
        for name, content in files.items():
            packed.writestr(name, content)
    return kept.getvalue()
