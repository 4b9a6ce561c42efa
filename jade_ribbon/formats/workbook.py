"""A spreadsheet's first sheet as text, as if it had been copied and pasted."""

import io
import zipfile
from datetime import date, datetime

from jade_ribbon.core.quantities.errors import refuse

MOST_BYTES = 10_000_000
MOST_UNPACKED = 60_000_000
MOST_ROWS, MOST_COLUMNS = 2001, 60


def _cell(value: object) -> str:
    if value is None:
        return ""
    if isinstance(value, datetime):
        return value.date().isoformat()
    if isinstance(value, date):
        return value.isoformat()
    if isinstance(value, float):
        return f"{value:.10g}"
    return " ".join(str(value).split())


def sheet_text(data: bytes) -> str:
    """The first sheet that holds anything, tabs between its cells. InputError for no workbook.

    How much it unpacks to is looked at before anything is unpacked; formulas give what they were
    worth when it was saved.
    """
    from openpyxl import load_workbook
    from openpyxl.utils.exceptions import InvalidFileException

    if len(data) > MOST_BYTES:
        raise _refused(f"has {len(data) / 1e6:.0f} MB")
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as packed:
            if sum(item.file_size for item in packed.infolist()) > MOST_UNPACKED:
                raise _refused("unpacks to too much")
        book = load_workbook(io.BytesIO(data), read_only=True, data_only=True)
        for sheet in book.worksheets:
            lines = []
            for row in sheet.iter_rows(max_row=MOST_ROWS, max_col=MOST_COLUMNS, values_only=True):
                cells = [_cell(v) for v in row]
                if any(cells):
                    lines.append("\t".join(cells).rstrip("\t"))
            if lines:
                return "\n".join(lines) + "\n"
    except (zipfile.BadZipFile, InvalidFileException, KeyError, ValueError, OSError) as problem:
        if isinstance(problem, ValueError) and hasattr(problem, "faults"):
            raise
        raise _refused("cannot be read") from problem
    raise _refused("holds nothing")


def _refused(words: str) -> Exception:
    return refuse("workbook", f"{words}; accepted: an .xlsx workbook of up to 10 MB")
