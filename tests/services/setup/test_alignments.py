"""Truing wheels."""

from typing import Any

from flask.testing import FlaskClient

from tests.support.edits import saved
from tests.support.set_up import begin, plan_question, post, tick


def test_a_wheel_is_trued_and_its_answer_remembered(shop: FlaskClient) -> None:
    start: dict[str, Any] = {"axis": "tilt", "wheel": "upper", "gap_mm": 4.0, "who": "Wren"}
    slack = shop.post("/api/saws/1/alignments", json=start)
    assert slack.status_code == 409 and "at working tension" in slack.get_json()["detail"]
    url = begin(shop)
    for key in ("isolate", "mount", "tension"):
        tick(shop, url, key)
    begun = post(shop, "/api/saws/1/alignments", 201, **start)
    assert begun["advice"]["state"] == "turn" and begun["bolt"].startswith("Upper shaft, bolt at 6")
    assert begun["known_words"].startswith("This saw's answer to a turn is not known")
    gap, answer = 4.0, begun
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
    assert len(shop.get("/api/saws/1/alignments").get_json()["truings"]) == 2
    under = post(shop, "/api/saws/1/alignments", 201, **{**start, "gap_mm": 2.0})
    assert under["advice"]["state"] == "done" and under["advice"]["turns"] == 0.0
    assert "leave it" in str(under["advice"]["words"]) and under["turn_words"] == ""
    shim = {**start, "axis": "offset", "gap_mm": 4.0}
    assert "of shim" in str(post(shop, "/api/saws/1/alignments", 201, **shim)["turn_words"])


def test_wheels_out_of_plane_are_told_and_halve_what_is_straight(shop: FlaskClient) -> None:
    """From the gap read until it is trued: the band is pushed aside twice as far for a push."""
    url = begin(shop)
    for key in ("isolate", "mount", "tension"):
        tick(shop, url, key)
    question = plan_question(shop) | {"tolerance_mm": 0.5}

    def straight() -> tuple[float, list[str]]:
        told = shop.post("/api/plan", json=question).get_json()
        limits = told["best"]["window"]["limits_m_min"]
        return limits["straight"], [d["text"] for d in told["defects"]]

    before, nothing = straight()
    start: dict[str, Any] = {"axis": "tilt", "wheel": "upper", "gap_mm": 4.0, "who": "Wren"}
    begun = post(shop, "/api/saws/1/alignments", 201, **start)
    out, told = straight()
    assert out < 0.6 * before and told == [
        "The wheels were out of plane when last read: true them; until then the band is pushed "
        "aside twice as far."
    ]
    post(shop, f"/api/alignments/{begun['id']}/moves", turns=1.0, gap_mm=0.2)
    assert straight() == (before, nothing)


def test_a_saw_s_own_bolt_is_named_and_only_its_own_wheels(shop: FlaskClient) -> None:
    url = begin(shop)
    for key in ("isolate", "mount", "tension"):
        tick(shop, url, key)
    start: dict[str, Any] = {"axis": "toe", "wheel": "upper", "gap_mm": 4.0}
    usual = post(shop, "/api/saws/1/alignments", 201, **start)
    assert (
        usual["bolt"]
        == "Upper shaft, bolt at 9 o'clock seen from the doors, where it usually stands"
    )
    saved(shop, "/api/saws/1/fittings", {"toe_bolt_oclock": 3})
    own = shop.get("/api/saws/1/alignments").get_json()["truings"][0]
    assert (own["bolt"], own["oclock"]) == ("Upper shaft, bolt at 3 o'clock seen from the doors", 3)
    assert own["turn_words"] == "3/4 turn clockwise"
    for wheel in ("left", "third"):
        refused = shop.post("/api/saws/1/alignments", json=start | {"wheel": wheel}).get_json()
        assert refused["errors"][0]["path"] == "wheel"
        assert refused["errors"][0]["message"].endswith("accepted: upper, lower")
    odd = saved(shop, "/api/saws/1/fittings", {"toe_bolt_oclock": 13}).get_json()
    assert odd["errors"][0]["path"] == "toe_bolt_oclock"
