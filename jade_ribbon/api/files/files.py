"""Records in from CSV, and a spreadsheet's sheet as text; out is a download beside (sheets)."""

from dataclasses import dataclass

from sqlalchemy.orm import Session

from jade_ribbon.api.operations import CSV, PICTURE, operation
from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.formats.apart import read_apart
from jade_ribbon.formats.workbook import sheet_text
from jade_ribbon.services.files import through
from jade_ribbon.services.files.inputs import FileQuery


def _text(body: bytes) -> str:
    try:
        return body.decode("utf-8-sig")
    except UnicodeDecodeError as problem:
        raise refuse("text", "is not UTF-8; accepted: a CSV saved as UTF-8") from problem


@operation(
    "POST",
    "/api/files/look",
    answer=through.FileLook,
    query=FileQuery,
    raw_body=True,
    media=CSV,
    asks=True,
)
def look_at_file(session: Session, body: bytes, query: FileQuery) -> through.FileLook:
    """What a CSV of records would add and change, line by line."""
    return through.look(session, query.table, _text(body))


@operation(
    "POST",
    "/api/files",
    answer=through.FileLook,
    query=FileQuery,
    raw_body=True,
    media=CSV,
    status=201,
    role="authorised",
)
def bring_file_in(session: Session, body: bytes, query: FileQuery) -> through.FileLook:
    """Bring a CSV of records in: all of it, or none."""
    return through.bring_in(session, query.table, _text(body))


@dataclass(frozen=True)
class SheetText:
    """A spreadsheet's first sheet as it would be pasted."""

    text: str


@operation("POST", "/api/files/workbook", answer=SheetText, raw_body=True, media=PICTURE, asks=True)
def read_workbook(session: Session, body: bytes) -> SheetText:
    """A spreadsheet's first sheet as text."""
    return SheetText(read_apart("workbook", sheet_text, body))
