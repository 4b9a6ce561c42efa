"""The tightest radius of an outline, computed from its curves, not from crude samples.

An outline is chains of segments in mm: straight lines, elliptical arcs and cubic Béziers.
Curvature comes from each segment's own derivatives; its least radius is closed in on to
far better than the band's set is known.
"""

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from jade_ribbon.core.quantities.errors import refuse

Array = NDArray[np.float64]
Point = tuple[float, float]

CORNER_DEG = 1.0
"""Direction jumps over this count as sharp corners."""
JOIN_MM = 0.02
"""Ends nearer than this belong together."""
GRID = 65
ZOOMS = 5
STRAIGHT_MM = 1e7
"""A radius over this is a straight line."""
GAUSS = np.polynomial.legendre.leggauss(24)


@dataclass(frozen=True)
class Line:
    """A straight segment."""

    start: Point
    end: Point

    def at(self, t: Array) -> tuple[Array, Array, Array]:
        """Place, first and second derivative at parameters 0..1."""
        a, b = np.array(self.start), np.array(self.end)
        run = b - a
        return a + np.outer(t, run), np.tile(run, (len(t), 1)), np.zeros((len(t), 2))


@dataclass(frozen=True)
class EllipseArc:
    """Place = centre + cos(a) u + sin(a) v, a from `first` over `sweep` radians."""

    centre: Point
    u: Point
    v: Point
    first: float
    sweep: float

    def at(self, t: Array) -> tuple[Array, Array, Array]:
        angle = self.first + self.sweep * t
        cos, sin = np.cos(angle), np.sin(angle)
        u, v = np.array(self.u), np.array(self.v)
        place = np.array(self.centre) + np.outer(cos, u) + np.outer(sin, v)
        first = self.sweep * (np.outer(-sin, u) + np.outer(cos, v))
        second = self.sweep**2 * (np.outer(-cos, u) - np.outer(sin, v))
        return place, first, second


@dataclass(frozen=True)
class Cubic:
    """A cubic Bézier."""

    p0: Point
    p1: Point
    p2: Point
    p3: Point

    def at(self, t: Array) -> tuple[Array, Array, Array]:
        p0, p1, p2, p3 = (np.array(p) for p in (self.p0, self.p1, self.p2, self.p3))
        s = (1.0 - t)[:, None]
        r = t[:, None]
        place = s**3 * p0 + 3 * s**2 * r * p1 + 3 * s * r**2 * p2 + r**3 * p3
        first = 3 * s**2 * (p1 - p0) + 6 * s * r * (p2 - p1) + 3 * r**2 * (p3 - p2)
        second = 6 * s * (p2 - 2 * p1 + p0) + 6 * r * (p3 - 2 * p2 + p1)
        return place, first, second


Segment = Line | EllipseArc | Cubic


@dataclass(frozen=True)
class Tightest:
    """Least radius of a segment (mm) and where."""

    radius_mm: float
    at_mm: Point


@dataclass(frozen=True)
class OutlineSample:
    """A place on the outline and the radius there (mm; None where straight)."""

    x_mm: float
    y_mm: float
    radius_mm: float | None


@dataclass(frozen=True)
class Outline:
    """What a drawing says of its curve. `min_radius_mm` is None when all is straight."""

    min_radius_mm: float | None
    at_mm: Point | None
    length_mm: float
    corners: tuple[Point, ...]
    chains: tuple[tuple[OutlineSample, ...], ...]


def radii(first: Array, second: Array) -> Array:
    """Radius of curvature (mm) from derivatives; infinite where straight.

    Source: Differential Geometry of Curves, "Curvature of a plane curve".
    """
    cross = np.abs(first[:, 0] * second[:, 1] - first[:, 1] * second[:, 0])
    speed = np.hypot(first[:, 0], first[:, 1])
    with np.errstate(divide="ignore", invalid="ignore"):
        found = speed**3 / cross
    return np.where(np.isfinite(found) & (speed > 1e-9), found, np.inf)


def tightest(segment: Segment) -> Tightest | None:
    """The least radius of one segment, closed in on by halving around it; None if straight.

    Source: as `radii`, closed in on five times; docs/model "Outlines".
    """
    if isinstance(segment, Line):
        return None
    low, high = 0.0, 1.0
    best: Tightest | None = None
    for _ in range(ZOOMS):
        t = np.linspace(low, high, GRID)
        place, first, second = segment.at(t)
        found = radii(first, second)
        i = int(np.argmin(found))
        if found[i] > STRAIGHT_MM:
            return best
        best = Tightest(float(found[i]), (float(place[i, 0]), float(place[i, 1])))
        step = (high - low) / (GRID - 1)
        low, high = max(0.0, t[i] - 2 * step), min(1.0, t[i] + 2 * step)
    return best


def length_of(segment: Segment) -> float:
    """Length (mm) by Gauss quadrature over eight parts."""
    if isinstance(segment, Line):
        return math.dist(segment.start, segment.end)
    nodes, weights = GAUSS
    total = 0.0
    for part in range(8):
        t = (part + (nodes + 1.0) / 2.0) / 8.0
        _, first, _ = segment.at(t)
        total += float(np.sum(weights * np.hypot(first[:, 0], first[:, 1]))) / 16.0
    return total


def ends(segment: Segment) -> tuple[Point, Point]:
    """First and last place."""
    place, _, _ = segment.at(np.array([0.0, 1.0]))
    return (float(place[0, 0]), float(place[0, 1])), (float(place[1, 0]), float(place[1, 1]))


def directions(segment: Segment) -> tuple[float, float]:
    """Direction of travel (radians) as it leaves its start and reaches its end."""
    _, first, _ = segment.at(np.array([0.0, 1e-4, 1.0 - 1e-4, 1.0]))

    def angle(i: int, spare: int) -> float:
        d = first[i] if np.hypot(*first[i]) > 1e-9 else first[spare]
        return math.atan2(d[1], d[0])

    return angle(0, 1), angle(3, 2)


def reverse(segment: Segment) -> Segment:
    """The same segment walked the other way."""
    if isinstance(segment, Line):
        return Line(segment.end, segment.start)
    if isinstance(segment, Cubic):
        return Cubic(segment.p3, segment.p2, segment.p1, segment.p0)
    return EllipseArc(
        segment.centre, segment.u, segment.v, segment.first + segment.sweep, -segment.sweep
    )


def _turn_deg(arriving: float, leaving: float) -> float:
    turn = math.degrees(leaving - arriving)
    return abs((turn + 180.0) % 360.0 - 180.0)


def corners_of(chain: Sequence[Segment]) -> list[Point]:
    """Places in a chain where the direction jumps, the closing place of a loop included."""
    if not chain:
        return []
    found = []
    first_start, last_end = ends(chain[0])[0], ends(chain[-1])[1]
    pairs = list(itertools.pairwise(chain))
    if math.dist(first_start, last_end) <= JOIN_MM:
        pairs.append((chain[-1], chain[0]))
    for before, after in pairs:
        if math.dist(ends(before)[1], ends(after)[0]) > JOIN_MM:
            continue
        if _turn_deg(directions(before)[1], directions(after)[0]) > CORNER_DEG:
            found.append(ends(after)[0])
    return found


class _Pool:
    """Loose segments by the places of their ends."""

    def __init__(self, loose: Sequence[Segment]) -> None:
        self.waiting = dict(enumerate(loose))
        self._at: dict[tuple[int, int], list[int]] = {}
        for i, segment in self.waiting.items():
            for end in ends(segment):
                self._at.setdefault(self._cell(end), []).append(i)

    @staticmethod
    def _cell(p: Point) -> tuple[int, int]:
        return round(p[0] / JOIN_MM), round(p[1] / JOIN_MM)

    def _near(self, place: Point) -> list[int]:
        kx, ky = self._cell(place)
        cells = [(kx + dx, ky + dy) for dx in (0, -1, 1) for dy in (0, -1, 1)]
        return [i for cell in cells for i in self._at.get(cell, ()) if i in self.waiting]

    def take_from(self, place: Point) -> Segment | None:
        """A waiting segment that starts at a place, turned round if need be."""
        for i in self._near(place):
            start, end = ends(self.waiting[i])
            if math.dist(start, place) <= JOIN_MM:
                return self.waiting.pop(i)
            if math.dist(end, place) <= JOIN_MM:
                return reverse(self.waiting.pop(i))
        return None


def chain_up(loose: Sequence[Segment]) -> list[list[Segment]]:
    """Join segments drawn one by one into chains, turning them where needed."""
    pool = _Pool(loose)
    chains = []
    while pool.waiting:
        chain = [pool.waiting.pop(next(iter(pool.waiting)))]
        while (following := pool.take_from(ends(chain[-1])[1])) is not None:
            chain.append(following)
        while (before := pool.take_from(ends(chain[0])[0])) is not None:
            chain.insert(0, reverse(before))
        chains.append(chain)
    return chains


def _samples(segment: Segment, parts: int) -> list[OutlineSample]:
    if isinstance(segment, Line):
        return [OutlineSample(x, y, None) for x, y in (segment.start, segment.end)]
    place, first, second = segment.at(np.linspace(0.0, 1.0, parts + 1))
    return [
        OutlineSample(float(x), float(y), float(r) if r < STRAIGHT_MM else None)
        for (x, y), r in zip(place, radii(first, second), strict=True)
    ]


def measure(chains: Sequence[Sequence[Segment]], *, samples_per_curve: int = 24) -> Outline:
    """Tightest smooth radius and where, whole length, and sharp corners of all chains.

    Segments shorter than a hundredth of a mm are dots and left out. InputError when
    nothing is left.

    Source: docs/model, "Outlines".
    """
    kept = [[s for s in chain if length_of(s) > 0.01] for chain in chains]
    kept = [chain for chain in kept if chain]
    if not kept:
        raise refuse("file", "there is no line or curve in it to measure")
    found = [t for chain in kept for s in chain if (t := tightest(s)) is not None]
    best = min(found, key=lambda t: t.radius_mm, default=None)
    return Outline(
        min_radius_mm=best.radius_mm if best else None,
        at_mm=best.at_mm if best else None,
        length_mm=sum(length_of(s) for chain in kept for s in chain),
        corners=tuple(p for chain in kept for p in corners_of(chain)),
        chains=tuple(
            tuple(p for s in chain for p in _samples(s, samples_per_curve)) for chain in kept
        ),
    )
