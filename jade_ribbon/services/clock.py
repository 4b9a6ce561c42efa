"""The shop's clock: it never goes back, whatever is done to the machine's."""

import threading
import time
from datetime import UTC, datetime, timedelta

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.store.models import ChangeRow

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
    before it.
    """

    def __init__(self) -> None:
        self._at, self._mark = datetime.min.replace(tzinfo=UTC), elapsed_s()
        self._lock = threading.Lock()

    def now(self) -> datetime:
        """The present, in UTC."""
        with self._lock:
            mark = elapsed_s()
            went_on = self._at + timedelta(seconds=mark - self._mark)
            self._at, self._mark = max(wall(), went_on), mark
            return self._at

    def begin(self, latest: datetime | None) -> None:
        """Start on a shop's file: not before the latest record in it."""
        self._at, self._mark = max(wall(), latest or wall()), elapsed_s()

    def behind(self) -> timedelta:
        """How far the machine's clock is behind the shop's; nothing where it is no matter."""
        lag = self.now() - wall()
        return lag if lag > BEHIND_TOLD else timedelta()


CLOCK = Clock()


def now() -> datetime:
    """The present of the shop, in UTC."""
    return CLOCK.now()


def waited(seconds: float | None) -> datetime | None:
    """When something was written down that waited so long to be sent; None where it did not.

    By the time that passed and not by a device's clock, so that a wrong one prolongs nothing.
    """
    return None if not seconds else now() - timedelta(seconds=seconds)


def begin(session: Session) -> None:
    """Start the shop's clock at its latest record."""
    CLOCK.begin(session.scalars(select(ChangeRow.at).order_by(ChangeRow.id.desc())).first())
