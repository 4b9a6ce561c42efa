"""How many bands of a type to keep: what runs out while new ones are on their way."""

import math
from dataclasses import dataclass
from typing import Literal

from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.formula_limits import within_limits

MOST = 100_000


@dataclass(frozen=True)
class SpareTerms:
    """How surely spares are wanted, and how long new bands take to come."""

    service: float = 0.9
    lead_weeks: float = 2.0


@dataclass(frozen=True)
class ReorderPoint:
    """Order when no more than this many are left; the chance of running out all the same."""

    mean_demand: float
    reorder_at: int
    chance_of_running_out: float


@within_limits
def reorder_point(
    *, used_up: float, weeks: float, lead_weeks: float, service: float
) -> ReorderPoint:
    """The least stock that outlasts the wait for new ones with the chance asked for.

    The rate a week ~ Gamma(used up + 1/2, weeks): demand in the wait is negative binomial with
    r = used up + 1/2 and p = weeks/(weeks + lead).

    Source: order-up-to stock with gamma-Poisson demand; docs/model "Spares".

    >>> reorder_point(used_up=0, weeks=52, lead_weeks=1, service=0.9).reorder_at
    0
    """
    r, p = used_up + 0.5, weeks / (weeks + lead_weeks)
    upto, k = 0.0, 0
    while True:
        log_pmf = math.lgamma(r + k) - math.lgamma(r) - math.lgamma(k + 1.0)
        upto += math.exp(log_pmf + r * math.log(p) + k * math.log1p(-p))
        if upto >= service:
            return ReorderPoint(r * lead_weeks / weeks, k, max(0.0, 1.0 - upto))
        k += 1
        if k > MOST:
            raise refuse("service", f"needs more than {MOST} bands; accepted: less of it", service)


LEAST_WEEKS = 8.0
"""A record shorter than this says little of how fast bands are used up."""

Verdict = Literal["order", "enough", "cannot_tell"]


@dataclass(frozen=True)
class StockLevel:
    """Whether a type is to be ordered now, and how many."""

    verdict: Verdict
    order: int


def stand(point: ReorderPoint, *, have: int, used_up: int, weeks: float) -> StockLevel:
    """Order once no more are left than the point; up to it and what the wait uses up besides.

    A type that nobody used up is not ordered; a short record cannot tell.

    >>> stand(ReorderPoint(0.6, 2, 0.05), have=1, used_up=6, weeks=40)
    StockLevel(verdict='order', order=3)
    """
    if weeks < LEAST_WEEKS:
        return StockLevel("cannot_tell", 0)
    if used_up == 0 or have > point.reorder_at:
        return StockLevel("enough", 0)
    return StockLevel("order", point.reorder_at + 1 - have + math.ceil(point.mean_demand))


def chance_short(*, used_up: float, weeks: float, lead_weeks: float, have: int) -> float:
    """Chance that what is on the rack is used up before new ones come, if ordered now.

    Source: order-up-to stock with gamma-Poisson demand; docs/model "Spares".

    >>> chance_short(used_up=0, weeks=52, lead_weeks=1, have=5) < 1e-6
    True
    """
    r, p = used_up + 0.5, weeks / (weeks + lead_weeks)
    upto = 0.0
    for k in range(have + 1):
        log_pmf = math.lgamma(r + k) - math.lgamma(r) - math.lgamma(k + 1.0)
        upto += math.exp(log_pmf + r * math.log(p) + k * math.log1p(-p))
    return max(0.0, 1.0 - upto)
