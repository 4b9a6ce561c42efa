"""A write sent again under its key is not done again: it is answered as the first time."""

from dataclasses import dataclass
from datetime import timedelta

from sqlalchemy import delete
from sqlalchemy.orm import Session

from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.services.clock import now
from jade_ribbon.store.models import AnsweredRow

KEPT = timedelta(days=30)


@dataclass(frozen=True)
class Answered:
    """An answer as it went out."""

    status: int
    text: str


def recall(session: Session, key: str, asked: str) -> Answered | None:
    """The answer to an earlier write of this key; None for a new one.

    InputError when the key was used for something else.
    """
    row = session.get(AnsweredRow, key)
    if row is None:
        return None
    if row.asked != asked:
        raise InputError(
            [Fault("Idempotency-Key", "was used for another write; accepted: a new one", key)]
        )
    return Answered(row.status, row.answer)


def remember(session: Session, key: str, asked: str, answer: Answered) -> None:
    """Keep an answer in the unit of work it is the answer to; old ones go."""
    at = now()
    session.execute(delete(AnsweredRow).where(AnsweredRow.at < at - KEPT))
    session.add(AnsweredRow(key=key, asked=asked, at=at, status=answer.status, answer=answer.text))
