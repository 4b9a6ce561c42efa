"""A small shop to attack, and the writes that a day makes in it."""

import json
import math
import random
import shutil
import sqlite3
import threading
from collections import Counter
from collections.abc import Callable, Iterator
from contextlib import closing
from pathlib import Path
from typing import Any

from flask import Flask

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
AT_THE_SAW = threading.Lock()
"""One hand at a time mounts or takes back, and none while a copy is brought back."""


def make_shop(file: Path) -> None:
    """A file with a saw, six bands and a job."""
    client = create_app(file).test_client()
    post(client, "/api/saws", EXAMPLE["saw"])
    also = [f"A-{n:02}" for n in range(1, BANDS)]
    post(client, "/api/bands", {**BAND, "also": also})
    post(client, "/api/jobs", {**EXAMPLE["cut"], "saw_id": 1, "name": "Attacked"})
    close(client.application)


def with_sample_yard(file: Path) -> None:
    """A sample yard that is there already: none is made while the shop is attacked."""
    shutil.copy(file, file.with_name(f"{file.stem}.sample-yard.sqlite"))


def close(app: Flask) -> None:
    """Let go of an application's file."""
    app.extensions["store"].close()


def post(client: Any, path: str, body: object) -> Any:
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


Ack = dict[str, Any]
"""A write that was acknowledged: its kind, what tells it from others, and every field it sent."""
Write = Callable[[Any, random.Random], Ack]


def write_run(client: Any, dice: random.Random) -> Ack:
    """A run."""
    return _logged(client, dice)[0]


def _logged(client: Any, dice: random.Random) -> tuple[Ack, int]:
    """A run as acknowledged, and its id."""
    run = a_run(key_of(dice), dice)
    key = post(client, "/api/runs", run)["id"]
    kept = ("client_key", "band_id", "pieces", "length_mm", "feed_m_min")
    return {"kind": "run", **{name: run[name] for name in kept}}, key


def write_place(client: Any, dice: random.Random) -> Ack:
    """Where a band hangs."""
    band, place = dice.randrange(1, BANDS + 1), key_of(dice)
    version = client.get(f"/api/bands/{band}").get_json()["band"]["version"]
    answer = client.patch(f"/api/bands/{band}", json={"version": version, "place": place})
    if answer.status_code == 409:
        return {"kind": "none"}  # another hand was quicker, and this one is told
    if answer.status_code != 200:
        raise RuntimeError(answer.text[:300])
    return {"kind": "place", "band_id": band, "place": place}


def write_note(client: Any, dice: random.Random) -> Ack:
    """A note in a band's record."""
    words, band = key_of(dice), dice.randrange(1, BANDS + 1)
    post(client, f"/api/bands/{band}/events", {"kind": "note", "detail": words})
    return {"kind": "note", "band_id": band, "detail": words}


def write_mounting(client: Any, dice: random.Random) -> Ack:
    """Another band on the saw, as one deed with its events, by somebody."""
    who = key_of(dice)
    with AT_THE_SAW:  # a band that is on already is not put on again, and nothing is written
        on = client.get("/api/saws/1").get_json()["mounted_band_id"]
        band = dice.choice([b for b in range(1, BANDS + 1) if b != on])
        post(client, "/api/saws/1/mount", {"band_id": band, "who": who})
    return {"kind": "mount", "band_id": band, "who": who}


def write_undo(client: Any, dice: random.Random) -> Ack:
    """A run of one's own taken back, and brought again."""
    with AT_THE_SAW:  # after a restore its number may be another's run
        told, key = _logged(client, dice)
        change = client.delete(f"/api/runs/{key}").get_json()["change_id"]
        post(client, f"/api/changes/{change}/undo", None)
    return told


def write_trouble(client: Any, dice: random.Random) -> Ack:
    """A trouble told."""
    who = key_of(dice)
    told = {"saw_id": 1, "symptoms": {"drift": "clear"}, "who": who}
    post(client, "/api/faults", told)
    return {"kind": "trouble", "who": who}


WRITES: tuple[Write, ...] = (
    write_run,
    write_run,
    write_place,
    write_note,
    write_mounting,
    write_undo,
    write_trouble,
)


def deck(dice: random.Random) -> Iterator[Write]:
    """Writes in ever new orders, each kind as often as it stands in the list."""
    while True:
        yield from dice.sample(WRITES, len(WRITES))


KINDS = ("run", "place", "note", "mount", "trouble")


def too_few(acknowledged: list[Ack], least: int) -> list[str]:
    """Kinds of writes of which so few were acknowledged that their loss would not be seen."""
    count = Counter(ack["kind"] for ack in acknowledged)
    return [f"{kind}: {count[kind]}" for kind in KINDS if count[kind] < least]


def is_sound(file: Path) -> bool:
    with closing(sqlite3.connect(file)) as raw:
        try:
            return bool(raw.execute("PRAGMA quick_check").fetchone() == ("ok",))
        except sqlite3.DatabaseError:
            return False


def missing(file: Path, acknowledged: list[Ack]) -> list[Ack]:
    """What was acknowledged and is not in a file, each with every field that was sent."""
    if not is_sound(file):
        return [{"kind": "damaged", "file": str(file)}, *acknowledged]
    with closing(sqlite3.connect(file)) as raw:
        runs = {
            row[0]: dict(
                zip(("band_id", "pieces", "length_mm", "feed_m_min"), row[1:], strict=True)
            )
            for row in raw.execute(
                "SELECT client_key, band_id, pieces, length_mm, feed_m_min FROM run "
                "WHERE deleted_at IS NULL"
            )
        }
        notes = set(raw.execute("SELECT band_id, detail FROM band_event WHERE kind = 'note'"))
        mounted = set(raw.execute("SELECT band_id, who FROM band_event WHERE kind = 'mounted'"))
        troubles = {row[0] for row in raw.execute("SELECT who FROM trouble")}
        places = set(
            raw.execute(
                "SELECT noun_id, json_extract(after, '$.place') FROM change WHERE noun = 'band'"
            )
        )
    there: dict[str, Callable[[Ack], bool]] = {
        "run": lambda a: (
            all(
                math.isclose(a[name], value)
                for name, value in runs.get(a["client_key"], {}).items()
            )
            and a["client_key"] in runs
        ),
        "note": lambda a: (a["band_id"], a["detail"]) in notes,
        "place": lambda a: (a["band_id"], a["place"]) in places,
        "mount": lambda a: (a["band_id"], a["who"]) in mounted,
        "trouble": lambda a: a["who"] in troubles,
        "none": lambda _: True,
    }
    return [ack for ack in acknowledged if not there[ack["kind"]](ack)]
