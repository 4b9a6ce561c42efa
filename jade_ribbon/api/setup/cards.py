"""Set-up cards."""

from typing import Annotated

from pydantic import Field
from sqlalchemy.orm import Session

from jade_ribbon.api.answers import Started
from jade_ribbon.api.operations import operation, waited_s
from jade_ribbon.services.clock import waited
from jade_ribbon.services.setup import cards, steps
from jade_ribbon.services.setup.inputs import AcknowledgeInput, SetupStart, StepInput


class StepBody(StepInput):
    """A step by its key."""

    key: Annotated[str, Field(max_length=20)]


@operation("POST", "/api/setups", answer=Started, body=SetupStart, status=201)
def start_setup(session: Session, body: SetupStart) -> Started:
    """Open the card of a job, or go on with the open one."""
    return Started(cards.start(session, body))


@operation("GET", "/api/setups/<int:setup_id>", answer=cards.SetupAnswer)
def one_setup(session: Session, setup_id: int) -> cards.SetupAnswer:
    """A card as it stands."""
    return cards.one_setup(session, setup_id)


@operation("POST", "/api/setups/<int:setup_id>/steps", answer=cards.SetupAnswer, body=StepBody)
def record_step(session: Session, setup_id: int, body: StepBody) -> cards.SetupAnswer:
    """Tick, untick or skip a step."""
    given = StepInput(**body.model_dump(exclude={"key"}))
    return steps.record_step(session, setup_id, body.key, given, waited(waited_s()))


@operation(
    "POST",
    "/api/setups/<int:setup_id>/acknowledge",
    answer=cards.SetupAnswer,
    body=AcknowledgeInput,
)
def acknowledge(session: Session, setup_id: int, body: AcknowledgeInput) -> cards.SetupAnswer:
    """Acknowledge a stop by name."""
    return cards.acknowledge(session, setup_id, body)


@operation("POST", "/api/setups/<int:setup_id>/finish", answer=cards.SetupAnswer)
def finish_setup(session: Session, setup_id: int) -> cards.SetupAnswer:
    """Close a complete card."""
    return cards.finish(session, setup_id)
