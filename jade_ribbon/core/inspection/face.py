"""A sawn face read with a caliper: each part against the tolerance, with how sure it is."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from jade_ribbon.core.inspection.evidence import EIGHT_IN_TEN
from jade_ribbon.core.inspection.thickness import ThicknessMap, design_of, thickness_map
from jade_ribbon.core.quantities.arrays import Array

PartKey = Literal["thickness", "taper", "lean", "barrel", "waves"]
Verdict = Literal["within", "over", "cannot_tell"]

GAUGE_SD_MM = 0.03
"""One reading of a caliper on sawn wood is no surer than this."""
PEAK_TO_PEAK = 3.3
"""Nine in ten of what is left lie within so many of its deviations."""


@dataclass(frozen=True)
class FacePart:
    """One part of what a face is, mm: its mean over what was asked, from end to end, top to bottom,
    middle to edges, or waves."""

    key: PartKey
    amount_mm: float
    se_mm: float
    doubt_mm: float
    """Eight in ten of what it may be lie so far either way."""
    tolerance_share: float
    verdict: Verdict


@dataclass(frozen=True)
class Face:
    """A face: its map and its parts, the worst against the tolerance first."""

    map: ThicknessMap
    parts: tuple[FacePart, ...]
    readings: int
    spare: int
    """Readings beyond those that the map needs: without any, waves cannot be told."""
    worst_along: float
    """Where along the piece, 0 to 1, the reading lies that the map leaves most of."""
    relief_mm: tuple[tuple[float, ...], ...]
    """How far off its mean the face is, in cells from top to bottom, each row from start to end."""

    words: str
    """All parts together: within only where each was looked for and surely is."""

    def part(self, key: PartKey) -> FacePart | None:
        """One part; None where the readings cannot tell it."""
        return next((p for p in self.parts if p.key == key), None)


RELIEF_ROWS, RELIEF_COLUMNS = 10, 28


def relief_of(found: ThicknessMap) -> tuple[tuple[float, ...], ...]:
    """A map in cells, mm off its mean: rows from the top, each from the start of the cut."""
    return tuple(
        tuple(
            found.off_mm((column + 0.5) / RELIEF_COLUMNS, 1.0 - (2.0 * row + 1.0) / RELIEF_ROWS)
            for column in range(RELIEF_COLUMNS)
        )
        for row in range(RELIEF_ROWS)
    )


def verdict_of(amount_mm: float, se_mm: float, tolerance_mm: float) -> Verdict:
    """Within or over the tolerance only where eight in ten of what it may be are.

    >>> verdict_of(0.5, 0.05, 0.8), verdict_of(0.5, 0.4, 0.8), verdict_of(-1.0, 0.1, 0.8)
    ('within', 'cannot_tell', 'over')
    """
    if abs(amount_mm) + EIGHT_IN_TEN * se_mm <= tolerance_mm:
        return "within"
    if abs(amount_mm) - EIGHT_IN_TEN * se_mm > tolerance_mm:
        return "over"
    return "cannot_tell"


NEEDED_FOR: tuple[tuple[PartKey, str], ...] = (
    ("barrel", "a barrel was not looked for: read at three heights"),
    ("waves", "waves were not looked for: read more points"),
)


def all_told(parts: Sequence[FacePart]) -> str:
    """All parts of a face in one line; what was not looked for is no good face."""
    if any(p.verdict == "over" for p in parts):
        return "Over the tolerance."
    if any(p.verdict == "cannot_tell" for p in parts):
        return "Nothing is surely over the tolerance; some of it cannot be told."
    seen = {p.key for p in parts}
    missed = "; ".join(words for key, words in NEEDED_FOR if key not in seen)
    if missed:
        return f"What was read is within the tolerance; {missed}."
    return "All of it is within the tolerance: change nothing."


def read_face(
    readings: Sequence[Sequence[float]],
    *,
    tolerance_mm: float,
    asked_mm: float | None = None,
    gauge_sd_mm: float = GAUGE_SD_MM,
) -> Face:
    """The parts of a face from readings [x 0..1 along, y -1..1 up, mm], and their standard errors.

    The noise is what the map leaves, and never less than the caliper's own; with no reading to
    spare it is the caliper's alone, and it is never less of a mean: a caliper read wrong is read
    wrong everywhere. Waves are no larger than what was read. Raises InputError as `thickness_map`.

    Source: linear least squares; docs/model "Thickness".
    """
    found = thickness_map(readings=readings)
    design = design_of(readings)
    spare = len(readings) - design.shape[1]
    noise = max(gauge_sd_mm, found.residual_mm if spare > 0 else 0.0)
    spread = noise * np.sqrt(np.diag(np.linalg.inv(design.T @ design)))
    amounts: list[tuple[PartKey, float, float]] = [
        ("taper", found.taper_along_mm, float(spread[1])),
        ("lean", found.lean_mm, 2.0 * float(spread[2])),
    ]
    if found.barrel_mm is not None:
        amounts.append(("barrel", found.barrel_mm, float(spread[3])))
    if asked_mm is not None:
        se = math.hypot(float(spread[0]), gauge_sd_mm)
        amounts.append(("thickness", found.mean_mm - asked_mm, se))
    left = np.array([r[2] for r in readings]) - design @ _fitted(found)
    if spare > 0:
        # What the caliper's own noise leaves is no wave of the face.
        own = math.sqrt(max(0.0, found.residual_mm**2 - gauge_sd_mm**2))
        unsure = PEAK_TO_PEAK * noise / math.sqrt(2.0 * spare)
        amounts.append(("waves", min(PEAK_TO_PEAK * own, float(np.ptp(left))), unsure))
    parts = [
        FacePart(
            key,
            amount,
            se,
            EIGHT_IN_TEN * se,
            abs(amount) / tolerance_mm,
            verdict_of(amount, se, tolerance_mm),
        )
        for key, amount, se in amounts
    ]
    parts.sort(key=lambda p: -p.tolerance_share)
    worst = float(readings[int(np.argmax(np.abs(left)))][0])
    relief = relief_of(found)
    return Face(found, tuple(parts), len(readings), spare, worst, relief, all_told(parts))


def _fitted(found: ThicknessMap) -> Array:
    """A map's figures as its design has them: mean, taper, half the lean, barrel."""
    barrel = [] if found.barrel_mm is None else [found.barrel_mm]
    return np.array([found.mean_mm, found.taper_along_mm, found.lean_mm / 2.0, *barrel])
