"""Upkeep of saws, accessories, commissioning."""

from sqlalchemy.orm import Session

from jade_ribbon.api.operations import operation
from jade_ribbon.services.shop.tasks import TaskLine
from jade_ribbon.services.upkeep import care
from jade_ribbon.services.upkeep.inputs import (
    AccessoryInput,
    BeginCommissioningInput,
    CommissioningStepInput,
    IntervalsInput,
    OwnTaskInput,
    UpkeepDoneInput,
)


@operation("GET", "/api/upkeep", answer=list[TaskLine])
def upkeep_due(session: Session) -> list[TaskLine]:
    """What upkeep is due or found wrong on any saw."""
    return care.due(session)


@operation("GET", "/api/saws/<int:saw_id>/upkeep", answer=care.Care)
def saw_upkeep(session: Session, saw_id: int) -> care.Care:
    """A saw's upkeep, accessories and commissioning."""
    return care.care_of(session, saw_id)


@operation(
    "POST", "/api/saws/<int:saw_id>/upkeep", answer=care.Care, body=UpkeepDoneInput, status=201
)
def upkeep_done(session: Session, saw_id: int, body: UpkeepDoneInput) -> care.Care:
    """Record a task of upkeep."""
    return care.done(session, saw_id, body)


@operation(
    "POST",
    "/api/saws/<int:saw_id>/upkeep/intervals",
    answer=care.Care,
    body=IntervalsInput,
    role="owner",
)
def set_upkeep_intervals(session: Session, saw_id: int, body: IntervalsInput) -> care.Care:
    """A saw's own intervals."""
    return care.set_intervals(session, saw_id, body)


@operation(
    "POST",
    "/api/saws/<int:saw_id>/upkeep/tasks",
    answer=care.Care,
    body=OwnTaskInput,
    status=201,
    role="owner",
)
def add_upkeep_task(session: Session, saw_id: int, body: OwnTaskInput) -> care.Care:
    """A task of upkeep of one's own."""
    return care.add_task(session, saw_id, body)


@operation(
    "DELETE",
    "/api/saws/<int:saw_id>/upkeep/tasks/<int:number>",
    answer=care.Care,
    role="owner",
)
def remove_upkeep_task(session: Session, saw_id: int, number: int) -> care.Care:
    """Take a task of one's own away, by its number."""
    return care.remove_task(session, saw_id, number)


@operation("POST", "/api/saws/<int:saw_id>/accessory", answer=care.Care, body=AccessoryInput)
def set_accessory(session: Session, saw_id: int, body: AccessoryInput) -> care.Care:
    """Whether an accessory is there and works."""
    return care.set_accessory(session, saw_id, body)


@operation(
    "POST",
    "/api/saws/<int:saw_id>/commissioning",
    answer=care.Care,
    body=BeginCommissioningInput,
    status=201,
    role="authorised",
)
def begin_commissioning(session: Session, saw_id: int, body: BeginCommissioningInput) -> care.Care:
    """Begin bringing a saw to life."""
    return care.begin_commissioning(session, saw_id, body)


@operation(
    "POST",
    "/api/commissioning/<int:card_id>",
    answer=care.Care,
    body=CommissioningStepInput,
    role="authorised",
)
def commissioning_step(session: Session, card_id: int, body: CommissioningStepInput) -> care.Care:
    """Record a step of commissioning."""
    return care.commissioning_step(session, card_id, body)
