"""Bad input to setting up: the field, what is accepted, nothing changed; and reads count SQL."""

from typing import Any

import pytest
from flask.testing import FlaskClient
from sqlalchemy import event

from tests.support.edits import saved
from tests.support.set_up import begin, whole
from tests.support.walks import open_card, tick_all

SETUP = "/api/setups/1"
SAW = "/api/saws/1"

REFUSED: tuple[tuple[str, str, dict[str, Any], str, str], ...] = (
    # method, path, body, path of the fault, words in its message
    ("POST", f"{SETUP}/steps", {"key": "tension", "done": "yes"}, "done", "true or false"),
    ("POST", f"{SETUP}/steps", {"key": "tea", "done": True}, "key", "is not a step; accepted"),
    (
        "POST",
        f"{SETUP}/steps",
        {"key": "guard", "done": True, "left": {"height_mm": 9e4}},
        "left.height_mm",
        "accepted: 0 to 5000",
    ),
    (
        "POST",
        f"{SETUP}/steps",
        {"key": "guard", "done": True, "found": {"stress_MPa": 9}},
        "found.stress_MPa",
        "is no reading of this step; accepted: height_mm",
    ),
    (
        "POST",
        f"{SETUP}/steps",
        {"key": "isolate", "done": True, "left": {"x": 1}},
        "left.x",
        "accepted: none",
    ),
    (
        "POST",
        f"{SETUP}/steps",
        {"key": "tension", "done": True, "means": "thumb"},
        "means",
        "gauge",
    ),
    ("POST", f"{SETUP}/tension", {"means": "gauge", "values": []}, "values", "at least 1"),
    ("POST", f"{SETUP}/tension", {"means": "gauge", "values": [-3]}, "values.0", "more than 0"),
    ("POST", f"{SETUP}/tension", {"means": "gauge"}, "values", "missing"),
    ("POST", f"{SETUP}/drift", {"offset_mm": 3, "run_mm": 5}, "run_mm", "at least 50"),
    ("POST", f"{SETUP}/drift", {"offset_mm": 900, "run_mm": 300}, "offset_mm", "at most 500"),
    ("POST", f"{SETUP}/tick", {"ticks": 0, "seconds": 10}, "ticks", "at least 1"),
    ("POST", f"{SETUP}/track", {"position_mm": 900, "creep_mm": 0}, "position_mm", "at most 100"),
    ("POST", f"{SETUP}/read", {"kind": "ear", "step": "a", "reading": "b"}, "kind", "caliper"),
    ("POST", "/api/instruments/zero", {"kind": "ear"}, "kind", "is no instrument"),
    ("POST", "/api/shims", {"gap_mm": -1, "stack_mm": 1}, "gap_mm", "at least 0"),
    ("POST", "/api/shims", {"gap_mm": 0.1, "stack_mm": 0}, "stack_mm", "at least 0.02"),
    ("PATCH", f"{SAW}/fittings", {"fence": "hedge"}, "fence", "single_point"),
    ("PATCH", f"{SAW}/fittings", {"tyre_width_mm": -3}, "tyre_width_mm", "more than 0"),
    ("PATCH", f"{SAW}/fittings", {"good_for_h": {"lunch": 1}}, "good_for_h.lunch", "is no step"),
    (
        "PATCH",
        f"{SAW}/fittings",
        {"cushion": 1},
        "cushion",
        "is not a known key; accepted: version, fence",
    ),
    (
        "POST",
        f"{SAW}/scale",
        {"reading": 3, "stress_MPa": 0.5, "means": "gauge"},
        "stress_MPa",
        "1",
    ),
    ("POST", f"{SAW}/scale", {"reading": 3, "stress_MPa": 90, "means": "eye"}, "means", "pluck"),
    (
        "POST",
        f"{SAW}/alignments",
        {"axis": "tilt", "wheel": "upper", "gap_mm": 99},
        "gap_mm",
        "at most 30",
    ),
    ("POST", f"{SAW}/alignments", {"axis": "yaw", "wheel": "upper", "gap_mm": 1}, "axis", "toe"),
    (
        "POST",
        f"{SAW}/speeds",
        {"nominal_m_s": 14.5, "turns": 0, "seconds": 9},
        "turns",
        "at least 1",
    ),
    ("POST", f"{SAW}/tyre", {"front_gap_mm": 1, "middle_gap_mm": 1}, "back_gap_mm", "missing"),
    ("POST", f"{SAW}/defects", {"text": "  "}, "text", "is empty; accepted: some words"),
    ("PATCH", "/api/setting-up", {"reserved": ["tea"]}, "reserved.0", "band_change"),
    (
        "PATCH",
        "/api/setting-up",
        {"instruments": {"thermometer": "simulated"}},
        "instruments.thermometer",
        "is unknown; accepted: strain_gauge",
    ),
    (
        "PATCH",
        "/api/setting-up",
        {"instruments": {"caliper": "magic"}},
        "instruments.caliper",
        "by_h",
    ),
    ("POST", "/api/band-types", {"width_mm": 0}, "width_mm", "more than 0"),
)


@pytest.mark.parametrize(
    ("method", "url", "body", "path", "words"), REFUSED, ids=lambda v: str(v)[:40]
)
def test_bad_input_names_its_field_and_what_is_accepted(
    shop: FlaskClient, method: str, url: str, body: dict[str, Any], path: str, words: str
) -> None:
    begin(shop)
    before = shop.get(SETUP).get_json()["steps"], shop.get(SAW).get_json()
    if method == "PATCH":
        answer = saved(shop, url, body)
    else:
        answer = shop.open(url, method=method, json=body)
    assert answer.status_code == 422, answer.json
    faults = {e["path"]: e["message"] for e in answer.get_json()["errors"]}
    assert path in faults and words in faults[path], faults
    assert before == (shop.get(SETUP).get_json()["steps"], shop.get(SAW).get_json())


@pytest.mark.parametrize(
    "url",
    [
        "/api/setups/99",
        "/api/setups/99/vibration",
        "/api/saws/99/stand",
        "/api/saws/99/scale",
        "/api/saws/99/speeds?target_m_s=10",
        "/api/saws/1/stand?job_id=99",
    ],
)
def test_what_is_not_there_is_not_found(shop: FlaskClient, url: str) -> None:
    answer = shop.get(url)
    assert answer.status_code == 404 and answer.get_json()["code"] == "not_found"


@pytest.mark.parametrize(
    ("url", "body"),
    [
        ("/api/alignments/9/moves", {"turns": 0.5, "gap_mm": 1}),
        ("/api/defects/9/close", {"who": "Brill"}),
        ("/api/setups/9/drift", {"offset_mm": 1, "run_mm": 300}),
    ],
)
def test_nothing_is_written_to_what_is_not_there(
    shop: FlaskClient, url: str, body: dict[str, Any]
) -> None:
    assert shop.post(url, json=body).status_code == 404


def test_doors_stay_shut_until_the_saw_is_isolated(shop: FlaskClient) -> None:
    """Every step with doors open is refused before isolating; those without are not."""
    url = begin(shop)
    for step in shop.get(url).get_json()["card"]["steps"][1:]:
        answer = shop.post(f"{url}/steps", json={"key": step["key"], "done": True})
        if step["doors_open"]:
            assert answer.status_code == 409, step["key"]
            assert "Isolate the saw first" in answer.get_json()["detail"]
        elif step["key"] in ("start", "drift", "trial"):
            assert answer.status_code == 409, step["key"]
            assert "mount this one first" in answer.get_json()["detail"]
        else:
            assert answer.status_code == 200, step["key"]
    skipped = shop.post(f"{url}/steps", json={"key": "isolate", "done": False, "skipped": "late"})
    assert skipped.get_json()["detail"] == "Isolating cannot be skipped."


def test_unticking_tension_slackens_the_saw_and_it_is_no_longer_ready(shop: FlaskClient) -> None:
    url = whole(shop)
    assert shop.get(url).get_json()["ready"]
    shop.post(f"{url}/steps", json={"key": "tension", "done": False})
    after = shop.get(url).get_json()
    assert not after["ready"] and after["tension_state"] == "slack"
    assert "Tension" in after["ready_words"]


def test_a_card_is_read_in_a_bounded_number_of_statements(shop: FlaskClient) -> None:
    """As many cards as the saw has had, no more statements than for the first."""

    def statements() -> int:
        seen: list[str] = []
        engine = shop.application.extensions["store"].engine

        def heard(*args: Any) -> None:
            seen.append(args[2])

        event.listen(engine, "before_cursor_execute", heard)
        shop.get("/api/setups/1")
        event.remove(engine, "before_cursor_execute", heard)
        return len([s for s in seen if s.startswith("SELECT")])

    whole(shop)
    first = statements()
    for _ in range(3):
        copy = shop.post("/api/jobs/1/duplicate").get_json()["id"]
        shop.post("/api/setups", json={"job_id": copy, "band_id": 1})
    assert statements() <= first + 4
    assert first < 45


def _ticked_but(shop: FlaskClient, url: str, key: str, left: dict[str, float], **more: Any) -> Any:
    """Every step done, one with a figure left."""
    answer = shop.get(url).get_json()
    for step in answer["card"]["steps"]:
        figures = {"left": left, **more} if step["key"] == key else {}
        body = {"key": step["key"], "done": True, "who": "Odda", **figures}
        posted = shop.post(f"{url}/steps", json=body)
        assert posted.status_code == 200, posted.get_json()
        answer = posted.get_json()
    return answer


def test_a_reading_left_out_of_its_limits_keeps_the_saw_from_ready(shop: FlaskClient) -> None:
    url = open_card(shop)
    shut = _ticked_but(shop, url, "tension", {"stress_MPa": 60.0})
    assert not shut["ready"] and shut["steps"]["tension"]["out"]
    assert shop.post(f"{url}/finish").status_code == 409
    named = {"allowed_by": "Odda", "allowed_why": "rough firewood, once"}
    allowed = _ticked_but(shop, url, "tension", {"stress_MPa": 60.0}, **named)
    assert allowed["ready"] and allowed["steps"]["tension"]["allowed_by"] == "Odda"
    assert shop.post(f"{url}/finish").status_code == 200
    last = shop.get("/api/saws/1/stand").get_json()["last"]
    assert last["allowed"] == ["tension: left so by Odda, rough firewood, once"]


def test_a_reason_needs_its_name_and_nothing_allows_more_than_the_steel(shop: FlaskClient) -> None:
    url = open_card(shop)
    tick_all(shop, url)
    half = {"key": "tension", "done": True, "left": {}, "allowed_by": "Odda"}
    assert shop.post(f"{url}/steps", json=half).status_code == 422
    named = {"allowed_by": "Odda", "allowed_why": "it holds"}
    over = {"key": "tension", "done": True, "left": {"stress_MPa": 280.0}, **named}
    refused = shop.post(f"{url}/steps", json=over)
    assert refused.status_code == 422


def test_what_a_step_done_anew_moves_is_to_be_checked_again(shop: FlaskClient) -> None:
    """More tension pulls the band over: tracking and guides are no longer as they were left."""
    url = open_card(shop)
    assert tick_all(shop, url)["ready"]
    again = {"key": "tension", "done": True, "left": {"stress_MPa": 140.0}, "who": "Odda"}
    shut = shop.post(f"{url}/steps", json=again).get_json()
    disturbed = [k for k, s in shut["steps"].items() if s["check_again"]]
    assert set(disturbed) == {"fine_track", "guides_upper", "guides_lower", "drift"}
    assert shut["ready_words"].startswith("Check again: Track again (since tension)")
    for key in disturbed:
        answer = shop.post(f"{url}/steps", json={"key": key, "done": True}).get_json()
    assert answer["ready"], answer["ready_words"]


def test_the_same_figure_recorded_again_disturbs_nothing(shop: FlaskClient) -> None:
    url = open_card(shop)
    tick_all(shop, url)
    body = {"key": "tension", "done": True, "note": "looked again", "who": "Odda"}
    assert shop.post(f"{url}/steps", json=body).get_json()["ready"]


def test_a_note_that_speaks_of_damage_asks_for_it(shop: FlaskClient) -> None:
    """A crack written into a note stops the card until it stands with the band, or is denied."""
    url = open_card(shop)
    tick_all(shop, url)
    note = {"key": "inspect", "done": True, "who": "Odda", "note": "small crack by the weld"}
    shut = shop.post(f"{url}/steps", json=note).get_json()
    assert not shut["ready"] and shut["steps"]["inspect"]["asks_defect"] == "crack"
    assert "record it with the band" in shut["ready_words"]
    denied = note | {"note": "no crack, no kink, weld flush"}
    assert shop.post(f"{url}/steps", json=denied).get_json()["ready"]


def test_a_stress_is_held_to_the_means_that_read_it(shop: FlaskClient) -> None:
    """The same figure near the low end passes by the gauge, and not by a push good to a tenth."""
    url = open_card(shop)
    low = shop.get(url).get_json()["card"]["tension"]["low_MPa"]
    for means, out in (("gauge", False), ("push", True)):
        answer = _ticked_but(shop, url, "tension", {"stress_MPa": low * 1.1}, means=means)
        assert bool(answer["steps"]["tension"]["out"]) == out, means
