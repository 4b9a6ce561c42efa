"""A saw considered: asked with one's jobs, and never offered for work."""

from typing import Any

from flask.testing import FlaskClient

from tests.support.shop import BAND


def leaflet(job_file: dict[str, Any], **changed: Any) -> dict[str, Any]:
    """The shop's own saw by another name, with what its leaflet says otherwise."""
    return {**job_file["saw"], "name": "Leaflet", "considered": True, **changed}


def test_the_like_of_ones_own_saw_costs_the_same(
    shop: FlaskClient, job_file: dict[str, Any]
) -> None:
    """Limiting case: nothing is saved by buying what one has."""
    saw_id = shop.post("/api/saws", json=leaflet(job_file)).get_json()["id"]
    answer = shop.get(f"/api/saws/{saw_id}/considered").get_json()
    (line,) = answer["lines"]
    assert line["stands"] == "same" and line["saved"] == 0.0
    assert line["cost"] == line["own_cost"] and line["own_saw"] == job_file["saw"]["name"]
    assert answer["words"] == "Of one job it takes over none: what it does, your saws do as well."


def test_what_it_cannot_do_is_said(shop: FlaskClient, job_file: dict[str, Any]) -> None:
    low = leaflet(job_file, height_mm=60.0)
    saw_id = shop.post("/api/saws", json=low).get_json()["id"]
    answer = shop.get(f"/api/saws/{saw_id}/considered").get_json()
    (line,) = answer["lines"]
    assert line["stands"] == "only_own" and line["cost"] is None and line["words"]
    assert "takes over none" in answer["words"]


def test_it_is_never_offered_for_work(shop: FlaskClient, job_file: dict[str, Any]) -> None:
    saw_id = shop.post("/api/saws", json=leaflet(job_file)).get_json()["id"]
    cut = {**job_file["cut"], "saw_id": 1}
    others = shop.post("/api/plan", json=cut).get_json()["saws"]
    assert saw_id not in [s["saw_id"] for s in others]
    job = shop.post("/api/jobs", json={**job_file["cut"], "saw_id": saw_id, "name": "On it"})
    assert job.status_code == 409 and "only considered" in job.get_json()["detail"]
    band = shop.post("/api/bands", json={**BAND, "label": "K-08"}).get_json()["id"]
    mounted = shop.post(f"/api/saws/{saw_id}/mount", json={"band_id": band})
    assert mounted.status_code == 409 and "no band goes on it" in mounted.get_json()["detail"]
    due = shop.get("/api/upkeep").get_json()
    assert "Leaflet" not in str(due)
    saw = shop.get(f"/api/saws/{saw_id}").get_json()
    ours = {"considered": False, "version": saw["version"]}
    assert shop.patch(f"/api/saws/{saw_id}", json=ours).status_code == 200
    assert shop.post("/api/jobs", json={**job_file["cut"], "saw_id": saw_id}).status_code == 201
