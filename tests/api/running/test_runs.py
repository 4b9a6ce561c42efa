"""Runs: logged once, replayed, taken back."""

from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.support.walks import RUN, open_card, tick_all


def test_the_whole_walk_moves_the_band_s_wear(shop: FlaskClient) -> None:
    assert shop.get("/api/jobs/1/run").get_json()["open"] is False
    url = open_card(shop)
    assert open_card(shop) == url
    assert tick_all(shop, url)["ready"] is True
    assert shop.post(f"{url}/finish").get_json()["finished_at"]
    assert shop.get("/api/jobs/1/run").get_json() == {
        "job_id": 1,
        "saw_id": 1,
        "band_id": 1,
        "open": True,
        "words": "",
        "when_done": "House rule: release the tension if the saw stands overnight. "
        "Isolate the saw; dust out of the wheel boxes.",
    }
    logged = shop.post("/api/runs", json=RUN).get_json()
    assert logged["feed_m_min"] == pytest.approx(25.2 / 800 * 60)
    assert logged["band"]["dullness"] > logged["dullness_before"] == 0
    assert 0.9 < logged["lasts_next"] <= 1
    assert logged["next_words"].startswith("Better than 99 % chance that K-07")
    job = shop.get("/api/jobs/1").get_json()
    assert (job["done_pieces"], job["state"]) == (7, "running")
    page = shop.get("/api/bands/1").get_json()
    assert len(page["runs"]) == 1
    assert page["runs"][0]["edge_after_m"] == pytest.approx(page["band"]["edge_equivalent_m"])


def test_a_run_sent_twice_counts_once(shop: FlaskClient) -> None:
    first, second = (shop.post("/api/runs", json=RUN).get_json() for _ in range(2))
    assert first["id"] == second["id"]
    assert shop.get("/api/bands/1").get_json()["band"]["runs"] == 1


def test_taking_a_run_back_takes_its_wear_back_and_undo_brings_both(shop: FlaskClient) -> None:
    logged = shop.post("/api/runs", json=RUN).get_json()
    change = shop.delete(f"/api/runs/{logged['id']}").get_json()["change_id"]
    assert shop.get("/api/bands/1").get_json()["band"]["edge_equivalent_m"] == 0
    assert shop.post(f"/api/changes/{change}/undo").status_code == 200
    band = shop.get("/api/bands/1").get_json()["band"]
    assert band["edge_equivalent_m"] == pytest.approx(logged["equivalent_m"])
    again = shop.post(f"/api/changes/{change}/undo")
    assert again.status_code == 409
    assert again.get_json()["detail"] == "This change was undone already."


@pytest.mark.parametrize(
    ("change", "path", "words"),
    [
        ({"time_s": 20}, "", ""),
        ({"time_s": None, "feed_m_min": None}, "", "give time_s or feed_m_min"),
        ({"feed_m_min": 2.0, "time_s": 13}, "time_s", "did you mean minutes?"),
        (
            {"time_s": 0.5},
            "time_s",
            "is a feed of 3024 m/min; accepted: a feed",
        ),
        ({"pieces": 0}, "pieces", "0 is out of range; accepted: at least 1"),
        ({"symptoms": ["sad"]}, "symptoms.0", "'sad' is not accepted"),
        ({"client_key": "x y"}, "client_key", ""),
    ],
)
def test_senseless_runs_are_refused(
    shop: FlaskClient, change: dict[str, Any], path: str, words: str
) -> None:
    response = shop.post("/api/runs", json={**RUN, **change})
    if change == {"time_s": 20}:
        assert response.status_code == 201
        return
    assert response.status_code == 422
    told = response.get_json()["errors"][0]
    assert told["path"] == path and words in told["message"]
