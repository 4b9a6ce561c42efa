"""Copies, everything as CSV, the whole file, and the sample yard, as a shop uses them."""

import csv
import io
import shutil
import sqlite3
import time
import zipfile
from pathlib import Path

import pytest
from flask import Flask
from flask.testing import FlaskClient
from werkzeug.datastructures import Headers

from jade_ribbon.formats.tables_csv import cell_of, value_of
from jade_ribbon.store.files import check_ours
from tests.support.shop import BAND


def labels(shop: FlaskClient) -> list[str]:
    return [b["label"] for b in shop.get("/api/bands").get_json()]


def test_a_copy_is_taken_listed_and_brought_back(shop: FlaskClient) -> None:
    """A restore rehearsed: a band added by mistake and one deleted are as they were."""
    assert shop.get("/api/copies").get_json()["warning"] == "There is no copy yet."
    taken = shop.post("/api/copies", json={})
    assert taken.status_code == 201
    kept = labels(shop)
    assert shop.post("/api/bands", json={**BAND, "label": "Z-99"}).status_code == 201
    assert shop.delete("/api/bands/1").status_code == 200
    assert labels(shop) == ["Z-99"]
    name = taken.get_json()["name"]
    restored = shop.post("/api/copies/restore", json={"name": name})
    assert restored.status_code == 200, restored.get_json()
    assert labels(shop) == kept
    listed = shop.get("/api/copies").get_json()
    assert [c["why"] for c in listed["copies"]] == ["before restore", "by hand"]
    assert listed["warning"] == ""
    again = shop.post("/api/copies/restore", json={"name": restored.get_json()["before"]})
    assert again.status_code == 200
    assert labels(shop) == ["Z-99"]


@pytest.mark.parametrize("name", ["../shop.sqlite", "nothing", "2020-01-01-000000.sqlite"])
def test_what_is_no_copy_is_not_found(shop: FlaskClient, name: str) -> None:
    refused = shop.post("/api/copies/restore", json={"name": name})
    assert refused.status_code == 404
    assert labels(shop) == [BAND["label"]]


def archive(shop: FlaskClient) -> zipfile.ZipFile:
    answer = shop.get("/export.zip")
    assert answer.status_code == 200
    assert "my-shop" in answer.headers["Content-Disposition"]
    return zipfile.ZipFile(io.BytesIO(answer.data))


def test_everything_comes_out_as_csv_with_units_in_its_headings(shop: FlaskClient) -> None:
    shop.patch("/api/bands/1", json={"version": 1, "note": '=HYPERLINK("x")'})
    packed = archive(shop)
    bands = list(csv.DictReader(io.StringIO(packed.read("band.csv").decode())))
    assert [b["label"] for b in bands] == [BAND["label"]]
    assert float(bands[0]["width_mm"]) == BAND["width_mm"]
    assert bands[0]["note"] == '\'=HYPERLINK("x")'
    names = set(packed.namelist())
    assert {"README.txt", "run.csv", "saw.csv", "change.csv", "stock.csv"} <= names
    assert "answered.csv" not in names


def test_every_table_of_the_yard_is_in_the_archive_row_for_row(app: Flask, yard_copy: Path) -> None:
    from jade_ribbon.api.app import open_file

    open_file(app, yard_copy)
    packed = archive_of(app.test_client())
    with sqlite3.connect(yard_copy) as live:
        for name in packed.namelist():
            if not name.endswith(".csv"):
                continue
            rows = list(csv.reader(io.StringIO(packed.read(name).decode())))
            (count,) = live.execute(f"SELECT count(*) FROM {name.removesuffix('.csv')}").fetchone()
            assert len(rows) == count + 1, name
    app.extensions["store"].close()


def archive_of(client: FlaskClient) -> zipfile.ZipFile:
    return zipfile.ZipFile(io.BytesIO(client.get("/export.zip").data))


@pytest.mark.parametrize("text", ["=1", "+1", "-1", "@x", "'quoted", "plain", "", "\ttab"])
def test_a_guarded_text_comes_back_as_it_was(text: str) -> None:
    cell = cell_of(text)
    assert not str(cell).startswith(("=", "+", "-", "@", "\t"))
    assert value_of(str(cell)) == text


def test_the_whole_file_is_a_sound_shop(shop: FlaskClient, tmp_path: Path) -> None:
    taken = tmp_path / "taken.sqlite"
    taken.write_bytes(shop.get("/shop.sqlite").data)
    check_ours(taken)
    with sqlite3.connect(taken) as found:
        assert found.execute("SELECT label FROM band").fetchall() == [(BAND["label"],)]


def looking_round(app: Flask) -> FlaskClient:
    visitor = app.test_client()
    visitor.set_cookie("jade_yard", "sample")
    return visitor


def test_the_sample_yard_is_looked_round_in_and_not_changed(
    shop: FlaskClient, app: Flask, yard_file: Path
) -> None:
    visitor = looking_round(app)
    early = visitor.get("/api/bands")
    assert early.status_code == 409
    sample = app.extensions["sample"]
    shutil.copy(yard_file, sample.file)
    assert shop.get("/api/sample-yard").get_json()["state"] == "ready"
    assert len(visitor.get("/api/bands").get_json()) > 20
    assert labels(shop) == [BAND["label"]]
    question = {"operation": "rip", "material": "white_oak_dry", "height_mm": 40}
    question |= {"length_mm": 900, "count": 3, "finish": "plane", "saw_id": 1}
    assert visitor.post("/api/plan", json=question).status_code == 200
    refused = visitor.post("/api/bands", json=BAND)
    assert refused.status_code == 403
    assert refused.get_json()["code"] == "sample"
    assert visitor.patch("/api/shop", json={"version": 1, "name": "x"}).status_code == 403
    assert visitor.delete("/api/bands/1").status_code == 403
    sample.close()


def test_the_sample_yard_is_made_once_and_says_so(shop: FlaskClient, app: Flask) -> None:
    assert shop.get("/api/sample-yard").get_json()["state"] == "none"
    sample = app.extensions["sample"]
    made = []

    def quickly() -> None:
        made.append(1)
        shutil.copy(app.extensions["store"].file, sample.file)

    sample._make = quickly
    assert shop.post("/api/sample-yard", json={}).get_json()["state"] in ("making", "ready")
    for _ in range(100):
        if shop.get("/api/sample-yard").get_json()["state"] == "ready":
            break
        time.sleep(0.02)
    assert shop.post("/api/sample-yard", json={}).get_json()["state"] == "ready"
    assert made == [1]


def test_a_sample_yard_that_cannot_be_made_is_said(shop: FlaskClient, app: Flask) -> None:
    sample = app.extensions["sample"]
    sample.file = sample.file.parent / "no such folder" / "yard.sqlite"
    sample._make()
    told = shop.get("/api/sample-yard").get_json()
    assert told["state"] == "failed"
    assert "could not be made" in told["words"]


def test_taking_away_is_not_kept_by_anybody_on_the_way(shop: FlaskClient) -> None:
    headers: Headers = shop.get("/export.zip").headers
    assert headers["Cache-Control"] == "no-store"
