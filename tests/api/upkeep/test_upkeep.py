"""Upkeep by hours and days, accessories that move wear and cautions, a saw brought to life."""

from datetime import timedelta
from typing import Any

import pytest
from flask.testing import FlaskClient

from jade_ribbon.services.clock import now
from jade_ribbon.store.models import UpkeepRow
from tests.support.edits import saved
from tests.support.walks import RUN, plan

URL = "/api/saws/1/upkeep"


def tasks(shop: FlaskClient) -> dict[str, Any]:
    return {t["key"]: t for t in shop.get(URL).get_json()["tasks"]}


def test_of_tasks_never_recorded_only_those_that_stop_a_saw_are_due(shop: FlaskClient) -> None:
    stands = {key: t["stands"]["due"] for key, t in tasks(shop).items()}
    assert {key for key, due in stands.items() if due == "due"} == {"brake", "extraction"}
    assert set(stands.values()) == {"due", "never_done"}
    assert {t["key"] for t in shop.get("/api/upkeep").get_json()} == {"brake", "extraction"}


def test_what_is_due_comes_by_hours_or_days_whichever_is_first(shop: FlaskClient) -> None:
    shop.post(URL, json={"key": "tyres", "who": "Ada"})
    assert tasks(shop)["tyres"]["stands"]["due"] == "later"
    with shop.application.extensions["store"].write() as session:
        session.query(UpkeepRow).one().at = now() - timedelta(days=31)
    by_days = tasks(shop)["tyres"]["stands"]
    assert (by_days["due"], by_days["by"]) == ("due", "days")
    own = {"intervals": {"tyres": {"hours": 0.2, "days": 3650}}}
    shop.post(f"{URL}/intervals", json=own)
    assert tasks(shop)["tyres"]["stands"]["due"] == "later"
    shop.post("/api/runs", json=RUN)
    by_hours = tasks(shop)["tyres"]["stands"]
    assert (by_hours["due"], by_hours["by"]) == ("due", "hours")
    for key in ("brake", "extraction"):
        shop.post(URL, json={"key": key, "who": "Ada"})
    assert [t["key"] for t in shop.get("/api/upkeep").get_json()] == ["tyres"]


def test_found_wrong_is_a_defect_that_stops_the_saw_where_it_must(shop: FlaskClient) -> None:
    silent = shop.post(URL, json={"key": "brake", "found": "wrong"})
    assert (
        silent.status_code == 422 and "what is wrong" in silent.get_json()["errors"][0]["message"]
    )
    shop.post(URL, json={"key": "brake", "found": "wrong", "note": "runs down for 40 s"})
    assert tasks(shop)["brake"]["stands"]["due"] == "wrong"
    stand = shop.get("/api/saws/1/stand").get_json()
    assert any("runs down" in str(d) for d in stand["defects"])


@pytest.mark.parametrize(("key", "operation"), [("debarker", "mill"), ("extraction", "resaw")])
def test_an_accessory_that_is_down_wears_and_is_said(
    shop: FlaskClient, key: str, operation: str
) -> None:
    cut = {"operation": operation, "material": "european_larch_dry"}
    before = plan(shop, **cut)
    shop.post("/api/saws/1/accessory", json={"key": key, "state": "down"})
    after = plan(shop, **cut)
    worn = [a["best"]["figures"]["equivalent_m"] for a in (before, after) if a["best"]]
    assert len(worn) == 2 and worn[1] > worn[0]
    told = [c["key"] for c in after["cautions"]]
    assert (f"{key}_down" in told) == (key == "extraction")
    shop.post("/api/saws/1/accessory", json={"key": key, "state": "works"})
    fine = plan(shop, **cut)
    assert fine["best"]["figures"]["equivalent_m"] == pytest.approx(worn[0])


def test_no_first_cut_before_electrics_and_guards(shop: FlaskClient) -> None:
    begun = shop.post("/api/saws/1/commissioning", json={"kind": "old"}).get_json()
    (card,) = begun["commissioning"]
    again = shop.post("/api/saws/1/commissioning", json={"kind": "new"})
    assert again.status_code == 409
    url = f"/api/commissioning/{card['id']}"
    early = shop.post(url, json={"key": "first_cut", "found": "right"})
    assert early.status_code == 409
    nobody = shop.post(url, json={"key": "electrics", "found": "right"})
    assert nobody.status_code == 422 and "licensed" in nobody.get_json()["errors"][0]["message"]
    for step in card["steps"]:
        named = {"key": step["key"], "found": "right", "who": "Ada"}
        assert shop.post(url, json=named).status_code == 200
    (done,) = shop.get(URL).get_json()["commissioning"]
    assert done["finished_at"] and (done["open"], done["wrong"]) == (0, 0)


def test_a_metal_saw_is_not_asked_for_its_extraction(shop: FlaskClient) -> None:
    assert "extraction" in tasks(shop) and "table_pin" in tasks(shop)
    slow = {"drive": {"kind": "fixed", "speeds_m_s": [0.4, 1.5]}, "orientation": "horizontal"}
    assert saved(shop, "/api/saws/1", slow).status_code == 200
    assert not {"extraction", "table_pin"} & set(tasks(shop)) and "brake" in tasks(shop)


OWN = {"title": "Oil the post", "do": "Two drops.", "look": "it slides", "hours": 50, "days": 30}


def test_a_task_of_one_s_own_is_due_like_the_others_and_goes_again(shop: FlaskClient) -> None:
    made = shop.post(f"{URL}/tasks", json=OWN)
    assert made.status_code == 201
    task = tasks(shop)["own1"]
    assert (task["title"], task["made_here"], task["hours"]) == ("Oil the post", 1, 50)
    assert task["stands"]["due"] == "never_done"
    assert shop.post(f"{URL}/tasks", json=OWN).status_code == 409
    shop.post(URL, json={"key": "own1", "who": "Ada"})
    with shop.application.extensions["store"].write() as session:
        session.query(UpkeepRow).one().at = now() - timedelta(days=31)
    assert "own1" in {t["key"] for t in shop.get("/api/upkeep").get_json()}
    shop.post(f"{URL}/intervals", json={"intervals": {"own1": {"hours": 50, "days": 90}}})
    again = tasks(shop)["own1"]
    assert (again["title"], again["days"], again["stands"]["due"]) == ("Oil the post", 90, "later")
    assert shop.delete(f"{URL}/tasks/1").status_code == 200
    assert "own1" not in tasks(shop)
    assert shop.delete(f"{URL}/tasks/1").status_code == 409
    gone = shop.post(URL, json={"key": "own1"})
    assert gone.status_code == 409 and "has no task" in gone.get_json()["detail"]


def test_a_task_of_one_s_own_that_stops_a_saw_stands_in_its_verdict(shop: FlaskClient) -> None:
    shop.post(f"{URL}/tasks", json=OWN | {"title": "Chain of the gate", "stops": True})
    assert tasks(shop)["own1"]["stands"]["due"] == "due"
    assert "chain of the gate" in str(shop.get("/api/saws/1/stand").get_json())
