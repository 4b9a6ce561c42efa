"""Sharpen, replace or leave: what a metre costs by how often a band is sharpened, and by whom."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from jade_ribbon.core.mechanics.wear import RESHARPEN_FACTOR
from jade_ribbon.core.quantities.formula_limits import within_limits

WayKey = Literal["in_house", "on_saw", "send_out", "never"]
WAY_NAMES: dict[WayKey, str] = {
    "in_house": "in house",
    "on_saw": "on the saw",
    "send_out": "sent out",
    "never": "never: a new one each time",
}
TOOTH_LOST_MM = 0.25
"""A sharpening takes so much off a tooth: face and gullet ground until the edge is whole."""
TOOTH_SHARE = 0.35
"""A tooth may lose so much of its depth before its gullet no longer holds the chip."""
BENDING_KEPT = 0.9
"""A band is bent no further than this share of its life before it is looked at for cracks."""


@dataclass(frozen=True)
class SharpenPlan:
    """Money per 1 000 m for a band sharpened 0, 1 … times, the best, and what it saves of never."""

    cost_per_1000_m: tuple[float, ...]
    best_times: int
    saving_share: float


@within_limits
def sharpen_plan(
    *,
    price_new: float,
    life_new_m: float,
    sharpen_cost: float,
    life_ratio: float,
    times_most: int,
) -> SharpenPlan:
    """Cost per 1 000 m over the times a band is sharpened, and the best times (first on a tie).

    1000 (price + n sharpening)/(life (1 + r + … + r^n)); price and sharpening each with the
    change-over they cause.

    Source: replacement economics, cost a metre over a cycle; docs/model "Sharpen or replace".

    >>> sharpen_plan(price_new=10, life_new_m=1000, sharpen_cost=2, life_ratio=1, times_most=1)
    SharpenPlan(cost_per_1000_m=(10.0, 6.0), best_times=1, saving_share=0.4)
    """
    costs, life, each = [], 0.0, 1.0
    for n in range(int(times_most) + 1):
        life, each = life + each, each * life_ratio
        costs.append(1000.0 * (price_new + n * sharpen_cost) / (life_new_m * life))
    best = costs.index(min(costs))
    saving = 1.0 - costs[best] / costs[0] if costs[0] > 0.0 else 0.0
    return SharpenPlan(tuple(costs), best, saving)


@dataclass(frozen=True)
class SharpenTerms:
    """What sharpening takes in this shop: minutes, money, days away."""

    in_house_min: float = 25.0
    in_house_money: float = 0.5
    on_saw_min: float = 20.0
    on_saw_money: float = 0.3
    out_money: float = 14.0
    out_days: float = 10.0
    handling_min: float = 5.0
    """Packing, listing and unpacking a band that is sent out."""


@dataclass(frozen=True)
class Bounds:
    """How often a band can be sharpened, and what stops it there."""

    times: int
    by: str


def most_times(
    *, usual: int, gullet_depth_mm: float, life_m: float, bending_per_m: float, is_grit: bool
) -> Bounds:
    """The least of what the steel repays, what the tooth's depth and the bending life allow.

    `bending_per_m` is the share of the bending life that an equivalent metre takes.

    Source: replacement economics, cost a metre over a cycle; docs/model "Sharpen or replace".
    """
    if is_grit:
        return Bounds(0, "a grit edge is not sharpened")
    by_steel = Bounds(usual, "what this steel repays")
    tooth = Bounds(
        int(TOOTH_SHARE * gullet_depth_mm / TOOTH_LOST_MM), "the depth of its teeth, ground away"
    )
    bent = Bounds(100, "its bending life")
    if bending_per_m > 0.0:
        lives = BENDING_KEPT / (bending_per_m * life_m)
        bent = Bounds(max(0, int(lives) - 1), bent.by)
    return min(by_steel, tooth, bent, key=lambda b: b.times)


def learned_ratio(lives: Sequence[tuple[float, int]]) -> tuple[float, int]:
    """Life after a sharpening over the life before it, and how many ended lives speak for it.

    From the median lives (m) by times sharpened, each with how many ended there; the table's
    ratio counts as two more. Geometric, weighted by the rarer of either side.

    >>> learned_ratio([(8000, 4), (4000, 4)])[1]
    4
    """
    total, weight, spoke = 2.0 * math.log(RESHARPEN_FACTOR), 2.0, 0
    for (before, n), (after, more) in pairwise(lives):
        known = min(n, more)
        total += known * math.log(after / before)
        weight += known
        spoke += known
    return min(math.exp(total / weight), 1.2), spoke


@dataclass(frozen=True)
class SharpenWay:
    """One way to go on with dull bands: money per 1 000 m over the times, hours, days away."""

    key: WayKey
    name: str
    each: float
    plan: SharpenPlan
    hours_per_1000_m: float
    days_away: float
    spares: int


CLOSE = 0.10
"""Costs within a tenth are too close to call."""


def least_of(found: Sequence[SharpenWay]) -> tuple[WayKey, ...]:
    """The ways of least cost a 1 000 m: one, or all that are too close to it to call."""
    costs = {w.key: w.plan.cost_per_1000_m[w.plan.best_times] for w in found}
    least = min(costs.values(), default=0.0)
    return tuple(key for key, cost in costs.items() if cost <= least * (1.0 + CLOSE))


def ways(
    *,
    price_new: float,
    life_new_m: float,
    life_ratio: float,
    times_most: int,
    terms: SharpenTerms,
    change_min: float,
    hour_rate: float,
    used_per_day_m: float,
) -> tuple[SharpenWay, ...]:
    """Every way side by side, the dearest part of each counted: work, postage, change-overs.

    `used_per_day_m` says how many bands of the type are away at once where they are sent out.
    """
    minute = hour_rate / 60.0
    worked: dict[WayKey, tuple[float, float, float]] = {
        "in_house": (terms.in_house_min, terms.in_house_money, 0.0),
        # On the saw the band is not changed, and the saw stands.
        "on_saw": (terms.on_saw_min - change_min, terms.on_saw_money, 0.0),
        "send_out": (terms.handling_min, terms.out_money, terms.out_days),
        "never": (0.0, 0.0, 0.0),
    }
    found = []
    for key, (minutes, money, days) in worked.items():
        each = max(0.0, money + (minutes + change_min) * minute)
        most = 0 if key == "never" else times_most
        plan = sharpen_plan(
            price_new=price_new + change_min * minute,
            life_new_m=life_new_m,
            sharpen_cost=each,
            life_ratio=life_ratio,
            times_most=most,
        )
        n = plan.best_times
        metres = life_new_m * sum(life_ratio**i for i in range(n + 1))
        hours = (n * max(0.0, minutes + change_min) + change_min) / 60.0
        away = days * used_per_day_m / (metres / (n + 1))
        found.append(
            SharpenWay(
                key,
                WAY_NAMES[key],
                each,
                plan,
                1000.0 * hours / metres,
                days,
                0 if days == 0.0 else max(1, math.ceil(away)),
            )
        )
    return tuple(found)
