"""Everything of a shop as CSV, in one archive."""

from collections.abc import Iterable, Iterator

from sqlalchemy import LargeBinary, Table, select
from sqlalchemy.orm import Session

from jade_ribbon.formats.tables_csv import archive_parts, csv_parts
from jade_ribbon.services.clock import now
from jade_ribbon.store.models import AnsweredRow, Base, PhotoRow, RunSumRow

LEFT_OUT = (AnsweredRow.__tablename__, RunSumRow.__tablename__)
"""What keeps the program honest or quick, and tells nothing more of the shop."""
READ_ME = """Everything this shop has recorded, as of {at}.

One file a table, UTF-8, commas, headings in the first line. The unit of a quantity is the end of
its heading (width_mm, stress_MPa); money ends in _minor and is in hundredths; times are UTC.
deleted_at tells when a record was deleted; change.csv has every change before and after. Lists and
records inside a cell are JSON. A text that a spreadsheet would take for a formula has a ' before
it. Photographs are in photos/, by the id of their line in photo.csv.
"""


def _tables() -> Iterator[Table]:
    return (t for t in Base.metadata.sorted_tables if t.name not in LEFT_OUT)


ROWS_AT_ONCE = 2000


def export_all(session: Session) -> Iterator[bytes]:
    """The archive in parts: a CSV a table, photographs, and a page that explains them."""
    return archive_parts(_files(session))


def _files(session: Session) -> Iterator[tuple[str, Iterable[str | bytes]]]:
    yield "README.txt", [READ_ME.format(at=now().isoformat())]
    for table in _tables():
        columns = [c for c in table.columns if not isinstance(c.type, LargeBinary)]
        rows = session.execute(
            select(*columns)
            .order_by(*table.primary_key.columns)
            .execution_options(yield_per=ROWS_AT_ONCE)
        )
        yield f"{table.name}.csv", csv_parts([c.name for c in columns], rows)
    keys = session.scalars(
        select(PhotoRow.id).where(PhotoRow.deleted_at.is_(None)).order_by(PhotoRow.id)
    ).all()
    for key in keys:
        jpeg = session.scalar(select(PhotoRow.jpeg).where(PhotoRow.id == key))
        if jpeg is not None:
            yield f"photos/{key}.jpg", [jpeg]
