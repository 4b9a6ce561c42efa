"""Outlines over the API, and the printed radius card."""

import re

import pytest
from flask.testing import FlaskClient

from tests.support.shop import DATA

CURVES = DATA / "curves"


def test_a_dropped_drawing_finds_its_bands(shop: FlaskClient) -> None:
    body = {"name": "disc.svg", "text": (CURVES / "disc.svg").read_text()}
    answer = shop.post("/api/plan/outline", json=body).get_json()
    assert answer["outline"]["min_radius_mm"] == pytest.approx(60, rel=1e-4)
    assert answer["turning"] == []
    assert answer["too_wide"] == 1
    wide = {"name": "a.svg", "text": body["text"].replace('r="60"', 'r="140"')}
    turning = shop.post("/api/plan/outline", json=wide).get_json()["turning"]
    assert [b["label"] for b in turning] == ["K-07"]


def test_a_bad_drawing_is_a_problem(shop: FlaskClient) -> None:
    refused = shop.post("/api/plan/outline", json={"name": "x.svg", "text": "<svg"})
    assert refused.status_code == 422
    assert refused.get_json()["errors"][0]["message"].startswith("it is not sound XML")


def test_the_card_is_printed_at_true_size(shop: FlaskClient) -> None:
    card = shop.get("/api/radius-card").get_json()
    assert card[0]["tightest_mm"] == pytest.approx(
        19**2 / ((3 + 2 * 2**0.5) * 2 * 0.38 * 0.81), rel=1e-6
    )
    sheet = shop.get("/radius-card.svg")
    assert 'width="210.0mm" height="297.0mm" viewBox="0 0 210.0 297.0"' in sheet.text
    arc = re.search(r"A([\d.]+) ", sheet.text)
    assert arc is not None and float(arc[1]) == pytest.approx(card[0]["tightest_mm"], abs=0.01)
    pdf = shop.get("/radius-card.pdf")
    assert pdf.mimetype == "application/pdf" and pdf.data.startswith(b"%PDF-")
    assert shop.get("/radius-card.txt").status_code == 404
