"""The life of a saw's guides: when each was set, hours sawn since, what was noted of them."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from jade_ribbon.store.models import RunRow, SawRow, SetupRow, SetupStepRow

NAMES = {
    "vertical": {"guides_upper": "upper guides", "guides_lower": "lower guides"},
    "horizontal": {"guides_upper": "movable arm", "guides_lower": "fixed arm"},
}
NOTES_SHOWN = 3


@dataclass(frozen=True)
class GuideNote:
    """Something noted of a guide while it was set."""

    at: datetime
    who: str
    text: str


@dataclass(frozen=True)
class GuideLife:
    """One set of guides; `set_at` and hours since are None while no card has set it."""

    key: str
    name: str
    set_at: datetime | None
    who: str
    hours_since: float | None
    notes: list[GuideNote]


def _hours_sawn(session: Session, saw_id: int, since: datetime) -> float:
    seconds = session.scalar(
        select(func.coalesce(func.sum(RunRow.time_s), 0.0)).where(
            RunRow.saw_id == saw_id, RunRow.at >= since, RunRow.deleted_at.is_(None)
        )
    )
    return float(seconds or 0.0) / 3600.0


def _settings(session: Session, saw_id: int, key: str) -> Sequence[SetupStepRow]:
    """Every time a step was really done on this saw, oldest first."""
    query = (
        select(SetupStepRow)
        .join(SetupRow, SetupStepRow.setup_id == SetupRow.id)
        .where(
            SetupRow.saw_id == saw_id,
            SetupRow.deleted_at.is_(None),
            SetupStepRow.key == key,
            SetupStepRow.done.is_(True),
            SetupStepRow.still_good.is_(False),
            SetupStepRow.deleted_at.is_(None),
        )
        .order_by(SetupRow.started_at)
    )
    return session.scalars(query).all()


def guide_lives(session: Session, saw: SawRow) -> list[GuideLife]:
    """Upper and lower guides of a saw, as its cards tell; none for a saw without guides.

    A step left as it was ("still good") is no setting, and a carried note no new one.
    """
    if saw.guides == "none":
        return []
    found = []
    for key, name in NAMES[saw.orientation].items():
        set_ = _settings(session, saw.id, key)
        at = set_[-1].at if set_ else None
        notes = [GuideNote(s.at, s.who, s.note) for s in reversed(set_) if s.note]
        found.append(
            GuideLife(
                key=key,
                name=name,
                set_at=at,
                who=set_[-1].who if set_ else "",
                hours_since=None if at is None else _hours_sawn(session, saw.id, at),
                notes=notes[:NOTES_SHOWN],
            )
        )
    return found
