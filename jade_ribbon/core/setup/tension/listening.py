"""The note of a plucked band out of a recording: onset, spectrum, fundamental.

A pluck rises at once and dies away; hum, fans and hiss do neither. What rings just after
the onset, less what is still there later (or was there before), is the band. Its partials
stand close to whole multiples of one note; the note that explains most of them is heard.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.setup.tension.note_names import note_name

Samples = NDArray[np.float64]

LOWEST_HZ, HIGHEST_HZ = 12.0, 600.0
"""Notes of band saw spans."""
BAND_HZ = 2500.0
"""Partials above this say nothing of a span's note."""
PARTIALS = 10
TOLERANCE = 0.012
"""How far a partial of a stiff, guided strip may stand from its whole multiple."""
LEAST_CONFIDENCE = 0.3
LEAST_RISE = 1.15
"""Power just after the pluck over what stays: under this there is none in it."""
FRAME_S = 0.01
SETTLE_S = 0.015
"""The knock of the finger itself, left out."""
WINDOW_S = 0.6
LEAST_S = 0.15
STEP_HZ = 0.1
ODD_SHARE = 0.05
"""Share of the energy that partials between those of twice the note must hold, else it is that."""
MOST_SHARP = 0.01
"""Most that a strip's stiffness sharpens a partial, per square of its number."""
ASTRAY, LEAST_PARTIALS = 0.005, 3
"""A partial further off the others' line is left out, as long as so many remain."""
QUIETEST = 1e-4
"""Under this, of 1 at full scale, there is nothing to hear but the recorder itself."""
SPECTRUM_POINTS = 240
SPECTRUM_HZ = 600.0


@dataclass(frozen=True)
class Heard:
    """A note, how much of the sound it explains, and the spectrum it was found in."""

    frequency_Hz: float
    confidence: float
    note: str
    partials_Hz: tuple[float, ...]
    spectrum_Hz: tuple[float, ...]
    spectrum: tuple[float, ...]
    """Level from 0 to 1 at each `spectrum_Hz`, square root of power."""
    onset_s: float
    length_s: float


def _refuse(words: str) -> InputError:
    return InputError([Fault("recording", words)])


def _one_channel(samples: Samples) -> Samples:
    """The strongest mix of the channels: one in antiphase does not cancel the other."""
    if samples.ndim == 1 or samples.shape[1] == 1:
        return samples.reshape(-1)
    centred = samples - samples.mean(axis=0)
    _, vectors = np.linalg.eigh(centred.T @ centred)
    mixed: Samples = centred @ vectors[:, -1]
    return mixed


def _band_limited(mono: Samples, rate: float) -> Samples:
    """The recording between the lowest note and the highest useful partial."""
    spectrum = np.fft.rfft(mono - mono.mean())
    hertz = np.fft.rfftfreq(mono.size, 1.0 / rate)
    spectrum[(hertz < LOWEST_HZ / 2) | (hertz > BAND_HZ)] = 0.0
    return np.fft.irfft(spectrum, mono.size)


def _onset(sound: Samples, rate: float) -> int:
    """Sample at which the sound rises most; 0 when it rings from the start."""
    frame = max(1, round(FRAME_S * rate))
    power = np.square(sound[: sound.size // frame * frame]).reshape(-1, frame).mean(axis=1)
    around = max(2, round(0.08 / FRAME_S))
    if power.size < 3 * around:
        return 0
    total = np.concatenate(([0.0], np.cumsum(power)))
    at = np.arange(around, power.size - around)
    after = (total[at + around] - total[at]) / around
    before = (total[at] - total[at - around]) / around
    best = int(np.argmax(after - before))
    start, rise = int(at[best]), float(after[best] - before[best])
    first = float(power[:around].mean())
    if first > after[best] or rise < 0.2 * first:
        return 0
    return start * frame


def _power(window: Samples, rate: float, size: int) -> Samples:
    """Power spectrum of a windowed stretch, zero-padded to a common grid."""
    shape = np.hanning(window.size)
    return np.square(np.abs(np.fft.rfft(window * shape, size))) / float(np.square(shape).sum())


@dataclass(frozen=True)
class _Ringing:
    """What rises and dies away, on a grid of frequencies; and how much it rose."""

    power: Samples
    step_Hz: float
    rise: float


def _ringing(sound: Samples, rate: float, onset: int) -> _Ringing:
    """The spectrum just after the onset less that of what stays."""
    start = onset + round(SETTLE_S * rate)
    length = min(round(WINDOW_S * rate), (sound.size - start) // 2)
    if length < LEAST_S * rate:
        raise _refuse("is too short after the pluck; leave at least half a second of ringing in it")
    size = max(length, round(rate / STEP_HZ))
    early = sound[start : start + length]
    stays = [sound[-length:]]
    if onset - round(0.02 * rate) >= length:
        before = onset - round(0.02 * rate)
        stays.append(sound[before - length : before])
    quietest = min(stays, key=lambda s: float(np.square(s).mean()))
    after, rest = float(np.square(early).mean()), float(np.square(quietest).mean())
    power = np.maximum(_power(early, rate, size) - _power(quietest, rate, size), 0.0)
    step = rate / size
    power[: int(LOWEST_HZ / 2 / step)] = 0.0
    power[int(BAND_HZ / step) + 1 :] = 0.0
    return _Ringing(power, step, after / rest if rest > 0 else np.inf)


def _slots(note: float, ringing: _Ringing) -> list[tuple[int, int]]:
    """Bins of each partial of a note, half a line's width at the least, never overlapping."""
    line = 1.0 / WINDOW_S
    found = []
    for n in range(1, PARTIALS + 1):
        middle = n * note
        if middle > BAND_HZ:
            break
        half = min(max(TOLERANCE * middle, line), note * 0.45)
        low, high = (round((middle + s * half) / ringing.step_Hz) for s in (-1, 1))
        found.append((low, high + 1))
    return found


def _explained(note: float, ringing: _Ringing, summed: Samples) -> float:
    """Share of the ringing that a note's partials hold, less what chance would give them."""
    total = float(summed[-1])
    held, bins = 0.0, 0
    for low, high in _slots(note, ringing):
        low, high = min(low, summed.size - 1), min(high, summed.size - 1)
        held += float(summed[high] - summed[low])
        bins += high - low
    chance = bins * ringing.step_Hz / BAND_HZ
    return (held / total - chance) / (1.0 - chance) if chance < 1.0 else 0.0


def _slot_energies(note: float, ringing: _Ringing, summed: Samples) -> list[float]:
    top = summed.size - 1
    return [float(summed[min(h, top)] - summed[min(low, top)]) for low, h in _slots(note, ringing)]


def _raised(note: float, ringing: _Ringing, summed: Samples) -> float:
    """The note, or the multiple of it whose partials are the only ones that sound."""
    for times in (2, 3):
        if note * times > HIGHEST_HZ:
            continue
        energies = _slot_energies(note, ringing, summed)
        between = sum(e for n, e in enumerate(energies, 1) if n % times)
        if between < ODD_SHARE * sum(energies):
            return _raised(note * times, ringing, summed)
    return note


def _peak(ringing: _Ringing, low: int, high: int) -> tuple[float, float]:
    """Frequency (Hz) and power of the highest point in a slot, between its bins."""
    piece = ringing.power[low:high]
    top = low + int(np.argmax(piece))
    y = ringing.power[top - 1 : top + 2]
    bend = float(y[0] - 2 * y[1] + y[2])
    shift = 0.5 * float(y[0] - y[2]) / bend if bend < 0 else 0.0
    return (top + shift) * ringing.step_Hz, float(ringing.power[top])


@dataclass(frozen=True)
class _Line:
    """Partials over their number on a line in n2: f_n / n = base + slope n2 (Hz)."""

    numbers: Samples
    ratios: Samples
    weights: Samples

    @cached_property
    def fit(self) -> tuple[float, float]:
        """Base and slope; no slope where it is none that a strip could have."""
        if self.numbers.size >= 3:
            slope, base = np.polyfit(self.numbers**2, self.ratios, 1, w=np.sqrt(self.weights))
            if 0 <= slope <= MOST_SHARP * base:
                return float(base), float(slope)
        return float(np.average(self.ratios, weights=self.weights)), 0.0

    @property
    def fundamental(self) -> float:
        base, slope = self.fit
        return base + slope

    @cached_property
    def astray(self) -> float:
        """Share of the fundamental by which the worst partial stands off the line."""
        base, slope = self.fit
        return float(np.abs(self.ratios - base - slope * self.numbers**2).max() / base)

    def without(self, i: int) -> "_Line":
        return _Line(*(np.delete(x, i) for x in (self.numbers, self.ratios, self.weights)))


def _refined(note: float, ringing: _Ringing) -> tuple[float, tuple[float, ...]]:
    """The fundamental from its partials, each weighed by its strength; and the partials.

    Partials of a stiff strip run a little sharp, f_n = n f (1 + B n2), so the first count most.
    One pulled aside, by hum beside it or by noise where it is weak, is left out.
    """
    peaks = [
        (n, *_peak(ringing, low, high))
        for n, (low, high) in enumerate(_slots(note, ringing), 1)
        if high < ringing.power.size - 1
    ]
    strongest = max(p for _, _, p in peaks)
    clear = [(n, f, p) for n, f, p in peaks if p > 0.02 * strongest]
    line = _Line(
        np.array([n for n, _, _ in clear], dtype=float),
        np.array([f / n for n, f, _ in clear]),
        np.array([np.sqrt(p) * n for n, _, p in clear]),
    )
    while line.astray > ASTRAY and line.numbers.size > LEAST_PARTIALS:
        line = min(map(line.without, range(line.numbers.size)), key=lambda rest: rest.astray)
    return line.fundamental, tuple(f for _, f, _ in clear)


def _drawn(ringing: _Ringing) -> tuple[tuple[float, ...], tuple[float, ...]]:
    """The spectrum as drawn: the strongest level in each of so many equal steps."""
    edges = np.linspace(0.0, SPECTRUM_HZ, SPECTRUM_POINTS + 1)
    bins = np.minimum((edges / ringing.step_Hz).astype(int), ringing.power.size - 1)
    levels = [float(np.sqrt(ringing.power[a : max(b, a + 1)].max())) for a, b in pairwise(bins)]
    most = max(levels) or 1.0
    middles = tuple(float(m) for m in (edges[:-1] + edges[1:]) / 2)
    return middles, tuple(level / most for level in levels)


def listen(samples: Samples, rate_Hz: float) -> Heard:
    """The note of a pluck in a recording (samples: frames, or frames by channels; -1 to 1).

    Confidence is the share of what rings after the pluck that the note's partials explain,
    0 to 1. Raises InputError, saying what to do, when there is no pluck or no clear note.
    """
    if samples.size == 0 or not np.isfinite(samples).all():
        raise _refuse("holds no sound; record two seconds with one pluck in them")
    sound = _band_limited(_one_channel(samples.astype(float)), rate_Hz)
    if np.abs(sound).max() < QUIETEST:
        raise _refuse("is silent; check that the microphone is on and near the band")
    onset = _onset(sound, rate_Hz)
    ringing = _ringing(sound, rate_Hz, onset)
    if ringing.rise < LEAST_RISE:
        raise _refuse(
            "has no pluck in it: nothing rises and dies away; pluck the band once, guides off, "
            "with the microphone close to the middle of the span"
        )
    summed = np.concatenate(([0.0], np.cumsum(ringing.power)))
    notes = np.geomspace(LOWEST_HZ, HIGHEST_HZ, 2400)
    shares = [_explained(float(n), ringing, summed) for n in notes]
    note = _raised(float(notes[int(np.argmax(shares))]), ringing, summed)
    fundamental, partials = _refined(note, ringing)
    confidence = min(max(_explained(fundamental, ringing, summed), 0.0), 1.0)
    if confidence < LEAST_CONFIDENCE:
        raise _refuse(
            f"has no clear note: the best explains {100 * confidence:.0f} % of the sound, "
            f"accepted: {100 * LEAST_CONFIDENCE:.0f} % or more; pluck once, harder, with the "
            "shop quiet and nothing touching the band"
        )
    middles, levels = _drawn(ringing)
    return Heard(
        frequency_Hz=fundamental,
        confidence=confidence,
        note=note_name(fundamental),
        partials_Hz=partials,
        spectrum_Hz=middles,
        spectrum=levels,
        onset_s=onset / rate_Hz,
        length_s=sound.size / rate_Hz,
    )


@dataclass(frozen=True)
class Plucks:
    """Several plucks of one band: their median, and half the spread as a share of it."""

    median_Hz: float
    spread_share: float
    count: int


def several(notes_Hz: Sequence[float]) -> Plucks:
    """Median and spread of one or more notes (Hz).

    >>> several([60.0, 62.0, 61.0]).median_Hz
    61.0
    """
    if not notes_Hz:
        raise InputError([Fault("notes_Hz", "is empty; give at least one note")])
    median = float(np.median(notes_Hz))
    spread = (max(notes_Hz) - min(notes_Hz)) / 2.0 / median
    return Plucks(median, spread, len(notes_Hz))
