"""Hostile requests: no error of ours, no traceback, none that takes long or much."""

import json
import random
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from flask.testing import FlaskClient

from attacks.memory import peak_kb
from attacks.shop import BAND, EXAMPLE, a_run, close, make_shop, with_sample_yard
from jade_ribbon.api.app import create_app
from jade_ribbon.api.routes import OPERATIONS

MOST_S = 5.0
MOST_MEMORY_KB = 400 * 1024
ODD: tuple[Any, ...] = (
    *(None, True, False, 0, -1, 1, 2**53, 2**63, 2**70, -(2**63), 0.0, -0.0, 1e-300, 5e-324),
    *(1e308, 1e999, -1e999, float("nan"), "", " ", "0", "1e999", "[[1e999|stress]]", "\x00"),
    *("\ud800", "é" * 3000, "' OR 1=1 --", "<script>alert(1)</script>", "../../etc/passwd"),
    *([], {}, [[]], [None], {"": 0}, ["x"] * 300, {"a": {"b": {"c": []}}}),
    *("2026-01-01T00:00:00Z", "0001-01-01T00:00:00+14:00", "9999-12-31T23:59:59-14:00"),
)
HOSTS = ("127.0.0.1", "localhost", "rebound.example", "", "[::1]", "a" * 3000, "127.0.0.1:x")
ORIGINS = (None, None, None, "http://evil.example", "null", "http://127.0.0.1", "x")
SITES = (None, None, None, "cross-site", "same-origin", "none", "same-site", "odd")
TYPES = (
    *("application/json",) * 6,
    *("text/plain", "audio/wav", "application/x-www-form-urlencoded", ""),
)
ODD_PATHS = ("/..%2f..%2fetc/passwd", "/assets/%00", "/%", "/api//x", "/a" * 900)
METHODS = ("GET", "POST", "PATCH", "DELETE", "PUT", "HEAD", "OPTIONS", "TRACE", "BREW")


def bodies() -> dict[str, Any]:
    """Bodies that would be taken, by the operation that takes them."""
    dice = random.Random(0)
    plan = {**EXAMPLE["cut"], "saw_id": 1}
    frame = '<svg xmlns="http://www.w3.org/2000/svg" width="9mm" viewBox="0 0 9 9">'
    drawing = f'{frame}<circle r="3"/></svg>'
    return {
        "add_band_and_twins": {**BAND, "label": "H-1", "also": ["H-2"]},
        "save_band": {"version": 1, "place": "loft", "price": 12.0},
        "add_event": {"kind": "measured_set", "detail": "", "value": 0.4, "who": "x"},
        "add_saw": EXAMPLE["saw"],
        "save_saw": {"version": 1, "note": "x", "motor_kW": 2.0},
        "mount_band": {"band_id": 1, "who": "x"},
        "set_tension": {"state": "on", "stress_MPa": 100.0},
        "add_job": {**plan, "name": "x"},
        "save_job": {"version": 1, "height_mm": 120.0},
        "plan_cut": plan,
        "what_sways": plan,
        "log_run": a_run("hostile-run-key", dice),
        "save_shop": {"version": 1, "rules": {"tension": "light"}},
        "import_job": EXAMPLE,
        "start_setup": {"job_id": 1, "band_id": 1},
        "measure_outline": {"name": "a.svg", "text": drawing},
        "add_face": {
            "job_id": 1,
            "readings": [[0.0, -1.0, 14.0], [0.0, 1.0, 14.1], [1.0, 0.0, 14.2]],
        },
        "probe": {"along": 0.5, "up": 0.0, "board": 1},
        "save_fittings": {"version": 1, "tyre_width_mm": 28.0, "good_for_h": {"tension": 8}},
    }


def _changed(body: Any, dice: random.Random) -> Any:
    """A body with something in it replaced, left out, put beside or nested."""
    if isinstance(body, dict) and body and dice.random() < 0.85:
        key = dice.choice(list(body))
        act = dice.random()
        if act < 0.1:
            return {k: v for k, v in body.items() if k != key}
        if act < 0.2:
            beside = dice.choice(("hat", "__proto__", "", "id", "version"))
            return {**body, beside: dice.choice(ODD)}
        return {**body, key: _changed(body[key], dice)}
    if isinstance(body, list) and body and dice.random() < 0.6:
        place = dice.randrange(len(body))
        return [*body[:place], _changed(body[place], dice), *body[place + 1 :]]
    return dice.choice(ODD)


def _raw(dice: random.Random) -> bytes:
    """What is no JSON, or too much of it."""
    return dice.choice(
        (
            b"",
            b"{",
            b"\xff\xfe{\x00}\x00",
            b"[" * 5000,
            b'{"a":' * 3000,
            b"NaN",
            b'{"version":1,"version":2}',
            bytes(dice.getrandbits(8) for _ in range(200)),
            b'"' + b"a" * 100_000 + b'"',
        )
    )


Request = tuple[str, str, dict[str, str], bytes]


def requests(count: int, dice: random.Random) -> Iterator[Request]:
    """So many hostile requests, most of them nearly right."""
    known = bodies()
    if other := known.keys() - {op.name for op in OPERATIONS}:
        raise LookupError(f"bodies of no operation: {other}")
    for _ in range(count):
        op = dice.choice(OPERATIONS)
        path = op.path
        for name in op.path_parameters:
            number = dice.choice((0, 1, 1, 1, 2, 7, 2**31, 2**53, 2**64, 10**30))
            path = path.replace(f"<int:{name}>", str(number))
        if dice.random() < 0.3:
            odd = dice.choice(("noun=hat", "noun=band&noun_id=x", "key=%00", "q=" + "a" * 500))
            path = f"{path}?{odd}&before={dice.choice(('-1', '1e9', '', '5'))}"
        if dice.random() < 0.05:
            path = dice.choice(ODD_PATHS)
        method = op.method if dice.random() < 0.9 else dice.choice(METHODS)
        body = known.get(op.name, {})
        for _ in range(dice.randrange(0, 3)):
            body = _changed(body, dice)
        data = _raw(dice) if dice.random() < 0.1 else json.dumps(body).encode("utf-8", "replace")
        yield method, path, _headers(dice), b"" if method == "GET" else data


def _headers(dice: random.Random) -> dict[str, str]:
    told: dict[str, str | None] = {"Host": "127.0.0.1", "Content-Type": dice.choice(TYPES)}
    for name, share, values in (
        ("Host", 0.15, HOSTS),
        ("Origin", 0.3, ORIGINS),
        ("Sec-Fetch-Site", 0.3, SITES),
        ("Idempotency-Key", 0.1, ("x", "good-key-0001", "é" * 9)),
        ("Jade-Person", 0.1, ("Odda", "%FF", "a" * 99, "%00")),
    ):
        if dice.random() < share:
            told[name] = dice.choice(values)
    return {k: v for k, v in told.items() if v is not None}


def _wrong(client: FlaskClient, request: Request) -> str:
    """What is wrong with the answer to a hostile request; nothing where nothing is."""
    method, path, headers, data = request
    start = time.process_time()
    answer = client.open(path, method=method, headers=headers, data=data)
    spent = time.process_time() - start
    if answer.status_code >= 500:
        return f"{answer.status_code} {answer.text[:200]}"
    if "Traceback" in answer.text:
        return "a traceback"
    is_ours = path.startswith("/api") and method in ("POST", "PATCH", "DELETE")
    if answer.status_code >= 400 and is_ours and answer.mimetype != "application/problem+json":
        return f"{answer.status_code} as {answer.mimetype}"
    return f"{spent:.1f} s" if spent > MOST_S else ""


def attack(folder: Path, count: int, seed: int = 1) -> dict[str, object]:
    """So many hostile requests. How many went wrong, the answers by code, the memory at most."""
    dice = random.Random(seed)
    file = folder / "strangers.sqlite"
    make_shop(file)
    with_sample_yard(file)
    client = create_app(file).test_client()
    wrong = []
    slowest = 0.0
    for request in requests(count, dice):
        start = time.process_time()
        if words := _wrong(client, request):
            wrong.append(f"{request[0]} {request[1][:80]} {request[3][:200]!r}: {words}")
        slowest = max(slowest, time.process_time() - start)
    after = client.get("/api/bands")
    close(client.application)
    memory = peak_kb()
    return {
        "hostile requests": count,
        "gone wrong": len(wrong),
        "first gone wrong": wrong[:5],
        "slowest, s of processor": round(slowest, 2),
        "memory at most, MB": memory // 1024,
        "over the limit": memory > MOST_MEMORY_KB,
        "lists still answer": after.status_code == 200,
    }
