"""Sharpen or replace, spares, what next: by hand, in their limits, danger before money."""

import math
from dataclasses import replace
from itertools import pairwise
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.edge.sharpness import Keenness
from jade_ribbon.core.money.regrind_or_replace import (
    Bounds,
    SharpenTerms,
    SharpenWay,
    learned_ratio,
    most_times,
    sharpen_plan,
    ways,
)
from jade_ribbon.core.money.reorder import reorder_point
from jade_ribbon.core.money.what_next import (
    Standing,
    gum_money_per_hour,
    sharpening_gain,
    what_next,
)

money = st.floats(0, 500)
LIMITS: Any = {"show": 0.35, "sand": 0.6, "plane": 0.8, "rough": 1.0}


@given(st.floats(1, 500), st.floats(100, 50_000), money, st.floats(0.3, 1.0), st.integers(0, 12))
def test_the_best_times_are_the_least_and_no_sharpening_lengthens_the_next_life(
    price: float, life: float, each: float, ratio: float, most: int
) -> None:
    plan = sharpen_plan(
        price_new=price, life_new_m=life, sharpen_cost=each, life_ratio=ratio, times_most=most
    )
    costs = plan.cost_per_1000_m
    assert costs[plan.best_times] == min(costs)
    metres = [1000 * (price + n * each) / cost for n, cost in enumerate(costs)]
    lives = [b - a for a, b in zip([0.0, *metres], metres, strict=False)]
    assert all(b <= a * (1 + 1e-6) for a, b in pairwise(lives))


def test_sharpening_for_nothing_goes_on_and_for_a_new_band_s_price_never_pays() -> None:
    free = sharpen_plan(price_new=30, life_new_m=8000, sharpen_cost=0, life_ratio=0.9, times_most=6)
    assert free.best_times == 6
    dear = sharpen_plan(
        price_new=30, life_new_m=8000, sharpen_cost=30, life_ratio=0.9, times_most=6
    )
    assert (dear.best_times, dear.saving_share) == (0, 0.0)


def test_what_bounds_the_times() -> None:
    """Depth 5 mm: 0.35 x 5/0.25 = 7; bending 1e-5 a metre x 8000 = 0.08 a life: 11 lives."""
    common: Any = {"gullet_depth_mm": 5.0, "life_m": 8000.0, "bending_per_m": 1e-5}
    assert most_times(usual=8, is_grit=False, **common) == Bounds(
        7, "the depth of its teeth, ground away"
    )
    tired = most_times(usual=8, is_grit=False, **{**common, "bending_per_m": 1e-4})
    assert tired == Bounds(0, "its bending life")
    assert most_times(usual=3, is_grit=False, **common).times == 3
    assert most_times(usual=3, is_grit=True, **common).times == 0


def test_the_ratio_is_the_table_s_until_lives_speak() -> None:
    unknown, none = learned_ratio([(8000, 0), (7200, 0)])
    assert unknown == pytest.approx(0.9) and none == 0
    ratio, spoke = learned_ratio([(8000, 50), (5600, 50)])
    assert spoke == 50 and ratio == pytest.approx(0.7, abs=0.01)


def all_ways(**changed: Any) -> dict[str, SharpenWay]:
    given: dict[str, Any] = {
        "price_new": 40.0,
        "life_new_m": 8000.0,
        "life_ratio": 0.9,
        "times_most": 5,
        "terms": SharpenTerms(),
        "change_min": 12.0,
        "hour_rate": 30.0,
        "used_per_day_m": 400.0,
    }
    return {way.key: way for way in ways(**{**given, **changed})}


def test_ways_by_hand() -> None:
    """In house (25 + 12) min at 0.50 + 0.50; on the saw 20 min; sent out 14 + (5 + 12) x 0.50."""
    found = all_ways()
    assert found["in_house"].each == pytest.approx(19.0)
    assert found["on_saw"].each == pytest.approx(10.3)
    assert found["send_out"].each == pytest.approx(22.5)
    assert found["never"].plan.cost_per_1000_m[0] == pytest.approx(46 / 8)
    assert found["send_out"].spares == 1 and found["in_house"].spares == 0
    assert all_ways(used_per_day_m=4000.0)["send_out"].spares > 4


@given(st.integers(0, 200), st.floats(4, 300), st.floats(0.2, 30), st.floats(0.5, 0.99))
def test_the_reorder_point_is_the_least_that_serves(
    used: int, weeks: float, lead: float, service: float
) -> None:
    found = reorder_point(used_up=used, weeks=weeks, lead_weeks=lead, service=service)
    assert 1 - found.chance_of_running_out >= service - 1e-9
    r, p = used + 0.5, weeks / (weeks + lead)
    below = sum(
        math.exp(
            math.lgamma(r + k)
            - math.lgamma(r)
            - math.lgamma(k + 1)
            + r * math.log(p)
            + k * math.log1p(-p)
        )
        for k in range(found.reorder_at)
    )
    assert below < service + 1e-9
    longer = reorder_point(used_up=used, weeks=weeks, lead_weeks=2 * lead, service=service)
    assert longer.reorder_at >= found.reorder_at


def standing(dull: float, sd: float = 0.05, **changed: Any) -> Standing:
    plain = Standing(
        keen=Keenness(dull, sd, ()),
        limits=LIMITS,
        rule="demote",
        kept_for="all",
        fouling=0.0,
        bending_share=0.1,
        defects=(),
        teeth_lost=0,
        teeth_allowed=0,
        look_first=False,
        still_good_asked=False,
        gone="",
        sharpenings=1,
        bounds=Bounds(4, "what this steel repays"),
        way=all_ways()["on_saw"],
        price_new=46.0,
        life_new_m=8000.0,
        life_now_m=7200.0,
        life_next_m=6480.0,
        hour_rate=30.0,
    )
    return replace(plain, **changed)


@pytest.mark.parametrize(
    ("given", "do"),
    [
        (standing(0.1), "use"),
        (standing(0.95), "sharpen"),
        (standing(0.8), "cannot_tell"),
        (standing(0.95, 0.5), "cannot_tell"),
        (standing(0.9, way=None), "demote"),
        (standing(1.3, way=None), "scrap"),
        (standing(1.3, sharpenings=4), "scrap"),
        (standing(1.3, kept_for="rough", way=None), "scrap"),
        (standing(0.9, kept_for="rough"), "use"),
        (standing(0.75, kept_for="show"), "sharpen"),
        (standing(0.9, rule="limit"), "use"),
        (standing(0.5, rule="first_sign"), "sharpen"),
        (standing(0.1, fouling=0.7), "clean"),
        (standing(0.1, still_good_asked=True), "ask"),
        (standing(0.95, look_first=True), "look"),
        (standing(0.1, bending_share=0.85), "look"),
        (standing(0.1, defects=("crack",), look_first=True), "scrap"),
        (standing(0.1, defects=("kink",), look_first=True), "mend"),
        (standing(0.1, defects=("teeth_lost",), teeth_lost=2), "scrap"),
        (standing(0.1, gone="Scrapped."), "nothing"),
    ],
)
def test_danger_first_then_money_and_cannot_tell(given: Standing, do: str) -> None:
    assert what_next(given).do == do


def test_what_it_is_worth_by_hand() -> None:
    """Sharpened on the saw: 6480/8000 of 46 less 10.30; a keen edge: 0.9 of 7200/8000 of 46."""
    assert sharpening_gain(standing(0.95)) == pytest.approx(0.81 * 46 - 10.3)
    assert what_next(standing(0.95)).worth == pytest.approx(26.96)
    assert what_next(standing(0.1)).worth == pytest.approx(0.9 * 0.9 * 46)
    assert gum_money_per_hour(0.0, 0.3, 40.0) == 0.0
    assert 0.0 < gum_money_per_hour(0.5, 0.3, 40.0) < 40.0


def test_a_band_past_its_limit_that_sharpening_does_not_repay_is_replaced() -> None:
    dear = replace(all_ways()["send_out"], each=60.0)
    found = what_next(standing(1.3, way=dear))
    assert found.do == "scrap" and "costs more than its metres are worth" in str(found.words)
    assert found.worth == pytest.approx(60 - 0.81 * 46)
