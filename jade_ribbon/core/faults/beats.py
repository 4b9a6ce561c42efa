"""Whose beat a sound has: the lines of its loudness against the whole multiples of each rate.

A knock sounds at all multiples of its rate, a swell at the first. A rate explains a line that
stands at one of its multiples; what it would explain but is not there speaks against it. All
rates may be off by one share, since speed and lengths are known to a few per cent.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Samples = NDArray[np.float64]

LEAST_HZ, MOST_HZ = 0.8, 90.0
HEARD_DB = 12.0
"""A line so far over what is around it is heard; one in all of a noise's reaches it by chance."""
AROUND = 25
"""Points each side whose middle is what is around a line."""
MOST_OFF, USUAL_OFF = 0.03, 0.015
"""Most that all rates may be off, and how much they usually are."""
TRIED = 61
TOLERANCE_HZ, TOLERANCE_SHARE = 0.15, 0.002
CLEARLY = 1.3
"""One rate explains the lines clearly better than another by this factor."""
LEAST_SCORE = 0.15
COUNTED = 12
"""Multiples of a rate that are looked for at most."""


@dataclass(frozen=True)
class SpectralLine:
    """A line in the spectrum of the loudness: where (Hz), and how far over its surround (dB)."""

    hertz: float
    level_dB: float


def lines_of(power: Samples, step: float) -> tuple[SpectralLine, ...]:
    """Local maxima that stand out of what is around them, parted finer than the spectrum's step."""
    found = []
    first, last = max(round(LEAST_HZ / step), 2), min(round(MOST_HZ / step), power.size - 3)
    for i in range(first, last + 1):
        if not (power[i] >= power[i - 1] and power[i] > power[i + 1]):
            continue
        a, b = max(i - AROUND, 1), min(i + AROUND, power.size - 1)
        around = float(np.median(np.concatenate([power[a : i - 2], power[i + 3 : b + 1]])))
        if around <= 0.0:
            continue
        level = 10.0 * math.log10(float(power[i]) / around)
        if level >= HEARD_DB:
            y = np.sqrt(power[i - 1 : i + 2])
            bend = float(y[0] - 2.0 * y[1] + y[2])
            shift = 0.5 * float(y[0] - y[2]) / bend if bend < 0.0 else 0.0
            found.append(SpectralLine((i + shift) * step, level))
    return tuple(found)


@dataclass(frozen=True)
class _Fit:
    """How well a rate explains lines, and which."""

    score: float
    lines: tuple[SpectralLine, ...]


def _fit(lines: Sequence[SpectralLine], hertz: float) -> _Fit:
    """The best fit of a rate, over all that it may be off.

    Score: share of the lines' levels that stand at its multiples, times the share of its
    multiples, up to the highest found, at which a line stands, times how usual the offset is.
    """
    at = np.array([line.hertz for line in lines])
    levels = np.array([line.level_dB for line in lines])
    best = _Fit(0.0, ())
    for stretch in np.linspace(1.0 - MOST_OFF, 1.0 + MOST_OFF, TRIED):
        rate = hertz * float(stretch)
        multiples = np.rint(at / rate)
        near = np.abs(at - multiples * rate) <= TOLERANCE_HZ + TOLERANCE_SHARE * at
        held = near & (multiples >= 1)
        if not held.any():
            continue
        found = {int(m) for m in multiples[held] if m <= COUNTED}
        if not found:
            continue
        share = float(levels[held].sum() / levels.sum())
        present = len(found) / max(found)
        usual = math.exp(-0.5 * ((float(stretch) - 1.0) / USUAL_OFF) ** 2)
        score = share * present * usual
        if score > best.score:
            best = _Fit(score, tuple(line for line, h in zip(lines, held, strict=True) if h))
    return best


@dataclass(frozen=True)
class Beats:
    """Levels (dB) of the rates whose beat is heard, and rates that explain it as well."""

    levels: Mapping[str, float]
    not_apart: tuple[tuple[str, str], ...]


def beats_of(power: Samples, step: float, rates: Mapping[str, float]) -> Beats:
    """Whose beats the spectrum of a loudness has: the rate that explains most first, then what it
    leaves. Rates that explain the same nearly as well are told as not apart.
    """
    left = list(lines_of(power, step))
    levels: dict[str, float] = {}
    alike: list[tuple[str, str]] = []
    while left:
        fits = {k: _fit(left, f) for k, f in rates.items() if k not in levels}
        if not fits:
            break
        first = max(fits, key=lambda k: fits[k].score)
        best = fits[first]
        if best.score < LEAST_SCORE:
            break
        levels[first] = max(line.level_dB for line in best.lines)
        for other, fit in fits.items():
            if other != first and fit.score * CLEARLY >= best.score:
                levels[other] = max(line.level_dB for line in fit.lines)
                alike.append((first, other))
        left = [line for line in left if line not in best.lines]
    return Beats(levels, tuple(alike))
