"""Speeds a drive can be set to, how far off each is, and correcting them by measurement."""

import dataclasses
import math
from dataclasses import dataclass

from jade_ribbon.core.job import Drive
from jade_ribbon.core.mechanics.speed import rim_speed
from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.formula_limits import within_limits
from jade_ribbon.core.quantities.words import Said, Sentence, between, join, quantity, sentence

FAR_SHARE = 0.15
"""No step nearer than this is 'no step near'."""
CORRECTION_LIMIT = 2.0
"""A measurement off by more than this factor is more likely misread."""


@dataclass(frozen=True)
class Setting:
    """One setting: its name, its speed, and how far off the target as a share."""

    name: str
    speed_m_s: float
    off_share: float
    chosen: bool


def settings(drive: Drive, *, target_m_s: float) -> tuple[Setting, ...]:
    """Every step of a fixed drive; of an inverter, its ends and the one that gives the target."""
    if drive.kind == "fixed":
        speeds = sorted(drive.speeds_m_s)
    else:
        held = min(max(target_m_s, drive.slowest_m_s), drive.fastest_m_s)
        speeds = sorted({drive.slowest_m_s, held, drive.fastest_m_s})
    nearest = min(speeds, key=lambda v: abs(math.log(v / target_m_s)))
    return tuple(
        Setting(drive.setting_words(v), v, v / target_m_s - 1.0, v == nearest) for v in speeds
    )


@dataclass(frozen=True)
class PulleyChange:
    """Pulleys that would bring the target, when no step is near."""

    needed: bool
    motor_pulley_mm: float
    wheel_pulley_mm: float
    words: Said


@within_limits
def pulley_change(
    drive: Drive, *, target_speed_m_s: float, motor_pulley_mm: float, wheel_pulley_mm: float
) -> PulleyChange:
    """Motor or wheel pulley (mm) that turns the nearest step into the target.

    Speed goes with the ratio of motor to wheel pulley: change the one that grows, since a
    small pulley slips. Belts, guards and the motor's load are for the maker's service.
    """
    speeds = drive.speeds_m_s or (drive.base_speed_m_s,)
    near = min(speeds, key=lambda v: abs(math.log(v / target_speed_m_s)))
    ratio = target_speed_m_s / near
    if abs(ratio - 1.0) <= FAR_SHARE:
        return PulleyChange(False, motor_pulley_mm, wheel_pulley_mm, "A step is near enough.")
    if ratio > 1.0:
        motor = motor_pulley_mm * ratio
        words = sentence(
            "A motor pulley of ",
            quantity(motor, "length"),
            " in place of ",
            quantity(motor_pulley_mm, "length"),
        )
        return PulleyChange(True, motor, wheel_pulley_mm, words)
    wheel = wheel_pulley_mm / ratio
    words = sentence(
        "A wheel pulley of ",
        quantity(wheel, "length"),
        " in place of ",
        quantity(wheel_pulley_mm, "length"),
    )
    return PulleyChange(True, motor_pulley_mm, wheel, words)


@within_limits
def speed_from_turns(*, turns: float, seconds: float, wheel_diameter_mm: float) -> float:
    """Band speed (m/s) from wheel turns counted against a clock.

    >>> round(speed_from_turns(turns=100, seconds=10, wheel_diameter_mm=400), 3)
    12.566
    """
    return rim_speed(wheel_diameter_mm=wheel_diameter_mm, wheel_rpm=60.0 * turns / seconds)


def counting_uncertainty(turns: float, seconds: float) -> float:
    """Relative uncertainty of counted turns: half a turn, and 0.2 s of a thumb on a watch."""
    return math.hypot(0.5 / turns, 0.2 / seconds)


TACHOMETER_SHARE = 0.005
"""Relative uncertainty of a tachometer held to a wheel."""


def speed_verdict(speed_m_s: float, *, nominal_m_s: float, share: float) -> Sentence:
    """Whether a measured speed speaks against the record, as surely as it was measured."""
    off = speed_m_s / nominal_m_s - 1.0
    said = quantity(speed_m_s, "speed")
    if abs(off) > share:
        return sentence(said, f", {100 * off:+.1f} % against the record: correct it.")
    return sentence(said, ": the record is right, as surely as this tells.")


def check_step(drive: Drive, nominal_m_s: float) -> None:
    """InputError for a speed that is no step of a fixed drive."""
    if drive.kind == "inverter" or any(abs(v - nominal_m_s) < 1e-6 for v in drive.speeds_m_s):
        return
    known = join(", ", (quantity(v, "speed") for v in drive.speeds_m_s))
    words = sentence(quantity(nominal_m_s, "speed"), " is no step of this saw; accepted: ", known)
    raise refuse("nominal_m_s", words, nominal_m_s)


def corrected(drive: Drive, *, nominal_m_s: float, measured_m_s: float) -> Drive:
    """The drive with one speed as measured: its own step, or an inverter's whole scale.

    Raises InputError when the measurement is off by more than a factor of two.
    """
    ratio = measured_m_s / nominal_m_s
    if not 1.0 / CORRECTION_LIMIT <= ratio <= CORRECTION_LIMIT:
        low, high = nominal_m_s / CORRECTION_LIMIT, nominal_m_s * CORRECTION_LIMIT
        raise refuse(
            "measured_m_s",
            sentence(
                quantity(measured_m_s, "speed"),
                " is far from the recorded ",
                quantity(nominal_m_s, "speed"),
                "; accepted: ",
                between(low, high, "speed"),
                ". Count again, or change the saw's record by hand",
            ),
            measured_m_s,
        )
    if drive.kind == "inverter":
        return dataclasses.replace(drive, base_speed_m_s=drive.base_speed_m_s * ratio)
    near = min(drive.speeds_m_s, key=lambda v: abs(v - nominal_m_s))
    steps = tuple(measured_m_s if v == near else v for v in drive.speeds_m_s)
    return dataclasses.replace(drive, speeds_m_s=steps)
