"""What the run card holds for the one at the saw, worked out before, network or none."""

import math
from collections.abc import Mapping
from dataclasses import dataclass

from sqlalchemy.orm import Session

from jade_ribbon.core.bands.break_in import BreakIn
from jade_ribbon.core.bands.slow_pass import SlowPass, slow_pass
from jade_ribbon.core.choosing.evaluate import evaluate
from jade_ribbon.core.choosing.lot import lots
from jade_ribbon.core.choosing.operating_point import Evaluation
from jade_ribbon.core.choosing.uncertainty.chances import Between, at_feed
from jade_ribbon.core.edge.chips import ChipsSay, chips_table
from jade_ribbon.core.edge.shop_life import own_life_m
from jade_ribbon.core.job import Job
from jade_ribbon.core.mechanics.feed import FeedWindow, Limit, hot_from_m_min
from jade_ribbon.core.money.sign_advice import EdgeNow, SignEffect, sign_effects
from jade_ribbon.core.stock.fasteners import SlowZone, slow_zones, strikes_expected
from jade_ribbon.services.planning.jobs import job_with_band
from jade_ribbon.services.rack.breaking_in import break_in_of
from jade_ribbon.services.rack.edges import edge_record, shop_lives
from jade_ribbon.services.stock.records import core_fastener, fasteners
from jade_ribbon.store.models import BandRow, JobRow, SawRow, StockRow


@dataclass(frozen=True)
class RunScale:
    """The feed scale of a run: its window, and where eight draws in ten put each limit."""

    window: FeedWindow
    hot_from_m_min: float
    floor: Between
    ceiling: Between
    limits: Mapping[Limit, Between]


def _scale(found: Evaluation, job: Job) -> RunScale | None:
    """The scale of a band as it is; its edges as sharp as its window where it would not be run."""
    window = found.window
    if window is None:
        return None
    floor = Between(window.floor_m_min, window.floor_m_min)
    ceiling = Between(window.ceiling_m_min, window.ceiling_m_min)
    limits: Mapping[Limit, Between] = {}
    if found.run is not None:
        seen = at_feed(found, lots([found], job)[0], job, found.run.feed_m_min)
        floor, ceiling, limits = seen.floor, seen.ceiling, seen.limits
    return RunScale(window, hot_from_m_min(window), floor, ceiling, limits)


@dataclass(frozen=True)
class AtTheSaw:
    """Signs and what to do on each, what chips say, where metal lies and how to pass it."""

    break_in: BreakIn | None
    """How a new edge is run in first."""
    signs: tuple[SignEffect, ...]
    chips: tuple[ChipsSay, ...]
    scale: RunScale | None
    """None for a band that has no window here."""
    slow: SlowPass
    stock_id: int | None
    stock_label: str
    stock_length_mm: float
    zones: tuple[SlowZone, ...]
    strikes: float
    """Strikes to expect of one cut through the middle of the stock."""


def at_the_saw(session: Session, row: JobRow) -> AtTheSaw | None:
    """For a job with its saw and band; None before both are chosen.

    A band that has no window here still tells its signs and how to pass metal.
    """
    saw = session.get(SawRow, row.saw_id) if row.saw_id else None
    band = session.get(BandRow, row.band_id) if row.band_id else None
    if saw is None or band is None:
        return None
    job, _ = job_with_band(session, row, saw, band.id)
    if not job.bands:
        return None
    found = evaluate(job.bands[0], job)
    window = found.window
    floor = window.floor_m_min if window else None
    ceiling = window.ceiling_m_min if window else None
    planned = found.run.feed_m_min if found.run else None
    if planned is None and floor and ceiling:
        planned = math.sqrt(floor * ceiling)
    chips: tuple[ChipsSay, ...] = ()
    if floor and ceiling:
        metal = job.cut.material.is_metal
        chips = chips_table(floor_m_min=floor, ceiling_m_min=ceiling, metal=metal)
    life = shop_lives(session).of(band.steel, band.sharpenings)
    edge = EdgeNow(
        edge_record(band),
        own_life_m(life, used_m=band.edge_equivalent_m),
        life.retired,
        band.fouling,
    )
    stock = session.get(StockRow, row.stock_id) if row.stock_id else None
    marks = [core_fastener(f) for f in fasteners(session, stock.id)] if stock else []
    thick = (stock.thickness_mm or stock.small_end_mm or 1.0) if stock else 1.0
    new = None
    if planned is not None:
        new = break_in_of(session, band, job.cut, planned_m_min=planned, floor_m_min=floor or 0.0)
    return AtTheSaw(
        new,
        sign_effects(
            edge,
            limit=job.rates.dullness_limit(job.cut.finish, job.rules),
            feed_m_min=planned,
            floor_m_min=floor or 0.0,
            size_exponent_m=job.cut.material.size_exponent_m,
            at_first_sign=job.rules.change == "first_sign" and job.cut.finish == "show",
        ),
        chips,
        _scale(found, job),
        slow_pass(found.facts, job, planned),
        stock.id if stock else None,
        stock.label if stock else "",
        stock.length_mm if stock else 0.0,
        slow_zones(marks, stock.length_mm) if stock else (),
        strikes_expected(marks, [thick / 2.0], thickness_mm=thick),
    )
