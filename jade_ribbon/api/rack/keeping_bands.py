"""What a rack keeps besides bands: spares, coils, bands made here, a price asked."""

from sqlalchemy.orm import Session

from jade_ribbon.api.answers import Changed
from jade_ribbon.api.operations import PICTURE, operation
from jade_ribbon.core.money.prices import PriceLook
from jade_ribbon.services import photos
from jade_ribbon.services.photos import PhotoQuery
from jade_ribbon.services.rack import learning, making, spares, standing
from jade_ribbon.services.rack.inputs import (
    CoilInput,
    MakingEndInput,
    MakingInput,
    MakingStepInput,
    PriceInput,
)


@operation("GET", "/api/rack/learned", answer=learning.Learned)
def learned(session: Session) -> learning.Learned:
    """What this shop's ended lives teach."""
    return learning.learned(session)


@operation("GET", "/api/rack/next", answer=list[standing.NextLine])
def what_next(session: Session) -> list[standing.NextLine]:
    """Bands that want something done, danger first, then by what it is worth."""
    return standing.all_next(session)


@operation("GET", "/api/rack/spares", answer=spares.Spares)
def list_spares(session: Session) -> spares.Spares:
    """How many bands of each type to keep, and when to order."""
    return spares.spares(session)


@operation("POST", "/api/rack/price", answer=PriceLook, body=PriceInput, asks=True)
def look_at_price(session: Session, body: PriceInput) -> PriceLook:
    """A price asked for a band, against what this shop paid."""
    return spares.look_at_band_price(session, body)


@operation("GET", "/api/coils", answer=making.MadeHere)
def made_here(session: Session) -> making.MadeHere:
    """Coils, bands made here, and what failed by which procedure."""
    return making.made_here(session)


@operation("POST", "/api/coils", answer=making.MadeHere, body=CoilInput, status=201)
def add_coil(session: Session, body: CoilInput) -> making.MadeHere:
    """A coil comes in."""
    return making.add_coil(session, body)


@operation("DELETE", "/api/coils/<int:coil_id>", answer=Changed)
def delete_coil(session: Session, coil_id: int) -> Changed:
    """A coil goes; it can be undone."""
    return Changed(making.delete_coil(session, coil_id))


@operation(
    "POST", "/api/coils/<int:coil_id>/make", answer=making.MadeHere, body=MakingInput, status=201
)
def begin_making(session: Session, coil_id: int, body: MakingInput) -> making.MadeHere:
    """Begin a band from a coil."""
    return making.begin_making(session, coil_id, body)


@operation(
    "POST", "/api/makings/<int:making_id>/step", answer=making.MadeHere, body=MakingStepInput
)
def making_step(session: Session, making_id: int, body: MakingStepInput) -> making.MadeHere:
    """A step of making is done."""
    return making.tick(session, making_id, body)


@operation("POST", "/api/makings/<int:making_id>/end", answer=making.MadeHere, body=MakingEndInput)
def end_making(session: Session, making_id: int, body: MakingEndInput) -> making.MadeHere:
    """A band is made, or failed."""
    return making.end_making(session, making_id, body)


@operation(
    "POST",
    "/api/bands/<int:band_id>/photo",
    answer=Changed,
    raw_body=True,
    media=PICTURE,
    query=PhotoQuery,
    status=201,
)
def add_band_photo(session: Session, band_id: int, body: bytes, query: PhotoQuery) -> Changed:
    """Keep a photograph of a band's teeth, or of a face it left."""
    return Changed(
        photos.add_photo(session, "band", band_id, body, shows=query.shows, run_id=query.run_id)
    )


@operation(
    "POST",
    "/api/saws/<int:saw_id>/photo",
    answer=Changed,
    raw_body=True,
    media=PICTURE,
    status=201,
)
def add_saw_photo(session: Session, saw_id: int, body: bytes) -> Changed:
    """Keep a photograph of a saw's plate."""
    return Changed(photos.add_photo(session, "saw", saw_id, body, shows="plate"))
