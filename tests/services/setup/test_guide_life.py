"""The life of guides."""

from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.support.edits import saved
from tests.support.set_up import post, slack_job, tick, whole


def test_guides_tell_the_hours_sawn_since_they_were_set_and_what_was_noted(
    shop: FlaskClient,
) -> None:
    fresh = shop.get("/api/saws/1/stand").get_json()["guides"]
    assert [(g["name"], g["set_at"], g["hours_since"]) for g in fresh] == [
        ("upper guides", None, None),
        ("lower guides", None, None),
    ]
    url = whole(shop)
    tick(shop, url, "guides_upper", note="blocks dressed", who="Odda")
    run: dict[str, Any] = {
        "client_key": "run-of-two",
        "job_id": 1,
        "saw_id": 1,
        "band_id": 1,
        "pieces": 2,
    }
    post(shop, "/api/runs", 201, **run, length_mm=3600, time_s=1800)
    upper, lower = shop.get("/api/saws/1/stand").get_json()["guides"]
    assert upper["hours_since"] == lower["hours_since"] == pytest.approx(0.5)
    assert [(n["text"], n["who"]) for n in upper["notes"]] == [("blocks dressed", "Odda")]
    assert upper["who"] == "Odda" and lower["notes"] == []
    again = slack_job(shop)
    carried: dict[str, Any] = {"key": "guides_upper", "done": True, "still_good": True}
    post(shop, f"/api/setups/{again}/steps", **carried)
    still = shop.get("/api/saws/1/stand").get_json()["guides"][0]
    assert (still["set_at"], len(still["notes"])) == (upper["set_at"], 1)
    saw = shop.get("/api/saws/1").get_json()["saw"]
    saved(shop, "/api/saws/1", {**saw, "guides": "none"})
    assert shop.get("/api/saws/1/stand").get_json()["guides"] == []
