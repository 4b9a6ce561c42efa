"""What a table of records is on its way out and in, and what its lines are read by."""

from collections.abc import Callable, Hashable, Iterable, Mapping
from contextlib import AbstractContextManager, nullcontext
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.formats.records_csv import Column
from jade_ribbon.services.clock import now
from jade_ribbon.store.models import BandRow

Record = dict[str, Any]
Write = Callable[[Session, Record, Record | None], None]


@dataclass(frozen=True)
class FileTable:
    """A table of records: its columns, its lines, what tells one from another, how one is kept."""

    key: str
    name: str
    columns: tuple[Column, ...]
    records: Callable[[Session], Iterable[Record]]
    identity: Callable[[Mapping[str, Any]], Hashable | None]
    """None: a new one."""
    write: Write
    within: Callable[[Session], AbstractContextManager[None]] = lambda _: nullcontext()
    """What all its lines are written within."""


def labels_by_id(session: Session) -> dict[int, str]:
    """The labels of all bands, by their ids."""
    return {b.id: b.label for b in session.scalars(select(BandRow))}


def one_named(session: Session, kind: type[Any], column: Any, name: str, field: str) -> Any:
    """The living record of a name. InputError where there is none, or more than one."""
    rows = session.scalars(
        select(kind).where(column == name, kind.deleted_at.is_(None)).limit(2)
    ).all()
    if len(rows) != 1:
        words = f"{name!r} is not here; accepted: a name on record"
        raise refuse(field, words if not rows else f"{name!r} is there twice", name)
    return rows[0]


def passed(values: Mapping[str, Any]) -> datetime | None:
    """When it was, by its line; None where it says nothing. InputError for a time to come."""
    at: datetime | None = values.get("at")
    if at is not None and at > now():
        raise refuse("at", f"{at.isoformat()} is still to come; accepted: up to now", str(at))
    return at
