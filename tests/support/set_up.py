"""A set-up card begun, ticked and finished."""

from typing import Any

from flask.testing import FlaskClient


def begin(shop: FlaskClient, band_id: int = 1) -> str:
    response = shop.post("/api/setups", json={"job_id": 1, "band_id": band_id})
    assert response.status_code == 201, response.json
    return f"/api/setups/{response.get_json()['id']}"


def tick(shop: FlaskClient, url: str, key: str, **more: Any) -> Any:
    response = shop.post(f"{url}/steps", json={"key": key, "done": True, **more})
    assert response.status_code == 200, response.json
    return response.get_json()


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


def plan_question(shop: FlaskClient) -> dict[str, Any]:
    """What job 1 asks of Plan."""
    job = shop.get("/api/jobs/1").get_json()
    keys = ("operation", "material", "height_mm", "length_mm", "count", "finish", "tolerance_mm")
    return {k: job[k] for k in keys} | {"saw_id": job["saw_id"] or 1}
