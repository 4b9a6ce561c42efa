"""A band's record replayed: what its runs, events and faces make of it."""

import dataclasses
import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import contextmanager
from typing import Any, cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.edge.chips import is_dusty
from jade_ribbon.core.edge.feed_force import PushFact, push_fact
from jade_ribbon.core.edge.history import BandHistory, EventFact, RunFact, replayed
from jade_ribbon.core.edge.run_pace import MISFIT_ASKED, doubt
from jade_ribbon.core.edge.run_time import TimeDoubt, asked_of_time
from jade_ribbon.core.inspection.roughness import ROUGH_FACE, TORN_FACE
from jade_ribbon.core.quantities.words import Said
from jade_ribbon.reference.tables import Material, materials
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.rack.sums import sum_runs
from jade_ribbon.services.records import check_rules, must_hold, projected
from jade_ribbon.services.shop.materials import material_table
from jade_ribbon.services.shop.settings import read_shop
from jade_ribbon.store.database import Store
from jade_ribbon.store.models import (
    BandEventRow,
    BandRow,
    EdgeLifeRow,
    FaceRow,
    RunRow,
    SawRow,
)

SAME_HEIGHT = 1.1
"""Heights within a tenth are the same cut."""
AS_PLANNED = 0.005
"""A run at the planned feed to so much was logged as planned: nobody looked at a clock."""
RULES_VERSION = 2
"""Kept in the file: a record replayed by older rules is replayed when the file is opened."""


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


@dataclasses.dataclass(frozen=True)
class Around:
    """What a replay knows besides the band: saws fed by hand, materials, how hard they wear."""

    by_hand: frozenset[int]
    materials: Mapping[str, Material]
    wear: Mapping[str, float]
    """How hard materials wear edges here, against the table by which runs were counted."""


def around(session: Session) -> Around:
    by_hand = session.scalars(select(SawRow.id).where(SawRow.feed == "hand"))
    return Around(frozenset(by_hand), material_table(session), wear_factors(session))


def wear_factors(session: Session) -> dict[str, float]:
    """How hard materials wear edges here, against the table."""
    return {key: own.factor for key, own in read_shop(session).wear.items()}


def _push_of(run: RunRow, known: Around) -> PushFact | None:
    """The feed of a run that a hand pushed and a clock timed; None of any other."""
    material = known.materials.get(run.material)
    if material is None or run.saw_id not in known.by_hand:
        return None
    planned = run.planned_m_min
    if planned is not None and abs(run.feed_m_min / planned - 1.0) < AS_PLANNED:
        return None
    height = round(math.log(run.height_mm) / math.log(SAME_HEIGHT))
    speed = round(math.log(run.speed_m_s) / math.log(SAME_HEIGHT))
    key = f"{run.saw_id} {run.material} {run.operation} {height} {speed}"
    return push_fact(key, run.feed_m_min, material)


def run_fact(run: RunRow, known: Around | None = None) -> RunFact:
    """What a run did to the band, as the replay takes it."""
    return RunFact(
        at=run.at,
        contact_m=run.contact_m,
        equivalent_m=run.equivalent_m * (known.wear.get(run.material, 1.0) if known else 1.0),
        fouling_gain=run.fouling_gain,
        bending_share=run.bending_share,
        signs=signs_of(run),
        counts=not run.to_confirm,
        teeth_lost=run.teeth_lost,
        strikes=run.strikes,
        push=None if known is None else _push_of(run, known),
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


def event_fact(event: BandEventRow, known: Around | None = None) -> EventFact:
    """What else happened to it, as the replay takes it."""
    said = event.facts.get("dullness") if event.kind == "edge_judged" else None
    push = _weighed(event, known) if event.kind == "weighed" and known is not None else None
    return EventFact(event.at, event.kind, event.detail, event.value, said, push)


def _weighed(event: BandEventRow, known: Around) -> PushFact | None:
    """A standard offcut fed by a weight: the feed of its kind of cut."""
    facts = event.facts
    material = known.materials.get(str(facts.get("material")))
    if material is None or event.value is None:
        return None
    same = ("material", "height_mm", "weight_kg", "saw_id", "speed_m_s")
    key = " ".join(str(facts.get(name)) for name in same)
    return push_fact(key, event.value, material)


def _plain(kept: Any) -> dict[str, Any] | None:
    return None if kept is None else dataclasses.asdict(kept)


def refresh(session: Session, row: BandRow, known: Around | None = None) -> BandHistory:
    """Replay a band's history into its counters and lives."""
    session.flush()
    runs, events = history(session, row.id)
    known = around(session) if known is None else known
    seen = (*(event_fact(e, known) for e in events), *face_facts(session, row.id))
    found = replayed((run_fact(r, known) for r in runs), seen)
    state = found.history
    for run, mark in zip(runs, found.marks, strict=True):
        if (run.edge_number, run.edge_before_m) != (mark.edge_number, mark.before_m):
            run.edge_number, run.edge_before_m = mark.edge_number, mark.before_m
    row.sharpenings = state.sharpenings
    row.edge_equivalent_m, row.edge_contact_m = state.edge_equivalent_m, state.edge_contact_m
    row.total_contact_m, row.fouling = state.total_contact_m, state.fouling
    row.bending_share, row.runs = state.bending_share, state.runs
    row.last_run_at = state.last_run_at
    row.sign_odds, row.left_factor = state.sign_odds, state.left_factor
    row.defects, row.teeth_lost = list(state.defects), state.teeth_lost
    row.confirmed_m, row.look_first = state.confirmed_m, state.look_first
    row.judged, row.fed, row.weighed = map(_plain, (state.judged, state.fed, state.weighed))
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
    sum_runs(session, row.id, runs, found.marks)
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
    waiting: set[int] | None = session.info.get(WAITING)
    if waiting is not None:
        waiting.add(row.band_id)
        return
    band = session.get(BandRow, row.band_id)
    if band is not None:
        refresh(session, band)
        check_rules(session, "band", band)


WAITING = "bands to be replayed"


@contextmanager
def replayed_once(session: Session) -> Iterator[None]:
    """Many records of a band replay it once, at the end, not after each of them."""
    waiting: set[int] = set()
    session.info[WAITING] = waiting
    try:
        yield
    finally:
        del session.info[WAITING]
    known = around(session)
    for band in session.scalars(select(BandRow).where(BandRow.id.in_(waiting))).all():
        refresh(session, band, known)
        check_rules(session, "band", band)


def replay_all(session: Session, done: Callable[[int, int], None] = lambda _n, _of: None) -> int:
    """Replay every band; how many. `done` is told how far it is."""
    known = around(session)
    keys = session.scalars(select(BandRow.id).order_by(BandRow.id)).all()
    for n, key in enumerate(keys):
        row = session.get(BandRow, key)
        if row is not None:
            refresh(session, row, known)
            session.flush()
        session.expire_all()
        done(n + 1, len(keys))
    return len(keys)


def bring_up(store: Store, done: Callable[[int, int], None] = lambda _n, _of: None) -> int:
    """Replay every band of a file whose record was last replayed by older rules; how many."""
    with store.read() as session:
        if session.connection().exec_driver_sql("PRAGMA user_version").scalar() == RULES_VERSION:
            return 0
    with store.write() as session:
        replayed = replay_all(session, done)
        session.connection().exec_driver_sql(f"PRAGMA user_version = {RULES_VERSION}")
    return replayed
