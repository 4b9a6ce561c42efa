"""A saw's own scale and speeds."""

from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.support.edits import saved
from tests.support.set_up import begin, post, tick


def test_the_scale_is_calibrated_by_points_and_then_gives_a_setting(shop: FlaskClient) -> None:
    bare = shop.post("/api/saws/1/scale", json={"reading": 2, "stress_MPa": 80, "means": "gauge"})
    assert bare.status_code == 409 and "needs the band" in bare.get_json()["detail"]
    url = begin(shop)
    tick(shop, url, "isolate")
    tick(shop, url, "mount")
    for reading, stress in ((2, 62), (4, 99), (6, 138)):
        answer = post(
            shop,
            "/api/saws/1/scale",
            201,
            reading=reading,
            stress_MPa=stress,
            travel_mm=stress / 80,
            means="gauge",
        )
    assert answer["fit"]["count"] == 3 and answer["why_not"] == ""
    assert sum(p["residual_N"] for p in answer["points"]) == pytest.approx(0, abs=1e-6)
    card = shop.get(url).get_json()["card"]["tension"]
    assert 5 < card["scale"]["reading"] < 6 and not card["scale"]["extrapolated"]
    fittings = {"printed_marks": [{"width_mm": 19, "reading": 3}]}
    saved(shop, "/api/saws/1/fittings", fittings)
    mark = shop.get("/api/saws/1/scale").get_json()["marks"][0]
    assert mark["stress_MPa"] == pytest.approx(119, abs=1) and mark["target_MPa"] > 90
    gone = shop.delete(f"/api/scale-points/{answer['points'][0]['id']}").get_json()
    assert shop.get("/api/saws/1/scale").get_json()["fit"] is None
    assert shop.get(url).get_json()["card"]["tension"]["scale"] is None
    shop.post(f"/api/changes/{gone['change_id']}/undo")
    assert shop.get("/api/saws/1/scale").get_json()["fit"]["count"] == 3


def test_counted_turns_correct_the_saw_s_own_record(shop: FlaskClient) -> None:
    listed = shop.get("/api/saws/1/speeds?target_m_s=13").get_json()
    assert [s["chosen"] for s in listed["settings"]] == [False, True]
    assert listed["why_no_pulleys"] == "The saw's pulleys are not recorded."
    body: dict[str, Any] = {"nominal_m_s": 14.5, "turns": 110, "seconds": 10}
    asked = post(shop, "/api/saws/1/speeds", **body)
    assert asked["speed_m_s"] == pytest.approx(13.823, abs=0.001)
    assert shop.get("/api/saws/1").get_json()["saw"]["drive"]["speeds_m_s"] == [7.0, 14.5]
    kept = post(shop, "/api/saws/1/speeds", **body, keep=True)
    speeds = shop.get("/api/saws/1").get_json()["saw"]["drive"]["speeds_m_s"]
    assert speeds == [7.0, pytest.approx(13.823, abs=0.001)]
    shop.post(f"/api/changes/{kept['change_id']}/undo")
    assert shop.get("/api/saws/1").get_json()["saw"]["drive"]["speeds_m_s"] == [7.0, 14.5]
    both = shop.post("/api/saws/1/speeds", json={**body, "wheel_rpm": 600})
    assert "one of the two" in both.get_json()["detail"]
    saved(shop, "/api/saws/1/fittings", {"motor_pulley_mm": 80, "wheel_pulley_mm": 200})
    far = shop.get("/api/saws/1/speeds?target_m_s=20").get_json()
    assert far["pulleys"]["motor_pulley_mm"] == pytest.approx(80 * 20 / 14.5)
