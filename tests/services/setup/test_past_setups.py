"""Set-ups kept: last time, what is still good, what expires."""

from datetime import timedelta

import pytest
from flask.testing import FlaskClient

from jade_ribbon.services.clock import now
from jade_ribbon.services.setup import past_setups
from tests.support.edits import saved
from tests.support.set_up import post, slack_job, tick, whole


def test_the_next_card_knows_what_was_left_and_what_is_still_good(shop: FlaskClient) -> None:
    whole(shop)
    url = f"/api/setups/{slack_job(shop)}"
    card = shop.get(url).get_json()
    assert card["last"]["left"]["tension"] == {"stress_MPa": 130.0, "handle_turns": 6.0}
    assert set(card["still_good"]) == {
        "inspect",
        "mount",
        "rough_track",
        "tension",
        "fine_track",
        "guides_upper",
        "guides_lower",
        "table",
        "table_pin",
        "speed",
        "drift",
    }
    tick(shop, url, "isolate")
    answer = tick(shop, url, "tension", left={"stress_MPa": 125.0, "handle_turns": 7.5})
    turns = next(c for c in answer["compared"] if c["reading"] == "handle_turns")
    assert turns["difference"] == pytest.approx(1.5)


def test_a_step_still_good_is_carried_without_opening_doors(shop: FlaskClient) -> None:
    whole(shop)
    url = f"/api/setups/{slack_job(shop)}"
    answer = tick(shop, url, "tension", still_good=True, who="Wren")
    step = answer["steps"]["tension"]
    assert step["left"]["stress_MPa"] == 130.0 and step["who"] == "Wren"
    assert step["note"].startswith("Done 20") and "by Odda; good for" in step["note"]
    never = shop.post(f"{url}/steps", json={"key": "guard", "done": True, "still_good": True})
    assert "no longer good from last time" in never.get_json()["detail"]


def test_slackening_or_taking_off_ends_what_hung_on_it(shop: FlaskClient) -> None:
    whole(shop)
    url = f"/api/setups/{slack_job(shop)}"
    post(shop, "/api/saws/1/tension", state="slack")
    good = set(shop.get(url).get_json()["still_good"])
    assert good == {"inspect", "mount", "rough_track", "table", "table_pin", "speed"}
    post(shop, "/api/saws/1/mount", band_id=None)
    assert set(shop.get(url).get_json()["still_good"]) == {"table", "speed"}


def test_steps_expire_by_the_saw_s_own_hours(
    shop: FlaskClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    whole(shop)
    url = f"/api/setups/{slack_job(shop)}"
    later = now() + timedelta(hours=13)
    monkeypatch.setattr(past_setups, "now", lambda: later)
    assert "tension" not in shop.get(url).get_json()["still_good"]
    fittings = {"good_for_h": {"tension": 48}}
    assert saved(shop, "/api/saws/1/fittings", fittings).status_code == 200
    left = shop.get(url).get_json()["still_good"]["tension"]["hours_left"]
    assert left == pytest.approx(35, abs=0.1)
    odd = saved(shop, "/api/saws/1/fittings", {"good_for_h": {"tea": 1}})
    assert odd.get_json()["errors"][0]["path"] == "good_for_h.tea"


def test_set_ups_are_listed_with_their_saw_and_band(shop: FlaskClient) -> None:
    whole(shop, means="gauge")
    of_band = shop.get("/api/bands/1/setups").get_json()
    assert [s["job_name"] for s in of_band] == ["Strakes"]
    assert of_band[0]["who"] == ["Odda"] and of_band[0]["means"] == "gauge"
    of_saw = shop.get("/api/saws/1/stand").get_json()["setups"]
    assert of_saw == of_band


def test_all_that_still_holds_is_kept_at_once_and_the_rest_is_left_to_do(shop: FlaskClient) -> None:
    whole(shop)
    url = f"/api/setups/{slack_job(shop)}"
    good = set(shop.get(url).get_json()["still_good"])
    answer = shop.post(f"{url}/carry", json={"who": "Wren"}).get_json()
    assert {key for key, step in answer["steps"].items() if step["still_good"]} == good
    assert {step["who"] for step in answer["steps"].values()} == {"Wren"}
    assert "isolate" not in answer["steps"] and "guard" not in answer["steps"]
    assert not answer["ready"]
    again = shop.post(f"{url}/carry", json={}).get_json()
    assert again["steps"].keys() == answer["steps"].keys()


def test_nothing_is_kept_of_a_saw_that_was_slackened_and_emptied(shop: FlaskClient) -> None:
    whole(shop)
    url = f"/api/setups/{slack_job(shop)}"
    post(shop, "/api/saws/1/mount", band_id=None)
    assert set(shop.post(f"{url}/carry", json={}).get_json()["steps"]) == {"table", "speed"}
