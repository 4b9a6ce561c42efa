"""A band's page: its whole history, and the fan of what is left."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.edge.history import edge_after_runs
from jade_ribbon.core.edge.sharpening import sharpening_advice
from jade_ribbon.core.edge.shop_life import metres_left, own_life_m
from jade_ribbon.core.quantities.words import Said
from jade_ribbon.reference.tables import steels, tooth_forms
from jade_ribbon.services.rack.bands import (
    BandAnswer,
    asked_words,
    event_fact,
    history,
    one_band,
    run_fact,
    shop_lives,
    signs_of,
)
from jade_ribbon.services.shop.settings import read_shop
from jade_ribbon.store.models import BandEventRow, EdgeLifeRow, RunRow, SawRow


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
    """Something else that happened to a band."""

    id: int
    at: datetime
    kind: str
    detail: str
    value: float | None
    who: str


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
    doubted: list["DoubtedLife"]


@dataclass(frozen=True)
class DoubtedLife:
    """A life of this band that nobody would believe unconfirmed; `number` counts from 0."""

    number: int
    equivalent_m: float
    ended: bool


@dataclass(frozen=True)
class BandPage:
    """A band with its whole history and the fan of what is left."""

    band: BandAnswer
    life: LifeFacts
    advice: str
    runs: list[RunLine]
    events: list[EventLine]


def _struck(run: RunRow) -> list[str]:
    """Metal struck in a run, in words."""
    if not run.strikes:
        return []
    times = "once" if run.strikes == 1 else f"{run.strikes} times"
    gone = f", {run.teeth_lost} teeth gone" if run.teeth_lost else ""
    return [f"struck metal {times}{gone}"]


def band_page(session: Session, band_id: int) -> BandPage:
    """A band with runs, events and the fan of what is left."""
    band = one_band(session, band_id)
    life = shop_lives(session).of(band.steel, band.sharpenings)
    near, middle, far = metres_left(life, used_m=band.edge_equivalent_m)
    runs, events = history(session, band_id)
    saws = {s.id: s.name for s in session.scalars(select(SawRow))}
    return BandPage(
        band=band,
        life=LifeFacts(
            median_m=own_life_m(life, used_m=band.edge_equivalent_m),
            prior_m=life.prior_life_m,
            retired=life.retired,
            running=life.running,
            left_90_m=near,
            left_50_m=middle,
            left_10_m=far,
            doubted=_doubted(session, band),
        ),
        advice=_advice(session, band),
        runs=_run_lines(session, runs, events, saws),
        events=[EventLine(e.id, e.at, e.kind, e.detail, e.value, e.who) for e in events],
    )


def _doubted(session: Session, band: BandAnswer) -> list[DoubtedLife]:
    """Which of a band's lives the shop's learning leaves out until they are confirmed."""
    lives = shop_lives(session)
    rows = session.scalars(
        select(EdgeLifeRow).where(EdgeLifeRow.band_id == band.id).order_by(EdgeLifeRow.number)
    )
    return [
        DoubtedLife(row.number, row.equivalent_m, row.ending is not None)
        for row in rows
        if row.confirmed_m < row.equivalent_m
        and row.equivalent_m in lives.of(band.steel, row.number).doubted
    ]


def _advice(session: Session, band: BandAnswer) -> str:
    """What the shop's rule says of a dull edge; nothing for a scrapped band."""
    if band.state == "scrapped":
        return ""
    return sharpening_advice(
        steel=steels()[band.steel],
        form=tooth_forms()[band.form],
        width_mm=band.width_mm,
        tpi_lo=band.tpi_lo,
        sharpenings=band.sharpenings,
        dullness=band.dullness,
        rule=read_shop(session).rules["resharpening"],
    )


def _run_lines(
    session: Session, runs: Sequence[RunRow], events: Sequence[BandEventRow], saws: dict[int, str]
) -> list[RunLine]:
    """Runs with the edge's metres after each, from the same replay as the counters."""
    lines = []
    edges = edge_after_runs(map(run_fact, runs), map(event_fact, events))
    for run, edge in zip(runs, edges, strict=True):
        area = run.height_mm * run.length_mm * run.pieces * 1e-6
        lines.append(
            RunLine(
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
                edge_after_m=edge,
                to_confirm=asked_words(session, run),
            )
        )
    return lines
