"""What a band meets in a cut: the teeth that stand in it, the stress the frame reaches."""

from jade_ribbon.core.bands.facts import BandFacts
from jade_ribbon.core.job import Job


def teeth_in_cut(facts: BandFacts, job: Job) -> tuple[float, float]:
    """Mean and least teeth in the cut; a tube counts both walls."""
    height = job.cut.loaded_height_mm
    return height / facts.pitch_mm, height / facts.pitch_hi_mm


def reachable_stress(facts: BandFacts, job: Job) -> float | None:
    """Stress (MPa) the frame's greatest wheel force gives this band; None when unknown."""
    if job.saw.wheel_force_max_N is None:
        return None
    return job.saw.wheel_force_max_N / job.saw.force_per_strand / facts.body_area_mm2
