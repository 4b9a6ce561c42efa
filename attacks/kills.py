"""A served shop killed at its work, with copies, readers and restores beside: nothing is lost."""

import http.client
import multiprocessing
import os
import random
import select
import shutil
import signal
import sqlite3
import subprocess
import sys
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import closing
from dataclasses import dataclass, field
from pathlib import Path
from typing import NoReturn

from attacks.shop import (
    AT_THE_SAW,
    Ack,
    Write,
    close,
    deck,
    make_shop,
    missing,
    too_few,
    write_run,
)
from attacks.wire import Wire
from jade_ribbon.api.app import create_app
from jade_ribbon.demo.serving import free_port
from jade_ribbon.server import serve
from jade_ribbon.store.database import Store
from jade_ribbon.store.migrate import migrate

OLD = "0008"
"""The revision that killed migrations start from."""
MIGRATING_EACH = 20
SHORTEST_S, LONGEST_S = 0.05, 1.0
MOST_WRITES, LATEST_S = 8, 20.0
"""A life lasts, on a slow machine too, until up to so many writes were acknowledged."""
WRITERS = 2
LANES = 4
"""Files attacked beside each other: much of a life is waiting."""
OPENS_S = 30.0
READER = (
    "import sqlite3, sys; c = sqlite3.connect(sys.argv[1]);"
    "c.execute('SELECT count(*) FROM run').fetchone(); c.close()"
)
LEAST_EACH = 0.2
"""Acknowledged writes of each kind, a kill."""
Broken = Callable[[], None]


def whole() -> None:
    """The product as it is."""


@dataclass
class Life:
    """What a served shop acknowledged until it was killed."""

    acknowledged: list[Ack] = field(default_factory=list)
    held_off: int = 0
    """Writes that were told to come again while a copy was being brought back."""
    wrong: list[str] = field(default_factory=list)
    beside: int = 0
    """Copies, readers and restores that were made meanwhile."""


def _served(file: Path, port: int, tell: int, broken: Broken) -> NoReturn:
    """Serve until killed; told once it listens."""
    try:
        broken()
        sys.stderr = open(os.devnull, "w")  # noqa: SIM115 - goes with the process

        def listening() -> None:
            os.write(tell, b"L")

        serve(file, "127.0.0.1", port, listening)
    finally:
        os._exit(1)


def _write_on(
    port: int, dice: random.Random, deck: Iterator[Write], life: Life, stop: threading.Event
) -> None:
    wire = Wire(port)
    while not stop.is_set():
        try:
            life.acknowledged.append(next(deck)(wire, dice))
        except RuntimeError as problem:
            if '"held"' not in str(problem):
                life.wrong.append(str(problem)[:200])
            life.held_off += 1
        except (OSError, http.client.HTTPException, ValueError, KeyError, IndexError):
            if not stop.is_set():
                time.sleep(0.01)
                wire.close()
    wire.close()


def _beside(file: Path, port: int, dice: random.Random, life: Life) -> None:
    """What else happens to a shop's file while it is served."""
    act = dice.random()
    life.beside += 1
    try:
        wire = Wire(port)
        if act < 0.35:
            subprocess.run([sys.executable, "-c", READER, str(file)], check=True, timeout=30)
        elif act < 0.6:
            wire.post("/api/copies")
        elif act < 0.75:
            wire.get("/shop.sqlite")
        elif act < 0.9:
            copies = wire.get("/api/copies").get_json()["copies"]
            if copies:
                with AT_THE_SAW:
                    wire.ask("POST", "/api/copies/restore", f'{{"name": "{copies[0]["name"]}"}}')
        else:
            copy = file.with_name(f"{file.stem}-beside.sqlite")
            copy.unlink(missing_ok=True)
            with closing(sqlite3.connect(file)) as source, closing(sqlite3.connect(copy)) as to:
                source.backup(to)
        wire.close()
    except (OSError, http.client.HTTPException, subprocess.SubprocessError, ValueError):
        life.beside -= 1


def _lived(file: Path, dice: random.Random, decks: list[Iterator[Write]], broken: Broken) -> Life:
    """A served shop with hands at it, killed at any moment."""
    port, life, stop = free_port(), Life(), threading.Event()
    told, tell = os.pipe()
    work = os.fork()
    if work == 0:
        os.close(told)
        _served(file, port, tell, broken)
    os.close(tell)
    try:
        ready, _, _ = select.select([told], [], [], OPENS_S)
        if not ready or not os.read(told, 1):
            life.wrong.append("it did not open")
            return life
        hands = [
            threading.Thread(
                target=_write_on,
                args=(port, random.Random(dice.getrandbits(60)), deck, life, stop),
            )
            for deck in decks
        ]
        for hand in hands:
            hand.start()
        begun, writes = time.monotonic(), dice.randint(1, MOST_WRITES)
        lasts = dice.uniform(SHORTEST_S, LONGEST_S)
        while (lived := time.monotonic() - begun) < lasts or (
            len(life.acknowledged) < writes and lived < LATEST_S
        ):
            if dice.random() < 0.12:
                _beside(file, port, dice, life)
            time.sleep(0.02)
    finally:
        os.kill(work, signal.SIGKILL)
        stop.set()
        os.waitpid(work, 0)
        os.close(told)
    for hand in hands:
        hand.join()
    return life


def _lost(file: Path, acknowledged: list[Ack]) -> list[Ack]:
    """What is neither in the file nor in a copy of what was there before a restore."""
    left = missing(file, acknowledged)
    copies = file.with_name(f"{file.stem}.copies")
    for copy in copies.glob("*-before-restore.sqlite"):
        left = missing(copy, left) if left else left
    return left


def _tidied(file: Path) -> None:
    """Copies of earlier lives go: what was acknowledged then has been looked for."""
    for copy in file.with_name(f"{file.stem}.copies").glob("*.sqlite"):
        copy.unlink()


def _lane(folder: Path, count: int, seed: int, broken: Broken = whole) -> dict[str, object]:
    """So many lives of one file, one after the other."""
    dice, file = random.Random(seed), folder / f"lane-{seed}.sqlite"
    make_shop(file)
    decks = [deck(random.Random(dice.getrandbits(60))) for _ in range(WRITERS)]
    acknowledged: list[Ack] = []
    lost: list[Ack] = []
    wrong: list[str] = []
    held_off = beside = 0
    for _ in range(count):
        life = _lived(file, dice, decks, broken)
        lost += _lost(file, life.acknowledged)
        acknowledged += life.acknowledged
        wrong += life.wrong
        held_off, beside = held_off + life.held_off, beside + life.beside
        _tidied(file)
    return {
        "acknowledged": acknowledged,
        "lost": lost,
        "wrong": wrong,
        "held off": held_off,
        "beside": beside,
    }


def _migrate_on(file: Path, told: int) -> NoReturn:
    """Migrate until killed, or done."""
    try:
        os.write(told, b"L")
        store = Store(file)
        migrate(store)
        store.close()
    finally:
        os._exit(0)


def _killed_migrating(file: Path, dice: random.Random) -> None:
    told, tell = os.pipe()
    work = os.fork()
    if work == 0:
        os.close(told)
        _migrate_on(file, tell)
    os.close(tell)
    select.select([told], [], [], OPENS_S)
    time.sleep(dice.uniform(0.0, 0.3))
    os.kill(work, signal.SIGKILL)
    os.waitpid(work, 0)
    os.close(told)


def _migrated(file: Path, rows: int) -> list[Ack]:
    """What is wrong with a file whose migration was killed, once it is opened again."""
    store = Store(file)
    migrate(store)
    store.close()
    with closing(sqlite3.connect(file)) as raw:
        kept = raw.execute("SELECT count(*) FROM run").fetchone()[0]
        sound = raw.execute("PRAGMA integrity_check").fetchone() == ("ok",)
    if kept == rows and sound:
        return []
    return [{"kind": "migration", "kept": kept, "of": rows}]


def _migrations(folder: Path, count: int, dice: random.Random) -> list[Ack]:
    """Files of an older version, killed while they are brought up."""
    old, copy, rows = folder / "old.sqlite", folder / "killed.sqlite", 40
    make_shop(old)
    client = create_app(old).test_client()
    for _ in range(rows):
        write_run(client, dice)
    close(client.application)
    store = Store(old)
    migrate(store, OLD)
    store.checkpoint()
    store.close()
    lost: list[Ack] = []
    for _ in range(count):
        for stale in folder.glob("killed*"):
            stale.unlink()
        shutil.copy(old, copy)
        _killed_migrating(copy, dice)
        lost += _migrated(copy, rows)
    return lost


def attack(folder: Path, count: int, seed: int = 1, broken: Broken = whole) -> dict[str, object]:
    """Kill a served shop so many times, some at a migration. How many acknowledged, lost."""
    migrations = max(1, count // MIGRATING_EACH)
    lives = count - migrations
    share, more = divmod(lives, LANES)
    with multiprocessing.get_context("spawn").Pool(LANES) as pool:
        shares = [(folder, share + (n < more), seed + n, broken) for n in range(LANES)]
        lanes = pool.starmap(_lane, [s for s in shares if s[1]])
    acknowledged = [ack for lane in lanes for ack in lane["acknowledged"]]  # type: ignore[attr-defined]
    lost = [ack for lane in lanes for ack in lane["lost"]]  # type: ignore[attr-defined]
    wrong = [words for lane in lanes for words in lane["wrong"]]  # type: ignore[attr-defined]
    lost += _migrations(folder, migrations, random.Random(seed))
    return {
        "kills": count,
        "of them at a migration": migrations,
        "writes acknowledged": len(acknowledged),
        "too few": too_few(acknowledged, max(1, round(LEAST_EACH * lives))),
        "copies, readers and restores beside": sum(int(str(lane["beside"])) for lane in lanes),
        "told to come again": sum(int(str(lane["held off"])) for lane in lanes),
        "lost": len(lost),
        "first lost": lost[:3],
        "gone wrong": len(wrong),
        "first gone wrong": wrong[:3],
    }
