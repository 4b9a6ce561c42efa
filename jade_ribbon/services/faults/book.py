"""The trouble book: troubles by saw and band, what each cause cost, what to mind before a job."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.faults.book import BookEntry, CauseSum, before_a_job, came_back, sums
from jade_ribbon.core.quantities.chances import chance_words
from jade_ribbon.reference.faults import causes, sign_texts
from jade_ribbon.reference.tables import operations
from jade_ribbon.services.clock import now
from jade_ribbon.services.faults.answers import MINOR, minutes_of
from jade_ribbon.services.faults.trouble_log import symptoms_of
from jade_ribbon.services.field_types import Id
from jade_ribbon.services.memo import remembered
from jade_ribbon.services.records import get
from jade_ribbon.services.shop.materials import material_table
from jade_ribbon.services.shop.settings import read_shop
from jade_ribbon.store.database import COMMITTED, MEMO
from jade_ribbon.store.memo import Memo
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
    """Troubles, newest first, and what causes came to: sums of all, lines of one page."""

    troubles: list[TroubleLine]
    causes: list[CauseSum]
    minutes: float
    money: float
    not_found: int
    """Troubles that went, or were given up, without a cause found."""
    count: int
    more: bool
    """Whether older ones are on a further page."""


@dataclass(frozen=True)
class _Counted:
    """What a trouble's own record comes to: read once for each version of it."""

    version: int
    causes: tuple[str, ...]
    minutes: float
    spoiled: float


@dataclass(frozen=True)
class _Fact:
    """A trouble as the book counts it, without what it looks like in a line."""

    id: int
    saw_id: int
    band_id: int | None
    state: str
    opened_at: datetime
    counted: _Counted
    operation: str
    material: str

    def entry(self, hour: float) -> BookEntry:
        """With its minutes in money."""
        of = self.counted
        money = of.minutes / 60.0 * hour + of.spoiled
        return BookEntry(
            id=self.id,
            saw_id=self.saw_id,
            band_id=self.band_id,
            opened_at=self.opened_at,
            causes=of.causes,
            minutes=of.minutes,
            money=money,
            operation=self.operation,
            material=self.material,
        )


COUNTED = "troubles counted"


def _facts(session: Session) -> list[_Fact]:
    """Every trouble, newest first; only what is new in the record is read."""
    return remembered(session, "troubles", lambda: _all_facts(session))


def _all_facts(session: Session) -> list[_Fact]:
    t = TroubleRow
    rows = session.execute(
        select(
            *(t.id, t.version, t.saw_id, t.band_id, t.state, t.opened_at),
            *(JobRow.operation, JobRow.material),
        )
        .outerjoin(JobRow, t.job_id == JobRow.id)
        .where(t.deleted_at.is_(None))
        .order_by(t.opened_at.desc(), t.id.desc())
    ).all()
    memo: Memo | None = session.info.get(MEMO)
    kept: dict[int, _Counted] = (memo.latest(COUNTED) if memo else None) or {}
    new = [r[0] for r in rows if r[0] not in kept or kept[r[0]].version != r[1]]
    found = {r[0]: kept[r[0]] for r in rows if r[0] in kept} | _counted(session, new)
    if memo is not None and session.info.get(COMMITTED):
        memo.keep(COUNTED, None, found)
    return [
        _Fact(key, saw, band, state, at, found[key], operation or "", material or "")
        for key, _, saw, band, state, at, operation, material in rows
    ]


AT_ONCE = 500


def _counted(session: Session, ids: Sequence[int]) -> dict[int, _Counted]:
    found = {}
    for start in range(0, len(ids), AT_ONCE):
        part = ids[start : start + AT_ONCE]
        rows = session.scalars(select(TroubleRow).where(TroubleRow.id.in_(part)))
        for row in rows:
            spoiled = row.spoiled_minor / MINOR
            found[row.id] = _Counted(row.version, tuple(row.causes), minutes_of(row), spoiled)
    return found


def _seen(row: TroubleRow) -> list[str]:
    """Names of the signs that are there."""
    return [sign_texts()[k].name for k, d in symptoms_of(row, row.path).items() if d != "absent"]


def _likely(row: TroubleRow) -> str:
    """What stood first after the last step, in words; '' before the first."""
    first = next((s["first"][0] for s in reversed(row.path) if s.get("first")), None)
    return f"{causes()[first[0]].name}, {chance_words(first[1])}" if first else ""


UNDER_WAY = ("open", "watching")
LISTED = 60
"""Ended troubles of one page of the book."""


def _page(facts: Sequence[_Fact], before: int | None) -> list[int]:
    """Which troubles a page lists: all under way first, then the ended ones, newest first."""
    ended = [f.id for f in facts if f.state not in UNDER_WAY]
    if before is None:
        return [f.id for f in facts if f.state in UNDER_WAY][: 2 * LISTED] + ended[:LISTED]
    start = ended.index(before) + 1 if before in ended else len(ended)
    return ended[start : start + LISTED]


def _lines(
    session: Session, ids: Sequence[int], facts: Mapping[int, BookEntry]
) -> list[TroubleLine]:
    back = came_back(list(facts.values()))
    again = set(back.values())
    rows = session.execute(
        select(TroubleRow, SawRow.name, BandRow.label)
        .join(SawRow, TroubleRow.saw_id == SawRow.id)
        .outerjoin(BandRow, TroubleRow.band_id == BandRow.id)
        .where(TroubleRow.id.in_(ids))
        .order_by(TroubleRow.opened_at.desc(), TroubleRow.id.desc())
    )
    return [
        TroubleLine(
            id=row.id,
            at=row.opened_at,
            saw_id=row.saw_id,
            saw=saw,
            band_id=row.band_id,
            band=band or "",
            signs=_seen(row),
            state=row.state,
            found=[causes()[c].name for c in row.causes],
            likely=_likely(row),
            minutes=facts[row.id].minutes,
            money=facts[row.id].money,
            came_back_of=back.get(row.id),
            came_back=row.id in again,
            note=row.note,
        )
        for row, saw, band in rows
    ]


def trouble_book(
    session: Session,
    saw_id: Id | None = None,
    band_id: Id | None = None,
    before: Id | None = None,
) -> Book:
    """The trouble book of the shop, a saw or a band; a page of its lines, the sums of all."""
    hour = read_shop(session).rates.hour
    facts = [
        f for f in _facts(session) if saw_id in (None, f.saw_id) and band_id in (None, f.band_id)
    ]
    entries = {f.id: f.entry(hour) for f in facts}
    every = list(entries.values())
    ids = _page(facts, before)
    ended = sum(f.state not in UNDER_WAY for f in facts)
    return Book(
        _lines(session, ids, entries),
        list(sums(every)),
        sum(e.minutes for e in every),
        sum(e.money for e in every),
        sum(f.state == "gone" for f in facts),
        len(facts),
        ended > LISTED if before is None else len(ids) == LISTED,
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


def faults_before(session: Session, job_id: Id) -> Beforehand:
    """What has gone wrong on a job's saw with such work, and what is still to be told."""
    job: JobRow = get(session, "job", job_id)
    if job.saw_id is None:
        return Beforehand("", [], [])
    hour = read_shop(session).rates.hour
    facts = [f for f in _facts(session) if f.saw_id == job.saw_id]
    entries = {f.id: f.entry(hour) for f in facts}
    material = material_table(session).get(job.material)
    what = material.name.split(" (")[0] if material else job.material
    line = before_a_job(
        list(entries.values()),
        now=now(),
        operation=job.operation,
        material=job.material,
        said=f"{operations()[job.operation].name.lower()} or {what}",  # type: ignore[index]
    )
    open_ones = [f.id for f in facts if f.state == "open"][:LISTED]
    watched = [f.id for f in facts if f.state == "watching"][:LISTED]
    rows = session.scalars(
        select(TroubleRow)
        .where(TroubleRow.id.in_(watched))
        .order_by(TroubleRow.opened_at.desc(), TroubleRow.id.desc())
    ).all()
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
        for row in rows
        if _asked_here(row, job)
    ]
    return Beforehand(line, _lines(session, open_ones, entries), asks)
