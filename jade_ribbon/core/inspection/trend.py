"""Taper from board to board: whether a band is beginning to pull to one side."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from jade_ribbon.core.inspection.evidence import EIGHT_IN_TEN

LEAST_FACES = 4
GROWING_DEG = 0.02
"""More than this a face, surely, and one side of the set wears faster."""
LEAST_DEG = 0.005
"""No taper is told finer than this: a few hundredths over a metre or two."""
SWINGS_DEG = 0.04
"""Faces that lie so far about none do not all come of one setting."""
SWINGS = (
    "Taper swings from face to face: that is how the work is led or held, neither the fence nor "
    "the set."
)
Trend = Literal["growing", "steady", "cannot_tell"]


@dataclass(frozen=True)
class TaperTrend:
    """Change of the angle by which faces taper, degrees a face, with its standard error."""

    faces: int
    per_face_deg: float
    se_deg: float
    verdict: Trend
    words: str


def taper_trend(tapers_mm: Sequence[float], lengths_mm: Sequence[float]) -> TaperTrend | None:
    """A straight line through the tapers' angles, oldest first; None under four faces.

    Growing only where nine chances in ten say so; steady only where as many say that it is not.

    Source: linear least squares; docs/model "The face".

    >>> taper_trend([0.1, 0.1, 0.1, 0.1], [1000.0] * 4).verdict
    'steady'
    """
    n = len(tapers_mm)
    if n < LEAST_FACES:
        return None
    angles = np.degrees(np.arctan2(np.asarray(tapers_mm), np.asarray(lengths_mm)))
    x = np.arange(n) - (n - 1) / 2.0
    spread = float(np.sum(x**2))
    slope = float(np.sum(x * angles)) / spread
    rest = angles - angles.mean() - slope * x
    scatter = math.sqrt(float(np.sum(rest**2)) / (n - 2))
    se = scatter / math.sqrt(spread)
    low, high = abs(slope) - EIGHT_IN_TEN * se, abs(slope) + EIGHT_IN_TEN * se
    verdict: Trend = "cannot_tell"
    if low > GROWING_DEG:
        verdict = "growing"
    elif high <= GROWING_DEG:
        verdict = "steady"
    mean = abs(float(angles.mean()))
    same = "Taper is the same from face to face: it is the fence, not the band."
    untold = "Whether taper grows from face to face cannot be told yet."
    if mean <= EIGHT_IN_TEN * max(scatter, LEAST_DEG) / math.sqrt(n):
        same = "No taper to speak of, taken over these faces."
    if scatter > max(SWINGS_DEG, mean):
        same = untold = SWINGS
    words = {
        "growing": "Taper grows from face to face: one side of the set wears faster. Stone the "
        "other, or have it reset; turning the fence only follows it.",
        "steady": same,
        "cannot_tell": untold,
    }[verdict]
    return TaperTrend(n, slope, se, verdict, words)
