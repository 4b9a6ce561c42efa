"""A small shop to attack, and the writes that a day makes in it."""

import json
import random
from collections.abc import Callable
from pathlib import Path
from typing import Any

from flask import Flask
from flask.testing import FlaskClient

from jade_ribbon.api.app import create_app

EXAMPLE = json.loads(
    (Path(__file__).parents[1] / "tests/data/job.json").read_text(encoding="utf-8")
)
BAND: dict[str, Any] = {
    "label": "A-00",
    "width_mm": 19,
    "thickness_mm": 0.81,
    "tpi_lo": 2,
    "tpi_hi": 2,
    "form": "hook",
    "steel": "silicon_steel",
    "length_mm": 3360,
}
BANDS = 6


def make_shop(file: Path) -> None:
    """A file with a saw, six bands and a job."""
    client = create_app(file).test_client()
    post(client, "/api/saws", EXAMPLE["saw"])
    also = [f"A-{n:02}" for n in range(1, BANDS)]
    post(client, "/api/bands", {**BAND, "also": also})
    post(client, "/api/jobs", {**EXAMPLE["cut"], "saw_id": 1, "name": "Attacked"})
    close(client.application)


def close(app: Flask) -> None:
    """Let go of an application's file."""
    app.extensions["store"].close()


def post(client: FlaskClient, path: str, body: object) -> Any:
    """The answer to a write that must be taken."""
    data = b"" if body is None else json.dumps(body)
    answer = client.post(path, data=data, content_type="application/json")
    if answer.status_code not in (200, 201):
        raise RuntimeError(f"{path}: {answer.status_code} {answer.text[:300]}")
    return answer.get_json()


def a_run(key: str, dice: random.Random) -> dict[str, Any]:
    """A run as a phone writes it down."""
    return {
        "client_key": key,
        "job_id": 1,
        "saw_id": 1,
        "band_id": dice.randrange(1, BANDS + 1),
        "pieces": dice.randrange(1, 9),
        "length_mm": 3600,
        "feed_m_min": dice.uniform(1.0, 2.0),
        "waited_s": 0,
    }


def key_of(dice: random.Random) -> str:
    """A key that no other write has."""
    return f"{dice.getrandbits(64):016x}"


Write = Callable[[FlaskClient, random.Random], str]


def write_run(client: FlaskClient, dice: random.Random) -> str:
    """A run; its key."""
    key = key_of(dice)
    post(client, "/api/runs", a_run(key, dice))
    return f"run {key}"


def write_place(client: FlaskClient, dice: random.Random) -> str:
    """Where a band hangs; which band and where."""
    band, place = dice.randrange(1, BANDS + 1), key_of(dice)
    version = client.get(f"/api/bands/{band}").get_json()["band"]["version"]
    answer = client.patch(f"/api/bands/{band}", json={"version": version, "place": place})
    if answer.status_code != 200:
        raise RuntimeError(answer.text[:300])
    return f"place {band} {place}"


def write_note(client: FlaskClient, dice: random.Random) -> str:
    """A note in a band's record; its words."""
    words = key_of(dice)
    band = dice.randrange(1, BANDS + 1)
    post(client, f"/api/bands/{band}/events", {"kind": "note", "detail": words})
    return f"note {words}"


def write_mounting(client: FlaskClient, dice: random.Random) -> str:
    """Another band on the saw, as one deed with its events."""
    band = dice.randrange(1, BANDS + 1)
    post(client, "/api/saws/1/mount", {"band_id": band})
    return f"mounted {band}"


def write_undo(client: FlaskClient, dice: random.Random) -> str:
    """A run taken back, and brought again."""
    key = key_of(dice)
    run = post(client, "/api/runs", a_run(key, dice))["id"]
    change = client.delete(f"/api/runs/{run}").get_json()["change_id"]
    post(client, f"/api/changes/{change}/undo", None)
    return f"run {key}"


WRITES: tuple[Write, ...] = (
    write_run,
    write_run,
    write_place,
    write_note,
    write_mounting,
    write_undo,
)
