"""The sound of a running saw by what turns in it: levels of its orders, and what grew louder.

What turns slowly (band, wheels) is heard as a beat of the noise: in the spectrum of the sound's
envelope. What turns fast (teeth, motor, mains) is heard as a tone.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from jade_ribbon.core.faults.beats import beats_of
from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.quantities.words import figure

Samples = NDArray[np.float64]

LEAST_S = 3.0
"""A band turns two to five times a second: a line needs several turns."""
SILENT = 1e-4
NEAR_SHARE = 0.03
"""Speed and lengths are known to about this: a line is looked for so near to its order."""
BEAT_FROM_HZ = 200.0
"""The beat is that of the sound above this; below is rumble and mains."""
ENVELOPE_HZ, FINER = 200.0, 8
HEARD_DB = 8.0
"""A line so far over what is around it is heard; noise alone reaches it once in thousands."""
LOUDER_DB = 6.0
CLIPPED_SHARE, FULL_SHARE = 0.002, 0.995
"""More of the sound than this at its very top was cut off there."""
MOST_CLIPPED = 0.2
BROAD_HZ = tuple(100.0 * 2.0 ** (i / 2.0) for i in range(13))
"""Half octaves from 100 Hz to 6.4 kHz, in which new noise is looked for."""
WINDOW_S = 1.0


@dataclass(frozen=True)
class Turning:
    """What turns in a saw while it was recorded: m/s, mm, rpm; mains in Hz."""

    speed_m_s: float
    band_length_mm: float
    pitch_mm: float
    wheel_diameters_mm: tuple[float, ...]
    motor_rpm: float | None = None
    belt_length_mm: float | None = None
    pulley_mm: float | None = None
    mains_Hz: float = 50.0

    def rates(self) -> Mapping[str, float]:
        """Rates (Hz) of what turns, by name."""
        mm_s = 1000.0 * self.speed_m_s
        found = {"weld": mm_s / self.band_length_mm}
        for i, diameter in enumerate(self.wheel_diameters_mm, 1):
            rate = mm_s / (math.pi * diameter)
            if not any(k.startswith("wheel") and math.isclose(rate, v) for k, v in found.items()):
                found[f"wheel_{i}"] = rate
        if self.belt_length_mm and self.pulley_mm:
            wheel = mm_s / (math.pi * self.wheel_diameters_mm[0])
            found["belt"] = wheel * math.pi * self.pulley_mm / self.belt_length_mm
        if self.motor_rpm:
            found["motor"] = self.motor_rpm / 60.0
        found["tooth"] = mm_s / self.pitch_mm
        found["mains"] = 2.0 * self.mains_Hz
        return found


@dataclass(frozen=True)
class Order:
    """What turns, its rate (Hz) and how far its line stands over what is around it (dB)."""

    source: str
    frequency_Hz: float
    level_dB: float
    heard: bool


@dataclass(frozen=True)
class Sounded:
    """A running saw as heard: its orders, the noise by half octaves (dB), and doubts."""

    seconds: float
    orders: tuple[Order, ...]
    noise_dB: tuple[float, ...]
    clipped: bool
    not_apart: tuple[tuple[str, str], ...]
    """Things whose turning explains the beat nearly as well as each other."""


def _refuse(words: str) -> InputError:
    return InputError([Fault("recording", words)])


def _spectrum(sound: Samples, rate: float) -> tuple[Samples, float]:
    """Power at each frequency, and the step between them (Hz)."""
    shape = np.hanning(sound.size)
    power = np.square(np.abs(np.fft.rfft((sound - sound.mean()) * shape)))
    return power / float(np.square(shape).sum()), rate / sound.size


def _envelope(sound: Samples, rate: float) -> tuple[Samples, float]:
    """How loud the sound above 200 Hz is, moment by moment, and how often a second.

    Loudness is taken as its logarithm, so that one knock does not outshout the rest.
    """
    spectrum = np.fft.rfft(sound)
    hertz = np.fft.rfftfreq(sound.size, 1.0 / rate)
    spectrum[hertz < min(BEAT_FROM_HZ, rate / 8.0)] = 0.0
    high = np.fft.irfft(spectrum, sound.size)
    step = max(1, round(rate / ENVELOPE_HZ / FINER))
    power = np.square(high[: high.size // step * step]).reshape(-1, step).mean(axis=1)
    floor = float(power.mean()) * 1e-4 or SILENT**2
    loud = np.log(power + floor)
    # Averaged down: else a knock's own high harmonics fold back upon other orders.
    loud = loud[: loud.size // FINER * FINER].reshape(-1, FINER).mean(axis=1)
    return loud, rate / step / FINER


def _line(power: Samples, step: float, hertz: float) -> float:
    """How far (dB) the strongest point near a frequency stands over the middle of its surround.

    Of noise alone the strongest of n points stands about 10 lg(ln 2n/ln 2) over it: taken off.
    """
    half = max(NEAR_SHARE * hertz, 1.5 * step)
    low, high = (round((hertz + s * half) / step) for s in (-1, 1))
    low, high = max(low, 1), min(high, power.size - 1)
    if high <= low:
        return 0.0
    wide = max(6 * half, 25 * step)
    a, b = max(round((hertz - wide) / step), 1), min(round((hertz + wide) / step), power.size - 1)
    around = np.concatenate([power[a:low], power[high + 1 : b + 1]])
    if around.size < 4 or float(np.median(around)) <= 0.0:
        return 0.0
    top = float(power[low : high + 1].max()) / float(np.median(around))
    by_chance = math.log(2.0 * (high - low + 1)) / math.log(2.0)
    return 10.0 * math.log10(max(top, 1e-12) / max(by_chance, 1.0))


def _noise(sound: Samples, rate: float) -> tuple[float, ...]:
    """Noise by half octaves (dB): the middle over seconds, so that a voice does not count."""
    size = round(WINDOW_S * rate)
    starts = range(0, sound.size - size + 1, size // 2)
    each = [_spectrum(sound[s : s + size], rate)[0] for s in starts]
    power, step = np.median(np.array(each), axis=0), rate / size
    found = []
    for low, high in pairwise(BROAD_HZ):
        a, b = round(low / step), min(round(high / step), power.size)
        piece = power[a:b]
        level = float(np.median(piece)) if piece.size else 0.0
        found.append(10.0 * math.log10(level) if level > 0 else -200.0)
    return tuple(found)


def _is_beat(source: str) -> bool:
    """Band, wheels and belt are heard by their beat; teeth, motor and mains by their tone."""
    return source in ("weld", "belt") or source.startswith("wheel")


def hear(samples: Samples, rate_Hz: float, turning: Turning) -> Sounded:
    """Levels of what turns in the sound of a running saw (one channel, -1 to 1).

    InputError, saying what to do, for a recording that is short, silent, or cut off at its top.

    Source: Rotating Machinery Vibration, "Orders"; docs/model, "The ear".
    """
    seconds = samples.size / rate_Hz
    if seconds < LEAST_S:
        raise _refuse(f"lasts {seconds:.1f} s; accepted: {LEAST_S:g} s or more, five are best")
    if not np.isfinite(samples).all() or float(np.abs(samples).max()) < SILENT:
        raise _refuse("is silent; check that the microphone is on and near the saw")
    top = float(np.abs(samples).max())
    cut = float((np.abs(samples) >= FULL_SHARE * top).mean())
    if cut > MOST_CLIPPED:
        raise _refuse("is cut off at its loudest; hold the microphone further away")
    rates = turning.rates()
    tones, tone_step = _spectrum(samples, rate_Hz)
    loud, loud_rate = _envelope(samples, rate_Hz)
    beats, beat_step = _spectrum(loud, loud_rate)
    found = beats_of(beats, beat_step, {k: v for k, v in rates.items() if _is_beat(k)})
    orders = []
    for source, hertz in rates.items():
        if _is_beat(source):
            level = found.levels.get(source, 0.0)
            orders.append(Order(source, hertz, level, source in found.levels))
        else:
            level = _line(tones, tone_step, hertz)
            orders.append(Order(source, hertz, level, level >= HEARD_DB))
    return Sounded(
        seconds,
        tuple(orders),
        _noise(samples, rate_Hz),
        cut > CLIPPED_SHARE,
        found.not_apart,
    )


@dataclass(frozen=True)
class Louder:
    """An order against the last good run: by how many dB it rose."""

    source: str
    rise_dB: float


@dataclass(frozen=True)
class SoundChange:
    """What changed since the last good run: orders, new noise by its lowest Hz, and in words."""

    orders: tuple[Louder, ...]
    noise_from_Hz: tuple[float, ...]
    shift_dB: float
    """How much louder all of it was recorded, taken off: a microphone nearer by."""
    named: str
    words: str


def beat_of(now: Sounded, change: SoundChange | None) -> str:
    """Whose beat it is, as the check of a tick answers: none, band, wheel, fast, or '' unsure.

    Against a good run by what grew louder; without one, by what is heard of band and wheels.
    """
    if now.clipped:
        return ""
    named = change.named if change is not None else ""
    if change is None:
        slow = [o.source for o in now.orders if o.heard and _is_beat(o.source)]
        if len(slow) > 1 or any(s in pair for s in slow for pair in now.not_apart):
            return ""
        named = slow[0] if slow else ""
    elif not named and "Cannot tell" in change.words:
        return ""
    if not named:
        return "none"
    return "band" if named == "weld" else "wheel" if named.startswith("wheel") else "fast"


BEAT_SIGNS: Mapping[str, str] = {"band": "tick", "wheel": "vibration", "fast": "hum"}
"""The sign that a beat is told as, by whose it is."""


SOURCE_WORDS: Mapping[str, str] = {
    "weld": "the weld, once a turn of the band",
    "belt": "the belt, once a turn of it",
    "motor": "the motor",
    "tooth": "the teeth",
    "mains": "the mains hum of motor and drive",
}


def source_words(source: str) -> str:
    """What turns, in words.

    >>> source_words("wheel_1")
    'a wheel, once a turn of it'
    """
    return SOURCE_WORDS.get(source, "a wheel, once a turn of it")


def louder_than_good(now: Sounded, good: Sounded) -> SoundChange:
    """What grew louder since the last good run, at the same speed.

    A line is its height over its own surround, so that distance does not matter; noise is told
    only where a half octave rose more than the others did.
    """
    before = {o.source: o for o in good.orders}
    rises = [
        Louder(o.source, o.level_dB - max(before[o.source].level_dB, 0.0))
        for o in now.orders
        if o.source in before
    ]
    heard = {o.source for o in now.orders if o.heard}
    rises.sort(key=lambda r: -r.rise_dB)
    louder = [r for r in rises if r.rise_dB >= LOUDER_DB and r.source in heard]
    shifts = np.array(now.noise_dB) - np.array(good.noise_dB)
    shift = float(np.median(shifts))
    new = tuple(f for f, s in zip(BROAD_HZ[:-1], shifts, strict=True) if s - shift >= LOUDER_DB)
    named, words = _changed_words(now, louder, new)
    return SoundChange(tuple(rises), new, shift, named, words)


def _changed_words(
    now: Sounded, louder: Sequence[Louder], new: tuple[float, ...]
) -> tuple[str, str]:
    """Which place is named, and what is said of it."""
    tail = " The recording is cut off at its loudest: levels are not to be trusted." * now.clipped
    noise = f" New noise from {figure(new[0], 2)} Hz up." if new else ""
    if not louder:
        return "", f"Nothing that turns grew louder.{noise}{tail}"
    first = louder[0]
    rivals = [r for r in louder[1:] if first.rise_dB - r.rise_dB < LOUDER_DB / 2.0]
    blurred = [b for pair in now.not_apart if first.source in pair for b in pair]
    names = list(dict.fromkeys([first.source, *(r.source for r in rivals), *blurred]))
    if len(names) > 1:
        both = " and ".join(source_words(n) for n in names)
        return "", f"Cannot tell between {both}: each may have grown louder.{noise}{tail}"
    rise = figure(first.rise_dB, 2)
    words = f"Louder by {rise} dB: {source_words(first.source)}.{noise}{tail}"
    return ("" if now.clipped else first.source), words
