"""Band speed from wheels, pulleys, gears and inverter."""

import math
from dataclasses import dataclass

from jade_ribbon.core.quantities.constants import M_PER_FT
from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.formula_limits import within_limits


@dataclass(frozen=True)
class BandSpeed:
    speed_m_s: float
    speed_m_min: float
    speed_ft_min: float
    band_passes_per_s: float | None


@dataclass(frozen=True)
class DriveSpeed:
    wheel_rpm: float
    speed_m_s: float
    speed_m_min: float
    speed_ft_min: float


@dataclass(frozen=True)
class DriveHz:
    drive_hz: float


def rim_speed(*, wheel_diameter_mm: float, wheel_rpm: float) -> float:
    """Rim speed in m/s of a wheel (mm) at a rate (turns per minute).

    Source: kinematics: circumference times turns.
    """
    return math.pi * wheel_diameter_mm / 1000.0 * wheel_rpm / 60.0


@within_limits
def band_speed(
    *, wheel_diameter_mm: float, wheel_rpm: float, band_length_mm: float | None = None
) -> BandSpeed:
    """Band speed in m/s, m/min and ft/min; turns of the band per second when L is given.

    Source: as `rim_speed`.

    >>> round(band_speed(wheel_diameter_mm=551, wheel_rpm=703.4).speed_m_s, 4)
    20.2933
    """
    speed = rim_speed(wheel_diameter_mm=wheel_diameter_mm, wheel_rpm=wheel_rpm)
    passes = None if band_length_mm is None else speed * 1000.0 / band_length_mm
    return BandSpeed(speed, speed * 60.0, speed * 60.0 / M_PER_FT, passes)


@within_limits
def drive_speed(
    *,
    motor_rpm: float,
    motor_pulley_mm: float,
    wheel_pulley_mm: float,
    gear_ratio: float,
    wheel_diameter_mm: float,
    base_hz: float | None = None,
    drive_hz: float | None = None,
) -> DriveSpeed:
    """Wheel rate and band speed through motor, pulleys, gear and inverter.

    The inverter scales the motor's rate by drive_hz/base_hz; leave both out without one. With
    base_hz alone it runs at its base. Raises InputError for drive_hz without base_hz.

    Source: Machine Elements, "Belt drives: speed ratio"; an inverter scales the motor's rate by
    its frequency.
    """
    if base_hz is None and drive_hz is not None:
        raise refuse("base_hz", "is missing; drive_hz is a share of it", None)
    ratio = 1.0 if base_hz is None or drive_hz is None else drive_hz / base_hz
    rpm = motor_rpm * ratio * motor_pulley_mm / wheel_pulley_mm / gear_ratio
    speed = rim_speed(wheel_diameter_mm=wheel_diameter_mm, wheel_rpm=rpm)
    return DriveSpeed(rpm, speed, speed * 60.0, speed * 60.0 / M_PER_FT)


@within_limits
def drive_hz_for_speed(
    *,
    target_speed_m_s: float,
    motor_rpm: float,
    base_hz: float,
    motor_pulley_mm: float,
    wheel_pulley_mm: float,
    gear_ratio: float,
    wheel_diameter_mm: float,
) -> DriveHz:
    """Inverter frequency (Hz) that gives a band speed: the inverse of `drive_speed`.

    Source: inverse of `drive_speed`.
    """
    at_base = drive_speed(
        motor_rpm=motor_rpm,
        motor_pulley_mm=motor_pulley_mm,
        wheel_pulley_mm=wheel_pulley_mm,
        gear_ratio=gear_ratio,
        wheel_diameter_mm=wheel_diameter_mm,
    )
    return DriveHz(base_hz * target_speed_m_s / at_base.speed_m_s)
