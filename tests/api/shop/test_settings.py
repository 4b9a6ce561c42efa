"""Settings, search, history, undo."""

import pytest
from flask.testing import FlaskClient

from tests.support.edits import saved
from tests.support.walks import CUT, plan


def test_edit_delete_and_undo_of_each_noun(shop: FlaskClient) -> None:
    for noun in ("jobs", "bands", "saws"):
        change = shop.delete(f"/api/{noun}/1").get_json()["change_id"]
        gone = shop.get(f"/api/{noun}/1")
        assert gone.status_code == 404
        assert gone.get_json()["detail"].startswith("There is no")
        assert shop.post(f"/api/changes/{change}/undo").status_code == 200
        assert shop.get(f"/api/{noun}/1").status_code == 200


def test_history_tells_what_changed(shop: FlaskClient) -> None:
    job = {**CUT, "saw_id": 1, "name": "Strakes", "slice_mm": 14, "tolerance_mm": 0.8}
    saved(shop, "/api/jobs/1", {**job, "height_mm": 190})
    changes = shop.get("/api/changes?noun=job&noun_id=1").get_json()
    told = changes[0]["changes"][0]["changed"]
    assert {"field": "height", "before": "185 mm", "after": "190 mm"} in told
    older = shop.post(f"/api/changes/{changes[1]['id']}/undo")
    assert older.get_json()["detail"].startswith("A later change to the same record stands")


def test_settings_check_their_rules(shop: FlaskClient) -> None:
    settings = shop.get("/api/shop").get_json()
    settings["rules"]["tension"] = "light"
    assert saved(shop, "/api/shop", settings).get_json()["rules"]["tension"] == "light"
    assert plan(shop)["best"]["stress_MPa"] == pytest.approx(127.5)
    settings["rules"]["tension"] = "loose"
    refused = saved(shop, "/api/shop", settings)
    assert "rules.tension: 'loose' is not accepted; accepted: full, light" in refused.text


@pytest.mark.parametrize(
    ("query", "first"),
    [("strakes", "Strakes"), ("k-07", "K-07"), ("larhc", "European larch (dry)"), ("", None)],
)
def test_search_finds_anything_despite_spelling(
    shop: FlaskClient, query: str, first: str | None
) -> None:
    hits = shop.get("/api/search", query_string={"q": query}).get_json()
    assert (hits[0]["title"] if hits else None) == first
