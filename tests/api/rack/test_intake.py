"""Bands coming onto the rack: worn ones, unmeasured ones, and whole sheets."""

from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.support.shop import BAND

SHEET = (
    "label,width,tpi,steel,looks,since\nA-1,13,6,carbon,sharp,2025-03-12\nA-2,25,3,carbide,worn,\n"
)


def page(shop: FlaskClient, label: str) -> dict[str, Any]:
    band = next(b for b in shop.get("/api/bands").get_json() if b["label"] == label)
    found: dict[str, Any] = shop.get(f"/api/bands/{band['id']}").get_json()
    return found | {"band": band}


def test_a_worn_band_comes_with_its_edge_and_its_day(shop: FlaskClient) -> None:
    body = {**BAND, "label": "Old", "looks": "tired", "since": "2024-05-01"}
    added = shop.post("/api/bands", json=body).get_json()
    assert added["edge"] == "tired"
    assert added["dullness"] == pytest.approx(0.75)
    assert added["arrived_at"].startswith("2024-05-01")
    new = shop.post("/api/bands", json={**BAND, "label": "New"}).get_json()
    assert (new["edge"], new["dullness"]) == ("keen", 0)


@pytest.mark.parametrize("since", ["1949-12-31", "2999-01-01", "soon"])
def test_a_day_that_cannot_be_is_refused(shop: FlaskClient, since: str) -> None:
    refused = shop.post("/api/bands", json={**BAND, "label": "X", "since": since})
    assert refused.status_code == 422


def test_a_thickness_left_out_is_taken_from_the_width_and_said(shop: FlaskClient) -> None:
    body = {k: v for k, v in BAND.items() if k != "thickness_mm"} | {"label": "X", "note": "mine."}
    added = shop.post("/api/bands", json=body).get_json()
    assert added["thickness_mm"] == pytest.approx(0.64, abs=0.2)
    assert added["note"] == "mine. Thickness taken from its width."


def test_a_sheet_is_looked_at_and_nothing_is_written(shop: FlaskClient) -> None:
    found = shop.post("/api/bands/sheet/look", json={"text": SHEET}).get_json()
    assert (found["good"], found["bad"]) == (2, 0)
    assert "13 × 0.5 6 tpi hook flexible-back carbon steel" in found["rows"][0]["words"]
    assert "thickness" in found["rows"][0]["taken"]
    assert len(shop.get("/api/bands").get_json()) == 1


def test_a_sheet_comes_in_whole_and_is_undone_whole(shop: FlaskClient) -> None:
    answer = shop.post("/api/bands/sheet", json={"text": SHEET})
    assert (answer.status_code, answer.get_json()) == (201, {"added": 2})
    assert page(shop, "A-2")["band"]["edge"] == "tired"
    deed = shop.get("/api/changes").get_json()[0]
    assert shop.post(f"/api/changes/{deed['id']}/undo").status_code == 200
    assert [b["label"] for b in shop.get("/api/bands").get_json()] == [BAND["label"]]


def test_one_bad_row_keeps_all_out_and_says_where(shop: FlaskClient) -> None:
    bad = SHEET + f"{BAND['label']},13,6,carbon,,\nA-3,13,,carbon,,\nA-1,13,6,carbon,,\n"
    found = shop.post("/api/bands/sheet/look", json={"text": bad}).get_json()
    assert (found["good"], found["bad"]) == (2, 3)
    told = [(r["line"], f["path"]) for r in found["rows"] for f in r["faults"]]
    assert told == [(4, "label"), (5, "tpi"), (6, "label")]
    refused = shop.post("/api/bands/sheet", json={"text": bad})
    assert refused.status_code == 422
    assert refused.get_json()["errors"][0]["path"] == "line 4.label"
    assert len(shop.get("/api/bands").get_json()) == 1


def test_bands_without_a_label_get_ones_that_are_free(shop: FlaskClient) -> None:
    text = "width,tpi\n13,6\n13,4\n"
    assert shop.post("/api/bands/sheet", json={"text": text}).status_code == 201
    labels = {b["label"] for b in shop.get("/api/bands").get_json()}
    assert labels == {BAND["label"], "B-01", "B-02"}


def test_headings_alone_are_no_bands(shop: FlaskClient) -> None:
    assert shop.post("/api/bands/sheet", json={"text": "label,width\n"}).status_code == 409


def test_the_next_band_follows_the_last(shop: FlaskClient) -> None:
    assert shop.get("/api/bands/next").get_json() == {
        "label": "K-08",
        "length_mm": 3360,
        "form": "hook",
        "steel": "silicon_steel",
    }


def test_the_first_band_is_as_long_as_the_saw_takes(client: FlaskClient, job_file: Any) -> None:
    first = client.get("/api/bands/next").get_json()
    assert first == {
        "label": "B-01",
        "length_mm": None,
        "form": "hook",
        "steel": "carbon_flexback",
    }
    client.post("/api/saws", json=job_file["saw"])
    low, high = job_file["saw"]["band_length_mm"]
    assert client.get("/api/bands/next").get_json()["length_mm"] == (low + high) / 2
