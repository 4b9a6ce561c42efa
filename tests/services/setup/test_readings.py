"""Readings at a card."""

from typing import Any

import pytest
from flask.testing import FlaskClient

from jade_ribbon.devices.microphone import SimulatedMicrophone
from tests.support.edits import saved
from tests.support.set_up import begin, post


def test_readings_by_each_means_meet_the_target(shop: FlaskClient) -> None:
    url = begin(shop)
    tension = shop.get(url).get_json()["card"]["tension"]
    asked: dict[str, Any] = {
        "gauge": (tension["forms"]["gauge_stretch_um"], {}),
        "pluck": (tension["note_Hz"], {}),
        "push": (
            tension["side_push"]["force_N"],
            {"deflection_mm": tension["side_push"]["deflection_mm"]},
        ),
    }
    for means, (value, more) in asked.items():
        answer = post(shop, f"{url}/tension", means=means, values=[value], **more)
        assert answer["reading"]["stress_MPa"] == pytest.approx(tension["stress_MPa"], rel=1e-6)
        assert answer["verdict"] == "on_target", answer
    held = post(
        shop,
        f"{url}/tension",
        means="gauge",
        values=[tension["forms"]["gauge_stretch_um"]],
        against={"means": "pluck", "values": [tension["note_Hz"] * 0.8]},
    )
    assert held["verdict"] == "cannot_tell" and "believe the strain gauge" in held["agreement"]
    slack = post(shop, f"{url}/tension", means="gauge", values=[30.0])
    assert slack["words"].startswith("Too slack by")
    tight = post(shop, f"{url}/tension", means="gauge", values=[150.0])
    assert (
        tight["words"].startswith("Over what the frame holds")
        and "over the frame" in tight["reading"]["warnings"][0]
    )
    plucks = post(shop, f"{url}/tension", means="pluck", values=[60.0, 64.0, 61.0])
    assert plucks["plucks"]["median_Hz"] == 61.0
    none = shop.post(f"{url}/tension", json={"means": "scale", "values": [4.0]})
    assert "not calibrated" in none.get_json()["detail"]


def test_a_recording_is_heard_for_this_band_and_span(shop: FlaskClient) -> None:
    url = begin(shop)
    wanted = shop.get(url).get_json()["card"]["tension"]["note_Hz"]
    sound = SimulatedMicrophone(lambda: wanted, 3).record()
    heard = shop.post(f"{url}/listen", data=sound, content_type="audio/wav")
    assert heard.status_code == 200
    answer = heard.get_json()
    assert answer["heard"]["frequency_Hz"] == pytest.approx(wanted, rel=0.03)
    assert answer["reading"]["stress_MPa"] == pytest.approx(134.5, rel=0.06)
    assert answer["wanted_Hz"] == pytest.approx(wanted)
    assert len(answer["heard"]["spectrum"]) == len(answer["heard"]["spectrum_Hz"]) == 240
    noise = shop.post(f"{url}/listen", data=b"RIFF junk", content_type="audio/wav")
    assert noise.status_code == 422 and "WAV or FLAC" in noise.get_json()["detail"]
    huge = shop.post(f"{url}/listen", data=b"0" * (10 * 2**20 + 5), content_type="audio/wav")
    assert huge.status_code == 413
    plain = shop.post(f"{url}/listen", data=sound, content_type="application/json")
    assert plain.status_code == 415


def test_drift_is_kept_with_the_band_and_its_growth_told(shop: FlaskClient) -> None:
    saved(shop, "/api/saws/1/fittings", {"fence_bolt_spacing_mm": 150})
    url = begin(shop)
    for offset in (1.0, 3.0):
        post(shop, f"{url}/drift", offset_mm=offset, run_mm=300, keep=True)
    third = post(shop, f"{url}/drift", offset_mm=5.0, run_mm=300)
    assert third["verdict"]["fence_shift_mm"] == pytest.approx(2.5)
    assert "one side wears faster" in third["verdict"]["trend_words"]
    assert [round(t["angle_deg"], 2) for t in third["earlier"]] == [0.19, 0.57]
    assert shop.get("/api/bands/1/drift").get_json() == third["earlier"]
    stop = post(shop, f"{url}/drift", offset_mm=15.0, run_mm=300)
    assert stop["verdict"]["stop"] and stop["verdict"]["fence_shift_mm"] is None
    saved(shop, "/api/saws/1/fittings", {"fence": "single_point"})
    point = post(shop, f"{url}/drift", offset_mm=5.0, run_mm=300)
    assert "no shift is needed" in point["verdict"]["words"]


def test_ticks_slips_and_vibration_are_answered(shop: FlaskClient) -> None:
    url = begin(shop)
    tick_ = post(shop, f"{url}/tick", ticks=43, seconds=10)
    assert tick_["key"] == "weld"
    slips = post(shop, "/api/shims", gap_mm=0.3, stack_mm=1.0)
    assert slips["layers"] == 3
    card = shop.get(f"{url}/vibration").get_json()
    assert card["card"]["band_Hz"] == pytest.approx(14.5 / 3.36)
    assert card["guide_span_mm"] == 255 and card["verdict"].endswith(".")


def test_every_figure_of_the_card_says_what_it_rests_on(shop: FlaskClient) -> None:
    card = shop.get(begin(shop)).get_json()
    shown = {s["key"] for s in card["card"]["steps"] if s["figure"]}
    assert (
        set(card["explained"])
        == shown
        == {
            "tension",
            "guides_upper",
            "guides_lower",
            "guard",
            "speed",
            "trial",
        }
    )
    guard = card["explained"]["guard"]
    assert guard["value"] == sum(i["value"] for i in guard["inputs"]) == 195
    tyre: dict[str, Any] = {"front_gap_mm": 0.4, "middle_gap_mm": 0, "back_gap_mm": 0.4}
    assert post(shop, "/api/saws/1/tyre", **tyre)["agrees"]


def test_a_note_taken_with_the_gauge_makes_notes_on_this_saw_surer(shop: FlaskClient) -> None:
    """The model's own 5 % is gone once a gauge was read with a note on this saw."""
    url = begin(shop)
    tension = shop.get(url).get_json()["card"]["tension"]
    asked: dict[str, Any] = {"means": "pluck", "values": [tension["note_Hz"]]}
    before = post(shop, f"{url}/tension", **asked)["reading"]
    point = {
        "reading": 5.0,
        "stress_MPa": tension["stress_MPa"] * 0.9,
        "note_Hz": tension["note_Hz"],
        "means": "gauge",
    }
    mounted = shop.post("/api/saws/1/mount", json={"band_id": 1})
    assert mounted.status_code == 200, mounted.get_json()
    kept = shop.post("/api/saws/1/scale", json=point)
    assert kept.status_code in (200, 201), kept.get_json()
    after = post(shop, f"{url}/tension", **asked)["reading"]
    assert after["stress_MPa"] == pytest.approx(0.9 * before["stress_MPa"])
    assert after["uncertainty_MPa"] < 0.6 * before["uncertainty_MPa"]
