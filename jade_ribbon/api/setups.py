"""Set-up cards."""

from typing import Annotated

from pydantic import Field
from sqlalchemy.orm import Session

from jade_ribbon.api.answers import Started
from jade_ribbon.api.operations import operation
from jade_ribbon.services import setup_steps, setups
from jade_ribbon.services.inputs import AcknowledgeInput, SetupStart
from jade_ribbon.services.setup_inputs import StepInput


class StepBody(StepInput):
    """A step by its key."""

    key: Annotated[str, Field(max_length=20)]


@operation("POST", "/api/setups", answer=Started, body=SetupStart, status=201)
def start_setup(session: Session, body: SetupStart) -> Started:
    """Open the card of a job, or go on with the open one."""
    return Started(setups.start(session, body))


@operation("GET", "/api/setups/<int:setup_id>", answer=setups.SetupAnswer)
def one_setup(session: Session, setup_id: int) -> setups.SetupAnswer:
    """A card as it stands."""
    return setups.one_setup(session, setup_id)


@operation("POST", "/api/setups/<int:setup_id>/steps", answer=setups.SetupAnswer, body=StepBody)
def record_step(session: Session, setup_id: int, body: StepBody) -> setups.SetupAnswer:
    """Tick, untick or skip a step."""
    given = StepInput(**body.model_dump(exclude={"key"}))
    return setup_steps.record_step(session, setup_id, body.key, given)


@operation(
    "POST",
    "/api/setups/<int:setup_id>/acknowledge",
    answer=setups.SetupAnswer,
    body=AcknowledgeInput,
)
def acknowledge(session: Session, setup_id: int, body: AcknowledgeInput) -> setups.SetupAnswer:
    """Acknowledge a stop by name."""
    return setups.acknowledge(session, setup_id, body)


@operation("POST", "/api/setups/<int:setup_id>/finish", answer=setups.SetupAnswer)
def finish_setup(session: Session, setup_id: int) -> setups.SetupAnswer:
    """Close a complete card."""
    return setups.finish(session, setup_id)
