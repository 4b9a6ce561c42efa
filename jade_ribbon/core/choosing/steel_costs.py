"""What each steel that could do a job costs a piece, with how sure the figure is."""

from dataclasses import dataclass

from jade_ribbon.core.choosing.chances import CLOSE_CHANCE, BandSpread, Chances
from jade_ribbon.core.choosing.choose import Choice, Ranked
from jade_ribbon.core.choosing.cost import Cost


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


def steel_costs(choice: Choice, found: Chances | None) -> tuple[SteelCost, ...]:
    """The best band of each steel within the same width and pitch, cheapest first.

    `close` marks those that may as well be the cheapest: their spreads overlap by a tenth.
    """
    if found is None:
        return ()
    best: dict[str, tuple[Ranked, BandSpread]] = {}
    for ranked, spread in zip(choice.ranked[: found.group], found.bands, strict=False):
        key = ranked.evaluation.facts.steel.key
        if key not in best or ranked.total < best[key][0].total:
            best[key] = (ranked, spread)
    ordered = sorted(best.values(), key=lambda pair: pair[0].total)
    return tuple(_line(place, *pair) for place, pair in enumerate(ordered))


def _line(place: int, ranked: Ranked, spread: BandSpread) -> SteelCost:
    facts = ranked.evaluation.facts
    close = CLOSE_CHANCE < spread.chance_under_first < 1.0 - CLOSE_CHANCE
    return SteelCost(
        steel=facts.steel.key,
        steel_name=facts.steel.name,
        label=facts.band.label,
        cost=ranked.cost,
        total=ranked.total,
        low=min(spread.cost.low, ranked.total),
        high=max(spread.cost.high, ranked.total),
        close=place > 0 and close,
    )
