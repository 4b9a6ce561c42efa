"""Outlines from SVG and DXF files into the core's segments, in mm.

Hostile files are refused before they can cost anything: size, entity declarations,
external references, too many nodes.
"""

import codecs
import io
import logging
import math
from collections.abc import Iterator
from itertools import pairwise
from typing import Any

from jade_ribbon.core.mechanics.outline import (
    Cubic,
    EllipseArc,
    LineSegment,
    Outline,
    Point,
    Segment,
    chain_up,
    measure,
)
from jade_ribbon.core.quantities.errors import InputError, refuse

PARTS_A_SPAN, LEAST_PARTS = 48, 8
"""Cubics for each span of a spline that has none of its own; fewer where it has many spans."""
MOST_BYTES = 1_500_000
MOST_SEGMENTS = 6_000
MOST_DEPTH = 8
FARTHEST_MM = 1e6
"""No workpiece is a kilometre long."""
MM_PER_PX = 25.4 / 96.0
UNITS_MM = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "in": 25.4, "ft": 304.8, "pt": 25.4 / 72.0}
INSUNITS = {1: "in", 2: "ft", 4: "mm", 5: "cm", 6: "m"}

UNSOUND = (
    ValueError,
    TypeError,
    AttributeError,
    LookupError,
    ArithmeticError,
    RecursionError,
    AssertionError,
    SyntaxError,
)
"""What a library raises of a drawing that is not sound; its fault, told as the file's."""

Chains = list[list[Segment]]


def read_outline(data: bytes, name: str, unit: str | None = None) -> Outline:
    """Measure an outline file by its name's ending. InputError says what is wrong with it."""
    if len(data) > MOST_BYTES:
        raise refuse("file", f"{len(data)} bytes is too large; accepted: up to {MOST_BYTES} bytes")
    if not data.strip():
        raise refuse("file", "it is empty")
    if unit is not None and unit not in UNITS_MM:
        raise refuse("unit", f"{unit!r} is not accepted; accepted: {', '.join(UNITS_MM)}")
    kind = name.lower().rsplit(".", 1)[-1]
    if kind == "svg":
        chains = _svg(data)
    elif kind == "dxf":
        chains = _dxf(data, unit)
    else:
        raise refuse("file", f"{name!r} is neither .svg nor .dxf")
    _check_size(chains)
    return measure(chains, samples_per_curve=64 if sum(map(len, chains)) < 200 else 4)


def _check_size(chains: Chains) -> None:
    """Refuse places that no drawing of a workpiece has: 1e308 mm, or no number at all."""
    figures: list[Any] = [v for chain in chains for s in chain for v in vars(s).values()]
    places = [p for value in figures for p in (value if isinstance(value, tuple) else (value,))]
    if not all(-FARTHEST_MM <= place <= FARTHEST_MM for place in places):
        raise refuse("file", f"it is larger than {FARTHEST_MM / 1000:g} m, or not drawn to a size")


def _text(data: bytes) -> str:
    if data.startswith((codecs.BOM_UTF16_LE, codecs.BOM_UTF16_BE)):
        return data.decode("utf-16", errors="replace")
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError:
        return data.decode("latin-1")


def _count(segments: int) -> None:
    if segments > MOST_SEGMENTS:
        raise refuse(
            "file",
            f"it has more than {MOST_SEGMENTS} segments; simplify the drawing or "
            "leave only the outline in it",
        )


def _svg(data: bytes) -> Chains:
    """Every drawn shape of an SVG file, transforms and viewBox applied."""
    import svgelements

    library: Any = svgelements

    root = _check_xml(data)
    try:
        size = _size_by_shape(root, library)
        document = library.SVG.parse(io.StringIO(_text(data)), reify=True, ppi=96.0, **size)
        chains: Chains = []
        back = _own_frame(document, library.Matrix)
        for element in document.elements():
            if (
                not isinstance(element, library.Shape)
                or element.values.get("visibility") == "hidden"
            ):
                continue
            chains += _path_chains(library.Path(element) * back)
            _count(sum(map(len, chains)))
    except InputError:
        raise
    except UNSOUND as problem:
        raise refuse("file", f"its drawing cannot be read: {problem}") from problem
    return chains


def _size_by_shape(root: Any, library: Any) -> dict[str, float]:
    """The side of a drawing that is not given, in pixels, by the shape of its viewBox.

    A drawing of which one side is told is as large as that side says, not a pixel a unit.
    """
    box = [float(v) for v in root.get("viewBox", "").replace(",", " ").split()]
    if len(box) != 4 or min(box[2:]) <= 0.0:
        return {}
    given = {side: root.get(side) for side in ("width", "height")}
    for side, other, ratio in (
        ("width", "height", box[3] / box[2]),
        ("height", "width", box[2] / box[3]),
    ):
        told = given[side]
        if told and "%" not in told and not given[other]:
            return {other: float(library.Length(told).value(ppi=96.0)) * ratio}
    return {}


def _check_xml(data: bytes) -> Any:
    """The root of a drawing; entities, external references and depth are refused before."""
    from defusedxml import DefusedXmlException, ElementTree

    try:
        root = ElementTree.fromstring(data, forbid_dtd=True)
    except DefusedXmlException as problem:
        raise refuse("file", "it declares entities or a document type; save it plain") from problem
    except (ElementTree.ParseError, ValueError, LookupError) as problem:
        raise refuse("file", f"it is not sound XML: {problem}") from problem
    if root.tag.rsplit("}", 1)[-1] != "svg":
        raise refuse("file", "it is not an SVG drawing")
    for i, element in enumerate(root.iter()):
        _count(i // 2)
        for key, value in element.attrib.items():
            if key.rsplit("}", 1)[-1] == "href" and not value.startswith(("#", "data:")):
                raise refuse("file", f"it refers to another file ({value[:60]!r}); embed it")
    _count(_expanded(root))
    return root


def _expanded(root: Any) -> int:
    """Elements that a drawing has once every use stands for what it refers to.

    Counted without expanding anything; InputError for a part that refers to itself.
    """
    named = {e.get("id"): e for e in root.iter() if e.get("id")}
    known: dict[Any, int] = {}
    open_parts: set[Any] = set()

    def size(element: Any) -> int:
        if element in known:
            return known[element]
        if element in open_parts:
            raise refuse("file", "a part of it refers to itself")
        open_parts.add(element)
        found = 1 + sum(size(child) for child in element)
        if element.tag.rsplit("}", 1)[-1] == "use":
            hrefs = [v for k, v in element.attrib.items() if k.rsplit("}", 1)[-1] == "href"]
            target = named.get(hrefs[0].removeprefix("#")) if hrefs else None
            found += size(target) if target is not None else 0
        open_parts.discard(element)
        known[element] = found
        return found

    try:
        return size(root)
    except RecursionError as problem:
        raise refuse("file", "its parts nest too deep") from problem


def _own_frame(document: Any, matrix: Any) -> Any:
    """From svgelements' pixels back to the file's own frame, scaled to mm.

    The width and viewBox give the scale; the frame's origin stays where the file has it.
    """
    box = document.viewbox
    if box is None or document.viewbox_transform in (None, ""):
        return matrix.scale(MM_PER_PX)
    view = matrix(document.viewbox_transform)
    shift = matrix.translate(-view.e, -view.f)
    return shift * matrix.scale(MM_PER_PX)


def _xy(point: Any) -> Point:
    return float(point.x), float(point.y)


def _path_chains(path: Any) -> Chains:
    chains: Chains = []
    current: list[Segment] = []
    for piece in path.segments():
        kind = type(piece).__name__
        if kind == "Move":
            if current:
                chains.append(current)
            current = []
        elif kind == "Arc":
            current.append(_svg_arc(piece))
        elif kind == "CubicBezier":
            points = (piece.start, piece.control1, piece.control2, piece.end)
            current.append(Cubic(*(_xy(p) for p in points)))
        elif kind == "QuadraticBezier":
            current.append(_raised(_xy(piece.start), _xy(piece.control), _xy(piece.end)))
        elif piece.start is not None and piece.end is not None and piece.start != piece.end:
            current.append(LineSegment(_xy(piece.start), _xy(piece.end)))
        _count(len(current))
    if current:
        chains.append(current)
    return chains


def _raised(a: Point, control: Point, b: Point) -> Cubic:
    """A quadratic Bézier as the same cubic."""

    def two_thirds(p: Point) -> Point:
        return p[0] + 2 / 3 * (control[0] - p[0]), p[1] + 2 / 3 * (control[1] - p[1])

    return Cubic(a, two_thirds(a), two_thirds(b), b)


def _svg_arc(piece: Any) -> EllipseArc:
    cx, cy = _xy(piece.center)
    ux, uy = _xy(piece.prx)
    vx, vy = _xy(piece.pry)
    return EllipseArc(
        (cx, cy), (ux - cx, uy - cy), (vx - cx, vy - cy), piece.get_start_t(), piece.sweep
    )


def _dxf(data: bytes, unit: str | None) -> Chains:
    """Model-space curves of a DXF file in mm by $INSUNITS, or the unit given."""
    import ezdxf

    # What it notices of a spoilt file is told to the one who brought it, not to the log.
    logging.getLogger("ezdxf").setLevel(logging.CRITICAL)
    from ezdxf.lldxf.const import DXFError

    try:
        drawing = ezdxf.read(io.StringIO(_text(data)))  # type: ignore[attr-defined]
    except UNSOUND as problem:
        raise refuse("file", f"it is not a sound DXF drawing: {problem}") from problem
    except DXFError as problem:
        raise refuse("file", f"it is not a sound DXF drawing: {problem}") from problem
    stated = INSUNITS.get(int(drawing.header.get("$INSUNITS", 0)))
    if unit is None and stated is None:
        raise refuse(
            "unit", f"the drawing does not say its unit; give one of {', '.join(UNITS_MM)}"
        )
    scale = UNITS_MM[unit or stated or "mm"]
    chains: Chains = []
    loose: list[Segment] = []
    try:
        for entity in _entities(drawing.modelspace(), 0, _Budget()):
            pieces = list(_dxf_segments(entity, scale))
            if entity.dxftype() in ("LINE", "ARC"):
                loose += pieces
            elif pieces:
                chains.append(pieces)
            _count(len(loose) + sum(map(len, chains)))
    except InputError:
        raise
    except (DXFError, *UNSOUND) as problem:
        raise refuse("file", f"a curve in it cannot be read: {problem}") from problem
    return chains + chain_up(loose)


class _Budget:
    """What may be looked at in the whole of a file, kept while it is expanded."""

    def __init__(self) -> None:
        self._seen = 0

    def take(self, number: int = 1) -> None:
        self._seen += number
        _count(self._seen)


def _entities(layout: Any, depth: int, budget: _Budget) -> Iterator[Any]:
    """Entities with blocks resolved, to a depth and a number over the whole file."""
    if depth > MOST_DEPTH:
        raise refuse("file", f"its blocks nest deeper than {MOST_DEPTH}")
    for entity in layout:
        budget.take()
        if entity.dxftype() == "INSERT":
            if entity.mcount > 100:
                raise refuse("file", "it repeats a block more than 100 times")
            block = entity.block()
            budget.take(entity.mcount * (len(block) if block is not None else 0))
            yield from _entities(entity.virtual_entities(), depth + 1, budget)
        else:
            yield entity


def _dxf_segments(entity: Any, k: float) -> Iterator[Segment]:
    kind = entity.dxftype()
    if kind == "LINE":
        a, b = entity.dxf.start, entity.dxf.end
        yield LineSegment((a.x * k, a.y * k), (b.x * k, b.y * k))
    elif kind in ("ARC", "CIRCLE"):
        yield _dxf_arc(entity, k)
    elif kind == "ELLIPSE":
        yield _dxf_ellipse(entity, k)
    elif kind in ("LWPOLYLINE", "POLYLINE"):
        for part in entity.virtual_entities():
            yield from _dxf_segments(part, k)
    elif kind == "SPLINE":
        from ezdxf.math import BSpline

        spline: BSpline = entity.construction_tool()
        exact = spline.degree == 3 and not spline.is_rational
        for points in spline.bezier_decomposition() if exact else _cubics(spline):
            yield Cubic(*((p.x * k, p.y * k) for p in points))


def _cubics(spline: Any) -> Iterator[tuple[Any, ...]]:
    """A rational or unusual spline as cubics that share its places and directions.

    Each span between knots in so many parts: a circle's radius comes out to a part in ten
    thousand. The places just inside a knot are taken, since the direction may turn at it.
    """
    knots = sorted(set(spline.knots()))
    spans = [(a, b) for a, b in pairwise(knots) if b - a > 1e-12 * (knots[-1] - knots[0])]
    parts = max(LEAST_PARTS, min(PARTS_A_SPAN, MOST_SEGMENTS // (2 * max(len(spans), 1))))
    _count(len(spans) * parts)
    for first, last in spans:
        edge = 1e-9 * (last - first)
        places = [first + (last - first) * i / parts for i in range(parts + 1)]
        places[0], places[-1] = first + edge, last - edge
        found = list(spline.derivatives(places, n=1))
        for (t0, (p0, d0)), (t1, (p1, d1)) in pairwise(zip(places, found, strict=True)):
            third = (t1 - t0) / 3.0
            yield p0, p0 + d0 * third, p1 - d1 * third, p1


def _dxf_arc(entity: Any, k: float) -> EllipseArc:
    centre = entity.ocs().to_wcs(entity.dxf.center)
    r = entity.dxf.radius * k
    mirrored = -1.0 if entity.dxf.extrusion.z < 0 else 1.0
    first, last = 0.0, 360.0
    if entity.dxftype() == "ARC":
        first, last = entity.dxf.start_angle, entity.dxf.end_angle
    sweep = (last - first) % 360.0 or 360.0
    return EllipseArc(
        (centre.x * k, centre.y * k),
        (r * mirrored, 0.0),
        (0.0, r),
        math.radians(first),
        math.radians(sweep),
    )


def _dxf_ellipse(entity: Any, k: float) -> EllipseArc:
    centre, major, minor = entity.dxf.center, entity.dxf.major_axis, entity.minor_axis
    sweep = (entity.dxf.end_param - entity.dxf.start_param) % (2 * math.pi) or 2 * math.pi
    return EllipseArc(
        (centre.x * k, centre.y * k),
        (major.x * k, major.y * k),
        (minor.x * k, minor.y * k),
        entity.dxf.start_param,
        sweep,
    )
