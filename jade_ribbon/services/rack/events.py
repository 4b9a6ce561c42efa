"""What happened to a band: recorded, taken back, and what follows at once."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy.orm import Session

from jade_ribbon.core.bands.incoming_inspection import Arrival, ArrivalFigures, SoldAs, look_over
from jade_ribbon.core.edge.shop_life import own_life_m
from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.services.clock import now
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.field_types import Waited
from jade_ribbon.services.rack import learning  # noqa: F401 - what lives teach follows events
from jade_ribbon.services.rack.bands import BandAnswer, one_band, refuse_mounted
from jade_ribbon.services.rack.edges import MINOR, shop_lives
from jade_ribbon.services.rack.inputs import BandEventInput, LookedOverInput, WeighedInput
from jade_ribbon.services.records import ChangeId, as_record, get, log_change
from jade_ribbon.services.shop.materials import material_table
from jade_ribbon.store.models import BandEventRow, BandRow


def _facts(given: BandEventInput) -> dict[str, Any]:
    """What a kind of event tells more."""
    if given.kind == "edge_judged":
        return {"dullness": given.value}
    if given.kind == "sharpened" and given.sharpened is not None:
        return given.sharpened.model_dump(exclude_none=True)
    return {}


def add_event(
    session: Session, band_id: int, given: BandEventInput, at: Waited = None
) -> BandAnswer:
    """Record something that happened to a band and replay it."""
    row: BandRow = get(session, "band", band_id)
    if row.state == "scrapped":
        raise ConflictError(f"Band {row.label} is scrapped; undo that first.")
    if given.kind in ("scrapped", "sent_out"):
        refuse_mounted(session, row, "scrapping" if given.kind == "scrapped" else "sending out")
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
        minutes=given.minutes,
        cost_minor=None if given.cost is None else round(given.cost * MINOR),
        facts=_facts(given),
        who=given.who,
    )
    session.add(event)
    log_change(session, event, "add", None)
    set_after = given.sharpened.set_after_mm if given.sharpened is not None else None
    measured = given.value if given.kind == "measured_set" else set_after
    if measured is not None:
        row.set_per_side_mm = measured
        log_change(session, row, "edit", before)
    lost = given.sharpened.teeth_lost if given.sharpened is not None else 0
    if lost:
        _note(session, row, "teeth_lost", given.who, event.at, value=float(lost))
    return one_band(session, band_id)


def delete_event(session: Session, event_id: int) -> ChangeId:
    """Take an event back; the id of the change, for undo."""
    event = get(session, "event", event_id)
    before = as_record(event)
    event.deleted_at = now()
    return log_change(session, event, "delete", before).id


def _note(
    session: Session, row: BandRow, kind: str, who: str, at: datetime, **more: Any
) -> BandEventRow:
    """One event of a band, logged."""
    event = BandEventRow(band_id=row.id, at=at, kind=kind, who=who, **more)
    session.add(event)
    log_change(session, event, "add", None)
    return event


def weigh_band(
    session: Session, band_id: int, given: WeighedInput, at: Waited = None
) -> BandAnswer:
    """Record a cut made by a hanging weight: its feed tells how dull the edge is.

    ConflictError for a band that is not on that saw; InputError for an unknown material.
    """
    row: BandRow = get(session, "band", band_id)
    saw = get(session, "saw", given.saw_id)
    if saw.mounted_band_id != row.id:
        raise ConflictError(f"Band {row.label} is not on {saw.name}: mount it first.")
    if given.material not in material_table(session):
        words = f"{given.material!r} is unknown; accepted: a material of the shop"
        raise refuse("material", words, given.material)
    facts = given.model_dump(exclude={"who"}) | {"speed_m_s": saw.speed_set_m_s}
    feed = given.length_mm / 1000.0 / given.seconds * 60.0
    _note(session, row, "weighed", given.who, at or now(), value=feed, facts=facts)
    return one_band(session, band_id)


@dataclass(frozen=True)
class LookedOver:
    """A band looked over: what was found, with the record of it."""

    arrival: Arrival
    band: BandAnswer


def arrival_of(row: BandRow, given: LookedOverInput) -> Arrival:
    """What a looking over says of a band against what it was sold as."""
    sold = SoldAs(
        row.length_mm,
        row.width_mm,
        row.thickness_mm,
        row.tpi_lo,
        row.tpi_hi,
        row.set_per_side_mm,
    )
    return look_over(sold, ArrivalFigures(**given.model_dump(exclude={"who"})))


def look_over_band(
    session: Session, band_id: int, given: LookedOverInput, at: Waited = None
) -> LookedOver:
    """Record a looking over; a measured set becomes the band's own."""
    row: BandRow = get(session, "band", band_id)
    found = arrival_of(row, given)
    facts = given.model_dump(exclude={"who"}, exclude_none=True)
    _note(session, row, "inspected", given.who, at or now(), detail=found.verdict, facts=facts)
    if found.measured_set is not None:
        before = as_record(row)
        mean = (found.measured_set.left_mm + found.measured_set.right_mm) / 2.0
        row.set_per_side_mm = round(mean, 4)
        log_change(session, row, "edit", before)
    return LookedOver(found, one_band(session, band_id))
