"""The cut: a face fitted and advised on, a cut dragged, a run card read, a cut list planned."""

import json
import random
import time
from pathlib import Path

from flask.testing import FlaskClient

from benchmarks.timing import report, timed
from jade_ribbon.core.inspection.advice import SetFigures, advise_on
from jade_ribbon.core.inspection.face import read_face
from jade_ribbon.formats.yield_job import read_yield
from jade_ribbon.services.stock.yields import best_plan

CASES = Path(__file__).parents[1] / "tests/data/yield.json"
NINE = [(x, y) for x in (0.0, 0.5, 1.0) for y in (-1.0, 0.0, 1.0)]
GIVEN = SetFigures(3600.0, 185.0, 0.8, 2.0, 0.4, 0.35, 0.2, 120.0, 140.0, 1.4)


def bench_cut(client: FlaskClient) -> None:
    """On the sample yard."""
    dice = random.Random(1)

    def fit() -> None:
        barrel = dice.uniform(-1.5, 1.5)
        readings = [
            [x, y, 14.0 + barrel * (1 / 3 - y * y) + dice.gauss(0.0, 0.03)] for x, y in NINE
        ]
        advise_on(read_face(readings, tolerance_mm=0.8), GIVEN)

    report("face fitted, mapped, advised on", timed(fit, 200), 50)
    jobs = client.get("/api/jobs").json
    assert jobs is not None
    seen = [j["id"] for j in jobs if j["band_id"] and j["material"] == "european_larch_dry"]
    page = timed(lambda: client.get(f"/api/jobs/{dice.choice(seen)}/faces"), 100)
    report("Inspect opened", page, 100)
    lot = next(j for j in jobs if j["name"] == "Strips for the canoe")
    report("run card read", timed(lambda: client.get(f"/api/jobs/{lot['id']}/run"), 100), 100)
    strakes = next(j for j in jobs if j["name"] == "Strakes for the tender")
    rack = client.get("/api/stock").json
    assert rack is not None
    billet = next(s for s in rack if s["label"] == "L-32")
    band = next(b["id"] for b in client.get("/api/bands").json or [] if b["label"] == "K-05")

    def drag() -> None:
        first = dice.uniform(8.0, 15.0)
        asked = {"job_id": strakes["id"], "band_id": band, "cuts_mm": [first, 31.0, 46.0]}
        answer = client.post(f"/api/stock/{billet['id']}/plan", json=asked)
        assert answer.status_code == 200, answer.json

    report("a cut dragged", timed(drag, 100), 100)
    for case in json.loads(CASES.read_text()):
        job = read_yield(json.dumps(case["job"]).encode())
        start = time.perf_counter()
        found = best_plan(job)
        spent = time.perf_counter() - start
        share = 100.0 * found.plan.value / case["value"]
        verdict = "within" if spent < 2.0 and share >= 98.0 else "OVER"
        words = f"{len(job.billets)} billets, {len(job.pieces)} kinds of piece"
        print(f"{'cut list: ' + words:<44} {spent:6.2f} s   {share:5.1f} % of the best   {verdict}")
