"""What was changed, by whom, and undo of any of it while nothing later stands on it."""

import functools
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Any

from pydantic import Field
from sqlalchemy import Select, func, select
from sqlalchemy.orm import Session

from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.quantities.words import Said
from jade_ribbon.services.changed_words import NAMES, Difference, called, differences, title
from jade_ribbon.services.clock import now
from jade_ribbon.services.errors import ConflictError, NotAllowedError, NotFoundError
from jade_ribbon.services.field_types import Id
from jade_ribbon.services.records import NOUNS, as_record, bring_back, log_change
from jade_ribbon.store.models import Base, ChangeRow

SHOWN = 50
PROJECTED = frozenset(
    (
        *("state", "scrap_reason", "sharpenings", "runs", "last_run_at", "fouling"),
        *("edge_equivalent_m", "edge_contact_m", "total_contact_m", "bending_share"),
        *("sign_odds", "left_factor", "defects", "teeth_lost", "confirmed_m"),
        *("judged", "fed", "weighed", "look_first"),
    )
)
"""Of a band: computed from its runs and events, and so never set back by themselves."""
NEVER_BACK = frozenset(
    (
        *("id", "version", "updated_at", "side_factor", "side_sd_ln", "wheels_out", "learned"),
        *("edge_number", "edge_before_m"),
    )
)
"""What marks a row, or follows from other records."""


@dataclass(frozen=True)
class Change:
    """One record of a deed: what changed, from what to what."""

    id: int
    noun: str
    noun_id: int
    action: str
    title: str
    changed: list[Difference]


@dataclass(frozen=True)
class Deed:
    """Changes made together: when, by whom, what; and whether it can be undone now."""

    id: int
    at: datetime
    who: str
    changes: list[Change]
    undone: bool
    held_by: Said
    """Why it cannot be undone; empty when it can."""


def _own_fields(change: ChangeRow) -> dict[str, Any]:
    """The fields a change changed, with what they were after it."""
    before, after = change.before or {}, change.after or {}
    skipped = NEVER_BACK | PROJECTED if change.noun == "band" else NEVER_BACK
    return {k: v for k, v in after.items() if k not in skipped and before.get(k) != v}


def _deed_of(session: Session, change_id: int) -> list[ChangeRow]:
    """The changes made together with one, in order. NotFoundError."""
    change = session.get(ChangeRow, change_id)
    if change is None:
        raise NotFoundError("change", change_id)
    return list(
        session.scalars(
            select(ChangeRow).where(ChangeRow.deed == change.deed).order_by(ChangeRow.id)
        )
    )


LATER = "A later change to the same record stands: undo that one first."


def _held_by(session: Session, deed: Sequence[ChangeRow]) -> str:
    """What stands in the way of undoing a deed; nothing where it can be undone."""
    if any(change.undone for change in deed):
        return "This change was undone already."
    for change in deed:
        row = session.get(NOUNS[change.noun], change.noun_id)
        if row is None:
            return f"The {change.noun} is gone."
        if change.before is None and (words := _rests_on(session, change, deed)):
            return words
        if _later(session, change, deed, row):
            return LATER
    return ""


def _later(session: Session, change: ChangeRow, deed: Sequence[ChangeRow], row: Base) -> bool:
    """Whether a later change of the record, or of the same card, stands on this one."""
    own, last = _own_fields(change), deed[-1].id
    found = session.scalars(
        select(ChangeRow).where(
            ChangeRow.noun == change.noun,
            ChangeRow.noun_id == change.noun_id,
            ChangeRow.id > last,
            ChangeRow.undone.is_(False),
            ChangeRow.action != "undo",
        )
    ).all()
    if change.before is None and found:
        return True
    if any(own.keys() & _own_fields(later).keys() for later in found):
        return True
    if change.noun == "step" and _later_step(session, row, last):
        return True
    current = as_record(row)
    return any(current[k] != v for k, v in own.items() if k in current)


def _later_step(session: Session, row: Any, last: int) -> bool:
    """Whether another step of the same card was done or changed since: each stands on the last."""
    kind = NOUNS["step"]
    others = select(kind.id).where(  # type: ignore[attr-defined]
        kind.setup_id == row.setup_id,  # type: ignore[attr-defined]
        kind.id != row.id,  # type: ignore[attr-defined]
    )
    later = select(ChangeRow.id).where(
        ChangeRow.noun == "step",
        ChangeRow.noun_id.in_(others),
        ChangeRow.id > last,
        ChangeRow.undone.is_(False),
        ChangeRow.action != "undo",
    )
    return session.scalars(later).first() is not None


def _rests_on(session: Session, change: ChangeRow, deed: Sequence[ChangeRow]) -> str:
    """Living records that point at one whose addition would be undone, those of the deed aside."""
    own = {(c.noun, c.noun_id) for c in deed}
    table = NOUNS[change.noun].__table__
    for noun, kind in NOUNS.items():
        for column in kind.__table__.columns:
            if not any(key.column.table is table for key in column.foreign_keys):
                continue
            query = select(kind.id).where(column == change.noun_id)  # type: ignore[attr-defined]
            if "deleted_at" in kind.__table__.columns:
                query = query.where(kind.__table__.columns.deleted_at.is_(None))
            others = [key for key in session.scalars(query) if (noun, key) not in own]
            if others:
                return f"{NAMES[noun]} {others[0]} needs it by now: take that back first."
    return ""


def _put_back(row: Any, change: ChangeRow) -> None:
    """A record as it was before a change, in what the change changed."""
    if change.before is None:
        row.deleted_at = now()
        return
    bring_back(row, {k: change.before.get(k) for k in _own_fields(change)})


OWNERS = ("shop", "saw")
AUTHORISED = ("material", "step", "alignment", "defect", "scale_point", "commissioning")
IN_USE = ("mount", "tension")
"""Changes of a saw that its use makes, and everybody may."""


def _check_role(session: Session, deed: Sequence[ChangeRow]) -> None:
    """NotAllowedError where a device takes back what it may not do."""
    role = session.info.get("role", "owner")
    owners = any(c.noun in OWNERS and c.action not in IN_USE for c in deed)
    reserved = any(c.noun in AUTHORISED for c in deed)
    if (owners and role != "owner") or (reserved and role == "anyone"):
        needed = "the owner's" if owners else "an authorised"
        raise NotAllowedError(f"This is taken back on {needed} device only.")


def undo(session: Session, change_id: int) -> Deed:
    """Undo a change with all that was changed together with it; the undo is a deed itself.

    What is projected from the records follows, and what must hold of them is held to.
    NotFoundError; ConflictError when a later change stands on it, it was undone already, or the
    records would not be right.
    """
    deed = _deed_of(session, change_id)
    _check_role(session, deed)
    if words := _held_by(session, deed):
        raise ConflictError(words)
    rows = [session.get(NOUNS[c.noun], c.noun_id) for c in reversed(deed)]
    befores = [as_record(row) for row in rows if row is not None]
    with session.no_autoflush:
        for row, change in zip(rows, reversed(deed), strict=True):
            _put_back(row, change)
            change.undone = True
    seen: set[int] = set()
    first: ChangeRow | None = None
    for row, before in zip(rows, befores, strict=True):
        if id(row) in seen:
            continue
        seen.add(id(row))
        change = log_change(session, row, "undo", before)
        first = first or change
        change.deed, change.undoes = first.id, deed[0].deed
    for undone in {c.undoes for c in deed if c.undoes is not None}:
        for part in _deed_of(session, undone):
            part.undone = False  # the undo itself is undone: what it took back stands again
    session.flush()
    return _answers(session, [deed])[0]


def _answers(session: Session, deeds: Sequence[Sequence[ChangeRow]]) -> list[Deed]:
    @functools.cache
    def name_of(noun: str, key: int) -> str:
        row = session.get(NOUNS[noun], key)
        return (called(as_record(row)) if row is not None else "") or str(key)

    return [
        Deed(
            id=deed[0].id,
            at=deed[0].at,
            who=next((c.who for c in deed if c.who), ""),
            changes=[_told(c, name_of) for c in deed],
            undone=any(c.undone for c in deed),
            held_by=_held_by(session, deed),
        )
        for deed in deeds
    ]


def _told(change: ChangeRow, name_of: Callable[[str, int], str]) -> Change:
    return Change(
        change.id,
        change.noun,
        change.noun_id,
        change.action,
        title(change, name_of),
        differences(change, _shown(change), name_of),
    )


def _shown(change: ChangeRow) -> dict[str, Any]:
    """What is told of a change: nothing of a record that is new."""
    return {} if change.before is None else _own_fields(change)


def _page(session: Session, wanted: Select[int | None]) -> list[Deed]:
    """The deeds of some numbers, newest first."""
    numbers = [n for n in session.scalars(wanted) if n is not None]
    found: dict[int, list[ChangeRow]] = {n: [] for n in numbers}
    query = select(ChangeRow).where(ChangeRow.deed.in_(numbers)).order_by(ChangeRow.id)
    for row in session.scalars(query):
        found[row.deed or row.id].append(row)
    return _answers(session, [found[n] for n in numbers])


NounAsked = Annotated[str, Field(max_length=20)]


def changes(
    session: Session,
    noun: NounAsked | None = None,
    noun_id: Id | None = None,
    before: Id | None = None,
) -> list[Deed]:
    """What was changed, newest first; of one record, or of all; `before` a deed, for the next page.

    InputError for an unknown noun.
    """
    if noun is not None and noun not in NOUNS:
        known = ", ".join(NOUNS)
        raise InputError([Fault("noun", f"{noun!r} is not accepted; accepted: {known}", noun)])
    latest = func.max(ChangeRow.id)
    query = select(ChangeRow.deed).group_by(ChangeRow.deed).order_by(latest.desc()).limit(SHOWN)
    if noun is not None:
        query = query.where(ChangeRow.noun == noun)
    if noun_id is not None:
        query = query.where(ChangeRow.noun_id == noun_id)
    if before is not None:
        query = query.where(ChangeRow.deed < before)
    return _page(session, query)
