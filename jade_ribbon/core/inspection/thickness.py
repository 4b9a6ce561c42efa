"""What the sawn piece tells: thickness over the face."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from jade_ribbon.core.quantities.arrays import Array
from jade_ribbon.core.quantities.errors import Fault, InputError, refuse


@dataclass(frozen=True)
class ThicknessMap:
    """Least squares of the readings, mm. Barrel is None with fewer than three heights."""

    mean_mm: float
    taper_along_mm: float
    lean_mm: float
    barrel_mm: float | None
    residual_mm: float
    range_mm: float

    def off_mm(self, along: float, up: float) -> float:
        """How far off its mean the board is at a place, 0..1 along and -1..1 up."""
        barrel = (self.barrel_mm or 0.0) * (1.0 / 3.0 - up * up)
        return self.taper_along_mm * (along - 0.5) + self.lean_mm / 2.0 * up + barrel


_READING_RANGES = ((0.0, 1.0, "place along"), (-1.0, 1.0, "place up"), (0.0, 10_000.0, "thickness"))


def _check_readings(readings: Sequence[Sequence[float]]) -> None:
    faults: list[Fault] = []
    for i, reading in enumerate(readings):
        if len(reading) != 3:
            faults.append(Fault(f"readings.{i}", "give three numbers: along, up, thickness", None))
            continue
        for j, (value, (low, high, what)) in enumerate(zip(reading, _READING_RANGES, strict=True)):
            number = isinstance(value, (int, float)) and not isinstance(value, bool)
            if not number or not low <= value <= high:
                text = f"{what} {value!r} is out of range; accepted: {low:g} to {high:g}"
                faults.append(Fault(f"readings.{i}.{j}", text, value))
    if faults:
        raise InputError(faults)


def _unknowns(readings: Sequence[Sequence[float]]) -> int:
    """Figures of a map: a barrel only where three heights were read."""
    return 4 if len({r[1] for r in readings}) >= 3 else 3


def design_of(readings: Sequence[Sequence[float]]) -> Array:
    """Readings down, the map's figures across: mean, taper, half the lean, and the barrel."""
    x, y = (np.array([r[i] for r in readings], dtype=float) for i in (0, 1))
    columns = [np.ones_like(x), x - 0.5, y, 1.0 / 3.0 - y**2][: _unknowns(readings)]
    return np.stack(columns, axis=1)


def thickness_map(*, readings: Sequence[Sequence[float]]) -> ThicknessMap:
    """Mean, taper, lean and barrel of a sawn board from readings [x, y, mm].

    Least squares of t = m + a(x - 1/2) + l y + c(1/3 - y2), x 0..1 along, y -1..1 up.
    Lean is 2l (top minus bottom); positive barrel is thick in the middle. Raises
    InputError with fewer readings than unknowns or places that cannot tell them apart.

    Source: docs/model, "Thickness"; linear least squares.
    """
    _check_readings(readings)
    unknowns = _unknowns(readings)
    if len(readings) < unknowns:
        raise refuse(
            "readings", f"{len(readings)} readings; accepted: at least {unknowns}", len(readings)
        )
    t = np.array([r[2] for r in readings], dtype=float)
    design = design_of(readings)
    fit, _, rank, _ = np.linalg.lstsq(design, t, rcond=None)
    if rank < unknowns:
        raise refuse(
            "readings",
            "all readings lie in one line; measure at both ends and at top and bottom",
            None,
        )
    spare = max(len(readings) - unknowns, 1)
    residual = math.sqrt(float(np.sum((t - design @ fit) ** 2)) / spare)
    return ThicknessMap(
        mean_mm=float(fit[0]),
        taper_along_mm=float(fit[1]),
        lean_mm=2.0 * float(fit[2]),
        barrel_mm=float(fit[3]) if unknowns == 4 else None,
        residual_mm=residual,
        range_mm=float(t.max() - t.min()),
    )
