"""Printed sheets: what is not JSON."""

from typing import Annotated, Any

from flask import Response, request
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from jade_ribbon.api.doors.doors import network
from jade_ribbon.api.operation import CSV, SOUND
from jade_ribbon.api.respond import store
from jade_ribbon.api.streams import streamed
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import Said, quantity, said, sentence
from jade_ribbon.formats.printed import cut_marks, labels
from jade_ribbon.formats.printed import setup_sheet as sheets
from jade_ribbon.formats.printed.radius_card import CardLine, pdf, svg
from jade_ribbon.formats.validation import faults_of
from jade_ribbon.services.errors import NotFoundError
from jade_ribbon.services.faults.sounds import sign_sound
from jade_ribbon.services.files.csv_import import written_out
from jade_ribbon.services.files.tables import table_of
from jade_ribbon.services.money.inputs import MoneyQuery
from jade_ribbon.services.money.ledger import money_csv
from jade_ribbon.services.photos import jpeg_of
from jade_ribbon.services.planning.outlines import TurningBand, radius_card
from jade_ribbon.services.rack.labels import labels_of
from jade_ribbon.services.running.run_log import LogQuery, run_log_csv
from jade_ribbon.services.setup.sheet import setup_sheet
from jade_ribbon.services.shop.settings import read_shop
from jade_ribbon.services.stock.inputs import StockQuestion
from jade_ribbon.services.stock.sheet import mark_sheet


def _size(band: TurningBand) -> Said:
    """A band's width and thickness."""
    return sentence(quantity(band.width_mm, "length"), " x ", quantity(band.thickness_mm, "thin"))


def card_sheet(kind: str) -> Response:
    """The radius card at true size, as svg or pdf."""
    if kind not in ("svg", "pdf"):
        raise NotFoundError("sheet", kind)
    with store().read() as session:
        shop = read_shop(session)
        title = f"Radius card, {shop.name}"
        lines = [
            CardLine(
                b.label,
                said(_size(b), shop.units),
                b.tightest_mm,
                b.comfortable_mm,
                said(sentence(quantity(b.tightest_mm, "length")), shop.units),
                said(sentence(quantity(b.comfortable_mm, "length")), shop.units),
            )
            for b in radius_card(session)
        ]
    if kind == "svg":
        return Response(svg(lines, title, shop.paper), mimetype="image/svg+xml")
    return Response(pdf(lines, title, shop.paper), mimetype="application/pdf")


def setup_pdf(setup_id: int) -> Response:
    """A set-up card on one sheet, with a code that opens its record."""
    on = network()
    address = f"{on.address if on else request.host_url}#/setup/{setup_id}"
    with store().read() as session:
        sheet, paper = setup_sheet(session, setup_id, address), read_shop(session).paper
    return Response(sheets.pdf(sheet, paper), mimetype="application/pdf")


def marks_pdf(stock_id: int) -> Response:
    """The cuts of a billet for a job, at true size. InputError for figures that cannot be."""
    cuts = [c for c in request.args.get("cuts", "").split(",") if c]
    given = {
        k: request.args[k]
        for k in ("job_id", "band_id", "clean_up_per_face_mm")
        if k in request.args
    }
    try:
        asked = StockQuestion.model_validate(given | {"cuts_mm": cuts or None}, strict=False)
    except ValidationError as error:
        raise InputError(faults_of(error, StockQuestion)) from None
    with store().read() as session:
        sheet, paper = mark_sheet(session, stock_id, asked), read_shop(session).paper
    return Response(cut_marks.pdf(sheet, paper), mimetype="application/pdf")


def photo_jpeg(photo_id: int) -> Response:
    """A photograph; its number is never another one's, so that it may be kept."""
    with store().read() as session:
        data = jpeg_of(session, photo_id)
    kept = {"Cache-Control": "private, max-age=86400"}
    return Response(data, mimetype="image/jpeg", headers=kept)


def sound_wav(key: str) -> Response:
    """A sign as the simulated saw sounds it."""
    data = sign_sound(key)
    return Response(data, mimetype=SOUND, headers={"Cache-Control": "public, max-age=86400"})


class LabelQuery(BaseModel):
    """Which bands' labels, on which sheet or roll, from which place of it."""

    model_config = ConfigDict(extra="forbid")

    bands: Annotated[str, Field(max_length=2000, pattern=r"^[0-9]{1,12}(,[0-9]{1,12})*$")]
    kind: str = "a4-24"
    start: Annotated[int, Field(ge=1, le=500)] = 1


def _query(model: type[BaseModel]) -> Any:
    try:
        return model.model_validate(request.args.to_dict())
    except ValidationError as error:
        raise InputError(faults_of(error, model)) from None


def labels_pdf() -> Response:
    """Labels of bands at true size, with a code that opens each one's page."""
    asked: LabelQuery = _query(LabelQuery)
    on = network()
    address = on.address if on else request.host_url
    with store().read() as session:
        found = labels_of(session, [int(key) for key in asked.bands.split(",")], address)
    return Response(labels.pdf(found, asked.kind, start=asked.start), mimetype="application/pdf")


def _csv(name: str, text: str) -> Response:
    kept = {"Content-Disposition": f'attachment; filename="{name}.csv"'}
    return Response(text, mimetype=CSV, headers=kept)


def records_csv(table: str) -> Response:
    """All records of a table as CSV."""
    table_of(table)
    return streamed(
        store(), lambda session: written_out(session, table), name=f"{table}.csv", mimetype=CSV
    )


def log_sheet() -> Response:
    """Runs of the log as CSV."""
    asked: LogQuery = _query(LogQuery)
    with store().read() as session:
        return _csv("log", run_log_csv(session, asked))


def money_sheet() -> Response:
    """What sawing cost, as CSV."""
    asked: MoneyQuery = _query(MoneyQuery)
    with store().read() as session:
        return _csv(f"money-by-{asked.by}", money_csv(session, asked))
