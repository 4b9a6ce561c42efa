"""Answers that cost much and change seldom: worked out once for each state of the record."""

from collections.abc import Callable
from typing import TypeVar

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from jade_ribbon.store.database import COMMITTED, MEMO
from jade_ribbon.store.memo import Memo
from jade_ribbon.store.models import ChangeRow

T = TypeVar("T")


def state_of(session: Session) -> int:
    """A number that goes up with every logged change; within a unit of work too."""
    return session.scalar(select(func.max(ChangeRow.id))) or 0


def remembered(session: Session, name: str, make: Callable[[], T], mark: object | None = None) -> T:
    """What `make` gives, kept for as long as the record (or `mark`) is what it was made from.

    Kept of what is committed only: what a unit of work made, it may take back.
    """
    memo: Memo | None = session.info.get(MEMO)
    if memo is None:
        return make()
    at = state_of(session) if mark is None else mark
    found: T | None = memo.get(name, at)
    if found is None:
        found = make()
        if session.info.get(COMMITTED):
            memo.keep(name, at, found)
    return found
