"""Log: every run of the shop, filtered, sorted and paged; the same as CSV."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import Field
from sqlalchemy import ColumnElement, Select, func, select
from sqlalchemy.orm import Session

from jade_ribbon.core.edge.shop_life import ShopLives, own_life_m
from jade_ribbon.formats.tables_csv import table_csv
from jade_ribbon.services.field_types import Id, Query
from jade_ribbon.services.rack.band_page import edge_after_m
from jade_ribbon.services.rack.edges import shop_lives
from jade_ribbon.services.rack.replay import signs_of, wear_factors
from jade_ribbon.services.running.inputs import RunsTime
from jade_ribbon.store.models import BandRow, JobRow, RunRow, SawRow

PAGE = 50
MOST_LINES = 100_000
"""Lines of a CSV; the whole record goes out under Files."""
Sort = Literal["at", "pieces", "minutes", "feed", "pace"]
MINUTES = RunRow.time_s / 60.0
PACE = RunRow.feed_m_min / RunRow.planned_m_min
SORTED: dict[Sort, Any] = {
    "at": RunRow.at,
    "pieces": RunRow.pieces,
    "minutes": MINUTES,
    "feed": RunRow.feed_m_min,
    "pace": PACE,
}


class LogQuery(Query):
    """Which runs: from `since` on, before `until`; `page` counts from 0."""

    saw_id: Id | None = None
    band_id: Id | None = None
    who: Annotated[str, Field(max_length=40)] | None = None
    material: Annotated[str, Field(max_length=80)] | None = None
    since: RunsTime | None = None
    until: RunsTime | None = None
    signs: bool = False
    sort: Sort = "at"
    up: bool = False
    page: Annotated[int, Field(ge=0, le=100_000)] = 0


@dataclass(frozen=True)
class LoggedRun:
    """A run in the log; `planned_minutes` at the feed that was planned, `edge_used` in edges."""

    id: int
    at: datetime
    job_id: int | None
    job: str
    saw_id: int
    saw: str
    band_id: int
    band: str
    who: str
    material: str
    operation: str
    height_mm: float
    length_mm: float
    pieces: int
    minutes: float
    planned_minutes: float | None
    feed_m_min: float
    signs: tuple[str, ...]
    note: str
    edge_used: float
    waits: bool


@dataclass(frozen=True)
class RunLog:
    """A page of the log: how many runs there are in all, and who has run any."""

    runs: list[LoggedRun]
    count: int
    page_size: int
    people: list[str]


def _wanted(given: LogQuery) -> list[ColumnElement[bool]]:
    found: list[ColumnElement[bool]] = [RunRow.deleted_at.is_(None)]
    for column, value in (
        (RunRow.saw_id, given.saw_id),
        (RunRow.band_id, given.band_id),
        (RunRow.who, given.who),
        (RunRow.material, given.material),
    ):
        if value is not None:
            found.append(column == value)
    if given.since is not None:
        found.append(RunRow.at >= given.since)
    if given.until is not None:
        found.append(RunRow.at < given.until)
    if given.signs:
        found.append(func.json_array_length(RunRow.symptoms) > 0)
    return found


def _sorted(given: LogQuery) -> Select[RunRow, BandRow, SawRow, str]:
    column = SORTED[given.sort]
    order = column.asc() if given.up else column.desc()
    return (
        select(RunRow, BandRow, SawRow, JobRow.name)
        .join(BandRow, RunRow.band_id == BandRow.id)
        .join(SawRow, RunRow.saw_id == SawRow.id)
        .outerjoin(JobRow, RunRow.job_id == JobRow.id)
        .where(*_wanted(given))
        .order_by(order.nulls_last(), RunRow.id.asc() if given.up else RunRow.id.desc())
    )


def _line(
    run: RunRow,
    band: BandRow,
    saw: SawRow,
    job: str | None,
    lives: ShopLives,
    wear: dict[str, float],
) -> LoggedRun:
    life = lives.of(band.steel, band.sharpenings)
    planned = None
    if run.planned_m_min:
        planned = run.pieces * run.length_mm / 1000.0 / run.planned_m_min
    return LoggedRun(
        id=run.id,
        at=run.at,
        job_id=run.job_id,
        job=job or "",
        saw_id=saw.id,
        saw=saw.name,
        band_id=band.id,
        band=band.label,
        who=run.who,
        material=run.material,
        operation=run.operation,
        height_mm=run.height_mm,
        length_mm=run.length_mm,
        pieces=run.pieces,
        minutes=run.time_s / 60.0,
        planned_minutes=planned,
        feed_m_min=run.feed_m_min,
        signs=signs_of(run),
        note=run.note,
        edge_used=edge_after_m(run, wear) / own_life_m(life, used_m=band.edge_equivalent_m),
        waits=run.to_confirm,
    )


def _lines(session: Session, query: Select[RunRow, BandRow, SawRow, str]) -> Iterator[LoggedRun]:
    lives, wear = shop_lives(session), wear_factors(session)
    for run, band, saw, job in session.execute(query.execution_options(yield_per=500)):
        yield _line(run, band, saw, job, lives, wear)


def run_log(session: Session, given: LogQuery) -> RunLog:
    """A page of the runs asked for, the latest first unless sorted otherwise."""
    query = _sorted(given).limit(PAGE).offset(given.page * PAGE)
    count = select(func.count()).select_from(RunRow).where(*_wanted(given))
    people = select(RunRow.who).where(RunRow.who != "").distinct().order_by(RunRow.who)
    return RunLog(
        list(_lines(session, query)),
        session.scalar(count) or 0,
        PAGE,
        list(session.scalars(people)),
    )


COLUMNS = (
    *("at", "job", "saw", "band", "who", "operation", "material", "height_mm", "length_mm"),
    *("pieces", "minutes", "planned_minutes", "feed_m_min", "signs", "edge_used", "note"),
)


def run_log_csv(session: Session, given: LogQuery) -> str:
    """The runs asked for as CSV, all pages of them."""

    def cell(run: LoggedRun, name: str) -> Any:
        value = getattr(run, name)
        if isinstance(value, tuple):
            return " ".join(value)
        if isinstance(value, datetime):
            return value.isoformat(timespec="minutes")
        return round(value, 4) if isinstance(value, float) else value

    lines = _lines(session, _sorted(given).limit(MOST_LINES))
    return table_csv(COLUMNS, [[cell(run, name) for name in COLUMNS] for run in lines])
