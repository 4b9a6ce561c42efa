"""How fast the same push feeds an edge, and how that slowed over its life."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import fmean

from jade_ribbon.core.edge.sharpness import Slowed
from jade_ribbon.reference.tables import Material

MOST_PAIRS = 3
"""So many first and last readings stand for an edge then and now."""


@dataclass(frozen=True)
class PushFact:
    """A feed (m/min) at one push; only those of one key are the same stock, height and speed."""

    key: str
    feed_m_min: float
    size_exponent_m: float
    dull_energy_gain: float
    feed_ratio_sharp: float
    feed_ratio_dull: float


def push_fact(key: str, feed_m_min: float, material: Material) -> PushFact:
    """A feed in a material."""
    return PushFact(
        key,
        feed_m_min,
        material.size_exponent_m,
        material.dull_energy_gain,
        material.feed_force_ratio_sharp,
        material.feed_force_ratio_dull,
    )


def slowed(readings: Sequence[tuple[float, PushFact]]) -> Slowed | None:
    """How the push grew from the first readings of a kind to its last; None without two.

    Each reading with the metres of the edge at it. The latest kind of cut that was made twice.
    """
    for _, latest in reversed(readings):
        alike = [(m, p) for m, p in readings if p.key == latest.key]
        if len(alike) < 2:
            continue
        pairs = min(MOST_PAIRS, len(alike) // 2)
        first, last = alike[:pairs], alike[-pairs:]
        fell = fmean(math.log(p.feed_m_min) for _, p in first) - fmean(
            math.log(p.feed_m_min) for _, p in last
        )
        return Slowed(
            growth=math.exp((1.0 - latest.size_exponent_m) * fell),
            from_m=fmean(m for m, _ in first),
            at_m=fmean(m for m, _ in last),
            pairs=pairs,
            dull_energy_gain=latest.dull_energy_gain,
            feed_ratio_sharp=latest.feed_ratio_sharp,
            feed_ratio_dull=latest.feed_ratio_dull,
        )
    return None
