"""Set-up cards over time: resumed, changed under, reopened; and runs that arrive late."""

from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from jade_ribbon.api.app import create_app
from tests.support.edits import saved
from tests.support.set_up import begin, tick
from tests.support.shop import BAND

CUT = {
    "operation": "resaw",
    "material": "european_larch_dry",
    "height_mm": 185,
    "length_mm": 3600,
    "count": 7,
    "finish": "plane",
    "saw_id": 1,
    "name": "Strakes",
}


def test_a_card_survives_a_restart_with_everything_on_it(
    tmp_path: Path, job_file: dict[str, Any]
) -> None:
    file = tmp_path / "shop.sqlite"
    first = create_app(file)
    client = first.test_client()
    client.post("/api/saws", json=job_file["saw"])
    client.post("/api/bands", json=BAND)
    client.post("/api/jobs", json=CUT)
    url = begin(client)
    for key in ("isolate", "inspect", "mount"):
        tick(client, url, key, who="Odda", note="new")
    first.extensions["store"].close()
    again = create_app(file).test_client()
    answer = again.get(url).get_json()
    assert {k: v["who"] for k, v in answer["steps"].items()} == {
        "isolate": "Odda",
        "inspect": "Odda",
        "mount": "Odda",
    }
    assert again.get("/api/saws/1").get_json()["mounted_label"] == "K-07"


def test_mounting_and_tensioning_move_the_saw(shop: FlaskClient) -> None:
    url = begin(shop)
    tick(shop, url, "isolate")
    assert shop.get("/api/saws/1").get_json()["mounted_band_id"] is None
    tick(shop, url, "mount")
    saw = shop.get("/api/saws/1").get_json()
    assert (saw["mounted_band_id"], saw["tension_state"]) == (1, "slack")
    tick(shop, url, "tension")
    saw = shop.get("/api/saws/1").get_json()
    assert saw["tension_state"] == "on"
    assert saw["tension_stress_MPa"] == pytest.approx(134.5, abs=0.1)
    shop.post(f"{url}/steps", json={"key": "tension", "done": False})
    assert shop.get("/api/saws/1").get_json()["tension_state"] == "slack"


def test_tension_needs_a_band(shop: FlaskClient) -> None:
    url = begin(shop)
    tick(shop, url, "isolate")
    refused = shop.post(f"{url}/steps", json={"key": "tension", "done": True})
    assert refused.get_json()["detail"] == "Mount the band first."
    bare = shop.post("/api/saws/1/tension", json={"state": "on"})
    assert bare.get_json()["detail"] == "No band is on Shop saw: mount one before tensioning."


def test_a_skipped_step_keeps_its_reason(shop: FlaskClient) -> None:
    url = begin(shop)
    body = {"key": "inspect", "done": False, "skipped": "looked at it this morning"}
    answer = shop.post(f"{url}/steps", json=body).get_json()
    assert answer["steps"]["inspect"]["skipped"] == "looked at it this morning"
    assert "Look over the band" not in answer["ready_words"]


def test_an_unknown_step_is_named_with_what_is_known(shop: FlaskClient) -> None:
    url = begin(shop)
    refused = shop.post(f"{url}/steps", json={"key": "dance", "done": True}).get_json()
    assert refused["errors"][0]["message"].startswith("'dance' is not a step; accepted: isolate")


def test_a_band_that_cannot_is_refused_with_the_reason(shop: FlaskClient) -> None:
    thin = {**BAND, "label": "T-1", "length_mm": 2500}
    shop.post("/api/bands", json=thin)
    refused = shop.post("/api/setups", json={"job_id": 1, "band_id": 2}).get_json()
    assert "Band T-1 cannot do this: 2500 mm long" in refused["errors"][0]["message"]


def test_a_changed_cut_asks_for_a_new_card(shop: FlaskClient) -> None:
    url = begin(shop)
    for step in shop.get(url).get_json()["card"]["steps"]:
        tick(shop, url, step["key"])
    shop.post(f"{url}/finish")
    assert shop.get("/api/jobs/1").get_json()["state"] == "ready"
    changed = saved(shop, "/api/jobs/1", {**CUT, "height_mm": 120, "band_id": 1}).get_json()
    assert changed["state"] == "planned"


def test_another_band_on_the_saw_shuts_the_run(shop: FlaskClient) -> None:
    shop.post("/api/bands", json={**BAND, "label": "K-08"})
    url = begin(shop)
    for step in shop.get(url).get_json()["card"]["steps"]:
        tick(shop, url, step["key"])
    shop.post(f"{url}/finish")
    assert shop.get("/api/jobs/1/run").get_json()["open"] is True
    shop.post("/api/saws/1/mount", json={"band_id": 2})
    card = shop.get("/api/jobs/1/run").get_json()
    assert card["words"] == "Shop saw has another band on it now: set up again."


def test_a_late_run_falls_into_its_place(shop: FlaskClient) -> None:
    """A run kept on a tablet for a day counts before the sharpening that came after it."""
    base = {"job_id": 1, "saw_id": 1, "band_id": 1, "pieces": 7, "length_mm": 3600}
    shop.post("/api/runs", json={**base, "client_key": "first-run", "time_s": 800})
    before = shop.get("/api/bands/1").get_json()["band"]["edge_equivalent_m"]
    shop.post("/api/bands/1/events", json={"kind": "sharpened"})
    yesterday = (datetime.now(UTC) - timedelta(days=1)).isoformat()
    late = {**base, "client_key": "late-run-1", "time_s": 800, "at": yesterday}
    assert shop.post("/api/runs", json=late).status_code == 201
    band = shop.get("/api/bands/1").get_json()["band"]
    assert (band["sharpenings"], band["edge_equivalent_m"]) == (1, 0)
    assert before > 0


def test_a_run_from_the_future_is_taken_as_now(shop: FlaskClient) -> None:
    tomorrow = (datetime.now(UTC) + timedelta(days=1)).isoformat()
    run = {
        "client_key": "from-afar",
        "job_id": 1,
        "saw_id": 1,
        "band_id": 1,
        "pieces": 1,
        "length_mm": 3600,
        "feed_m_min": 2.0,
        "at": tomorrow,
    }
    at = shop.post("/api/runs", json=run).get_json()["at"]
    assert datetime.fromisoformat(at) <= datetime.now(UTC)


def test_scrapped_bands_cut_nothing(shop: FlaskClient) -> None:
    shop.post("/api/bands/1/events", json={"kind": "scrapped", "detail": "crack"})
    run = {
        "client_key": "ghost-run",
        "job_id": 1,
        "saw_id": 1,
        "band_id": 1,
        "pieces": 1,
        "length_mm": 3600,
        "time_s": 100,
    }
    refused = shop.post("/api/runs", json=run)
    assert refused.get_json()["detail"] == "Band K-07 is scrapped; it cannot have cut."


def test_labels_are_one_band_s_own(shop: FlaskClient) -> None:
    twice = shop.post("/api/bands", json=BAND)
    assert twice.status_code == 409
    assert twice.get_json()["detail"] == "A band labelled K-07 is on the rack already."
    same = saved(shop, "/api/bands/1", {**BAND, "place": "loft"})
    assert same.get_json()["place"] == "loft"


def test_measured_set_wins_from_then_on(shop: FlaskClient) -> None:
    card = shop.get("/api/radius-card").get_json()[0]
    shop.post("/api/bands/1/events", json={"kind": "measured_set", "value": 0.5})
    measured = shop.get("/api/radius-card").get_json()[0]
    assert measured["kerf_mm"] == pytest.approx(0.81 + 1.0)
    assert measured["tightest_mm"] < card["tightest_mm"]
    assert measured["set_source"] == "measured"
