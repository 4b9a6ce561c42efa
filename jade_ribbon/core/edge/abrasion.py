"""How hard a material wears this shop's edges, from the lives that ended in it."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import fmean

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


Lives = Sequence[tuple[float, float]]
"""Lives that ended dull: metres by the table, and the table's median life of such an edge."""


def _against_the_table(lives: Lives) -> float:
    """ln of how much longer than the table's median such lives are, on the average."""
    return fmean(math.log(max(m, 1e-6) / usual) for m, usual in lives) + MEDIAN_TO_MEAN_LN


def learned_abrasion(inside: Lives, others: Lives) -> Abrasion | None:
    """How hard a material wears, from lives that ended in it against those that ended elsewhere.

    What all have in common is the shop's and its steels': it is 0 +- 0.7 in ln beforehand, as the
    factor is. Each life tells with the spread of one life. None under two lives inside.

    Source: Archard's wear law; lognormal evidence of lives; docs/model "Wear by material".

    >>> learned_abrasion([(8000.0, 8000.0)], []) is None
    True
    >>> learned_abrasion([(4000.0, 8000.0)] * 100, [(8000.0, 8000.0)] * 100).factor > 1.9
    True
    """
    if len(inside) < LEAST_LIVES:
        return None
    known = PRIOR_SD_LN**-2 + len(others) / LIFE_SD_LN**2
    level = 0.0
    if others:
        level = _against_the_table(others) * (len(others) / LIFE_SD_LN**2) / known
    said = level - _against_the_table(inside)
    doubt = LIFE_SD_LN**2 / len(inside) + 1.0 / known
    weight = PRIOR_SD_LN**-2 + 1.0 / doubt
    return Abrasion(math.exp(said / doubt / weight), weight**-0.5, len(inside))
