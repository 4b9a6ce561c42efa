"""Tension: stress to force, stretch, travel, side push and note, and back."""

import math
from dataclasses import dataclass

from jade_ribbon.core.mechanics.geometry import body_behind, mass_per_length
from jade_ribbon.core.quantities.arrays import one_of, somewhere, sqrt
from jade_ribbon.core.quantities.constants import E_MPA, KGF_CM2_PER_MPA, PSI_PER_MPA
from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.formula_limits import within_limits

SIDE_PUSH_LINEAR_SHARE = 0.05
"""Side push is read as linear while it adds less than this share of the band's strain."""

THREE_WHEEL_WRAP_DEG = 120.0
"""Wrap on the tensioned wheel of a three-wheel saw with wheels of about one size."""


@dataclass(frozen=True)
class Tension:
    """One stress, in each form a shop can set or read it."""

    strand_force_N: float
    wheel_force_N: float
    strain: float
    gauge_stretch_um: float
    band_stretch_mm: float
    wheel_travel_mm: float
    stress_psi: float
    stress_kgf_cm2: float


@dataclass(frozen=True)
class SidePush:
    side_force_N: float


@dataclass(frozen=True)
class PluckFrequency:
    frequency_Hz: float


@dataclass(frozen=True)
class Stress:
    """What a reading of gauge, push, travel or note comes to."""

    stress_MPa: float


def wheel_force_per_strand(wheels: int) -> float:
    """Force on the tensioned wheel per unit of strand tension: 2 sin(wrap/2).

    Two wheels: wrap 180 degrees, factor 2. Three: wrap 120 degrees, factor 1.732.

    Source: statics: two strand forces at the angle of wrap.
    """
    wrap = 180.0 if wheels == 2 else THREE_WHEEL_WRAP_DEG
    return 2.0 * math.sin(math.radians(wrap) / 2.0)


@within_limits
def tension(
    *,
    stress_MPa: float,
    body_width_mm: float,
    thickness_mm: float,
    band_length_mm: float,
    gauge_length_mm: float,
) -> Tension:
    """Strand force T = stress x body area, and what it shows as on a two-wheel saw.

    Wheel force 2T (N), stretch of the gauge length (um), of the whole band and half of
    that as wheel travel from snug (mm), stress in psi and kgf/cm2. Source: Hooke's law.

    >>> round(tension(stress_MPa=117, body_width_mm=26.279, thickness_mm=1.07,
    ...     band_length_mm=1674, gauge_length_mm=127).wheel_force_N)
    6580
    """
    strand = stress_MPa * body_width_mm * thickness_mm
    strain = stress_MPa / E_MPA
    return Tension(
        strand_force_N=strand,
        wheel_force_N=2.0 * strand,
        strain=strain,
        gauge_stretch_um=strain * gauge_length_mm * 1000.0,
        band_stretch_mm=strain * band_length_mm,
        wheel_travel_mm=strain * band_length_mm / 2.0,
        stress_psi=stress_MPa * PSI_PER_MPA,
        stress_kgf_cm2=stress_MPa * KGF_CM2_PER_MPA,
    )


@within_limits
def stress_from_gauge(*, gauge_stretch_um: float, gauge_length_mm: float) -> Stress:
    """Stress (MPa) from the stretch (um) read over a gauge length (mm), whatever the width.

    Source: Strength of Materials, "Hooke's law".

    >>> round(stress_from_gauge(gauge_stretch_um=172.4, gauge_length_mm=50).stress_MPa, 3)
    710.288
    """
    return Stress(E_MPA * gauge_stretch_um / 1000.0 / gauge_length_mm)


@within_limits
def side_push(
    *,
    stress_MPa: float,
    body_width_mm: float,
    thickness_mm: float,
    span_mm: float,
    deflection_mm: float,
) -> SidePush:
    """Force (N) that pushes the middle of the free span aside by `deflection_mm`.

    String plus pinned strip: F = (4T/l + 48EI/l3) d. Guides off. Linear only while
    `side_push_extra_strain_share` stays under 5 %.

    Source: Strength of Materials, "Beams: central load", and the string under tension; docs/model
    "Side push".
    """
    strand = stress_MPa * body_width_mm * thickness_mm
    bending = E_MPA * body_width_mm * thickness_mm**3 / 12.0
    stiffness = 4.0 * strand / span_mm + 48.0 * bending / span_mm**3
    return SidePush(stiffness * deflection_mm)


def side_push_extra_strain_share(
    *, stress_MPa: float, span_mm: float, deflection_mm: float
) -> float:
    """Strain 2(d/l)2 that the push itself adds, as a share of the band's strain.

    Source: docs/model, "Side push".
    """
    return side_push_extra_MPa(span_mm=span_mm, deflection_mm=deflection_mm) / stress_MPa


def side_push_extra_MPa(*, span_mm: float, deflection_mm: float) -> float:
    """Stress (MPa) that the push itself adds to the band's: E x 2(d/l)2.

    Source: docs/model, "Side push".

    >>> round(side_push_extra_MPa(span_mm=1050.0, deflection_mm=10.0), 1)
    37.4
    """
    return E_MPA * 2.0 * (deflection_mm / span_mm) ** 2


def deflection_for_share(*, stress_MPa: float, span_mm: float, share: float) -> float:
    """Deflection (mm) at which a push adds this share of the band's stress: the inverse."""
    return float(span_mm * (share * stress_MPa / (2.0 * E_MPA)) ** 0.5)


@within_limits
def stress_from_side_push(
    *,
    side_force_N: float,
    body_width_mm: float,
    thickness_mm: float,
    span_mm: float,
    deflection_mm: float,
) -> Stress:
    """Stress (MPa) from the push that bends the middle aside: the inverse of `side_push`.

    Raises InputError for a push that the strip's own bending takes without any tension.

    Source: inverse of `side_push`.
    """
    bending = E_MPA * body_width_mm * thickness_mm**3 / 12.0
    own = 48.0 * bending / span_mm**3 * deflection_mm
    if somewhere(side_force_N <= own):
        raise refuse(
            "side_force_N",
            f"{one_of(side_force_N):g} N is no more than the strip's own bending takes; "
            f"accepted: more than {one_of(own):.4g} N",
            side_force_N,
        )
    strand = (side_force_N - own) / deflection_mm * span_mm / 4.0
    return Stress(strand / (body_width_mm * thickness_mm))


@within_limits
def stress_from_travel(*, wheel_travel_mm: float, band_length_mm: float, give: float) -> Stress:
    """Stress (MPa) from wheel travel since snug (mm) on a two-wheel saw.

    `give` is the share of the travel that tyres and frame take, found by calibrating on this
    saw: sigma = 2 E travel (1 - give) / L.

    Source: Strength of Materials, "Hooke's law"; docs/model "Wheel travel".
    """
    return Stress(2.0 * E_MPA * wheel_travel_mm * (1.0 - give) / band_length_mm)


def travel_give(*, wheel_travel_mm: float, band_length_mm: float, stress_MPa: float) -> float:
    """Share of a wheel's travel (mm) that was not stretch, at a stress measured otherwise.

    Source: inverse of `stress_from_travel`.
    """
    return 1.0 - stress_MPa * band_length_mm / (2.0 * E_MPA) / wheel_travel_mm


def _string_terms(
    width_mm: float, gullet_depth_mm: float, thickness_mm: float, span_mm: float
) -> tuple[float, float, float, float]:
    """Body area (m2), mass (kg/m), bending stiffness (N m2) and span (m) of the strip."""
    body = body_behind(width_mm, gullet_depth_mm)
    mass = mass_per_length(
        width_mm=width_mm, gullet_depth_mm=gullet_depth_mm, thickness_mm=thickness_mm
    )
    stiffness = E_MPA * body * thickness_mm**3 / 12.0 * 1e-6
    return body * thickness_mm * 1e-6, mass, stiffness, span_mm / 1000.0


@within_limits
def pluck_frequency(
    *,
    stress_MPa: float,
    width_mm: float,
    gullet_depth_mm: float,
    thickness_mm: float,
    span_mm: float,
) -> PluckFrequency:
    """Note (Hz) of the plucked free span: a stiff string with clamped ends.

    f = (sqrt(T/mu) + (2/l) sqrt(EI/mu)) / (2l). Source: docs/model, "Note of a plucked band".
    """
    area, mass, stiffness, span = _string_terms(width_mm, gullet_depth_mm, thickness_mm, span_mm)
    wave = sqrt(stress_MPa * 1e6 * area / mass)
    return PluckFrequency((wave + 2.0 / span * sqrt(stiffness / mass)) / (2.0 * span))


@within_limits
def stress_from_pluck(
    *,
    frequency_Hz: float,
    width_mm: float,
    gullet_depth_mm: float,
    thickness_mm: float,
    span_mm: float,
) -> Stress:
    """Stress (MPa) from the note of the free span: the exact inverse of `pluck_frequency`.

    Raises InputError for a note at or below the strip's own bending note.

    Source: inverse of `pluck_frequency`; The Physics of Musical Instruments, "Stiff strings".
    """
    area, mass, stiffness, span = _string_terms(width_mm, gullet_depth_mm, thickness_mm, span_mm)
    own = sqrt(stiffness / mass) / span**2
    if somewhere(frequency_Hz <= own):
        raise refuse(
            "frequency_Hz",
            f"{one_of(frequency_Hz):g} Hz is not above the strip's own bending note; "
            f"accepted: more than {one_of(own):.4g} Hz",
            frequency_Hz,
        )
    wave = 2.0 * span * (frequency_Hz - own)
    return Stress(wave**2 * mass / area * 1e-6)


def free_span_mm(*, band_length_mm: float, wheel_diameter_mm: float) -> float:
    """Free span between two equal wheels: the centre distance (L - pi D)/2, in mm.

    Source: geometry of an open belt on equal wheels.
    """
    return (band_length_mm - math.pi * wheel_diameter_mm) / 2.0
