"""A saw's tasks of upkeep, as its records have them."""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from jade_ribbon.core.setup.kinds_of_saw import saw_tags
from jade_ribbon.core.setup.upkeep import Done, TaskDue, task_due
from jade_ribbon.reference.care import UpkeepTask, upkeep_tasks
from jade_ribbon.reference.rows import applies
from jade_ribbon.services.clock import now
from jade_ribbon.services.shop.saws import core_saw
from jade_ribbon.store.models import RunSumRow, SawRow, UpkeepRow

ORDER = {"wrong": 0, "due": 1, "soon": 2, "never_done": 3, "later": 4}


@dataclass(frozen=True)
class TaskLine:
    """A task of a saw: what to do, how it stands, when and by whom it was last done."""

    saw_id: int
    saw: str
    key: str
    title: str
    do: str
    look: str
    stops: bool
    hours: float
    days: float
    own: bool
    made_here: int | None
    """The number of a task of this saw's own, that no table has."""
    stands: TaskDue
    last_at: datetime | None
    last_who: str
    last_note: str


def hours_of(session: Session) -> dict[int, float]:
    """Hours that each saw has cut, by its runs; one statement."""
    rows = session.execute(
        select(RunSumRow.saw_id, func.sum(RunSumRow.seconds) / 3600.0).group_by(RunSumRow.saw_id)
    )
    return {saw: float(hours) for saw, hours in rows}


def last_done(session: Session) -> dict[tuple[int, str], UpkeepRow]:
    """The last time each task of each saw was done; one statement."""
    rows = session.scalars(
        select(UpkeepRow).where(UpkeepRow.deleted_at.is_(None)).order_by(UpkeepRow.at, UpkeepRow.id)
    )
    return {(row.saw_id, row.key): row for row in rows}


OWN_KEY = re.compile(r"own(\d{1,3})")
"""What a saw's own tasks are called; they stand among its intervals."""


def own_key(number: int) -> str:
    """What the task of a number among a saw's own is called."""
    return f"own{number}"


def tasks_for(saw: SawRow) -> dict[str, UpkeepTask]:
    """The tasks that a saw has: those of its kind, then its own."""
    tags = saw_tags(core_saw(saw))
    found = {key: task for key, task in upkeep_tasks().items() if applies(task.when, tags)}
    for key, told in (saw.upkeep or {}).items():
        if OWN_KEY.fullmatch(key):
            found[key] = UpkeepTask(key, "", **told)
    return found


def _number(key: str) -> int | None:
    told = OWN_KEY.fullmatch(key)
    return int(told[1]) if told else None


def tasks_of(
    saw: SawRow, hours: float, last: Mapping[tuple[int, str], UpkeepRow]
) -> list[TaskLine]:
    """A saw's tasks, the most pressing first."""
    found = []
    for key, task in tasks_for(saw).items():
        own: Mapping[str, Any] = (saw.upkeep or {}).get(key, {})
        row = last.get((saw.id, key))
        done = None if row is None else Done(row.at, row.hours, row.found == "right")
        stands = task_due(
            task,
            done,
            hours_now=hours,
            now=now(),
            hours=own.get("hours"),
            days=own.get("days"),
        )
        found.append(
            TaskLine(
                saw_id=saw.id,
                saw=saw.name,
                key=key,
                title=task.title,
                do=task.do,
                look=task.look,
                stops=task.stops,
                hours=own.get("hours") or task.hours,
                days=own.get("days") or task.days,
                own=bool(own),
                made_here=_number(key),
                stands=stands,
                last_at=None if row is None else row.at,
                last_who="" if row is None else row.who,
                last_note="" if row is None else row.note,
            )
        )
    return sorted(found, key=lambda t: (ORDER[t.stands.due], -t.stands.share))


def not_tested(session: Session, saw: SawRow) -> list[str]:
    """Tests without which a saw should not run, past their time or never recorded."""
    tasks = tasks_of(saw, hours_of(session).get(saw.id, 0.0), last_done(session))
    return [task.title for task in tasks if task.stops and task.stands.due == "due"]
