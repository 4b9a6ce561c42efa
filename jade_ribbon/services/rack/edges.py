"""How keen the edges of a rack are, by this shop's record of lives."""

import dataclasses

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.edge.history import BandHistory, replay
from jade_ribbon.core.edge.sharpness import EdgeRecord, Judged, Keenness, Slowed, how_keen
from jade_ribbon.core.edge.shop_life import (
    LifeRecord,
    ShopLife,
    ShopLives,
    chance_to_last,
    own_life_m,
)
from jade_ribbon.core.job import Candidate, type_of
from jade_ribbon.services.memo import remembered
from jade_ribbon.services.rack.replay import around, event_fact, face_facts, history, run_fact
from jade_ribbon.store.models import BandRow, EdgeLifeRow

SHAPE_KEYS = (
    "width_mm",
    "thickness_mm",
    "tpi_lo",
    "tpi_hi",
    "form",
    "steel",
    "set_per_side_mm",
)
"""What a band, a type and a coil are made as."""
MINOR = 100


def shop_lives(session: Session) -> ShopLives:
    """Lives of all edges in this shop's record; one statement, and none while nothing changed."""
    return remembered(session, "lives", lambda: _shop_lives(session))


def _shop_lives(session: Session) -> ShopLives:
    rows = session.execute(
        select(
            BandRow.steel,
            EdgeLifeRow.number,
            EdgeLifeRow.equivalent_m,
            EdgeLifeRow.ending,
            EdgeLifeRow.confirmed_m,
        )
        .join(BandRow, EdgeLifeRow.band_id == BandRow.id)
        .where(BandRow.deleted_at.is_(None))
    )
    return ShopLives(
        LifeRecord(steel, number, m, ending == "dull", sure)
        for steel, number, m, ending, sure in rows
    )


def edge_record(row: BandRow) -> EdgeRecord:
    """What a band's row keeps of its edge."""
    return EdgeRecord(
        metres=row.edge_equivalent_m,
        odds=row.sign_odds,
        left_factor=row.left_factor,
        judged=None if row.judged is None else Judged(**row.judged),
        fed=None if row.fed is None else Slowed(**row.fed),
        weighed=None if row.weighed is None else Slowed(**row.weighed),
    )


def keenness_of(row: BandRow, life: ShopLife, state: BandHistory | None = None) -> Keenness:
    """How keen an edge is by all its evidence, its own metres left out of the life to expect.

    Of a band as it stands, or as another history of it would have it.
    """
    kept = edge_record(row) if state is None else state.edge
    return how_keen(kept, life_m=own_life_m(life, used_m=kept.metres), retired=life.retired)


def dullness_of(row: BandRow, life: ShopLife, state: BandHistory | None = None) -> float:
    """Dullness alone."""
    return keenness_of(row, life, state).dullness


def band_type(row: BandRow) -> Candidate:
    """What a rack band is, its wear aside."""
    return Candidate(
        **type_of(row),
        set_per_side_mm=row.set_per_side_mm,
        length_mm=row.length_mm,
        band_id=row.id,
    )


def candidate(
    row: BandRow, lives: ShopLives, saw_id: int | None, mounted_on: int | None
) -> Candidate:
    """A rack band as the choice sees it; its life is the shop's record of its steel."""
    life = lives.of(row.steel, row.sharpenings)
    keen = keenness_of(row, life)
    return dataclasses.replace(
        band_type(row),
        defects=tuple(row.defects),
        teeth_lost=row.teeth_lost,
        kept_for=row.kept_for,
        dullness=keen.dullness,
        dullness_sd=keen.sd,
        fouling=row.fouling,
        price=None if row.price_minor is None else row.price_minor / MINOR,
        life_alpha=life.posterior.alpha,
        mounted=mounted_on is not None and mounted_on == saw_id,
    )


def dullness_without_face(session: Session, row: BandRow, face_id: int) -> float:
    """How dull a band would be taken for, had one face not been read."""
    runs, events = history(session, row.id)
    known = around(session)
    kept = (event_fact(e, known) for e in events)
    seen = (*kept, *face_facts(session, row.id, without=face_id))
    state = replay((run_fact(r, known) for r in runs), seen)
    return dullness_of(row, shop_lives(session).of(row.steel, row.sharpenings), state)


def chance(row: BandRow, lives: ShopLives, next_m: float, *, limit: float = 1.0) -> float:
    """Chance that a band's edge sees the next equivalent (wood) metres through.

    To a finish's limit, a share of the life. What else speaks of the edge than its metres
    moves how much of that is used.
    """
    life = lives.of(row.steel, row.sharpenings)
    own = own_life_m(life, used_m=row.edge_equivalent_m)
    lost = dullness_of(row, life) * own - row.edge_equivalent_m
    return chance_to_last(
        life, used_m=row.edge_equivalent_m, lost_m=lost, next_m=next_m, limit=limit
    )
