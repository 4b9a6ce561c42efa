"""A tick tapped along with: its rate, how sure, and what turns so often."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from jade_ribbon.core.faults.rotating import Turner
from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.words import Said, figure, join, sentence

LEAST_TAPS = 6
MOST_UNEVEN = 0.25
"""Taps more uneven than this kept no beat."""
KNOWN_SHARE = 0.03
"""Speed and lengths of a saw are known to about this."""
STRETCHES = ((1.0, ""), (2.0, "every second beat was tapped"), (0.5, "two taps to a beat"))
"""What a tapping hand makes of a beat: as it is, every second, double."""


ANSWERS: Mapping[str, str] = {"weld": "band", "wheel": "wheel", "belt": "fast"}
"""What turns, as the check of a tick answers."""


@dataclass(frozen=True)
class TappedMatch:
    """A part that turns at the rate tapped, or at its double or half."""

    key: str
    name: Said
    hertz: float
    stretched: str
    off_share: float


@dataclass(frozen=True)
class Tapped:
    """The rate tapped (Hz), its standard error, and what fits; more than one: cannot tell."""

    rate_Hz: float
    error_Hz: float
    matches: tuple[TappedMatch, ...]
    words: Said
    outcome: str
    """Whose beat it is, as the check of a tick answers: band, wheel, fast; '' where unsure."""


def tapped_rate(times_s: Sequence[float]) -> tuple[float, float]:
    """Rate (Hz) of taps at so many seconds, and its standard error, by a line through them.

    InputError for too few taps, or taps that keep no beat.

    >>> rate, error = tapped_rate([0.0, 0.5, 1.0, 1.5, 2.0, 2.5])
    >>> round(rate, 3), error < 0.02
    (2.0, True)
    """
    if len(times_s) < LEAST_TAPS:
        words = f"{len(times_s)} taps; accepted: {LEAST_TAPS} or more, in one beat"
        raise refuse("times_s", words, len(times_s))
    at = np.sort(np.asarray(times_s, dtype=float))
    gaps = np.diff(at)
    usual = float(np.median(gaps))
    if (
        usual <= 0.0
        or float(np.abs(gaps / usual - 1.0).max()) > 2.0 * MOST_UNEVEN
        or (float(gaps.std()) / usual > MOST_UNEVEN)
    ):
        raise refuse("times_s", "the taps keep no beat; tap again, evenly, for some seconds", None)
    number = np.arange(at.size, dtype=float)
    slope, first = np.polyfit(number, at, 1)
    off = at - first - slope * number
    spread = math.sqrt(float((off**2).sum()) / (at.size - 2))
    error = max(spread, 0.01) / math.sqrt(float(((number - number.mean()) ** 2).sum()))
    return 1.0 / float(slope), error / float(slope) ** 2


def name_tapped(times_s: Sequence[float], known: Sequence[Turner]) -> Tapped:
    """What turns at a tapped rate, half and double rates considered; nobody is named of two."""
    rate, error = tapped_rate(times_s)
    allowed = math.hypot(2.0 * error / rate, KNOWN_SHARE)
    matches = []
    for turner in known:
        for times, stretched in STRETCHES:
            off = rate * times / turner.hertz - 1.0
            if abs(off) <= allowed:
                matches.append(TappedMatch(turner.key, turner.name, turner.hertz, stretched, off))
    said = f"{figure(rate, 3)} a second"
    plain = [m for m in matches if not m.stretched]
    chosen = plain if len(plain) == 1 else matches
    if not chosen:
        words: Said = f"{said} is none of what turns here, nor its half or double: tap again."
    elif len(chosen) == 1:
        one = chosen[0]
        tail = f" ({one.stretched})" if one.stretched else ""
        words = sentence(f"{said} is ", one.name, f"{tail}.")
    else:
        words = sentence(
            f"{said}: cannot tell between ",
            join(
                ", ", (sentence(m.name, f" ({m.stretched})" if m.stretched else "") for m in chosen)
            ),
            ".",
        )
    whose = {ANSWERS[m.key] for m in chosen}
    return Tapped(rate, error, tuple(chosen), words, whose.pop() if len(whose) == 1 else "")
