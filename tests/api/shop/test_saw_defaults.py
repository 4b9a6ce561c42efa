"""Saws as they are first entered: kinds, what is assumed, what is worked out."""

from typing import Any

from flask.testing import FlaskClient


def kind(shop: FlaskClient, key: str) -> dict[str, Any]:
    kinds = shop.get("/api/reference").get_json()["saw_kinds"]
    return next(k for k in kinds if k["key"] == key)


def added(shop: FlaskClient, key: str) -> dict[str, Any]:
    chosen = kind(shop, key)
    body = {**chosen["saw"], "name": chosen["name"], "assumed": chosen["assumed"]}
    answer = shop.post("/api/saws", json=body)
    assert answer.status_code == 201, answer.get_json()
    saw: dict[str, Any] = answer.get_json()
    return saw


def test_a_kind_is_saved_with_all_its_figures_assumed_and_plan_says_so(
    client: FlaskClient,
) -> None:
    saw = added(client, "shop")
    assert "motor_kW" in saw["assumed"]
    first = {k: v for k, v in saw["first_job"].items() if v is not None}
    plan = client.post("/api/plan", json={**first, "saw_id": saw["id"]}).get_json()
    assert "motor" in plan["assumed"] and "band speeds" in plan["assumed"]
    body = {"version": saw["version"], "assumed": [a for a in saw["assumed"] if a != "motor_kW"]}
    assert client.patch(f"/api/saws/{saw['id']}", json=body).status_code == 200
    plan = client.post("/api/plan", json={**first, "saw_id": saw["id"]}).get_json()
    assert "motor" not in plan["assumed"]


def test_what_cannot_be_assumed_is_refused_by_name(client: FlaskClient) -> None:
    chosen = kind(client, "bench")
    body = {**chosen["saw"], "name": "Bench", "assumed": ["colour"]}
    refused = client.post("/api/saws", json=body)
    assert refused.status_code == 422
    assert "colour" in refused.get_json()["errors"][0]["message"]


def test_speed_and_length_are_worked_out_and_faults_named(client: FlaskClient) -> None:
    known = {"wheels_mm": [400, 400], "wheel_rpm": 690, "centres_mm": 1050}
    found = client.post("/api/saws/work-out", json=known).get_json()
    assert round(found["speed_m_s"], 2) == 14.45
    assert round(found["length_mm"]["low"]) == 3337
    near = client.post("/api/saws/work-out", json={**known, "centres_mm": 300})
    assert near.status_code == 422
    assert near.get_json()["errors"][0]["path"] == "centres_mm"
