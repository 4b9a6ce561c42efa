"""A file that is busy, full or away is told as that, and never as an error of ours."""

import sqlite3
from contextlib import closing

import pytest
from flask.testing import FlaskClient
from sqlalchemy.exc import OperationalError

from jade_ribbon.services.rack import events, replay


def test_a_busy_file_is_told_with_when_to_try_again(
    shop: FlaskClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Another program holds the file: SQLite's own refusal, waited for no longer than it must."""
    store = shop.application.extensions["store"]
    with store.engine.connect() as connection:
        connection.connection.dbapi_connection.execute("PRAGMA busy_timeout=50")
    monkeypatch.setattr("jade_ribbon.store.database.BUSY_TIMEOUT_MS", 50)
    store.engine.dispose()
    with closing(sqlite3.connect(store.file, isolation_level=None)) as other:
        other.execute("BEGIN IMMEDIATE")
        event = {"kind": "cleaned", "detail": ""}
        refused = shop.post("/api/bands/1/events", json=event)
        other.execute("ROLLBACK")
    assert refused.status_code == 503 and refused.get_json()["code"] == "busy"
    assert refused.headers["Retry-After"]
    assert shop.post("/api/bands/1/events", json=event).status_code == 201


@pytest.mark.parametrize(
    ("said", "code"),
    [
        ("database or disk is full", "full"),
        ("attempt to write a readonly database", "read_only"),
        ("unable to open database file", "unavailable"),
    ],
)
def test_each_trouble_has_its_words(
    shop: FlaskClient, monkeypatch: pytest.MonkeyPatch, said: str, code: str
) -> None:
    def trouble(*_: object, **__: object) -> None:
        raise OperationalError("INSERT", {}, sqlite3.OperationalError(said))

    monkeypatch.setattr(replay, "refresh", trouble)
    monkeypatch.setattr(events, "log_change", trouble)
    refused = shop.post("/api/bands/1/events", json={"kind": "cleaned", "detail": ""})
    assert refused.status_code == 503 and refused.get_json()["code"] == code
