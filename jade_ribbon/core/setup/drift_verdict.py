"""What a freehand trial says: set the fence to it, leave it, or stop and find the cause."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from jade_ribbon.core.mechanics.drift import Drift, drift
from jade_ribbon.core.quantities.words import Said, figure, quantity, sentence
from jade_ribbon.core.setup.fittings import Fence

STOP_DEG = 2.0
"""Over this drift is a fault to find, not to set a fence to."""
NOTICED_DEG = 0.1
GROWING_DEG = 0.15
"""A drift that grows by more a trial tells of one side wearing faster."""
READING_MM = 0.5
"""How well a pencil line and a rule tell the offset."""
TELLS_SHARE = 0.5
"""A drift is set by only where it is known to so much of itself."""
METHODS = ("fence", "single_point", "tracking")


@dataclass(frozen=True)
class DriftVerdict:
    """Angle, fence shift at its bolts, what to do, and the trend over this band's trials."""

    angle_deg: float
    fence_shift_mm: float | None
    uncertainty_deg: float
    stop: bool
    words: Said
    trend_deg: float | None
    trend_words: str


def longer_run_mm(angle_deg: float) -> float:
    """The run (mm) over which a pencil line tells an angle well enough, in whole 50 mm."""
    told = max(abs(angle_deg), 2.0 * NOTICED_DEG) * TELLS_SHARE
    return float(50.0 * np.ceil(READING_MM / np.radians(told) / 50.0))


def _unsure(angle_deg: float, doubt_deg: float) -> bool:
    """Whether the run was too short to tell the angle, or that there is none."""
    return doubt_deg > max(NOTICED_DEG, TELLS_SHARE * abs(angle_deg))


def _words(found: Drift, method: str, stop: bool, doubt_deg: float) -> Said:
    if _unsure(found.angle_deg, doubt_deg):
        return sentence(
            f"Cannot tell: {figure(abs(found.angle_deg), 2)}°, give or take "
            f"{figure(doubt_deg, 2)}°. Saw freehand along a line of ",
            quantity(longer_run_mm(found.angle_deg), "length"),
            " or more.",
        )
    if stop:
        return (
            f"{figure(abs(found.angle_deg), 2)}° is over {STOP_DEG:g}°: stop and look for the "
            "cause: uneven set, one side dull, tyre, tension, a guide on the band."
        )
    if abs(found.angle_deg) < NOTICED_DEG:
        return "Too little to set anything by."
    side = "right" if found.angle_deg > 0 else "left"
    told: dict[str, Said] = {
        "fence": sentence(
            "Far end of the fence, behind the band: ",
            quantity(abs(found.fence_shift_mm), "thin"),
            f" to the {side} at its far bolt; the near bolt stays.",
        ),
        "single_point": "A single-point fence follows the drift: no shift is needed.",
        "tracking": f"It steers to the {side} as you push: move the band a hair on the wheel and "
        "try again. This works for a fraction of a degree, and it moves the teeth off their place.",
    }
    return told[method]


def method_for(fence: Fence, rule: str) -> str:
    """How drift is met: the saw's own fence decides before the house rule."""
    return "single_point" if fence == "single_point" else rule


def drift_trend(angles_deg: Sequence[float]) -> float | None:
    """Change a trial (degrees) over a band's last trials, oldest first; None under three."""
    if len(angles_deg) < 3:
        return None
    return float(np.polyfit(np.arange(len(angles_deg)), np.asarray(angles_deg), 1)[0])


def drift_verdict(
    *,
    offset_mm: float,
    run_mm: float,
    fence_bolt_spacing_mm: float | None,
    method: str,
    earlier_deg: Sequence[float] = (),
) -> DriftVerdict:
    """What to do with a freehand trial: offset to the right of the line (mm) over a run (mm).

    Raises InputError through `drift` for figures out of range.
    """
    found = drift(
        offset_mm=offset_mm, run_mm=run_mm, fence_bolt_spacing_mm=fence_bolt_spacing_mm or 100.0
    )
    doubt = float(np.degrees(READING_MM / run_mm))
    unsure = _unsure(found.angle_deg, doubt)
    stop = abs(found.angle_deg) > STOP_DEG and not unsure
    trend = drift_trend([*earlier_deg, found.angle_deg])
    grows = trend is not None and abs(trend) > GROWING_DEG and trend * found.angle_deg > 0
    shift = found.fence_shift_mm if fence_bolt_spacing_mm and method == "fence" else None
    return DriftVerdict(
        angle_deg=found.angle_deg,
        fence_shift_mm=None if stop or unsure else shift,
        uncertainty_deg=doubt,
        stop=stop,
        words=_words(found, method, stop, doubt),
        trend_deg=trend,
        trend_words=f"It grows by {figure(abs(trend), 2)}° a trial: one side wears faster."
        if grows and trend is not None
        else "",
    )
