"""A curve by its own stretches: the arc's feed at the arc, each other at what its radius lets."""

import math
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from jade_ribbon.core.choosing.choose import Ranked, choose
from jade_ribbon.core.choosing.limits import steering_at_m_min
from jade_ribbon.core.job import Job
from jade_ribbon.core.mechanics.outline import (
    EllipseArc,
    LineSegment,
    Stretch,
    measure,
    stretches_of,
)
from tests.support.jobs import with_cut


@pytest.fixture
def curve(job: Job) -> Job:
    return with_cut(
        job, operation="curve", min_radius_mm=60.0, height_mm=30.0, length_mm=1000.0, finish="rough"
    )


def ranked(job: Job) -> Ranked:
    found = choose(job).best
    assert found is not None
    return found


def along(job: Job, *stretches: tuple[float, float | None]) -> Job:
    return with_cut(job, stretches=tuple(Stretch(*s) for s in stretches))


def test_half_a_curve_is_arc_until_an_outline_says_otherwise(curve: Job) -> None:
    assert curve.cut.path == ((0.5, 60.0), (0.5, None))
    told = along(curve, (250.0, 60.0), (250.0, 300.0), (500.0, None))
    assert told.cut.path == ((0.25, 60.0), (0.25, 300.0), (0.5, None))
    assert with_cut(curve, operation="circle").cut.path == ((1.0, 60.0),)
    assert with_cut(curve, operation="rip", min_radius_mm=None).cut.path == ((1.0, None),)


def test_time_adds_up_by_hand(curve: Job) -> None:
    """60 mm of radius lets 0.7 x 75 = 52.5 mm/s, 3.15 m/min; 100 mm lets 4.83; then the pace, 5."""
    job = along(curve, (200.0, 60.0), (300.0, 100.0), (500.0, None))
    best = ranked(job)
    window = best.evaluation.window
    assert window is not None and window.binding == "steering"
    feeds = [0.8 * v for v in (3.15, 4.83, 5.0)]
    by_hand = sum(60.0 * mm / 1000.0 / v for mm, v in zip((200, 300, 500), feeds, strict=True))
    assert best.run.feed_m_min == pytest.approx(feeds[0])
    assert best.run.contact.cutting_time_s == pytest.approx(by_hand, rel=1e-6)
    assert steering_at_m_min(job, 100.0) == pytest.approx(4.83)


def test_one_stretch_at_the_tightest_is_a_circle(curve: Job) -> None:
    """Limiting case: all of it at the arc."""
    circle = ranked(with_cut(curve, operation="circle"))
    whole = ranked(along(curve, (1000.0, 60.0)))
    assert whole.run.contact.cutting_time_s == pytest.approx(circle.run.contact.cutting_time_s)


@settings(max_examples=25)
@given(st.lists(st.tuples(st.floats(10, 900), st.floats(60, 1900)), min_size=1, max_size=5))
def test_a_wider_path_never_takes_longer(stretches: list[tuple[float, float]]) -> None:
    from tests.core.choosing.test_house_rules import LARCH

    curve = with_cut(LARCH, operation="curve", min_radius_mm=60.0, height_mm=30.0, length_mm=1000.0)
    given_path = along(curve, (100.0, 60.0), *stretches)
    wider = along(curve, (100.0, 60.0), *((mm, 1.3 * r) for mm, r in stretches))
    slow, fast = (ranked(j).run.contact.cutting_time_s for j in (given_path, wider))
    assert fast <= slow * (1.0 + 1e-9)


def test_an_outline_is_told_by_its_radii() -> None:
    quarter = EllipseArc((0.0, 0.0), (50.0, 0.0), (0.0, 50.0), 0.0, math.pi / 2.0)
    line = LineSegment((0.0, 50.0), (-200.0, 50.0))
    bend, straight = stretches_of([line, quarter])
    assert bend.radius_mm == pytest.approx(50.0) and straight.radius_mm is None
    assert bend.length_mm == pytest.approx(25.0 * math.pi) and straight.length_mm == 200.0
    ellipse = EllipseArc((0.0, 0.0), (200.0, 0.0), (0.0, 80.0), 0.0, 2.0 * math.pi)
    found = measure([[ellipse]])
    assert sum(s.length_mm for s in found.stretches) == pytest.approx(found.length_mm, rel=1e-6)
    radii = [s.radius_mm or math.inf for s in found.stretches]
    assert radii == sorted(radii) and found.min_radius_mm is not None
    # Of an ellipse between b2/a and a2/b: 32 and 500 mm.
    assert found.min_radius_mm == pytest.approx(32.0, rel=1e-3)
    assert 32.0 <= radii[0] < 32.0 * 1.2 and 500.0 / 1.2 < radii[-1] <= 500.0


def test_sheet_cut_straight_is_no_curve(job: Job) -> None:
    """By hand at the pace of straight cuts; with a radius at that of curves."""

    def pace(**changed: Any) -> float:
        sheet = with_cut(job, operation="sheet", height_mm=18.0, length_mm=900.0, **changed)
        window = ranked(sheet).evaluation.window
        assert window is not None
        return window.limits_m_min["pace"]

    assert pace() == 8.0 and pace(min_radius_mm=150.0) == 5.0
