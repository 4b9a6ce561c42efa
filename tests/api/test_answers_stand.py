"""Answers of a shop stand as they were: whichever rule or constant moves, some answer does.

The shop is the boatyard's saws, bands, stock and kinds of work with a record of its own, on a clock
that stands. After a change that is meant to move answers, `python -m tests.api.test_answers_stand`
writes tests/data/answers.json anew, and the difference is part of the change; what moved, and by
how much, `python -m benchmarks.same_answers` tells.
"""

import hashlib
import json
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import asdict
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any
from unittest.mock import patch

from flask.testing import FlaskClient

from jade_ribbon.api.app import create_app
from jade_ribbon.core.faults.measures import MEASURES
from jade_ribbon.demo.stock_history import RACK
from jade_ribbon.demo.yard import BANDS, LENGTHS, SAWS, WORK
from jade_ribbon.services import clock
from jade_ribbon.services.planning.inputs import PlanInput

STAND = Path(__file__).parents[1] / "data" / "answers.json"
DIGITS = 7
BEGUN = datetime(2026, 3, 2, 8, tzinfo=UTC)
ROUNDS = 3
NINE = [(along, up) for along in (0.0, 0.5, 1.0) for up in (-1.0, 0.0, 1.0)]
SIGNS: tuple[list[str], ...] = (["burn"], [], ["wander", "hard_push"], ["drift"], [], ["fuzz"])
PAGES = (
    "/api/bands",
    "/api/rack/next",
    "/api/rack/learned",
    "/api/rack/spares",
    "/api/types",
    "/api/radius-card",
    "/api/shopping",
    "/api/stock",
    "/api/upkeep",
    "/api/money?by=steel",
    "/api/money?by=person",
    "/api/money/rules",
    "/api/faults",
)
FIGURES = ("assumed", "saw_kinds", "usual", "losses", "paces", "edges", "judgements", "roughness")
"""Tables of the reference that hold figures of the job; its words have tests of their own."""
OF_EACH = {
    "/api/saws/{}/stand": range(1, 6),
    "/api/saws/{}/speeds?target_m_s=15": range(1, 6),
    "/api/saws/{}/alignments": range(1, 3),
    "/api/saws/{}/scale": range(1, 3),
    "/api/saws/{}/upkeep": range(1, 6),
    "/api/bands/{}": range(1, 32, 3),
    "/api/bands/{}/sharpen-card": (3, 8),
}


class Made:
    """The shop while its record is made, on a clock that stands until it is moved."""

    def __init__(self, client: FlaskClient) -> None:
        self.client, self.at, self.jobs = client, BEGUN, list[dict[str, Any]]()

    def post(self, path: str, body: dict[str, Any], wanted: int = 201) -> Any:
        answer = self.client.post(path, json=body)
        assert answer.status_code == wanted, (path, body, answer.text)
        return answer.get_json()

    def make(self) -> None:
        saws = {key: self.post("/api/saws", saw)["id"] for key, saw in SAWS.items()}
        for band in BANDS:
            given = asdict(band) | {"length_mm": LENGTHS[band.saw]}
            given.pop("week"), given.pop("saw")
            self.post("/api/bands", {k: v for k, v in given.items() if v is not None})
        for billet in RACK:
            self.post("/api/stock", billet)
        for work in WORK:
            told = asdict(work) | {"saw_id": saws[work.saw]}
            cut = {k: told[k] for k in PlanInput.model_fields if told.get(k) is not None}
            best = self.post("/api/plan", cut, 200)["best"]
            chosen = best["band"]["band_id"] if best else None
            self.jobs.append(self.post("/api/jobs", cut | {"name": work.name, "band_id": chosen}))
        for job in self.jobs[:2]:
            saw = f"/api/saws/{job['saw_id']}"
            self.post(f"{saw}/mount", {"band_id": job["band_id"], "who": "Odda"}, 200)
            self.post(f"{saw}/tension", {"state": "on", "stress_MPa": 120.0}, 200)
        for round_ in range(ROUNDS):
            for number, job in enumerate(self.jobs):
                if job["band_id"] is not None:
                    self.run(job, number, round_)

    def run(self, job: dict[str, Any], number: int, round_: int) -> None:
        """A run of a job, one of its faces, and what happens to its band in turn."""
        self.at += timedelta(hours=5 + number)
        run = {
            "client_key": f"stand-{number}-{round_}",
            "job_id": job["id"],
            "saw_id": job["saw_id"],
            "band_id": job["band_id"],
            "pieces": 3 + 4 * round_,
            "length_mm": job["length_mm"],
            "time_s": 40.0 + 60.0 * (number + 1) * (round_ + 1),
            "symptoms": SIGNS[(number + round_) % len(SIGNS)],
            "who": ("Odda", "Brill")[number % 2],
            "confirmed": True,
        }
        self.post("/api/runs", run)
        if number % 3 == 0:
            off = [0.1 * ((7 * i + number + round_) % 9) for i in range(9)]
            base = job["slice_mm"] or 20.0
            readings = [
                (along, up, round(base + o, 2)) for (along, up), o in zip(NINE, off, strict=True)
            ]
            self.post("/api/faces", {"job_id": job["id"], "readings": readings})
        events = ("cleaned", "sharpened", "measured_set", "hit")
        kind = events[(number + round_) % 4]
        value = {"measured_set": 0.42}.get(kind)
        self.post(f"/api/bands/{job['band_id']}/events", {"kind": kind, "value": value})

    def pages(self) -> Iterator[tuple[str, Any]]:
        for page in PAGES:
            yield page, self.client.get(page).get_json()
        tables = self.client.get("/api/reference").get_json()
        yield from ((name, tables[name]) for name in FIGURES)
        for page, keys in OF_EACH.items():
            for key in keys:
                yield page.format(key), self.client.get(page.format(key)).get_json()

    def of_jobs(self) -> Iterator[tuple[str, Any]]:
        for number, job in enumerate(self.jobs):
            for page in ("/api/jobs/{}/run", "/api/jobs/{}/faces", "/api/faults/before?job_id={}"):
                yield f"{page} {number}", self.client.get(page.format(job["id"])).get_json()
            if job["band_id"] is None:
                continue
            card = self.post("/api/setups", {"job_id": job["id"], "band_id": job["band_id"]})
            path = f"/api/setups/{card['id']}"
            yield f"card {number}", self.client.get(path).get_json()
            yield f"vibration {number}", self.client.get(f"{path}/vibration").get_json()
            for means, reading in (("gauge", 60.0), ("pluck", 58.0), ("push", 22.0)):
                asked = {"means": means, "values": [reading], "deflection_mm": 3.0}
                yield (
                    f"{means} {number}",
                    self.client.post(f"{path}/tension", json=asked).get_json(),
                )
            drift = {"offset_mm": 3.0 + number, "run_mm": 400.0, "keep": False}
            yield f"drift {number}", self.client.post(f"{path}/drift", json=drift).get_json()
            asked = {"job_id": job["id"]}
            stock = f"/api/stock/{number % len(RACK) + 1}/plan"
            yield f"stock {number}", self.client.post(stock, json=asked).get_json()

    def of_faults(self) -> Iterator[tuple[str, Any]]:
        for i, sign in enumerate(self.client.get("/api/faults/known").get_json()["signs"]):
            degree = "slight" if i % 3 == 0 else "clear"
            told = {"saw_id": i % 5 + 1, "symptoms": {sign["key"]: degree}, "who": "Nobody"}
            trouble = self.client.post("/api/faults", json=told).get_json()
            yield f"trouble {sign['key']}", trouble
        job = self.jobs[0]
        told = {"saw_id": job["saw_id"], "band_id": job["band_id"], "job_id": job["id"]}
        sawn = self.post("/api/faults", told | {"symptoms": {"barrel": "clear"}, "who": "Nobody"})
        for check in MEASURES:
            for n in (0.1, 0.4):
                given = {q.key: q.low + n * (q.high - q.low) for q in MEASURES[check][1]}
                asked = {"check": check, "figures": given}
                found = self.client.post(f"/api/faults/{sawn['id']}/measure", json=asked).get_json()
                yield f"measure {check} {n}", found

    def of_saws(self) -> Iterator[tuple[str, Any]]:
        for saw in range(1, 6):
            for gap in (0.0, 0.15, 0.5):
                tyre = {"front_gap_mm": gap, "middle_gap_mm": 0.0, "back_gap_mm": 0.3}
                found = self.client.post(f"/api/saws/{saw}/tyre", json=tyre).get_json()
                yield f"tyre {saw} {gap}", found
        for saw, axis in ((1, "offset"), (2, "tilt")):
            begun = {"axis": axis, "wheel": "upper", "gap_mm": 2.4}
            truing = self.client.post(f"/api/saws/{saw}/alignments", json=begun).get_json()
            yield f"truing {axis}", truing
            for turns, left in ((0.5, 1.7), (0.75, 0.6)):
                moved = {"turns": turns, "gap_mm": left}
                path = f"/api/alignments/{truing.get('id')}/moves"
                yield f"truing {axis} {turns}", self.client.post(path, json=moved).get_json()
        for gap in (0.05, 0.4, 1.5, 3.0):
            asked = {"gap_mm": gap, "stack_mm": 1.1}
            yield f"shims {gap}", self.client.post("/api/shims", json=asked).get_json()
        for segments in (6, 12, 24):
            ring: dict[str, float] = {"segments": segments, "radius_mm": 150.0}
            ring |= {
                "joint_width_mm": 20.0,
                "gap_allowed_mm": 0.1,
                "face_error_deg": 0.1,
                "kerf_mm": 1.2,
            }
            yield f"ring {segments}", self.client.post("/api/ring", json=ring).get_json()
        for field, value in (("thickness_mm", 6.4), ("width_mm", 0.75), ("speed_m_s", 3000.0)):
            typed = {"field": field, "value": value}
            yield f"meant {field}", self.client.post("/api/meant", json=typed).get_json()

    def of_money(self) -> Iterator[tuple[str, Any]]:
        for saw in range(1, 6):
            mine = [j["id"] for j in self.jobs if j["saw_id"] == saw]
            asked = {"saw_id": saw, "job_ids": mine[:4]}
            found = self.client.post("/api/money/all-round", json=asked)
            yield f"all round {saw}", found.get_json()
        for accessory in ("debarker", "log_washer", "extraction", "lubricant", "scraper"):
            asked = {"accessory": accessory, "price": 300.0}
            yield accessory, self.client.post("/api/money/payback", json=asked).get_json()


def _rounded(answer: Any) -> Any:
    """An answer with its figures to so many digits."""
    if isinstance(answer, dict):
        return {k: _rounded(v) for k, v in answer.items()}
    if isinstance(answer, list):
        return [_rounded(v) for v in answer]
    return float(f"{answer:.{DIGITS}g}") if isinstance(answer, float) else answer


@contextmanager
def made() -> Iterator[Made]:
    mark = clock.elapsed_s()
    with tempfile.TemporaryDirectory() as folder:
        shop: Made
        with (
            patch.object(clock, "wall", lambda: shop.at),
            patch.object(clock, "elapsed_s", lambda: mark),
        ):
            shop = Made(None)  # type: ignore[arg-type]
            app = create_app(Path(folder) / "stand.sqlite")
            shop.client = app.test_client()
            shop.make()
            yield shop
            app.extensions["store"].close()


def marks(shop: Made) -> dict[str, str]:
    """A mark of every answer, by what was asked."""
    found = [*shop.pages(), *shop.of_faults(), *shop.of_saws(), *shop.of_money(), *shop.of_jobs()]
    told = {name: json.dumps(_rounded(answer), sort_keys=True) for name, answer in found}
    return {name: hashlib.sha256(text.encode()).hexdigest()[:12] for name, text in told.items()}


def test_every_answer_stands() -> None:
    stand = json.loads(STAND.read_text())
    with made() as shop:
        now = marks(shop)
    moved = {n for n in stand.keys() | now.keys() if stand.get(n) != now.get(n)}
    assert sorted(moved) == []


if __name__ == "__main__":
    with made() as the_shop:
        STAND.write_text(json.dumps(marks(the_shop), indent=0, sort_keys=True) + "\n")
