"""Go on with an edge or change it now: what either costs, and where it tips."""

from dataclasses import dataclass
from typing import Literal

from jade_ribbon.core.quantities.formula_limits import within_limits


@dataclass(frozen=True)
class ChangeNow:
    """Money of going on and of changing, the better, and the chance at which they are even."""

    go_on_cost: float
    change_cost: float
    better: Literal["go_on", "change"]
    even_at_chance: float | None


@within_limits
def change_now(
    *,
    chance_lasts: float,
    spoil_value: float,
    interruption_min: float,
    change_min: float,
    hour_rate: float,
    edge_value_left: float,
    salvage_share: float,
    slower_min: float,
) -> ChangeNow:
    """Going on costs time, and with the chance that the edge fails a spoilt piece and a change.

    fail = spoil + (change + interruption) m; going on = slower m + (1 - p) fail; changing =
    change m + what the edge was still worth and cannot be saved; m = hour/60. Even where they are
    the same, held to 0..1 (1: going on never pays; 0: it always does), none where failing is free.

    Source: age replacement, least expected cost to the next failure; docs/model "Lots".

    >>> found = change_now(chance_lasts=0.594, spoil_value=4.6, interruption_min=5, change_min=12,
    ...     hour_rate=30, edge_value_left=3.5, salvage_share=0, slower_min=4)
    >>> found.better, round(found.go_on_cost, 2), found.change_cost
    ('go_on', 7.32, 9.5)
    """
    minute = hour_rate / 60.0
    fail = spoil_value + (change_min + interruption_min) * minute
    go_on = slower_min * minute + (1.0 - chance_lasts) * fail
    change = change_min * minute + edge_value_left * (1.0 - salvage_share)
    even = None
    if fail > 0.0:
        even = min(1.0, max(0.0, 1.0 - (change - slower_min * minute) / fail))
    return ChangeNow(go_on, change, "go_on" if go_on <= change else "change", even)
