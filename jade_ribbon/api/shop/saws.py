"""Saws."""

from sqlalchemy.orm import Session

from jade_ribbon.api.answers import Changed
from jade_ribbon.api.operations import operation
from jade_ribbon.core.starting.worked_out import WorkedOut
from jade_ribbon.services.edits import Edit
from jade_ribbon.services.setup.roles import check_authorised
from jade_ribbon.services.shop import saws
from jade_ribbon.services.shop.inputs import MountInput, SawInput, TensionInput, WorkOutInput


@operation("GET", "/api/saws", answer=list[saws.SawAnswer])
def list_saws(session: Session) -> list[saws.SawAnswer]:
    """All saws with what is on them."""
    return saws.list_saws(session)


@operation("POST", "/api/saws", answer=saws.SawAnswer, body=SawInput, status=201, role="owner")
def add_saw(session: Session, body: SawInput) -> saws.SawAnswer:
    """Add a saw."""
    return saws.add_saw(session, body)


@operation("POST", "/api/saws/work-out", answer=WorkedOut, body=WorkOutInput, asks=True)
def work_out_saw(session: Session, body: WorkOutInput) -> WorkedOut:
    """Speed, length and force that follow from what is known of a saw."""
    return saws.work_out(body)


@operation("GET", "/api/saws/<int:saw_id>", answer=saws.SawAnswer)
def one_saw(session: Session, saw_id: int) -> saws.SawAnswer:
    """One saw."""
    return saws.one_saw(session, saw_id)


@operation(
    "PATCH", "/api/saws/<int:saw_id>", answer=saws.SawAnswer, body=saws.SawEdit, role="owner"
)
def edit_saw(session: Session, saw_id: int, body: Edit) -> saws.SawAnswer:
    """Save what was changed of a saw."""
    return saws.save_saw(session, saw_id, body)


@operation("DELETE", "/api/saws/<int:saw_id>", answer=Changed, role="owner")
def delete_saw(session: Session, saw_id: int) -> Changed:
    """Delete a saw; it can be undone."""
    return Changed(saws.delete_saw(session, saw_id))


@operation("POST", "/api/saws/<int:saw_id>/mount", answer=saws.SawAnswer, body=MountInput)
def mount(session: Session, saw_id: int, body: MountInput) -> saws.SawAnswer:
    """Put a band on a saw, or take it off."""
    check_authorised(session, "band_change", body.who)
    saws.mount(session, saw_id, body)
    return saws.one_saw(session, saw_id)


@operation("POST", "/api/saws/<int:saw_id>/tension", answer=saws.SawAnswer, body=TensionInput)
def set_tension(session: Session, saw_id: int, body: TensionInput) -> saws.SawAnswer:
    """Record whether a saw is under tension."""
    return saws.set_tension(session, saw_id, body)
