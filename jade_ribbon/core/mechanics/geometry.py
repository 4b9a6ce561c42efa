"""Geometry of a band: pitch, gullet, body, kerf; and the radius it can turn."""

import math
from dataclasses import dataclass

from jade_ribbon.core.quantities.arrays import one_of, somewhere, sqrt
from jade_ribbon.core.quantities.constants import MM_PER_INCH, RHO_KG_M3
from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.formula_limits import finite, within_limits

LEAN_FACTOR = 3.0 + 2.0 * math.sqrt(2.0)
"""Width squared over (radius x clearance) for a body leaning from wall to wall."""


@dataclass(frozen=True)
class BandGeometry:
    """Sizes that follow from a band type and its welded length."""

    pitch_mm: float
    gullet_depth_mm: float
    body_width_mm: float
    body_area_mm2: float
    gullet_area_mm2: float
    kerf_mm: float
    teeth: float
    mass_per_length_kg_m: float


@dataclass(frozen=True)
class MinRadius:
    min_radius_mm: float


@dataclass(frozen=True)
class WidestForRadius:
    width_mm: float


def gullet_of_pitch(
    *, pitch_mm: float, gullet_depth_ratio: float, gullet_area_coefficient: float
) -> tuple[float, float]:
    """Gullet depth (mm) and area (mm2) for a pitch: similar teeth scale with the pitch.

    Source: similar figures: lengths with the pitch, areas with its square.
    """
    return gullet_depth_ratio * pitch_mm, gullet_area_coefficient * pitch_mm**2


def body_behind(width_mm: float, gullet_depth_mm: float) -> float:
    """Body behind the gullets in mm. InputError where there is none."""
    body = width_mm - gullet_depth_mm
    if somewhere(body <= 0):
        raise refuse(
            "gullet_depth_mm",
            f"{one_of(gullet_depth_mm):g} leaves no body; "
            f"accepted: under width_mm {one_of(width_mm):g}",
            gullet_depth_mm,
        )
    return body


@within_limits
def band_geometry(
    *,
    width_mm: float,
    thickness_mm: float,
    tpi: float,
    gullet_depth_ratio: float,
    gullet_area_coefficient: float,
    set_per_side_mm: float,
    length_mm: float,
) -> BandGeometry:
    """Pitch, gullet, body, kerf, tooth count and mass of a band.

    Body width is what is left behind the gullets; it alone carries tension. The mass
    takes half the gullet depth off the width (gullets are roughly half air).
    Lengths in mm, areas in mm2, mass in kg per m. Raises InputError when the gullet is
    as deep as the band is wide. Source: reference table of tooth forms.

    >>> band_geometry(width_mm=25.4, thickness_mm=0.89, tpi=2, gullet_depth_ratio=0.35,
    ...     gullet_area_coefficient=0.14, set_per_side_mm=0.59, length_mm=2070).pitch_mm
    12.7
    """
    pitch = MM_PER_INCH / tpi
    depth, area = gullet_of_pitch(
        pitch_mm=pitch,
        gullet_depth_ratio=gullet_depth_ratio,
        gullet_area_coefficient=gullet_area_coefficient,
    )
    body = width_mm - depth
    if somewhere(body <= 0):
        raise refuse(
            "width_mm",
            f"{one_of(width_mm):g} mm leaves no body behind a gullet {one_of(depth):.3g} mm deep; "
            f"accepted: more than {one_of(depth):.3g} mm",
            width_mm,
        )
    return BandGeometry(
        pitch_mm=pitch,
        gullet_depth_mm=depth,
        body_width_mm=body,
        body_area_mm2=body * thickness_mm,
        gullet_area_mm2=area,
        kerf_mm=thickness_mm + 2.0 * set_per_side_mm,
        teeth=length_mm / pitch,
        mass_per_length_kg_m=mass_per_length(
            width_mm=width_mm, gullet_depth_mm=depth, thickness_mm=thickness_mm
        ),
    )


def mass_per_length(*, width_mm: float, gullet_depth_mm: float, thickness_mm: float) -> float:
    """Mass of the strip in kg/m, half the gullet depth taken off the width.

    Source: density times section; docs/model "Note of a plucked band".
    """
    return RHO_KG_M3 * (width_mm - gullet_depth_mm / 2.0) * thickness_mm * 1e-6


def _clearance(kerf_mm: float, thickness_mm: float) -> float:
    if somewhere(kerf_mm <= thickness_mm):
        raise refuse(
            "kerf_mm",
            f"{one_of(kerf_mm):g} mm is not wider than the body; "
            f"accepted: more than thickness_mm {one_of(thickness_mm):g}",
            kerf_mm,
        )
    return kerf_mm - thickness_mm


@dataclass(frozen=True)
class InCurve:
    """A straight body in a curved kerf: its best lean (radians), and the least room left (mm)."""

    lean_rad: float
    clearance_mm: float


@within_limits
def in_curve(*, width_mm: float, thickness_mm: float, kerf_mm: float, radius_mm: float) -> InCurve:
    """How a band leans in its own kerf at a radius (mm), and what room that leaves it.

    The body runs at lean x s behind the teeth, the kerf at s2/2R: the outer gap is taken up by
    lean2 R/2, the inner by w2/2R - lean w; equal at lean = (sqrt 2 - 1) w/R. At the tightest
    radius the room is nothing. Source: docs/model, "Radius".

    >>> round(in_curve(width_mm=13, thickness_mm=0.64, kerf_mm=1.13, radius_mm=200).lean_rad, 4)
    0.0269
    """
    lean = (math.sqrt(2.0) - 1.0) * width_mm / radius_mm
    return InCurve(lean, (kerf_mm - thickness_mm) / 2.0 - lean * lean * radius_mm / 2.0)


@within_limits
def min_radius(
    *, width_mm: float, thickness_mm: float, kerf_mm: float, allowance: float = 1.0
) -> MinRadius:
    """Tightest radius (mm) a band turns: R = a w2 / ((3 + 2 sqrt 2)(k - t)).

    The teeth sit centred in their own kerf and the straight body leans as far as the
    walls allow. `allowance` 1 is the tightest, 1.25 and more is comfortable. Lengths
    in mm. Source: docs/model, "Radius". Raises InputError when kerf <= thickness.

    >>> round(min_radius(width_mm=19, thickness_mm=0.81, kerf_mm=1.37).min_radius_mm, 3)
    110.603
    """
    clearance = _clearance(kerf_mm, thickness_mm)
    radius = allowance * width_mm**2 / (LEAN_FACTOR * clearance)
    finite(min_radius_mm=radius)
    return MinRadius(radius)


@within_limits
def widest_for_radius(
    *, radius_mm: float, thickness_mm: float, kerf_mm: float, allowance: float = 1.0
) -> WidestForRadius:
    """Widest band (mm) that turns a radius: the inverse of `min_radius`.

    Source: docs/model, "Radius".

    >>> round(widest_for_radius(radius_mm=110.603229, thickness_mm=0.81, kerf_mm=1.37).width_mm, 4)
    19.0
    """
    clearance = _clearance(kerf_mm, thickness_mm)
    return WidestForRadius(sqrt(radius_mm * LEAN_FACTOR * clearance / allowance))


@dataclass(frozen=True)
class LoopLength:
    length_mm: float


@within_limits
def loop_length(
    *, wheel_diameter_mm: float, second_wheel_mm: float, centres_mm: float
) -> LoopLength:
    """Welded length (mm) of a band around two wheels (mm) whose centres are so far apart (mm).

    L = 2 sqrt(C2 - d2) + pi (R + r) + 2 d asin(d / C), d = R - r: the straight strands are tangents
    of both wheels. Raises InputError for wheels that would overlap. Source: plane geometry, open
    belt.

    >>> round(loop_length(wheel_diameter_mm=400, second_wheel_mm=400, centres_mm=1050).length_mm, 1)
    3356.6
    """
    radius, other = wheel_diameter_mm / 2.0, second_wheel_mm / 2.0
    if centres_mm <= radius + other:
        raise refuse(
            "centres_mm",
            f"{centres_mm:g} mm lets the wheels overlap; accepted: more than {radius + other:g} mm",
            centres_mm,
        )
    step = radius - other
    straight = 2.0 * math.sqrt(centres_mm**2 - step**2)
    around = math.pi * (radius + other) + 2.0 * step * math.asin(step / centres_mm)
    return LoopLength(straight + around)
