"""A trouble told, asked about, mended, watched and closed; what the records say of it."""

import io
from datetime import timedelta
from typing import Any

import numpy as np
import pytest
import soundfile
from flask.testing import FlaskClient

from jade_ribbon.core.simulation.sounds import RATE_HZ, RunningSaw, sound_of
from jade_ribbon.store.models import BandRow, RunRow
from tests.support.edits import saved
from tests.support.walks import RUN, open_card, tick_all

TOLD = {"saw_id": 1, "band_id": 1, "job_id": 1, "symptoms": {"tick": "clear"}, "who": "Ada"}


def tell(shop: FlaskClient, **changed: Any) -> dict[str, Any]:
    answer = shop.post("/api/faults", json={**TOLD, **changed})
    assert answer.status_code == 201, answer.json
    found: dict[str, Any] = answer.get_json()
    return found


def step(shop: FlaskClient, trouble: dict[str, Any], what: str, **body: Any) -> dict[str, Any]:
    answer = shop.post(f"/api/faults/{trouble['id']}/{what}", **({"json": body} if body else {}))
    assert answer.status_code == 200, answer.json
    found: dict[str, Any] = answer.get_json()
    return found


def refused(shop: FlaskClient, url: str, **body: Any) -> dict[str, str]:
    answer = shop.post(url, **({"json": body} if body else {}))
    assert answer.status_code in (409, 422), answer.json
    said = answer.get_json()
    return {e["path"]: e["message"] for e in said["errors"]} or {"": said["detail"]}


def test_the_first_screen_has_three_causes_why_and_one_check(shop: FlaskClient) -> None:
    told = tell(shop)
    assert told["causes"][0]["name"] == "Weld proud or stepped"
    assert len(told["causes"]) == 3 and len(told["others"]) == 52
    assert told["causes"][0]["words"] in ("about 1 in 4", "about 1 in 3", "about an even chance")
    assert told["causes"][0]["spoke_for"][0]["words"] == "Tick each turn, clear"
    assert told["check"]["outcomes"] and told["check"]["why"]
    assert sum(o["chance"] for o in told["check"]["outcomes"]) == pytest.approx(1.0)
    assert not told["acting"]["act"] and told["acting"]["words"].startswith("Not yet")


def test_an_answer_moves_the_bars_and_is_not_asked_again(shop: FlaskClient) -> None:
    told = tell(shop)
    asked = told["check"]["key"]
    after = step(shop, told, "answer", check=asked, outcome=told["check"]["outcomes"][0]["key"])
    assert after["check"]["key"] != asked
    assert asked not in [c["key"] for c in after["other_checks"]]
    before = {c["key"]: c["chance"] for c in told["causes"]}
    moved = [c for c in after["causes"] if c["key"] in before]
    assert all(c["before"] == pytest.approx(before[c["key"]]) for c in moved)
    assert after["path"][0]["words"] == told["check"]["outcomes"][0]["words"]
    assert after["path"][0]["first"] == after["causes"][0]["name"]
    assert step(shop, after, "back")["path"] == []


def test_could_not_tell_and_skip_move_nothing_and_are_told_apart(shop: FlaskClient) -> None:
    told = tell(shop)
    asked = told["check"]["key"]
    unsure = step(shop, told, "answer", check=asked, outcome="could_not_tell")
    assert unsure["causes"][0]["chance"] == pytest.approx(told["causes"][0]["chance"])
    assert unsure["minutes"] > 0, "it was looked at"
    passed = step(shop, unsure, "answer", check=unsure["check"]["key"], outcome="skip")
    assert passed["minutes"] == unsure["minutes"]
    assert [c["why_not"] for c in passed["other_checks"]].count("skipped") == 1
    assert refused(shop, f"/api/faults/{told['id']}/answer", check=asked, outcome="maybe")


def test_what_a_stop_sign_tells_takes_over_and_holds_the_saw(shop: FlaskClient) -> None:
    told = tell(shop, symptoms={"smoke": "clear"})
    assert told["stops"][0]["key"] == "smoke" and "smouldering" in told["stops"][0]["do"]
    assert told["withheld"] and not told["check"]["runs"]


def test_signs_seen_on_the_way_count(shop: FlaskClient) -> None:
    told = tell(shop)
    after = step(shop, told, "signs", symptoms={"fine_marks": "slight", "vibration": "absent"})
    assert {s["key"]: s["degree"] for s in after["symptoms"]} == {
        "tick": "clear",
        "fine_marks": "slight",
        "vibration": "absent",
    }
    assert after["causes"][0]["chance"] != pytest.approx(told["causes"][0]["chance"])
    said = refused(shop, "/api/faults", **{**TOLD, "symptoms": {"tick": "absent"}})
    assert "tell at least one that is there" in str(said)


def test_records_missing_are_not_evidence(shop: FlaskClient) -> None:
    """A band without runs, a saw never trued, a card never finished: nothing is read of them."""
    assert {r["reads"] for r in tell(shop)["readings"]} == {"teeth_in_cut", "material_gum"}
    assert tell(shop, job_id=None, band_id=None)["readings"] == []


def test_the_records_are_read_and_may_be_set_aside(shop: FlaskClient) -> None:
    shop.post("/api/runs", json={**RUN, "symptoms": ["burn"], "strikes": 1})
    told = tell(shop, symptoms={"burn": "clear"})
    reads = {r["reads"]: r for r in told["readings"]}
    assert {"dullness", "fouling", "hits_since_sharpening", "feed_over_ceiling"} <= set(reads)
    assert reads["runs_since_welding"]["words"] == "The band has made 1 run since it was welded."
    over = reads["feed_over_ceiling"]
    assert over["source"].startswith("run of") and over["cause"] == "Feed too hard"
    aside = step(shop, told, "aside", reads=["dullness"])
    assert [r["reads"] for r in aside["readings"] if r["aside"]] == ["dullness"]
    was = {c["key"]: c["chance"] for c in (*told["causes"], *told["others"])}
    now = {c["key"]: c["chance"] for c in (*aside["causes"], *aside["others"])}
    assert now["dull"] != pytest.approx(was["dull"])
    assert step(shop, told, "aside", reads=[])["causes"][0]["chance"] == pytest.approx(
        told["causes"][0]["chance"]
    )
    assert refused(shop, f"/api/faults/{told['id']}/aside", reads=["mood"])


def test_a_run_logged_as_planned_says_nothing_of_the_feed(shop: FlaskClient) -> None:
    """Nobody looked at a clock."""
    run = shop.post("/api/runs", json=RUN).get_json()
    assert "feed_over_ceiling" in {r["reads"] for r in tell(shop)["readings"]}
    with shop.application.extensions["store"].write() as session:
        row = session.get_one(RunRow, run["id"])
        row.planned_m_min = row.feed_m_min
    assert "feed_over_ceiling" not in {r["reads"] for r in tell(shop)["readings"]}


def test_the_card_gives_guard_and_tension_only_as_measured(shop: FlaskClient) -> None:
    url = open_card(shop)
    tick_all(shop, url)
    by_scale = {r["reads"] for r in tell(shop)["readings"]}
    assert "stress_share_of_target" not in by_scale
    left = {"stress_MPa": 90.0}
    shop.post(f"{url}/steps", json={"key": "tension", "done": True, "left": left, "means": "gauge"})
    shop.post(f"{url}/steps", json={"key": "guard", "done": True, "left": {"height_mm": 225.0}})
    reads = {r["reads"]: r for r in tell(shop)["readings"]}
    assert "40 mm above the work" in _said(reads["guard_above_work_mm"]["words"])
    assert reads["stress_share_of_target"]["times"] != 1.0


def _said(words: Any) -> str:
    return str(words)


def test_a_fact_of_the_records_is_not_asked_twice(shop: FlaskClient) -> None:
    told = tell(shop)
    not_asked = {c["key"]: c["why_not"] for c in told["other_checks"]}
    assert not_asked["teeth_count"] == "the records say: teeth in cut"


def test_a_missing_instrument_removes_its_checks_and_says_what_it_would_tell(
    shop: FlaskClient,
) -> None:
    assert shop.post("/api/faults/instruments", json={"has": []}).get_json()["has"] == []
    told = tell(shop, symptoms={"barrel": "clear", "hard_push": "clear"})
    told = step(shop, told, "answer", check="when_began", outcome="crept")
    assert told["check"]["needs"] == "nothing"
    needed = {c["key"]: c["why_not"] for c in told["other_checks"] if c["why_not"]}
    assert needed["teeth_look"] == "needs the light"
    assert refused(shop, "/api/faults/instruments", has=["oracle"])


def test_remedy_run_and_going_away_close_it_with_its_cause(shop: FlaskClient) -> None:
    told = tell(shop)
    done = step(shop, told, "remedy", cause="weld_proud", minutes=12, who="Ada")
    assert (done["state"], done["remedy"], done["ran_since"]) == ("watching", "weld_proud", False)
    asks = shop.get("/api/faults/before?job_id=1").get_json()["asks"]
    assert [(a["sign"], a["ran"]) for a in asks] == [("tick each turn", False)]
    shop.post("/api/runs", json=RUN)
    assert shop.get("/api/faults/before?job_id=1").get_json()["asks"][0]["ran"] is True
    closed = step(shop, done, "close", causes=["weld_proud"], spoiled=18.5, who="Ada")
    assert (closed["state"], closed["found"]) == ("closed", ["weld_proud"])
    assert closed["money"] == pytest.approx(closed["minutes"] / 60 * 40 + 18.5)
    assert refused(shop, f"/api/faults/{told['id']}/back")[""].startswith("This trouble is closed")
    undone = shop.post(f"/api/changes/{closed['change_id']}/undo")
    assert undone.status_code == 200
    assert shop.get(f"/api/faults/{told['id']}").get_json()["state"] == "watching"


def test_a_remedy_that_did_not_help_speaks_against_its_cause(shop: FlaskClient) -> None:
    told = tell(shop)
    first = told["causes"][0]
    done = step(shop, told, "remedy", cause=first["key"])
    still = step(shop, done, "still")
    assert still["state"] == "open"
    after = {c["key"]: c["chance"] for c in (*still["causes"], *still["others"])}
    assert after[first["key"]] < 0.4 * first["chance"]
    assert [p["kind"] for p in still["path"]] == ["remedy", "still"]
    assert step(shop, still, "back")["state"] == "watching"
    assert refused(shop, f"/api/faults/{tell(shop)['id']}/still")[""].startswith("No remedy")


def test_closed_causes_teach_and_what_went_by_itself_does_not(shop: FlaskClient) -> None:
    base = tell(shop)["causes"][0]["chance"]
    gone = tell(shop)
    assert step(shop, gone, "close", causes=[])["state"] == "gone"
    lived_with = tell(shop)
    step(shop, lived_with, "close", causes=["weld_proud"], gone=False)
    assert tell(shop)["causes"][0]["chance"] == pytest.approx(base)
    for _ in range(3):
        step(shop, tell(shop), "close", causes=["weld_proud"])
    taught = tell(shop)["causes"][0]
    assert taught["chance"] > base and taught["found_here"] == 3
    assert shop.get("/api/faults/known").get_json()["troubles"] == 3


def test_the_book_counts_minutes_money_and_what_came_back(shop: FlaskClient) -> None:
    for signs in ({"tick": "clear"}, {"tick": "slight"}):
        told = tell(shop, symptoms=signs)
        told = step(shop, told, "answer", check="weld_chalk", outcome="weld")
        done = step(shop, told, "remedy", cause="weld_proud", minutes=10)
        step(shop, done, "close", causes=["weld_proud"], spoiled=5)
    book = shop.get("/api/faults?saw_id=1").get_json()
    assert [c["times"] for c in book["causes"]] == [2]
    assert book["causes"][0]["came_back"] == 1
    assert book["minutes"] == pytest.approx(2 * 13) and book["money"] == pytest.approx(
        26 / 60 * 40 + 10
    )
    newest, first = book["troubles"]
    assert newest["came_back_of"] == first["id"] and first["came_back"]
    assert shop.get("/api/faults?band_id=99").get_json()["troubles"] == []
    line = shop.get("/api/faults/before?job_id=1").get_json()["line"]
    assert "weld proud or stepped twice" in line
    gone = shop.delete(f"/api/faults/{first['id']}").get_json()
    assert gone["change_id"] > 0
    assert len(shop.get("/api/faults").get_json()["troubles"]) == 1


def test_nothing_is_minded_where_nothing_went_wrong(shop: FlaskClient) -> None:
    assert shop.get("/api/faults/before?job_id=1").get_json() == {
        "line": "",
        "open": [],
        "asks": [],
    }


@pytest.mark.parametrize(
    ("check", "figures", "outcome"),
    [
        ("pluck", {"note_Hz": 20.0}, "low"),
        ("drift_line", {"offset_mm": 9.0, "run_mm": 200.0}, "large"),
        ("thrust_slip", {"above_mm": 0.02, "below_mm": 0.3}, "touching"),
        ("speed_read", {"speed_m_s": 30.0}, "over"),
        ("wheel_plane", {"top_mm": 4.0, "bottom_mm": 3.8}, "offset"),
        ("set_sides", {"left_mm": 0.3, "right_mm": 0.05}, "one_side"),
        ("band_straight", {"weld_mm": 1.0, "beside_mm": 0.81}, "thick"),
        ("teeth_count", {"teeth": 2, "over_mm": 50, "height_mm": 40}, "few"),
        ("walk_round", {"clear_mm": 60.0}, "guard"),
    ],
)
def test_a_measured_check_names_its_answer(
    shop: FlaskClient, check: str, figures: dict[str, float], outcome: str
) -> None:
    assert step(shop, tell(shop), "measure", check=check, figures=figures)["outcome"] == outcome


def test_on_the_border_nobody_can_tell(shop: FlaskClient) -> None:
    told = tell(shop)
    found = step(
        shop, told, "measure", check="drift_line", figures={"offset_mm": 7.0, "run_mm": 200}
    )
    assert found["outcome"] == "" and "cannot tell" in _said(found["words"])
    said = refused(
        shop, f"/api/faults/{told['id']}/measure", check="drift_line", figures={"offset_mm": -4}
    )
    assert said == {
        "figures.offset_mm": "-4 is out of range; accepted: 0 to 100",
        "figures.run_mm": "is missing",
    }
    bare = tell(shop, job_id=None)
    said = refused(
        shop, f"/api/faults/{bare['id']}/measure", check="pluck", figures={"note_Hz": 40}
    )
    assert said["check"].startswith("needs a band in hand")
    unknown = refused(shop, f"/api/faults/{told['id']}/measure", check="swap_band", figures={})
    assert "is not measured" in unknown["check"]


def test_unknown_keys_are_named_with_what_is_accepted(shop: FlaskClient) -> None:
    assert "tock" in str(refused(shop, "/api/faults", **{**TOLD, "symptoms": {"tock": "clear"}}))
    assert shop.post("/api/faults", json={**TOLD, "saw_id": 9}).status_code == 404
    told = tell(shop)
    said = str(refused(shop, f"/api/faults/{told['id']}/remedy", cause="gremlins"))
    assert "accepted: dull" in said
    assert shop.get("/api/faults/77").status_code == 404


def wav_of(samples: np.ndarray) -> bytes:
    stream = io.BytesIO()
    soundfile.write(stream, samples, RATE_HZ, subtype="PCM_16", format="WAV")
    return stream.getvalue()


def hear(shop: FlaskClient, key: str, path: str = "ear", seed: int = 1) -> Any:
    saw = RunningSaw(speed_m_s=14.5, band_length_mm=3360.0, pitch_mm=12.7)
    return shop.post(
        f"/api/faults/{path}?saw_id=1&band_id=1&speed_m_s=14.5",
        data=wav_of(sound_of(key, saw, seed)),
        content_type="audio/wav",
    )


def test_the_ear_holds_a_saw_against_its_last_good_run(shop: FlaskClient) -> None:
    first = hear(shop, "tick").get_json()
    assert first["against"] is None and first["words"].startswith("No good run")
    assert first["outcome"] == "band", "heard without a good run, as the only beat"
    kept = hear(shop, "good", "ear/good")
    assert kept.status_code == 201 and kept.get_json()["kept"]
    found = hear(shop, "tick", seed=5).get_json()
    assert found["against"] and found["change"]["named"] == "weld"
    assert (found["outcome"], found["sign"]) == ("band", "tick")
    quiet = hear(shop, "good", seed=6).get_json()
    assert (quiet["outcome"], quiet["sign"]) == ("none", "")
    several = shop.post(
        "/api/faults/ear?saw_id=1&band_id=1",
        data=wav_of(sound_of("good")),
        content_type="audio/wav",
    )
    assert several.status_code == 422
    assert several.get_json()["errors"][0]["path"] == "speed_m_s"


def test_a_tapped_tick_is_named(shop: FlaskClient) -> None:
    every = 3.36 / 14.5
    body = {"saw_id": 1, "band_id": 1, "speed_m_s": 14.5}
    found = shop.post(
        "/api/faults/tapped", json={**body, "times_s": [i * every for i in range(9)]}
    ).get_json()
    assert [m["key"] for m in found["matches"]] == ["weld"]
    assert "2 taps" in str(refused(shop, "/api/faults/tapped", **body, times_s=[0.0, 1.0]))


def test_sounds_are_served_and_cards_written_out(shop: FlaskClient) -> None:
    sound = shop.get("/sounds/tick.wav")
    assert sound.status_code == 200 and sound.data[:4] == b"RIFF"
    assert shop.get("/sounds/silence.wav").status_code == 404
    cards = {c["sign"]: c for c in shop.get("/api/faults/cards").get_json()}
    assert {"drift", "tick", "barrel"} <= set(cards)
    named = {c["key"] for c in cards["tick"]["causes"]}
    assert {"weld_proud", "weld_crooked"} <= named
    pointed = {a["cause"] for k in cards["tick"]["checks"] for a in k["answers"] if a["cause"]}
    assert len(pointed) >= 2


def test_a_stop_is_acknowledged_by_name_and_written_down(shop: FlaskClient) -> None:
    told = tell(shop, symptoms={"sparks": "clear"})
    assert told["acknowledged"] == {}
    url = f"/api/faults/{told['id']}/stop"
    assert "who" in refused(shop, url, stop="sparks", who=" ")
    assert "is no stop here" in refused(shop, url, stop="smoke", who="Ada")[""]
    after = step(shop, told, "stop", stop="sparks", who="Ada")
    assert after["acknowledged"] == {"sparks": "Ada"}
    assert after["path"][-1]["words"] == "Stop acknowledged: Sparks fly."
    assert [s["key"] for s in after["stops"]][:1] == ["sparks"], "it still stands"


def test_a_saw_slackened_after_its_work_did_not_run_slack(shop: FlaskClient) -> None:
    shop.post("/api/runs", json=RUN)
    shop.post("/api/saws/1/tension", json={"state": "slack"})
    assert "tension_released" not in {r["reads"] for r in tell(shop)["readings"]}
    shop.post("/api/runs", json={**RUN, "client_key": "run-on-a-slack-saw"})
    released = next(r for r in tell(shop)["readings"] if r["reads"] == "tension_released")
    assert released["cause"] == "Tension too low" and released["times"] > 1


def test_troubles_and_signs_are_found_from_anywhere(shop: FlaskClient) -> None:
    told = tell(shop, symptoms={"hunts": "clear"}, note="since the new tyre")
    hits = shop.get("/api/search?q=band hunts").get_json()
    places = [h["place"] for h in hits if "Band hunts" in h["title"]]
    assert places == ["/faults?signs=hunts", f"/faults/{told['id']}"], "the sign itself first"
    shop.delete(f"/api/faults/{told['id']}")
    after = shop.get("/api/search?q=new tyre").get_json()
    assert "trouble" not in {h["noun"] for h in after}


def test_old_records_and_thin_ones_are_not_those_of_the_trouble(shop: FlaskClient) -> None:
    """A run of last month tells no feed; a band long here with one run has others unwritten."""
    run = shop.post("/api/runs", json=RUN).get_json()
    fresh = {r["reads"] for r in tell(shop)["readings"]}
    assert {"feed_over_ceiling", "runs_since_welding"} <= fresh
    with shop.application.extensions["store"].write() as session:
        session.get_one(RunRow, run["id"]).at -= timedelta(days=30)
        session.get_one(BandRow, 1).arrived_at -= timedelta(days=300)
    stale = {r["reads"] for r in tell(shop)["readings"]}
    assert not stale & {"feed_over_ceiling", "runs_since_welding"}
    assert "dullness" in stale


def test_a_trial_board_is_held_against_the_face_that_was_read_before(shop: FlaskClient) -> None:
    saved(shop, "/api/jobs/1", {"band_id": 1})
    shop.post("/api/runs", json=RUN)
    places = [(x, y) for x in (0.0, 0.5, 1.0) for y in (-1.0, 0.0, 1.0)]
    readings = [[x, y, 14.0 + 1.5 * (1 / 3 - y * y)] for x, y in places]
    assert shop.post("/api/faces", json={"job_id": 1, "readings": readings}).status_code == 201
    told = tell(shop, symptoms={"barrel": "clear"})
    flat = {f"{a}_{u}_mm": 14.0 for a in ("start", "end") for u in ("top", "middle", "bottom")}
    found = step(shop, told, "measure", check="swap_band", figures=flat)
    assert found["outcome"] == "gone" and "it was 1.50 mm" in _said(found["words"])
    late = tell(shop, job_id=None, symptoms={"barrel": "clear"})
    url = f"/api/faults/{late['id']}/measure"
    said = refused(shop, url, check="swap_band", figures=flat)
    assert said["check"].startswith("needs a face of the job")


def test_what_plan_says_of_the_band_is_looked_up(shop: FlaskClient) -> None:
    found = step(shop, tell(shop), "measure", check="plan_fit", figures={})
    assert found["words"].startswith("Plan:")
    bare = tell(shop, job_id=None)
    said = refused(shop, f"/api/faults/{bare['id']}/measure", check="plan_fit", figures={})
    assert said["check"].startswith("needs a job and its band")


def test_another_check_may_be_chosen_but_none_that_runs_the_saw_before_a_look(
    shop: FlaskClient,
) -> None:
    told = tell(shop)
    skipped = step(shop, told, "answer", check=told["check"]["key"], outcome="skip")
    others = {c["key"]: c for c in skipped["other_checks"]}
    assert others[told["check"]["key"]]["may"], "what was skipped can be made after all"
    url = f"/api/faults/{told['id']}?check="
    chosen = shop.get(f"{url}{told['check']['key']}").get_json()
    assert chosen["check"]["key"] == told["check"]["key"]
    assert chosen["check"]["why"] == ["Your choice."]
    runs = shop.get(f"{url}no_load")
    assert runs.status_code == 409, "a weld that may be proud is looked at first"
    assert shop.get(f"{url}crystal_ball").status_code == 422
