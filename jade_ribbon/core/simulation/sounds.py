"""The sound of a simulated saw: motor, teeth and air, and what a fault adds to them."""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Samples = NDArray[np.float64]

RATE_HZ = 16_000
SECONDS = 5.0
RING_HZ, RING_S = 1_800.0, 0.012
"""A knock rings out so."""
GAIN, PEAK = 2.5, 0.8


@dataclass(frozen=True)
class RunningSaw:
    """A saw as it runs: m/s, mm, rpm."""

    speed_m_s: float = 14.5
    band_length_mm: float = 4_000.0
    pitch_mm: float = 8.5
    wheel_mm: float = 400.0
    motor_rpm: float = 2_850.0
    seconds: float = SECONDS

    @property
    def times(self) -> Samples:
        return np.arange(round(self.seconds * RATE_HZ)) / RATE_HZ


def _tone(t: Samples, hertz: float | Samples, level: float) -> Samples:
    phase = 2.0 * math.pi * (hertz * t if isinstance(hertz, float) else np.cumsum(hertz) / RATE_HZ)
    return level * np.sin(phase)


def _knocks(saw: RunningSaw, at: Samples, level: float, random: np.random.Generator) -> Samples:
    """Short rings at so many moments."""
    sound = np.zeros(saw.times.size)
    ring_t = np.arange(round(6 * RING_S * RATE_HZ)) / RATE_HZ
    for moment in at:
        start = round(moment * RATE_HZ)
        ring = np.exp(-ring_t / RING_S) * np.sin(2 * math.pi * RING_HZ * ring_t)
        piece = sound[start : start + ring.size]
        piece += level * random.uniform(0.8, 1.2) * ring[: piece.size]
    return sound


def _noise(saw: RunningSaw, random: np.random.Generator) -> Samples:
    """The rush of band and air: less of it the higher."""
    white = random.standard_normal(saw.times.size)
    spectrum = np.fft.rfft(white)
    hertz = np.fft.rfftfreq(white.size, 1.0 / RATE_HZ)
    return np.fft.irfft(spectrum / np.sqrt(1.0 + (hertz / 400.0) ** 2), white.size)


def good(saw: RunningSaw, random: np.random.Generator) -> Samples:
    """A saw in order: a little of everything that turns."""
    t = saw.times
    tooth = 1000.0 * saw.speed_m_s / saw.pitch_mm
    sound = 0.12 * _noise(saw, random)
    sound += _tone(t, 100.0, 0.02) + _tone(t, saw.motor_rpm / 60.0, 0.02)
    sound += _tone(t, tooth, 0.01) + _tone(t, 2.0 * tooth, 0.005)
    return sound


def tick(saw: RunningSaw, random: np.random.Generator) -> Samples:
    """A weld that comes round."""
    every = saw.band_length_mm / (1000.0 * saw.speed_m_s)
    return good(saw, random) + _knocks(saw, np.arange(0.1, saw.seconds, every), 0.5, random)


def wheel_knock(saw: RunningSaw, random: np.random.Generator) -> Samples:
    """A tyre with a joint or a chip: once a turn of the wheel."""
    every = math.pi * saw.wheel_mm / (1000.0 * saw.speed_m_s)
    return good(saw, random) + _knocks(saw, np.arange(0.1, saw.seconds, every), 0.4, random)


def squeal(saw: RunningSaw, random: np.random.Generator) -> Samples:
    """A guide that rubs: a harsh high screech, never quite steady."""
    t = saw.times
    sway = 2_400.0 * (1.0 + 0.01 * np.sin(2 * math.pi * 6.0 * t))
    screech = np.tanh(3.0 * np.sin(2 * math.pi * np.cumsum(sway) / RATE_HZ))
    return good(saw, random) + 0.25 * screech * (1.0 + 0.3 * random.standard_normal(t.size))


def hum(saw: RunningSaw, random: np.random.Generator) -> Samples:
    """A motor that hums: mains, steady and low."""
    t = saw.times
    return good(saw, random) + _tone(t, 100.0, 0.3) + _tone(t, 200.0, 0.12)


def vibration(saw: RunningSaw, random: np.random.Generator) -> Samples:
    """A wheel out of balance: a rumble that swells once a turn."""
    t = saw.times
    turn = 1000.0 * saw.speed_m_s / (math.pi * saw.wheel_mm)
    swell = 1.0 + 0.9 * np.sin(2 * math.pi * turn * t)
    return good(saw, random) + 0.2 * swell * _noise(saw, random)


def chatter(saw: RunningSaw, random: np.random.Generator) -> Samples:
    """Stock that hops on the table: knocks without a beat."""
    moments = np.cumsum(random.exponential(0.12, 80))
    return good(saw, random) + _knocks(saw, moments[moments < saw.seconds - 0.1], 0.5, random)


def bogs(saw: RunningSaw, random: np.random.Generator) -> Samples:
    """A motor that is held: its note falls, and the teeth's with it."""
    t = saw.times
    falls = 1.0 - 0.45 * np.clip((t - 1.0) / 2.5, 0.0, 1.0)
    tooth = 1000.0 * saw.speed_m_s / saw.pitch_mm
    return (
        0.12 * _noise(saw, random)
        + _tone(t, 4.0 * saw.motor_rpm / 60.0 * falls, 0.25)
        + _tone(t, tooth * falls, 0.06)
    )


def slip(saw: RunningSaw, random: np.random.Generator) -> Samples:
    """A band that slips: the motor holds its note, the teeth slow."""
    t = saw.times
    falls = 1.0 - 0.6 * np.clip((t - 1.0) / 1.5, 0.0, 1.0)
    tooth = 1000.0 * saw.speed_m_s / saw.pitch_mm
    held = np.full(t.size, 4.0 * saw.motor_rpm / 60.0)
    return 0.12 * _noise(saw, random) + _tone(t, held, 0.2) + _tone(t, tooth * falls, 0.12)


MADE: Mapping[str, Callable[[RunningSaw, np.random.Generator], Samples]] = {
    "good": good,
    "tick": tick,
    "wheel_knock": wheel_knock,
    "squeal": squeal,
    "hum": hum,
    "vibration": vibration,
    "chatter": chatter,
    "motor_bogs": bogs,
    "slip": slip,
}
"""Sounds by the sign that they are of; `good` is a saw in order."""


def sound_of(key: str, saw: RunningSaw | None = None, seed: int = 1) -> Samples:
    """The sound of a sign, -1 to 1, at RATE_HZ; the same seed sounds the same. KeyError."""
    made = MADE[key](saw or RunningSaw(), np.random.default_rng(seed))
    return made * min(GAIN, PEAK / float(np.abs(made).max()))
