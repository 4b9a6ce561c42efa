"""Undo of any logged change, and the history of a record."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.services.records import NOUNS, undo_change
from jade_ribbon.store.models import ChangeRow

SHOWN = 50


@dataclass(frozen=True)
class Change:
    """One entry of a record's history: what changed, from what to what."""

    id: int
    at: datetime
    noun: str
    noun_id: int
    action: str
    undone: bool
    changed: dict[str, list[Any]]


def _difference(row: ChangeRow) -> dict[str, list[Any]]:
    before, after = row.before or {}, row.after or {}
    if row.before is None:
        return {}
    return {k: [before.get(k), v] for k, v in after.items() if before.get(k) != v}


def _answer(row: ChangeRow) -> Change:
    return Change(row.id, row.at, row.noun, row.noun_id, row.action, row.undone, _difference(row))


def history(session: Session, noun: str, noun_id: int) -> list[Change]:
    """The latest changes of a record, newest first."""
    if noun not in NOUNS:
        known = ", ".join(NOUNS)
        raise InputError([Fault("noun", f"{noun!r} is not accepted; accepted: {known}", noun)])
    rows = session.scalars(
        select(ChangeRow)
        .where(ChangeRow.noun == noun, ChangeRow.noun_id == noun_id)
        .order_by(ChangeRow.id.desc())
        .limit(SHOWN)
    )
    return [_answer(r) for r in rows]


def undo(session: Session, change_id: int) -> Change:
    """Undo one change; what is projected from the record follows."""
    return _answer(undo_change(session, change_id))
