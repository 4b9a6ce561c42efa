"""Setting up: carried steps, comparison, roles, scale, speeds, alignment, stand, instruments."""

from datetime import timedelta
from typing import Any

import pytest
from flask.testing import FlaskClient

from jade_ribbon.devices.microphone import SimulatedMicrophone
from jade_ribbon.services import setup_records
from jade_ribbon.services.records import now
from tests.conftest import BAND
from tests.services.test_setups import begin, tick

STEPS_BEFORE_RUN = ("isolate", "inspect", "guides_back", "mount", "rough_track", "tension")


def post(shop: FlaskClient, url: str, status: int = 200, **body: Any) -> Any:
    response = shop.post(url, json=body)
    assert response.status_code == status, response.json
    return response.get_json()


def whole(shop: FlaskClient, stress: float = 130.0, **more: Any) -> str:
    """A card with every step done, and finished."""
    url = begin(shop)
    left = {
        "tension": {"stress_MPa": stress, "handle_turns": 6.0},
        "guides_upper": {"side_mm": 0.1},
        "speed": {"speed_m_s": 14.5},
    }
    for step in shop.get(url).get_json()["card"]["steps"]:
        tick(shop, url, step["key"], left=left.get(step["key"], {}), who="Odda", **more)
    post(shop, f"{url}/finish")
    return url


def slack_job(shop: FlaskClient) -> str:
    """The same job again, on a new card."""
    shop.post("/api/jobs/1/duplicate")
    return str(shop.post("/api/setups", json={"job_id": 2, "band_id": 1}).get_json()["id"])


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
    monkeypatch.setattr(setup_records, "now", lambda: later)
    assert "tension" not in shop.get(url).get_json()["still_good"]
    bench = {"good_for_h": {"tension": 48}}
    assert shop.put("/api/saws/1/bench", json=bench).status_code == 200
    left = shop.get(url).get_json()["still_good"]["tension"]["hours_left"]
    assert left == pytest.approx(35, abs=0.1)
    odd = shop.put("/api/saws/1/bench", json={"good_for_h": {"tea": 1}})
    assert odd.get_json()["errors"][0]["path"] == "good_for_h.tea"


def test_a_reserved_step_asks_for_an_authorised_name(shop: FlaskClient) -> None:
    settings = {"reserved": ["band_change", "wheel_alignment"], "authorised": ["Brill"]}
    assert shop.put("/api/setting-up", json=settings).status_code == 200
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
        assert answer["words"].startswith("On target")
    slack = post(shop, f"{url}/tension", means="gauge", values=[30.0])
    assert slack["words"].startswith("Too slack by")
    tight = post(shop, f"{url}/tension", means="gauge", values=[150.0])
    assert (
        tight["words"].startswith("Too tight")
        and "over the frame" in tight["reading"]["warnings"][0]
    )
    plucks = post(shop, f"{url}/tension", means="pluck", values=[60.0, 64.0, 61.0])
    assert plucks["plucks"]["median_Hz"] == 61.0
    none = shop.post(f"{url}/tension", json={"means": "scale", "values": [4.0]})
    assert "not calibrated" in none.get_json()["detail"]


def test_a_recording_is_heard_for_this_band_and_span(shop: FlaskClient) -> None:
    url = begin(shop)
    wanted = shop.get(url).get_json()["card"]["tension"]["note_Hz"]
    sound = SimulatedMicrophone(3).record(wanted)
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
    bench = {"printed_marks": [{"width_mm": 19, "reading": 3}]}
    shop.put("/api/saws/1/bench", json=bench)
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
    shop.put("/api/saws/1/bench", json={"motor_pulley_mm": 80, "wheel_pulley_mm": 200})
    far = shop.get("/api/saws/1/speeds?target_m_s=20").get_json()
    assert far["pulleys"]["motor_pulley_mm"] == pytest.approx(80 * 20 / 14.5)


def test_a_wheel_is_trued_and_its_answer_remembered(shop: FlaskClient) -> None:
    start: dict[str, Any] = {"axis": "tilt", "wheel": "upper", "gap_mm": 2.0, "who": "Wren"}
    slack = shop.post("/api/saws/1/alignments", json=start)
    assert slack.status_code == 409 and "at working tension" in slack.get_json()["detail"]
    url = begin(shop)
    for key in ("isolate", "mount", "tension"):
        tick(shop, url, key)
    begun = post(shop, "/api/saws/1/alignments", 201, **start)
    assert begun["advice"]["state"] == "turn" and begun["bolt"].startswith("Upper shaft, bolt at 6")
    assert begun["known_words"].startswith("This saw's answer to a turn is not known")
    gap, answer = 2.0, begun
    while answer["advice"]["state"] == "turn":
        turns = answer["advice"]["turns"]
        gap -= 2.0 * turns
        move = f"/api/alignments/{begun['id']}/moves"
        answer = post(shop, move, turns=turns, gap_mm=round(gap, 2))
    assert answer["advice"]["state"] == "done" and answer["finished_at"]
    again = shop.post(move, json={"turns": 0.1, "gap_mm": 0.0})
    assert again.status_code == 409 and "finished" in again.get_json()["detail"]
    taken = shop.delete(move).get_json()
    assert taken["finished_at"] is None and len(taken["moves"]) == len(answer["moves"]) - 1
    second = post(shop, "/api/saws/1/alignments", 201, **start)
    assert second["known_words"].startswith("This saw answers a turn by ")
    assert len(shop.get("/api/saws/1/alignments").get_json()) == 2


def test_a_saw_s_own_bolt_is_named_and_only_its_own_wheels(shop: FlaskClient) -> None:
    url = begin(shop)
    for key in ("isolate", "mount", "tension"):
        tick(shop, url, key)
    start: dict[str, Any] = {"axis": "toe", "wheel": "upper", "gap_mm": 2.0}
    usual = post(shop, "/api/saws/1/alignments", 201, **start)
    assert (
        usual["bolt"]
        == "Upper shaft, bolt at 9 o'clock seen from the doors, where it usually stands"
    )
    shop.put("/api/saws/1/bench", json={"toe_bolt_oclock": 3})
    own = shop.get("/api/saws/1/alignments").get_json()[0]
    assert (own["bolt"], own["oclock"]) == ("Upper shaft, bolt at 3 o'clock seen from the doors", 3)
    assert own["turn_words"] == "3/4 turn clockwise"
    for wheel in ("left", "third"):
        refused = shop.post("/api/saws/1/alignments", json=start | {"wheel": wheel}).get_json()
        assert refused["errors"][0]["path"] == "wheel"
        assert refused["errors"][0]["message"].endswith("accepted: upper, lower")
    odd = shop.put("/api/saws/1/bench", json={"toe_bolt_oclock": 13}).get_json()
    assert odd["errors"][0]["path"] == "toe_bolt_oclock"


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
    shop.put("/api/saws/1", json={**saw, "guides": "none"})
    assert shop.get("/api/saws/1/stand").get_json()["guides"] == []


def test_drift_is_kept_with_the_band_and_its_growth_told(shop: FlaskClient) -> None:
    shop.put("/api/saws/1/bench", json={"fence_bolt_spacing_mm": 150})
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
    shop.put("/api/saws/1/bench", json={"fence": "single_point"})
    point = post(shop, f"{url}/drift", offset_mm=5.0, run_mm=300)
    assert "no shift is needed" in point["verdict"]["words"]


def test_ticks_slips_and_vibration_are_answered(shop: FlaskClient) -> None:
    url = begin(shop)
    tick_ = post(shop, f"{url}/tick", ticks=43, seconds=10)
    assert tick_["key"] == "weld"
    slips = post(shop, "/api/slips", gap_mm=0.3, stack_mm=1.0)
    assert slips["layers"] == 3
    card = shop.get(f"{url}/vibration").get_json()
    assert card["card"]["band_Hz"] == pytest.approx(14.5 / 3.36)
    assert card["guide_span_mm"] == 255 and card["verdict"].endswith(".")


def test_a_saw_stands_slack_defective_or_ready(shop: FlaskClient) -> None:
    stand = "/api/saws/1/stand"
    assert shop.get(stand).get_json()["ready_words"] == "No band is on it."
    whole(shop)
    ready = shop.get(stand).get_json()
    assert ready["ready"] and ready["last"]["band_label"] == "K-07"
    assert ready["speed_set_m_s"] == 14.5 and ready["last"]["stress_MPa"] == 130.0
    defect = post(shop, "/api/saws/1/defects", 201, text="Tyre loose", stops=True, who="Odda")
    stopped = shop.get(stand).get_json()
    assert not stopped["ready"] and "Tyre loose" in stopped["ready_words"]
    url = f"/api/setups/{slack_job(shop)}"
    for step in shop.get(url).get_json()["card"]["steps"]:
        tick(shop, url, step["key"])
    refused = shop.post(f"{url}/finish")
    assert refused.status_code == 409 and "Tyre loose" in refused.get_json()["detail"]
    post(shop, f"/api/defects/{defect['id']}/close", who="Brill")
    assert shop.get(stand).get_json()["ready"]
    post(shop, "/api/saws/1/tension", state="slack")
    assert "slack: tension it before it is started" in shop.get(stand).get_json()["ready_words"]


def test_the_next_job_as_it_is_against_a_change(shop: FlaskClient) -> None:
    whole(shop)
    same = shop.get("/api/saws/1/stand?job_id=1").get_json()["next_job"]
    assert same["as_it_is"]["able"] and same["as_it_is"]["change_minutes"] == 0
    assert same["words"].startswith("It can, as it is")
    fine = {**BAND, "label": "K-01", "width_mm": 6.35, "thickness_mm": 0.64}
    fine |= {"form": "regular", "tpi_lo": 6, "tpi_hi": 6}
    assert shop.post("/api/bands", json=fine).status_code == 201
    curve = {
        "operation": "curve",
        "material": "european_larch_dry",
        "height_mm": 30,
        "length_mm": 600,
        "count": 4,
        "min_radius_mm": 40,
        "finish": "sand",
        "saw_id": 1,
    }
    job = post(shop, "/api/jobs", 201, **curve)
    asked = shop.get(f"/api/saws/1/stand?job_id={job['id']}").get_json()["next_job"]
    assert not asked["as_it_is"]["able"] and asked["changed"]["band_label"] == "K-01"
    assert asked["words"].startswith("Not as it is:") and "K-01 can, after 12 min" in asked["words"]


def test_instruments_read_only_where_chosen_and_say_they_are_simulated(shop: FlaskClient) -> None:
    url = begin(shop)
    ask = {"kind": "strain_gauge", "step": "tension", "reading": "stretch"}
    by_hand = shop.post(f"{url}/read", json=ask)
    assert by_hand.status_code == 409 and "type the reading" in by_hand.get_json()["detail"]
    chosen = {"strain_gauge": "simulated", "microphone": "simulated", "tachometer": "simulated"}
    assert shop.put("/api/setting-up", json={"instruments": chosen}).status_code == 200
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


def test_set_ups_are_listed_with_their_saw_and_band(shop: FlaskClient) -> None:
    whole(shop, means="gauge")
    of_band = shop.get("/api/bands/1/setups").get_json()
    assert [s["job_name"] for s in of_band] == ["Strakes"]
    assert of_band[0]["who"] == ["Odda"] and of_band[0]["means"] == "gauge"
    of_saw = shop.get("/api/saws/1/stand").get_json()["setups"]
    assert of_saw == of_band


def test_the_sheet_is_one_page_with_its_record_s_address(shop: FlaskClient) -> None:
    url = begin(shop)
    tick(shop, url, "isolate", who="Odda")
    sheet = shop.get("/setups/1.pdf")
    assert sheet.mimetype == "application/pdf" and sheet.data.startswith(b"%PDF")
    assert sheet.data.count(b"/Type /Page\n") == 1
    assert shop.get("/setups/77.pdf").status_code == 404
    assert shop.get(f"/setups/{2**60}.pdf").status_code == 404


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


def test_a_tension_over_the_frame_is_not_recorded_as_done(shop: FlaskClient) -> None:
    """3200 N in 14.68 x 0.81 is 134.5 MPa: 140 is within what a reading may be off, 150 not."""
    url = begin(shop)
    for key in ("isolate", "mount"):
        tick(shop, url, key)
    tick(shop, url, "tension", left={"stress_MPa": 140.0})
    over = {"key": "tension", "done": True, "left": {"stress_MPa": 150.0}}
    refused = shop.post(f"{url}/steps", json=over).get_json()
    assert refused["errors"][0]["path"] == "left.stress_MPa"
    assert "slacken it; accepted: up to 135 MPa in this band" in refused["detail"]
    assert shop.get("/api/saws/1").get_json()["tension_stress_MPa"] == 140.0


def test_moving_a_belt_may_be_reserved_and_an_inverter_s_knob_is_not(shop: FlaskClient) -> None:
    shop.put("/api/setting-up", json={"reserved": ["wiring"], "authorised": ["Brill"]})
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
    assert shop.put("/api/saws/1", json={**saw, "drive": drive}).status_code == 200
    steps = {s["key"]: s for s in shop.get(url).get_json()["card"]["steps"]}
    assert steps["speed"]["reserve"] == "" and steps["speed"]["do"].startswith("Inverter to")
