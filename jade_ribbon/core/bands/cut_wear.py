"""How much faster an edge wears in a cut that is too fast, or too slow to bite."""

from typing import cast

from jade_ribbon.core.bands.facts import BandFacts
from jade_ribbon.core.bands.speed_choice import SpeedChoice
from jade_ribbon.core.job import Job
from jade_ribbon.core.mechanics.wear import (
    HOT_WEAR,
)
from jade_ribbon.core.quantities.arrays import most, where


def metal_overspeed_wear(facts: BandFacts, job: Job, speed: SpeedChoice) -> float:
    """Wear factor of a metal cut over its target speed: (v/target)^7 carbon, 6, 3."""
    if not job.cut.material.is_metal:
        return 1.0
    over = speed.speed_m_s / speed.accepted.target_m_s
    return cast(float, most(over, 1.0) ** facts.overspeed_exponent)


def wear_factor(facts: BandFacts, job: Job, speed: SpeedChoice, *, hot: bool) -> float:
    """Factor on an edge's metres: wood over its greatest speed, metal over its target, rubbing."""
    over = speed.wear_factor * metal_overspeed_wear(facts, job, speed)
    return over * where(hot, HOT_WEAR, 1.0)
