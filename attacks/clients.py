"""Many at once: so many clients reading and writing, without an error."""

import http.client
import json
import random
import statistics
import threading
import time
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from attacks.shop import BANDS, EXAMPLE, a_run, key_of, make_shop
from jade_ribbon.demo.serving import serving

READS = ("/api/bands", "/api/saws", "/api/jobs", "/api/shop", "/api/bands/1", "/api/changes")
THINK_S = 0.5
"""A person's pause between two taps."""
HEADERS = {"Content-Type": "application/json", "Sec-Fetch-Site": "same-origin"}


@dataclass
class Told:
    """What the clients saw."""

    reads: list[float] = field(default_factory=list)
    writes: list[float] = field(default_factory=list)
    stale: int = 0
    errors: list[str] = field(default_factory=list)


class Client:
    """One of them, on a connection of its own."""

    def __init__(self, address: str, seed: int, told: Told) -> None:
        self.at = address.removeprefix("http://")
        self.dice, self.told = random.Random(seed), told
        self.connection = http.client.HTTPConnection(self.at, timeout=60)

    def ask(self, method: str, path: str, body: object = None) -> Any:
        start = time.perf_counter()
        data = None if body is None else json.dumps(body)
        self.connection.request(method, path, data, HEADERS)
        answer = self.connection.getresponse()
        text = answer.read()
        spent = time.perf_counter() - start
        (self.told.reads if method == "GET" else self.told.writes).append(spent)
        found: Any = json.loads(text) if text else None
        if answer.status == 409 and found["code"] == "stale":
            self.told.stale += 1  # another hand was quicker: both are told, nothing is lost
        elif answer.status not in (200, 201):
            self.told.errors.append(f"{method} {path}: {answer.status} {text[:200]!r}")
        return found

    def tap(self) -> None:
        """One thing that a person does."""
        act = self.dice.random()
        if act < 0.6:
            self.ask("GET", self.dice.choice(READS))
        elif act < 0.7:
            cut = {**EXAMPLE["cut"], "height_mm": self.dice.uniform(60, 250)}
            self.ask("POST", "/api/plan", cut | {"saw_id": 1})
        elif act < 0.85:
            self.ask("POST", "/api/runs", a_run(key_of(self.dice), self.dice))
        else:
            band = self.dice.randrange(1, BANDS + 1)
            page = self.ask("GET", f"/api/bands/{band}")
            change = {"version": page["band"]["version"], "place": key_of(self.dice)}
            self.ask("PATCH", f"/api/bands/{band}", change)

    def work(self, until: float) -> None:
        while time.monotonic() < until:
            try:
                self.tap()
            except (OSError, http.client.HTTPException) as problem:
                self.told.errors.append(repr(problem))
                self.connection.close()
            time.sleep(self.dice.uniform(0.0, 2.0 * THINK_S))
        self.connection.close()


def _p95(seconds: list[float]) -> float:
    return round(1000.0 * statistics.quantiles(seconds, n=20)[-1], 1) if len(seconds) > 1 else 0.0


def attack(folder: Path, clients: int, seconds: float, seed: int = 1) -> dict[str, object]:
    """So many clients for so long on one server. How many requests, errors; p95 of both, in ms."""
    file = folder / "clients.sqlite"
    make_shop(file)
    told = Told()
    with serving(file) as address:
        until = time.monotonic() + seconds
        people = [Client(address, seed + n, told) for n in range(clients)]
        threads = [threading.Thread(target=p.work, args=(until,)) for p in people]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
    return {
        "clients": clients,
        "seconds": seconds,
        "reads": len(told.reads),
        "writes and questions": len(told.writes),
        "told that another was quicker": told.stale,
        "errors": len(told.errors),
        "first errors": told.errors[:3],
        "read p95, ms": _p95(told.reads),
        "write and question p95, ms": _p95(told.writes),
    }
