"""The shop's clock: it never goes back, whatever is done to the machine's."""

import threading
import time
from datetime import UTC, datetime, timedelta

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.store.models import ChangeRow

AHEAD = timedelta(days=45)
"""A machine's clock so far past the shop's latest record is asked about."""
BEHIND_TOLD = timedelta(minutes=2)
"""A machine's clock so far behind the shop's records is told."""


def wall() -> datetime:
    """What the machine's clock says, in UTC."""
    return datetime.now(UTC)


def elapsed_s() -> float:
    """Seconds that ran by, asleep or awake, whatever the clock was set to."""
    return time.clock_gettime(time.CLOCK_BOOTTIME)


class Clock:
    """Goes on by elapsed time, and follows the machine's clock forward only.

    A clock set back would prolong what is good for so many hours, and put what comes after
    before it. One that jumps far ahead of the records is followed, and asked about; told to be
    wrong, it is followed no more until it is back.
    """

    def __init__(self) -> None:
        self._at, self._mark = datetime.min.replace(tzinfo=UTC), elapsed_s()
        self._jumped_from: datetime | None = None
        self._believed = True
        self._lock = threading.Lock()

    def now(self) -> datetime:
        """The present, in UTC."""
        with self._lock:
            mark, says = elapsed_s(), wall()
            went_on = self._at + timedelta(seconds=mark - self._mark)
            began = self._at.year > 1
            if began and says - went_on > AHEAD and self._jumped_from is None and self._believed:
                self._jumped_from = went_on
            self._believed = self._believed or says - went_on <= AHEAD
            self._at, self._mark = (max(says, went_on) if self._believed else went_on), mark
            return self._at

    def begin(self, latest: datetime | None) -> None:
        """Start on a shop's file: not before the latest record in it."""
        with self._lock:
            says = wall()
            jumped = latest is not None and says - latest > AHEAD
            self._jumped_from, self._believed = (latest if jumped else None), True
            self._at, self._mark = max(says, latest or says), elapsed_s()

    def behind(self) -> timedelta:
        """How far the machine's clock is behind the shop's; nothing where it is no matter."""
        lag = self.now() - wall()
        return lag if lag > BEHIND_TOLD else timedelta()

    def ahead(self) -> timedelta:
        """How far the machine's clock jumped past the records, until somebody says it is right."""
        at, jumped_from = self.now(), self._jumped_from
        return timedelta() if jumped_from is None else at - jumped_from

    def is_right(self) -> None:
        """The jump was true: so much time did pass."""
        self._jumped_from = None

    def is_wrong(self) -> None:
        """The jump was none: it goes on from the records, whatever the machine says."""
        with self._lock:
            if self._jumped_from is not None:
                self._at, self._mark = self._jumped_from, elapsed_s()
            self._jumped_from, self._believed = None, False


CLOCK = Clock()


def now() -> datetime:
    """The present of the shop, in UTC."""
    return CLOCK.now()


def waited(seconds: float | None) -> datetime | None:
    """When something was written down that waited so long to be sent; None where it did not.

    By the time that passed and not by a device's clock, so that a wrong one prolongs nothing.
    """
    return None if not seconds else now() - timedelta(seconds=seconds)


def newest(session: Session) -> datetime | None:
    """When the latest change was recorded; None in a new shop."""
    return session.scalars(select(ChangeRow.at).order_by(ChangeRow.id.desc()).limit(1)).first()


def begin(session: Session) -> None:
    """Start the shop's clock at its latest record."""
    CLOCK.begin(newest(session))
