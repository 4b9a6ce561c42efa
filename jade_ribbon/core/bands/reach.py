"""What a band meets in a cut: the teeth that stand in it, the stress the frame reaches."""

from jade_ribbon.core.bands.facts import BandFacts
from jade_ribbon.core.job import Job, Saw
from jade_ribbon.core.mechanics.tension import free_span_mm
from jade_ribbon.core.quantities.arrays import most


def teeth_in_cut(facts: BandFacts, job: Job) -> tuple[float, float]:
    """Mean and least teeth in the cut; a tube counts both walls."""
    height = job.cut.teeth_height_mm
    return height / facts.pitch_mm, height / facts.pitch_hi_mm


def reachable_stress(facts: BandFacts, job: Job) -> float:
    """Stress (MPa) the frame's greatest wheel force gives this band, known or assumed."""
    return frame_force_N(job.saw) / job.saw.force_per_strand / facts.body_area_mm2


ASSUMED_FORCE_N, ASSUMED_WHEEL_MM, ASSUMED_EXPONENT = 1400.0, 356.0, 2.5
ASSUMED_FACTOR = 1.6
"""A frame of unknown force is taken for a light one of its size, good to this factor."""


METAL_SAW_MPA = 270.0
"""Wheel force over the section of the widest band such a saw takes: about 160 MPa in its body."""


def assumed_frame_force_N(smallest_wheel_mm: float) -> float:
    """Wheel force (N) a light frame of this wheel size holds: 1 400 N x (D/356 mm)^2.5.

    >>> round(assumed_frame_force_N(356))
    1400
    """
    return float(ASSUMED_FORCE_N * (smallest_wheel_mm / ASSUMED_WHEEL_MM) ** ASSUMED_EXPONENT)


def frame_force_N(saw: Saw) -> float:
    """The frame's greatest wheel force (N): the saw's own, or a light frame's of its size.

    A metal saw of unknown force is taken to hold the widest and thickest band it takes.
    """
    if saw.wheel_force_max_N is not None:
        return saw.wheel_force_max_N
    light = assumed_frame_force_N(saw.smallest_wheel_mm)
    if not saw.is_metal_saw:
        return light
    return max(light, METAL_SAW_MPA * saw.band_width_mm[1] * saw.band_thickness_max_mm)


def guessed_frame(saw: Saw) -> str:
    """What a frame of unknown force is taken for."""
    return "light frame" if saw.wheel_force_max_N is None else "frame usual for its kind"


def least_bite_mm(facts: BandFacts, job: Job) -> float:
    """Bite (mm) under which an edge only rubs."""
    return facts.least_bite_share * job.cut.material.bite_min_mm


def span_mm(facts: BandFacts, job: Job) -> float:
    """Span (mm) in which the band is held: between the guides, or free where there are none."""
    saw, height = job.saw, job.cut.standing_height_mm
    if saw.guides == "none" and saw.wheels == 2:
        mean = sum(saw.wheel_diameters_mm) / 2.0
        free = free_span_mm(band_length_mm=facts.length_mm, wheel_diameter_mm=mean)
        return most(free, saw.guide_span_mm(height, job.rules.guard_gap_mm))
    return saw.guide_span_mm(height, job.rules.guard_gap_mm)
