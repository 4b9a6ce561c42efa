"""The power goes: what was not synced is gone, and nothing that was acknowledged is."""

import itertools
import random
import sqlite3
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

import apsw
from sqlalchemy import Engine, event

from attacks.shop import Ack, deck, make_shop, missing, too_few
from jade_ribbon.api.app import create_app
from jade_ribbon.store.database import PRAGMAS

NAME = "losing power"


@dataclass
class Disk:
    """What a disk holds for sure, and what is still on its way there, by file."""

    dice: random.Random
    sure: dict[str, bytearray] = field(default_factory=dict)
    going: dict[str, list[tuple[int, bytes]]] = field(default_factory=dict)
    writes: int = 0

    def write(self, name: str, at: int, data: bytes) -> None:
        self.writes += 1
        self.going.setdefault(name, []).append((at, data))

    def cut(self, name: str, size: int) -> None:
        self.sync(name)
        del self.sure[name][size:]

    def sync(self, name: str) -> None:
        held = self.sure.setdefault(name, bytearray())
        for at, data in self.going.pop(name, []):
            _put(held, at, data)

    def gone(self, name: str) -> None:
        self.sure.pop(name, None)
        self.going.pop(name, None)

    def after_the_cut(self, folder: Path) -> None:
        """The files as they are found: of what was on its way any part may have arrived."""
        for name in {*self.sure, *self.going}:
            held = bytearray(self.sure.get(name, b""))
            for at, data in self.going.get(name, []):
                if self.dice.random() < 0.5:
                    continue
                _put(held, at, data[: self.dice.randrange(len(data) + 1)])
            (folder / Path(name).name).write_bytes(held)


def _put(held: bytearray, at: int, data: bytes) -> None:
    if len(held) < at:
        held.extend(bytes(at - len(held)))
    held[at : at + len(data)] = data


def _file_on(disk: Disk) -> Callable[[Any, list[int]], apsw.VFSFile]:
    class File(apsw.VFSFile):
        def __init__(self, name: Any, flags: list[int]) -> None:
            self.path = name.filename() if isinstance(name, apsw.URIFilename) else str(name)
            super().__init__("", name, flags)
            if self.path not in disk.sure and self.path not in disk.going:
                there = Path(self.path)
                disk.sure[self.path] = bytearray(there.read_bytes() if there.exists() else b"")

        def xWrite(self, data: bytes, offset: int) -> None:
            super().xWrite(data, offset)
            disk.write(self.path, offset, bytes(data))

        def xTruncate(self, newsize: int) -> None:
            super().xTruncate(newsize)
            disk.cut(self.path, newsize)

        def xSync(self, flags: int) -> None:
            super().xSync(flags)
            disk.sync(self.path)

    return File


@contextmanager
def _machine(disk: Disk) -> Iterator[None]:
    """A machine whose disk is watched, by the name SQLite opens it under."""
    kind = _file_on(disk)

    class Machine(apsw.VFS):
        def __init__(self) -> None:
            super().__init__(NAME, "")

        def xOpen(self, name: Any, flags: list[int]) -> apsw.VFSFile:
            return kind(name, flags)

        def xDelete(self, filename: str, syncdir: bool) -> None:
            super().xDelete(filename, syncdir)
            disk.gone(filename)

    machine = Machine()
    try:
        yield
    finally:
        machine.unregister()


Step = tuple[str, Any, bool]
"""A statement, its values, and whether these are many rows of them."""


def recorded(file: Path, count: int, dice: random.Random) -> list[tuple[Ack, list[Step]]]:
    """What so many writes of a day say to SQLite: what each acknowledges, and its statements."""
    client = create_app(file).test_client()
    engine: Engine = client.application.extensions["store"].engine
    steps: list[Step] = []

    def heard(*told: Any) -> None:
        steps.append((told[2], told[3], told[5]))

    event.listen(engine, "before_cursor_execute", heard)
    event.listen(engine, "commit", lambda _: steps.append(("COMMIT", (), False)))
    found = []
    for write in itertools.islice(deck(dice), count):
        steps.clear()
        line = write(client, dice)
        found.append((line, _written(steps)))
    client.application.extensions["store"].close()
    return found


def _written(steps: list[Step]) -> list[Step]:
    """The statements of transactions that were committed, without those that only read."""
    found: list[Step] = []
    open_: list[Step] = []
    for step in steps:
        word = step[0].split()[0].upper()
        if word == "BEGIN":
            open_ = [step] if "IMMEDIATE" in step[0] else []
        elif word in ("INSERT", "UPDATE", "DELETE") and open_:
            open_.append(step)
        elif word == "COMMIT" and open_:
            found += [*open_, step]
            open_ = []
    return found


def attack(folder: Path, count: int, seed: int = 1) -> dict[str, object]:
    """Cut the power so many times at any write of the disk. How many acknowledged, lost.

    The application's own statements are said again to SQLite with its own settings, on a machine
    whose disk keeps for sure only what was synced.
    """
    dice = random.Random(seed)
    start = folder / "start.sqlite"
    make_shop(start)
    with closing(sqlite3.connect(start)) as raw:
        raw.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        raw.execute("PRAGMA journal_mode=DELETE")
    before = start.read_bytes()
    day = recorded(start, 60, dice)
    acknowledged_all: list[Ack] = []
    lost: list[Ack] = []
    for number in range(count):
        here = folder / f"cut-{number}"
        (after := here / "after").mkdir(parents=True)
        (here / "shop.sqlite").write_bytes(before)
        disk = Disk(dice)
        acknowledged = _until_the_cut(here / "shop.sqlite", disk, day, dice)
        disk.after_the_cut(after)
        lost += missing(after / "shop.sqlite", acknowledged)
        acknowledged_all += acknowledged
    return {
        "power cuts": count,
        "writes acknowledged": len(acknowledged_all),
        "too few": too_few(acknowledged_all, count // 25),
        "lost": len(lost),
        "first lost": lost[:3],
    }


def _until_the_cut(
    file: Path, disk: Disk, day: list[tuple[Ack, list[Step]]], dice: random.Random
) -> list[Ack]:
    """What was acknowledged before the power went, at some write of the disk."""
    last = dice.randrange(5, 400)
    acknowledged: list[Ack] = []
    with _machine(disk):
        connection = apsw.Connection(str(file), vfs=NAME)
        connection.execute("PRAGMA locking_mode=EXCLUSIVE")
        for pragma in PRAGMAS:
            connection.execute(f"PRAGMA {pragma}")
        for line, steps in day:
            for statement, values, many in steps:
                if disk.writes >= last:
                    break
                if many:
                    connection.executemany(statement, values)
                else:
                    connection.execute(statement, values or None)
            else:
                acknowledged.append(line)
                continue
            break
        frozen = Disk(disk.dice, {k: bytearray(v) for k, v in disk.sure.items()}, dict(disk.going))
        connection.close()
    disk.sure, disk.going = frozen.sure, frozen.going
    return acknowledged
