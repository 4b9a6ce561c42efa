"""What sawing cost."""

from sqlalchemy.orm import Session

from jade_ribbon.api.operations import operation
from jade_ribbon.services.money import all_round, ledger
from jade_ribbon.services.money.inputs import AllRoundInput, MoneyQuery, PaybackInput, RunsQuery


@operation("GET", "/api/money", answer=ledger.MoneyView, query=MoneyQuery)
def money_view(session: Session, query: MoneyQuery) -> ledger.MoneyView:
    """What sawing cost, by steel, type, material, saw, month or person."""
    return ledger.money_view(session, query)


@operation("GET", "/api/money/runs", answer=ledger.MoneyRuns, query=RunsQuery)
def money_runs(session: Session, query: RunsQuery) -> ledger.MoneyRuns:
    """The runs of one total."""
    return ledger.money_runs(session, query)


@operation("GET", "/api/money/rules", answer=list[all_round.RuleCost])
def rule_costs(session: Session) -> list[all_round.RuleCost]:
    """What each house rule costs over the open jobs."""
    return all_round.rule_costs(session)


@operation(
    "POST", "/api/money/all-round", answer=all_round.AllRoundAnswer, body=AllRoundInput, asks=True
)
def all_round_band(session: Session, body: AllRoundInput) -> all_round.AllRoundAnswer:
    """One band for a list of jobs, against changing for each, and the best pair."""
    return all_round.all_round_of(session, body)


@operation("POST", "/api/money/payback", answer=all_round.Payback, body=PaybackInput, asks=True)
def payback(session: Session, body: PaybackInput) -> all_round.Payback:
    """How soon an accessory pays for itself from the bands it saves."""
    return all_round.payback_of(session, body)
