"""Bands: events, mounting, lists."""

from typing import Any

import pytest
from flask.testing import FlaskClient
from sqlalchemy import event

from tests.support.shop import BAND
from tests.support.walks import RUN


def test_bands_are_sharpened_judged_and_scrapped(shop: FlaskClient) -> None:
    shop.post("/api/runs", json=RUN)
    url = "/api/bands/1/events"
    judged = shop.post(url, json={"kind": "edge_judged", "value": 0.5, "detail": "glints"})
    assert judged.get_json()["dullness"] == pytest.approx(0.5)
    sharp = shop.post(url, json={"kind": "sharpened"}).get_json()
    assert (sharp["sharpenings"], sharp["dullness"]) == (1, 0)
    why = shop.post(url, json={"kind": "scrapped"})
    assert "scrapping needs a reason in detail: worn, crack" in why.get_json()["detail"]
    gone = shop.post(url, json={"kind": "scrapped", "detail": "crack"}).get_json()
    assert (gone["state"], gone["scrap_reason"]) == ("scrapped", "crack")
    late = shop.post(url, json={"kind": "cleaned"})
    assert late.get_json()["detail"] == "Band K-07 is scrapped; undo that first."
    event_id = shop.get("/api/bands/1").get_json()["events"][-1]["id"]
    shop.delete(f"/api/events/{event_id}")
    assert shop.get("/api/bands/1").get_json()["band"]["state"] == "rack"


def test_a_mounted_band_stays_where_it_is(shop: FlaskClient, job_file: dict[str, Any]) -> None:
    shop.post("/api/saws", json={**job_file["saw"], "name": "Second"})
    assert shop.post("/api/saws/1/mount", json={"band_id": 1}).status_code == 200
    for refused, words in (
        (shop.delete("/api/bands/1"), "take it off before deleting it"),
        (shop.post("/api/saws/2/mount", json={"band_id": 1}), "is on Shop saw: take it off"),
        (
            shop.post("/api/bands/1/events", json={"kind": "scrapped", "detail": "worn"}),
            "take it off before scrapping it",
        ),
    ):
        assert refused.status_code == 409
        assert words in refused.get_json()["detail"]


def test_lists_ask_few_statements(shop: FlaskClient) -> None:
    engine = shop.application.extensions["store"].engine
    seen: list[str] = []

    @event.listens_for(engine, "before_cursor_execute")
    def _count(_c: Any, _cur: Any, statement: str, *_: Any) -> None:
        if statement.startswith("SELECT"):
            seen.append(statement)

    for url, most in (("/api/bands", 4), ("/api/saws", 1), ("/api/jobs", 6)):
        seen.clear()
        assert shop.get(url).status_code == 200
        assert len(seen) <= most, (url, seen)


@pytest.mark.parametrize("field", ["width_mm", "thickness_mm", "length_mm", "tpi_lo"])
def test_a_size_that_is_next_to_nothing_is_refused(shop: FlaskClient, field: str) -> None:
    """5e-324 mm is more than 0, and no band."""
    band = {**BAND, "label": "S-1", field: 5e-324}
    refused = shop.post("/api/bands", json=band)
    assert refused.status_code == 422
    assert any(e["path"] == field for e in refused.get_json()["errors"])
