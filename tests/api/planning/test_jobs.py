"""Jobs: copied, written and read."""

from flask.testing import FlaskClient


def test_jobs_are_duplicated_exported_and_imported(shop: FlaskClient) -> None:
    copy = shop.post("/api/jobs/1/duplicate").get_json()
    assert (copy["id"], copy["name"], copy["height_mm"]) == (2, "Strakes, again", 185)
    exported = shop.get("/api/jobs/1/file").get_json()
    back = shop.post("/api/jobs/import", json=exported).get_json()
    assert (back["saw_id"], back["height_mm"]) == (1, 185)
    refused = shop.post("/api/jobs/import", json={**exported, "version": 2})
    assert refused.get_json()["errors"][0]["path"] == "version"


def test_a_curve_keeps_its_path_and_what_does_not_follow_one_has_none(shop: FlaskClient) -> None:
    path = [{"length_mm": 120.0, "radius_mm": 60.0}, {"length_mm": 700.0, "radius_mm": None}]
    kept = {k: shop.get("/api/jobs/1").get_json()[k] for k in ("material", "height_mm", "saw_id")}
    curve = {**kept, "operation": "curve", "length_mm": 820.0, "count": 2, "finish": "rough"}
    curve |= {"min_radius_mm": 60.0, "stretches": path}
    made = shop.post("/api/jobs", json=curve).get_json()
    assert made["stretches"] == path
    exported = shop.get(f"/api/jobs/{made['id']}/file").get_json()
    assert exported["cut"]["stretches"] == path
    assert shop.post("/api/jobs/import", json=exported).get_json()["stretches"] == path
    rip = {**curve, "operation": "rip", "min_radius_mm": None}
    assert shop.post("/api/jobs", json=rip).get_json()["stretches"] == []
    tighter = [{"length_mm": 120.0, "radius_mm": 40.0}]
    refused = shop.post("/api/jobs", json={**curve, "stretches": tighter})
    assert refused.status_code == 422 and "under the tightest" in refused.get_json()["detail"]
    assert shop.post("/api/jobs", json={**curve, "min_radius_mm": None}).status_code == 422
