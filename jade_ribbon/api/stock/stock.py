"""Billets and logs, the metal in them, and what they give; rings and circles."""

from sqlalchemy.orm import Session

from jade_ribbon.api.answers import Changed
from jade_ribbon.api.operations import PICTURE, operation
from jade_ribbon.core.stock.joinery import CircleJig, Ring
from jade_ribbon.services import photos
from jade_ribbon.services.edits import Edit
from jade_ribbon.services.planning import jobs
from jade_ribbon.services.stock import joinery, pages, records
from jade_ribbon.services.stock.inputs import (
    CircleInput,
    FastenerInput,
    OpenInput,
    RingInput,
    StockInput,
    StockOfJob,
    StockQuestion,
)


@operation("GET", "/api/stock", answer=list[records.StockAnswer])
def list_stock(session: Session) -> list[records.StockAnswer]:
    """Billets and logs on the rack."""
    return records.list_stock(session)


@operation("POST", "/api/stock", answer=records.StockAnswer, body=StockInput, status=201)
def add_stock(session: Session, body: StockInput) -> records.StockAnswer:
    """Put a billet or a log on the rack."""
    return records.add_stock(session, body)


@operation("GET", "/api/stock/<int:stock_id>", answer=records.StockAnswer)
def one_stock(session: Session, stock_id: int) -> records.StockAnswer:
    """One billet or log."""
    return records.one_stock(session, stock_id)


@operation("PATCH", "/api/stock/<int:stock_id>", answer=records.StockAnswer, body=records.StockEdit)
def edit_stock(session: Session, stock_id: int, body: Edit) -> records.StockAnswer:
    """Save what was changed of a piece of stock."""
    return records.save_stock(session, stock_id, body)


@operation("DELETE", "/api/stock/<int:stock_id>", answer=Changed)
def delete_stock(session: Session, stock_id: int) -> Changed:
    """Take a piece off the rack; it can be undone."""
    return Changed(records.delete_stock(session, stock_id))


@operation("POST", "/api/stock/<int:stock_id>/used", answer=Changed)
def use_stock(session: Session, stock_id: int) -> Changed:
    """A piece was sawn up: it leaves the rack, and can be brought back."""
    return Changed(records.use_up(session, stock_id))


@operation(
    "POST", "/api/stock/<int:stock_id>/plan", answer=pages.StockPlan, body=StockQuestion, asks=True
)
def plan_stock(session: Session, stock_id: int, body: StockQuestion) -> pages.StockPlan:
    """What a piece of stock gives for a job, its cuts laid by the best way or by hand."""
    return pages.stock_plan(session, stock_id, body)


@operation(
    "POST", "/api/stock/<int:stock_id>/open", answer=records.Opened, body=OpenInput, status=201
)
def open_stock(session: Session, stock_id: int, body: OpenInput) -> records.Opened:
    """Two parts instead of one billet, each with the bow it has now."""
    return records.open_stock(session, stock_id, body)


@operation(
    "POST",
    "/api/stock/<int:stock_id>/metal",
    answer=records.FastenerAnswer,
    body=FastenerInput,
    status=201,
)
def add_fastener(session: Session, stock_id: int, body: FastenerInput) -> records.FastenerAnswer:
    """Map a piece of metal."""
    return records.add_fastener(session, stock_id, body)


@operation(
    "PATCH",
    "/api/metal/<int:fastener_id>",
    answer=records.FastenerAnswer,
    body=records.FastenerEdit,
)
def edit_fastener(session: Session, fastener_id: int, body: Edit) -> records.FastenerAnswer:
    """Save what was changed of a mark: dug out, sawn through, elsewhere."""
    return records.save_fastener(session, fastener_id, body)


@operation("DELETE", "/api/metal/<int:fastener_id>", answer=Changed)
def delete_fastener(session: Session, fastener_id: int) -> Changed:
    """Take a mark off the map; it can be undone."""
    return Changed(records.delete_fastener(session, fastener_id))


@operation(
    "POST",
    "/api/stock/<int:stock_id>/photo",
    answer=Changed,
    raw_body=True,
    media=PICTURE,
    status=201,
)
def add_photo(session: Session, stock_id: int, body: bytes) -> Changed:
    """Keep a photograph of a piece: small, and without where it was taken."""
    return Changed(photos.add_photo(session, "stock", stock_id, body))


@operation("DELETE", "/api/photos/<int:photo_id>", answer=Changed)
def delete_photo(session: Session, photo_id: int) -> Changed:
    """Take a photograph back; it can be undone."""
    return Changed(photos.delete_photo(session, photo_id))


@operation("POST", "/api/jobs/<int:job_id>/stock", answer=jobs.JobAnswer, body=StockOfJob)
def set_job_stock(session: Session, job_id: int, body: StockOfJob) -> jobs.JobAnswer:
    """The stock a job is cut from."""
    pages.stock_of_job(session, job_id, body.stock_id)
    return jobs.one_job(session, job_id)


@operation("POST", "/api/ring", answer=Ring, body=RingInput, asks=True)
def ring_figures(session: Session, body: RingInput) -> Ring:
    """A ring of segments as it is cut."""
    del session
    return joinery.ring_of(body)


@operation("POST", "/api/circle", answer=CircleJig, body=CircleInput, asks=True)
def circle_figures(session: Session, body: CircleInput) -> CircleJig:
    """A circle about a pin: where the pin goes, and whether the blank clears the saw."""
    return joinery.circle_on(session, body)
