"""One band in one job: comfort, windows, paces, energy."""

import dataclasses

import pytest

from jade_ribbon.core.choosing.evaluate import evaluate
from jade_ribbon.core.choosing.operating_point import comfort_factor, paced_feed
from jade_ribbon.core.job import Job, Rules
from jade_ribbon.core.mechanics.feed import window_from_limits
from tests.support.jobs import K07, in_material


def test_comfort_grows_in_green_or_deep_stock(job: Job) -> None:
    thin = in_material(job, "red_oak_dry", height_mm=30.0)
    assert comfort_factor(thin) == 1.25
    assert comfort_factor(in_material(job, "red_oak_green", height_mm=30.0)) == 1.6
    assert comfort_factor(in_material(job, "red_oak_dry", height_mm=80.0)) == 1.6
    assert comfort_factor(dataclasses.replace(thin, rules=Rules(radius="tightest"))) == 1.0


def test_the_window_s_states() -> None:
    assert window_from_limits({"power": 2.0}, 1.0).state == "open"
    assert window_from_limits({"power": 1.0}, 1.0).recommended_m_min == 1.0
    hot = window_from_limits({"power": 0.5, "bite": 3.0}, 1.0)
    assert (hot.state, hot.binding, hot.recommended_m_min) == ("hot", "power", 0.4)
    shut = window_from_limits({"power": 0.49}, 1.0)
    assert (shut.state, shut.recommended_m_min) == ("shut", None)


def test_paces_by_rule_and_finish(job: Job) -> None:
    window = window_from_limits({"power": 3.0}, 1.0)
    slow = dataclasses.replace(job, rules=Rules(feed_pace="finish"))
    show = dataclasses.replace(job, cut=dataclasses.replace(job.cut, finish="show"))
    assert paced_feed(window, job) == pytest.approx(2.4)
    assert paced_feed(window, slow) == 1.0
    assert paced_feed(window, show) == pytest.approx(1.6)
    assert paced_feed(window_from_limits({"power": 0.1}, 1.0), job) is None


def test_crosscuts_take_three_quarters_of_the_energy(job: Job) -> None:
    along = evaluate(K07, job).window
    across = dataclasses.replace(job, cut=dataclasses.replace(job.cut, operation="crosscut"))
    over = evaluate(K07, across).window
    assert along is not None and over is not None
    ratio = over.limits_m_min["power"] / along.limits_m_min["power"]
    assert ratio == pytest.approx((1 / 0.75) ** (1 / 0.65))
