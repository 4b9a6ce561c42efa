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
