"""A lot of cuts: how many bands it takes, in how many minutes, for how much money."""

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from jade_ribbon.core.mechanics.life import survival
from jade_ribbon.core.quantities.arrays import Array
from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.formula_limits import finite, within_limits

RATE_POINTS = 41
RATE_FALL = 12.0
RATE_REACH = 6.0
"""The unknown rate is weighed over so many powers of e down its sides, and standard deviations."""
RESIDUAL_POINTS = 12
LIVES_FAR = 24.0
"""Renewals are counted over so many mean lives, and by their limit beyond."""
STEPS_PER_LIFE = 120
METRES_LEAST = 1e-6


@dataclass(frozen=True)
class LotForecast:
    """Bands begun during a lot beside the one on the saw, and what the lot takes."""

    changes_mean: float
    chance_none: float
    chance_at_most_one: float
    chance_at_most_two: float
    minutes_mean: float
    money_mean: float


@dataclass(frozen=True)
class _Renewals:
    """Ends of unit lives by metres: chance of at least one and of two, and their mean number."""

    metres: Array
    one: Array
    two: Array
    mean: Array
    mean_life: float
    beyond: float

    def at(self, metres: Array, table: Array) -> Array:
        return np.interp(metres, self.metres, table)

    def mean_at(self, metres: Array) -> Array:
        """Mean number of ends; far out one a mean life, and what the spread of lives adds."""
        far = metres / self.mean_life + self.beyond
        return np.where(metres < self.metres[-1], self.at(metres, self.mean), far)


@lru_cache(maxsize=32)
def _renewals(shape: float) -> _Renewals:
    """Renewals of Weibull lives of unit scale: the renewal equation on a grid of metres."""
    mean_life, square = math.gamma(1.0 + 1.0 / shape), math.gamma(1.0 + 2.0 / shape)
    steps = np.arange(int(LIVES_FAR * STEPS_PER_LIFE) + 1, dtype=np.float64)
    metres = steps * (mean_life / STEPS_PER_LIFE)
    one = -np.expm1(-(metres**shape))
    shares = np.diff(one)
    two = np.append(0.0, np.convolve(shares, 0.5 * (one[:-1] + one[1:]))[: shares.size])
    mean = np.zeros_like(metres)
    middle = np.zeros_like(shares)
    for i in range(1, metres.size):
        known = one[i] + 0.5 * shares[0] * mean[i - 1]
        known += shares[1:i] @ middle[: i - 1][::-1]
        mean[i] = known / (1.0 - 0.5 * shares[0])
        middle[i - 1] = 0.5 * (mean[i - 1] + mean[i])
    beyond = square / (2.0 * mean_life**2) - 1.0
    return _Renewals(metres, one, two, mean, mean_life, beyond)


def _rates(alpha: float, beta: float) -> tuple[Array, Array]:
    """Rates (a metre to the shape) over their gamma distribution, and the weight of each."""
    wide = RATE_REACH / math.sqrt(alpha)
    log = np.linspace(-RATE_FALL / alpha - wide, wide, RATE_POINTS)
    weight = np.exp(alpha * (log - np.expm1(log)))
    return np.exp(log) * alpha / beta, weight / weight.sum()


@lru_cache(maxsize=1)
def _nodes() -> tuple[Array, Array]:
    """Gauss-Legendre nodes and weights over 0..1."""
    nodes, weights = np.polynomial.legendre.leggauss(RESIDUAL_POINTS)
    return 0.5 * (nodes + 1.0), 0.5 * weights


@within_limits
def lot_forecast(
    *,
    alpha: float,
    beta: float,
    shape: float,
    used_m: float,
    limit: float,
    metres_m: float,
    cutting_min: float,
    band_price: float,
    change_min: float,
    hour_rate: float,
) -> LotForecast:
    """Bands, minutes and money of a lot whose bands share one unknown rate of wear.

    Lives X: P(X > x) = exp(-r x^shape), r ~ Gamma(alpha, rate beta), without the band on the saw;
    a band serves limit x X metres. The one on the saw has served used_m and is still good, which
    raises beta by (used/limit)^shape. Given r, what is left of it and the renewals after it are
    integrated; bands begun are counted, the one on the saw is not.

    Source: Renewal Theory, "The renewal equation"; docs/model "Lots".

    >>> found = lot_forecast(alpha=7, beta=17632759200000.0, shape=3, used_m=85, limit=0.8,
    ...     metres_m=10430, cutting_min=283, band_price=38.79, change_min=8, hour_rate=40)
    >>> round(found.changes_mean, 2), round(found.chance_none, 2)
    (0.61, 0.43)
    """
    if alpha < METRES_LEAST or beta <= 0.0:
        raise refuse("alpha", f"{alpha:g} is out of range; accepted: more than 0", alpha)
    served = (used_m / limit) ** shape
    none = survival(
        alpha=alpha, beta=beta, shape=shape, used_m=used_m / limit, next_m=metres_m / limit
    ).probability
    rates, weights = _rates(alpha, beta + served)
    nodes, node_weights = _nodes()
    most = rates * (((used_m + metres_m) / limit) ** shape - served)
    chance = -np.expm1(-most)
    spent = -np.log1p(-nodes * chance[:, None]) / rates[:, None]
    first_m = limit * (served + spent) ** (1.0 / shape) - used_m
    left = np.maximum(metres_m - first_m, 0.0) * (rates ** (1.0 / shape) / limit)[:, None]
    each = weights[:, None] * chance[:, None] * node_weights
    renewals = _renewals(shape)
    changes = float(np.sum(each * (1.0 + renewals.mean_at(left))))
    one = none + float(np.sum(each * (1.0 - renewals.at(left, renewals.one))))
    two = none + float(np.sum(each * (1.0 - renewals.at(left, renewals.two))))
    minutes = cutting_min + changes * change_min
    money = minutes / 60.0 * hour_rate + changes * band_price
    finite(changes_mean=changes, money_mean=money)
    return LotForecast(changes, none, min(one, 1.0), min(two, 1.0), minutes, money)
