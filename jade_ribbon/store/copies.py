"""Copies of a shop's file: one a day by itself, kept by age, brought back through the live file."""

import logging
import re
import sqlite3
import threading
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from pathlib import Path

from sqlalchemy.exc import SQLAlchemyError

from jade_ribbon.store.database import BUSY_TIMEOUT_MS, Store
from jade_ribbon.store.files import PRIVATE_FOLDER, backup, check_ours, copy_of, write_over
from jade_ribbon.store.migrate import migrate

LOG = logging.getLogger("jade_ribbon.copies")
DAYS, WEEKS, MONTHS = 7, 4, 12
LOOK_EVERY_S = 1800.0
NAME = re.compile(r"(\d{4}-\d{2}-\d{2})-(\d{12})(-by-hand|-before-restore|-rescued)?\.sqlite")


MOST_DROPPED = 3
"""More than a few never go in one round: what is wrong is seen before all is gone."""
MOST_BEFORE_RESTORE = 5
AHEAD = timedelta(days=45)
"""A clock so far past the newest record is not believed in what it makes old."""
BY_HAND, BEFORE_RESTORE, RESCUED = "by-hand", "before-restore", "rescued"


@dataclass(frozen=True)
class Copy:
    """A copy of a shop's file, taken at a time (UTC)."""

    name: str
    at: datetime
    why: str
    size: int


def kept(days: Iterable[date], today: date) -> set[date]:
    """Which days keep their copies: the newest 7 that have one, then the last of each of the next
    4 weeks and 12 months that have any.

    By rank and not by age: a clock that is wrong makes nothing old. Days after today are of such a
    clock: they count for nothing, and are kept.

    >>> from datetime import date
    >>> sorted(d.day for d in kept([date(2026, 3, n) for n in range(1, 31)], date(2026, 3, 30)))
    [1, 8, 15, 22, 24, 25, 26, 27, 28, 29, 30]
    """
    all_days = set(days)
    past = sorted((d for d in all_days if d <= today), reverse=True)
    keep = {d for d in all_days if d > today} | set(past[:DAYS])
    weeks: dict[tuple[int, int], date] = {}
    months: dict[tuple[int, int], date] = {}
    for day in past:
        weeks.setdefault(day.isocalendar()[:2], day)
        months.setdefault((day.year, day.month), day)
    return keep | set(list(weeks.values())[: WEEKS + 1]) | set(list(months.values())[:MONTHS])


def too_old(copies: Sequence[Copy], today: date, newest_record: datetime | None) -> list[Copy]:
    """Copies to drop, oldest first and never more than a few; newest first is how they are given.

    None made by hand or rescued; none while the clock is far past the newest record.
    """
    if newest_record is not None and today - newest_record.date() > AHEAD:
        return []
    daily = [c for c in copies if c.why == "daily"]
    keep = kept((c.at.date() for c in daily), today)
    old = [c for c in daily if c.at.date() not in keep]
    old += [c for c in copies if c.why == "before restore"][MOST_BEFORE_RESTORE:]
    return sorted(old, key=lambda c: c.at)[:MOST_DROPPED]


class Copies:
    """The copies of one shop's file, in a folder beside it."""

    def __init__(
        self,
        store: Store,
        follow: Callable[[Store], object] = lambda _: None,
        newest_record: Callable[[Store], datetime | None] = lambda _: None,
    ) -> None:
        self.store = store
        self.follow = follow
        """What must follow when an older file takes the live one's place."""
        self._newest_record = newest_record
        self.folder = store.file.with_name(f"{store.file.stem}.copies")
        self.failure = ""
        """Why the last copy could not be taken; empty where it could."""
        self._one_at_a_time = threading.Lock()
        self._rescued = False

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

    def _target(self, at: datetime, why: str) -> Path:
        """Where a copy taken at a time goes; its folder is there, and the shop's own."""
        self.folder.mkdir(mode=PRIVATE_FOLDER, parents=True, exist_ok=True)
        stamp = at.astimezone(UTC).strftime("%Y-%m-%d-%H%M%S%f")
        target = self.folder / f"{stamp}{f'-{why}' if why else ''}.sqlite"
        if target.exists():
            raise FileExistsError(f"{target} exists already")
        return target

    def _found(self, target: Path) -> Copy:
        return next(c for c in self.all() if c.name == target.name)

    def take(self, at: datetime, why: str = "") -> Copy:
        """Take a checked copy of the live file. OSError, UnusableFileError, FileGoneError."""
        with self._one_at_a_time:
            try:
                self.store.check_there()
                target = self._target(at, why)
                backup(self.store.file, target)
            except (OSError, ValueError) as problem:
                self.failure = str(problem)
                raise
            self.failure = ""
            return self._found(target)

    def rescue(self, at: datetime) -> Copy | None:
        """The newest copy once the file was taken away: of what this process still holds open.

        All that was acknowledged is in it. Taken once; where it cannot be, the newest there is.
        """
        with self._one_at_a_time:
            if not self._rescued and self.store.held_open is not None:
                self._rescued = True
                try:
                    copy_of(self.store.held_open, self._target(at, RESCUED))
                except (OSError, ValueError, sqlite3.Error) as problem:
                    LOG.warning("what was open could not be rescued: %s", problem)
        return next(iter(self.all()), None)

    def keep_up(self, at: datetime) -> Copy | None:
        """Take today's copy where there is none yet, and drop a few of those past their age."""
        taken = None
        if not any(c.at.date() == at.date() and c.why == "daily" for c in self.all()):
            taken = self.take(at)
        for copy in too_old(self.all(), at.date(), self._newest_record(self.store)):
            (self.folder / copy.name).unlink(missing_ok=True)
        return taken

    def restore(self, source: Path, at: datetime) -> Copy:
        """Bring a copy back over the live file; the copy of what was there before.

        In one transaction of the live file, with nothing written from that copy on until it is
        through: those at work see what was, or what is, and nothing between. FileNotFoundError,
        UnusableFileError, HeldError, FileGoneError, sqlite3.OperationalError while it is busy.
        """
        check_ours(source)
        with self.store.gate.held(), self._one_at_a_time:
            self.store.check_there()
            before = self._target(at, BEFORE_RESTORE)
            write_over(source, self.store.file, before, BUSY_TIMEOUT_MS)
            self.store.renew()
            migrate(self.store)
            self.follow(self.store)
        return self._found(before)


class DailyCopies(threading.Thread):
    """Takes the day's copy while a shop is served; a failure is kept to be shown, and retried."""

    def __init__(self, copies: Copies) -> None:
        super().__init__(name="daily copies", daemon=True)
        self._copies, self._end = copies, threading.Event()

    def run(self) -> None:
        while True:
            try:
                self._copies.keep_up(datetime.now(UTC))
            except (OSError, ValueError, RuntimeError, sqlite3.Error, SQLAlchemyError) as problem:
                LOG.warning("no copy could be taken: %s", problem)
            if self._end.wait(LOOK_EVERY_S):
                return

    def stop(self) -> None:
        self._end.set()


AGED = timedelta(days=2)
"""A newest copy older than this is told."""
