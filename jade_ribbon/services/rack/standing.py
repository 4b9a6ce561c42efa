"""Where bands stand: what to do next with each, what its sharpening costs and saves."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import timedelta

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from jade_ribbon.core.bands.facts import pitches_mm, price_per_m
from jade_ribbon.core.choosing.conflicts import barring
from jade_ribbon.core.edge.sharpening import worth_sharpening
from jade_ribbon.core.edge.sharpness import Keenness
from jade_ribbon.core.edge.shop_life import ShopLives, asks_still_good, own_life_m
from jade_ribbon.core.job import Candidate, Finish, Rates
from jade_ribbon.core.money.regrind_or_replace import (
    Bounds,
    SharpenWay,
    WayKey,
    learned_ratio,
    least_of,
    most_times,
    ways,
)
from jade_ribbon.core.money.what_next import Next, Standing, what_next
from jade_ribbon.core.quantities.words import Said
from jade_ribbon.reference.tables import steels, tooth_forms
from jade_ribbon.services.clock import now
from jade_ribbon.services.rack.edges import MINOR, band_type, keenness_of, shop_lives
from jade_ribbon.services.shop.settings import Shop, read_shop, rules_for
from jade_ribbon.store.models import BandRow, RunSumRow

FINISHES: tuple[Finish, ...] = ("show", "sand", "plane", "rough")
LATELY = timedelta(weeks=26)


@dataclass(frozen=True)
class Terms:
    """What all bands are judged by: settings, lives, and how much is sawn a day with a steel."""

    shop: Shop
    lives: ShopLives
    used_per_day_m: Mapping[str, float]


def terms(session: Session, lives: ShopLives) -> Terms:
    """Settings, lives and the use of late of each steel; two statements."""
    since = (now() - LATELY).strftime("%Y-%m")
    used = session.execute(
        select(BandRow.steel, func.sum(RunSumRow.equivalent_m))
        .join(BandRow, RunSumRow.band_id == BandRow.id)
        .where(RunSumRow.month >= since)
        .group_by(BandRow.steel)
    )
    return Terms(read_shop(session), lives, {s: m / LATELY.days for s, m in used})


def new_price(row: BandRow, rates: Rates) -> float:
    """What a new band like this costs: what was paid, or the usual price."""
    if row.price_minor is not None:
        return row.price_minor / MINOR
    return price_per_m(steels()[row.steel], row.width_mm, rates) * row.length_mm / 1000.0


@dataclass(frozen=True)
class Sharpening:
    """How a band's sharpening is reckoned: bounds, ways, and how much speaks for the life after."""

    bounds: Bounds
    ways: tuple[SharpenWay, ...]
    least: tuple[WayKey, ...]
    """The way of least cost; more than one where they are too close to call."""
    life_ratio: float
    ratio_lives: int
    price_new: float
    life_new_m: float


def sharpening_of(row: BandRow, known: Terms) -> Sharpening:
    """Every way of going on with bands like this one."""
    steel, form = steels()[row.steel], tooth_forms()[row.form]
    rates, rack = known.shop.rates, known.shop.rack
    kind: Candidate = band_type(row)
    deep = form.gullet_depth_frac_pitch * pitches_mm(kind, form)[0]
    lives = [known.lives.of(row.steel, n) for n in range(steel.resharpen_times + 1)]
    ratio, spoke = learned_ratio([(life.median_m, life.retired) for life in lives])
    life_new = lives[0].median_m
    bent = row.bending_share / row.edge_equivalent_m if row.edge_equivalent_m > 0.0 else 0.0
    bounds = most_times(
        usual=steel.resharpen_times,
        gullet_depth_mm=deep,
        life_m=life_new,
        bending_per_m=bent if row.sharpenings == 0 else 0.0,
        is_grit=steel.is_grit,
    )
    price = new_price(row, rates)
    found = ways(
        price_new=price,
        life_new_m=life_new,
        life_ratio=ratio,
        times_most=bounds.times,
        terms=rack.sharpening(),
        change_min=rates.change_min,
        hour_rate=rates.hour,
        used_per_day_m=known.used_per_day_m.get(row.steel, 0.0),
    )
    return Sharpening(bounds, found, least_of(found), ratio, spoke, price, life_new)


def _own_way(row: BandRow, known: Terms, sharpening: Sharpening) -> SharpenWay | None:
    """The way of the house rule, where bands like this are sharpened at all."""
    rule = known.shop.rules["resharpening"]
    if rule == "never" or not worth_sharpening(row.width_mm, row.tpi_lo):
        return None
    return next(way for way in sharpening.ways if way.key == rule)


def standing_of(row: BandRow, known: Terms) -> tuple[Standing, Sharpening]:
    """All that decides about a band."""
    rates, rules = known.shop.rates, rules_for(known.shop)
    life = known.lives.of(row.steel, row.sharpenings)
    keen = keenness_of(row, life)
    own = own_life_m(life, used_m=row.edge_equivalent_m)
    sharpening = sharpening_of(row, known)
    ladder = replace(rules, change="demote")
    gone = {"out": "Out to be sharpened.", "scrapped": "Scrapped."}.get(row.state, "")
    standing = Standing(
        keen=keen,
        limits={f: rates.dullness_limit(f, ladder) for f in FINISHES},
        rule=rules.change,
        kept_for=row.kept_for,
        fouling=row.fouling,
        bending_share=row.bending_share,
        defects=barring(
            row.defects, teeth_lost=row.teeth_lost, allowed=rates.teeth_missing_allowed
        ),
        teeth_lost=row.teeth_lost,
        teeth_allowed=rates.teeth_missing_allowed,
        look_first=row.look_first,
        still_good_asked=row.state == "rack"
        and asks_still_good(
            used_m=row.edge_equivalent_m,
            life_m=own,
            confirmed_m=row.confirmed_m,
            dullness=keen.dullness,
        ),
        gone=gone,
        sharpenings=row.sharpenings,
        bounds=sharpening.bounds,
        way=_own_way(row, known, sharpening),
        price_new=sharpening.price_new + rates.change_min * rates.hour / 60.0,
        life_new_m=sharpening.life_new_m,
        life_now_m=own,
        life_next_m=known.lives.of(row.steel, row.sharpenings + 1).median_m,
        hour_rate=rates.hour,
    )
    return standing, sharpening


def next_of(row: BandRow, known: Terms) -> tuple[Next, Keenness]:
    """What to do next with a band, and how keen it is."""
    standing, _ = standing_of(row, known)
    return what_next(standing), standing.keen


@dataclass(frozen=True)
class NextLine:
    """A band that wants something done, and what that is worth."""

    band_id: int
    label: str
    do: str
    words: Said
    worth: float | None
    worth_words: str


ORDER = ("mend", "look", "ask", "scrap", "sharpen", "clean", "demote", "cannot_tell")
"""Danger first, then questions, then money."""


def all_next(session: Session) -> list[NextLine]:
    """Every band on the rack that wants something done, the most pressing first."""
    known = terms(session, shop_lives(session))
    rows = session.scalars(
        select(BandRow).where(BandRow.deleted_at.is_(None), BandRow.state == "rack")
    )
    found = []
    for row in rows:
        told, _ = next_of(row, known)
        if told.do in ORDER:
            found.append(
                NextLine(row.id, row.label, told.do, told.words, told.worth, told.worth_words)
            )
    return sorted(found, key=lambda x: (ORDER.index(x.do), -(x.worth or 0.0), x.label))
