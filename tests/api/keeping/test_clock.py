"""The shop's clock over the interface: a jump is asked about, records of a wrong one move back."""

from datetime import UTC, datetime, timedelta

import pytest
from flask.testing import FlaskClient

from jade_ribbon.api.app import open_file
from jade_ribbon.services import clock

RUN = {"job_id": 1, "saw_id": 1, "band_id": 1, "pieces": 3, "length_mm": 3600, "feed_m_min": 1.5}


class Machine:
    """A machine's clock that somebody sets."""

    def __init__(self, at: datetime) -> None:
        self.at = at

    def __call__(self) -> datetime:
        return self.at


@pytest.fixture
def machine(shop: FlaskClient, monkeypatch: pytest.MonkeyPatch) -> Machine:
    found = Machine(datetime.now(UTC))
    monkeypatch.setattr(clock, "wall", found)
    monkeypatch.setattr("jade_ribbon.services.clock_set.wall", found)
    return found


def reopened(shop: FlaskClient) -> None:
    """The server stopped and started on the same file."""
    store = shop.application.extensions["store"]
    store.close()
    open_file(shop.application, store.file)


def log(shop: FlaskClient, key: str) -> datetime:
    answer = shop.post("/api/runs", json={**RUN, "client_key": key})
    assert answer.status_code == 201, answer.text
    return datetime.fromisoformat(answer.get_json()["at"])


def test_one_run_three_years_ahead_does_not_date_all_later_ones(
    shop: FlaskClient, machine: Machine
) -> None:
    right = machine.at
    log(shop, "a-right-run")
    machine.at = right + timedelta(days=1095)
    assert shop.get("/api/shop").get_json()["clock_ahead_s"] > 0, "it is asked about"
    assert log(shop, "run-of-2029") > right + timedelta(days=1000)
    machine.at = right + timedelta(hours=1)
    reopened(shop)
    told = shop.get("/api/shop").get_json()
    assert told["clock_behind_s"] == pytest.approx(1095 * 86_400 - 3600, abs=60)
    moved = shop.post("/api/clock", json={"said": "set_right"}).get_json()
    assert moved["moved"] >= 1 and moved["behind_s"] == 0
    later = log(shop, "a-run-later")
    assert abs(later - machine.at) < timedelta(minutes=1)
    runs = shop.get("/api/bands/1").get_json()["runs"]
    assert [datetime.fromisoformat(r["at"]) <= machine.at + timedelta(minutes=1) for r in runs] == [
        True,
        True,
        True,
    ]
    at = [r["at"] for r in runs]
    assert at == sorted(at), "their order stays"
    assert shop.post("/api/clock", json={"said": "set_right"}).status_code == 409


def test_a_jump_said_to_be_right_is_asked_about_no_more(
    shop: FlaskClient, machine: Machine
) -> None:
    machine.at += timedelta(days=120)
    reopened(shop)
    assert shop.get("/api/clock").get_json()["ahead_s"] > 100 * 86_400
    assert shop.post("/api/clock", json={"said": "right"}).get_json()["ahead_s"] == 0
    reopened(shop)
    assert shop.get("/api/clock").get_json()["ahead_s"] == 0


def test_a_jump_said_to_be_wrong_dates_nothing(shop: FlaskClient, machine: Machine) -> None:
    right = machine.at
    log(shop, "a-right-run")
    machine.at = right + timedelta(days=400)
    shop.get("/api/shop")
    shop.post("/api/clock", json={"said": "wrong"})
    assert log(shop, "run-meanwhile") < right + timedelta(minutes=5)
