"""Rows as plain records, the change log, and undo."""

from collections.abc import Callable
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.services.errors import ConflictError, NotFoundError
from jade_ribbon.store.models import (
    AlignmentRow,
    BandEventRow,
    BandRow,
    BandTypeRow,
    Base,
    ChangeRow,
    DefectRow,
    DriftRow,
    JobRow,
    MaterialRow,
    RunRow,
    SawRow,
    ScalePointRow,
    SetupRow,
    SetupStepRow,
    ShopRow,
    UtcDateTime,
)

NOUNS: dict[str, type[Base]] = {
    "shop": ShopRow,
    "saw": SawRow,
    "band": BandRow,
    "event": BandEventRow,
    "job": JobRow,
    "setup": SetupRow,
    "step": SetupStepRow,
    "run": RunRow,
    "material": MaterialRow,
    "band_type": BandTypeRow,
    "scale_point": ScalePointRow,
    "alignment": AlignmentRow,
    "drift": DriftRow,
    "defect": DefectRow,
}


Projection = Callable[[Session, Any], object]
PROJECTIONS: dict[str, Projection] = {}
"""By noun: what is computed from a record and must follow each change of it."""


def projected(noun: str) -> Callable[[Projection], Projection]:
    """Register what follows every logged change of a noun, undo included."""

    def register(follow: Projection) -> Projection:
        PROJECTIONS[noun] = follow
        return follow

    return register


def now() -> datetime:
    """The present, in UTC."""
    return datetime.now(UTC)


def as_record(row: Base) -> dict[str, Any]:
    """All columns of a row, JSON-ready."""
    plain = {}
    for column in row.__table__.columns:
        value = getattr(row, column.key)
        plain[column.key] = value.isoformat() if isinstance(value, datetime) else value
    return plain


def bring_back(row: Base, record: dict[str, Any]) -> None:
    """Set a row to an earlier snapshot."""
    for column in row.__table__.columns:
        if column.key not in record:
            continue
        value = record[column.key]
        if isinstance(value, str) and isinstance(column.type, UtcDateTime):
            value = datetime.fromisoformat(value)
        setattr(row, column.key, value)


def get(session: Session, noun: str, key: int) -> Any:
    """A live row by noun and id. NotFoundError when absent or deleted."""
    row = session.get(NOUNS[noun], key)
    if row is None or getattr(row, "deleted_at", None) is not None:
        raise NotFoundError(noun, key)
    return row


def log_change(
    session: Session, row: Base, action: str, before: dict[str, Any] | None
) -> ChangeRow:
    """Write one change to the log, in the same unit of work as the change.

    What is projected from the record (PROJECTIONS) follows at once.
    """
    session.flush()
    noun = next(n for n, kind in NOUNS.items() if isinstance(row, kind))
    change = ChangeRow(
        at=now(),
        noun=noun,
        noun_id=row.id,  # type: ignore[attr-defined]
        action=action,
        before=before,
        after=as_record(row),
    )
    session.add(change)
    session.flush()
    if (follow := PROJECTIONS.get(noun)) is not None:
        follow(session, row)
    return change


def undo_change(session: Session, change_id: int) -> ChangeRow:
    """Set a record back to what it was before a change; the undo is a change itself.

    ConflictError when a later change to the same record stands, or it was undone already.
    """
    change = session.get(ChangeRow, change_id)
    if change is None:
        raise NotFoundError("change", change_id)
    if change.undone:
        raise ConflictError("This change was undone already.")
    later = session.scalars(
        select(ChangeRow.id).where(
            ChangeRow.noun == change.noun,
            ChangeRow.noun_id == change.noun_id,
            ChangeRow.id > change.id,
            ChangeRow.undone.is_(False),
            ChangeRow.action != "undo",
        )
    ).first()
    if later is not None:
        raise ConflictError("A later change to the same record stands: undo that one first.")
    row = session.get(NOUNS[change.noun], change.noun_id)
    if row is None:
        raise NotFoundError(change.noun, change.noun_id)
    current = as_record(row)
    if change.before is None:
        row.deleted_at = now()  # type: ignore[attr-defined]
    else:
        bring_back(row, change.before)
    change.undone = True
    log_change(session, row, "undo", current)
    return change
