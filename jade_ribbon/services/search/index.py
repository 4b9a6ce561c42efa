"""A full-text index in memory: SQLite's own, by three-letter parts, so that slips are forgiven."""

import re
import sqlite3
import threading
from collections.abc import Iterable
from dataclasses import dataclass

from rapidfuzz import fuzz, utils

NEAR = 62.0
"""How alike, of 100, what was typed and what is found have to be."""
LOOKED_AT = 120
WORD = re.compile(r"\w+")


@dataclass(frozen=True)
class Entry:
    """Something to find: what it is, its key, its name, and what else it is found by."""

    noun: str
    key: str
    title: str
    detail: str
    words: str = ""
    place: str = ""


def _asked(query: str) -> str:
    """What the index is asked: any three-letter part of any word."""
    parts: dict[str, None] = {}
    words = WORD.findall(query.casefold())
    for word in (*words, "".join(words)):
        for at in range(len(word) - 2):
            parts[f'"{word[at : at + 3]}"'] = None
    return " OR ".join(parts)


def _run_on(title: str) -> str:
    """A name without what parts it: K-07 is found as k07 too."""
    return "".join(WORD.findall(title))


def likeness(query: str, entry: Entry) -> float:
    """How well an entry is what was typed, 0 to 100: its name first, then what is said of it."""
    typed, title = utils.default_process(query), utils.default_process(entry.title)
    if title == typed or _run_on(title) == _run_on(typed):
        return 100.0
    if title.startswith(typed):
        return 97.0
    rest = utils.default_process(f"{entry.words} {entry.detail}")
    best = max(fuzz.WRatio(typed, title), 0.9 * fuzz.partial_token_set_ratio(typed, rest))
    if typed and typed in f"{title} {rest}":
        best = max(best, 90.0)
    return float(best)


class Index:
    """Entries by noun and key; found by parts of words, ranked by likeness."""

    def __init__(self) -> None:
        self._file = sqlite3.connect(":memory:", check_same_thread=False)
        self._lock = threading.Lock()
        self._file.execute(
            "CREATE VIRTUAL TABLE entry USING fts5(noun UNINDEXED, key UNINDEXED, title, words, "
            "detail, place UNINDEXED, tokenize='trigram case_sensitive 0')"
        )
        self._file.execute(
            "CREATE TABLE at (noun TEXT, key TEXT, id INTEGER, PRIMARY KEY (noun, key))"
        )

    def put(self, entries: Iterable[Entry]) -> None:
        """Add entries, each in the place of an older one of its noun and key."""
        with self._lock, self._file:
            for e in entries:
                self._drop(e.noun, e.key)
                row = self._file.execute(
                    "INSERT INTO entry VALUES (?, ?, ?, ?, ?, ?)",
                    (e.noun, e.key, e.title, f"{e.words} {_run_on(e.title)}", e.detail, e.place),
                ).lastrowid
                self._file.execute("INSERT INTO at VALUES (?, ?, ?)", (e.noun, e.key, row))

    def drop(self, keys: Iterable[tuple[str, str]]) -> None:
        """Take entries out by noun and key."""
        with self._lock, self._file:
            for noun, key in keys:
                self._drop(noun, key)

    def _drop(self, noun: str, key: str) -> None:
        found = self._file.execute("SELECT id FROM at WHERE noun = ? AND key = ?", (noun, key))
        for (row,) in found.fetchall():
            self._file.execute("DELETE FROM entry WHERE rowid = ?", (row,))
            self._file.execute("DELETE FROM at WHERE noun = ? AND key = ?", (noun, key))

    def _rows(self, query: str) -> list[tuple[str, ...]]:
        columns = "noun, key, title, detail, words, place"
        asked = _asked(query)
        if asked:
            sql = f"SELECT {columns} FROM entry WHERE entry MATCH ? ORDER BY rank LIMIT ?"  # noqa: S608
            return self._file.execute(sql, (asked, LOOKED_AT)).fetchall()
        # One or two letters have no part of three: names that begin so.
        escaped = re.sub(r"([%_\\])", r"\\\1", query)
        sql = f"SELECT {columns} FROM entry WHERE title LIKE ? ESCAPE '\\' LIMIT ?"  # noqa: S608
        return self._file.execute(sql, (f"{escaped}%", LOOKED_AT)).fetchall()

    def find(self, query: str) -> list[tuple[float, Entry]]:
        """Entries like what was typed with how alike they are, best first."""
        plain = query.strip()
        if not plain:
            return []
        with self._lock:
            rows = self._rows(plain)
        entries = [Entry(*row) for row in rows]
        ranked = [(likeness(plain, e), e) for e in entries]
        return sorted((r for r in ranked if r[0] >= NEAR), key=lambda r: (-r[0], r[1].title))
