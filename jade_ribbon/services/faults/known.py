"""What the interface draws of the tables: signs with their neighbours, causes, checks, cards."""

from dataclasses import dataclass

from sqlalchemy.orm import Session

from jade_ribbon.core.faults.pairs import Card, cards
from jade_ribbon.core.faults.signs import SignShown, signs
from jade_ribbon.reference.faults import Cause, causes, instruments
from jade_ribbon.services.faults.told import instruments_of, learned


@dataclass(frozen=True)
class FaultsKnown:
    """Signs in the order of their groups, causes, and what the shop has to check with."""

    signs: list[SignShown]
    causes: list[Cause]
    instruments: list[str]
    has: list[str] | None
    troubles: int
    """Closed troubles with a cause found: what the shop's own findings rest on."""


def known(session: Session) -> FaultsKnown:
    """All of it, for the pages of Faults."""
    return FaultsKnown(
        list(signs()),
        list(causes().values()),
        list(instruments()),
        instruments_of(session),
        learned(session).troubles,
    )


def wall_cards(session: Session) -> list[Card]:
    """Long-standing pairs, from the tables as this shop has moved them."""
    return list(cards(learned(session).knowledge))
