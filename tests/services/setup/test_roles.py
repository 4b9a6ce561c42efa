"""Reserved steps and authorised names."""

from typing import Any

from flask.testing import FlaskClient

from tests.support.edits import saved
from tests.support.set_up import begin, post, tick


def test_a_reserved_step_asks_for_an_authorised_name(shop: FlaskClient) -> None:
    settings = {"reserved": ["band_change", "wheel_alignment"], "authorised": ["Brill"]}
    assert saved(shop, "/api/setting-up", settings).status_code == 200
    url = begin(shop)
    tick(shop, url, "isolate", who="Odda")
    for name in ("", "Odda"):
        refused = shop.post(
            f"{url}/steps", json={"key": "mount", "done": True, "authorised_by": name}
        )
        assert refused.status_code == 409
        assert "an authorised person's name is needed (Brill)" in refused.get_json()["detail"]
    done = tick(shop, url, "mount", who="Odda", authorised_by="Brill")
    assert done["steps"]["mount"]["authorised_by"] == "Brill"
    tick(shop, url, "rough_track", who="Odda")
    start: dict[str, Any] = {"axis": "tilt", "wheel": "upper", "gap_mm": 2.0}
    tick(shop, url, "tension")
    assert shop.post("/api/saws/1/alignments", json=start).status_code == 409
    post(shop, "/api/saws/1/alignments", 201, **start, authorised_by="Brill")


def test_moving_a_belt_may_be_reserved_and_an_inverter_s_knob_is_not(shop: FlaskClient) -> None:
    saved(shop, "/api/setting-up", {"reserved": ["wiring"], "authorised": ["Brill"]})
    url = begin(shop)
    speed = next(s for s in shop.get(url).get_json()["card"]["steps"] if s["key"] == "speed")
    assert speed["reserve"] == "wiring" and speed["doors_open"]
    assert "Guard open, belt to the fastest of 2 steps" in speed["do"]
    tick(shop, url, "isolate")
    refused = shop.post(f"{url}/steps", json={"key": "speed", "done": True})
    assert "Work on belts, wiring and inverters is reserved" in refused.get_json()["detail"]
    tick(shop, url, "speed", authorised_by="Brill")
    saw = shop.get("/api/saws/1").get_json()["saw"]
    drive = {"kind": "inverter", "base_hz": 50, "min_hz": 10, "max_hz": 60, "base_speed_m_s": 15}
    assert saved(shop, "/api/saws/1", {**saw, "drive": drive}).status_code == 200
    steps = {s["key"]: s for s in shop.get(url).get_json()["card"]["steps"]}
    assert steps["speed"]["reserve"] == "" and steps["speed"]["do"].startswith("Inverter to")
