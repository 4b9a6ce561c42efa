"""What the interface draws of the tables: signs with their neighbours, causes, checks, cards."""

from dataclasses import dataclass

from sqlalchemy.orm import Session

from jade_ribbon.core.faults.pairs import Card, cards
from jade_ribbon.core.faults.signs import SignShown, signs
from jade_ribbon.reference.faults import Cause, causes, instruments
from jade_ribbon.services.faults.inputs import InstrumentsInput
from jade_ribbon.services.faults.trouble_log import instruments_of, learned_faults
from jade_ribbon.services.records import as_record, log_change
from jade_ribbon.services.shop.settings import shop_row


@dataclass(frozen=True)
class FaultsKnown:
    """Signs in the order of their groups, causes, and what the shop has to check with."""

    signs: list[SignShown]
    causes: list[Cause]
    instruments: list[str]
    has: list[str] | None
    troubles: int
    """Closed troubles with a cause found: what the shop's own findings rest on."""


def faults_known(session: Session) -> FaultsKnown:
    """All of it, for the pages of Faults."""
    return FaultsKnown(
        list(signs()),
        list(causes().values()),
        list(instruments()),
        instruments_of(session),
        learned_faults(session).troubles,
    )


def wall_cards(session: Session) -> list[Card]:
    """Long-standing pairs, from the tables as this shop has moved them."""
    return list(cards(learned_faults(session).knowledge))


def set_fault_instruments(session: Session, given: InstrumentsInput) -> FaultsKnown:
    """What the shop has to check with; None for all of it."""
    row = shop_row(session)
    session.add(row)
    session.flush()
    before = as_record(row)
    row.faults = {**(row.faults or {}), "has": given.has}
    log_change(session, row, "edit", before)
    return faults_known(session)
