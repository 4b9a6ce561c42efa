"""A shop after many years: the sample yard's runs, bands, troubles, photographs many times over."""

import shutil
import sqlite3
import sys
from contextlib import closing
from pathlib import Path

from jade_ribbon.services.rack.replay import bring_up
from jade_ribbon.store.database import Store

RUNS, TROUBLES, PHOTOS, JOBS = 200_000, 10_000, 5_000, 2_000
PICTURE = b"\xff\xd8" + b"x" * 30_000
"""As large as a photograph is kept; what it shows is not looked at."""
DECADES = 10
"""Histories of two years, one before the other, that a band is given."""
ON_THE_RACK = 3
"""Of the generations of bands, so many are not scrapped yet."""


def _columns(raw: sqlite3.Connection, table: str) -> list[str]:
    return [row[1] for row in raw.execute(f"PRAGMA table_info({table})") if row[1] != "id"]


def _count(raw: sqlite3.Connection, table: str) -> int:
    return int(raw.execute(f"SELECT count(*) FROM {table}").fetchone()[0])


def _again(raw: sqlite3.Connection, table: str, where: str, **other: str) -> None:
    """The rows of a table once more; `other` gives columns of the copy by SQL."""
    names = _columns(raw, table)
    told = ", ".join(other.get(c, f"{table}.{c}") for c in names)
    raw.execute(f"INSERT INTO {table} ({', '.join(names)}) SELECT {told} FROM {table} {where}")


def _longer(raw: sqlite3.Connection) -> None:
    """Bands with longer histories, each begun and sharpened anew."""
    last = {t: _count(raw, t) for t in ("run", "band_event")}
    for n in range(1, DECADES):
        before = f"datetime(at, '-{730 * n} days')"
        key = f"client_key || '-y{n}'"
        _again(raw, "run", f"WHERE id <= {last['run']}", at=before, client_key=key)
        ends = "('scrapped', 'sent_out', 'hit', 'crack', 'kink', 'teeth_lost')"
        where = f"WHERE id <= {last['band_event']} AND kind NOT IN {ends}"
        _again(raw, "band_event", where, at=before)
    raw.execute("UPDATE band SET arrived_at = datetime(arrived_at, ?)", [f"-{730 * DECADES} days"])


def _generations(raw: sqlite3.Connection, to: int) -> None:
    """Bands like those there are with histories like theirs; the older ones are scrapped."""
    bands = [row[0] for row in raw.execute("SELECT id FROM band ORDER BY id")]
    generation = 0
    while _count(raw, "run") < to:
        generation += 1
        first = raw.execute("SELECT max(id) + 1 FROM band").fetchone()[0]
        only = f"WHERE id <= {bands[-1]} ORDER BY id"
        _again(raw, "band", only, label=f"label || '.{generation}'")
        raw.execute("CREATE TEMP TABLE twin (old INTEGER PRIMARY KEY, new INTEGER)")
        raw.executemany("INSERT INTO twin VALUES (?, ?)", zip(bands, range(first, first + 9**9)))  # noqa: B905
        for table in ("run", "band_event"):
            where = f"JOIN twin ON twin.old = {table}.band_id"
            key = f"client_key || '-g{generation}'"
            _again(raw, table, where, band_id="twin.new", client_key=key)
        if generation > ON_THE_RACK:
            raw.execute(
                "INSERT INTO band_event (band_id, at, kind, detail, facts, who) "
                "SELECT new, '2026-11-19 10:00:00', 'scrapped', 'worn out', '{}', '' FROM twin"
            )
        raw.execute("DROP TABLE twin")


def _many(raw: sqlite3.Connection, table: str, to: int) -> None:
    first = _count(raw, table)
    while _count(raw, table) < to:
        _again(raw, table, f"WHERE id <= {first} LIMIT {to - _count(raw, table)}")


def make_large(yard: Path, file: Path, runs: int = RUNS) -> None:
    """A large shop out of the sample yard, replayed once."""
    shutil.copy(yard, file)
    share = runs / RUNS
    with closing(sqlite3.connect(file)) as raw:
        raw.execute("PRAGMA foreign_keys=OFF")
        _longer(raw)
        _generations(raw, runs)
        _many(raw, "trouble", round(TROUBLES * share))
        _many(raw, "job", round(JOBS * share))
        raw.executemany(
            "INSERT INTO photo (band_id, shows, jpeg, at) VALUES (?, 'teeth', ?, '2026-01-01')",
            [(1 + n % 35, PICTURE) for n in range(round(PHOTOS * share))],
        )
        raw.execute("PRAGMA user_version = 0")
        raw.commit()
    store = Store(file)
    bring_up(store)
    store.checkpoint()
    store.close()


if __name__ == "__main__":
    make_large(Path(sys.argv[1]), Path(sys.argv[2]))
