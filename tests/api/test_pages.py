"""Long lists come page by page, and what is kept in memory follows every change."""

import json
import sqlite3
from contextlib import closing
from typing import Any

from flask.testing import FlaskClient

from jade_ribbon.services.faults.book import LISTED
from jade_ribbon.services.planning.jobs import DONE_LISTED
from jade_ribbon.services.rack.bands import SCRAPPED_LISTED
from tests.support.walks import RUN


def raw(shop: FlaskClient, *statements: str) -> None:
    """Records by the thousand, put into the file beside the application."""
    with closing(sqlite3.connect(shop.application.extensions["store"].file)) as file:
        for statement in statements:
            file.execute(statement)
        file.commit()


def many(table: str, how_many: int, given: dict[str, str]) -> str:
    """Copies of the only row of a table, some columns given by SQL with n from 1 on."""
    names = ", ".join(given)
    told = ", ".join(given.values())
    return (
        f"WITH RECURSIVE c(n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM c WHERE n < {how_many}) "
        f"INSERT INTO {table} ({names}) SELECT {told} FROM c, {table} WHERE {table}.id = 1"
    )


def columns(shop: FlaskClient, table: str, **given: str) -> dict[str, str]:
    with closing(sqlite3.connect(shop.application.extensions["store"].file)) as file:
        names = [row[1] for row in file.execute(f"PRAGMA table_info({table})")]
    return {n: given.get(n, f"{table}.{n}") for n in names if n != "id"}


def all_pages(shop: FlaskClient, url: str, page: int) -> list[int]:
    seen: list[int] = []
    first = shop.get(url).get_json()
    while first:
        assert not {line["id"] for line in first} & set(seen), "a page twice"
        seen += [line["id"] for line in first]
        mark = "&" if "?" in url else "?"
        last = first[-1]["id"]
        first = shop.get(f"{url}{mark}before={last}").get_json()
        assert len(first) <= page
    return seen


def test_done_jobs_come_page_by_page_and_each_once(shop: FlaskClient) -> None:
    shop.post("/api/jobs/1/state", json={"state": "done"})
    when = "strftime('%Y-%m-%d %H:%M:%S.000000', '2026-01-01', '-' || (n / 3) || ' hours')"
    raw(shop, many("job", 250, columns(shop, "job", updated_at=when)))
    seen = all_pages(shop, "/api/jobs", DONE_LISTED)
    assert len(seen) == len(set(seen)) == 251


def test_scrapped_bands_are_apart_and_come_page_by_page(shop: FlaskClient) -> None:
    raw(shop, many("band", 450, columns(shop, "band", label="'S-' || n", state="'scrapped'")))
    assert len(shop.get("/api/bands").get_json()) == 1
    seen = all_pages(shop, "/api/bands?scrapped=true", SCRAPPED_LISTED)
    assert len(seen) == len(set(seen)) == 450


def test_the_trouble_book_is_paged_and_its_sums_are_of_all(shop: FlaskClient) -> None:
    told = {"saw_id": 1, "band_id": 1, "symptoms": {"drift": "clear"}}
    assert shop.post("/api/faults", json=told).status_code == 201
    path = json.dumps([{"kind": "remedy", "minutes": 10, "cause": "dull"}])
    closed = columns(shop, "trouble", state="'closed'", causes="'[\"dull\"]'", path=f"'{path}'")
    raw(shop, many("trouble", 150, closed))
    book = shop.get("/api/faults").get_json()
    assert book["count"] == 151 and book["minutes"] == 1500 and book["more"]
    assert len(book["troubles"]) == 1 + LISTED
    assert {t["state"] for t in book["troubles"]} == {"open", "closed"}
    seen = [t["id"] for t in book["troubles"] if t["state"] == "closed"]
    while book["more"]:
        book = shop.get(f"/api/faults?before={seen[-1]}").get_json()
        seen += [t["id"] for t in book["troubles"]]
    assert len(seen) == len(set(seen)) == 150


def money(shop: FlaskClient) -> dict[str, Any]:
    whole: dict[str, Any] = shop.get("/api/money?by=steel").get_json()["whole"]
    return whole


def test_what_is_kept_in_memory_follows_runs_corrections_and_undo(shop: FlaskClient) -> None:
    assert money(shop)["runs"] == 0
    run = shop.post("/api/runs", json={**RUN, "client_key": "memory-1"}).get_json()
    once = money(shop)
    assert once["runs"] == 1
    change = shop.delete(f"/api/runs/{run['id']}").get_json()["change_id"]
    assert money(shop)["runs"] == 0
    shop.post(f"/api/changes/{change}/undo")
    assert money(shop) == once
    shop.post("/api/runs", json={**RUN, "client_key": "memory-2", "replaces": run["id"]})
    assert money(shop)["runs"] == 1
    life = shop.get("/api/bands/1").get_json()["band"]["life_m"]
    shop.post("/api/bands/1/events", json={"kind": "sharpened", "value": 0.9})
    assert shop.get("/api/bands/1").get_json()["band"]["life_m"] != life


def test_a_unit_of_work_that_fails_leaves_nothing_in_memory(shop: FlaskClient) -> None:
    before = money(shop)
    line = "key,at,band,saw,operation,material,height_mm,length_mm,pieces,feed_m_min,time_s,"
    line += "speed_m_s,finish\nwhole-run,2026-11-01T09:00:00+00:00,K-07,Shop saw,resaw,"
    line += "european_larch_dry,185,3600,1,1.5,144,14.5,plane\n"
    sent = shop.post("/api/files/look?table=runs", data=line, content_type="text/csv")
    assert sent.status_code == 200 and money(shop) == before
