"""Copies of a shop's file: one a day by itself, kept by age, brought back through the live file."""

import logging
import re
import sqlite3
import threading
from collections.abc import Callable, Iterable
from contextlib import closing
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from pathlib import Path

from jade_ribbon.store.database import BUSY_TIMEOUT_MS, Store
from jade_ribbon.store.files import backup, check_ours, connected
from jade_ribbon.store.migrate import migrate

LOG = logging.getLogger("jade_ribbon.copies")
DAYS, WEEKS, MONTHS = 7, 4, 12
LOOK_EVERY_S = 1800.0
NAME = re.compile(r"(\d{4}-\d{2}-\d{2})-(\d{12})(-by-hand|-before-restore)?\.sqlite")


@dataclass(frozen=True)
class Copy:
    """A copy of a shop's file, taken at a time (UTC)."""

    name: str
    at: datetime
    why: str
    size: int


def kept(days: Iterable[date], today: date) -> set[date]:
    """Which days keep their copies: 7 days, then the last of each of 4 weeks and 12 months.

    Age counts from the newest copy where the clock stands before it: a clock set back drops none.

    >>> from datetime import date
    >>> sorted(d.day for d in kept([date(2026, 3, n) for n in range(1, 31)], date(2026, 3, 30)))
    [1, 8, 15, 22, 24, 25, 26, 27, 28, 29, 30]
    """
    known = sorted(set(days), reverse=True)
    if not known:
        return set()
    now = max(today, known[0])
    keep = {d for d in known if (now - d).days < DAYS}
    weeks: dict[tuple[int, int], date] = {}
    months: dict[tuple[int, int], date] = {}
    for day in known:
        if (now - day).days < DAYS * (WEEKS + 1):
            weeks.setdefault(day.isocalendar()[:2], day)
        if now.year * 12 + now.month - day.year * 12 - day.month < MONTHS:
            months.setdefault((day.year, day.month), day)
    return keep | set(weeks.values()) | set(months.values()) | {known[0]}


class Copies:
    """The copies of one shop's file, in a folder beside it."""

    def __init__(self, store: Store, follow: Callable[[Store], object] = lambda _: None) -> None:
        self.store = store
        self.follow = follow
        """What must follow when an older file takes the live one's place."""
        self.folder = store.file.with_name(f"{store.file.stem}.copies")
        self.failure = ""
        """Why the last copy could not be taken; empty where it could."""
        self._one_at_a_time = threading.Lock()

    def all(self) -> list[Copy]:
        """The copies there are, newest first."""
        found = []
        for path in self.folder.glob("*.sqlite"):
            match = NAME.fullmatch(path.name)
            if match is None:
                continue
            at = datetime.strptime(f"{match[1]}-{match[2]}", "%Y-%m-%d-%H%M%S%f").replace(
                tzinfo=UTC
            )
            why = (match[3] or "").lstrip("-").replace("-", " ") or "daily"
            found.append(Copy(path.name, at, why, path.stat().st_size))
        return sorted(found, key=lambda c: (c.at, c.name), reverse=True)

    def path(self, name: str) -> Path:
        """Where a copy lies. FileNotFoundError for a name that is none of ours."""
        path = self.folder / name
        if NAME.fullmatch(name) is None or not path.is_file():
            raise FileNotFoundError(f"there is no copy {name}")
        return path

    def take(self, at: datetime, why: str = "") -> Copy:
        """Take a checked copy of the live file. OSError, UnusableFileError."""
        with self._one_at_a_time:
            stamp = at.astimezone(UTC).strftime("%Y-%m-%d-%H%M%S%f")
            target = self.folder / f"{stamp}{f'-{why}' if why else ''}.sqlite"
            try:
                self.folder.mkdir(parents=True, exist_ok=True)
                backup(self.store.file, target)
            except (OSError, ValueError) as problem:
                self.failure = str(problem)
                raise
            self.failure = ""
            return next(c for c in self.all() if c.name == target.name)

    def keep_up(self, at: datetime) -> Copy | None:
        """Take today's copy where there is none yet, and drop those past their age."""
        copies = self.all()
        taken = None
        if not any(c.at.date() == at.date() and c.why != "before restore" for c in copies):
            taken = self.take(at)
        keep = kept((c.at.date() for c in copies), at.date())
        for copy in copies:
            if copy.at.date() not in keep:
                (self.folder / copy.name).unlink(missing_ok=True)
        return taken

    def restore(self, source: Path, at: datetime) -> Copy:
        """Bring a copy back over the live file; the copy of what was there before.

        In one transaction of the live file: those at work see what was, or what is, and nothing
        between. FileNotFoundError, UnusableFileError, sqlite3.OperationalError while it is busy.
        """
        check_ours(source)
        before = self.take(at, "before-restore")
        with (
            closing(connected(source, "rw")) as copy,
            closing(connected(self.store.file, "rw")) as live,
        ):
            live.execute(f"PRAGMA busy_timeout={BUSY_TIMEOUT_MS}")
            live.execute("PRAGMA synchronous=FULL")
            copy.backup(live)
        self.store.close()
        migrate(self.store)
        self.follow(self.store)
        return before


class DailyCopies(threading.Thread):
    """Takes the day's copy while a shop is served; a failure is kept to be shown, and retried."""

    def __init__(self, copies: Copies) -> None:
        super().__init__(name="daily copies", daemon=True)
        self._copies, self._end = copies, threading.Event()

    def run(self) -> None:
        while True:
            try:
                self._copies.keep_up(datetime.now(UTC))
            except (OSError, ValueError, sqlite3.Error) as problem:
                LOG.warning("no copy could be taken: %s", problem)
            if self._end.wait(LOOK_EVERY_S):
                return

    def stop(self) -> None:
        self._end.set()


AGED = timedelta(days=2)
"""A newest copy older than this is told."""
