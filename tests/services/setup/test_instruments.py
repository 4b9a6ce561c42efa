"""Instruments, by hand and simulated."""

import pytest
from flask.testing import FlaskClient

from tests.support.edits import saved
from tests.support.set_up import begin, post


def test_instruments_read_only_where_chosen_and_say_they_are_simulated(shop: FlaskClient) -> None:
    url = begin(shop)
    ask = {"kind": "strain_gauge", "step": "tension", "reading": "stretch"}
    by_hand = shop.post(f"{url}/read", json=ask)
    assert by_hand.status_code == 409 and "type the reading" in by_hand.get_json()["detail"]
    chosen = {"strain_gauge": "simulated", "microphone": "simulated", "tachometer": "simulated"}
    assert saved(shop, "/api/setting-up", {"instruments": chosen}).status_code == 200
    assert post(shop, "/api/instruments/zero", kind="strain_gauge") == {
        "instrument": "simulated strain gauge"
    }
    target = shop.get(url).get_json()["card"]["tension"]["forms"]["gauge_stretch_um"]
    values = []
    for _ in range(8):
        answer = shop.post(f"{url}/read", json=ask)
        if answer.status_code == 200:
            reading = answer.get_json()
            assert reading["simulated"] and reading["unit"] == "µm"
            values.append(reading["value"])
        else:
            assert "gave no reading; try again" in answer.get_json()["detail"]
    assert abs(values[-1] / target - 1) < 0.05 < abs(values[0] / target - 1)
    speed = post(shop, f"{url}/read", kind="tachometer", step="speed", reading="speed_m_s")
    assert speed["value"] == pytest.approx(14.5, rel=0.25)
    heard = post(shop, f"{url}/record")
    assert heard["heard"]["confidence"] > 0.3
    odd = shop.post(f"{url}/read", json={**ask, "kind": "thermometer"})
    assert odd.status_code == 422 and "accepted: strain_gauge" in odd.get_json()["detail"]
