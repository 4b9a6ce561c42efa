"""How keen an edge is: metres over life, moved by what was seen at its last runs."""

import math
from collections.abc import Iterable, Mapping

from jade_ribbon.core.mechanics.life import metres_sd

PAST = 0.8
"""A sign speaks for an edge duller than this."""
SIGN_ODDS: Mapping[str, float] = {
    "burn": 4.0,
    "smoke": 6.0,
    "fuzz": 3.0,
    "hard_push": 3.0,
    "squeal": 2.0,
    "dusty": 2.0,
    "rough_face": 2.0,
    "torn_face": 4.0,
}
"""Seen at a run; dust at a feed that should cut chips; a face coarser than its teeth leave."""
NOTHING_SEEN = 0.8
LEFT_AFTER_SMOKE = 0.5
"""An edge that smoked through a cut loses half of what is left."""
DULL_SIGNS = frozenset(("torn_face", "burn", "smoke", "fuzz", "hard_push"))
"""Signs that speak of a dull edge at its sharpening."""


def odds_of(signs: Iterable[str]) -> float:
    """What the signs of one run do to the odds that the edge is past 0.8."""
    seen = [SIGN_ODDS[s] for s in signs if s in SIGN_ODDS]
    return math.prod(seen) if seen else NOTHING_SEEN


def with_signs(mean: float, *, sd: float, odds: float) -> float:
    """Mean dullness when the weight past 0.8 of a normal is multiplied by the odds.

    >>> with_signs(0.5, sd=0.2, odds=1.0)
    0.5
    """
    z = (PAST - mean) / sd
    density = math.exp(-0.5 * z * z) / math.sqrt(2.0 * math.pi)
    above = 0.5 * math.erfc(z / math.sqrt(2.0))
    below = 1.0 - above
    if odds == 1.0 or min(above, below) < 1e-12:
        return mean
    weight = odds * above / (below + odds * above)
    high, low = mean + sd * density / above, mean - sd * density / below
    return (1.0 - weight) * low + weight * high


def keenness(mean: float, *, retired: int, odds: float, left_factor: float) -> float:
    """Dullness (0 as new) by metres, less what smoking took, moved by the signs of late runs."""
    told = mean + max(0.0, 1.0 - mean) * (1.0 - left_factor)
    return max(0.0, with_signs(told, sd=metres_sd(told, retired=retired), odds=odds))
