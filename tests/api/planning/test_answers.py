"""Plan: the same answer everywhere, with its reasons."""

import json
from typing import Any

import pytest
from flask.testing import FlaskClient

from jade_ribbon.formats.job import read_job
from jade_ribbon.formats.recommendation import recommend
from tests.support.walks import CUT, plan


def test_screen_and_command_line_give_the_same_answer(
    shop: FlaskClient, job_file: dict[str, Any]
) -> None:
    exported = shop.get("/api/jobs/1/file").get_json()
    by_file = recommend(read_job(json.dumps(exported)))["recommended"]
    by_screen = plan(shop)["best"]
    assert by_file["band"]["label"] == by_screen["band"]["label"] == "K-07"
    for key in ("stress_MPa", "speed_m_s", "teeth_in_cut", "bending_hours"):
        assert by_file[key] == pytest.approx(by_screen[key])
    assert by_file["feed_m_min"] == pytest.approx(by_screen["figures"]["feed_m_min"])
    assert by_file["cost_per_piece"] == pytest.approx(by_screen["figures"]["cost_total"], rel=0.01)


def test_every_figure_carries_its_reasons(shop: FlaskClient) -> None:
    answer = plan(shop)
    assert set(answer["explained"]) >= {"tension", "speed", "feed", "power", "push", "cost"}
    for explained in answer["explained"].values():
        assert explained["formula"] and explained["source"] and explained["uncertainty"]
        assert explained["inputs"]
    assert answer["disclaimer"].startswith("The saw's manual")


def test_the_handle_s_figures_follow_the_feed(shop: FlaskClient) -> None:
    best = plan(shop)["best"]
    body = {**CUT, "saw_id": 1, "band_id": 1}
    here = shop.post("/api/plan/feed", json={**body, "feed_m_min": best["figures"]["feed_m_min"]})
    assert here.get_json()["power_share"] == pytest.approx(best["figures"]["power_share"])
    limit = best["window"]["limits_m_min"]["power"]
    full = shop.post("/api/plan/feed", json={**body, "feed_m_min": limit}).get_json()
    assert full["power_share"] == pytest.approx(1.0)
    slow = shop.post("/api/plan/feed", json={**body, "feed_m_min": 0.3}).get_json()
    assert slow["hot"] and not full["hot"]


def test_an_empty_rack_is_told_what_to_buy(client: FlaskClient, job_file: dict[str, Any]) -> None:
    client.post("/api/saws", json=job_file["saw"])
    answer = plan(client)
    assert answer["best"] is None
    assert answer["prevented"] == "No band of its length is on the rack."
    assert answer["buy"]["option"]["band"]["width_mm"] == 19
    assert answer["buy"]["length_mm"] == 3360


def test_overrides_for_one_job_reach_the_answer(shop: FlaskClient) -> None:
    light = plan(shop, rules={"tension": "light"})
    assert light["best"]["stress_MPa"] == pytest.approx(127.5)
    refused = shop.post("/api/plan", json={**CUT, "saw_id": 1, "rules": {"tension": "no"}})
    assert refused.status_code == 422
    assert "rules.tension 'no' is not accepted" in refused.get_json()["detail"]
