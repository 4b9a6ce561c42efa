"""Stock: billets and logs kept, opened, mapped, and what they give for a job."""

from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.support.edits import saved

BILLET = {
    "kind": "billet",
    "label": "L-1",
    "material": "european_larch_dry",
    "thickness_mm": 60,
    "height_mm": 185,
    "length_mm": 3700,
    "price": 40,
    "moisture_pct": 12,
    "trued": "face_edge",
}
LOG = {
    "kind": "log",
    "label": "G-1",
    "material": "scots_pine_green",
    "small_end_mm": 400,
    "bark_mm": 10,
    "length_mm": 3000,
    "price": 90,
}


def added(client: FlaskClient, body: dict[str, Any], **changed: Any) -> dict[str, Any]:
    answer = client.post("/api/stock", json=body | changed)
    assert answer.status_code == 201, answer.get_json()
    found: dict[str, Any] = answer.get_json()
    return found


def asked(client: FlaskClient, stock_id: int, **question: Any) -> dict[str, Any]:
    answer = client.post(f"/api/stock/{stock_id}/plan", json=question)
    assert answer.status_code == 200, answer.get_json()
    found: dict[str, Any] = answer.get_json()
    return found


def test_a_billet_is_kept_changed_and_taken_off(shop: FlaskClient) -> None:
    kept = added(shop, BILLET)
    assert kept["readiness"]["verdict"] == "ready"
    twice = shop.post("/api/stock", json=BILLET | {"label": "l-1 "})
    assert twice.status_code == 409
    assert saved(shop, f"/api/stock/{kept['id']}", {"moisture_pct": 25}).status_code == 200
    wet = shop.get(f"/api/stock/{kept['id']}").get_json()
    assert wet["readiness"]["verdict"] == "not_ready" and wet["readiness"]["oversize_high"] > 0.03
    gone = shop.delete(f"/api/stock/{kept['id']}").get_json()
    assert shop.get("/api/stock").get_json() == []
    assert shop.post(f"/api/changes/{gone['change_id']}/undo").status_code == 200
    assert [s["label"] for s in shop.get("/api/stock").get_json()] == ["L-1"]


@pytest.mark.parametrize(
    ("changed", "words"),
    [
        ({"thickness_mm": None}, "a billet needs thickness_mm and height_mm"),
        ({"kind": "log"}, "a log needs small_end_mm"),
        ({"material": "cheese"}, "accepted: a material of the list"),
        ({"moisture_pct": 400}, "out of range"),
        ({"bow_mm": 299, "length_mm": 1000}, "is no bow"),
        ({"moisture_at": "2999-01-01T00:00:00Z"}, "still to come"),
    ],
)
def test_stock_that_cannot_be_is_refused_by_name(
    shop: FlaskClient, changed: dict[str, Any], words: str
) -> None:
    answer = shop.post("/api/stock", json=BILLET | changed)
    assert answer.status_code == 422 and words in str(answer.get_json())


def test_a_job_takes_its_billet_and_sees_what_it_gives(shop: FlaskClient) -> None:
    kept = added(shop, BILLET)
    saved(shop, "/api/jobs/1", {"band_id": 1, "slice_mm": 14, "count": 3, "length_mm": 3500})
    job = shop.post("/api/jobs/1/stock", json={"stock_id": kept["id"]}).get_json()
    assert (job["stock_id"], job["billet_mm"]) == (kept["id"], 60)
    found = asked(shop, kept["id"], job_id=1)
    best = found["billet"]["worth"]["ways"][0]
    kerf = found["cut_with"]["kerf_mm"]
    # 60 less a millimetre to true: as many slices and kerfs as fit.
    assert best["slices"] == int((59 + kerf) // (14 + kerf))
    assert found["billet"]["laid"]["pieces"] == best["slices"]
    laid = found["billet"]["cuts_mm"]
    moved = asked(shop, kept["id"], job_id=1, cuts_mm=[laid[0] - 1.0, *laid[1:]])
    assert moved["billet"]["laid"]["pieces"] == best["slices"] - 1
    dearer = asked(shop, kept["id"], job_id=1, bought_mm=32)["billet"]["worth"]
    assert dearer["planed_a_piece"] > dearer["ways"][0]["money_a_piece"]
    assert shop.delete(f"/api/stock/{kept['id']}").status_code == 409


def test_a_reactive_billet_is_opened_and_each_part_planned_anew(shop: FlaskClient) -> None:
    kept = added(shop, BILLET, thickness_mm=100, reactive=True)
    saved(shop, "/api/jobs/1", {"band_id": 1, "slice_mm": 14})
    first = asked(shop, kept["id"], job_id=1)["billet"]["opening"]
    assert first["way"] == "halve"
    shop.post(
        f"/api/stock/{kept['id']}/metal", json={"along_mm": 900, "depth_mm": 70, "kind": "nail"}
    )
    cut = {
        "from_face_mm": first["from_face_mm"],
        "kerf_mm": 1.4,
        "first_bow_mm": 0.4,
        "second_bow_mm": -0.3,
    }
    opened = shop.post(f"/api/stock/{kept['id']}/open", json=cut).get_json()
    assert [s["label"] for s in shop.get("/api/stock").get_json()] == ["L-1/2", "L-1/1"]
    assert opened["first"]["price"] + opened["second"]["price"] == pytest.approx(39.44, abs=0.02)
    part = asked(shop, opened["first"]["id"], job_id=1)
    assert part["billet"]["opening"]["way"] == "slice" and part["billet"]["grew_mm"] == 0.4
    far = asked(shop, opened["second"]["id"], job_id=1)["metal"]["marks"]
    assert [m["depth_mm"] for m in far] == [pytest.approx(70 - first["from_face_mm"] - 1.4)]
    assert shop.post(f"/api/changes/{opened['change_id']}/undo").status_code == 200
    assert [s["label"] for s in shop.get("/api/stock").get_json()] == ["L-1"]


def test_metal_is_mapped_and_dug_out(shop: FlaskClient) -> None:
    kept = added(shop, BILLET, suspect="nails")
    assert kept["readiness"]["verdict"] == "not_ready"
    shop.post(f"/api/stock/{kept['id']}/metal", json={"along_mm": 300, "state": "dug_out"})
    assert asked(shop, kept["id"], job_id=1)["metal"]["choice"] is None  # no band, no price of it
    saved(shop, "/api/jobs/1", {"band_id": 1, "slice_mm": 14})
    url = f"/api/stock/{kept['id']}/metal"
    nail = shop.post(url, json={"along_mm": 900, "depth_mm": 30}).get_json()
    past = shop.post(url, json={"along_mm": 9000})
    assert past.status_code == 422 and "past its end" in str(past.get_json())
    found = asked(shop, kept["id"], job_id=1)["metal"]
    assert found["zones"] == [{"from_mm": 825.0, "to_mm": 975.0, "marks": 1}]
    # Thirty deep crosses the cuts at 14 and 29.
    assert found["strikes"] == 2.0 and found["choice"]["better"] in ("dig", "saw", "cannot_tell")
    edit = {"version": nail["version"], "state": "dug_out"}
    assert shop.patch(f"/api/metal/{nail['id']}", json=edit).status_code == 200
    assert asked(shop, kept["id"], job_id=1)["metal"]["zones"] == []


def test_a_log_gives_boards_either_way(shop: FlaskClient) -> None:
    kept = added(shop, LOG)
    nothing = asked(shop, kept["id"])
    assert nothing["log"] is None and "how thick" in str(nothing["why_not"])
    found = asked(shop, kept["id"], board_mm=27)["log"]
    assert found["through"]["boards"] == len(found["boards"])
    assert found["cant"]["boards"] > 0 and found["cant_m3"] > 0
    forced = asked(shop, kept["id"], board_mm=27, cant_mm=200)["log"]["cant"]
    assert forced["cant_mm"] == 200
    assert found["cant"]["board_area_mm2"] >= forced["board_area_mm2"]
    wide = shop.post(f"/api/stock/{kept['id']}/plan", json={"board_mm": 27, "cant_mm": 390})
    assert wide.status_code == 422 and "more than the log" in str(wide.get_json())


def test_rings_and_circles(shop: FlaskClient) -> None:
    ring = {
        "segments": 8,
        "radius_mm": 200,
        "joint_width_mm": 40,
        "gap_allowed_mm": 0.3,
        "face_error_deg": 0,
        "kerf_mm": 1.4,
    }
    assert shop.post("/api/ring", json=ring).get_json()["face_deg"] == 22.5
    circle = {
        "saw_id": 1,
        "radius_mm": 300,
        "drift_deg": 1.0,
        "pivot_behind_tooth_line_mm": 0,
        "blank_mm": 640,
        "table_reach_mm": 250,
    }
    found = shop.post("/api/circle", json=circle).get_json()
    assert found["pin"]["right_behind_mm"] == pytest.approx(5.24, abs=0.01)


def test_a_photograph_is_kept_shown_and_taken_back(shop: FlaskClient) -> None:
    import io

    from PIL import Image

    kept = added(shop, BILLET)
    picture = io.BytesIO()
    Image.new("RGB", (64, 48)).save(picture, "PNG")
    url, binary = f"/api/stock/{kept['id']}/photo", "application/octet-stream"
    assert shop.post(url, data=picture.getvalue(), content_type=binary).status_code == 201
    shown = shop.get(f"/api/stock/{kept['id']}").get_json()["photo_id"]
    answer = shop.get(f"/api/photos/{shown}.jpg")
    assert answer.mimetype == "image/jpeg" and answer.data[:2] == b"\xff\xd8"
    gone = shop.delete(f"/api/photos/{shown}").get_json()["change_id"]
    assert shop.get(f"/api/photos/{shown}.jpg").status_code == 404
    assert shop.post(f"/api/changes/{gone}/undo").status_code == 200
    assert shop.get(f"/api/photos/{shown}.jpg").status_code == 200
    assert shop.post(url, data=b"no picture", content_type=binary).status_code == 422


def test_marks_are_printed_at_true_size(shop: FlaskClient) -> None:
    kept = added(shop, BILLET)
    saved(shop, "/api/jobs/1", {"band_id": 1, "slice_mm": 14})
    sheet = shop.get(f"/api/stock/{kept['id']}/marks.pdf?job_id=1&cuts=14.0,29.4")
    assert sheet.status_code == 200 and sheet.data[:4] == b"%PDF"
    assert shop.get(f"/api/stock/{kept['id']}/marks.pdf?job_id=x").status_code == 422
    assert shop.get(f"/api/stock/{kept['id']}/marks.pdf").status_code == 409


def test_what_is_sawn_up_leaves_the_rack_and_can_come_back(shop: FlaskClient) -> None:
    kept = added(shop, BILLET)
    change = shop.post(f"/api/stock/{kept['id']}/used").get_json()["change_id"]
    assert shop.get("/api/stock").get_json() == []
    assert shop.post(f"/api/stock/{kept['id']}/used").status_code == 409
    assert shop.post(f"/api/changes/{change}/undo").status_code == 200
    assert len(shop.get("/api/stock").get_json()) == 1
