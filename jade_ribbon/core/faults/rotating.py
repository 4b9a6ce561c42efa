"""A tick, a hum, a rumble: its rate against what turns."""

import math
from dataclasses import dataclass

from jade_ribbon.core.mechanics.speed import rim_speed
from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.words import Said, figure, join, quantity, sentence

CLOSE_SHARE = 0.08
"""A counted rate is known to about this."""


@dataclass(frozen=True)
class Turner:
    """Something that turns, its rate, and what to do about it."""

    key: str
    name: Said
    hertz: float
    remedy: str


@dataclass(frozen=True)
class TickVerdict:
    """Which turning part a tick belongs to."""

    rate_Hz: float
    turners: tuple[Turner, ...]
    key: str
    words: Said


WELD = (
    "the weld: isolate, turn by hand past the guides and feel both faces; dress it by stone or "
    "file, faces and teeth never while it moves"
)
WHEEL = "a wheel: look for chips or a joint on its tyre, and for play in its bearing"
BELT = "the belt: look for a lump or a lost tooth, and for a pulley loose on its key"


def _turns(speed_m_s: float, diameter_mm: float) -> float:
    """Turns a second of a wheel at a rim speed."""
    return speed_m_s / rim_speed(wheel_diameter_mm=diameter_mm, wheel_rpm=60.0)


def turners(
    *,
    speed_m_s: float,
    band_length_mm: float,
    wheel_diameters_mm: tuple[float, ...],
    belt_length_mm: float | None = None,
    pulley_mm: float | None = None,
) -> tuple[Turner, ...]:
    """Rates (Hz) of band, wheels and belt at a band speed (m/s)."""
    found = [Turner("weld", "the weld, once a band turn", speed_m_s * 1000 / band_length_mm, WELD)]
    for diameter in sorted(set(wheel_diameters_mm)):
        name = sentence("a wheel of ", quantity(diameter, "length"))
        found.append(Turner("wheel", name, _turns(speed_m_s, diameter), WHEEL))
    if belt_length_mm and pulley_mm:
        wheel = _turns(speed_m_s, wheel_diameters_mm[0])
        rate = wheel * math.pi * pulley_mm / belt_length_mm
        found.append(Turner("belt", "the belt, once a turn of it", rate, BELT))
    return tuple(found)


def name_tick(*, ticks: float, seconds: float, known: tuple[Turner, ...]) -> TickVerdict:
    """The part whose rate a counted tick has. Raises InputError for nothing counted."""
    if ticks <= 0 or seconds <= 0:
        raise refuse("ticks", "count at least one tick over more than 0 s", ticks)
    rate = ticks / seconds
    near = min(known, key=lambda t: abs(rate / t.hertz - 1.0))
    apart = abs(rate / near.hertz - 1.0)
    if apart > CLOSE_SHARE:
        listed = join(", ", (sentence(t.name, f" {figure(t.hertz, 3)}") for t in known))
        words = sentence(f"{figure(rate, 3)} a second is none of these: ", listed)
        return TickVerdict(rate, known, "", words + ". Count again over longer.")
    return TickVerdict(rate, known, near.key, f"{figure(rate, 3)} a second is {near.remedy}.")
