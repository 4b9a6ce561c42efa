"""The API: the walk from plan to wear, refusals, undo, headers, the document."""

import json
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient
from sqlalchemy import event

from jade_ribbon.api.document import document
from jade_ribbon.api.operations import OPERATIONS
from jade_ribbon.core.recommend import recommend
from jade_ribbon.formats.job import read_job

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


def test_screen_and_command_line_give_the_same_answer(
    shop: FlaskClient, job_file: dict[str, Any]
) -> None:
    exported = shop.get("/api/jobs/1/file").get_json()
    by_file = recommend(read_job(json.dumps(exported)))["recommended"]
    by_screen = plan(shop)["best"]
    assert by_file["band"]["label"] == by_screen["band"]["label"] == "K-07"
    for key in ("stress_MPa", "speed_m_s", "teeth_in_cut", "bending_hours"):
        assert by_file[key] == pytest.approx(by_screen[key])
    assert by_file["feed_m_min"] == pytest.approx(by_screen["figures"]["feed_m_min"])
    assert by_file["cost_per_piece"] == pytest.approx(by_screen["figures"]["cost_total"], rel=0.01)


def test_every_figure_carries_its_reasons(shop: FlaskClient) -> None:
    answer = plan(shop)
    assert set(answer["explained"]) >= {"tension", "speed", "feed", "power", "push", "cost"}
    for explained in answer["explained"].values():
        assert explained["formula"] and explained["source"] and explained["uncertainty"]
        assert explained["inputs"]
    assert answer["disclaimer"].startswith("The saw's manual")


def test_the_handle_s_figures_follow_the_feed(shop: FlaskClient) -> None:
    best = plan(shop)["best"]
    body = {**CUT, "saw_id": 1, "band_id": 1}
    here = shop.post("/api/plan/feed", json={**body, "feed_m_min": best["figures"]["feed_m_min"]})
    assert here.get_json()["power_share"] == pytest.approx(best["figures"]["power_share"])
    limit = best["window"]["limits_m_min"]["power"]
    full = shop.post("/api/plan/feed", json={**body, "feed_m_min": limit}).get_json()
    assert full["power_share"] == pytest.approx(1.0)
    slow = shop.post("/api/plan/feed", json={**body, "feed_m_min": 0.3}).get_json()
    assert slow["hot"] and not full["hot"]


def test_an_empty_rack_is_told_what_to_buy(client: FlaskClient, job_file: dict[str, Any]) -> None:
    client.post("/api/saws", json=job_file["saw"])
    answer = plan(client)
    assert answer["best"] is None
    assert answer["prevented"] == "No band of its length is on the rack."
    assert answer["buy"]["option"]["band"]["width_mm"] == 19
    assert answer["buy"]["length_mm"] == 3360


def test_overrides_for_one_job_reach_the_answer(shop: FlaskClient) -> None:
    light = plan(shop, rules={"tension": "light"})
    assert light["best"]["stress_MPa"] == pytest.approx(127.5)
    refused = shop.post("/api/plan", json={**CUT, "saw_id": 1, "rules": {"tension": "no"}})
    assert refused.status_code == 422
    assert "rules.tension 'no' is not accepted" in refused.get_json()["detail"]


def test_the_whole_walk_moves_the_band_s_wear(shop: FlaskClient) -> None:
    assert shop.get("/api/jobs/1/run").get_json()["open"] is False
    url = open_card(shop)
    assert open_card(shop) == url
    assert tick_all(shop, url)["ready"] is True
    assert shop.post(f"{url}/finish").get_json()["finished_at"]
    assert shop.get("/api/jobs/1/run").get_json() == {
        "job_id": 1,
        "saw_id": 1,
        "band_id": 1,
        "open": True,
        "words": "",
    }
    logged = shop.post("/api/runs", json=RUN).get_json()
    assert logged["feed_m_min"] == pytest.approx(25.2 / 800 * 60)
    assert logged["band"]["dullness"] > logged["dullness_before"] == 0
    assert 0.9 < logged["lasts_next"] <= 1
    assert logged["next_words"].startswith("Better than 99 % chance that K-07")
    job = shop.get("/api/jobs/1").get_json()
    assert (job["done_pieces"], job["state"]) == (7, "running")
    page = shop.get("/api/bands/1").get_json()
    assert len(page["runs"]) == 1
    assert page["runs"][0]["edge_after_m"] == pytest.approx(page["band"]["edge_equivalent_m"])


def test_a_run_sent_twice_counts_once(shop: FlaskClient) -> None:
    first, second = (shop.post("/api/runs", json=RUN).get_json() for _ in range(2))
    assert first["id"] == second["id"]
    assert shop.get("/api/bands/1").get_json()["band"]["runs"] == 1


def test_taking_a_run_back_takes_its_wear_back_and_undo_brings_both(shop: FlaskClient) -> None:
    logged = shop.post("/api/runs", json=RUN).get_json()
    change = shop.delete(f"/api/runs/{logged['id']}").get_json()["change_id"]
    assert shop.get("/api/bands/1").get_json()["band"]["edge_equivalent_m"] == 0
    assert shop.post(f"/api/changes/{change}/undo").status_code == 200
    band = shop.get("/api/bands/1").get_json()["band"]
    assert band["edge_equivalent_m"] == pytest.approx(logged["equivalent_m"])
    again = shop.post(f"/api/changes/{change}/undo")
    assert again.status_code == 409
    assert again.get_json()["detail"] == "This change was undone already."


def test_doors_stay_shut_until_isolated(shop: FlaskClient) -> None:
    url = open_card(shop)
    refused = shop.post(f"{url}/steps", json={"key": "mount", "done": True})
    assert refused.status_code == 409
    assert refused.get_json()["detail"] == "Isolate the saw first: this step has the doors open."
    skipped = shop.post(f"{url}/steps", json={"key": "isolate", "done": False, "skipped": "no"})
    assert skipped.get_json()["detail"] == "Isolating cannot be skipped."


def test_a_slack_saw_is_never_ready(shop: FlaskClient) -> None:
    url = open_card(shop)
    tick_all(shop, url)
    assert shop.post("/api/saws/1/tension", json={"state": "slack"}).status_code == 200
    answer = shop.get(url).get_json()
    assert answer["ready"] is False
    assert answer["ready_words"] == "The saw is recorded as slack: tick Tension again."
    assert shop.post(f"{url}/finish").status_code == 409


def test_a_stop_opens_only_by_name(shop: FlaskClient) -> None:
    job = {**CUT, "saw_id": 1, "round_stock": True, "name": "Spar"}
    assert shop.put("/api/jobs/1", json=job).status_code == 200
    url = open_card(shop)
    answer = tick_all(shop, url)
    assert answer["open_stops"] == ["round_stock"]
    assert answer["ready_words"] == "A stop must be acknowledged by name first."
    blank = shop.post(f"{url}/acknowledge", json={"key": "round_stock", "name": " "})
    assert blank.status_code == 422
    named = shop.post(f"{url}/acknowledge", json={"key": "round_stock", "name": "Odda"})
    assert named.get_json()["acknowledged"][0]["name"] == "Odda"
    assert shop.post(f"{url}/finish").status_code == 200


def test_tension_left_is_read_and_checked(shop: FlaskClient) -> None:
    url = open_card(shop)
    for key in ("isolate", "mount"):
        shop.post(f"{url}/steps", json={"key": key, "done": True})
    left = {"key": "tension", "done": True, "left": {"stress_MPa": 128.5}}
    assert shop.post(f"{url}/steps", json=left).status_code == 200
    assert shop.get("/api/saws/1").get_json()["tension_stress_MPa"] == 128.5
    wild = shop.post(f"{url}/steps", json={**left, "left": {"stress_MPa": 9000}})
    assert wild.get_json()["errors"] == [
        {"path": "left.stress_MPa", "message": "9000 is out of range; accepted: 1 to 600"}
    ]
    assert shop.get("/api/saws/1").get_json()["tension_stress_MPa"] == 128.5


def test_bands_are_sharpened_judged_and_scrapped(shop: FlaskClient) -> None:
    shop.post("/api/runs", json=RUN)
    url = "/api/bands/1/events"
    judged = shop.post(url, json={"kind": "edge_judged", "value": 0.5, "detail": "glints"})
    assert judged.get_json()["dullness"] == pytest.approx(0.5)
    sharp = shop.post(url, json={"kind": "sharpened"}).get_json()
    assert (sharp["sharpenings"], sharp["dullness"]) == (1, 0)
    why = shop.post(url, json={"kind": "scrapped"})
    assert "scrapping needs a reason in detail: worn, crack" in why.get_json()["detail"]
    gone = shop.post(url, json={"kind": "scrapped", "detail": "crack"}).get_json()
    assert (gone["state"], gone["scrap_reason"]) == ("scrapped", "crack")
    late = shop.post(url, json={"kind": "cleaned"})
    assert late.get_json()["detail"] == "Band K-07 is scrapped; undo that first."
    event_id = shop.get("/api/bands/1").get_json()["events"][-1]["id"]
    shop.delete(f"/api/events/{event_id}")
    assert shop.get("/api/bands/1").get_json()["band"]["state"] == "rack"


def test_a_mounted_band_stays_where_it_is(shop: FlaskClient, job_file: dict[str, Any]) -> None:
    shop.post("/api/saws", json={**job_file["saw"], "name": "Second"})
    assert shop.post("/api/saws/1/mount", json={"band_id": 1}).status_code == 200
    for refused, words in (
        (shop.delete("/api/bands/1"), "take it off before deleting it"),
        (shop.post("/api/saws/2/mount", json={"band_id": 1}), "is on Shop saw: take it off"),
        (
            shop.post("/api/bands/1/events", json={"kind": "scrapped", "detail": "worn"}),
            "take it off before scrapping it",
        ),
    ):
        assert refused.status_code == 409
        assert words in refused.get_json()["detail"]


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
    shop.put("/api/jobs/1", json={**job, "height_mm": 190})
    changes = shop.get("/api/changes?noun=job&noun_id=1").get_json()
    assert changes[0]["changed"]["height_mm"] == [185.0, 190.0]
    older = shop.post(f"/api/changes/{changes[1]['id']}/undo")
    assert older.get_json()["detail"].startswith("A later change to the same record stands")


def test_jobs_are_duplicated_exported_and_imported(shop: FlaskClient) -> None:
    copy = shop.post("/api/jobs/1/duplicate").get_json()
    assert (copy["id"], copy["name"], copy["height_mm"]) == (2, "Strakes, again", 185)
    exported = shop.get("/api/jobs/1/file").get_json()
    back = shop.post("/api/jobs/import", json=exported).get_json()
    assert (back["saw_id"], back["height_mm"]) == (1, 185)
    refused = shop.post("/api/jobs/import", json={**exported, "version": 2})
    assert refused.get_json()["errors"][0]["path"] == "version"


@pytest.mark.parametrize(
    ("change", "path", "words"),
    [
        ({"time_s": 20}, "", ""),
        ({"time_s": None, "feed_m_min": None}, "", "give time_s or feed_m_min"),
        ({"feed_m_min": 2.0, "time_s": 13}, "time_s", "did you mean minutes?"),
        (
            {"time_s": 0.5},
            "time_s",
            "is a feed of 3024 m/min; accepted: a feed",
        ),
        ({"pieces": 0}, "pieces", "0 is out of range; accepted: at least 1"),
        ({"symptoms": ["sad"]}, "symptoms.0", "'sad' is not accepted"),
        ({"client_key": "x y"}, "client_key", ""),
    ],
)
def test_senseless_runs_are_refused(
    shop: FlaskClient, change: dict[str, Any], path: str, words: str
) -> None:
    response = shop.post("/api/runs", json={**RUN, **change})
    if change == {"time_s": 20}:
        assert response.status_code == 201
        return
    assert response.status_code == 422
    told = response.get_json()["errors"][0]
    assert told["path"] == path and words in told["message"]


def test_settings_check_their_rules(shop: FlaskClient) -> None:
    settings = shop.get("/api/shop").get_json()
    settings["rules"]["tension"] = "light"
    assert shop.put("/api/shop", json=settings).get_json()["rules"]["tension"] == "light"
    assert plan(shop)["best"]["stress_MPa"] == pytest.approx(127.5)
    settings["rules"]["tension"] = "loose"
    refused = shop.put("/api/shop", json=settings)
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


def test_lists_ask_few_statements(shop: FlaskClient) -> None:
    engine = shop.application.extensions["store"].engine
    seen: list[str] = []

    @event.listens_for(engine, "before_cursor_execute")
    def _count(_c: Any, _cur: Any, statement: str, *_: Any) -> None:
        if statement.startswith("SELECT"):
            seen.append(statement)

    for url, most in (("/api/bands", 2), ("/api/saws", 1), ("/api/jobs", 4)):
        seen.clear()
        assert shop.get(url).status_code == 200
        assert len(seen) <= most, (url, seen)


def test_errors_are_problems_and_keep_their_headers(client: FlaskClient) -> None:
    for response, status in (
        (client.get("/api/nothing"), 404),
        (client.post("/api/shop"), 405),
        (client.post("/api/plan", data="x"), 415),
        (client.post("/api/plan", data="{", content_type="application/json"), 422),
        (client.get("/api/saws/99999999999999999999"), 404),
        (client.post("/api/plan", data=b"x" * 2_100_000, content_type="application/json"), 413),
    ):
        assert response.status_code == status
        assert response.mimetype == "application/problem+json"
        assert response.get_json()["status"] == status
    assert "PUT" in client.post("/api/shop").headers["Allow"]


def test_pages_are_protected(client: FlaskClient) -> None:
    headers = client.get("/api/shop").headers
    scripts = headers["Content-Security-Policy"].split("script-src")[1].split(";")[0]
    assert scripts.strip() == "'self'"
    assert "microphone=(self)" in headers["Permissions-Policy"]


def test_an_unexpected_error_tells_nothing_inside(
    client: FlaskClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    from jade_ribbon.services import search

    def broken(*_: object) -> None:
        raise RuntimeError("secret")

    monkeypatch.setattr(search, "search", broken)
    response = client.get("/api/search?q=x")
    assert response.status_code == 500
    assert "secret" not in response.text


def test_the_document_is_committed_and_its_ids_are_unique() -> None:
    committed = json.loads((Path(__file__).parents[2] / "docs" / "openapi.json").read_text())
    assert committed == json.loads(json.dumps(document()))
    names = [op.name for op in OPERATIONS]
    assert len(names) == len(set(names))
