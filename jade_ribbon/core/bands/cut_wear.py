"""How much faster an edge wears in a cut that is too fast, or too slow to bite."""

from jade_ribbon.core.bands.facts import BandFacts
from jade_ribbon.core.bands.speed_choice import SpeedChoice
from jade_ribbon.core.job import Job
from jade_ribbon.core.mechanics.wear import (
    HOT_WEAR,
    METAL_OVERSPEED_EXPONENT,
    METAL_OVERSPEED_EXPONENT_HARD,
)


def metal_overspeed_wear(facts: BandFacts, job: Job, speed: SpeedChoice) -> float:
    """Wear factor of a metal cut over its target speed: (v/target)^7 carbon, 6, 3."""
    if not job.cut.material.is_metal or speed.speed_m_s <= speed.accepted.target_m_s:
        return 1.0
    exponent = METAL_OVERSPEED_EXPONENT.get(facts.steel.token, METAL_OVERSPEED_EXPONENT_HARD)
    return float((speed.speed_m_s / speed.accepted.target_m_s) ** exponent)


def wear_factor(facts: BandFacts, job: Job, speed: SpeedChoice, *, hot: bool) -> float:
    """Factor on an edge's metres: wood over its greatest speed, metal over its target, rubbing."""
    over = speed.wear_factor * metal_overspeed_wear(facts, job, speed)
    return over * (HOT_WEAR if hot else 1.0)
