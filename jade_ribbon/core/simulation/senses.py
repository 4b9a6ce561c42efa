"""What instruments would read on a simulated saw: the formulas, from its true state."""

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
