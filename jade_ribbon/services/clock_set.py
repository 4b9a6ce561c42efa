"""The shop's clock as its owner sees it: asked about when it jumped, set right when wrong."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Literal

from sqlalchemy import Table, select, update
from sqlalchemy.orm import Session

from jade_ribbon.services.clock import BEHIND_TOLD, CLOCK, newest, now, wall
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.rack.replay import replay_all
from jade_ribbon.services.records import as_record, log_change
from jade_ribbon.services.shop.settings import shop_row
from jade_ribbon.store.models import Base, UtcDateTime

Said = Literal["right", "wrong", "set_right"]


@dataclass(frozen=True)
class ClockAnswer:
    """The shop's time and the machine's, how far they are apart, and how many records moved."""

    shop_at: datetime
    machine_at: datetime
    ahead_s: float
    """How far the machine's clock jumped past the records; 0 where it did not, or is believed."""
    behind_s: float
    moved: int


def read_clock(*, moved: int = 0) -> ClockAnswer:
    """How the shop's clock and the machine's stand."""
    return ClockAnswer(
        shop_at=now(),
        machine_at=wall(),
        ahead_s=CLOCK.ahead().total_seconds(),
        behind_s=CLOCK.behind().total_seconds(),
        moved=moved,
    )


def answer_clock(session: Session, said: Said) -> ClockAnswer:
    """What the owner says of the clock: the jump is right, or wrong; or the machine is right again.

    Set right, records dated after the machine's clock move back by as much as the latest of them is
    ahead: none is left in the future, and their order stays. ConflictError where nothing is ahead.
    """
    if said == "wrong":
        CLOCK.is_wrong()
        return read_clock()
    if said == "right":
        CLOCK.is_right()
        _note(session, "clock is right")
        return read_clock()
    latest, says = newest(session), wall()
    if latest is None or latest - says <= BEHIND_TOLD:
        raise ConflictError("No record is ahead of this machine's clock: there is nothing to move.")
    moved = move_times(session, says, latest - says)
    session.expire_all()
    CLOCK.begin(says)
    _note(session, "clock set right")
    replay_all(session)
    return read_clock(moved=moved)


def _note(session: Session, action: str) -> None:
    """Kept among the changes, by whom."""
    row = shop_row(session)
    session.add(row)
    session.flush()
    log_change(session, row, action, as_record(row))


def _dated(table: Table) -> list[str]:
    return [c.name for c in table.columns if isinstance(c.type, UtcDateTime)]


def move_times(
    session: Session, says: datetime, by: timedelta, until: datetime | None = None
) -> int:
    """Move all times of records after a moment, and not past `until`; how many records."""
    moved = 0
    for table in Base.metadata.sorted_tables:
        for name in _dated(table):
            column = table.c[name]
            late = [column > says + BEHIND_TOLD, *([] if until is None else [column <= until])]
            rows = session.execute(select(*table.primary_key.columns, column).where(*late)).all()
            for *key, at in rows:
                mine = zip(table.primary_key.columns, key, strict=True)
                session.execute(
                    update(table).where(*(c == k for c, k in mine)).values({name: at - by})
                )
            moved = moved + len(rows) if name in ("at", "opened_at", "created_at") else moved
    return moved
