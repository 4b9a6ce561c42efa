"""How hard a material wears this shop's edges, from the lives that ended in it."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from jade_ribbon.core.mechanics.life import SHAPE

PRIOR_SD_LN = 0.7
LIFE_SD_LN = 1.28 / SHAPE
"""Spread of ln of one life: that of a Weibull of this shape."""
MEDIAN_TO_MEAN_LN = (math.log(math.log(2.0)) + 0.5772156649015329) / SHAPE
"""How far the mean of ln life lies under ln of its median."""
LEAST_LIVES = 2
MOSTLY = 0.8
"""A life speaks for the material that took so much of it."""


@dataclass(frozen=True)
class Abrasion:
    """Wear against the table's for a material: the factor, its spread in ln, from so many lives."""

    factor: float
    sd_ln: float
    lives: int

    @property
    def low(self) -> float:
        """One in ten is below."""
        return self.factor * math.exp(-1.2815516 * self.sd_ln)

    @property
    def high(self) -> float:
        return self.factor * math.exp(1.2815516 * self.sd_ln)


def learned_abrasion(lives: Sequence[tuple[float, float]]) -> Abrasion | None:
    """From lives as metres run by the table, each with the median that other materials give.

    ln of the factor is normal, 0 +- 0.7 beforehand; each life says ln(median/metres) with the
    spread of one life. None under two lives.

    Source: ours, docs/model "Wear by material".

    >>> learned_abrasion([(8000.0, 8000.0)]) is None
    True
    >>> learned_abrasion([(4000.0, 8000.0)] * 100).factor > 1.8
    True
    """
    if len(lives) < LEAST_LIVES:
        return None
    weight, told = PRIOR_SD_LN**-2, 0.0
    for metres, median in lives:
        said = math.log(median / max(metres, 1e-6)) - MEDIAN_TO_MEAN_LN
        weight += LIFE_SD_LN**-2
        told += said * LIFE_SD_LN**-2
    return Abrasion(math.exp(told / weight), weight**-0.5, len(lives))
