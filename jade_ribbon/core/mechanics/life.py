"""How long an edge lasts: Weibull lives with a gamma prior, and the odds of the next job."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.quantities.formula_limits import finite, within_limits

SHAPE = 2.5
"""Weibull shape of edge lives."""
PRIOR_WEIGHT = 2.0
"""The table's life counts as much as this many retired bands."""
LEAST_SD = 0.03


@dataclass(frozen=True)
class LifePosterior:
    """Mean is None where it does not exist (alpha <= 1/shape)."""

    alpha: float
    beta: float
    median_life_m: float
    mean_life_m: float | None


@dataclass(frozen=True)
class Survival:
    probability: float


def _check_lives(**groups: Sequence[float]) -> None:
    faults = [
        Fault(f"{name}.{i}", f"{v!r} is out of range; accepted: 0 to 1e+09", v)
        for name, values in groups.items()
        for i, v in enumerate(values)
        if isinstance(v, bool) or not isinstance(v, (int, float)) or not 0 <= v <= 1e9
    ]
    if faults:
        raise InputError(faults)


@within_limits
def life_posterior(
    *,
    prior_life_m: float,
    prior_weight: float,
    shape: float,
    retired_m: Sequence[float],
    running_m: Sequence[float],
) -> LifePosterior:
    """Life (equivalent metres) from this shop's retired and still running bands.

    With S Weibull of known shape k, S^k is exponential; the gamma prior on its rate is
    conjugate. Retired lives are events, running ones censored. Show the median.
    Source: docs/model, "Life".

    >>> round(life_posterior(prior_life_m=13143, prior_weight=2, shape=3, retired_m=[],
    ...     running_m=[6813]).median_life_m)
    14048
    """
    _check_lives(retired_m=retired_m, running_m=running_m)
    scale = prior_life_m / math.gamma(1.0 + 1.0 / shape)
    alpha = prior_weight + len(retired_m)
    beta = prior_weight * scale**shape + sum(s**shape for s in (*retired_m, *running_m))
    median = (beta * math.expm1(math.log(2.0) / alpha)) ** (1.0 / shape)
    finite(beta=beta, median_life_m=median)
    return LifePosterior(alpha, beta, median, _mean_life(alpha, beta, shape))


def _mean_life(alpha: float, beta: float, shape: float) -> float | None:
    if alpha <= 1.0 / shape:
        return None
    log_gammas = (
        math.lgamma(alpha - 1.0 / shape) + math.lgamma(1.0 + 1.0 / shape) - math.lgamma(alpha)
    )
    return float(beta ** (1.0 / shape) * math.exp(log_gammas))


@within_limits
def survival(*, alpha: float, beta: float, shape: float, used_m: float, next_m: float) -> Survival:
    """Chance that an edge which has run `used_m` also sees the next `next_m` through.

    ((beta + s^k) / (beta + (s + d)^k))^alpha. Take beta without this band's own metres.

    Source: docs/model, "Life"; Statistical Methods for Reliability Data, "Weibull with known
    shape".
    """
    ratio = (beta + used_m**shape) / (beta + (used_m + next_m) ** shape)
    return Survival(ratio**alpha)


def life_quantile(*, alpha: float, beta: float, shape: float, used_m: float, share: float) -> float:
    """Further metres that a share (0..1) of such edges still last, given `used_m` run.

    Source: docs/model, "Life".

    >>> round(life_quantile(alpha=2, beta=1e9, shape=2.5, used_m=0, share=1.0))
    0
    """
    now = beta + used_m**shape
    return float((now * share ** (-1.0 / alpha) - beta) ** (1.0 / shape) - used_m)


def life_scatter() -> float:
    """Coefficient of variation of lives: sqrt(G(1 + 2/k)/G(1 + 1/k)^2 - 1).

    Source: docs/model, "Life".

    >>> round(life_scatter(), 3)
    0.428
    """
    k = SHAPE
    return math.sqrt(math.gamma(1.0 + 2.0 / k) / math.gamma(1.0 + 1.0 / k) ** 2 - 1.0)


def metres_sd(dullness: float, *, retired: int) -> float:
    """Standard deviation of a dullness told by metres, with so many lives on record.

    One band's own scatter stays however much the shop knows.

    Source: moments of a Weibull life; docs/model "Life".
    """
    return max(LEAST_SD, dullness * life_scatter() * math.sqrt(1.0 + 1.0 / (1.0 + retired)))


def life_sd_ln(alpha: float) -> float:
    """Spread of the logarithm of a typical life, when so much speaks for it.

    A gamma rate of weight alpha spreads ln(rate) by sqrt(psi'(alpha)), a life by 1/shape of it.

    Source: trigamma of a gamma rate; docs/model "Life".

    >>> round(life_sd_ln(2.0), 2)
    0.32
    """
    far = alpha + 6.0
    tail = 1.0 / far + 1.0 / (2.0 * far**2) + 1.0 / (6.0 * far**3) - 1.0 / (30.0 * far**5)
    return math.sqrt(tail + sum(1.0 / (alpha + i) ** 2 for i in range(6))) / SHAPE
