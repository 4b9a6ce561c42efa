"""How much faster an edge wears in a cut that is too fast, or too slow to bite."""

from typing import cast

from jade_ribbon.core.bands.facts import BandFacts
from jade_ribbon.core.bands.speed_choice import SpeedChoice
from jade_ribbon.core.job import Job
from jade_ribbon.core.mechanics.feed import slow_wear
from jade_ribbon.core.mechanics.wear import HOT_WEAR
from jade_ribbon.core.quantities.arrays import most, where
from jade_ribbon.reference.care import accessories


def metal_overspeed_wear(facts: BandFacts, job: Job, speed: SpeedChoice) -> float:
    """Wear factor of a metal cut over its target speed: (v/target)^7 carbon, 6, 3."""
    if not job.cut.material.is_metal:
        return 1.0
    over = speed.speed_m_s / speed.accepted.target_m_s
    return cast(float, most(over, 1.0) ** facts.overspeed_exponent)


FOR_LOGS = ("debarker", "log_washer")
"""What spares the edge only where bark is sawn through."""


def down_wear(job: Job) -> float:
    """Factor of wear in wood for what should spare the edge and does not work."""
    if not job.cut.material.is_wood:
        return 1.0
    factor = 1.0
    for key in job.saw.down:
        if key not in FOR_LOGS or job.cut.operation == "mill":
            factor *= accessories()[key].down_wear
    return factor


SHAKEN_WEAR = 2.0
"""Hard tips chip on a saw that vibrates: our judgement, known to a factor of two."""


def shaken_wear(facts: BandFacts, job: Job) -> float:
    """Factor of wear of brittle tips where an open trouble of the saw says that it vibrates."""
    return where(facts.hard_tips, SHAKEN_WEAR, 1.0) if job.saw.shakes else 1.0


def wear_factor(
    facts: BandFacts, job: Job, speed: SpeedChoice, *, feed_m_min: float, floor_m_min: float
) -> float:
    """Factor on an edge's metres: wood over its greatest speed, metal over its target, rubbing."""
    over = speed.wear_factor * metal_overspeed_wear(facts, job, speed)
    slow = slow_wear(feed_m_min=feed_m_min, floor_m_min=floor_m_min, hot_wear=HOT_WEAR)
    return over * down_wear(job) * shaken_wear(facts, job) * slow
