"""Bands on the rack."""

from sqlalchemy.orm import Session

from jade_ribbon.api.answers import Changed
from jade_ribbon.api.operations import operation, waited_s
from jade_ribbon.core.edge.sharpen_card import SharpenCard
from jade_ribbon.formats.validation import Strict
from jade_ribbon.services.bodies import PageQuery
from jade_ribbon.services.clock import waited
from jade_ribbon.services.edits import Edit
from jade_ribbon.services.rack import bands, coming, events, pages, sharpening
from jade_ribbon.services.rack.inputs import (
    BandEventInput,
    BandSheetInput,
    HandWay,
    LookedOverInput,
    NewBandInput,
    WeighedInput,
)


class SharpenQuery(Strict):
    """Where it is sharpened: in the vice, or on the saw."""

    way: HandWay = "in_house"


class BandsQuery(PageQuery):
    """The rack's bands, or a page of those that were scrapped."""

    scrapped: bool = False


@operation("GET", "/api/bands", answer=list[bands.BandAnswer], query=BandsQuery)
def list_bands(session: Session, query: BandsQuery) -> list[bands.BandAnswer]:
    """Bands with their edge and where they are; the scrapped ones page by page."""
    if query.scrapped:
        return bands.scrapped_bands(session, query.before)
    return bands.list_bands(session)


@operation("POST", "/api/bands", answer=bands.BandAnswer, body=NewBandInput, status=201)
def add_band(session: Session, body: NewBandInput) -> bands.BandAnswer:
    """Add a band to the rack, and those bought with it."""
    return coming.add_bands(session, body)


@operation("POST", "/api/bands/sheet/look", answer=coming.SheetLook, body=BandSheetInput, asks=True)
def look_at_sheet(session: Session, body: BandSheetInput) -> coming.SheetLook:
    """What a pasted sheet or a CSV of bands would bring in, row by row."""
    return coming.look(session, body)


@operation("POST", "/api/bands/sheet", answer=coming.CameIn, body=BandSheetInput, status=201)
def bring_sheet(session: Session, body: BandSheetInput) -> coming.CameIn:
    """Bring in the bands of a sheet: all of them, or none."""
    return coming.bring_in(session, body)


@operation("GET", "/api/bands/next", answer=coming.NextBand)
def next_band(session: Session) -> coming.NextBand:
    """What a form for one more band starts with."""
    return coming.next_band(session)


@operation("GET", "/api/bands/<int:band_id>", answer=pages.BandPage)
def band_page(session: Session, band_id: int) -> pages.BandPage:
    """One band with its whole history and what is left of its edge."""
    return pages.band_page(session, band_id)


@operation("GET", "/api/bands/<int:band_id>/sharpen-card", answer=SharpenCard, query=SharpenQuery)
def sharpen_card(session: Session, band_id: int, query: SharpenQuery) -> SharpenCard:
    """The steps of sharpening a band here."""
    return sharpening.card_of(session, band_id, query.way)


@operation("PATCH", "/api/bands/<int:band_id>", answer=bands.BandAnswer, body=bands.BandEdit)
def edit_band(session: Session, band_id: int, body: Edit) -> bands.BandAnswer:
    """Save what was changed of a band."""
    return bands.save_band(session, band_id, body)


@operation("DELETE", "/api/bands/<int:band_id>", answer=Changed)
def delete_band(session: Session, band_id: int) -> Changed:
    """Delete a band; it can be undone."""
    return Changed(bands.delete_band(session, band_id))


@operation(
    "POST",
    "/api/bands/<int:band_id>/events",
    answer=bands.BandAnswer,
    body=BandEventInput,
    status=201,
)
def add_event(session: Session, band_id: int, body: BandEventInput) -> bands.BandAnswer:
    """Record sharpening, cleaning, a hit, scrapping, or a judged edge."""
    return events.add_event(session, band_id, body, waited(waited_s()))


@operation("GET", "/api/bands/<int:band_id>/runs", answer=list[pages.RunLine], query=PageQuery)
def runs_of_band(session: Session, band_id: int, query: PageQuery) -> list[pages.RunLine]:
    """The runs of a band before one of them, oldest first."""
    return pages.run_lines(session, band_id, query.before)


@operation(
    "POST",
    "/api/bands/<int:band_id>/weighed",
    answer=bands.BandAnswer,
    body=WeighedInput,
    status=201,
)
def weigh_band(session: Session, band_id: int, body: WeighedInput) -> bands.BandAnswer:
    """Record how fast a hanging weight feeds a standard offcut."""
    return events.weigh(session, band_id, body, waited(waited_s()))


@operation(
    "POST",
    "/api/bands/<int:band_id>/looked-over",
    answer=events.LookedOver,
    body=LookedOverInput,
    status=201,
)
def look_over_band(session: Session, band_id: int, body: LookedOverInput) -> events.LookedOver:
    """Record a band looked over when it arrived: measured, seen, passed or claimed."""
    return events.look_over_band(session, band_id, body, waited(waited_s()))


@operation("DELETE", "/api/events/<int:event_id>", answer=Changed)
def delete_event(session: Session, event_id: int) -> Changed:
    """Take an event back; it can be undone."""
    return Changed(events.delete_event(session, event_id))
