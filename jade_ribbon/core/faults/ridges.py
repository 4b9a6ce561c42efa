"""Ridges across a face: their spacing and the feed make a rate, and the rate a part that turns."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from jade_ribbon.core.quantities.formula_limits import within_limits

HARMONICS = (1, 2, 3)
SHOWN = 3
RULE_SHARE = 0.06
"""Counted over ten with a rule, a spacing and the feed tell a rate to about this."""


@dataclass(frozen=True)
class RidgeCandidate:
    """A part and a harmonic of its rate: Hz, and how far the ridges' own rate is off it, %."""

    source: str
    harmonic: int
    frequency_Hz: float
    off_percent: float


@dataclass(frozen=True)
class RidgeSource:
    """The rate of the ridges (Hz), and the parts nearest to it."""

    frequency_Hz: float
    nearest: tuple[RidgeCandidate, ...]

    @property
    def matching(self) -> tuple[RidgeCandidate, ...]:
        """Those within what a rule tells; none where nothing that turns made them."""
        return tuple(c for c in self.nearest if abs(c.off_percent) <= 100.0 * RULE_SHARE)


def _nearest(source: str, own_Hz: float, seen_Hz: float) -> RidgeCandidate:
    """The harmonic of a part that is nearest, the lower one on a tie."""
    harmonic = min(HARMONICS, key=lambda h: (abs(math.log(seen_Hz / (h * own_Hz))), h))
    rate = harmonic * own_Hz
    return RidgeCandidate(source, harmonic, rate, 100.0 * (seen_Hz / rate - 1.0))


@within_limits
def ridge_source(
    *,
    spacing_mm: float,
    feed_m_min: float,
    speed_m_s: float,
    band_length_mm: float,
    pitch_mm: float,
    wheel_diameters_mm: Sequence[float],
    motor_rpm: float | None = None,
    span_Hz: float | None = None,
) -> RidgeSource:
    """Which part's rate, or its double or treble, made ridges at a spacing and a feed.

    f = feed/(60 spacing); weld speed/length, tooth speed/pitch, wheels speed/(pi D), motor, span.
    Ties go in that order.

    Source: Rotating Machinery Vibration, "Orders"; docs/model "Ridges".

    >>> found = ridge_source(spacing_mm=8.57, feed_m_min=4.4, speed_m_s=10.5, band_length_mm=5827,
    ...     pitch_mm=22, wheel_diameters_mm=[400.0, 400.0], motor_rpm=2880)
    >>> found.nearest[0].source, round(found.nearest[0].off_percent, 2)
    ('wheel_1', 2.41)
    """
    seen = feed_m_min * 1000.0 / (60.0 * spacing_mm)
    rates = [
        ("weld", speed_m_s * 1000.0 / band_length_mm),
        ("tooth", speed_m_s * 1000.0 / pitch_mm),
    ]
    rates += [
        (f"wheel_{i + 1}", speed_m_s * 1000.0 / (math.pi * d))
        for i, d in enumerate(wheel_diameters_mm)
    ]
    if motor_rpm is not None:
        rates.append(("motor", motor_rpm / 60.0))
    if span_Hz is not None:
        rates.append(("span", span_Hz))
    found = [_nearest(name, rate, seen) for name, rate in rates]
    found.sort(key=lambda c: abs(math.log1p(c.off_percent / 100.0)))
    return RidgeSource(seen, tuple(found[:SHOWN]))


PARTS = {
    "weld": "the weld: isolate, turn by hand past the guides and feel both its faces",
    "tooth": "the teeth themselves: one side sharper or set wider, or they chatter",
    "motor": "the motor: its pulley, its bearings, its feet",
    "span": "the band between its guides, which sings: change the speed a little, or the guard",
}
WHEEL = "a wheel: look for chips or a joint on its tyre, for balance and play in its bearing"


def ridge_words(found: RidgeSource) -> str:
    """What ridges come of, as far as a rule tells.

    >>> ridge_words(RidgeSource(3.0, (RidgeCandidate("weld", 1, 2.0, 50.0),)))
    'It matches nothing that turns: hands, the feed, or a wrong count; measure over ten ridges.'
    """
    names: list[str] = []
    for match in found.matching:
        part = PARTS.get(match.source, WHEEL)
        times = {1: "", 2: ", twice a turn", 3: ", three times a turn"}[match.harmonic]
        if (words := f"{part}{times}") not in names:
            names.append(words)
    if not names:
        return (
            "It matches nothing that turns: hands, the feed, or a wrong count; "
            "measure over ten ridges."
        )
    if len(names) == 1:
        return f"It comes of {names[0]}."
    return f"Cannot tell between {'; and '.join(names)}."
