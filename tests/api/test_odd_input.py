"""Wrong input that once ended in an error of ours: each is told in words."""

import itertools
from typing import Any

import pytest
from flask.testing import FlaskClient

from jade_ribbon.api.routes import OPERATIONS
from tests.support.shop import BAND

NOTE = "x" * 2000
ODD_LABELS = ["a\x00b", "a\x1bb", "\u202eabc", "TW\u200b-1"]
FAR = ["0001-01-01T00:00:00+14:00", "9999-12-31T23:59:59-14:00"]


def told(answer: Any, *paths: str) -> None:
    assert answer.status_code == 422, answer.text
    assert {e["path"] for e in answer.get_json()["errors"]} & set(paths), answer.text


def test_every_integer_of_a_query_has_bounds() -> None:
    models = [op.query for op in OPERATIONS if op.query is not None]
    schemas = [m.model_json_schema()["properties"] for m in models]
    for name, field in itertools.chain.from_iterable(s.items() for s in schemas):
        for kind in (field, *field.get("anyOf", ())):
            if kind.get("type") == "integer":
                assert {"minimum", "maximum"} <= kind.keys(), name


def test_a_number_past_every_integer_is_refused(shop: FlaskClient) -> None:
    told(shop.get("/api/bands/1/runs?before=9223372036854775808"), "before")
    told(shop.get("/api/changes?before=9223372036854775808"), "before")


def test_a_long_note_beside_a_thickness_left_out(shop: FlaskClient) -> None:
    given = {k: v for k, v in BAND.items() if k != "thickness_mm"}
    told(shop.post("/api/bands", json={**given, "label": "N", "note": NOTE}), "note")
    sheet = {"text": f"label,width,tpi,length,note\nA,19,2,3360,{NOTE}\n"}
    told(shop.post("/api/bands/sheet", json=sheet), "line 2.note")


def test_stock_that_is_not_there_is_not_taken(shop: FlaskClient) -> None:
    assert shop.post("/api/jobs/1/stock", json={"stock_id": 99}).status_code == 404


@pytest.mark.parametrize("at", FAR)
@pytest.mark.parametrize("table", ["runs", "events"])
def test_a_time_outside_the_calendar_is_a_bad_line(shop: FlaskClient, table: str, at: str) -> None:
    text = f"at,band,kind\n{at},K-07,cleaned\n" if table == "events" else f"at,band\n{at},K-07\n"
    sent = shop.post(f"/api/files?table={table}", data=text, content_type="text/csv")
    told(sent, "line 2.at")


@pytest.mark.parametrize("label", ODD_LABELS)
def test_a_sign_that_nobody_sees_is_in_no_name(shop: FlaskClient, label: str) -> None:
    told(shop.post("/api/bands", json={**BAND, "label": label}), "label")
    code = shop.post("/api/doors/code", json={"name": label, "role": "anyone"})
    told(code, "name")
    text = f"band,kind,who\nK-07,cleaned,{label}\n"
    if "\x00" not in label:
        sent = shop.post("/api/files?table=events", data=text, content_type="text/csv")
        told(sent, "line 2.who")


def test_a_run_sent_again_with_other_figures_is_not_dropped(shop: FlaskClient) -> None:
    run = {
        "client_key": "one-and-the-same",
        "job_id": 1,
        "saw_id": 1,
        "band_id": 1,
        "pieces": 3,
        "length_mm": 3600,
        "time_s": 500.0,
        "symptoms": ["burn"],
    }
    first = shop.post("/api/runs", json=run).get_json()
    again = shop.post("/api/runs", json={**run, "waited_s": 60})
    assert again.status_code == 201 and again.get_json()["id"] == first["id"]
    changes: list[dict[str, Any]]
    changes = [{"pieces": 4}, {"time_s": 400.0}, {"symptoms": []}, {"note": "x"}]
    for other in changes:
        refused = shop.post("/api/runs", json=run | other)
        assert refused.status_code == 409 and refused.get_json()["code"] == "known"
        assert refused.get_json()["current"]["id"] == first["id"]
    right = {**run, "client_key": "put-right", "pieces": 4, "replaces": first["id"]}
    second = shop.post("/api/runs", json=right)
    assert second.status_code == 201
    runs = shop.get("/api/bands/1").get_json()["runs"]
    assert [r["id"] for r in runs] == [second.get_json()["id"]]


def test_what_is_work_is_not_done_for_a_page_of_another_site(shop: FlaskClient) -> None:
    for path in ("/export.zip", "/files/runs.csv", "/money.csv", "/shop.sqlite", "/api/bands"):
        for site in ("cross-site", "same-site"):
            assert shop.get(path, headers={"Sec-Fetch-Site": site}).status_code == 403, path
        answer = shop.get(path, headers={"Sec-Fetch-Site": "same-origin"})
        assert answer.status_code == 200 and answer.data
        assert answer.headers["Cross-Origin-Resource-Policy"] == "same-origin"
