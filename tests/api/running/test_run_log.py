"""The log: every run, filtered, sorted, paged, and as CSV."""

import csv
import io

import pytest
from flask.testing import FlaskClient

from tests.support.walks import RUN, open_card


@pytest.fixture
def logged(shop: FlaskClient) -> FlaskClient:
    """Three runs of one job on three days, by two people, the second with a sign."""
    open_card(shop)
    for day, (who, pieces, signs) in enumerate(
        (("Odda", 2, []), ("Brill", 1, ["burn"]), ("Odda", 3, [])), start=10
    ):
        run = RUN | {
            "client_key": f"day-{day}-run",
            "at": f"2026-03-{day}T12:00:00Z",
            "who": who,
            "pieces": pieces,
            "time_s": 100.0 * pieces,
            "symptoms": signs,
            "confirmed": True,
        }
        assert shop.post("/api/runs", json=run).status_code == 201
    return shop


def asked(client: FlaskClient, **query: object) -> list[int]:
    answer = client.get("/api/runs", query_string=query)
    assert answer.status_code == 200, answer.text
    return [run["pieces"] for run in answer.get_json()["runs"]]


@pytest.mark.parametrize(
    ("query", "pieces"),
    [
        ({}, [3, 1, 2]),
        ({"up": "true"}, [2, 1, 3]),
        ({"sort": "pieces"}, [3, 2, 1]),
        ({"who": "Odda"}, [3, 2]),
        ({"signs": "true"}, [1]),
        ({"since": "2026-03-11T00:00:00Z"}, [3, 1]),
        ({"until": "2026-03-11T00:00:00Z"}, [2]),
        ({"saw_id": 1, "band_id": 1, "material": "european_larch_dry"}, [3, 1, 2]),
        ({"saw_id": 2}, []),
        ({"page": 1}, []),
    ],
)
def test_runs_are_filtered_and_sorted(
    logged: FlaskClient, query: dict[str, object], pieces: list[int]
) -> None:
    assert asked(logged, **query) == pieces


def test_a_line_says_what_was_planned_and_what_is_left_of_the_edge(logged: FlaskClient) -> None:
    page = logged.get("/api/runs").get_json()
    assert page["count"] == 3
    assert page["people"] == ["Brill", "Odda"]
    latest, _, first = page["runs"]
    assert latest["minutes"] == pytest.approx(5.0)
    assert latest["feed_m_min"] == pytest.approx(3 * 3.6 / 5.0)
    assert latest["planned_minutes"] > 0
    assert latest["edge_used"] > first["edge_used"] > 0
    assert (latest["job"], latest["band"]) == ("Strakes", "K-07")


def test_a_taken_back_run_is_not_in_it(logged: FlaskClient) -> None:
    first = logged.get("/api/runs").get_json()["runs"][0]["id"]
    assert logged.delete(f"/api/runs/{first}").status_code == 200
    assert asked(logged) == [1, 2]


def test_the_csv_holds_the_same_runs(logged: FlaskClient) -> None:
    answer = logged.get("/log.csv", query_string={"who": "Brill"})
    (line,) = csv.DictReader(io.StringIO(answer.text))
    assert (line["pieces"], line["signs"], line["at"]) == ("1", "burn", "2026-03-11T12:00+00:00")


@pytest.mark.parametrize(
    "wrong", [{"sort": "luck"}, {"page": -1}, {"since": "yesterday"}, {"x": 1}]
)
def test_what_cannot_be_asked_is_named(logged: FlaskClient, wrong: dict[str, object]) -> None:
    answer = logged.get("/api/runs", query_string=wrong)
    assert answer.status_code == 422
    assert next(iter(wrong)) in answer.text
