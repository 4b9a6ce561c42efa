"""Phones that were offline for a day, with clocks that are off: nothing twice, nothing lost."""

import random
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

from flask.testing import FlaskClient
from sqlalchemy import select, update

from attacks.shop import a_run, close, key_of, make_shop
from jade_ribbon.api.app import create_app
from jade_ribbon.store.models import BandRow, RunRow

RUNS_EACH = 24
DAY_S = 86_400.0
LOST_ANSWERS = 0.3
"""Share of answers that never come back: the phone sends again."""
SET_BACK = 0.1
"""Share of runs over which the phone's clock was set: it cannot tell how long they waited."""
NEAR = timedelta(seconds=90)


@dataclass(frozen=True)
class Written:
    """A run as a phone has it: when it really was, and what it sends of it."""

    at: datetime
    body: dict[str, Any]


def _day(dice: random.Random, now: datetime) -> list[Written]:
    """What one phone wrote down in a day, by a clock that is off by minutes, hours or years."""
    skew = timedelta(seconds=dice.choice((0.0, dice.gauss(0, 60), dice.gauss(0, 20_000), 4e8)))
    found = []
    for _ in range(RUNS_EACH):
        waited = dice.uniform(60.0, DAY_S)
        at = now - timedelta(seconds=waited)
        body = a_run(key_of(dice), dice) | {"at": (at + skew).isoformat(), "waited_s": waited}
        if dice.random() < SET_BACK:
            del body["waited_s"]
        found.append(Written(at, body))
    return found


def _send(client: FlaskClient, runs: list[Written], dice: random.Random) -> int:
    """Sends until every answer has come, out of order; how often it was sent."""
    left, sent = list(runs), 0
    while left:
        run = dice.choice(left)
        answer = client.post("/api/runs", json=run.body)
        sent += 1
        if answer.status_code != 201:
            raise RuntimeError(answer.text[:300])
        if dice.random() >= LOST_ANSWERS:
            left.remove(run)
    return sent


def attack(folder: Path, phones: int, seed: int = 1) -> dict[str, object]:
    """So many phones come back after a day. Runs, times sent, lost, twice, misplaced."""
    dice = random.Random(seed)
    file = folder / "phones.sqlite"
    make_shop(file)
    client = create_app(file).test_client()
    _long_ago(client)
    now = datetime.now(UTC)
    days = [_day(dice, now) for _ in range(phones)]
    sent = sum(_send(client, day, dice) for day in days)
    kept: dict[str, tuple[datetime, bool]] = {}
    twice = 0
    for key, at, asked in _runs(client):
        twice += key in kept
        kept[key] = (at, asked)
    written = {run.body["client_key"]: run for day in days for run in day}
    misplaced = sum(
        1
        for key, run in written.items()
        if key in kept and abs(kept[key][0] - run.at) > NEAR and not kept[key][1]
        if "waited_s" in run.body
    )
    close(client.application)
    return {
        "phones": phones,
        "runs written": len(written),
        "times sent": sent,
        "lost": len(written.keys() - kept.keys()),
        "twice": twice,
        "put elsewhere without asking": misplaced,
        "asked about": sum(asked for _, asked in kept.values()),
    }


def _long_ago(client: FlaskClient) -> None:
    """The shop's bands came a year ago."""
    with client.application.extensions["store"].write() as session:
        session.execute(update(BandRow).values(arrived_at=datetime.now(UTC) - timedelta(days=365)))


def _runs(client: FlaskClient) -> list[tuple[str, datetime, bool]]:
    with client.application.extensions["store"].read() as session:
        rows = session.scalars(select(RunRow)).all()
        return [(r.client_key, r.at, r.to_confirm) for r in rows]
