"""Bending over the wheels and the fatigue life it leaves."""

from dataclasses import dataclass

from jade_ribbon.core.quantities.arrays import one_of, somewhere
from jade_ribbon.core.quantities.constants import E_MPA, RHO_KG_M3
from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.formula_limits import finite, within_limits


@dataclass(frozen=True)
class WheelBending:
    bending_stress_MPa: float
    peak_stress_MPa: float
    centrifugal_stress_MPa: float
    wheel_to_thickness_ratio: float


@dataclass(frozen=True)
class BendingFatigue:
    """Hours good to a factor of ten: label them so."""

    amplitude_MPa: float
    mean_MPa: float
    equivalent_amplitude_MPa: float
    cycles_to_failure: float
    cycles_per_s: float
    running_hours: float


def bending_stress(*, thickness_mm: float, wheel_diameter_mm: float) -> float:
    """Surface stress (MPa) of a strip bent round a wheel: E t / (D + t).

    Source: Strength of Materials, "Pure bending": strain = distance from the middle over radius;
    here t/2 over (D + t)/2.
    """
    return E_MPA * thickness_mm / (wheel_diameter_mm + thickness_mm)


@within_limits
def wheel_bending(
    *,
    thickness_mm: float,
    smallest_wheel_diameter_mm: float,
    tension_stress_MPa: float,
    speed_m_s: float,
) -> WheelBending:
    """Bending, peak and centrifugal stress (MPa) on the smallest wheel, and D/t.

    Source: Strength of Materials, "Pure bending", as `bending_stress`.

    >>> round(wheel_bending(thickness_mm=0.81, smallest_wheel_diameter_mm=912,
    ...     tension_stress_MPa=110, speed_m_s=30.7).peak_stress_MPa, 3)
    292.798
    """
    bend = bending_stress(thickness_mm=thickness_mm, wheel_diameter_mm=smallest_wheel_diameter_mm)
    return WheelBending(
        bending_stress_MPa=bend,
        peak_stress_MPa=bend + tension_stress_MPa,
        centrifugal_stress_MPa=RHO_KG_M3 * speed_m_s**2 * 1e-6,
        wheel_to_thickness_ratio=smallest_wheel_diameter_mm / thickness_mm,
    )


@within_limits
def bending_fatigue(
    *,
    tension_stress_MPa: float,
    thickness_mm: float,
    smallest_wheel_diameter_mm: float,
    wheels: int,
    band_length_mm: float,
    speed_m_s: float,
    ultimate_MPa: float,
    endurance_amplitude_MPa: float,
    basquin_k: float,
    notch_factor: float,
) -> BendingFatigue:
    """Running hours until bending cracks the band: Goodman mean stress, Basquin life.

    Amplitude half the bending stress, mean the tension plus that; N = 1e7 (se/sar)^k;
    each wheel bends each section once a turn. Raises InputError when mean >= ultimate.

    Source: Metal Fatigue in Engineering, "Stress-life approach": Goodman's line and Basquin's
    law.

    >>> round(bending_fatigue(tension_stress_MPa=142, thickness_mm=0.64,
    ...     smallest_wheel_diameter_mm=605, wheels=2, band_length_mm=2352, speed_m_s=20.9,
    ...     ultimate_MPa=1250, endurance_amplitude_MPa=235, basquin_k=10,
    ...     notch_factor=1.4).running_hours)
    1266
    """
    amplitude = (
        bending_stress(thickness_mm=thickness_mm, wheel_diameter_mm=smallest_wheel_diameter_mm) / 2
    )
    mean = tension_stress_MPa + amplitude
    if somewhere(mean >= ultimate_MPa):
        raise refuse(
            "tension_stress_MPa",
            f"{one_of(tension_stress_MPa):g} MPa brings the mean stress to {one_of(mean):.4g} MPa; "
            f"accepted: a mean under ultimate_MPa {one_of(ultimate_MPa):g}",
            tension_stress_MPa,
        )
    equivalent = notch_factor * amplitude / (1.0 - mean / ultimate_MPa)
    cycles = 1e7 * (endurance_amplitude_MPa / equivalent) ** basquin_k
    per_second = wheels * speed_m_s * 1000.0 / band_length_mm
    hours = cycles / per_second / 3600.0
    finite(running_hours=hours)
    return BendingFatigue(amplitude, mean, equivalent, cycles, per_second, hours)
