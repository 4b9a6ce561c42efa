"""What each steel that could do a job costs a piece, with how sure the figure is."""

from dataclasses import dataclass

from jade_ribbon.core.choosing.choose import Choice, Ranked
from jade_ribbon.core.choosing.cost import Cost
from jade_ribbon.core.choosing.uncertainty.chances import CLOSE_CHANCE, Chances


@dataclass(frozen=True)
class SteelCost:
    """The cheapest band of a steel for this cut, and the spread of its cost a piece."""

    steel: str
    steel_name: str
    label: str
    cost: Cost
    total: float
    low: float
    high: float
    close: bool
    band_price: float
    """Of the whole band, welded to this saw's length."""


def steel_costs(choice: Choice, found: Chances | None) -> tuple[SteelCost, ...]:
    """The best band of each steel within the same width and pitch, cheapest first.

    `close` marks those that may as well be the cheapest: their spreads overlap by a tenth.
    """
    if found is None:
        return ()
    best: dict[str, int] = {}
    group = choice.ranked[: found.group]
    for place, ranked in enumerate(group):
        key = ranked.evaluation.facts.steel.key
        if key not in best or ranked.total < group[best[key]].total:
            best[key] = place
    ordered = sorted(best.values(), key=lambda place: group[place].total)
    return tuple(_line(group[place], found, place, ordered[0]) for place in ordered)


def _line(ranked: Ranked, found: Chances, place: int, first: int) -> SteelCost:
    """One steel, held against the first of them."""
    facts, cost = ranked.evaluation.facts, found.bands[place].cost
    cheaper = found.cheaper[place][first]
    return SteelCost(
        steel=facts.steel.key,
        steel_name=facts.steel.name,
        label=facts.band.label,
        cost=ranked.cost,
        total=ranked.total,
        low=min(cost.low, ranked.total),
        high=max(cost.high, ranked.total),
        band_price=facts.price,
        close=place != first and CLOSE_CHANCE < cheaper < 1.0 - CLOSE_CHANCE,
    )
