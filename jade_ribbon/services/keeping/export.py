"""Everything of a shop as CSV, in one archive."""

from collections.abc import Iterator

from sqlalchemy import LargeBinary, Table, select
from sqlalchemy.orm import Session

from jade_ribbon.formats.tables_csv import archive, table_csv
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


def export_all(session: Session) -> bytes:
    """The archive: a CSV a table, photographs, and a page that explains them."""
    files: dict[str, str | bytes] = {"README.txt": READ_ME.format(at=now().isoformat())}
    for table in _tables():
        columns = [c for c in table.columns if not isinstance(c.type, LargeBinary)]
        rows = session.execute(select(*columns).order_by(*table.primary_key.columns))
        files[f"{table.name}.csv"] = table_csv([c.name for c in columns], rows)
    for photo in session.scalars(select(PhotoRow).where(PhotoRow.deleted_at.is_(None))):
        files[f"photos/{photo.id}.jpg"] = photo.jpeg
    return archive(files)
