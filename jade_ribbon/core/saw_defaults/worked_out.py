"""What is worked out of what a small shop does know: speeds, lengths, thickness, force."""

from dataclasses import dataclass
from statistics import median

from jade_ribbon.core.bands.reach import ASSUMED_FACTOR, assumed_frame_force_N
from jade_ribbon.core.mechanics.geometry import loop_length
from jade_ribbon.core.mechanics.speed import drive_speed, rim_speed
from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.words import Said, quantity, sentence
from jade_ribbon.core.saw_defaults.kinds import EASE_MM
from jade_ribbon.reference.tables import catalogue

ALIKE_MM = 1.5
"""Band types within this of a width are of that width."""


@dataclass(frozen=True)
class Lengths:
    """Shortest and longest band (mm) that fit."""

    low: float
    high: float


@dataclass(frozen=True)
class WorkedOut:
    """Figures that follow, with how; one that nothing given leads to is None."""

    speed_m_s: float | None
    speed_words: Said
    length_mm: Lengths | None
    length_words: Said
    force_N: float
    force_words: Said


def usual_thickness_mm(width_mm: float, steel: str | None = None) -> float:
    """The thickness (mm) that bands of a width (mm) usually have, by the built-in types.

    The median of the types nearest in width, of that steel where there are any.

    >>> usual_thickness_mm(12.7)
    0.64
    """
    types = [t for t in catalogue() if t.steel == steel] or list(catalogue())
    nearest = min(abs(t.width_mm - width_mm) for t in types)
    near = [t.thickness_mm for t in types if abs(t.width_mm - width_mm) <= nearest + ALIKE_MM]
    return median(sorted(near))


def _speed(
    wheel_mm: float,
    wheel_rpm: float | None,
    motor_rpm: float | None,
    motor_pulley_mm: float | None,
    wheel_pulley_mm: float | None,
    gear_ratio: float,
) -> tuple[float | None, Said]:
    if wheel_rpm is not None:
        speed = rim_speed(wheel_diameter_mm=wheel_mm, wheel_rpm=wheel_rpm)
        return speed, sentence(
            "π × ", quantity(wheel_mm, "length"), f" × {wheel_rpm:g} turns a minute."
        )
    if motor_rpm is None or motor_pulley_mm is None or wheel_pulley_mm is None:
        return None, ""
    found = drive_speed(
        motor_rpm=motor_rpm,
        motor_pulley_mm=motor_pulley_mm,
        wheel_pulley_mm=wheel_pulley_mm,
        gear_ratio=gear_ratio,
        wheel_diameter_mm=wheel_mm,
    )
    return found.speed_m_s, sentence(
        f"The wheel turns {found.wheel_rpm:.0f} a minute: {motor_rpm:g} × ",
        quantity(motor_pulley_mm, "length"),
        " / ",
        quantity(wheel_pulley_mm, "length"),
        "." if gear_ratio == 1 else f" / {gear_ratio:g}.",
    )


def _length(
    wheels_mm: tuple[float, ...], centres_mm: float | None, string_mm: float | None
) -> tuple[Lengths | None, Said]:
    if string_mm is not None:
        length, how = string_mm, "The string is as long as the band that fits"
    elif centres_mm is not None:
        if len(wheels_mm) != 2:
            raise refuse(
                "centres_mm", "tells the length around two wheels only; lay a string around three"
            )
        length = loop_length(
            wheel_diameter_mm=wheels_mm[0], second_wheel_mm=wheels_mm[1], centres_mm=centres_mm
        ).length_mm
        how = "Two straight strands and half of each wheel"
    else:
        return None, ""
    fitting = Lengths(length - EASE_MM, length + EASE_MM)
    return fitting, sentence(
        f"{how}: ",
        quantity(length, "length"),
        ", and ",
        quantity(EASE_MM, "length"),
        " either way.",
    )


def worked_out(
    *,
    wheels_mm: tuple[float, ...],
    wheel_rpm: float | None = None,
    motor_rpm: float | None = None,
    motor_pulley_mm: float | None = None,
    wheel_pulley_mm: float | None = None,
    gear_ratio: float = 1.0,
    centres_mm: float | None = None,
    string_mm: float | None = None,
) -> WorkedOut:
    """What a saw's known figures give: band speed (m/s), lengths (mm), the frame's force (N).

    The first wheel drives. Raises InputError for centres of three wheels, or of wheels that would
    overlap. Source: `rim_speed`, `drive_speed`, `loop_length`, `assumed_frame_force_N`.
    """
    speed, speed_words = _speed(
        wheels_mm[0], wheel_rpm, motor_rpm, motor_pulley_mm, wheel_pulley_mm, gear_ratio
    )
    length, length_words = _length(wheels_mm, centres_mm, string_mm)
    force = assumed_frame_force_N(min(wheels_mm))
    return WorkedOut(
        speed_m_s=speed,
        speed_words=speed_words,
        length_mm=length,
        length_words=length_words,
        force_N=force,
        force_words=sentence(
            "A light frame with wheels of this size holds about ",
            quantity(force, "force"),
            f", good to a factor of {ASSUMED_FACTOR:g}. Left unknown, this is reckoned with.",
        ),
    )
