"""The trouble book: troubles by saw and band, what each cause cost, what to mind before a job."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.faults.book import BookEntry, CauseSum, before_a_job, came_back, sums
from jade_ribbon.core.faults.telling import chance_words
from jade_ribbon.reference.faults import causes, sign_texts
from jade_ribbon.reference.tables import operations
from jade_ribbon.services.clock import now
from jade_ribbon.services.faults.answers import minutes_of, money_of
from jade_ribbon.services.faults.told import symptoms_of
from jade_ribbon.services.records import get
from jade_ribbon.services.shop.materials import material_table
from jade_ribbon.services.shop.settings import read_shop
from jade_ribbon.store.models import BandRow, JobRow, RunRow, SawRow, TroubleRow


@dataclass(frozen=True)
class TroubleLine:
    """A trouble as the book lists it; `likely`: what stood first last, where none is found yet."""

    id: int
    at: datetime
    saw_id: int
    saw: str
    band_id: int | None
    band: str
    signs: list[str]
    state: str
    found: list[str]
    likely: str
    minutes: float
    money: float
    came_back_of: int | None
    came_back: bool
    """Whether it came back later."""
    note: str


@dataclass(frozen=True)
class Book:
    """Troubles, newest first, and what causes came to."""

    troubles: list[TroubleLine]
    causes: list[CauseSum]
    minutes: float
    money: float
    not_found: int
    """Troubles that went, or were given up, without a cause found."""


Row = tuple[TroubleRow, str, str | None, str | None, str | None]
"""A trouble with its saw, band, and its job's operation and material."""


def _rows(session: Session, saw_id: int | None, band_id: int | None) -> Sequence[Row]:
    asked = (
        select(TroubleRow, SawRow.name, BandRow.label, JobRow.operation, JobRow.material)
        .join(SawRow, TroubleRow.saw_id == SawRow.id)
        .outerjoin(BandRow, TroubleRow.band_id == BandRow.id)
        .outerjoin(JobRow, TroubleRow.job_id == JobRow.id)
        .where(TroubleRow.deleted_at.is_(None))
        .order_by(TroubleRow.opened_at.desc(), TroubleRow.id.desc())
    )
    if saw_id is not None:
        asked = asked.where(TroubleRow.saw_id == saw_id)
    if band_id is not None:
        asked = asked.where(TroubleRow.band_id == band_id)
    return [(t, saw, band, cut, of) for t, saw, band, cut, of in session.execute(asked)]


def _entry(row: TroubleRow, hour: float, operation: str, material: str) -> BookEntry:
    return BookEntry(
        row.id,
        row.saw_id,
        row.band_id,
        row.opened_at,
        tuple(row.causes),
        minutes_of(row),
        money_of(row, hour),
        operation,
        material,
    )


def _entries(rows: Sequence[Row], hour: float) -> list[BookEntry]:
    return [_entry(r, hour, cut or "", of or "") for r, _, _, cut, of in rows]


def _seen(row: TroubleRow) -> list[str]:
    """Names of the signs that are there."""
    return [sign_texts()[k].name for k, d in symptoms_of(row, row.path).items() if d != "absent"]


def _likely(row: TroubleRow) -> str:
    """What stood first after the last step, in words; '' before the first."""
    first = next((s["first"][0] for s in reversed(row.path) if s.get("first")), None)
    return f"{causes()[first[0]].name}, {chance_words(first[1])}" if first else ""


def book(session: Session, saw_id: int | None = None, band_id: int | None = None) -> Book:
    """The trouble book of the shop, a saw or a band; two statements."""
    hour = read_shop(session).rates.hour
    rows = _rows(session, saw_id, band_id)
    entries = [
        _entry(r, hour, operation or "", material or "") for r, _, _, operation, material in rows
    ]
    back = came_back(entries)
    again = set(back.values())
    lines = [
        TroubleLine(
            id=row.id,
            at=row.opened_at,
            saw_id=row.saw_id,
            saw=saw,
            band_id=row.band_id,
            band=band or "",
            signs=[
                sign_texts()[k].name for k, d in symptoms_of(row, row.path).items() if d != "absent"
            ],
            state=row.state,
            found=[causes()[c].name for c in row.causes],
            likely=_likely(row),
            minutes=entry.minutes,
            money=entry.money,
            came_back_of=back.get(row.id),
            came_back=row.id in again,
            note=row.note,
        )
        for (row, saw, band, _, _), entry in zip(rows, entries, strict=True)
    ]
    return Book(
        lines,
        list(sums(entries)),
        sum(e.minutes for e in entries),
        sum(e.money for e in entries),
        sum(row.state == "gone" for row, *_ in rows),
    )


@dataclass(frozen=True)
class Asked:
    """A trouble whose remedy was done on this saw: did it go?"""

    id: int
    sign: str
    cause: str
    """What was mended; closed with it when the trouble went."""
    remedy: str
    ran: bool
    """Whether the saw has cut since."""


@dataclass(frozen=True)
class Beforehand:
    """What to mind before a job: a line of the book, troubles open, remedies to be asked about."""

    line: str
    open: list[TroubleLine]
    asks: list[Asked]


def _asked_here(row: TroubleRow, job: JobRow) -> bool:
    """Whether a job's next run can tell: of a band's cause, only with that band on."""
    if causes()[row.remedy].where != "band":
        return True
    return None in (row.band_id, job.band_id) or row.band_id == job.band_id


def beforehand(session: Session, job_id: int) -> Beforehand:
    """What has gone wrong on a job's saw with such work, and what is still to be told."""
    job: JobRow = get(session, "job", job_id)
    if job.saw_id is None:
        return Beforehand("", [], [])
    hour = read_shop(session).rates.hour
    rows = _rows(session, job.saw_id, None)
    entries = [
        _entry(r, hour, operation or "", material or "") for r, _, _, operation, material in rows
    ]
    material = material_table(session).get(job.material)
    what = material.name.split(" (")[0] if material else job.material
    line = before_a_job(
        entries,
        now=now(),
        operation=job.operation,
        material=job.material,
        said=f"{operations()[job.operation].name.lower()} or {what}",  # type: ignore[index]
    )
    here = book(session, saw_id=job.saw_id)
    last = session.scalars(
        select(RunRow.at)
        .where(RunRow.saw_id == job.saw_id, RunRow.deleted_at.is_(None))
        .order_by(RunRow.at.desc())
    ).first()
    asks = [
        Asked(
            row.id,
            ", ".join(_seen(row)).lower(),
            row.remedy,
            causes()[row.remedy].name.lower(),
            bool(last and row.remedied_at and last > row.remedied_at),
        )
        for row, *_ in rows
        if row.state == "watching" and _asked_here(row, job)
    ]
    return Beforehand(line, [t for t in here.troubles if t.state == "open"], asks)
