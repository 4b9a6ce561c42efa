"""Bands on the rack: add, edit, events, and what their record says of their edge."""

import dataclasses
import unicodedata
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any, cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.bands.facts import look_up, pitches_mm
from jade_ribbon.core.edge.chips import is_dusty
from jade_ribbon.core.edge.history import BandHistory, EventFact, RunFact, replay
from jade_ribbon.core.edge.keenness import keenness
from jade_ribbon.core.edge.run_pace import MISFIT_ASKED, doubt
from jade_ribbon.core.edge.run_time import TimeDoubt, asked_of_time
from jade_ribbon.core.edge.shop_life import (
    LifeRecord,
    ShopLife,
    ShopLives,
    asks_still_good,
    chance_to_last,
    own_life_m,
)
from jade_ribbon.core.inspection.roughness import ROUGH_FACE, TORN_FACE
from jade_ribbon.core.job import Candidate
from jade_ribbon.core.mechanics.wear import edge_state, effective_dullness
from jade_ribbon.core.quantities.words import Said
from jade_ribbon.reference.tables import materials
from jade_ribbon.services.clock import now
from jade_ribbon.services.edits import Edit, edit_of
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.rack.inputs import BandEventInput, BandInput, BandTypeInput
from jade_ribbon.services.records import (
    as_record,
    check_rules,
    get,
    log_change,
    must_hold,
    projected,
)
from jade_ribbon.store.models import BandEventRow, BandRow, EdgeLifeRow, FaceRow, RunRow, SawRow

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
MINOR = 100
BandEdit = edit_of(BandInput)


@dataclass(frozen=True)
class BandAnswer:
    """A band as the rack lists it. Dullness and fouling 0..1; metres in clean dry oak."""

    id: int
    label: str
    width_mm: float
    thickness_mm: float
    tpi_lo: float | None
    tpi_hi: float | None
    form: str
    steel: str
    length_mm: float
    set_per_side_mm: float | None
    price: float | None
    place: str
    note: str
    kept_for: str
    defects: list[str]
    teeth_lost: int
    still_good_asked: bool
    state: str
    scrap_reason: str | None
    arrived_at: datetime
    sharpenings: int
    dullness: float
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


def shop_lives(session: Session) -> ShopLives:
    """Lives of all edges in this shop's record; one statement."""
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


def dullness_of(row: BandRow, life: ShopLife, state: BandHistory | None = None) -> float:
    """Edge wear over the life to expect, its own metres left out of it, and its late signs.

    Of a band as it stands, or as another history of it would have it.
    """
    kept = row if state is None else state
    return keenness(
        row.edge_equivalent_m / own_life_m(life, used_m=row.edge_equivalent_m),
        retired=life.retired,
        odds=kept.sign_odds,
        left_factor=kept.left_factor,
    )


def answer(row: BandRow, lives: ShopLives, saw: SawRow | None) -> BandAnswer:
    life = lives.of(row.steel, row.sharpenings)
    dull = dullness_of(row, life)
    state = edge_state(effective_dullness(edge_dullness=dull, fouled=row.fouling))
    life_m = own_life_m(life, used_m=row.edge_equivalent_m)
    return BandAnswer(
        id=row.id,
        label=row.label,
        width_mm=row.width_mm,
        thickness_mm=row.thickness_mm,
        tpi_lo=row.tpi_lo,
        tpi_hi=row.tpi_hi,
        form=row.form,
        steel=row.steel,
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
        fouling=row.fouling,
        edge=state.key,
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


def list_bands(session: Session, *, scrapped: bool = True) -> list[BandAnswer]:
    """All live bands; three statements however many there are."""
    lives = shop_lives(session)
    query = (
        select(BandRow, SawRow)
        .outerjoin(SawRow, SawRow.mounted_band_id == BandRow.id)
        .where(BandRow.deleted_at.is_(None))
        .order_by(BandRow.label)
    )
    if not scrapped:
        query = query.where(BandRow.state != "scrapped")
    return [answer(band, lives, saw) for band, saw in session.execute(query)]


def one_band(session: Session, band_id: int) -> BandAnswer:
    row = get(session, "band", band_id)
    saw = session.scalars(select(SawRow).where(SawRow.mounted_band_id == band_id)).first()
    return answer(row, shop_lives(session), saw)


def band_type(row: BandRow) -> Candidate:
    """What a rack band is, its wear aside."""
    return Candidate(
        label=row.label,
        width_mm=row.width_mm,
        thickness_mm=row.thickness_mm,
        tpi_lo=row.tpi_lo,
        tpi_hi=row.tpi_hi,
        form=row.form,
        steel=row.steel,
        set_per_side_mm=row.set_per_side_mm,
        length_mm=row.length_mm,
        band_id=row.id,
    )


def candidate(
    row: BandRow, lives: ShopLives, saw_id: int | None, mounted_on: int | None
) -> Candidate:
    """A rack band as the choice sees it; its life is the shop's record of its steel."""
    life = lives.of(row.steel, row.sharpenings)
    return dataclasses.replace(
        band_type(row),
        defects=tuple(row.defects),
        teeth_lost=row.teeth_lost,
        kept_for=row.kept_for,
        dullness=dullness_of(row, life),
        fouling=row.fouling,
        price=None if row.price_minor is None else row.price_minor / MINOR,
        life_alpha=life.posterior.alpha,
        mounted=mounted_on is not None and mounted_on == saw_id,
    )


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
    return " ".join(unicodedata.normalize("NFKC", label).casefold().split())


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
            _refuse_mounted(session, row, doing)


def _apply(row: BandRow, given: BandInput) -> None:
    for name in BAND_PLAIN:
        setattr(row, name, getattr(given, name))
    row.price_minor = None if given.price is None else round(given.price * MINOR)


def add_band(session: Session, given: BandInput, at: datetime | None = None) -> BandAnswer:
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


def delete_band(session: Session, band_id: int) -> int:
    """Delete a band that is not mounted; the id of the change, for undo."""
    row = get(session, "band", band_id)
    before = as_record(row)
    row.deleted_at = now()
    return log_change(session, row, "delete", before).id


def _refuse_mounted(session: Session, row: BandRow, doing: str) -> None:
    saw = session.scalars(select(SawRow).where(SawRow.mounted_band_id == row.id)).first()
    if saw is not None:
        raise ConflictError(f"Band {row.label} is on {saw.name}: take it off before {doing} it.")


def history(session: Session, band_id: int) -> tuple[Sequence[RunRow], Sequence[BandEventRow]]:
    """Live runs and events of a band, oldest first."""
    runs = session.scalars(
        select(RunRow)
        .where(RunRow.band_id == band_id, RunRow.deleted_at.is_(None))
        .order_by(RunRow.at, RunRow.id)
    ).all()
    events = session.scalars(
        select(BandEventRow)
        .where(BandEventRow.band_id == band_id, BandEventRow.deleted_at.is_(None))
        .order_by(BandEventRow.at, BandEventRow.id)
    ).all()
    return runs, events


def signs_of(run: RunRow) -> tuple[str, ...]:
    """What a run's record says of its edge: the signs tapped, and dust where chips should be."""
    known = materials().get(run.material)
    dusty = is_dusty(
        run.chips,
        feed_m_min=run.feed_m_min,
        floor_m_min=run.floor_m_min,
        metal=known is not None and known.is_metal,
    )
    return (*run.symptoms, "dusty") if dusty else tuple(run.symptoms)


def run_fact(run: RunRow) -> RunFact:
    """What a run did to the band, as the replay takes it."""
    return RunFact(
        at=run.at,
        contact_m=run.contact_m,
        equivalent_m=run.equivalent_m,
        fouling_gain=run.fouling_gain,
        bending_share=run.bending_share,
        signs=signs_of(run),
        counts=not run.to_confirm,
        teeth_lost=run.teeth_lost,
    )


def face_facts(session: Session, band_id: int, *, without: int = 0) -> list[EventFact]:
    """Faces coarser than a band's teeth should leave, for the replay; one may be left out."""
    rows = session.scalars(
        select(FaceRow)
        .where(
            FaceRow.band_id == band_id,
            FaceRow.deleted_at.is_(None),
            FaceRow.simulated.is_(False),
            FaceRow.rough_over > 0,
            FaceRow.id != without,
        )
        .order_by(FaceRow.at, FaceRow.id)
    )
    return [
        EventFact(row.at, "face_read", TORN_FACE if (row.rough_over or 0) >= 2 else ROUGH_FACE)
        for row in rows
    ]


def dullness_without_face(session: Session, row: BandRow, face_id: int) -> float:
    """How dull a band would be taken for, had one face not been read."""
    runs, events = history(session, row.id)
    seen = (*(event_fact(e) for e in events), *face_facts(session, row.id, without=face_id))
    state = replay((run_fact(r) for r in runs), seen)
    return dullness_of(row, shop_lives(session).of(row.steel, row.sharpenings), state)


def asked_words(session: Session, run: RunRow) -> Said:
    """What is asked of a run before it is believed; '' for one that is."""
    if not run.to_confirm:
        return ""
    band = session.get(BandRow, run.band_id)
    timed = asked_of_time(
        cast(TimeDoubt, run.time_doubt),
        at=run.at,
        device_at=run.device_at,
        band_came=band.arrived_at if band else run.at,
    )
    if timed:
        return timed
    length = run.planned_length_mm or run.length_mm
    asked = doubt(
        feed_m_min=run.feed_m_min,
        planned_m_min=run.planned_m_min,
        length_mm=run.length_mm,
        planned_length_mm=length,
    )
    return asked or MISFIT_ASKED


def event_fact(event: BandEventRow) -> EventFact:
    """What else happened to it, as the replay takes it."""
    return EventFact(event.at, event.kind, event.detail, event.value)


def refresh(session: Session, row: BandRow) -> BandHistory:
    """Replay a band's history into its counters and lives."""
    session.flush()
    runs, events = history(session, row.id)
    seen = (*(event_fact(e) for e in events), *face_facts(session, row.id))
    state = replay((run_fact(r) for r in runs), seen)
    row.sharpenings = state.sharpenings
    row.edge_equivalent_m, row.edge_contact_m = state.edge_equivalent_m, state.edge_contact_m
    row.total_contact_m, row.fouling = state.total_contact_m, state.fouling
    row.bending_share, row.runs = state.bending_share, state.runs
    row.last_run_at = state.last_run_at
    row.sign_odds, row.left_factor = state.sign_odds, state.left_factor
    row.defects, row.teeth_lost = list(state.defects), state.teeth_lost
    row.confirmed_m = state.confirmed_m
    row.state = "scrapped" if state.scrapped else "out" if state.out else "rack"
    scrap = [e.detail for e in events if e.kind == "scrapped"]
    row.scrap_reason = scrap[-1] if state.scrapped and scrap else None
    for old in session.scalars(select(EdgeLifeRow).where(EdgeLifeRow.band_id == row.id)):
        session.delete(old)
    session.flush()
    session.add_all(
        EdgeLifeRow(
            band_id=row.id,
            number=n,
            equivalent_m=life.equivalent_m,
            ending=life.ending,
            confirmed_m=life.confirmed_m,
        )
        for n, life in enumerate(state.lives)
    )
    session.flush()
    return state


@must_hold("run")
@must_hold("event")
def of_a_living_band(session: Session, row: RunRow | BandEventRow) -> None:
    """Nothing is recorded of a band that was deleted."""
    band = session.get(BandRow, row.band_id)
    if row.deleted_at is None and (band is None or band.deleted_at is not None):
        label = band.label if band else row.band_id
        raise ConflictError(f"Band {label} was deleted: bring it back first.")


@projected("run")
@projected("event")
@projected("face")
def refresh_band_of(session: Session, row: RunRow | BandEventRow | FaceRow) -> None:
    """A band follows its runs, its events and its faces, whoever changed them."""
    band = session.get(BandRow, row.band_id)
    if band is not None:
        refresh(session, band)
        check_rules(session, "band", band)


def add_event(
    session: Session, band_id: int, given: BandEventInput, at: datetime | None = None
) -> BandAnswer:
    """Record something that happened to a band and replay it."""
    row: BandRow = get(session, "band", band_id)
    if row.state == "scrapped":
        raise ConflictError(f"Band {row.label} is scrapped; undo that first.")
    if given.kind in ("scrapped", "sent_out"):
        _refuse_mounted(session, row, "scrapping" if given.kind == "scrapped" else "sending out")
    before = as_record(row)
    value = given.value
    if given.kind == "edge_judged" and value is not None:
        life = shop_lives(session).of(row.steel, row.sharpenings)
        value *= own_life_m(life, used_m=row.edge_equivalent_m)
    event = BandEventRow(
        band_id=band_id,
        at=at or now(),
        kind=given.kind,
        detail=given.detail,
        value=value,
        who=given.who,
    )
    session.add(event)
    log_change(session, event, "add", None)
    if given.kind == "measured_set":
        row.set_per_side_mm = given.value
        log_change(session, row, "edit", before)
    return one_band(session, band_id)


def delete_event(session: Session, event_id: int) -> int:
    """Take an event back; the id of the change, for undo."""
    event = get(session, "event", event_id)
    before = as_record(event)
    event.deleted_at = now()
    return log_change(session, event, "delete", before).id


def chance(row: BandRow, lives: ShopLives, next_m: float, *, limit: float = 1.0) -> float:
    """Chance that a band's edge sees the next equivalent (wood) metres through.

    To a finish's limit, a share of the life. What signs and smoke took counts as metres used.
    """
    life = lives.of(row.steel, row.sharpenings)
    own = own_life_m(life, used_m=row.edge_equivalent_m)
    lost = max(0.0, dullness_of(row, life) * own - row.edge_equivalent_m)
    return chance_to_last(
        life, used_m=row.edge_equivalent_m, lost_m=lost, next_m=next_m, limit=limit
    )
