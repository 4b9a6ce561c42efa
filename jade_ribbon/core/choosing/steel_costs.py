"""What each steel that could do a job costs a piece, with how sure the figure is."""

from collections.abc import Sequence
from dataclasses import dataclass

from jade_ribbon.core.choosing.choose import Choice, Ranked
from jade_ribbon.core.choosing.cost import Cost
from jade_ribbon.core.choosing.spreads import wear_uncertainty
from jade_ribbon.reference.tables import Material


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


def spread(cost: Cost, factor: float) -> tuple[float, float]:
    """Cost a piece when the edge wears less or more than thought by a factor."""
    return cost.total - cost.edge + cost.edge / factor, cost.total + cost.edge * (factor - 1.0)


def steel_costs(choice: Choice, material: Material) -> tuple[SteelCost, ...]:
    """The best band of each steel within the same width and pitch, cheapest first.

    `close` marks those whose spread reaches the cheapest one's: within what is known, the
    choice between them could go either way.
    """
    first = choice.ranked[0].band_class if choice.ranked else 0
    group = [r for r in choice.ranked if r.band_class == first]
    near = [r for r in group if r.in_pitch] or group
    best: dict[str, Ranked] = {}
    for ranked in near:
        key = ranked.evaluation.facts.steel.key
        if key not in best or ranked.total < best[key].total:
            best[key] = ranked
    return _lines(sorted(best.values(), key=lambda r: r.total), wear_uncertainty(material))


def _lines(ordered: Sequence[Ranked], factor: float) -> tuple[SteelCost, ...]:
    lines = []
    reach = spread(ordered[0].run.cost, factor)[1] if ordered else 0.0
    for i, ranked in enumerate(ordered):
        low, high = spread(ranked.run.cost, factor)
        facts = ranked.evaluation.facts
        lines.append(
            SteelCost(
                steel=facts.steel.key,
                steel_name=facts.steel.name,
                label=facts.band.label,
                cost=ranked.run.cost,
                total=ranked.total,
                low=low,
                high=high,
                close=i > 0 and low <= reach,
            )
        )
    return tuple(lines)
