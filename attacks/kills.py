"""Killed among its writes and migrations: nothing that was acknowledged is lost."""

import os
import random
import select
import shutil
import signal
import sqlite3
import sys
import time
from contextlib import closing
from pathlib import Path
from typing import NoReturn

from attacks.shop import WRITES, close, make_shop
from jade_ribbon.api.app import create_app
from jade_ribbon.store.database import Store
from jade_ribbon.store.migrate import migrate

OLD = "0008"
"""The revision that killed migrations start from."""
MIGRATING_EACH = 10
LONGEST_S = 0.3


def _write_on(file: Path, told: int, seed: int) -> NoReturn:
    """Write until killed; each write is told once it is acknowledged, and not before."""
    dice = random.Random(seed)
    client = create_app(file).test_client()
    os.write(told, b"open\n")
    while True:
        os.write(told, f"{dice.choice(WRITES)(client, dice)}\n".encode())


def _migrate_on(file: Path, told: int) -> NoReturn:
    """Migrate until killed, or done."""
    os.write(told, b"open\n")
    store = Store(file)
    migrate(store)
    store.close()
    os._exit(0)


def _killed(work: int, told: int, dice: random.Random) -> list[str]:
    """What a child told by the time it was killed, at any moment after it began."""
    heard, until = b"", None
    while until is None or time.monotonic() < until:
        ready, _, _ = select.select([told], [], [], 0.001)
        if ready:
            part = os.read(told, 65_536)
            if not part:
                break
            heard += part
            if until is None:
                until = time.monotonic() + dice.uniform(0.0, LONGEST_S)
    os.kill(work, signal.SIGKILL)
    os.waitpid(work, 0)
    while part := os.read(told, 65_536):
        heard += part
    return heard.decode().split("\n")[:-1]


def _forked(dice: random.Random, file: Path, *, migrating: bool) -> list[str]:
    """A child killed at its work on a file; what it told."""
    told, tell = os.pipe()
    work = os.fork()
    if work == 0:
        os.close(told)
        try:
            if migrating:
                _migrate_on(file, tell)
            _write_on(file, tell, dice.getrandbits(60))
        finally:
            sys.stderr.flush()
            os._exit(1)
    os.close(tell)
    try:
        return _killed(work, told, dice)
    finally:
        os.close(told)


def missing(file: Path, acknowledged: list[str]) -> list[str]:
    """What was acknowledged and is not in a file."""
    with closing(sqlite3.connect(file)) as raw:
        try:
            sound = raw.execute("PRAGMA quick_check").fetchone() == ("ok",)
        except sqlite3.DatabaseError:
            sound = False
        if not sound:
            return ["the file is damaged", *acknowledged]
        runs = {r[0] for r in raw.execute("SELECT client_key FROM run WHERE deleted_at IS NULL")}
        notes = {r[0] for r in raw.execute("SELECT detail FROM band_event WHERE kind = 'note'")}
        places = {
            (str(n), json)
            for n, json in raw.execute(
                "SELECT noun_id, json_extract(after, '$.place') FROM change WHERE noun = 'band'"
            )
        }
        mounted = raw.execute("SELECT count(*) FROM change WHERE action = 'mount'").fetchone()[0]
    lost = []
    for line in acknowledged:
        kind, *rest = line.split()
        kept = {
            "run": lambda r=rest: r[0] in runs,
            "note": lambda r=rest: r[0] in notes,
            "place": lambda r=rest: (r[0], r[1]) in places,
        }.get(kind)
        if kept is not None and not kept():
            lost.append(line)
    if any(line.startswith("mounted") for line in acknowledged) and mounted == 0:
        lost.append("every mounting")
    return lost


def _migrated(file: Path, rows: int) -> list[str]:
    """What is wrong with a file whose migration was killed, once it is opened again."""
    store = Store(file)
    migrate(store)
    store.close()
    with closing(sqlite3.connect(file)) as raw:
        kept = raw.execute("SELECT count(*) FROM run").fetchone()[0]
        sound = raw.execute("PRAGMA integrity_check").fetchone() == ("ok",)
    return [] if kept == rows and sound else [f"a migration left {kept} of {rows} runs"]


def attack(folder: Path, count: int, seed: int = 1) -> dict[str, object]:
    """Kill a writer so many times, every tenth at its migration. How many acknowledged, lost."""
    dice = random.Random(seed)
    file, old = folder / "shop.sqlite", folder / "old.sqlite"
    make_shop(file)
    client = create_app(file).test_client()
    for _ in range(40):
        WRITES[0](client, dice)
    close(client.application)
    shutil.copy(file, old)
    store = Store(old)
    migrate(store, OLD)
    store.checkpoint()
    store.close()
    for extra in folder.glob("old.before*"):
        extra.unlink()
    acknowledged: list[str] = []
    lost: list[str] = []
    migrations = 0
    for number in range(count):
        if number % MIGRATING_EACH == MIGRATING_EACH - 1:
            copy = folder / "killed.sqlite"
            for stale in folder.glob("killed*"):
                stale.unlink()
            shutil.copy(old, copy)
            _forked(dice, copy, migrating=True)
            lost += _migrated(copy, 40)
            migrations += 1
            continue
        told = [line for line in _forked(dice, file, migrating=False) if line != "open"]
        acknowledged += told
        lost += missing(file, told)
    lost += missing(file, acknowledged)
    return {
        "kills": count,
        "of them at a migration": migrations,
        "writes acknowledged": len(acknowledged),
        "lost": len(lost),
        "first lost": lost[:3],
    }
