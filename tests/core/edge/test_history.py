"""A band's history replayed, its life, wear of a run, and the set-up card."""

from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.edge.edge_states import edge_state
from jade_ribbon.core.edge.history import WORN, BandHistory, replay, replayed
from jade_ribbon.core.edge.run_wear import run_wear
from jade_ribbon.core.edge.sharpness import Judged, how_keen
from jade_ribbon.core.edge.shop_life import (
    LifeRecord,
    ShopLives,
    chance_to_last,
    life_in,
    metres_left,
    own_life_m,
    to_wood_metres,
)
from jade_ribbon.core.job import Job
from jade_ribbon.core.mechanics.life import SHAPE, survival
from jade_ribbon.core.mechanics.wear import fouling
from jade_ribbon.reference.tables import materials
from tests.support.histories import K07, event, run


def test_sharpening_ends_a_life_and_starts_the_next() -> None:
    state = replay(
        [run(1), run(2), run(5)], [event(0, "arrived"), event(3, "sharpened", value=0.9)]
    )
    assert (state.sharpenings, state.edge_equivalent_m, state.total_contact_m) == (1, 100, 300)
    assert [(x.number, x.equivalent_m, x.ending) for x in state.lives] == [
        (0, 200.0, "dull"),
        (1, 100.0, None),
    ]


def test_order_of_entry_does_not_matter() -> None:
    runs, events = [run(1), run(5), run(2)], [event(3, "sharpened"), event(4, "cleaned")]
    assert replay(runs, events) == replay(sorted(runs, key=lambda r: r.at), events[::-1])


@given(
    days=st.lists(st.integers(0, 30), max_size=12).map(sorted),
    others=st.lists(
        st.tuples(st.integers(0, 30), st.sampled_from(["sharpened", "cleaned", "edge_judged"])),
        max_size=6,
    ),
)
def test_the_edge_after_each_run_is_the_replay_so_far(
    days: list[int], others: list[tuple[int, str]]
) -> None:
    runs = [run(day, metres=10.0 + i) for i, day in enumerate(days)]
    events = [event(day, kind, value=35.0) for day, kind in others]
    so_far = tuple(
        replay(runs[: i + 1], [e for e in events if e.at <= r.at]).edge_equivalent_m
        for i, r in enumerate(runs)
    )
    assert tuple(mark.after_m for mark in replayed(runs, events).marks) == so_far


def test_a_crack_only_censors_a_life() -> None:
    worn = replay([run(1)], [event(2, "scrapped", "worn")])
    cracked = replay([run(1)], [event(2, "scrapped", "crack")])
    assert [x.ending for x in worn.lives] == [WORN]
    assert [x.ending == WORN for x in cracked.lives] == [False]
    assert cracked.scrapped and cracked.edge_equivalent_m == 0


def test_gum_multiplies_what_is_clean_and_cleaning_takes_it_off() -> None:
    gummed = replay([run(1), run(2)], [])
    assert gummed.fouling == pytest.approx(1 - 0.9**2)
    assert replay([run(1), run(2)], [event(3, "cleaned")]).fouling == 0


def test_an_edge_judged_by_hand_wins_over_the_count() -> None:
    """Its metres stay what was run, or a life would be as long as somebody thought."""
    judged = replace(event(2, "edge_judged", "shaves hair", 30.0), said=0.003)
    state = replay([run(1), run(3)], [judged])
    assert state.edge_equivalent_m == 200
    assert state.judged == Judged(0.003, 100.0, since=1)
    assert state.confirmed_m == 100.0
    kinds = [e.kind for e in how_keen(state.edge, life_m=10_000, retired=9).evidence]
    assert kinds[:2] == ["metres", "judged"]


def test_an_edge_that_came_used_has_as_many_metres_as_it_looks() -> None:
    looked = replace(event(1, "edge_judged", "tired", 6000.0), said=0.75)
    state = replay([run(2)], [looked])
    assert state.edge_equivalent_m == 6100.0
    assert state.judged == Judged(0.75, 6000.0, since=1)


def test_a_hit_asks_for_a_look_until_somebody_looked() -> None:
    hit = event(1, "hit", "a nail")
    assert replay([], [hit]).look_first
    for kind in ("looked_at", "crack", "inspected"):
        assert not replay([], [hit, event(2, kind)]).look_first
    assert replay([], [event(1, "looked_at"), event(2, "hit")]).look_first


@pytest.mark.parametrize("told", [{"strikes": 1}, {"signs": ("band_off",)}])
def test_a_strike_or_a_band_come_off_in_a_run_asks_for_the_same_look(told: dict[str, Any]) -> None:
    struck = replace(run(1), counts=False, **told)
    assert replay([struck], []).look_first
    assert not replay([struck], [event(2, "looked_at")]).look_first
    assert not replay([run(1)], []).look_first


def test_each_run_knows_its_edge_and_the_metres_before_it() -> None:
    found = replayed([run(1), run(3), run(5)], [event(4, "sharpened")])
    assert [(m.edge_number, m.before_m, m.after_m) for m in found.marks] == [
        (0, 0.0, 100.0),
        (0, 100.0, 200.0),
        (1, 0.0, 100.0),
    ]


def test_nothing_gives_a_new_band() -> None:
    assert replay([], []) == BandHistory()


@given(st.floats(0, 3), st.floats(0, 1), st.floats(0, 1e5))
def test_gum_stays_between_clean_and_full(gum: float, share: float, metres: float) -> None:
    assert 0 <= fouling(gum_factor=gum, gullet_share=share, contact_m=metres) <= 1


def test_the_shop_s_record_moves_the_life() -> None:
    key = ("carbon_flexback", 0)
    table = ShopLives([]).of(*key)
    short = ShopLives([LifeRecord(*key, 2000.0, True)] * 6).of(*key)
    long = ShopLives([LifeRecord(*key, 14_000.0, True)] * 6).of(*key)
    assert short.median_m < table.median_m < long.median_m
    assert (short.retired, table.retired) == (6, 0)
    resharpened = ShopLives([]).of("carbon_flexback", 2)
    assert resharpened.prior_life_m == pytest.approx(8000 * 0.81)


def test_the_odds_leave_out_the_band_s_own_metres() -> None:
    key = ("carbon_flexback", 0)
    alone = ShopLives([LifeRecord(*key, 3000.0, False)]).of(*key)
    others = ShopLives([]).of(*key).posterior
    odds = survival(alpha=others.alpha, beta=others.beta, shape=SHAPE, used_m=3000, next_m=500)
    assert chance_to_last(alone, used_m=3000, next_m=500) == pytest.approx(odds.probability)
    assert own_life_m(alone, used_m=3000) == pytest.approx(others.median_life_m)
    near, middle, far = metres_left(alone, used_m=3000)
    assert 0 < near < middle < far
    assert chance_to_last(alone, used_m=3000, next_m=middle) == pytest.approx(0.5)


def test_metal_metres_are_brought_to_the_steel_s_wood_life() -> None:
    steel = materials()["mild_steel"]
    wood = materials()["red_oak_dry"]
    assert to_wood_metres(90, steel_key="bimetal_m42", material=steel) == pytest.approx(30)
    assert to_wood_metres(90, steel_key="bimetal_m42", material=wood) == 90
    assert life_in(24_000, steel_key="bimetal_m42", material=steel) == pytest.approx(72_000)


def test_wear_of_a_run_by_hand(job: Job) -> None:
    """7 x 3.6 m at 2 m/min: 756 s; passes sV/L; metres = passes x 0.185 m."""
    wear = run_wear(K07, job, feed_m_min=2.0, speed_m_s=14.5)
    passes = 756 * 14.5 / 3.36
    assert wear.contact_m == pytest.approx(passes * 0.185)
    bite = 2 / 60 * 12.7 / 14.5
    assert wear.equivalent_m == pytest.approx(wear.contact_m * 0.65 * (bite / 0.012) ** 0.5)
    assert not wear.hot


def test_crawling_is_hot_and_wears_twice(job: Job) -> None:
    slow = run_wear(K07, job, feed_m_min=0.3, speed_m_s=14.5)
    assert slow.hot
    bite = 0.3 / 60 * 12.7 / 14.5
    term = max((bite / 0.012) ** 0.5, 2 / 3)
    assert slow.equivalent_m == pytest.approx(2 * slow.contact_m * 0.65 * term)


def test_edge_states_have_ends() -> None:
    assert [edge_state(d).key for d in (0, 0.35, 0.6, 0.9, 5)] == [
        "keen",
        "fair",
        "tired",
        "spent",
        "spent",
    ]
