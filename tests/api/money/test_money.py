"""Money by any way of looking: sums by hand, totals that open their runs, one band for jobs."""

import csv
import io
from itertools import pairwise
from typing import Any

import pytest
from flask.testing import FlaskClient
from sqlalchemy import event

from tests.support.edits import saved
from tests.support.shop import BAND
from tests.support.walks import CUT, RUN


def logged(shop: FlaskClient, n: int = 3) -> None:
    for i in range(n):
        run = {**RUN, "client_key": f"money-run-{i}", "time_s": 700 + 60 * i, "who": "Ada"}
        assert shop.post("/api/runs", json=run).status_code == 201


def test_a_total_by_hand_and_its_runs_sum_to_it(shop: FlaskClient) -> None:
    """Three runs of 25.2 m, 760 s each on the average: 2 280 s at 40 an hour is 25.33."""
    logged(shop)
    view = shop.get("/api/money?by=saw").get_json()
    (line,) = view["lines"]
    cost = line["cost"]
    assert cost["time"] == pytest.approx(2280 / 3600 * 40)
    assert cost["metres"] == pytest.approx(75.6)
    assert cost["area_m2"] == pytest.approx(75.6 * 0.185)
    assert cost["total"] == pytest.approx(cost["time"] + cost["edge"])
    assert cost["m2_low"] < cost["per_m2"] < cost["m2_high"]
    runs = shop.get(f"/api/money/runs?by=saw&key={line['key']}").get_json()
    assert runs["count"] == 3 and runs["total"] == pytest.approx(cost["total"])
    assert sum(r["time"] + r["edge"] for r in runs["runs"]) == pytest.approx(cost["total"])


@pytest.mark.parametrize("by", ["steel", "type", "material", "saw", "month", "person"])
def test_every_way_of_looking_gives_the_same_whole(shop: FlaskClient, by: str) -> None:
    shop.post("/api/bands", json={**BAND, "label": "B-2", "price": 50, "steel": "bimetal_m42"})
    logged(shop)
    shop.post("/api/runs", json={**RUN, "client_key": "another-band", "band_id": 2})
    view = shop.get(f"/api/money?by={by}").get_json()
    whole = view["whole"]
    assert sum(x["cost"]["total"] for x in view["lines"]) == pytest.approx(whole["total"])
    assert whole["runs"] == 4
    for line in view["lines"]:
        runs = shop.get("/api/money/runs", query_string={"by": by, "key": line["key"]}).get_json()
        assert runs["total"] == pytest.approx(line["cost"]["total"])
        assert runs["count"] == line["cost"]["runs"] == len(runs["runs"])
    sheet = list(csv.DictReader(io.StringIO(shop.get(f"/money.csv?by={by}").text)))
    assert [float(r["total"]) for r in sheet] == pytest.approx(
        [x["cost"]["total"] for x in view["lines"]], abs=1e-3
    )


def test_too_few_runs_have_no_range_and_what_waits_is_not_counted(shop: FlaskClient) -> None:
    logged(shop, 2)
    shop.post("/api/runs", json={**RUN, "client_key": "a-slip-of-the-pen", "time_s": 40})
    view = shop.get("/api/money?by=month").get_json()
    assert view["whole"]["runs"] == 2 and view["waiting"] == 1
    assert view["whole"]["m2_low"] is None


def test_money_takes_few_statements_however_many_runs_there_are(shop: FlaskClient) -> None:
    logged(shop, 1)
    said: list[str] = []
    engine = shop.application.extensions["store"].engine

    def count(conn: Any, cursor: Any, statement: str, *rest: Any) -> None:
        said.append(statement)

    event.listen(engine, "before_cursor_execute", count)
    shop.get("/api/money?by=material")
    few = len(said)
    event.remove(engine, "before_cursor_execute", count)
    logged(shop, 9)
    said.clear()
    event.listen(engine, "before_cursor_execute", count)
    shop.get("/api/money?by=material")
    event.remove(engine, "before_cursor_execute", count)
    assert len(said) <= few <= 15


def test_one_band_for_many_jobs_is_the_sum_of_what_each_costs_alone(shop: FlaskClient) -> None:
    for n, width in enumerate((13, 25)):
        band = {**BAND, "label": f"W-{n}", "width_mm": width, "tpi_lo": 3, "tpi_hi": 3}
        shop.post("/api/bands", json=band)
    curve = {**CUT, "operation": "curve", "height_mm": 40, "length_mm": 600, "min_radius_mm": 90}
    shop.post("/api/jobs", json={**curve, "saw_id": 1, "name": "Brackets"})
    found = shop.post("/api/money/all-round", json={"saw_id": 1, "job_ids": [1, 2]}).get_json()
    change = 12 / 60 * 40
    assert found["ranked"], found
    for line in found["ranked"]:
        done = [j["cost"] for j in line["jobs"] if j["cost"] is not None]
        assert line["total"] == pytest.approx(sum(done) + change)
        assert line["impossible"] == len(line["jobs"]) - len(done)
    assert all(
        (a["impossible"], a["total"]) <= (b["impossible"], b["total"])
        for a, b in pairwise(found["ranked"])
    )
    for job in found["changing"]:
        alone = shop.post("/api/money/all-round", json={"saw_id": 1, "job_ids": [job["job_id"]]})
        only = alone.get_json()["changing"][0]
        assert only["cost"] == pytest.approx(job["cost"])
    assert found["pair_total"] <= min(x["total"] for x in found["ranked"] if not x["impossible"])


def test_house_rules_and_accessories_are_told_in_money(shop: FlaskClient) -> None:
    for rule in shop.get("/api/money/rules").get_json():
        assert rule["jobs"] == ["Strakes"] and isinstance(rule["cost"], float)
    young = shop.post("/api/money/payback", json={"accessory": "debarker"}).get_json()
    assert young["words"].startswith("Cannot tell: the record holds 0 weeks")
    unknown = shop.post("/api/money/payback", json={"accessory": "piano"})
    assert unknown.status_code == 422


def test_a_saw_that_feeds_itself_is_paid_by_its_own_hour(shop: FlaskClient) -> None:
    """The same runs by hand at 40 an hour and with power feed at 30: three quarters of the time."""
    logged(shop, 3)

    def said() -> tuple[float, float]:
        view = shop.get("/api/money?by=saw").get_json()
        runs = shop.get("/api/money/runs?by=saw&key=1").get_json()["runs"]
        return view["whole"]["time"], sum(run["time"] for run in runs)

    by_hand = said()
    saw = shop.get("/api/saws/1").get_json()["saw"]
    assert saved(shop, "/api/saws/1", {**saw, "feed": "power"}).status_code == 200
    by_itself = said()
    assert by_hand[0] == pytest.approx(by_hand[1])
    assert by_itself == pytest.approx((0.75 * by_hand[0], 0.75 * by_hand[1]))
