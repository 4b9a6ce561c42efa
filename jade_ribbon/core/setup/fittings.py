"""What is known of a saw for setting it up, beside what the choice of a band needs."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from types import MappingProxyType
from typing import Literal

Knob = Literal["unknown", "clockwise_back", "clockwise_forward"]
Fence = Literal["fence", "single_point", "none"]


@dataclass(frozen=True)
class PrintedScaleMark:
    """A mark printed on the saw's tension scale: for which width, at which reading."""

    width_mm: float
    reading: float


@dataclass(frozen=True)
class Fittings:
    """A saw's fence, tyre, knob, pulleys, manual's gaps and printed marks; None: not known."""

    fence: Fence = "fence"
    fence_bolt_spacing_mm: float | None = None
    tyre_width_mm: float | None = None
    knob: Knob = "unknown"
    tilt_bolt_oclock: int | None = None
    toe_bolt_oclock: int | None = None
    """Where the bolts that lean and toe a wheel stand, 1..12 seen from the doors."""
    manual_side_gap_mm: float | None = None
    manual_thrust_gap_mm: float | None = None
    manual_roller_press_mm: float | None = None
    """How far a mill's rollers press the band down, by its maker."""
    insert_width_mm: float | None = None
    """The band width that the guide inserts now in are for."""
    motor_pulley_mm: float | None = None
    wheel_pulley_mm: float | None = None
    belt_length_mm: float | None = None
    printed_marks: tuple[PrintedScaleMark, ...] = ()
    good_for_h: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))
    """Hours a step stays good on this saw, where it differs from the usual."""
