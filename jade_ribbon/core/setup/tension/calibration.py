"""A saw's own tension scale against measured stress: what it really means here.

The scale reads the spring's force: force at the wheel is a line in the reading,
F = a + b s. Points are measured stresses at readings, with any bands; stress times body
area gives the force, so one line serves every width.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.quantities.formula_limits import within_limits

LEAST_POINTS = 3
SPREAD_T = {1: 12.71, 2: 4.30, 3: 3.18, 4: 2.78, 5: 2.57, 6: 2.45, 7: 2.36, 8: 2.31}
"""Student's t at 95 % by degrees of freedom; two beyond."""


@dataclass(frozen=True)
class CalibrationPoint:
    """A scale reading and the stress another means measured at it, with its band's body."""

    reading: float
    stress_MPa: float
    body_width_mm: float
    thickness_mm: float

    def wheel_force_N(self, force_per_strand: float) -> float:
        return self.stress_MPa * self.body_width_mm * self.thickness_mm * force_per_strand


@dataclass(frozen=True)
class ScaleFit:
    """Wheel force as a line in the scale reading, and how well the points lie on it."""

    offset_N: float
    slope_N: float
    residuals_N: tuple[float, ...]
    spread_N: float
    lowest: float
    highest: float
    mean: float
    sxx: float
    count: int

    def force_N(self, reading: float) -> float:
        return self.offset_N + self.slope_N * reading

    def uncertainty_N(self, reading: float) -> float:
        """Half width of the 95 % band of a single setting at a reading."""
        factor = SPREAD_T.get(self.count - 2, 2.0)
        lever = 1.0 + 1.0 / self.count + (reading - self.mean) ** 2 / self.sxx
        return float(factor * self.spread_N * np.sqrt(lever))


def fit_scale(points: Sequence[CalibrationPoint], *, force_per_strand: float) -> ScaleFit:
    """Least squares of wheel force (N) over readings; three points at two readings or more.

    Raises InputError for too few points, or a scale that falls while force rises.
    """
    readings = np.array([p.reading for p in points])
    if len(points) < LEAST_POINTS or np.unique(readings).size < 2:
        raise InputError(
            [
                Fault(
                    "points",
                    f"{len(points)} at {np.unique(readings).size} readings are too few; accepted: "
                    f"at least {LEAST_POINTS}, at two readings or more",
                )
            ]
        )
    forces = np.array([p.wheel_force_N(force_per_strand) for p in points])
    slope, offset = (float(v) for v in np.polyfit(readings, forces, 1))
    if slope <= 0:
        raise InputError(
            [Fault("points", "the force falls as the scale rises; look for a swapped reading")]
        )
    residuals = forces - (offset + slope * readings)
    spread = float(np.sqrt(np.square(residuals).sum() / (len(points) - 2)))
    return ScaleFit(
        offset_N=offset,
        slope_N=slope,
        residuals_N=tuple(float(r) for r in residuals),
        spread_N=spread,
        lowest=float(readings.min()),
        highest=float(readings.max()),
        mean=float(readings.mean()),
        sxx=float(np.square(readings - readings.mean()).sum()),
        count=len(points),
    )


@dataclass(frozen=True)
class ScaleSetting:
    """Where to set the scale for a stress in a band; what it is worth; what to mind."""

    reading: float
    stress_uncertainty_MPa: float
    extrapolated: bool
    warning: str


@within_limits
def scale_for_stress(
    fit: ScaleFit,
    *,
    stress_MPa: float,
    body_width_mm: float,
    thickness_mm: float,
    force_per_strand: float,
) -> ScaleSetting:
    """Scale reading for a stress (MPa): the inverse of the fitted line."""
    area = body_width_mm * thickness_mm * force_per_strand
    reading = (stress_MPa * area - fit.offset_N) / fit.slope_N
    outside = not fit.lowest <= reading <= fit.highest
    warning = (
        f"{reading:.3g} is outside the readings calibrated here ({fit.lowest:g} to "
        f"{fit.highest:g}): measure the stress another way there first."
        if outside
        else ""
    )
    return ScaleSetting(reading, fit.uncertainty_N(reading) / area, outside, warning)


@within_limits
def stress_from_scale(
    fit: ScaleFit,
    *,
    reading: float,
    body_width_mm: float,
    thickness_mm: float,
    force_per_strand: float,
) -> float:
    """Stress (MPa) in a band at a scale reading, by the fitted line."""
    return fit.force_N(reading) / (body_width_mm * thickness_mm * force_per_strand)


@dataclass(frozen=True)
class PrintedMark:
    """A mark printed on the saw's scale for a width, and what it really gives."""

    width_mm: float
    reading: float
    stress_MPa: float
    target_MPa: float

    @property
    def off_share(self) -> float:
        """How far the stress at the mark is from the target, as a share of it."""
        return self.stress_MPa / self.target_MPa - 1.0
