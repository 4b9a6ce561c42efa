"""Outlines: the tightest radius by hand and by worked case; hostile files refused quickly."""

import io
import json
import math
import time
from pathlib import Path

import ezdxf
import numpy as np
import pytest
from ezdxf.filemanagement import new
from ezdxf.math import BSpline, rational_bspline_from_arc
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.mechanics.outline import (
    Cubic,
    EllipseArc,
    LineSegment,
    chain_up,
    measure,
    radii,
    tightest,
)
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.formats.outline import MOST_BYTES, read_outline

DATA = Path(__file__).parents[1] / "data"
CASES = json.loads((DATA / "curves.json").read_text())


def svg(body: str, frame: str = 'width="100mm" height="100mm" viewBox="0 0 100 100"') -> bytes:
    return f'<svg xmlns="http://www.w3.org/2000/svg" {frame}>{body}</svg>'.encode()


@pytest.mark.parametrize("case", CASES, ids=lambda c: c["file"])
def test_worked_outlines(case: dict[str, object]) -> None:
    file = DATA / str(case["file"])
    found = read_outline(file.read_bytes(), file.name)
    assert found.min_radius_mm == pytest.approx(case["min_radius_mm"], rel=0.005)
    assert found.length_mm == pytest.approx(case["length_mm"], rel=0.005)
    assert len(found.corners) == case["corners"]


@given(st.floats(2, 500), st.floats(1, 4))
def test_an_ellipse_is_tightest_at_its_long_ends(b: float, ratio: float) -> None:
    a = b * ratio
    found = tightest(EllipseArc((0, 0), (a, 0), (0, b), 0.0, 2 * math.pi))
    assert found is not None
    assert math.isclose(found.radius_mm, b * b / a, rel_tol=1e-4)


@given(st.floats(0.1, 10), st.floats(-180, 180))
def test_scaling_scales_and_turning_changes_nothing(k: float, turn: float) -> None:
    points = np.array([[10, 90], [60, -40], [140, 180], [190, 30]], dtype=float)
    c, s = math.cos(math.radians(turn)), math.sin(math.radians(turn))
    moved = (points * k) @ np.array([[c, -s], [s, c]])
    plain = tightest(Cubic(*(tuple(p) for p in points)))
    other = tightest(Cubic(*(tuple(p) for p in moved)))
    assert plain is not None and other is not None
    assert math.isclose(other.radius_mm, plain.radius_mm * k, rel_tol=1e-4)


def test_straight_lines_have_corners_and_no_radius() -> None:
    square = [
        LineSegment((0, 0), (10, 0)),
        LineSegment((10, 0), (10, 10)),
        LineSegment((10, 10), (0, 10)),
        LineSegment((0, 10), (0, 0)),
    ]
    found = measure([square])
    assert (found.min_radius_mm, found.length_mm, len(found.corners)) == (None, 40, 4)


def test_loose_lines_are_joined_whatever_their_order_and_sense() -> None:
    loose = [
        LineSegment((10, 10), (10, 0)),
        LineSegment((0, 0), (10, 0)),
        LineSegment((0, 10), (10, 10)),
    ]
    chains = chain_up(loose)
    assert len(chains) == 1
    assert len(measure(chains).corners) == 2


@pytest.mark.parametrize(
    ("frame", "radius"),
    [
        ('width="100mm" height="100mm" viewBox="0 0 100 100"', 10.0),
        ('width="50mm" height="50mm" viewBox="0 0 100 100"', 5.0),
        ('width="4in" height="4in" viewBox="0 0 4 4"', 254.0),
        ('width="100pt" height="100pt" viewBox="0 0 100 100"', 10 * 25.4 / 72),
        ('width="96" height="96"', 10 * 25.4 / 96),
    ],
)
def test_units_follow_width_and_view_box(frame: str, radius: float) -> None:
    found = read_outline(svg('<circle cx="20" cy="20" r="10"/>', frame), "a.svg")
    assert found.min_radius_mm == pytest.approx(radius, rel=1e-4)


def test_transforms_and_nested_groups_count() -> None:
    nested = '<g transform="scale(2)"><g transform="rotate(30)"><circle r="5"/></g></g>'
    assert read_outline(svg(nested), "a.svg").min_radius_mm == pytest.approx(10, rel=1e-4)
    stretched = '<g transform="scale(2 1)"><circle r="10"/></g>'
    assert read_outline(svg(stretched), "a.svg").min_radius_mm == pytest.approx(5, rel=1e-3)


def test_the_place_is_in_the_file_s_own_frame() -> None:
    shifted = 'width="100mm" height="100mm" viewBox="-50 -50 100 100"'
    found = read_outline(svg('<path d="M-40 0 A10 10 0 0 1 -20 0"/>', shifted), "a.svg")
    assert found.at_mm is not None
    assert math.dist(found.at_mm, (-30, 0)) == pytest.approx(10, rel=1e-3)


def dxf(units: int, draw: str) -> bytes:
    drawing = ezdxf.new(units=units)  # type: ignore[attr-defined]
    space = drawing.modelspace()
    if draw == "bulge":
        space.add_lwpolyline([(0, 0, 0), (10, 0, 1), (10, 10, 0)], format="xyb")
    elif draw == "ellipse":
        space.add_ellipse((0, 0), major_axis=(20, 0), ratio=0.5)
    elif draw == "spline":
        space.add_spline([(0, 0), (10, 10), (20, 0), (30, 10)])
    elif draw == "block":
        block = drawing.blocks.new("B")
        block.add_circle((0, 0), 5)
        space.add_blockref("B", (10, 10), dxfattribs={"xscale": 3, "yscale": 3})
    elif draw == "text":
        space.add_text("hello")
    stream = io.StringIO()
    drawing.write(stream)
    return stream.getvalue().encode()


@pytest.mark.parametrize(
    ("units", "draw", "radius"),
    [
        (4, "bulge", 5.0),
        (1, "bulge", 127.0),
        (5, "ellipse", 50.0),
        (4, "block", 15.0),
    ],
)
def test_dxf_curves_and_units(units: int, draw: str, radius: float) -> None:
    assert read_outline(dxf(units, draw), "a.dxf").min_radius_mm == pytest.approx(radius, rel=1e-3)


def spline_file(spline: BSpline) -> bytes:
    """A drawing in mm with one spline in it."""
    drawing = new()
    drawing.header["$INSUNITS"] = 4
    drawing.modelspace().add_spline().apply_construction_tool(spline)
    text = io.StringIO()
    drawing.write(text)
    return text.getvalue().encode()


@pytest.mark.parametrize("radius", [12.0, 120.0, 900.0])
def test_a_rational_circle_has_its_radius(radius: float) -> None:
    """Within a tenth of a per cent, and soon."""
    circle = rational_bspline_from_arc(radius=radius, start_angle=0, end_angle=360)
    found = read_outline(spline_file(circle), "circle.dxf", None)
    assert found.min_radius_mm == pytest.approx(radius, rel=0.001)
    assert found.length_mm == pytest.approx(2 * math.pi * radius, rel=1e-5)
    assert found.corners == ()


@pytest.mark.parametrize("degree", [2, 3, 4, 5, 7])
def test_ordinary_splines_of_any_degree_are_read(degree: int) -> None:
    """A wave through twelve points: tightest at a crest, wherever that is between them."""
    points = [(20.0 * i, 30.0 * math.sin(0.9 * i)) for i in range(12)]
    spline = BSpline(points, order=degree + 1)
    found = read_outline(spline_file(spline), "wave.dxf", None)
    fine = list(spline.derivatives([spline.max_t * i / 20_000 for i in range(1, 20_000)], n=2))
    least = min(
        math.hypot(d1.x, d1.y) ** 3 / max(abs(d1.x * d2.y - d1.y * d2.x), 1e-12)
        for _, d1, d2 in fine
    )
    assert found.min_radius_mm == pytest.approx(least, rel=0.01)


def test_a_spline_passes_smoothly() -> None:
    found = read_outline(dxf(4, "spline"), "a.dxf")
    assert found.min_radius_mm is not None and 1 < found.min_radius_mm < 20
    assert found.corners == ()


def test_a_drawing_without_unit_asks_for_it() -> None:
    with pytest.raises(InputError, match="does not say its unit; give one of mm, cm"):
        read_outline(dxf(0, "bulge"), "a.dxf")
    assert read_outline(dxf(0, "bulge"), "a.dxf", "in").min_radius_mm == pytest.approx(127)


BOMB = (
    b'<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">]>'
    b'<svg xmlns="http://www.w3.org/2000/svg"><text>&b;</text></svg>'
)


@pytest.mark.parametrize(
    ("data", "name", "words"),
    [
        (b"", "a.svg", "it is empty"),
        (b"   ", "a.dxf", "it is empty"),
        (b"<svg", "a.svg", "not sound XML"),
        (b"<html/>", "a.svg", "not an SVG drawing"),
        (BOMB, "a.svg", "declares entities"),
        (svg('<image href="http://elsewhere/x.png"/>'), "a.svg", "refers to another file"),
        (svg("<text>only words</text>"), "a.svg", "no line or curve"),
        (svg('<path d="M0 0 L broken"/>'), "a.svg", "."),
        (svg('<path d="' + "M0 0 L1 1 " * 9000 + '"/>'), "a.svg", "more than 6000 segments"),
        (svg("<g>" * 4000 + "</g>" * 4000), "a.svg", "."),
        (b"x" * (MOST_BYTES + 1), "a.svg", "too large"),
        (b"0\nSECTION\n2\nENTITIES\n0\n", "a.dxf", "."),
        (b"\x00\xff" * 500, "a.dxf", "."),
        (b"hello", "a.pdf", "neither .svg nor .dxf"),
    ],
)
def test_hostile_and_broken_files_are_refused_quickly(data: bytes, name: str, words: str) -> None:
    with pytest.raises(InputError):
        read_outline(b"warm", name)  # the libraries' own first import is not the file's doing
    start = time.process_time()
    with pytest.raises(InputError, match=words):
        read_outline(data, name, "mm")
    assert time.process_time() - start < 2


def nested_uses(levels: int) -> bytes:
    """A small drawing whose uses of uses of uses are ten to the power of its levels."""
    parts = "".join(
        f'<g id="p{i}">' + f'<use href="#p{i - 1}"/>' * 10 + "</g>" for i in range(1, levels)
    )
    return svg(f'<defs><path id="p0" d="M0 0L9 9"/>{parts}</defs><use href="#p{levels - 1}"/>')


def nested_inserts(levels: int) -> bytes:
    """The same of a DXF: blocks that insert the block before them ten times."""
    drawing = new()
    drawing.blocks.new("B0").add_line((0, 0), (9, 9))
    for i in range(1, levels):
        block = drawing.blocks.new(f"B{i}")
        for _ in range(10):
            block.add_blockref(f"B{i - 1}", (0, 0))
    drawing.modelspace().add_blockref(f"B{levels - 1}", (0, 0))
    text = io.StringIO()
    drawing.write(text)
    return text.getvalue().encode()


@pytest.mark.parametrize(
    ("data", "name", "words"),
    [
        (nested_uses(7), "a.svg", "more than 6000"),
        (svg('<g id="a"><use href="#a"/></g>'), "a.svg", "refers to itself"),
        (nested_inserts(7), "a.dxf", "more than 6000"),
        (svg('<circle r="1e308" cx="1e308"/>'), "a.svg", "."),
        (b"\xff\xfe" + b"<" * 99, "a.svg", "."),
    ],
)
def test_a_small_file_that_grows_is_counted_before_it_is_expanded(
    data: bytes, name: str, words: str
) -> None:
    test_hostile_and_broken_files_are_refused_quickly(data, name, words)


def test_a_few_uses_are_drawn() -> None:
    one = read_outline(svg('<path id="p" d="M0 0L9 0"/>'), "a.svg")
    wide = svg('<path id="p" d="M0 0L9 0"/>').decode().encode("utf-16")
    assert read_outline(wide, "a.svg").length_mm == one.length_mm
    three = read_outline(svg('<path id="p" d="M0 0L9 0"/>' + '<use href="#p" y="5"/>' * 2), "a.svg")
    assert three.length_mm == pytest.approx(3 * one.length_mm)


def test_text_only_dxf_has_no_outline() -> None:
    with pytest.raises(InputError, match="no line or curve"):
        read_outline(dxf(4, "text"), "a.dxf")


@given(
    st.floats(0.1, 300),
    st.floats(0.02, 50),
    st.floats(-3.0, 3.0),
    st.floats(-7.0, 7.0),
    st.floats(0.05, 6.28),
)
def test_an_arc_is_tightest_where_a_fine_look_finds_it(
    a: float, b: float, lean: float, first: float, sweep: float
) -> None:
    arc = EllipseArc((3.0, -2.0), (a, 0.3 * a), (lean * b, b), first, sweep)
    found = tightest(arc)
    _, speed, bend = arc.at(np.linspace(0.0, 1.0, 20_001))
    looked = float(radii(speed, bend).min())
    assert found is not None or looked > 1e7 * 0.99
    if found is not None:
        assert found.radius_mm <= looked * (1 + 1e-9)
        assert found.radius_mm == pytest.approx(looked, rel=1e-3, abs=1e-6)


def test_places_no_workpiece_has_are_refused() -> None:
    with pytest.raises(InputError, match="larger than 1000 m"):
        read_outline(svg('<path d="M0 0 C 1e300 1 2 1e300 9 9"/>'), "a.svg")


@pytest.mark.parametrize(
    "frame",
    [
        'width="40mm" height="40mm" viewBox="0 0 40 40"',
        'width="40mm" viewBox="0 0 40 40"',
        'height="4cm" viewBox="0,0,40,40"',
        'width="80mm" viewBox="0 0 80 20"',
        'height="20mm" viewBox="0 0 80 20"',
    ],
)
def test_one_side_told_sizes_a_drawing_by_its_shape(frame: str) -> None:
    found = read_outline(svg('<circle cx="20" cy="10" r="9"/>', frame), "a.svg")
    assert found.min_radius_mm == pytest.approx(9.0, rel=1e-4)
