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
ROUND_SHARE = 1e-9
STRAIGHT_MM = 1e7
"""A radius over this is a straight line."""
ENDS_AT = np.array([0.0, 1.0])
NEAR_ENDS_AT = np.array([0.0, 1e-4, 1.0 - 1e-4, 1.0])
GAUSS_PARTS = 8
_NODES, _WEIGHTS = np.polynomial.legendre.leggauss(24)
GAUSS_AT = np.concatenate([(p + (_NODES + 1.0) / 2.0) / GAUSS_PARTS for p in range(GAUSS_PARTS)])
GAUSS_WEIGHTS = np.tile(_WEIGHTS / (2.0 * GAUSS_PARTS), GAUSS_PARTS)


@dataclass(frozen=True)
class LineSegment:
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
        cos, sin = np.cos(angle)[:, None], np.sin(angle)[:, None]
        u, v = np.array(self.u), np.array(self.v)
        out = cos * u + sin * v
        along = cos * v - sin * u
        return np.array(self.centre) + out, self.sweep * along, -(self.sweep**2) * out

    @property
    def circle_mm(self) -> float | None:
        """Radius of an arc of a circle; None of any other ellipse."""
        (ux, uy), (vx, vy) = self.u, self.v
        u, v = math.hypot(ux, uy), math.hypot(vx, vy)
        near = ROUND_SHARE * max(u, v)
        is_round = abs(u - v) <= near and abs(ux * vx + uy * vy) <= near * max(u, v)
        return u if is_round and u > 0.0 else None


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


Segment = LineSegment | EllipseArc | Cubic


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
class Stretch:
    """So much of a path (mm) at one radius; None where it is as good as straight."""

    length_mm: float
    radius_mm: float | None


@dataclass(frozen=True)
class Outline:
    """What a drawing says of its curve. `min_radius_mm` is None when all is straight."""

    min_radius_mm: float | None
    at_mm: Point | None
    length_mm: float
    corners: tuple[Point, ...]
    chains: tuple[tuple[OutlineSample, ...], ...]
    stretches: tuple[Stretch, ...]
    """The whole of it by how tight it is, tightest first."""


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
    if isinstance(segment, LineSegment):
        return None
    if isinstance(segment, EllipseArc):
        return _tightest_of_arc(segment)
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


def _tightest_of_arc(arc: EllipseArc) -> Tightest | None:
    """The least radius of an elliptic arc: where it is walked slowest, or at an end.

    With place = u cos a + v sin a the radius is speed^3 / |u x v|, and speed^2 goes as
    (U + V)/2 + (V - U)/2 cos 2a - D sin 2a, U = |u|^2, V = |v|^2, D = u.v: least at
    2a = atan2(D, (U - V)/2).

    Source: Differential Geometry of Curves, "Curvature of a plane curve".
    """
    (ux, uy), (vx, vy), (cx, cy) = arc.u, arc.v, arc.centre
    cross = abs(ux * vy - uy * vx)
    slow = math.atan2(ux * vx + uy * vy, (ux * ux + uy * uy - vx * vx - vy * vy) / 2.0) / 2.0
    low, high = sorted((arc.first, arc.first + arc.sweep))
    turns = (slow + math.pi * k for k in range(*_half_turns(low - slow, high - slow)))
    best: Tightest | None = None
    for angle in (low, high, *itertools.islice(turns, 2)):
        cos, sin = math.cos(angle), math.sin(angle)
        speed = math.hypot(vx * cos - ux * sin, vy * cos - uy * sin)
        radius = speed**3 / cross if cross > 0.0 and speed > 1e-9 else math.inf
        if radius <= STRAIGHT_MM and (best is None or radius < best.radius_mm):
            best = Tightest(radius, (cx + ux * cos + vx * sin, cy + uy * cos + vy * sin))
    return best


def _half_turns(low: float, high: float) -> tuple[int, int]:
    """Whole half turns from one angle up to another, as a range."""
    return math.ceil(low / math.pi), math.floor(high / math.pi) + 1


def length_of(segment: Segment) -> float:
    """Length (mm) by Gauss quadrature over eight parts."""
    if isinstance(segment, LineSegment):
        return math.dist(segment.start, segment.end)
    if isinstance(segment, EllipseArc) and (radius := segment.circle_mm) is not None:
        return radius * abs(segment.sweep)
    _, first, _ = segment.at(GAUSS_AT)
    return float(GAUSS_WEIGHTS @ np.hypot(first[:, 0], first[:, 1]))


STRETCH_RATIO = 1.2
"""Radii within so much of each other count as one stretch."""
SWEEPING_MM = 2000.0
"""From this radius on nobody goes slower for the curve."""


def stretches_of(segments: Sequence[Segment]) -> tuple[Stretch, ...]:
    """The length of some segments by radius, tightest first; what is straight last.

    Radii in a stretch lie within a fifth of each other; its own is their mean by length.

    Source: docs/model "Outlines".
    """
    length_of_each: dict[int | None, float] = {}
    bent: dict[int | None, float] = {}
    for segment in segments:
        if isinstance(segment, LineSegment):
            parts, found = np.array([length_of(segment)]), np.array([np.inf])
        else:
            _, first, second = segment.at(GAUSS_AT)
            parts, found = GAUSS_WEIGHTS * np.hypot(first[:, 0], first[:, 1]), radii(first, second)
        for length, radius in zip(parts.tolist(), found.tolist(), strict=True):
            tight = radius < SWEEPING_MM
            key = math.floor(math.log(max(radius, 1e-3), STRETCH_RATIO)) if tight else None
            length_of_each[key] = length_of_each.get(key, 0.0) + length
            bent[key] = bent.get(key, 0.0) + (length * radius if tight else 0.0)
    keys = sorted(length_of_each, key=lambda k: math.inf if k is None else k)
    return tuple(
        Stretch(length_of_each[k], None if k is None else bent[k] / length_of_each[k])
        for k in keys
        if length_of_each[k] > 0.0
    )


def ends(segment: Segment) -> tuple[Point, Point]:
    """First and last place."""
    if isinstance(segment, LineSegment):
        return segment.start, segment.end
    place, _, _ = segment.at(ENDS_AT)
    return (float(place[0, 0]), float(place[0, 1])), (float(place[1, 0]), float(place[1, 1]))


def directions(segment: Segment) -> tuple[float, float]:
    """Direction of travel (radians) as it leaves its start and reaches its end."""
    first = segment.at(NEAR_ENDS_AT)[1].tolist()

    def angle(i: int, spare: int) -> float:
        x, y = first[i] if math.hypot(*first[i]) > 1e-9 else first[spare]
        return math.atan2(y, x)

    return angle(0, 1), angle(3, 2)


def reverse(segment: Segment) -> Segment:
    """The same segment walked the other way."""
    if isinstance(segment, LineSegment):
        return LineSegment(segment.end, segment.start)
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
    if len(chain) == 1 and math.dist(*ends(chain[0])) > JOIN_MM:
        return []
    found = []
    walked = [(*ends(s), *directions(s)) for s in chain]
    pairs = list(itertools.pairwise(walked))
    if math.dist(walked[0][0], walked[-1][1]) <= JOIN_MM:
        pairs.append((walked[-1], walked[0]))
    for (_, there, _, arriving), (here, _, leaving, _) in pairs:
        if math.dist(there, here) > JOIN_MM:
            continue
        if _turn_deg(arriving, leaving) > CORNER_DEG:
            found.append(here)
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
    if isinstance(segment, LineSegment):
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
    lengths = {id(s): length_of(s) for chain in chains for s in chain}
    kept = [[s for s in chain if lengths[id(s)] > 0.01] for chain in chains]
    kept = [chain for chain in kept if chain]
    if not kept:
        raise refuse("file", "there is no line or curve in it to measure")
    found = [t for chain in kept for s in chain if (t := tightest(s)) is not None]
    best = min(found, key=lambda t: t.radius_mm, default=None)
    return Outline(
        min_radius_mm=best.radius_mm if best else None,
        at_mm=best.at_mm if best else None,
        length_mm=sum(lengths[id(s)] for chain in kept for s in chain),
        corners=tuple(p for chain in kept for p in corners_of(chain)),
        chains=tuple(
            tuple(p for s in chain for p in _samples(s, samples_per_curve)) for chain in kept
        ),
        stretches=stretches_of([s for chain in kept for s in chain]),
    )
