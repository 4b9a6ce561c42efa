"""How straight a band cuts: the wood pushes the strand between the guides aside."""

from dataclasses import dataclass

from jade_ribbon.core.quantities.arrays import one_of, somewhere
from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.formula_limits import within_limits

SIDE_SHARE_SHARP = 0.06
SIDE_SHARE_DULL_GAIN = 0.10
"""Share of the feed force that pushes sideways: a sharp edge, and what dullness adds."""
SIDE_SHARE_SPREAD_LN = 0.6931471805599453
"""The share is known to a factor of two before a face of this shop was inspected."""
MENDING_FACTOR = 2.0
"""A worn tyre, or wheels out of plane, push twice as much aside until mended."""


@dataclass(frozen=True)
class Straightness:
    """Sideways force (N) and deflections (mm); the limit is None without a tolerance."""

    side_force_N: float
    mid_deflection_mm: float
    edge_deflection_mm: float
    barrel_mm: float
    feed_force_limit_N: float | None = None


def side_share(dullness: float) -> float:
    """Share of the feed force that pushes a band aside: 0.06 + 0.10 x dullness.

    Source: judgement, 1.6 times either way, moved by every face; docs/model "Straight enough".
    """
    return SIDE_SHARE_SHARP + SIDE_SHARE_DULL_GAIN * dullness


@within_limits
def straightness(
    *,
    stress_MPa: float,
    body_width_mm: float,
    thickness_mm: float,
    guide_span_mm: float,
    cut_height_mm: float,
    feed_force_N: float,
    side_share: float,
    tolerance_mm: float | None = None,
) -> Straightness:
    """How far the strand between the guides is pushed aside in the middle and at the cut's ends.

    A string under T = stress x body, a load q = share x feed force spread evenly over the cut H,
    centred in the span l: mid = q (l - H/2)/(4T), barrel = q H/(8T). The limit is the feed force
    whose mid deflection is half the tolerance. Raises InputError for a cut over the span.

    Source: Strings, "Uniform load on a taut string"; docs/model "Straight enough".

    >>> found = straightness(stress_MPa=147, body_width_mm=16, thickness_mm=0.81, guide_span_mm=311,
    ...     cut_height_mm=288, feed_force_N=214.7, side_share=0.111, tolerance_mm=0.3)
    >>> round(found.mid_deflection_mm, 4), round(found.feed_force_limit_N, 2)
    (0.5223, 61.66)
    """
    if somewhere(cut_height_mm > guide_span_mm):
        raise refuse(
            "cut_height_mm",
            f"{one_of(cut_height_mm):g} is over the guide span; "
            f"accepted: up to {one_of(guide_span_mm):g}",
            cut_height_mm,
        )
    strand = stress_MPa * body_width_mm * thickness_mm
    side = side_share * feed_force_N
    lever = guide_span_mm - cut_height_mm / 2.0
    mid = side * lever / (4.0 * strand)
    barrel = side * cut_height_mm / (8.0 * strand)
    limit = None
    if tolerance_mm is not None:
        limit = tolerance_mm / 2.0 * 4.0 * strand / (lever * side_share)
    return Straightness(side, mid, mid - barrel, barrel, limit)
