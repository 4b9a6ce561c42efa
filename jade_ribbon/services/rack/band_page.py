"""A band's page: where it stands and why, what is left of it, and its whole history."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from jade_ribbon.core.edge.sharpness import Evidence
from jade_ribbon.core.edge.shop_life import ShopLife, ShopLives, metres_left, own_life_m
from jade_ribbon.core.money.what_next import Next, what_next
from jade_ribbon.core.quantities.words import Said
from jade_ribbon.services.field_types import Id
from jade_ribbon.services.rack.bands import BandAnswer, one_band
from jade_ribbon.services.rack.edges import MINOR, shop_lives
from jade_ribbon.services.rack.replay import asked_words, signs_of, wear_factors
from jade_ribbon.services.rack.standing import Sharpening, standing_of, terms
from jade_ribbon.services.records import get
from jade_ribbon.store.models import BandEventRow, BandRow, EdgeLifeRow, PhotoRow, RunRow, SawRow

RUNS_SHOWN = 60
STRIP_POINTS = 400
KINDS_SHOWN = 4


@dataclass(frozen=True)
class RunLine:
    """A run as a band's page shows it."""

    id: int
    at: datetime
    job_id: int | None
    saw: str
    material: str
    operation: str
    height_mm: float
    length_mm: float
    pieces: int
    feed_m_min: float
    time_s: float
    minutes_per_m2: float
    symptoms: list[str]
    note: str
    who: str
    equivalent_m: float
    edge_after_m: float
    to_confirm: Said


@dataclass(frozen=True)
class EventLine:
    """Something else that happened to a band; of a sharpening, its first run after."""

    id: int
    at: datetime
    kind: str
    detail: str
    value: float | None
    minutes: float | None
    cost: float | None
    facts: Mapping[str, Any]
    who: str
    after_m_min: float | None


@dataclass(frozen=True)
class StripPoint:
    """The edge after a run, on the strip of its life."""

    id: int
    at: datetime
    edge_after_m: float
    symptoms: list[str]


@dataclass(frozen=True)
class DoubtedLife:
    """A life of this band that nobody would believe unconfirmed; `number` counts from 0."""

    number: int
    equivalent_m: float
    ended: bool


@dataclass(frozen=True)
class LifeFacts:
    """What the life estimate of a band rests on."""

    median_m: float
    prior_m: float
    retired: int
    running: int
    left_90_m: float
    left_50_m: float
    left_10_m: float
    doubted: list[DoubtedLife]


@dataclass(frozen=True)
class CutsLeft:
    """How many more cuts of a kind nine, five and one in ten such edges give."""

    material: str
    height_mm: float
    length_mm: float
    least: float
    middle: float
    most: float
    m2_least: float
    m2_most: float


@dataclass(frozen=True)
class PhotoLine:
    """A photograph of a band: its teeth, or a face it left."""

    id: int
    at: datetime
    shows: str
    run_id: int | None


@dataclass(frozen=True)
class BandPage:
    """A band: what next, on what evidence, what is left, and what happened to it."""

    band: BandAnswer
    next: Next
    evidence: list[Evidence]
    limit: float
    life: LifeFacts
    left: list[CutsLeft]
    sharpening: Sharpening
    strip: list[StripPoint]
    runs: list[RunLine]
    events: list[EventLine]
    photos: list[PhotoLine]


def _struck(run: RunRow) -> list[str]:
    """Metal struck in a run, in words."""
    if not run.strikes:
        return []
    times = "once" if run.strikes == 1 else f"{run.strikes} times"
    gone = f", {run.teeth_lost} teeth gone" if run.teeth_lost else ""
    return [f"struck metal {times}{gone}"]


def band_page(session: Session, band_id: int) -> BandPage:
    """A band with where it stands, and its latest runs."""
    row: BandRow = get(session, "band", band_id)
    lives = shop_lives(session)
    known = terms(session, lives)
    standing, sharpening = standing_of(row, known)
    life = lives.of(row.steel, row.sharpenings)
    wear = wear_factors(session)
    keen = standing.keen
    lost = keen.dullness * standing.life_now_m - row.edge_equivalent_m
    left = metres_left(life, used_m=row.edge_equivalent_m, lost_m=lost)
    return BandPage(
        band=one_band(session, band_id),
        next=what_next(standing),
        evidence=list(keen.evidence),
        limit=standing.limits["rough"],
        life=_life_facts(session, row, life, lives, left),
        left=_cuts_left(session, row, left, wear),
        sharpening=sharpening,
        strip=_strip(session, row, wear),
        runs=runs_of_band(session, band_id),
        events=_event_lines(session, band_id),
        photos=_photos(session, band_id),
    )


def _life_facts(
    session: Session, row: BandRow, life: ShopLife, lives: ShopLives, left: Sequence[float]
) -> LifeFacts:
    near, middle, far = left
    return LifeFacts(
        median_m=own_life_m(life, used_m=row.edge_equivalent_m),
        prior_m=life.prior_life_m,
        retired=life.retired,
        running=life.running,
        left_90_m=near,
        left_50_m=middle,
        left_10_m=far,
        doubted=_doubted(session, row, lives),
    )


def _doubted(session: Session, row: BandRow, lives: ShopLives) -> list[DoubtedLife]:
    """Which of a band's lives the shop's learning leaves out until they are confirmed."""
    kept = session.scalars(
        select(EdgeLifeRow).where(EdgeLifeRow.band_id == row.id).order_by(EdgeLifeRow.number)
    )
    return [
        DoubtedLife(life.number, life.equivalent_m, life.ending is not None)
        for life in kept
        if life.confirmed_m < life.equivalent_m
        and life.equivalent_m in lives.of(row.steel, life.number).doubted
    ]


def _cuts_left(
    session: Session, row: BandRow, left_m: Sequence[float], wear: Mapping[str, float]
) -> list[CutsLeft]:
    """For the kinds of cut that it made lately, how many more; one statement."""
    runs = RunRow.equivalent_m, RunRow.length_mm * RunRow.pieces
    found = session.execute(
        select(
            RunRow.material,
            RunRow.height_mm,
            func.max(RunRow.length_mm),
            func.sum(runs[0]),
            func.sum(runs[1]),
        )
        .where(RunRow.band_id == row.id, RunRow.deleted_at.is_(None))
        .where(RunRow.to_confirm.is_(False))
        .group_by(RunRow.material, RunRow.height_mm)
        .order_by(func.max(RunRow.at).desc())
        .limit(KINDS_SHOWN)
    ).all()
    lines = []
    for material, height, length, metres, cut_mm in found:
        per_cut = metres * wear.get(material, 1.0) / cut_mm * length
        if per_cut <= 0.0:
            continue
        least, middle, most = (max(0.0, m) / per_cut for m in left_m)
        area = height * length * 1e-6
        lines.append(
            CutsLeft(material, height, length, least, middle, most, least * area, most * area)
        )
    return lines


def edge_after_m(run: RunRow, wear: Mapping[str, float]) -> float:
    """Metres on the edge after a run, as its replay left them."""
    mine = 0.0 if run.to_confirm else run.equivalent_m * wear.get(run.material, 1.0)
    return run.edge_before_m + mine


def _strip(session: Session, row: BandRow, wear: Mapping[str, float]) -> list[StripPoint]:
    """The edge after every run; of very many, so many as the strip can show."""
    count = row.runs or 0
    every = max(1, -(-count // STRIP_POINTS))
    columns = (
        RunRow.id,
        RunRow.at,
        RunRow.edge_before_m,
        RunRow.equivalent_m,
        RunRow.material,
        RunRow.to_confirm,
        RunRow.symptoms,
    )
    found = session.execute(
        select(*columns)
        .where(RunRow.band_id == row.id, RunRow.deleted_at.is_(None))
        .order_by(RunRow.at, RunRow.id)
    ).all()
    points = []
    for place, (key, at, before, metres, material, waits, symptoms) in enumerate(found):
        if place % every and not symptoms and place != len(found) - 1:
            continue
        mine = 0.0 if waits else metres * wear.get(material, 1.0)
        points.append(StripPoint(key, at, before + mine, symptoms))
    return points


def runs_of_band(session: Session, band_id: int, before: Id | None = None) -> list[RunLine]:
    """The latest runs of a band, oldest first; those before one of them where it is named."""
    query = select(RunRow).where(RunRow.band_id == band_id, RunRow.deleted_at.is_(None))
    if before is not None:
        edge: RunRow = get(session, "run", before)
        query = query.where(
            (RunRow.at < edge.at) | ((RunRow.at == edge.at) & (RunRow.id < edge.id))
        )
    rows = session.scalars(
        query.order_by(RunRow.at.desc(), RunRow.id.desc()).limit(RUNS_SHOWN)
    ).all()
    saws = {s.id: s.name for s in session.scalars(select(SawRow))}
    wear = wear_factors(session)
    return [_run_line(session, run, saws, wear) for run in reversed(rows)]


def _run_line(
    session: Session, run: RunRow, saws: Mapping[int, str], wear: Mapping[str, float]
) -> RunLine:
    area = run.height_mm * run.length_mm * run.pieces * 1e-6
    return RunLine(
        id=run.id,
        at=run.at,
        job_id=run.job_id,
        saw=saws[run.saw_id],
        material=run.material,
        operation=run.operation,
        height_mm=run.height_mm,
        length_mm=run.length_mm,
        pieces=run.pieces,
        feed_m_min=run.feed_m_min,
        time_s=run.time_s,
        minutes_per_m2=run.time_s / 60.0 / area,
        symptoms=[*signs_of(run), *_struck(run)],
        note=run.note,
        who=run.who,
        equivalent_m=run.equivalent_m,
        edge_after_m=edge_after_m(run, wear),
        to_confirm=asked_words(session, run),
    )


def _event_lines(session: Session, band_id: int) -> list[EventLine]:
    """What else happened to a band, oldest first."""
    rows = session.scalars(
        select(BandEventRow)
        .where(BandEventRow.band_id == band_id, BandEventRow.deleted_at.is_(None))
        .order_by(BandEventRow.at, BandEventRow.id)
    ).all()
    return [
        EventLine(
            id=e.id,
            at=e.at,
            kind=e.kind,
            detail=e.detail,
            value=e.value,
            minutes=e.minutes,
            cost=None if e.cost_minor is None else e.cost_minor / MINOR,
            facts=e.facts,
            who=e.who,
            after_m_min=_first_after(session, e) if e.kind == "sharpened" else None,
        )
        for e in rows
    ]


def _first_after(session: Session, event: BandEventRow) -> float | None:
    """The feed of the first run after a sharpening."""
    return session.scalars(
        select(RunRow.feed_m_min)
        .where(RunRow.band_id == event.band_id, RunRow.deleted_at.is_(None))
        .where(RunRow.at >= event.at)
        .order_by(RunRow.at, RunRow.id)
        .limit(1)
    ).first()


def _photos(session: Session, band_id: int) -> list[PhotoLine]:
    rows = session.execute(
        select(PhotoRow.id, PhotoRow.at, PhotoRow.shows, PhotoRow.run_id)
        .where(PhotoRow.band_id == band_id, PhotoRow.deleted_at.is_(None))
        .order_by(PhotoRow.at.desc(), PhotoRow.id.desc())
    )
    return [PhotoLine(*row) for row in rows]
