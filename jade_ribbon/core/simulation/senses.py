"""What instruments would read on a simulated saw: the formulas, from its true state."""

import math
import random
from dataclasses import dataclass

from jade_ribbon.core.mechanics.speed import rim_speed
from jade_ribbon.core.mechanics.tension import (
    pluck_frequency,
    side_push,
    side_push_extra_MPa,
    tension,
)
from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.simulation.saw import SimulatedSaw


def gauge_stretch_um(saw: SimulatedSaw, *, gauge_length_mm: float) -> float:
    """Stretch (um) of a gauge length (mm) at the stress that is in the band."""
    band = saw.band
    return tension(
        stress_MPa=saw.state["stress_MPa"],
        body_width_mm=band.body_width_mm,
        thickness_mm=band.thickness_mm,
        band_length_mm=band.band_length_mm,
        gauge_length_mm=gauge_length_mm,
    ).gauge_stretch_um


def free_span(saw: SimulatedSaw) -> float:
    """The free span (mm). Raises InputError on three wheels, which have none of their own."""
    span = saw.band.free_span_mm
    if span is None:
        raise refuse("means", "needs one free span between two wheels; use the gauge", None)
    return span


def push_force_N(saw: SimulatedSaw, *, deflection_mm: float) -> float:
    """Push (N) that bends the middle of the free span aside so far (mm)."""
    span = free_span(saw)
    added = side_push_extra_MPa(span_mm=span, deflection_mm=deflection_mm)
    return side_push(
        stress_MPa=added + saw.state["stress_MPa"],
        body_width_mm=saw.band.body_width_mm,
        thickness_mm=saw.band.thickness_mm,
        span_mm=span,
        deflection_mm=deflection_mm,
    ).side_force_N


def note_Hz(saw: SimulatedSaw) -> float:
    """Note (Hz) of the plucked free span."""
    return pluck_frequency(
        stress_MPa=saw.state["stress_MPa"],
        width_mm=saw.band.width_mm,
        gullet_depth_mm=saw.band.gullet_depth_mm,
        thickness_mm=saw.band.thickness_mm,
        span_mm=free_span(saw),
    ).frequency_Hz


def wheel_rpm(saw: SimulatedSaw) -> float:
    """Turns of the lower wheel a minute at the band speed that is set."""
    per_rpm = rim_speed(wheel_diameter_mm=saw.wheel_diameter_mm, wheel_rpm=1.0)
    return saw.state["speed_m_s"] / per_rpm


def gap_mm(saw: SimulatedSaw, what: str) -> float:
    """A gap, height or spread (mm) as it stands."""
    return saw.state[what]


TRUE_SIDE_FACTOR = (0.7, 2.2)
"""A simulated saw's side share over the usual lies between these."""
TRUE_TAPER_MM = 0.25
TRUE_LEAN_MM = 0.15


@dataclass(frozen=True)
class SawnBoard:
    """A board that a simulated saw has cut, mm and N: alike, and each board a little else."""

    thickness_mm: float
    height_mm: float
    strand_force_N: float
    side_force_N: float
    saw: int = 0
    board: int = 0


def sawn_thickness_mm(board: SawnBoard, *, along: float, up: float) -> float:
    """Thickness (mm) at a place 0..1 along and -1..1 up: the push barrels it, the fence tapers it.

    Source: as `straightness`; the saw's own side share, fence and table are hidden in its number.
    """
    own = random.Random(f"saw {board.saw}")  # noqa: S311 - simulated
    each = random.Random(f"saw {board.saw} board {board.board}")  # noqa: S311 - simulated
    factor = own.uniform(*TRUE_SIDE_FACTOR) * math.exp(each.gauss(0.0, 0.15))
    taper = own.uniform(-TRUE_TAPER_MM, TRUE_TAPER_MM) + each.gauss(0.0, 0.04)
    lean = own.uniform(-TRUE_LEAN_MM, TRUE_LEAN_MM)
    barrel = 0.0
    if board.strand_force_N > 0.0:
        barrel = factor * board.side_force_N * board.height_mm / (8.0 * board.strand_force_N)
    return (
        board.thickness_mm
        + taper * (along - 0.5)
        + lean / 2.0 * up
        + barrel * (1.0 / 3.0 - up * up)
    )
