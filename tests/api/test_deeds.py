"""What was changed, by whom, and undo of any of it."""

from typing import Any

import pytest
from flask.testing import FlaskClient

from jade_ribbon.api import respond
from tests.support.edits import saved
from tests.support.shop import BAND


def deeds(shop: FlaskClient, **query: object) -> list[dict[str, Any]]:
    found: list[dict[str, Any]] = shop.get("/api/changes", query_string=query).get_json()
    return found


def undo(shop: FlaskClient, deed: dict[str, Any]) -> Any:
    return shop.post(f"/api/changes/{deed['id']}/undo")


def test_a_deed_is_told_with_who_did_it_and_undone_whole(shop: FlaskClient) -> None:
    shop.post("/api/saws/1/mount", json={"band_id": 1}, headers={"Jade-Person": "Brill%20%C3%96"})
    deed = deeds(shop)[0]
    assert deed["who"] == "Brill Ö"
    assert [(c["noun"], c["action"]) for c in deed["changes"]] == [
        ("saw", "mount"),
        ("event", "add"),
    ]
    assert deed["held_by"] == "" and not deed["undone"]
    assert undo(shop, deed).status_code == 200
    assert shop.get("/api/saws/1").get_json()["mounted_band_id"] is None
    assert [e["kind"] for e in shop.get("/api/bands/1").get_json()["events"]] == ["arrived"]
    taken_back = deeds(shop)[0]
    assert [c["action"] for c in taken_back["changes"]] == ["undo", "undo"]
    assert undo(shop, taken_back).status_code == 200
    assert shop.get("/api/saws/1").get_json()["mounted_band_id"] == 1
    assert undo(shop, deed).status_code == 200


def test_undo_goes_through_the_checks_of_the_deed(shop: FlaskClient) -> None:
    gone = shop.delete("/api/bands/1").get_json()["change_id"]
    assert shop.post("/api/bands", json=BAND).status_code == 201
    refused = shop.post(f"/api/changes/{gone}/undo")
    assert refused.status_code == 409 and "labelled K-07" in refused.get_json()["detail"]
    added = next(d for d in deeds(shop) if len(d["changes"]) == 2)
    shop.post("/api/saws/1/mount", json={"band_id": 2})
    assert undo(shop, added).status_code == 409
    assert shop.get("/api/saws/1").get_json()["mounted_label"] == "K-07"


def test_what_rests_on_a_record_keeps_it(shop: FlaskClient) -> None:
    added = next(d for d in deeds(shop, noun="band", noun_id=1))
    shop.post("/api/bands/1/events", json={"kind": "note", "detail": "bought used"})
    held = next(d for d in deeds(shop, noun="band", noun_id=1) if d["id"] == added["id"])
    assert "needs it" in held["held_by"]
    assert undo(shop, added).status_code == 409


def test_a_saw_is_not_deleted_from_under_its_band(shop: FlaskClient) -> None:
    shop.post("/api/saws/1/mount", json={"band_id": 1})
    refused = shop.delete("/api/saws/1")
    assert refused.status_code == 409
    assert "take it off before deleting the saw" in refused.get_json()["detail"]
    assert shop.get("/api/saws/1").status_code == 200


@pytest.mark.parametrize("label", ["K-07", "k-07", " K-07 ", "K-０7"])
def test_one_label_is_one_living_band(shop: FlaskClient, label: str) -> None:
    again = shop.post("/api/bands", json={**BAND, "label": label})
    assert again.status_code == 409 and "on the rack already" in again.get_json()["detail"]


def test_several_bands_come_together_or_not_at_all(shop: FlaskClient) -> None:
    given = {**BAND, "label": "K-08", "also": ["K-09", "K-07"]}
    assert shop.post("/api/bands", json=given).status_code == 409
    assert [b["label"] for b in shop.get("/api/bands").get_json()] == ["K-07"]
    assert shop.post("/api/bands", json={**given, "also": ["K-09"]}).status_code == 201
    assert [b["label"] for b in shop.get("/api/bands").get_json()] == ["K-07", "K-08", "K-09"]
    assert undo(shop, deeds(shop)[0]).status_code == 200
    assert [b["label"] for b in shop.get("/api/bands").get_json()] == ["K-07"]


def test_a_set_up_begun_can_be_taken_back(shop: FlaskClient) -> None:
    begun = shop.post("/api/setups", json={"job_id": 1, "band_id": 1})
    assert begun.status_code == 201
    deed = deeds(shop)[0]
    assert {c["noun"] for c in deed["changes"]} == {"job", "setup"}
    assert undo(shop, deed).status_code == 200
    assert shop.get("/api/jobs/1").get_json()["setup_id"] is None
    assert shop.get(f"/api/setups/{begun.get_json()['id']}").status_code == 404


def test_changes_come_by_the_page(shop: FlaskClient) -> None:
    for n in range(55):
        saved(shop, "/api/bands/1", {"place": f"peg {n}"})
    first = deeds(shop)
    assert len(first) == 50
    rest = deeds(shop, before=first[-1]["id"])
    assert {d["id"] for d in first}.isdisjoint(d["id"] for d in rest)
    assert rest[-1]["changes"][0]["noun"] == "saw" or rest[-1]["id"] == 1


def test_a_save_on_an_older_version_is_told_both(shop: FlaskClient) -> None:
    version = shop.get("/api/bands/1").get_json()["band"]["version"]
    mine = {"version": version, "note": "mine"}
    assert shop.patch("/api/bands/1", json={"version": version, "place": "loft"}).status_code == 200
    refused = shop.patch("/api/bands/1", json=mine)
    problem = refused.get_json()
    assert (refused.status_code, problem["code"]) == (409, "stale")
    assert problem["current"]["place"] == "loft"
    again = shop.patch("/api/bands/1", json={**mine, "version": problem["current"]["version"]})
    assert again.status_code == 200
    band = shop.get("/api/bands/1").get_json()["band"]
    assert (band["place"], band["note"]) == ("loft", "mine")


def test_what_a_saw_does_makes_no_form_of_it_old(shop: FlaskClient) -> None:
    version = shop.get("/api/saws/1").get_json()["version"]
    shop.post("/api/saws/1/mount", json={"band_id": 1})
    shop.post("/api/saws/1/tension", json={"state": "on"})
    assert shop.patch("/api/saws/1", json={"version": version, "note": "x"}).status_code == 200


def test_only_what_is_sent_is_changed_and_checked_with_the_rest(shop: FlaskClient) -> None:
    refused = saved(shop, "/api/bands/1", {"tpi_lo": 9.0})
    assert refused.status_code == 422 and "coarser first" in refused.get_json()["detail"]
    refused = saved(shop, "/api/bands/1", {"width_mm": -3.0})
    assert refused.get_json()["errors"][0]["path"] == "width_mm"
    assert saved(shop, "/api/bands/1", {"hat": 1}).status_code == 422


def test_a_write_sent_again_under_its_key_is_done_once(
    shop: FlaskClient, job_file: dict[str, Any]
) -> None:
    given = {**job_file["saw"], "name": "Twin"}
    key = {"Idempotency-Key": "one-intended-write"}
    first = shop.post("/api/saws", json=given, headers=key)
    again = shop.post("/api/saws", json=given, headers=key)
    assert (first.status_code, first.data) == (again.status_code, again.data)
    assert len(shop.get("/api/saws").get_json()) == 2
    other = shop.post("/api/saws", json={**given, "name": "Other"}, headers=key)
    assert other.status_code == 422 and "another write" in other.get_json()["detail"]
    odd = shop.post("/api/saws", json=given, headers={"Idempotency-Key": "short"})
    assert odd.status_code == 422 and "8 to 64" in odd.get_json()["detail"]


def test_a_refused_write_leaves_its_key_free(shop: FlaskClient) -> None:
    key = {"Idempotency-Key": "refused-at-first"}
    assert shop.post("/api/bands", json=BAND, headers=key).status_code == 409
    good = {**BAND, "label": "K-70"}
    assert shop.post("/api/bands", json=good, headers=key).status_code == 201


def test_an_answer_is_rendered_before_anything_is_committed(
    shop: FlaskClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    def broken(*_: object) -> str:
        raise RuntimeError("cannot be said")

    monkeypatch.setattr(respond, "_rendered", broken)
    assert shop.post("/api/bands", json={**BAND, "label": "K-99"}).status_code == 500
    monkeypatch.undo()
    assert [b["label"] for b in shop.get("/api/bands").get_json()] == ["K-07"]


@pytest.mark.parametrize("label", ["[[1e999|stress]]", "{0.1 thin}", "a\nb", "<b>x</b>"])
def test_what_people_wrote_is_never_read_for_quantities(shop: FlaskClient, label: str) -> None:
    assert saved(shop, "/api/bands/1", {"label": label, "note": label}).status_code == 200
    assert shop.get("/api/bands").get_json()[0]["label"] == label
    told = deeds(shop)[0]["changes"][0]
    assert told["title"] == f"Band {label}"
    assert {"field": "note", "before": "nothing", "after": label} in told["changed"]
