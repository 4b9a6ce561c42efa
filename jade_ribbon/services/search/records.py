"""A shop's records in an index: made on the first question, then kept up by what was changed."""

import threading
import weakref
from collections import defaultdict
from collections.abc import Callable, Iterator, Sequence

from sqlalchemy import Engine, func, select
from sqlalchemy.orm import Session

from jade_ribbon.reference.faults import causes, sign_texts
from jade_ribbon.reference.tables import other_names
from jade_ribbon.services.search.index import Entry, Index
from jade_ribbon.services.shop.materials import material_table
from jade_ribbon.store.models import (
    BandRow,
    ChangeRow,
    JobRow,
    RunRow,
    SawRow,
    StockRow,
    TroubleRow,
)

Ids = Sequence[int] | None
"""Which records; all where none are named."""


def _jobs(session: Session, ids: Ids) -> Iterator[Entry]:
    query = select(JobRow).where(JobRow.deleted_at.is_(None))
    for job in session.scalars(query if ids is None else query.where(JobRow.id.in_(ids))):
        detail = f"job {job.id}, {job.operation}, {job.state}"
        words = f"{job.material.replace('_', ' ')} {job.note}"
        yield Entry("job", str(job.id), job.name or f"Job {job.id}", detail, words)


def _bands(session: Session, ids: Ids) -> Iterator[Entry]:
    query = select(BandRow).where(BandRow.deleted_at.is_(None))
    for band in session.scalars(query if ids is None else query.where(BandRow.id.in_(ids))):
        kind = f"{band.form} {band.steel}, {band.place}".replace("_", " ")
        words = f"{band.width_mm:g} mm {band.note}"
        yield Entry("band", str(band.id), band.label, kind, words)


def _saws(session: Session, ids: Ids) -> Iterator[Entry]:
    query = select(SawRow).where(SawRow.deleted_at.is_(None))
    for saw in session.scalars(query if ids is None else query.where(SawRow.id.in_(ids))):
        yield Entry("saw", str(saw.id), saw.name, saw.orientation, saw.note)


def _stock(session: Session, ids: Ids) -> Iterator[Entry]:
    query = select(StockRow).where(StockRow.deleted_at.is_(None))
    for piece in session.scalars(query if ids is None else query.where(StockRow.id.in_(ids))):
        detail = f"{piece.kind}, {piece.material.replace('_', ' ')}, {piece.place}"
        yield Entry("stock", str(piece.id), piece.label, detail, piece.note)


def _runs(session: Session, ids: Ids) -> Iterator[Entry]:
    """Runs that somebody wrote something of; they are found by it, on their band's page."""
    query = (
        select(RunRow.id, RunRow.band_id, RunRow.note, RunRow.at, BandRow.label)
        .join(BandRow, RunRow.band_id == BandRow.id)
        .where(RunRow.deleted_at.is_(None), RunRow.note != "")
    )
    rows = session.execute(query if ids is None else query.where(RunRow.id.in_(ids)))
    for run_id, band_id, note, at, label in rows:
        detail = f"run on {label}, {at:%Y-%m-%d}"
        yield Entry("run", str(run_id), note[:80], detail, note, f"/rack/{band_id}")


def _troubles(session: Session, ids: Ids) -> Iterator[Entry]:
    """Troubles by their signs and what they were found to be."""
    query = (
        select(TroubleRow, SawRow.name)
        .join(SawRow, TroubleRow.saw_id == SawRow.id)
        .where(TroubleRow.deleted_at.is_(None))
    )
    rows = session.execute(query if ids is None else query.where(TroubleRow.id.in_(ids)))
    for row, saw in rows:
        signs = ", ".join(sign_texts()[key].name for key in row.symptoms)
        found = ", ".join(causes()[key].name for key in row.causes)
        detail = f"trouble on {saw}, {row.opened_at:%Y-%m-%d}" + (f": {found}" if found else "")
        yield Entry(
            "trouble", str(row.id), f"Trouble: {signs}", detail, row.note, f"/faults/{row.id}"
        )


READERS: dict[str, Callable[[Session, Ids], Iterator[Entry]]] = {
    "job": _jobs,
    "band": _bands,
    "saw": _saws,
    "stock": _stock,
    "run": _runs,
    "trouble": _troubles,
}
MOST_AT_ONCE = 500
"""After more changes than this the index is made anew."""


class Records:
    """The index of one file's records, up to a change of its log."""

    def __init__(self) -> None:
        self._index = Index()
        self._seen = -1
        self._lock = threading.Lock()

    def index(self, session: Session) -> Index:
        """The index as the file is now."""
        with self._lock:
            newest = session.scalar(select(func.max(ChangeRow.id))) or 0
            if newest < self._seen or self._seen < 0 or newest - self._seen > MOST_AT_ONCE:
                self._index = Index()
                for read in READERS.values():
                    self._index.put(read(session, None))
                self._index.put(_materials(session))
            elif newest > self._seen:
                self._renew(session)
            self._seen = newest
            return self._index

    def _renew(self, session: Session) -> None:
        changed: dict[str, set[int]] = defaultdict(set)
        rows = session.execute(
            select(ChangeRow.noun, ChangeRow.noun_id).where(ChangeRow.id > self._seen)
        )
        for noun, key in rows:
            changed[noun].add(key)
        for noun, ids in changed.items():
            if noun == "material":
                self._index.put(_materials(session))
            if noun in READERS:
                self._index.drop((noun, str(key)) for key in ids)
                self._index.put(READERS[noun](session, sorted(ids)))


def _materials(session: Session) -> Iterator[Entry]:
    for key, material in material_table(session).items():
        names = " ".join(other_names()[key].names) if key in other_names() else ""
        yield Entry("material", key, material.name, material.group.replace("_", " "), names)


_KEPT: "weakref.WeakKeyDictionary[Engine, Records]" = weakref.WeakKeyDictionary()
_LOCK = threading.Lock()


def records_of(session: Session) -> Records:
    """The index kept for a session's file."""
    engine = session.get_bind().engine
    with _LOCK:
        return _KEPT.setdefault(engine, Records())
