"""What a measured check asks for, what it is held against, and what it comes to."""

from collections.abc import Mapping
from dataclasses import dataclass

from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.quantities.words import Said, sentence
from jade_ribbon.reference.quantities import Kind

CANNOT = ""
"""No answer: the figures lie on the border between two."""


@dataclass(frozen=True)
class FigureAsked:
    """A figure that a measured check asks for, with the least and the most it can be (SI)."""

    key: str
    label: str
    kind: Kind
    low: float
    high: float


@dataclass(frozen=True)
class SawContext:
    """What is known of saw, band and job for measuring; None where it is not."""

    stress_target_MPa: float | None = None
    width_mm: float | None = None
    gullet_depth_mm: float | None = None
    thickness_mm: float | None = None
    free_span_mm: float | None = None
    band_length_mm: float | None = None
    pitch_mm: float | None = None
    wheel_diameters_mm: tuple[float, ...] = ()
    motor_rpm: float | None = None
    speed_m_s: float | None = None
    speed_target_m_s: float | None = None
    floor_m_min: float | None = None
    ceiling_m_min: float | None = None
    gullet_limit_m_min: float | None = None
    set_per_side_mm: float | None = None
    guard_gap_mm: float | None = None
    plane_limit_mm: float | None = None
    teeth_most: float | None = None
    plan_breaks: tuple[str, ...] | None = None
    """Keys of what Plan has against the band at this job."""
    window_shut_by: str = ""
    least_wheel_ratio: float | None = None
    bending_share: float | None = None
    """None where its runs are not on record."""
    complaint: str = ""
    """The sign that a check of the complaint is answered for."""
    complaint_mm: float | None = None
    """How much of it the last face had that was read before, mm."""


@dataclass(frozen=True)
class Measured:
    """Which answer the figures are ('' where nobody can tell), and in words."""

    outcome: str
    words: Said


Figures = Mapping[str, float]


def missing(what: str) -> InputError:
    return InputError([Fault("check", f"needs {what}: look and answer by hand", None)])


def unsure(words: Said) -> Measured:
    return Measured(CANNOT, sentence(words, " That is on the border: cannot tell."))
