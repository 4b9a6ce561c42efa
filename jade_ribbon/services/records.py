"""Rows as plain records, the change log, and undo."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Any

from pydantic import PlainSerializer
from sqlalchemy import LargeBinary
from sqlalchemy.orm import Session

from jade_ribbon.services.clock import now
from jade_ribbon.services.errors import NotFoundError
from jade_ribbon.store.models import (
    AlignmentRow,
    BandEventRow,
    BandRow,
    BandTypeRow,
    Base,
    ChangeRow,
    CoilRow,
    CommissioningRow,
    DefectRow,
    DriftRow,
    FaceRow,
    FastenerRow,
    JobRow,
    MakingRow,
    MaterialRow,
    PhotoRow,
    RunRow,
    SawRow,
    ScalePointRow,
    SetupRow,
    SetupStepRow,
    ShopRow,
    SoundRow,
    StockRow,
    TroubleRow,
    UpkeepRow,
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
    "face": FaceRow,
    "stock": StockRow,
    "fastener": FastenerRow,
    "photo": PhotoRow,
    "coil": CoilRow,
    "making": MakingRow,
    "upkeep": UpkeepRow,
    "commissioning": CommissioningRow,
    "trouble": TroubleRow,
    "sound": SoundRow,
}


Projection = Callable[[Session, Any], object]
PROJECTIONS: dict[str, list[Projection]] = {}
"""By noun: what is computed from a record and must follow each change of it."""
RULES: dict[str, list[Projection]] = {}
"""By noun: what must hold of a record after each change of it, an undo included."""


def projected(noun: str) -> Callable[[Projection], Projection]:
    """Register what follows every logged change of a noun, undo included."""

    def register(follow: Projection) -> Projection:
        PROJECTIONS.setdefault(noun, []).append(follow)
        return follow

    return register


def must_hold(noun: str) -> Callable[[Projection], Projection]:
    """Register a rule of a noun: raises ConflictError or InputError where it does not hold."""

    def register(rule: Projection) -> Projection:
        RULES.setdefault(noun, []).append(rule)
        return rule

    return register


def as_record(row: Base) -> dict[str, Any]:
    """All columns of a row, JSON-ready; what is no text or number stays in its row alone."""
    plain = {}
    for column in row.__table__.columns:
        if isinstance(column.type, LargeBinary):
            continue
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


EDITS = ("edit", "undo")
"""Changes that make a form opened before them an old one."""


def begin_deed(session: Session, who: str = "", role: str = "owner") -> None:
    """All changes of this session are one deed, by one person in a role; undone together."""
    session.info.update(deed=0, who=who, role=role)


def check_rules(session: Session, noun: str, row: Any) -> None:
    """Everything that must hold of a record. ConflictError, InputError."""
    for rule in RULES.get(noun, ()):
        rule(session, row)


@dataclass(frozen=True)
class Changed:
    """What was changed can be brought back by this change."""

    change_id: int


ChangeId = Annotated[int, PlainSerializer(Changed, return_type=Changed)]
"""The number of a change, for undo."""


def log_change(session: Session, row: Any, action: str, before: dict[str, Any] | None) -> ChangeRow:
    """Write one change to the log, in the same unit of work as the change.

    What is projected from the record (PROJECTIONS) follows at once, and its rules must hold.
    """
    noun = next(n for n, kind in NOUNS.items() if isinstance(row, kind))
    if before is not None and action in EDITS and hasattr(row, "version"):
        row.version += 1
    with session.no_autoflush:
        check_rules(session, noun, row)
    session.flush()
    change = ChangeRow(
        at=now(),
        noun=noun,
        noun_id=row.id,
        action=action,
        before=before,
        after=as_record(row),
        who=session.info.get("who", ""),
        deed=session.info.get("deed") or None,
    )
    session.add(change)
    session.flush()
    if change.deed is None:
        change.deed = change.id
        if "deed" in session.info:
            session.info["deed"] = change.id
    for follow in PROJECTIONS.get(noun, ()):
        follow(session, row)
    return change
