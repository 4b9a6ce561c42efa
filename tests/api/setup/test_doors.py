"""What a card asks before a saw is ready."""

from flask.testing import FlaskClient

from tests.support.edits import saved
from tests.support.walks import CUT, open_card, tick_all


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
    assert saved(shop, "/api/jobs/1", job).status_code == 200
    url = open_card(shop)
    answer = tick_all(shop, url)
    assert answer["open_stops"] == ["round_stock"]
    assert answer["ready_words"] == "A stop must be acknowledged by name first."
    blank = shop.post(f"{url}/acknowledge", json={"key": "round_stock", "name": " "})
    assert blank.status_code == 422
    named = shop.post(f"{url}/acknowledge", json={"key": "round_stock", "name": "Odda"})
    assert named.get_json()["acknowledged"][0]["name"] == "Odda"
    assert shop.post(f"{url}/finish").status_code == 200


def test_what_the_shop_has_is_remembered_and_only_named(shop: FlaskClient) -> None:
    """By name the first time; the next card takes the means alone, another means not."""
    spar = {**CUT, "saw_id": 1, "round_stock": True, "name": "Spar"}
    assert saved(shop, "/api/jobs/1", spar).status_code == 200
    url = f"{open_card(shop)}/acknowledge"
    unsaid = shop.post(url, json={"key": "round_stock", "means": "vee_cradle"})
    assert unsaid.status_code == 422 and "by name" in unsaid.get_json()["errors"][0]["message"]
    first = {"key": "round_stock", "means": "vee_cradle", "name": "Odda"}
    assert shop.post(url, json=first).status_code == 200
    second = shop.post("/api/jobs", json={**spar, "name": "Boom"}).get_json()["id"]
    card = shop.post("/api/setups", json={"job_id": second, "band_id": 1}).get_json()["id"]
    told = shop.get(f"/api/setups/{card}").get_json()
    owned = {m["key"] for m in told["means"] if m["owned"]}
    assert told["open_stops"] == ["round_stock"] and owned == {"vee_cradle"}
    url = f"/api/setups/{card}/acknowledge"
    assert shop.post(url, json={"key": "round_stock", "means": "sled"}).status_code == 422
    assert shop.post(url, json={"key": "round_stock", "means": "class_d"}).status_code == 422
    again = shop.post(url, json={"key": "round_stock", "means": "vee_cradle"}).get_json()
    assert again["open_stops"] == [] and again["acknowledged"][0]["means"] == "vee_cradle"
    assert shop.get("/api/setting-up").get_json()["holding"] == ["vee_cradle"]


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
