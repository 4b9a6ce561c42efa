"""Records out and in: to the byte, previewed, all or none, undone in one; spreadsheets read."""

import csv
import io
from pathlib import Path
from typing import Any

import openpyxl
import pytest
from flask.testing import FlaskClient

from jade_ribbon.api.app import open_file
from tests.support.walks import RUN

TABLES = ("bands", "types", "runs", "events", "materials")


def sent(shop: FlaskClient, table: str, text: str, *, look: bool = False) -> Any:
    url = f"/api/files{'/look' if look else ''}?table={table}"
    return shop.post(url, data=text.encode(), content_type="text/csv")


def out(shop: FlaskClient, table: str) -> str:
    answer = shop.get(f"/files/{table}.csv")
    assert answer.status_code == 200
    return str(answer.data.decode())


@pytest.mark.parametrize("table", TABLES)
def test_what_went_out_comes_in_and_changes_nothing_to_the_byte(
    app: Any, yard_copy: Path, table: str
) -> None:
    open_file(app, yard_copy)
    shop = app.test_client()
    text = out(shop, table)
    assert len(text.splitlines()) > (1 if table in ("bands", "runs", "events") else 0)
    found = sent(shop, table, text).get_json()
    assert (found["added"], found["changed"], found["bad"]) == (0, 0, 0), found["lines"][:3]
    assert found["same"] == len(list(csv.reader(io.StringIO(text)))) - 1
    assert out(shop, table) == text
    app.extensions["store"].close()


def test_a_changed_line_is_shown_then_written_then_undone(shop: FlaskClient) -> None:
    text = out(shop, "bands").replace(",3360.0,,", ",3362.0,,")
    looked = sent(shop, "bands", text, look=True).get_json()
    assert looked["lines"] == [
        {"line": 2, "action": "change", "words": "length_mm 3360.0 → 3362.0", "faults": []}
    ]
    assert shop.get("/api/bands/1").get_json()["band"]["length_mm"] == 3360
    assert sent(shop, "bands", text).status_code == 201
    assert shop.get("/api/bands/1").get_json()["band"]["length_mm"] == 3362
    deeds = shop.get("/api/changes").get_json()
    last = deeds[0] if isinstance(deeds, list) else deeds["deeds"][0]
    assert shop.post(f"/api/changes/{last['id']}/undo").status_code == 200
    assert shop.get("/api/bands/1").get_json()["band"]["length_mm"] == 3360


def test_one_bad_line_and_nothing_comes_in(shop: FlaskClient) -> None:
    head = out(shop, "bands").splitlines()[0]
    good = "N-1,19.0,0.81,2.0,2.0,hook,silicon_steel,,3360.0,,,all,"
    for bad, words in (
        ("N-2,wide,0.81,2.0,2.0,hook,silicon_steel,,3360.0,,,all,", "a number with a point"),
        ("N-2,19.0,0.81,2.0,2.0,hook,cheese,,3360.0,,,all,", "is unknown"),
        ("n-1,19.0,0.81,2.0,2.0,hook,silicon_steel,,3360.0,,,all,", "same record"),
        ("N-2,19.0,0.81,2.0,2.0,hook,silicon_steel,,3360.0,,,all,,,", "cells"),
    ):
        text = "\r\n".join([head, good, bad])
        looked = sent(shop, "bands", text, look=True).get_json()
        assert (looked["added"], looked["bad"]) == (1, 1)
        refused = sent(shop, "bands", text)
        assert refused.status_code == 422 and words in str(refused.get_json()["errors"]), words
        assert len(shop.get("/api/bands").get_json()) == 1
    assert sent(shop, "bands", f"{head}\r\n{good}").status_code == 201
    assert len(shop.get("/api/bands").get_json()) == 2


def test_runs_come_in_worn_as_if_they_had_been_logged(shop: FlaskClient) -> None:
    logged = shop.post("/api/runs", json=RUN).get_json()
    text = out(shop, "runs")
    head, line = text.splitlines()
    new = line.replace("a-run-of-seven", "from-elsewhere")
    found = sent(shop, "runs", f"{head}\r\n{line}\r\n{new}").get_json()
    assert (found["same"], found["added"]) == (1, 1), found["lines"]
    page = shop.get("/api/bands/1").get_json()
    assert page["runs"][1]["equivalent_m"] == pytest.approx(logged["equivalent_m"])
    moved = sent(shop, "runs", f"{head}\r\n{line.replace(',7,', ',8,')}")
    assert moved.status_code == 422 and "put it right on its own page" in str(moved.json)
    later = new.replace("from-elsewhere", "x").replace("2026-", "2090-").replace("2027-", "2090-")
    assert "still to come" in str(sent(shop, "runs", f"{head}\r\n{later}").json)


def test_a_brought_run_that_nobody_would_believe_waits_and_wears_nothing(
    shop: FlaskClient,
) -> None:
    shop.post("/api/runs", json=RUN)
    worn = shop.get("/api/bands/1").get_json()["band"]["edge_equivalent_m"]
    head, line = out(shop, "runs").splitlines()
    cells = dict(zip(head.split(","), line.split(","), strict=True))
    feed = float(cells["feed_m_min"])
    slow = cells | {"key": "ten-times-too-slow", "feed_m_min": str(feed / 10.0), "time_s": ""}
    text = f"{head}\r\n{','.join(slow.values())}"
    assert sent(shop, "runs", text).status_code == 201
    page = shop.get("/api/bands/1").get_json()
    asked = next(r for r in page["runs"] if r["to_confirm"])
    assert page["band"]["edge_equivalent_m"] == pytest.approx(worn)
    answer = shop.post(f"/api/runs/{asked['id']}/confirm")
    assert answer.status_code == 200 and answer.get_json()["to_confirm"] == ""
    assert shop.get("/api/bands/1").get_json()["band"]["edge_equivalent_m"] > worn

    hurried = cells | {"key": "no-such-time", "time_s": "1.0"}
    refused = sent(shop, "runs", f"{head}\r\n{','.join(hurried.values())}")
    assert refused.status_code == 422 and "time_s" in str(refused.get_json())


def test_no_run_comes_in_for_a_band_after_it_was_scrapped(shop: FlaskClient) -> None:
    shop.post("/api/runs", json=RUN)
    head, line = out(shop, "runs").splitlines()
    label = shop.get("/api/bands/1").get_json()["band"]["label"]
    bin_it = f"id,at,band,kind,detail\r\n,2026-02-06T09:00:00+00:00,{label},scrapped,worn"
    assert sent(shop, "events", bin_it).status_code == 201
    cells = dict(zip(head.split(","), line.split(","), strict=True))
    before = cells | {"key": "while-it-was-good", "at": "2026-01-05T09:00:00+00:00"}
    assert sent(shop, "runs", f"{head}\r\n{','.join(before.values())}").status_code == 201
    for at, wrong in (("2026-03-05T09:00:00+00:00", "is scrapped"), ("", "is missing")):
        after = cells | {"key": "from-the-bin", "at": at}
        refused = sent(shop, "runs", f"{head}\r\n{','.join(after.values())}")
        assert refused.status_code == 422 and wrong in str(refused.get_json())


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "is empty"),
        ("label,price,label\n", "twice"),
        ("tag\nK-1\n", "is no column of it"),
        ("label\n\x00\n", ""),
    ],
)
def test_what_is_no_such_table_is_refused(shop: FlaskClient, text: str, words: str) -> None:
    refused = sent(shop, "bands", text)
    assert refused.status_code == 422 and words in str(refused.json)


def test_events_and_materials_come_in(shop: FlaskClient) -> None:
    events = "at,band,kind,detail,who\r\n2026-03-01T10:00:00+00:00,K-07,cleaned,with oil,Ada\r\n"
    assert sent(shop, "events", events).get_json()["added"] == 1
    assert shop.get("/api/bands/1").get_json()["events"][0]["detail"] == "with oil"
    stranger = events.replace("K-07", "Z-9")
    assert "accepted: a name on record" in str(sent(shop, "events", stranger).json)
    own = "key,base,name,abrasiveness\r\nown_pier,european_larch_dry,Pier,2.5\r\n"
    assert sent(shop, "materials", own).get_json()["added"] == 1
    assert "own_pier,european_larch_dry,Pier" in out(shop, "materials")


def test_a_spreadsheet_is_read_as_people_keep_it(shop: FlaskClient) -> None:
    book = openpyxl.Workbook()
    book.create_sheet("bands")
    sheet = book["bands"]
    sheet.append(["Tag", "Width (in)", "TPI", "Length", "Steel"])
    sheet.append(["X-1", "3/4", 3, '132 1/4"', "carbon"])
    sheet.append(["X-2", 0.5, 6, '132 1/4"', "bi-metal"])
    kept = io.BytesIO()
    book.save(kept)
    kind = {"content_type": "application/octet-stream"}
    text = shop.post("/api/files/workbook", data=kept.getvalue(), **kind).get_json()["text"]
    looked = shop.post("/api/bands/sheet/look", json={"text": text}).get_json()
    assert (looked["good"], looked["bad"]) == (2, 0), looked["rows"]
    brought = shop.post("/api/bands/sheet", json={"text": text})
    assert brought.status_code == 201
    widths = sorted(b["width_mm"] for b in shop.get("/api/bands").get_json())
    assert widths == pytest.approx([12.7, 19.0, 19.05])
    for junk in (b"", b"PK\x03\x04nonsense", b"not a workbook"):
        refused = shop.post("/api/files/workbook", data=junk, **kind)
        assert refused.status_code == 422, junk
