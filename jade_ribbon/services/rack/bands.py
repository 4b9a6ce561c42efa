"""Bands on the rack: add, edit, what happened to them, and how they are listed."""

import unicodedata
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.bands.facts import look_up, pitches_mm
from jade_ribbon.core.choosing.conflicts import barring, damage_words
from jade_ribbon.core.edge.edge_states import edge_state
from jade_ribbon.core.edge.shop_life import ShopLives, asks_still_good, own_life_m
from jade_ribbon.core.job import BandType, Candidate, type_of
from jade_ribbon.core.mechanics.wear import effective_dullness
from jade_ribbon.formats.plain_text import visible
from jade_ribbon.services.clock import now
from jade_ribbon.services.edits import Edit, edit_of
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.field_types import Id
from jade_ribbon.services.rack.edges import MINOR, keenness_of, shop_lives
from jade_ribbon.services.rack.inputs import BandInput, BandTypeInput
from jade_ribbon.services.records import ChangeId, as_record, get, log_change, must_hold
from jade_ribbon.services.shop.settings import read_shop
from jade_ribbon.store.models import BandEventRow, BandRow, SawRow

BAND_PLAIN = (
    "label",
    "width_mm",
    "thickness_mm",
    "tpi_lo",
    "tpi_hi",
    "form",
    "steel",
    "length_mm",
    "set_per_side_mm",
    "place",
    "note",
    "kept_for",
)
BandEdit = edit_of(BandInput)


@dataclass(frozen=True)
class BandAnswer(BandType):
    """A band as the rack lists it. Dullness and fouling 0..1; metres in clean dry oak."""

    id: int
    length_mm: float
    set_per_side_mm: float | None
    price: float | None
    place: str
    note: str
    kept_for: str
    defects: list[str]
    teeth_lost: int
    damage: str
    """What keeps it off the saw; '' for a sound one."""
    still_good_asked: bool
    state: str
    scrap_reason: str | None
    arrived_at: datetime
    sharpenings: int
    dullness: float
    dullness_sd: float
    look_first: bool
    fouling: float
    edge: str
    tip_radius_um: float
    life_left_share: float
    edge_equivalent_m: float
    life_m: float
    bending_share: float
    runs: int
    last_run_at: datetime | None
    mounted_on: str | None
    mounted_saw_id: int | None
    tension_state: str | None
    version: int


DAMAGED = "damaged"
"""In the place of how keen it is, of a band that is off the saw: a sharpening does not mend it."""


def band_answer(
    row: BandRow, lives: ShopLives, saw: SawRow | None, teeth_allowed: int
) -> BandAnswer:
    """A band as shown; so many lost teeth are let pass."""
    damage = barring(row.defects, teeth_lost=row.teeth_lost, allowed=teeth_allowed)
    life = lives.of(row.steel, row.sharpenings)
    keen = keenness_of(row, life)
    dull = keen.dullness
    state = edge_state(effective_dullness(edge_dullness=dull, fouled=row.fouling))
    life_m = own_life_m(life, used_m=row.edge_equivalent_m)
    return BandAnswer(
        id=row.id,
        **type_of(row),
        length_mm=row.length_mm,
        set_per_side_mm=row.set_per_side_mm,
        price=None if row.price_minor is None else row.price_minor / MINOR,
        place=row.place,
        note=row.note,
        kept_for=row.kept_for,
        defects=row.defects,
        teeth_lost=row.teeth_lost,
        still_good_asked=row.state == "rack"
        and asks_still_good(
            used_m=row.edge_equivalent_m,
            life_m=life_m,
            confirmed_m=row.confirmed_m,
            dullness=dull,
        ),
        state=row.state,
        scrap_reason=row.scrap_reason,
        arrived_at=row.arrived_at,
        sharpenings=row.sharpenings,
        dullness=dull,
        dullness_sd=keen.sd,
        look_first=row.look_first,
        fouling=row.fouling,
        damage=damage_words(damage),
        edge=DAMAGED if damage else state.key,
        tip_radius_um=state.tip_radius_um,
        life_left_share=max(0.0, 1.0 - dull),
        edge_equivalent_m=row.edge_equivalent_m,
        life_m=life_m,
        bending_share=row.bending_share,
        runs=row.runs,
        last_run_at=row.last_run_at,
        mounted_on=saw.name if saw else None,
        mounted_saw_id=saw.id if saw else None,
        tension_state=saw.tension_state if saw else None,
        version=row.version,
    )


SCRAPPED_LISTED = 200
"""Scrapped bands of one page."""


def list_bands(
    session: Session, before: Id | None = None, scrapped: bool = False
) -> list[BandAnswer]:
    """The rack's bands with their edge and where they are; the scrapped ones page by page."""
    return _scrapped_bands(session, before) if scrapped else _live_bands(session)


def _live_bands(session: Session) -> list[BandAnswer]:
    """The bands that are not scrapped; three statements however many there are."""
    lives = shop_lives(session)
    query = (
        select(BandRow, SawRow)
        .outerjoin(SawRow, SawRow.mounted_band_id == BandRow.id)
        .where(BandRow.deleted_at.is_(None), BandRow.state != "scrapped")
        .order_by(BandRow.label)
    )
    allowed = read_shop(session).rates.teeth_missing_allowed
    return [band_answer(band, lives, saw, allowed) for band, saw in session.execute(query)]


def _scrapped_bands(session: Session, before: int | None = None) -> list[BandAnswer]:
    """A page of scrapped bands, those that came last first."""
    query = (
        select(BandRow)
        .where(BandRow.deleted_at.is_(None), BandRow.state == "scrapped")
        .order_by(BandRow.id.desc())
        .limit(SCRAPPED_LISTED)
    )
    if before is not None:
        query = query.where(BandRow.id < before)
    lives = shop_lives(session)
    allowed = read_shop(session).rates.teeth_missing_allowed
    return [band_answer(band, lives, None, allowed) for band in session.scalars(query)]


def one_band(session: Session, band_id: int) -> BandAnswer:
    row = get(session, "band", band_id)
    saw = session.scalars(select(SawRow).where(SawRow.mounted_band_id == band_id)).first()
    allowed = read_shop(session).rates.teeth_missing_allowed
    return band_answer(row, shop_lives(session), saw, allowed)


def check_type(given: BandTypeInput) -> None:
    """Steel and form known, pitch given where the form has teeth."""
    probe = Candidate(
        "",
        given.width_mm,
        given.thickness_mm,
        given.tpi_lo,
        given.tpi_hi,
        given.form,
        given.steel,
    )
    _, form = look_up(probe)
    pitches_mm(probe, form)


def plain_label(label: str) -> str:
    """A label as people tell it from others: K-07 and k-07 are one."""
    return " ".join(unicodedata.normalize("NFKC", visible(label)).casefold().split())


def _check_label(session: Session, label: str, own_id: int | None) -> None:
    wanted = plain_label(label)
    rows = session.execute(select(BandRow.id, BandRow.label).where(BandRow.deleted_at.is_(None)))
    if any(plain_label(other) == wanted and key != own_id for key, other in rows):
        raise ConflictError(f"A band labelled {label} is on the rack already.")


@must_hold("band")
def one_living_band_of_a_label(session: Session, row: BandRow) -> None:
    """No two bands on the rack under one label, and none gone that is on a saw."""
    if row.deleted_at is None:
        _check_label(session, row.label, row.id)
    for gone, doing in (
        (row.deleted_at is not None, "deleting"),
        (row.state == "scrapped", "scrapping"),
        (row.state == "out", "sending out"),
    ):
        if gone:
            refuse_mounted(session, row, doing)


def _apply(row: BandRow, given: BandInput) -> None:
    for name in BAND_PLAIN:
        setattr(row, name, getattr(given, name))
    row.price_minor = None if given.price is None else round(given.price * MINOR)


def add_band(session: Session, given: BandInput, *, at: datetime | None = None) -> BandAnswer:
    check_type(given)
    row = BandRow(arrived_at=at or now(), state="rack")
    _apply(row, given)
    session.add(row)
    log_change(session, row, "add", None)
    arrived = BandEventRow(band_id=row.id, at=row.arrived_at, kind="arrived")
    session.add(arrived)
    log_change(session, arrived, "add", None)
    return one_band(session, row.id)


def edit_band(session: Session, band_id: int, given: BandInput) -> BandAnswer:
    row = get(session, "band", band_id)
    check_type(given)
    before = as_record(row)
    _apply(row, given)
    log_change(session, row, "edit", before)
    return one_band(session, band_id)


def band_record(row: BandRow) -> dict[str, Any]:
    """What may be edited of a band, as it is."""
    price = None if row.price_minor is None else row.price_minor / MINOR
    return {name: getattr(row, name) for name in BAND_PLAIN} | {"price": price}


def save_band(session: Session, band_id: int, edit: Edit) -> BandAnswer:
    """Save what was changed of a band. StaleError when it was saved by somebody else since."""
    row: BandRow = get(session, "band", band_id)
    return edit_band(session, band_id, edit.onto(BandInput, band_record(row), row.version))


def delete_band(session: Session, band_id: int) -> ChangeId:
    """Delete a band that is not mounted; the id of the change, for undo."""
    row = get(session, "band", band_id)
    before = as_record(row)
    row.deleted_at = now()
    return log_change(session, row, "delete", before).id


def refuse_mounted(session: Session, row: BandRow, doing: str) -> None:
    saw = session.scalars(select(SawRow).where(SawRow.mounted_band_id == row.id)).first()
    if saw is not None:
        raise ConflictError(f"Band {row.label} is on {saw.name}: take it off before {doing} it.")
