"""Plan for all the work: comparison, what-if, variants, materials, shopping, and one answer."""

import json
from typing import Any

import pytest
from click.testing import CliRunner
from flask.testing import FlaskClient

from jade_ribbon.cli import main
from tests.support.edits import saved
from tests.support.shop import BAND
from tests.support.walks import open_card, plan

CUT = {
    "operation": "resaw",
    "material": "european_larch_dry",
    "height_mm": 185,
    "length_mm": 3600,
    "count": 7,
    "finish": "plane",
    "saw_id": 1,
}
SMALL = {**BAND, "label": "K-01", "width_mm": 6.35, "thickness_mm": 0.64, "form": "regular"} | {
    "tpi_lo": 6,
    "tpi_hi": 6,
    "steel": "carbon_flexback",
}


def printed(job_file: Any) -> Any:
    """What the command line answers."""
    run = CliRunner().invoke(main, ["recommend", "-"], input=json.dumps(job_file))
    assert run.exit_code == 0, run.output
    return json.loads(run.output)


def ask(client: FlaskClient, path: str = "/api/plan", **changed: Any) -> Any:
    response = client.post(path, json={**CUT, **changed})
    assert response.status_code == 200, response.json
    return response.json


@pytest.mark.parametrize(
    "changed",
    [
        {},
        {"operation": "rip", "height_mm": 60, "material": "white_oak_dry"},
        {"operation": "crosscut", "height_mm": 60},
        {"operation": "curve", "height_mm": 40, "min_radius_mm": 60},
        {"operation": "circle", "height_mm": 40, "min_radius_mm": 300},
        {"operation": "wedge", "height_mm": 90, "angle_deg": 8},
        {"operation": "veneer", "height_mm": 100, "finish": "sand"},
        {"operation": "sheet", "material": "hdpe", "height_mm": 30},
        {"operation": "block", "material": "eps_xps_foam", "height_mm": 150, "finish": "rough"},
        {"operation": "bar", "material": "mild_steel", "height_mm": 30},
        {"operation": "tube", "material": "aluminium_6061", "height_mm": 40, "wall_mm": 4},
        {"operation": "reclaim", "material": "reclaimed_nails", "height_mm": 150},
        {"operation": "mill", "material": "scots_pine_green", "height_mm": 250},
    ],
    ids=lambda c: str(c.get("operation", "resaw")),
)
def test_command_line_file_and_screen_agree(shop: FlaskClient, changed: dict[str, Any]) -> None:
    shop.post("/api/bands", json=SMALL)
    screen = ask(shop, **changed)
    assert saved(shop, "/api/jobs/1", {**CUT, **changed, "name": "All"}).status_code == 200
    exported = shop.get("/api/jobs/1/file").get_json()
    by_file = printed(exported)
    best, file_best = screen["best"], by_file["recommended"]
    assert (best is None) == (file_best is None)
    if best is not None:
        assert best["band"]["label"] == file_best["band"]["label"]
        # The command line says six digits.
        feed, stress = file_best["feed_m_min"], file_best["stress_MPa"]
        assert best["figures"]["feed_m_min"] == pytest.approx(feed, rel=1e-5)
        assert best["stress_MPa"] == pytest.approx(stress, rel=1e-5)
    told = {e["label"]: [r["text"] for r in e["reasons"]] for e in screen["excluded"]}
    by_label = {e["band"]["label"]: [r["text"] for r in e["reasons"]] for e in by_file["excluded"]}
    assert told == by_label
    assert [c["text"] for c in screen["cautions"]] == [c["text"] for c in by_file["cautions"]]


def test_bands_are_compared_feasible_or_not(shop: FlaskClient) -> None:
    shop.post("/api/bands", json=SMALL)
    found = ask(shop, "/api/plan/compare", band_ids=[1, 2], operation="curve", min_radius_mm=90)
    assert [c["band"]["label"] for c in found] == ["K-07", "K-01"]
    assert found[0]["option"] is None
    assert "Turns 101 mm at the tightest" in found[0]["reasons"][0]["text"]
    missing = shop.post("/api/plan/compare", json={**CUT, "band_ids": [1, 77]})
    assert missing.get_json()["errors"] == [
        {"path": "band_ids.1", "message": "band 77 is not on the rack"}
    ]
    many = shop.post("/api/plan/compare", json={**CUT, "band_ids": [1, 2, 3, 4, 5]})
    assert many.status_code == 422


def ceiling(answer: Any) -> float:
    return float(answer["best"]["window"]["ceiling_m_min"])


@pytest.mark.parametrize(
    ("more", "less"),
    [
        ({"motor_kW": 3.0}, {"motor_kW": 0.8}),
        ({"dullness": 0.0}, {"dullness": 0.7}),
        ({"guard_gap_mm": 6.0}, {"guard_gap_mm": 50.0}),
    ],
)
def test_what_if_moves_the_window_the_right_way(
    shop: FlaskClient, more: dict[str, float], less: dict[str, float]
) -> None:
    own = ceiling(ask(shop))
    assert ceiling(ask(shop, what_if=more)) >= own >= ceiling(ask(shop, what_if=less))


def test_more_tension_holds_more_push(shop: FlaskClient) -> None:
    slack = ask(shop, what_if={"stress_MPa": 112.0})["best"]
    tight = ask(shop, what_if={"stress_MPa": 130.0})["best"]
    assert tight["edge_slack_N"] > slack["edge_slack_N"]
    assert tight["critical_force_N"] > slack["critical_force_N"]


def test_a_variant_is_kept_but_never_set_up(shop: FlaskClient) -> None:
    kept = shop.post(
        "/api/jobs", json={**CUT, "name": "Strakes, what if", "what_if": {"motor_kW": 3.0}}
    ).get_json()
    assert kept["what_if"] == {"motor_kW": 3.0}
    refused = shop.post("/api/setups", json={"job_id": kept["id"], "band_id": 1})
    assert refused.status_code == 409
    assert "reset them before setting up" in refused.get_json()["detail"]


LARCH = "/api/material?key=european_larch_dry"


def test_a_correction_stands_beside_the_original_and_is_undone(shop: FlaskClient) -> None:
    before = ask(shop)["best"]["figures"]["power_W"]
    body = {
        "name": "European larch (dry)",
        "changes": {"specific_cutting_pressure_MPa": 95.0, "abrasiveness": 0.65},
        "note": "cut with a meter on",
    }
    page = saved(shop, LARCH, body).get_json()
    figures = {f["field"]: (f["original"], f["own"]) for f in page["figures"]}
    assert figures["specific_cutting_pressure_MPa"] == (76.0, 95.0)
    assert figures["abrasiveness"] == (0.65, None)
    slower = ask(shop)["best"]
    assert slower["figures"]["power_W"] == pytest.approx(before)
    assert slower["window"]["limits_m_min"]["power"] < 2.5
    assert shop.get("/api/reference").get_json()["materials"][10]["own"] is True
    assert shop.post(f"/api/changes/{page['change_id']}/undo").status_code == 200
    assert ask(shop)["best"]["window"]["limits_m_min"]["power"] == pytest.approx(2.537, abs=0.01)
    assert shop.delete(LARCH).status_code == 404


def test_senseless_corrections_are_refused(shop: FlaskClient) -> None:
    body = {"name": "Larch", "changes": {"bite_max_mm": 0.01}}
    refused = saved(shop, LARCH, body)
    assert refused.get_json()["errors"] == [
        {"path": "bite_max_mm", "message": "0.01 is out of range; accepted: more than 0.03"}
    ]
    assert saved(shop, "/api/material?key=moonwood", body).status_code == 404


def test_a_new_material_comes_from_the_nearest(shop: FlaskClient) -> None:
    body = {
        "name": "Slip larch",
        "nearest": "european_larch_dry",
        "changes": {"abrasiveness": 1.3},
        "note": "",
    }
    made = shop.post("/api/materials", json=body).get_json()
    assert (made["key"], made["is_new"]) == ("own_slip_larch", True)
    own, table = ask(shop, material="own_slip_larch"), ask(shop)
    ratio = own["best"]["figures"]["equivalent_m"] / table["best"]["figures"]["equivalent_m"]
    assert ratio == pytest.approx(2)
    assert shop.post("/api/materials", json=body).status_code == 409
    hits = shop.get("/api/search?q=slip+larch").get_json()
    assert hits[0]["title"] == "Slip larch"


def test_other_names_find_a_material(shop: FlaskClient) -> None:
    for typed, title in (("fibreglass", "GRP"), ("redwood", "Scots pine"), ("chipboard", "Parti")):
        hits = shop.get("/api/search", query_string={"q": typed}).get_json()
        assert any(h["title"].startswith(title) for h in hits), typed


def test_the_shopping_list_names_what_open_jobs_lack(shop: FlaskClient) -> None:
    assert shop.get("/api/shopping").get_json() == []
    bend = {**CUT, "operation": "curve", "height_mm": 40, "min_radius_mm": 30, "name": "Knees"}
    shop.post("/api/jobs", json=bend)
    (line,) = shop.get("/api/shopping").get_json()
    assert (line["count"], line["length_mm"], line["jobs"]) == (1, 3360, ["Knees"])
    assert line["width_mm"] < 10
    assert "the job asks 30 mm" in line["why"]
    shop.post("/api/jobs", json={**bend, "name": "Brackets"})
    (line,) = shop.get("/api/shopping").get_json()
    assert (line["count"], line["jobs"]) == (2, ["Knees", "Brackets"])


def test_steels_are_costed_with_what_is_unsure(shop: FlaskClient) -> None:
    lines = ask(shop)["steels"]
    assert len(lines) >= 2
    assert [x["total"] for x in lines] == sorted(x["total"] for x in lines)
    for line in lines:
        parts = sum(line["cost"][k] for k in ("edge", "time", "kerf", "later", "change", "power"))
        assert parts == pytest.approx(line["total"])
        assert line["low"] <= line["total"] <= line["high"]
    assert any(line["close"] for line in lines[1:])


def test_a_shut_job_offers_what_opens_it(shop: FlaskClient) -> None:
    answer = ask(shop, operation="curve", height_mm=45, min_radius_mm=60)
    assert answer["best"] is None
    radius = next(o for o in answer["openers"] if o["kind"] == "radius")["min_radius_mm"]
    assert ask(shop, operation="curve", height_mm=45, min_radius_mm=radius)["best"] is not None


def test_magnesium_stops_until_acknowledged(shop: FlaskClient) -> None:
    cautions = ask(shop, operation="bar", material="magnesium_alloy", height_mm=30)["cautions"]
    assert cautions[0]["key"] == "magnesium" and cautions[0]["level"] == "stop"


def test_a_type_of_the_shop_s_own_is_searched_and_undone(shop: FlaskClient) -> None:
    """On a saw that takes thinner bands than the catalogue has, only it can be bought."""
    saw = shop.get("/api/saws/1").json
    assert saw is not None
    thin = {**saw["saw"], "band_thickness_max_mm": 0.3}
    assert saved(shop, "/api/saws/1", thin).status_code == 200
    assert ask(shop)["buy"] is None
    own = {k: BAND[k] for k in ("width_mm", "tpi_lo", "tpi_hi", "form", "steel")}
    own |= {"thickness_mm": 0.3, "price_per_m": 5.0}
    made = shop.post("/api/band-types", json=own)
    assert made.status_code == 201 and made.json is not None
    assert shop.post("/api/band-types", json=own).status_code == 409
    buy = ask(shop)["buy"]
    assert buy["price"] == pytest.approx(5.0 * buy["length_mm"] / 1000)
    assert buy["option"]["band"]["thickness_mm"] == 0.3
    path = f"/api/band-types/{made.json['id']}"
    edited = saved(shop, path, {**own, "price_per_m": 20.0}).json
    assert edited is not None and edited["price_per_m"] == 20.0
    gone = shop.delete(path).json
    assert gone is not None and shop.get("/api/band-types").json == []
    assert ask(shop)["buy"] is None
    assert shop.post(f"/api/changes/{gone['change_id']}/undo").status_code == 200
    assert len(shop.get("/api/band-types").json or []) == 1
    odd = shop.post("/api/band-types", json={**own, "form": "shark"})
    assert odd.status_code == 422 and "shark" in odd.get_data(as_text=True)


def test_what_the_choice_leans_on_is_answered_apart(shop: FlaskClient) -> None:
    for n, (width, tpi) in enumerate(((13, 3), (25, 1.3), (6.35, 6))):
        other = {"label": f"Q-{n}", "width_mm": width, "tpi_lo": tpi, "tpi_hi": tpi}
        shop.post("/api/bands", json={**BAND, **other})
    found = ask(shop, "/api/plan/sway")
    assert {p["rule"] for p in found["prices"]} >= {"feed_pace"}
    assert all("the same" not in p["words"] for p in found["prices"])
    assert any(s["field"] in ("wheel_force_max_N", "height_mm") for s in found["sways"])
    none = ask(shop, "/api/plan/sway", height_mm=5, material="mild_steel", operation="sheet")
    assert none == {"prices": [], "sways": []}


def test_a_job_of_the_shop_s_own_material_travels(shop: FlaskClient, tmp_path: Any) -> None:
    """Exported with its material, the file recommends by itself and comes in elsewhere."""
    body = {"name": "Loft larch", "nearest": "european_larch_dry", "changes": {}}
    body["changes"] = {"specific_cutting_pressure_MPa": 120.0}
    made = shop.post("/api/materials", json=body).json
    assert made is not None
    job = {k: v for k, v in CUT.items() if k != "saw_id"} | {"material": made["key"], "saw_id": 1}
    saved = shop.post("/api/jobs", json=job).json
    assert saved is not None
    file = shop.get(f"/api/jobs/{saved['id']}/file").json
    assert file is not None and set(file["materials"]) == {made["key"]}
    result = printed(file)
    screen = ask(shop, material=made["key"])["best"]
    feed = screen["figures"]["feed_m_min"]
    assert result["recommended"]["feed_m_min"] == pytest.approx(feed, rel=1e-5)
    from jade_ribbon.api.app import create_app

    app = create_app(tmp_path / "other.sqlite")
    other = app.test_client()
    taken = other.post("/api/jobs/import", json=file).json
    assert taken is not None and taken["material_name"] == "Loft larch"
    again = other.post("/api/jobs/import", json=file).json
    assert again is not None and again["material"] == taken["material"]
    app.extensions["store"].close()


def test_what_is_wrong_with_a_saw_stands_on_the_plan_and_the_card(shop: FlaskClient) -> None:
    assert plan(shop)["defects"] == []
    told = {"text": "Tyre loose at the seam", "stops": True, "who": "Odda"}
    assert shop.post("/api/saws/1/defects", json=told).status_code in (200, 201)
    wanted = [{"text": "Tyre loose at the seam", "stops": True}]
    assert plan(shop)["defects"] == wanted
    assert shop.get(open_card(shop)).get_json()["defects"] == wanted


def test_slices_say_what_they_take_of_the_billet(shop: FlaskClient) -> None:
    """7 boards of 14 mm and 6 kerfs; with the last face sawn, 7."""
    sliced = plan(shop, slice_mm=14, billet_mm=130)["slices"]
    kerf = plan(shop)["best"]["band"]["kerf_mm"]
    assert sliced["cuts"] == 6 and sliced["enough"]
    assert sliced["needed_mm"] == pytest.approx(7 * 14 + 6 * kerf)
    last = plan(shop, slice_mm=14, billet_mm=100, last_face_sawn=True)["slices"]
    assert last["cuts"] == 7 and not last["enough"]
    assert last["given"] == int((100 - kerf + kerf) // (14 + kerf))
    assert plan(shop)["slices"] is None
