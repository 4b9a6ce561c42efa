"""Shared by the tests of several rooms: walks."""

from typing import Any

from flask.testing import FlaskClient

CUT = {
    "operation": "resaw",
    "material": "european_larch_dry",
    "height_mm": 185,
    "length_mm": 3600,
    "count": 7,
    "finish": "plane",
}


RUN = {
    "client_key": "a-run-of-seven",
    "job_id": 1,
    "saw_id": 1,
    "band_id": 1,
    "pieces": 7,
    "length_mm": 3600,
    "time_s": 800,
}


def plan(client: FlaskClient, **changed: Any) -> Any:
    response = client.post("/api/plan", json={**CUT, "saw_id": 1, **changed})
    assert response.status_code == 200, response.json
    return response.json


def open_card(shop: FlaskClient) -> str:
    started = shop.post("/api/setups", json={"job_id": 1, "band_id": 1})
    assert started.status_code == 201, started.json
    return f"/api/setups/{started.get_json()['id']}"


def tick_all(shop: FlaskClient, url: str) -> Any:
    answer = shop.get(url).get_json()
    for step in answer["card"]["steps"]:
        body = {"key": step["key"], "done": True, "who": "Odda"}
        answer = shop.post(f"{url}/steps", json=body).get_json()
    return answer
