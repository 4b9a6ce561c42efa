"""The printed sheet of a card says what the card says, in the shop's units."""

import re
from typing import Any

import pytest
from flask.testing import FlaskClient

from jade_ribbon.formats.printed.setup_sheet import SetupSheet
from jade_ribbon.services.setup.sheet import setup_sheet
from tests.support.edits import saved
from tests.support.set_up import whole

METRIC = re.compile(r"\d (mm|MPa|m/s|m/min|µm|N)\b")


def sheet_of(shop: FlaskClient) -> SetupSheet:
    url = whole(shop)
    with shop.application.extensions["store"].read() as session:
        return setup_sheet(session, int(url.rsplit("/", 1)[1]), "http://shop.test/#/setup/1")


def words_of(sheet: SetupSheet) -> list[str]:
    steps = [part for s in sheet.steps for part in (s.figure, s.do, s.check, s.left)]
    return [sheet.title, sheet.under, *(w for _, w in sheet.figures), *steps, *sheet.cautions]


@pytest.fixture(params=["metric", "inch"])
def units(request: pytest.FixtureRequest, shop: FlaskClient) -> Any:
    settings = shop.get("/api/shop").get_json()
    assert saved(shop, "/api/shop", {**settings, "units": request.param}).status_code == 200
    return request.param


def test_a_sheet_is_in_the_shop_s_units_throughout(shop: FlaskClient, units: str) -> None:
    words = words_of(sheet_of(shop))
    assert not [w for w in words if "[[" in w]
    metric = [w for w in words if METRIC.search(w)]
    assert metric if units == "metric" else not metric


def test_a_sheet_says_the_card_s_own_figures(shop: FlaskClient) -> None:
    sheet = sheet_of(shop)
    figures = dict(sheet.figures)
    assert figures["tension"].startswith("135 MPa, 65 µm on a gauge, ")
    assert figures["guard"] == "195 mm above the table"
    tension = next(s for s in sheet.steps if s.title == "Tension")
    assert tension.done and tension.left == "stress 130 MPa, turns of the handle 6, Odda"
    assert "Band 19 x 0.81 mm, 2 tpi" in sheet.under
