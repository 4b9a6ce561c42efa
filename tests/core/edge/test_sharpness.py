"""Signs at runs move how keen an edge is; smoke takes half of what is left."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.edge.history import replay
from jade_ribbon.core.edge.sharpness import keenness, odds_of, with_signs
from jade_ribbon.core.mechanics.life import life_scatter, metres_sd
from tests.support.histories import event, run, seen


@given(st.floats(0, 1.5), st.floats(0.03, 0.6), st.floats(0.1, 200))
def test_signs_of_dullness_never_make_an_edge_keener(mean: float, sd: float, odds: float) -> None:
    moved = with_signs(mean, sd=sd, odds=odds)
    assert math.isfinite(moved)
    assert moved >= mean - 1e-9 if odds >= 1.0 else moved <= mean + 1e-9


def test_odds_move_the_weight_past_four_fifths_by_hand() -> None:
    """At a mean of 0.8 half is past it; odds of 3 make that three quarters: mean + 0.25 x 2 x m.

    m = sd sqrt(2/pi), the mean distance of either half.
    """
    half = 0.2 * math.sqrt(2.0 / math.pi)
    assert with_signs(0.8, sd=0.2, odds=3.0) == pytest.approx(0.8 + 0.5 * half)


def test_no_sign_and_no_doubt_leave_it() -> None:
    assert with_signs(0.5, sd=0.2, odds=1.0) == 0.5
    assert with_signs(0.0, sd=0.03, odds=24.0) == 0.0
    assert odds_of([]) == 0.8 and odds_of(["burn", "smoke"]) == 24.0 and odds_of(["tick"]) == 0.8


def test_scatter_stays_however_many_lives_are_known() -> None:
    assert metres_sd(0.5, retired=10**6) == pytest.approx(0.5 * life_scatter(), rel=1e-3)
    assert metres_sd(0.5, retired=0) == pytest.approx(0.5 * life_scatter() * math.sqrt(2.0))
    assert metres_sd(0.0, retired=0) == 0.03


def test_discs_with_burn_and_smoke_do_not_stay_keen() -> None:
    """Little by its metres, but smoked through: at least half is gone, whatever the record."""
    state = replay([seen(run(1), "burn", "smoke")], [])
    dull = keenness(0.05, retired=0, odds=state.sign_odds, left_factor=state.left_factor)
    assert dull >= 0.5
    keen = replay([run(1)], [])
    assert keenness(0.05, retired=0, odds=keen.sign_odds, left_factor=keen.left_factor) <= 0.05


def test_signs_are_forgotten_at_the_sharpening_and_when_the_edge_is_judged() -> None:
    smoked = seen(run(1), "smoke")
    for kind in ("sharpened", "edge_judged"):
        state = replay([smoked], [event(2, kind, "looked at", 0.2)])
        assert (state.late_signs, state.left_factor) == ((), 1.0)


@pytest.mark.parametrize(
    ("signs", "value", "ending"),
    [
        ((), 0.9, "dull"),
        ((), 0.4, "early"),
        ((), None, "early"),
        (("fuzz",), None, "dull"),
        (("tick",), None, "early"),
        (("burn",), 0.3, "early"),
    ],
)
def test_a_life_is_retired_only_when_it_ended_dull(
    signs: tuple[str, ...], value: float | None, ending: str
) -> None:
    state = replay([seen(run(1), *signs)], [event(2, "sharpened", "", value)])
    assert state.ended[0].ending == ending


def test_defects_stay_until_mended() -> None:
    events = [event(1, "kink"), event(2, "weld_stepped")]
    assert replay([], events).defects == ("kink", "weld_stepped")
    assert replay([], [*events, event(3, "mended", "kink")]).defects == ("weld_stepped",)
    assert replay([], [*events, event(3, "mended")]).defects == ()


@pytest.mark.parametrize("named", ["", "crack", "teeth_lost"])
def test_a_crack_and_lost_teeth_are_never_mended(named: str) -> None:
    events = [event(1, "crack"), event(2, "teeth_lost", "", 2.0)]
    state = replay([], [*events, event(3, "mended", named), event(4, "sharpened")])
    assert (state.defects, state.teeth_lost) == (("crack", "teeth_lost"), 2)


def test_lost_teeth_add_up() -> None:
    lost = [event(1, "teeth_lost", "", 2.0), event(2, "teeth_lost", "", 1.0)]
    assert replay([], lost).teeth_lost == 3


def test_a_confirmed_life_is_the_one_named() -> None:
    runs = [run(1), run(3)]
    events = [event(2, "sharpened", "", 0.9), event(4, "still_good")]
    state = replay(runs, [*events, event(5, "life_confirmed", "", 0.0)])
    assert [life.confirmed_m for life in state.lives] == [100.0, 100.0]
    assert [life.confirmed_m for life in replay(runs, events).lives] == [0.0, 100.0]


def test_a_run_that_waits_to_be_confirmed_moves_no_wear() -> None:
    waits = seen(run(1), "smoke", counts=False)
    state = replay([waits], [])
    assert (state.edge_equivalent_m, state.fouling, state.runs) == (0.0, 0.0, 1)
    assert state.left_factor == 1.0
