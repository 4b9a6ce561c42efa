"""How keen a band is told to be: judged, weighed, looked over, photographed."""

import io
from typing import Any

import pytest
from flask.testing import FlaskClient
from PIL import Image

from jade_ribbon.services.rack.replay import RULES_VERSION, bring_up
from jade_ribbon.store.models import BandRow, SawRow
from tests.support.walks import RUN

PAGE = "/api/bands/1"


def event(shop: FlaskClient, **given: Any) -> Any:
    answer = shop.post(f"{PAGE}/events", json=given)
    assert answer.status_code == 201, answer.json
    return answer.get_json()


def test_a_tap_wins_and_is_kept_with_what_it_moved(shop: FlaskClient) -> None:
    shop.post("/api/runs", json=RUN)
    event(shop, kind="edge_judged", value=0.5, detail="half")
    page = shop.get(PAGE).get_json()
    assert [e["kind"] for e in page["evidence"]] == ["metres", "judged"]
    assert page["evidence"][-1]["taken"] == page["band"]["dullness"] == 0.5
    assert page["band"]["edge_equivalent_m"] == pytest.approx(
        page["runs"][0]["equivalent_m"], rel=1e-6
    )
    assert page["next"]["do"] == "use"


def test_a_weight_tells_the_edge_only_on_the_saw_it_is_on(shop: FlaskClient) -> None:
    weighed = {
        "saw_id": 1,
        "material": "european_larch_dry",
        "height_mm": 50,
        "length_mm": 300,
        "weight_kg": 4,
        "seconds": 10,
    }
    refused = shop.post(f"{PAGE}/weighed", json=weighed)
    assert refused.status_code == 409 and "mount it first" in refused.get_json()["detail"]
    shop.post("/api/saws/1/mount", json={"band_id": 1})
    wrong = shop.post(f"{PAGE}/weighed", json={**weighed, "material": "cheese"})
    assert wrong.status_code == 422 and wrong.get_json()["errors"][0]["path"] == "material"
    first = shop.post(f"{PAGE}/weighed", json=weighed).get_json()
    assert first["dullness"] == pytest.approx(0.0, abs=1e-6)
    slower = shop.post(f"{PAGE}/weighed", json={**weighed, "seconds": 18}).get_json()
    told = next(e for e in shop.get(PAGE).get_json()["evidence"] if e["kind"] == "weighed")
    assert told["says"] > 0.2 and slower["dullness"] >= 0.0
    assert shop.get(PAGE).get_json()["events"][-1]["value"] == pytest.approx(1.0)


def test_a_sharpening_is_kept_with_how_and_what_it_cost(shop: FlaskClient) -> None:
    shop.post("/api/runs", json=RUN)
    how = {"way": "in_house", "ground": "face", "angle_deg": 10, "set_after_mm": 0.4}
    event(shop, kind="sharpened", value=0.8, minutes=25, cost=3.5, sharpened=how)
    kept = shop.get(PAGE).get_json()
    (line,) = [e for e in kept["events"] if e["kind"] == "sharpened"]
    assert (line["minutes"], line["cost"], line["facts"]["ground"]) == (25, 3.5, "face")
    assert kept["band"]["set_per_side_mm"] == 0.4
    assert [w["key"] for w in kept["sharpening"]["ways"]] == [
        "in_house",
        "on_saw",
        "send_out",
        "never",
    ]
    refused = shop.post(f"{PAGE}/events", json={"kind": "cleaned", "minutes": 4})
    assert refused.status_code == 422


def test_an_arrival_passes_only_by_what_was_looked_at(shop: FlaskClient) -> None:
    some = shop.post(f"{PAGE}/looked-over", json={"length_mm": 3361}).get_json()
    assert some["arrival"]["verdict"] == "cannot_tell"
    whole = {
        "length_mm": 3361,
        "width_mm": 19.1,
        "thickness_mm": 0.81,
        "pitch_mm": 12.7,
        "set_left_mm": [0.40, 0.41, 0.39, 0.40, 0.41, 0.40, 0.39, 0.40, 0.41, 0.40],
        "set_right_mm": [0.40, 0.39, 0.40, 0.41, 0.40, 0.40, 0.41, 0.39, 0.40, 0.40],
        "back_bow_mm": 0.2,
        "weld_right": True,
        "direction_right": True,
        "tag_right": True,
    }
    passed = shop.post(f"{PAGE}/looked-over", json=whole).get_json()
    assert passed["arrival"]["verdict"] == "right", passed["arrival"]["findings"]
    assert passed["arrival"]["measured_set"]["kerf_mm"] == pytest.approx(1.61, abs=0.005)
    assert passed["band"]["set_per_side_mm"] == pytest.approx(0.4, abs=0.01)
    uneven = {**whole, "set_left_mm": [v + 0.2 for v in whole["set_right_mm"]]}  # type: ignore[attr-defined]
    claimed = shop.post(f"{PAGE}/looked-over", json=uneven).get_json()["arrival"]
    assert claimed["verdict"] == "claim"
    even = next(f for f in claimed["findings"] if f["key"] == "even")
    assert even["verdict"] == "claim" and "leads to the left" in even["words"]


def test_photographs_of_a_band_are_small_and_with_their_run(shop: FlaskClient) -> None:
    logged = shop.post("/api/runs", json=RUN).get_json()
    noisy = io.BytesIO()
    Image.effect_noise((2400, 1800), 120).convert("RGB").save(noisy, "JPEG", quality=95)
    assert noisy.tell() < 8_000_000
    url = f"{PAGE}/photo?shows=face&run_id={logged['id']}"
    kind = {"content_type": "application/octet-stream"}
    assert shop.post(url, data=noisy.getvalue(), **kind).status_code == 201
    (photo,) = shop.get(PAGE).get_json()["photos"]
    assert (photo["shows"], photo["run_id"]) == ("face", logged["id"])
    assert len(shop.get(f"/api/photos/{photo['id']}.jpg").data) <= 400_000
    other = shop.post(f"{PAGE}/photo?run_id=99", data=noisy.getvalue(), **kind)
    assert other.status_code == 404
    huge = shop.post(f"{PAGE}/photo", data=b"x" * 8_500_000, **kind)
    assert huge.status_code == 422 and "8 MB" in huge.get_json()["errors"][0]["message"]


def test_what_lives_teach_is_told_and_followed(shop: FlaskClient) -> None:
    for n in range(3):
        shop.post("/api/runs", json={**RUN, "client_key": f"life-number-{n}"})
        event(shop, kind="sharpened", value=0.9)
    told = shop.get("/api/rack/learned").get_json()
    assert [(x["sharpenings"], x["dull"]) for x in told["lives"]] == [
        (0, True),
        (1, True),
        (2, True),
    ]
    assert {s["sharpenings"] for s in told["steels"]} == {0, 1, 2}
    assert all(0 < s["one_more"] < 0.5 for s in told["steels"])


def test_a_record_of_older_rules_is_replayed_when_the_file_is_opened(shop: FlaskClient) -> None:
    shop.post("/api/runs", json=RUN)
    store = shop.application.extensions["store"]
    with store.write() as session:
        session.get(BandRow, 1).edge_equivalent_m = 1.0
        session.connection().exec_driver_sql("PRAGMA user_version = 0")
    assert bring_up(store) == 1
    assert shop.get(PAGE).get_json()["band"]["edge_equivalent_m"] > 1.0
    with store.read() as session:
        kept = session.connection().exec_driver_sql("PRAGMA user_version").scalar()
    assert kept == RULES_VERSION
    assert bring_up(store) == 0


def test_cuts_by_a_weight_at_another_speed_are_not_held_against_each_other(
    shop: FlaskClient,
) -> None:
    shop.post("/api/saws/1/mount", json={"band_id": 1})
    weighed = {"saw_id": 1, "material": "european_larch_dry", "height_mm": 50, "length_mm": 300}
    with shop.application.extensions["store"].write() as session:
        session.get(SawRow, 1).speed_set_m_s = 14.5
    shop.post(f"{PAGE}/weighed", json={**weighed, "weight_kg": 4, "seconds": 10})
    with shop.application.extensions["store"].write() as session:
        session.get(SawRow, 1).speed_set_m_s = 7.0
    shop.post(f"{PAGE}/weighed", json={**weighed, "weight_kg": 4, "seconds": 20})
    kinds = [e["kind"] for e in shop.get(PAGE).get_json()["evidence"]]
    assert "weighed" not in kinds
