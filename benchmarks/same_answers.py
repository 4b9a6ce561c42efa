"""Do answers stay the same? Random jobs, the sample yard's plans and cards, every vector.

    python -m benchmarks.same_answers write FILE [--yard YARD]   # the answers of this tree
    python -m benchmarks.same_answers compare BEFORE AFTER       # what differs, path by path

Only outer doors are used (command line and HTTP), so that the same script runs on trees
laid out otherwise. Run `write` in both trees with a yard made by the older one.
"""

import argparse
import csv
import json
import random
import re
import shutil
import tempfile
from collections import Counter
from collections.abc import Iterator
from datetime import UTC, datetime
from pathlib import Path
from typing import Any
from urllib.parse import urlencode

from click.testing import CliRunner
from flask.testing import FlaskClient

ROOT = Path(__file__).parent.parent
TABLES = ROOT / "jade_ribbon" / "reference" / "tables"
SEED = 400_008
CATALOGUE_JOBS, RACK_JOBS = 200, 200
VOLATILE = {"hours_left", "started_at", "updated_at", "created_at", "change_id", "at"}
"""Keys that tell the time, or the number of an entry."""
OPERATIONS: dict[str, tuple[str, ...]] = {
    "resaw": ("wood",),
    "rip": ("wood",),
    "crosscut": ("wood",),
    "curve": ("wood", "panel"),
    "circle": ("wood", "panel"),
    "veneer": ("wood",),
    "wedge": ("wood",),
    "mill": ("wood",),
    "reclaim": ("wood",),
    "sheet": ("panel", "plastic"),
    "bar": ("ferrous", "nonferrous"),
    "tube": ("ferrous", "nonferrous"),
    "block": ("plastic", "foam", "carbon", "composite", "special"),
}
WOODS = ("softwood", "hardwood", "tropical", "troubled_wood")
RULES: dict[str, tuple[Any, ...]] = {
    "resaw_width": ("frame", "widest", "narrow"),
    "resaw_pitch": ("coarse", "fine"),
    "least_teeth": (2, 3, 4),
    "tension": ("full", "light"),
    "radius": ("comfortable", "tightest"),
    "feed_pace": ("full", "finish"),
    "kerf": ("material", "generous", "slight"),
    "steel": ("cost", "long_life", "cheap"),
    "hard_tips": ("cost", "avoid"),
    "change": ("first_sign", "limit", "demote"),
    "mill_speed": ("matched", "fast"),
    "guard_gap_mm": (6.0, 10.0, 20.0),
}
SAWS: tuple[dict[str, Any], ...] = (
    {"wheel_diameters_mm": [400, 400], "band_length_mm": [3340, 3380], "band_width_mm": [3, 25]},
    {"wheel_diameters_mm": [600, 600], "band_length_mm": [4560, 4620], "band_width_mm": [6, 40]},
    {"wheel_diameters_mm": [300] * 3, "band_length_mm": [2480, 2520], "band_width_mm": [3, 13]},
    {"wheel_diameters_mm": [900, 900], "band_length_mm": [6900, 7000], "band_width_mm": [20, 80]},
)


def materials() -> dict[str, list[str]]:
    """Material keys by group; all woods also under 'wood'."""
    found: dict[str, list[str]] = {}
    with (TABLES / "materials.csv").open(encoding="utf-8") as handle:
        for row in csv.DictReader(handle):
            found.setdefault(row["group"], []).append(row["key"])
    found["wood"] = [key for group in WOODS for key in found.get(group, [])]
    return found


def some_saw(dice: random.Random, *, metal: bool) -> dict[str, Any]:
    """A saw of some kind, its figures moved a little."""
    base = dice.choice(SAWS)
    smallest = min(base["wheel_diameters_mm"])
    speeds = [0.4, 0.8, 1.5] if metal else [7.0, 14.5]
    drive: dict[str, Any] = {"kind": "fixed", "speeds_m_s": speeds}
    if dice.random() < 0.3:
        drive = {"kind": "inverter", "base_hz": 50, "min_hz": 10, "max_hz": 70}
        drive["base_speed_m_s"] = 1.5 if metal else 20.0
    return base | {
        "name": "Any saw",
        "orientation": dice.choice(["vertical", "vertical", "horizontal"]),
        "tyre": dice.choice(["crowned", "flat", "none"]),
        "band_thickness_max_mm": round(smallest / 450, 2),
        "wheel_force_max_N": dice.choice([None, 1500, 3200, 9000]),
        "height_mm": 400,
        "throat_mm": 500,
        "guides": dice.choice(["rolling", "ceramic", "steel_block", "soft_block", "thrust_only"]),
        "guide_span_base_mm": dice.choice([60, 80, 110]),
        "guide_span_per_height": 1.0,
        "motor_kW": dice.choice([0.55, 1.5, 4.0, 11.0]),
        "drive_efficiency": 0.8,
        "feed": dice.choice(["hand", "hand", "power", "carriage"]),
        "feed_max_m_min": dice.choice([None, 2.0, 15.0]),
        "tensioner": dice.choice(["spring", "weight", "fixed"]),
        "drive": drive,
    }


def some_cut(dice: random.Random, known: dict[str, list[str]]) -> dict[str, Any]:
    """A cut of any operation with what its sentence asks for."""
    operation = dice.choice(list(OPERATIONS))
    group = dice.choice([g for g in OPERATIONS[operation] if known.get(g)])
    height = {"sheet": 12, "tube": 50, "bar": 40}.get(operation, 120) * dice.uniform(0.4, 1.6)
    cut: dict[str, Any] = {
        "operation": operation,
        "material": dice.choice(known[group]),
        "height_mm": round(height, 1),
        "length_mm": round(dice.uniform(50, 4000)),
        "count": dice.randrange(1, 60),
        "finish": dice.choice(["rough", "plane", "sand", "show"]),
        "tolerance_mm": dice.choice([None, 0.5, 1.0]),
    }
    if operation in ("curve", "circle"):
        cut["min_radius_mm"] = round(dice.uniform(20, 400))
    if operation == "wedge":
        cut["angle_deg"] = round(dice.uniform(1, 30))
    if operation == "tube":
        cut["wall_mm"] = round(dice.uniform(1.5, 6), 1)
    if operation == "mill":
        cut["log_diameter_mm"] = round(height * 1.3)
    if operation == "bar":
        cut["round_stock"] = dice.random() < 0.5
    return cut


def some_rules(dice: random.Random) -> dict[str, Any]:
    """A few house rules chosen the other way."""
    return {k: dice.choice(RULES[k]) for k in dice.sample(list(RULES), dice.randrange(4))}


def _run(arguments: list[str], given: object) -> Any:
    from jade_ribbon.cli import main

    result = CliRunner().invoke(main, arguments, input=json.dumps(given))
    return json.loads(result.output)


def catalogue_answers(dice: random.Random) -> Iterator[tuple[str, Any]]:
    """What `jade-ribbon recommend` says of random jobs with the built-in catalogue."""
    known = materials()
    for i in range(CATALOGUE_JOBS):
        cut = some_cut(dice, known)
        metal = any(cut["material"] in known.get(g, ()) for g in ("ferrous", "nonferrous"))
        job = {
            "format": "jade-ribbon/job",
            "version": 1,
            "saw": some_saw(dice, metal=metal),
            "cut": cut,
            "rules": some_rules(dice),
            "bands": None,
        }
        yield f"job-{i}-{cut['operation']}", _run(["recommend", "-"], job)


def _plain(client: FlaskClient, method: str, path: str, body: object = None) -> Any:
    answer = client.open(path, method=method, json=body)
    return {"status": answer.status_code, "body": answer.json}


def rack_answers(client: FlaskClient, dice: random.Random) -> Iterator[tuple[str, Any]]:
    """What Plan says on the sample yard's rack: plan, and what the choice leans on."""
    known = materials()
    for i in range(RACK_JOBS):
        cut = some_cut(dice, known) | {"saw_id": dice.randrange(1, 6), "rules": some_rules(dice)}
        yield f"plan-{i}-{cut['operation']}", _plain(client, "POST", "/api/plan", cut)
        if i % 10 == 0:
            yield f"sway-{i}", _plain(client, "POST", "/api/plan/sway", cut)


def yard_answers(client: FlaskClient) -> Iterator[tuple[str, Any]]:
    """Every page of the sample yard, and a card for each of its jobs that can have one."""
    for path in ("/api/shop", "/api/saws", "/api/bands", "/api/jobs", "/api/shopping"):
        yield path, _plain(client, "GET", path)
    jobs = client.get("/api/jobs").json or []
    bands = client.get("/api/bands").json or []
    for saw in client.get("/api/saws").json or []:
        path = f"/api/saws/{saw['id']}"
        for page in (f"{path}/stand?job_id={jobs[0]['id']}", f"{path}/scale"):
            yield page, _plain(client, "GET", page)
    for band in bands:
        for page in (f"/api/bands/{band['id']}", f"/api/bands/{band['id']}/setups"):
            yield page, _plain(client, "GET", page)
    for job in jobs:
        for band in dict.fromkeys([job["band_id"], *(b["id"] for b in bands[::7])]):
            started = client.post("/api/setups", json={"job_id": job["id"], "band_id": band})
            if started.status_code != 201:
                continue
            card = f"/api/setups/{(started.json or {})['id']}"
            yield f"card {job['id']} {band}", _plain(client, "GET", card)
            yield f"shakes {job['id']} {band}", _plain(client, "GET", f"{card}/vibration")


NUMBERS = range(1, 7)
"""Which records of a noun are read, one after the other."""
ASIDE = ("/api/copies", "/api/sample-yard", "/api/clock", "/api/door", "/api/doors")
"""Pages of this machine and its file, not of the shop."""
OF_MATERIALS = [{"key": "scots_pine_dry"}, {"key": "norway_spruce_dry"}, {"key": "no such"}]
QUERIES: dict[str, list[dict[str, Any]]] = {
    "/api/material": OF_MATERIALS,
    "/api/search": [{"q": q} for q in ("oak", "K-0", "canoe", "guides", "nosuch")],
    "/api/money": [{"by": by} for by in ("steel", "type", "material", "saw", "month", "person")],
    "/api/money/runs": [{"by": "saw", "key": str(n)} for n in NUMBERS],
    "/api/faults/before": [{"job_id": n} for n in NUMBERS],
    "/api/saws/{saw_id}/speeds": [{"target_m_s": v} for v in (1.0, 15.0, 30.0)],
    "/api/bands": [{}, {"scrapped": True}],
}


def every_page(client: FlaskClient) -> Iterator[tuple[str, Any]]:
    """Every question without a body that the API document names, of several records each."""
    for path, methods in client.get("/api/openapi.json").get_json()["paths"].items():
        if "get" not in methods or path in ASIDE:
            continue
        for number in NUMBERS if "{" in path else [0]:
            address = re.sub(r"{\w+}", str(number), path)
            for query in QUERIES.get(path, [{}]):
                page = f"{address}?{urlencode(query)}" if query else address
                yield f"GET {page}", _plain(client, "GET", page)


def every_question(client: FlaskClient) -> Iterator[tuple[str, Any]]:
    """Questions with a body, of the stations beside Plan."""
    jobs = client.get("/api/jobs").get_json()
    for saw in NUMBERS:
        mine = [j["id"] for j in jobs if j["saw_id"] == saw][:6]
        for among in ("rack", "types"):
            asked = {"saw_id": saw, "job_ids": mine or [1], "among": among}
            found = _plain(client, "POST", "/api/money/all-round", asked)
            yield f"all round {saw} {among}", found
        tyre = {"front_gap_mm": 0.4, "middle_gap_mm": 0.0, "back_gap_mm": 0.3 + saw / 10}
        yield f"tyre {saw}", _plain(client, "POST", f"/api/saws/{saw}/tyre", tyre)
    for accessory in ("debarker", "log_washer", "extraction", "lubricant"):
        asked = {"accessory": accessory, "price": 300.0}
        yield f"payback {accessory}", _plain(client, "POST", "/api/money/payback", asked)
    for stock in NUMBERS:
        for job in jobs[:5]:
            asked = {"job_id": job["id"], "clean_up_per_face_mm": 0.5}
            found = _plain(client, "POST", f"/api/stock/{stock}/plan", asked)
            yield f"stock {stock} of {job['id']}", found
    some = some_cut(random.Random(SEED), materials()) | {"min_radius_mm": 0}
    for job in jobs:
        for band in NUMBERS:
            cut = {k: v for k, v in job.items() if k in some and v is not None}
            asked = cut | {"saw_id": job["saw_id"], "band_ids": [band, band + 1]}
            yield f"compare {job['id']} {band}", _plain(client, "POST", "/api/plan/compare", asked)
    ring = {
        "segments": 12,
        "radius_mm": 150.0,
        "joint_width_mm": 20.0,
        "gap_allowed_mm": 0.1,
        "face_error_deg": 0.1,
        "kerf_mm": 1.2,
    }
    yield "ring", _plain(client, "POST", "/api/ring", ring)
    signs = client.get("/api/faults/known").get_json()["signs"]
    for i, sign in enumerate(signs):
        told = {"saw_id": i % 3 + 1, "symptoms": {sign["key"]: "clear"}, "who": "Nobody"}
        yield f"trouble {sign['key']}", _plain(client, "POST", "/api/faults", told)


def vector_answers() -> Iterator[tuple[str, Any]]:
    """Every worked case through `jade-ribbon calc`."""
    for file in sorted((ROOT / "tests" / "vectors").glob("*.json")):
        document = json.loads(file.read_text())
        yield file.stem, _run(["calc", document["calc"]], [c["in"] for c in document["cases"]])


def _stop_the_clock(at: float) -> None:
    """The shop's time stands: what ages between two runs is no difference."""
    from jade_ribbon.services import clock

    mark = clock.elapsed_s()

    def elapsed() -> float:
        return mark

    def wall() -> datetime:
        return datetime.fromtimestamp(at, UTC)

    clock.wall, clock.elapsed_s = wall, elapsed


def write(file: Path, yard: Path | None) -> None:
    """Write the answers of this tree; with a yard, at the hour it was made."""
    from jade_ribbon.api.app import create_app
    from jade_ribbon.demo.world import make_world

    dice = random.Random(SEED)
    answers = dict(catalogue_answers(dice)) | dict(vector_answers())
    with tempfile.TemporaryDirectory() as folder:
        copy = Path(folder) / "yard.sqlite"
        if yard is None:
            make_world(copy)
        else:
            shutil.copy(yard, copy)
            _stop_the_clock(yard.stat().st_mtime)
        app = create_app(copy)
        client = app.test_client()
        answers |= dict(rack_answers(client, dice)) | dict(yard_answers(client))
        answers |= dict(every_page(client)) | dict(every_question(client))
        app.extensions["store"].close()
    file.write_text(json.dumps(answers, indent=0, sort_keys=True))
    print(f"{len(answers)} answers written")


RENAMED = {"bench": "fittings"}
"""What an answer calls otherwise since; what is only added is no difference."""


def differences(before: Any, after: Any, path: str = "") -> Iterator[tuple[str, Any, Any]]:
    """Every place where what was answered before is not answered the same, to the last digit."""
    if isinstance(before, dict) and isinstance(after, dict):
        for key in sorted(set(before) - VOLATILE):
            now = after.get(RENAMED.get(key, key), after.get(key))
            yield from differences(before[key], now, f"{path}.{key}")
    elif isinstance(before, list) and isinstance(after, list) and len(before) == len(after):
        for i, (one, other) in enumerate(zip(before, after, strict=True)):
            yield from differences(one, other, f"{path}.{i}")
    elif before != after:
        yield path, before, after


def compare(before: Path, after: Path, shown: int = 40) -> int:
    """Print what differs; the number of differing answers."""
    old, new = json.loads(before.read_text()), json.loads(after.read_text())
    differing, kinds = 0, Counter[str]()
    for name in sorted({*old, *new}):
        found = list(differences(old.get(name), new.get(name)))
        differing += bool(found)
        for path, one, other in found:
            kind = ".".join(p for p in path.split(".") if not p.isdigit())
            kinds[kind] += 1
            if kinds[kind] <= 2 and len(kinds) <= shown:
                print(f"{name}{path}\n  {json.dumps(one)[:300]}\n  {json.dumps(other)[:300]}")
    print(f"{differing} of {len(old)} answers differ; by place: {dict(kinds.most_common(shown))}")
    return differing


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    doing = parser.add_subparsers(dest="doing", required=True)
    writes = doing.add_parser("write")
    writes.add_argument("file", type=Path)
    writes.add_argument("--yard", type=Path)
    compares = doing.add_parser("compare")
    compares.add_argument("before", type=Path)
    compares.add_argument("after", type=Path)
    given = parser.parse_args()
    if given.doing == "write":
        write(given.file, given.yard)
    else:
        raise SystemExit(min(compare(given.before, given.after), 1))


if __name__ == "__main__":
    main()
