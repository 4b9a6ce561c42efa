"""Upkeep of saws: what is due, what was done, accessories, bringing a saw to life."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.reference.care import (
    CommissioningStep,
    UpkeepTask,
    accessories,
    commissioning_steps,
)
from jade_ribbon.reference.tables import caution_texts
from jade_ribbon.services.clock import now
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.records import as_record, get, log_change
from jade_ribbon.services.shop.saws import owned_saws
from jade_ribbon.services.shop.tasks import (
    ORDER,
    OWN_KEY,
    TaskLine,
    hours_of,
    last_done,
    own_key,
    tasks_for,
    tasks_of,
)
from jade_ribbon.services.upkeep.inputs import (
    AccessoryInput,
    BeginCommissioningInput,
    CommissioningStepInput,
    IntervalsInput,
    OwnTaskInput,
    UpkeepDoneInput,
)
from jade_ribbon.store.models import (
    CommissioningRow,
    DefectRow,
    PhotoRow,
    SawRow,
    UpkeepRow,
)

SHOWN = 20


@dataclass(frozen=True)
class AccessoryLine:
    """An accessory: whether it is there and works, and what follows."""

    key: str
    title: str
    saves: str
    state: str
    wear: float
    caution: str


@dataclass(frozen=True)
class CareStep:
    """A step of commissioning, and what was found."""

    key: str
    title: str
    do: str
    look: str
    licensed: bool
    found: str
    who: str
    at: str
    note: str


@dataclass(frozen=True)
class CommissioningCard:
    """A saw being brought to life, or brought."""

    id: int
    kind: str
    started_at: datetime
    finished_at: datetime | None
    steps: list[CareStep]
    open: int
    wrong: int


@dataclass(frozen=True)
class Care:
    """All of a saw's upkeep."""

    saw_id: int
    saw: str
    hours: float
    tasks: list[TaskLine]
    accessories: list[AccessoryLine]
    commissioning: list[CommissioningCard]
    plate_photo_id: int | None


def saw_upkeep(session: Session, saw_id: int) -> Care:
    """A saw's tasks, accessories and commissioning."""
    saw: SawRow = get(session, "saw", saw_id)
    hours = hours_of(session).get(saw.id, 0.0)
    cards = session.scalars(
        select(CommissioningRow)
        .where(CommissioningRow.saw_id == saw.id, CommissioningRow.deleted_at.is_(None))
        .order_by(CommissioningRow.started_at.desc())
    ).all()
    return Care(
        saw.id,
        saw.name,
        hours,
        tasks_of(saw, hours, last_done(session)),
        _accessories(saw),
        [_card(row) for row in cards],
        session.scalars(
            select(PhotoRow.id)
            .where(PhotoRow.saw_id == saw.id, PhotoRow.deleted_at.is_(None))
            .order_by(PhotoRow.id.desc())
        ).first(),
    )


def upkeep_due(session: Session) -> list[TaskLine]:
    """What is due or found wrong on any saw, the most overdue first; three statements."""
    hours, last = hours_of(session), last_done(session)
    saws = session.scalars(owned_saws()).all()
    lines = [t for s in saws for t in tasks_of(s, hours.get(s.id, 0.0), last)]
    found = [t for t in lines if t.stands.due in ("wrong", "due", "soon")]
    return sorted(found, key=lambda t: (ORDER[t.stands.due], -t.stands.share))


def _caution(key: str) -> str:
    """What is said while an accessory is down; nothing of one that only wears edges."""
    told = caution_texts().get(f"{key}_down")
    return told.text if told else ""


def _accessories(saw: SawRow) -> list[AccessoryLine]:
    kept = saw.accessories or {}
    return [
        AccessoryLine(
            key,
            item.title,
            item.saves,
            kept.get(key, "none"),
            item.down_wear if kept.get(key) == "down" else 1.0,
            _caution(key) if kept.get(key) == "down" else "",
        )
        for key, item in accessories().items()
    ]


def upkeep_done(
    session: Session, saw_id: int, given: UpkeepDoneInput, *, at: datetime | None = None
) -> Care:
    """A task is done. Found wrong, it is a defect of the saw too, and stops it where it must."""
    saw: SawRow = get(session, "saw", saw_id)
    task = _task(saw, given.key)
    row = UpkeepRow(
        saw_id=saw.id,
        key=given.key,
        at=at or now(),
        hours=hours_of(session).get(saw.id, 0.0),
        found=given.found,
        note=given.note,
        who=given.who,
    )
    session.add(row)
    log_change(session, row, "add", None)
    if given.found == "wrong":
        defect = DefectRow(
            saw_id=saw.id,
            text=f"{task.title}: {given.note}"[:400],
            stops=task.stops,
            at=row.at,
            who=given.who,
        )
        session.add(defect)
        log_change(session, defect, "add", None)
    return saw_upkeep(session, saw_id)


def set_upkeep_intervals(session: Session, saw_id: int, given: IntervalsInput) -> Care:
    """A saw's own intervals; those left empty are the usual ones again."""
    saw: SawRow = get(session, "saw", saw_id)
    before = as_record(saw)
    kept = dict(saw.upkeep or {})
    for key, interval in given.intervals.items():
        _task(saw, key)
        told = interval.model_dump(exclude_none=True)
        kept[key] = {**kept[key], **told} if OWN_KEY.fullmatch(key) else told
    saw.upkeep = {k: v for k, v in kept.items() if v}
    log_change(session, saw, "edit", before)
    return saw_upkeep(session, saw_id)


def _task(saw: SawRow, key: str) -> UpkeepTask:
    """A task that a saw has. ConflictError where it has none of that key."""
    found = tasks_for(saw).get(key)
    if found is None:
        raise ConflictError(f"{saw.name} has no task {key!r}.")
    return found


MOST_OWN_TASKS = 20


def add_upkeep_task(session: Session, saw_id: int, given: OwnTaskInput) -> Care:
    """A task of one's own for a saw. ConflictError with too many of them, or two of a name."""
    saw: SawRow = get(session, "saw", saw_id)
    kept = dict(saw.upkeep or {})
    own = [key for key in kept if OWN_KEY.fullmatch(key)]
    if len(own) >= MOST_OWN_TASKS:
        raise ConflictError(f"{saw.name} has {len(own)} tasks of its own; take one away first.")
    if any(t.title.casefold() == given.title.casefold() for t in tasks_for(saw).values()):
        raise ConflictError(f"{saw.name} has a task called {given.title} already.")
    before = as_record(saw)
    number = next(n for n in range(1, MOST_OWN_TASKS + 1) if own_key(n) not in kept)
    saw.upkeep = {**kept, own_key(number): given.model_dump()}
    log_change(session, saw, "edit", before)
    return saw_upkeep(session, saw_id)


def remove_upkeep_task(session: Session, saw_id: int, number: int) -> Care:
    """Take a task of one's own away; what was recorded of it stays on record."""
    saw: SawRow = get(session, "saw", saw_id)
    key = own_key(number)
    _task(saw, key)
    before = as_record(saw)
    saw.upkeep = {k: v for k, v in saw.upkeep.items() if k != key}
    log_change(session, saw, "edit", before)
    return saw_upkeep(session, saw_id)


def set_accessory(session: Session, saw_id: int, given: AccessoryInput) -> Care:
    """An accessory is there, works, or is down."""
    saw: SawRow = get(session, "saw", saw_id)
    before = as_record(saw)
    kept = {k: v for k, v in (saw.accessories or {}).items() if k != given.key}
    saw.accessories = kept if given.state == "none" else {**kept, given.key: given.state}
    log_change(session, saw, "edit", before)
    return saw_upkeep(session, saw_id)


def _steps(kind: str) -> Sequence[CommissioningStep]:
    return [s for s in commissioning_steps().values() if s.kind in (kind, "both")]


def _card(row: CommissioningRow) -> CommissioningCard:
    steps = []
    for step in _steps(row.kind):
        told: Mapping[str, str] = row.steps.get(step.key, {})
        steps.append(
            CareStep(
                step.key,
                step.title,
                step.do,
                step.look,
                step.licensed,
                told.get("found", ""),
                told.get("who", ""),
                told.get("at", ""),
                told.get("note", ""),
            )
        )
    return CommissioningCard(
        row.id,
        row.kind,
        row.started_at,
        row.finished_at,
        steps,
        sum(not s.found for s in steps),
        sum(s.found == "wrong" for s in steps),
    )


def begin_commissioning(session: Session, saw_id: int, given: BeginCommissioningInput) -> Care:
    """A card for a new saw, or one brought back to life. ConflictError while one is open."""
    saw: SawRow = get(session, "saw", saw_id)
    if any(card.finished_at is None for card in saw_upkeep(session, saw_id).commissioning):
        raise ConflictError(f"{saw.name} has a commissioning card open already.")
    row = CommissioningRow(saw_id=saw.id, kind=given.kind, started_at=now(), steps={})
    session.add(row)
    log_change(session, row, "add", None)
    return saw_upkeep(session, saw_id)


def commissioning_step(session: Session, card_id: int, given: CommissioningStepInput) -> Care:
    """A step of the card; the card is finished when every step was found right."""
    row: CommissioningRow = get(session, "commissioning", card_id)
    keys = [s.key for s in _steps(row.kind)]
    if given.key not in keys:
        raise ConflictError(f"{given.key} is no step of this card.")
    if given.key == "first_cut":
        electrics = row.steps.get("electrics", {}).get("found")
        guards = row.steps.get("guards", {}).get("found")
        if electrics != "right" or guards != "right":
            raise ConflictError("No first cut before electrics and guards were found right.")
    before = as_record(row)
    told = {
        "found": given.found,
        "who": given.who,
        "at": now().isoformat(),
        "note": given.note,
    }
    row.steps = {**row.steps, given.key: told}
    whole = all(row.steps.get(k, {}).get("found") == "right" for k in keys)
    row.finished_at = (row.finished_at or now()) if whole else None
    log_change(session, row, "edit", before)
    return saw_upkeep(session, row.saw_id)
