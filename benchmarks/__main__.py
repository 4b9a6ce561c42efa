"""`make bench`: how fast the application answers, printed as figures."""

import gzip
import json
import multiprocessing
import random
import re
import statistics
import tempfile
import time
from collections.abc import Callable, Sequence
from datetime import UTC, datetime, timedelta
from functools import partial
from pathlib import Path

import numpy as np
from flask.testing import FlaskClient

from benchmarks import calibration, learning
from benchmarks.calibration import EXAMPLE
from benchmarks.cut import bench_cut
from benchmarks.phone import bench_phone
from benchmarks.timing import report, timed
from benchmarks.troubles import bench_answers, bench_troubles
from jade_ribbon.api.app import create_app
from jade_ribbon.api.pages import STATIC
from jade_ribbon.core.choosing.choose import choose
from jade_ribbon.core.choosing.uncertainty.chances import chances
from jade_ribbon.core.choosing.uncertainty.monte_carlo import Dice
from jade_ribbon.core.edge.history import RunFact, replayed
from jade_ribbon.core.setup.alignment import Move, advise
from jade_ribbon.core.simulation.wheels import follow, some_wheel
from jade_ribbon.demo.world import make_world
from jade_ribbon.formats.job import JobFile
from jade_ribbon.server import settle
from jade_ribbon.services.clock import now
from jade_ribbon.services.rack.replay import RULES_VERSION, around, refresh
from jade_ribbon.store.database import Store
from jade_ribbon.store.migrate import migrate
from jade_ribbon.store.models import BandEventRow, BandRow, RunRow, SawRow

REQUESTS = 200
CUT = {
    "operation": "resaw",
    "material": "european_larch_dry",
    "length_mm": 3600,
    "count": 7,
    "finish": "plane",
}


WOOD = "white_oak_dry"
OTHER_CUTS: tuple[dict[str, object], ...] = (
    {"operation": "rip", "material": WOOD, "height_mm": 60, "saw_id": 2},
    {"operation": "crosscut", "material": WOOD, "height_mm": 60, "saw_id": 2},
    {
        "operation": "curve",
        "material": WOOD,
        "height_mm": 40,
        "min_radius_mm": 120,
        "saw_id": 2,
    },
    {
        "operation": "circle",
        "material": WOOD,
        "height_mm": 90,
        "min_radius_mm": 150,
        "saw_id": 1,
    },
    {"operation": "veneer", "height_mm": 150, "finish": "sand", "saw_id": 1},
    {"operation": "wedge", "height_mm": 80, "angle_deg": 8, "saw_id": 1},
    {"operation": "mill", "height_mm": 300, "log_diameter_mm": 400, "saw_id": 5},
    {"operation": "reclaim", "material": WOOD, "height_mm": 90, "saw_id": 1},
    {"operation": "bar", "material": "mild_steel", "height_mm": 40, "saw_id": 4},
    {
        "operation": "tube",
        "material": "mild_steel",
        "height_mm": 50,
        "wall_mm": 3,
        "saw_id": 4,
    },
)


def bench_plan(folder: Path) -> None:
    file = folder / "yard.sqlite"
    start = time.perf_counter()
    make_world(file)
    print(f"{'sample boatyard made in':<44} {time.perf_counter() - start:6.1f} s")
    client = create_app(file).test_client()
    dice = random.Random(1)

    def ask() -> None:
        body = {**CUT, "height_mm": dice.randrange(60, 280), "saw_id": dice.choice([1, 2])}
        assert client.post("/api/plan", json=body).status_code == 200

    empty = timed(lambda: client.get("/api/nothing"), REQUESTS)
    settle()
    answers = timed(ask, REQUESTS)
    bench_answers(client)
    report("plan answer, 256 draws of rack, types, saws", answers, 60)
    times = statistics.median(answers) / statistics.median(empty)
    print(f"{'the same, over an empty request':<44} {times:6.0f} times")
    bench_busy(ask)
    bench_draws()

    def ask_any() -> None:
        body = {**CUT, **dice.choice(OTHER_CUTS)}
        assert client.post("/api/plan", json=body).status_code == 200

    report("plan answer, the other operations", timed(ask_any, REQUESTS), 100)
    band = client.post("/api/plan", json={**CUT, "height_mm": 180, "saw_id": 2}).json
    assert band is not None
    feed = {**CUT, "height_mm": 180, "saw_id": 2, "band_id": band["best"]["band"]["band_id"]}

    def drag() -> None:
        body = {**feed, "feed_m_min": dice.uniform(0.5, 4)}
        assert client.post("/api/plan/feed", json=body).status_code == 200

    report("feed handle moved", timed(drag, REQUESTS), 100)
    bench_find(client)
    bench_phone(file)
    bench_card(client)
    bench_cut(client)
    bench_writes(client)


def bench_find(client: FlaskClient) -> None:
    """Find, as it is typed: names, words with a slip, one letter."""
    typed = ["K-07", "larch", "euopean", "tention", "feed per toth", "set", "k", "strakes"]
    dice = random.Random(3)
    client.get("/api/search?q=warm")
    answers = timed(lambda: client.get(f"/api/search?q={dice.choice(typed)}"), REQUESTS)
    report("Find, as it is typed", answers, 30)


def coached(start: float, moves: Sequence[tuple[float, float]]) -> float | None:
    """The coach's next turn."""
    advice = advise(start_mm=start, moves=[Move(*m) for m in moves])
    return None if advice.state in ("done", "dead", "lost") else advice.turns


def bench_coach() -> None:
    """The alignment coach over a thousand simulated saws."""
    dice = np.random.default_rng(11)
    moves, left = [], []
    for _ in range(1000):
        wheel = some_wheel(dice)
        moves.append(len(follow(wheel, coached)))
        left.append(abs(wheel.gap_mm))
    within = 100 * np.mean(np.array(moves) <= 5)
    true = 100 * np.mean(np.array(left) <= 0.3)
    print(
        f"{'alignment coach, 1 000 saws':<44} median {np.median(moves):.0f} moves, "
        f"{within:.1f} % within 5, {true:.1f} % left within 0.3 mm"
    )


def _spin() -> None:
    while True:
        pass


def bench_busy(ask: Callable[[], object]) -> None:
    """The same with one core busy elsewhere."""
    other = multiprocessing.Process(target=_spin, daemon=True)
    other.start()
    try:
        report("the same, one core busy elsewhere", timed(ask, REQUESTS), 100)
    finally:
        other.terminate()
        other.join()


def bench_draws() -> None:
    """The draws alone, few and many, of the example job's last group and those beside it."""
    job = JobFile.model_validate(json.loads(EXAMPLE.read_text())).to_core()
    choice = choose(job, beside=7)
    for draws in (256, 4000):
        spent = timed(partial(chances, choice, job, Dice(draws)), 20)
        report(f"{draws} draws of seven bands", spent, draws / 4)


def bench_writes(client: FlaskClient) -> None:
    """A page read and a run written down: each on the disk before it is answered."""
    band = client.get("/api/bands").json
    jobs = client.get("/api/jobs").json
    assert band is not None and jobs is not None
    job = next(j for j in jobs if j["name"] == "Garboards for the ferry")
    report("band page read", timed(lambda: client.get("/api/bands/7"), 100), 100)
    keys = iter(range(10_000))

    def log() -> None:
        run = {
            "client_key": f"bench-run-{next(keys):06}",
            "job_id": job["id"],
            "saw_id": job["saw_id"],
            "band_id": job["band_id"],
            "pieces": 1,
            "length_mm": 3600,
            "feed_m_min": 1.5,
        }
        assert client.post("/api/runs", json=run).status_code == 201

    report("run written down", timed(log, 100), 100)


def bench_card(client: FlaskClient) -> None:
    """A set-up card read, as every tap on it does."""
    jobs = client.get("/api/jobs").json
    assert jobs is not None
    card = next(j["setup_id"] for j in jobs if j["name"] == "Garboards for the ferry")
    report("set-up card read", timed(lambda: client.get(f"/api/setups/{card}"), 100), 100)


def _bench_saw() -> SawRow:
    return SawRow(
        name="Bench",
        orientation="vertical",
        wheel_diameters_mm=[400, 400],
        tyre="crowned",
        band_length_min_mm=3340,
        band_length_max_mm=3380,
        band_width_min_mm=3,
        band_width_max_mm=25,
        band_thickness_max_mm=0.9,
        wheel_force_max_N=3200,
        height_mm=300,
        throat_mm=390,
        guides="rolling",
        guide_span_base_mm=70,
        guide_span_per_height=1,
        motor_kW=1.5,
        drive_efficiency=0.8,
        drive={"kind": "fixed", "speeds_m_s": [14.5]},
        feed="hand",
        tensioner="spring",
        hand_force_N=80,
        assumed=[],
    )


def _bench_run(i: int, saw: SawRow, rows: list[BandRow]) -> RunRow:
    """The i-th run: twenty sittings of ten for each band, over two years."""
    bands = len(rows)
    return RunRow(
        client_key=f"bench-{i:08}",
        saw_id=saw.id,
        band_id=rows[i % bands].id,
        # Twenty sittings of ten runs for each band, over two years.
        at=now() - timedelta(days=730 - 36 * (i // bands // 10), minutes=200 - i // bands),
        operation="resaw",
        material=WOODS[i // bands // 10 % len(WOODS)],
        who=("Ada", "Bo", "Cy")[i // bands // 10 % 3],
        height_mm=180,
        length_mm=3600,
        pieces=5,
        feed_m_min=2,
        time_s=500,
        speed_m_s=14.5,
        finish="plane",
        symptoms=[],
        contact_m=10,
        equivalent_m=10,
        fouling_gain=0.01,
        bending_share=0.001,
    )


def big_rack(file: Path, bands: int, runs: int) -> None:
    """A shop with so many bands and runs, written straight to its tables."""
    store = Store(file)
    migrate(store)
    with store.write() as session:
        saw = _bench_saw()
        session.add(saw)
        rows = [
            BandRow(
                label=f"B-{i:04}",
                width_mm=19,
                thickness_mm=0.81,
                tpi_lo=3,
                tpi_hi=3,
                form="hook",
                steel=STEELS[i % len(STEELS)],
                length_mm=3360,
                arrived_at=now() - timedelta(weeks=104),
            )
            for i in range(bands)
        ]
        session.add_all(rows)
        session.flush()
        for row in rows:
            half = now() - timedelta(days=365)
            session.add(BandEventRow(band_id=row.id, at=half, kind="sharpened", value=0.9))
        session.add_all(_bench_run(i, saw, rows) for i in range(runs))
        session.flush()
        known = around(session)
        for row in rows:
            refresh(session, row, known)
        session.connection().exec_driver_sql(f"PRAGMA user_version = {RULES_VERSION}")
    store.close()


STEELS = ("carbon_flexback", "silicon_steel", "bimetal_m42")
WOODS = ("european_larch_dry", "white_oak_dry", "scots_pine_green", "beech_dry")


def bench_replay() -> None:
    """One band's whole record replayed, as every write to it does."""
    runs = [
        RunFact(datetime(2026, 1, 1, tzinfo=UTC) + timedelta(hours=i), 10, 10, 0.01, 1e-5)
        for i in range(5000)
    ]
    report("5 000 runs of a band replayed", timed(lambda: replayed(runs, []), 20), 200)


def bench_rack(folder: Path) -> None:
    file = folder / "big.sqlite"
    big_rack(file, 1000, 200_000)
    client = create_app(file).test_client()
    client.get("/api/bands")
    settle()
    spent = timed(lambda: client.get("/api/bands"), 30)
    report("rack list, 1 000 bands and 200 000 runs", spent, 150)
    body = {**CUT, "height_mm": 180, "saw_id": 1}
    leans = timed(lambda: client.post("/api/plan/sway", json=body), 10)
    report("the same: what the choice leans on", leans, 300)
    report("the same: a band opened", timed(lambda: client.get("/api/bands/7"), 20), 100)
    for by in ("month", "steel", "type", "material", "saw", "person"):
        total = timed(partial(client.get, f"/api/money?by={by}"), 8)
        report(f"the same: money by {by}", total, 300)
    report("the same: what wants doing", timed(lambda: client.get("/api/rack/next"), 8), 300)
    report("the same: spares", timed(lambda: client.get("/api/rack/spares"), 8), 300)
    report("the same: what edges taught", timed(lambda: client.get("/api/rack/learned"), 5), 1000)
    report("the same: plan answer", timed(lambda: client.post("/api/plan", json=body), 10), 300)


def bench_load() -> None:
    """The script that the page itself asks for; what is loaded when opened comes later."""
    page = (STATIC / "index.html").read_text()
    first = re.findall(r'(?:src|href)="/(assets/[^"]+\.js)"', page)
    size = sum(len(gzip.compress((STATIC / name).read_bytes())) for name in first) / 1000
    verdict = "within" if size < 200 else "OVER"
    print(f"{'first load, script gzipped':<44} {size:6.1f} kB   {verdict} 200 kB")


def main() -> None:
    with tempfile.TemporaryDirectory() as name:
        folder = Path(name)
        bench_load()
        bench_replay()
        bench_rack(folder)
        bench_coach()
        bench_plan(folder)
    calibration.main()
    learning.main()
    bench_troubles()


if __name__ == "__main__":
    main()
