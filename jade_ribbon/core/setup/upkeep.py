"""What of a saw's upkeep is due: by hours run and days, whichever comes first."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Literal

from jade_ribbon.reference.care import UpkeepTask

Due = Literal["due", "soon", "later", "never_done", "wrong"]
SOON = 0.85
"""From this share of an interval on a task is said to be due soon."""


@dataclass(frozen=True)
class Done:
    """When a task was last done, at how many hours run, and whether it was found right."""

    at: datetime
    hours: float
    right: bool


@dataclass(frozen=True)
class TaskDue:
    """How a task stands: share of its interval gone, by which measure, hours and days left."""

    due: Due
    share: float
    by: Literal["hours", "days"]
    hours_left: float | None
    days_left: float | None


def task_due(
    task: UpkeepTask,
    last: Done | None,
    *,
    hours_now: float,
    now: datetime,
    hours: float | None = None,
    days: float | None = None,
) -> TaskDue:
    """How a task stands, by its usual or the saw's own interval.

    One never recorded is not called due, since nobody knows when it was done; but a test without
    which a saw should not run is.
    """
    every_h, every_d = hours or task.hours, days or task.days
    if last is None:
        return TaskDue("due" if task.stops else "never_done", 0.0, "hours", None, None)
    ran, passed = max(0.0, hours_now - last.hours), (now - last.at) / timedelta(days=1)
    by_hours, by_days = ran / every_h, max(0.0, passed) / every_d
    share = max(by_hours, by_days)
    state: Due = "due" if share >= 1.0 else "soon" if share >= SOON else "later"
    if not last.right:
        state = "wrong"
    return TaskDue(
        state,
        share,
        "hours" if by_hours >= by_days else "days",
        every_h - ran,
        every_d - passed,
    )
