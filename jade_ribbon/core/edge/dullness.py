"""How dull an edge is by each kind of evidence, and by all of them together."""

import math
from dataclasses import dataclass

from jade_ribbon.core.mechanics.cutting import energy_factor, feed_ratio
from jade_ribbon.core.quantities.formula_limits import within_limits

BLUNTEST = 2.0
"""Duller than this, something else than wear slowed the feed."""


@dataclass(frozen=True)
class DullnessFromFeed:
    """Dullness (0 as new, 1 at its limit); None where wear alone cannot have slowed the feed so."""

    dullness: float | None


@dataclass(frozen=True)
class DullnessCombined:
    """Dullness with its standard deviation."""

    dullness: float
    sd: float


@within_limits
def dullness_from_feed(
    *,
    feed_keen_m_min: float,
    dullness_keen: float,
    feed_now_m_min: float,
    m: float,
    dull_energy_gain: float,
    feed_ratio_sharp: float,
    feed_ratio_dull: float,
) -> DullnessFromFeed:
    """Dullness that slows a feed (m/min) so at the same push, stock, height and speed.

    The push goes as f(d) x feed^(1 - m), f(d) = (1 + gain d)(sharp + (dull - sharp) d); solved
    for f(d) = f(d keen) (feed keen/feed now)^(1 - m). 0 where it would be under nothing, None
    over 2.

    Source: the cutting force law solved for dullness; docs/model "How dull".

    >>> round(dullness_from_feed(feed_keen_m_min=2.0, dullness_keen=0.0, feed_now_m_min=1.0, m=0.0,
    ...     dull_energy_gain=0.0, feed_ratio_sharp=0.5, feed_ratio_dull=1.0).dullness, 9)
    1.0
    """
    start = _blunting(dullness_keen, dull_energy_gain, feed_ratio_sharp, feed_ratio_dull)
    growth = (feed_keen_m_min / feed_now_m_min) ** (1.0 - m)
    return DullnessFromFeed(
        dullness_for(
            start * growth,
            dull_energy_gain=dull_energy_gain,
            feed_ratio_sharp=feed_ratio_sharp,
            feed_ratio_dull=feed_ratio_dull,
        )
    )


def _blunting(dullness: float, gain: float, sharp: float, dull: float) -> float:
    """How the push grows with dullness: energy times share of it that pushes."""
    return energy_factor(dullness=dullness, dull_energy_gain=gain) * feed_ratio(
        dullness=dullness, feed_ratio_sharp=sharp, feed_ratio_dull=dull
    )


def dullness_for(
    push: float, *, dull_energy_gain: float, feed_ratio_sharp: float, feed_ratio_dull: float
) -> float | None:
    """The dullness at which the push has grown to so much; 0 at least, None over 2.

    Source: the cutting force law solved for dullness; docs/model "How dull".
    """
    steeper = feed_ratio_dull - feed_ratio_sharp
    square = dull_energy_gain * steeper
    line = dull_energy_gain * feed_ratio_sharp + steeper
    short = push - feed_ratio_sharp
    if short <= 0.0:
        return 0.0
    if square == 0.0:
        found = short / line if line > 0.0 else math.inf
    else:
        root = line * line + 4.0 * square * short
        # The smaller root of a push that rises first; none where it never rises so far.
        found = math.inf if root < 0.0 else 2.0 * short / (line + math.sqrt(root))
    return found if 0.0 <= found <= BLUNTEST else None


@within_limits
def dullness_combined(
    *, from_metres: float, from_metres_sd: float, from_feed: float, from_feed_sd: float
) -> DullnessCombined:
    """Two tellings of one dullness together: weights 1/sd^2, and the precisions add.

    Source: inverse-variance weighting; docs/model "How dull".

    >>> found = dullness_combined(from_metres=0.2, from_metres_sd=0.1, from_feed=0.4,
    ...     from_feed_sd=0.1)
    >>> round(found.dullness, 9), round(found.sd, 4)
    (0.3, 0.0707)
    """
    here, there = from_metres_sd**-2, from_feed_sd**-2
    mean = (from_metres * here + from_feed * there) / (here + there)
    return DullnessCombined(mean, (here + there) ** -0.5)
