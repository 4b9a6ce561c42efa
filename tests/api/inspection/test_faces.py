"""Inspect: faces kept, advised on, teaching their saw; watts teaching a material."""

from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.support.edits import saved
from tests.support.walks import RUN, plan

NINE = [(x, y) for x in (0.0, 0.5, 1.0) for y in (-1.0, 0.0, 1.0)]


@pytest.fixture
def sawn(shop: FlaskClient) -> FlaskClient:
    """The job has its band on the saw, and a run was logged."""
    assert saved(shop, "/api/jobs/1", {"band_id": 1}).status_code == 200
    assert shop.post("/api/runs", json=RUN).status_code == 201
    return shop


def face(barrel: float = 0.0, taper: float = 0.0, **more: Any) -> dict[str, Any]:
    readings = [
        [x, y, 14.6 + taper * (x - 0.5) + barrel * (1 / 3 - y * y) + 0.01 * (-1) ** i]
        for i, (x, y) in enumerate(NINE)
    ]
    return {"job_id": 1, "readings": readings, **more}


def test_a_face_is_kept_with_its_parts_and_the_change_that_matters(sawn: FlaskClient) -> None:
    answer = sawn.post("/api/faces", json=face(barrel=2.2, piece="3")).get_json()
    parts = {p["key"]: p for p in answer["face"]["parts"]}
    assert parts["barrel"]["amount_mm"] == pytest.approx(2.2, abs=0.03)
    assert parts["barrel"]["verdict"] == "over" and parts["taper"]["verdict"] == "within"
    assert answer["advice"]["part"] == "barrel"
    run = sawn.get("/api/bands/1").get_json()["runs"][0]
    assert answer["feed_m_min"] == pytest.approx(run["feed_m_min"])
    page = sawn.get("/api/jobs/1/faces").get_json()
    assert [f["piece"] for f in page["faces"]] == ["3"] and page["tolerance_mm"] == 0.8


def test_faces_teach_the_saw_and_taking_one_back_unteaches_it(sawn: FlaskClient) -> None:
    before = plan(sawn, tolerance_mm=0.8)["best"]["window"]["limits_m_min"]
    bent = sawn.post("/api/faces", json=face(barrel=0.25, feed_m_min=12.0)).get_json()
    side = sawn.get("/api/jobs/1/faces").get_json()["side"]
    assert side["faces"] == 1 and side["factor"] > 1.2 and side["low"] < side["factor"]
    after = plan(sawn, tolerance_mm=0.8)["best"]["window"]["limits_m_min"]
    assert after["straight"] < before["straight"]
    assert sawn.delete(f"/api/faces/{bent['id']}").status_code == 200
    assert sawn.get("/api/jobs/1/faces").get_json()["side"] is None
    assert plan(sawn, tolerance_mm=0.8)["best"]["window"]["limits_m_min"] == before
    assert sawn.post(f"/api/changes/{bent['change_id'] + 1}/undo").status_code == 200
    assert sawn.get("/api/jobs/1/faces").get_json()["side"] == side


def test_straight_faces_make_a_saw_no_worse(sawn: FlaskClient) -> None:
    """Too straight to tell they say nothing; straight though fed hard, that the saw is good."""
    sawn.post("/api/faces", json=face(barrel=0.02))
    assert sawn.get("/api/jobs/1/faces").get_json()["side"] is None
    told = []
    for _ in range(4):
        sawn.post("/api/faces", json=face(barrel=0.02, feed_m_min=40.0))
        side = sawn.get("/api/jobs/1/faces").get_json()["side"]
        told.append((side["faces"], side["doubted"]))
    assert side["factor"] < 0.7 and told[-1][0] == 4


def test_one_face_far_from_the_usual_waits_for_others(sawn: FlaskClient) -> None:
    before = plan(sawn, tolerance_mm=0.8)["best"]["window"]["limits_m_min"]
    for n in range(3):
        sawn.post("/api/faces", json=face(barrel=0.4))
        side = sawn.get("/api/jobs/1/faces").get_json()["side"]
        assert (side["faces"], side["doubted"]) == ((0, n + 1) if n < 2 else (3, 0))
        if n < 2:
            assert plan(sawn, tolerance_mm=0.8)["best"]["window"]["limits_m_min"] == before


def test_what_no_push_could_do_is_never_believed(sawn: FlaskClient) -> None:
    for _ in range(4):
        sawn.post("/api/faces", json=face(barrel=9.0))
    side = sawn.get("/api/jobs/1/faces").get_json()["side"]
    assert (side["faces"], side["doubted"]) == (0, 4)


def test_a_stand_ins_board_teaches_nothing(sawn: FlaskClient) -> None:
    sawn.post("/api/faces", json=face(barrel=2.2, simulated=True))
    assert sawn.get("/api/jobs/1/faces").get_json()["side"] is None


def test_the_stand_in_probes_the_board_that_the_simulated_saw_cuts(sawn: FlaskClient) -> None:
    spot = {"along": 0.5, "up": 0.0}
    refused = sawn.post("/api/jobs/1/probe", json=spot)
    assert refused.status_code == 409 and "type it" in refused.get_json()["detail"]
    saved(sawn, "/api/setting-up", {"instruments": {"caliper": "simulated"}})

    def read(along: float, up: float) -> float:
        for _ in range(20):
            answer = sawn.post("/api/jobs/1/probe", json={"along": along, "up": up})
            if answer.status_code == 200:
                return float(answer.get_json()["value_mm"])
        raise AssertionError("twenty dropouts in a row")

    middle = [read(0.5, 0.0) for _ in range(5)]
    assert max(middle) - min(middle) < 1.5
    assert 12.0 < sum(middle) / 5 < 17.0


@pytest.mark.parametrize(
    ("changed", "words"),
    [
        ({"readings": [[0, 0, 14], [1, 0, 14], [0.5, 0, 14]]}, "line"),
        ({"readings": [[0, 0, 14]]}, "readings"),
        ({"readings": [[2.0, 0, 14]] * 4}, "place along"),
        ({"feed_m_min": -1}, "feed_m_min"),
        ({"job_id": 99}, "no job 99"),
    ],
)
def test_bad_readings_say_what_is_wrong(
    sawn: FlaskClient, changed: dict[str, Any], words: str
) -> None:
    refused = sawn.post("/api/faces", json={**face(), **changed})
    assert refused.status_code in (404, 422) and words in refused.text


def test_before_saw_and_band_are_chosen_there_is_nothing_to_inspect(shop: FlaskClient) -> None:
    page = shop.get("/api/jobs/1/faces").get_json()
    assert "Plan it first" in page["why_not"]
    assert shop.post("/api/faces", json=face()).status_code == 409


def test_watts_move_the_material_and_are_taken_back_with_their_run(sawn: FlaskClient) -> None:
    before = plan(sawn)["best"]
    run = {**RUN, "client_key": "with-watts-1", "power_W": 1200.0, "idle_W": 250.0}
    logged = sawn.post("/api/runs", json=run).get_json()
    own = sawn.get("/api/shop").get_json()["pressures"]["european_larch_dry"]
    assert own["runs"] == 1 and own["K_ref_MPa"] != pytest.approx(76.0, rel=0.01)
    after = plan(sawn)["best"]
    limits = [b["window"]["limits_m_min"]["power"] for b in (before, after)]
    assert limits[1] != pytest.approx(limits[0], rel=0.01)
    narrower = [b["spread"]["limits"]["power"] for b in (before, after)]
    shares = [(s["high"] - s["low"]) / (s["high"] + s["low"]) for s in narrower]
    assert shares[1] < shares[0]
    sawn.delete(f"/api/runs/{logged['id']}")
    assert sawn.get("/api/shop").get_json()["pressures"] == {}
    for odd, words in (
        ({"power_W": 100.0, "idle_W": 250.0}, "idling"),
        ({"power_W": 9.0}, "idle_W"),
    ):
        refused = sawn.post("/api/runs", json={**RUN, "client_key": "odd-watts-1", **odd})
        assert refused.status_code == 422 and words in refused.text


def test_a_torn_face_makes_the_edge_duller_until_it_is_taken_back(sawn: FlaskClient) -> None:
    before = sawn.get("/api/bands/1").get_json()["band"]["dullness"]
    torn = sawn.post("/api/faces", json=face(roughness=5)).get_json()
    assert torn["roughness"]["over"] >= 1 and not torn["roughness"]["enough"]
    assert sawn.get("/api/bands/1").get_json()["band"]["dullness"] >= before
    assert sawn.delete(f"/api/faces/{torn['id']}").status_code == 200
    assert sawn.get("/api/bands/1").get_json()["band"]["dullness"] == pytest.approx(before)


def test_ridges_name_their_source_from_the_run_s_own_speed(sawn: FlaskClient) -> None:
    found = sawn.post("/api/faces", json=face(ridge_mm=7.5, feed_m_min=2.0)).get_json()
    assert found["ridges"]["frequency_Hz"] == pytest.approx(2000 / 60 / 7.5)
    assert found["ridges"]["nearest"][0]["source"] == "weld" and found["ridge_words"]


def test_a_trial_on_another_wood_is_judged_for_the_job_s_own(sawn: FlaskClient) -> None:
    proposal = sawn.get("/api/jobs/1/faces").get_json()["proposal"]
    tried = sawn.post("/api/faces", json=face(barrel=0.1, trial=proposal["material"])).get_json()
    assert tried["trial_name"] == proposal["name"]
    assert tried["judgement"]["ready"] and tried["judgement"]["push_ratio"] > 0.5
    wrong = sawn.post("/api/faces", json=face(trial="cheese"))
    assert wrong.status_code == 422 and "a material of the list" in str(wrong.get_json())


def test_where_the_feed_stopped_is_told_with_the_waves_it_left(sawn: FlaskClient) -> None:
    stopped = RUN | {"client_key": "stopped-one", "stops": [{"along_mm": 1200, "why": "hands"}]}
    assert sawn.post("/api/runs", json=stopped).status_code == 201
    waves = [[x, y, 14.0 + 1.8 * (-1) ** (i // 2)] for i, (x, y) in enumerate(NINE)]
    found = sawn.post("/api/faces", json={"job_id": 1, "readings": waves}).get_json()
    assert found["stops"] == [1200]


def test_a_face_says_what_it_moved_and_what_led_the_work(sawn: FlaskClient) -> None:
    bent = sawn.post("/api/faces", json=face(barrel=0.25, feed_m_min=12.0, guided="point"))
    found = bent.get_json()
    assert found["guided"] == "point" and found["moved"]["before"] == 1.0
    side = sawn.get("/api/jobs/1/faces").get_json()["side"]
    assert found["moved"]["after"] == pytest.approx(side["factor"])
    assert sawn.post("/api/faces", json=face(guided="string")).status_code == 422
