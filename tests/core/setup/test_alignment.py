"""The alignment coach over a thousand simulated saws, and the saws that misbehave."""

from collections.abc import Sequence

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import metric
from jade_ribbon.core.setup.alignment import (
    MOST_MOVE_MM,
    MOST_TURNS,
    Move,
    Response,
    TurnAdvice,
    acts,
    advise,
    cap_turns,
    same_fault,
    turn_words,
)
from jade_ribbon.core.simulation.wheels import SimulatedWheel, follow, some_wheel


def true_it(wheel: SimulatedWheel, known: Response | None = None) -> tuple[TurnAdvice, list[Move]]:
    """Follow the coach to its end, checking the cap on the way."""
    said: list[TurnAdvice] = []

    def next_turn(start: float, moves: Sequence[tuple[float, float]]) -> float | None:
        made = [Move(*m) for m in moves]
        said.append(advise(start_mm=start, moves=made, known=known))
        advice = said[-1]
        if advice.state in ("done", "dead", "lost"):
            return None
        assert abs(advice.turns) <= MOST_TURNS
        assert abs(advice.turns * wheel.per_turn_mm) <= MOST_MOVE_MM + 1e-9
        return advice.turns

    moves = follow(wheel, next_turn)
    return said[-1], [Move(*m) for m in moves]


def test_a_thousand_saws_come_true_within_the_cap() -> None:
    random = np.random.default_rng(11)
    moves, left = [], []
    for _ in range(1000):
        saw = some_wheel(random)
        advice, made = true_it(saw)
        assert advice.state == "done"
        moves.append(len(made))
        left.append(abs(saw.gap_mm))
    assert np.median(moves) <= 3
    assert np.mean(np.array(moves) <= 5) >= 0.95
    assert np.mean(np.array(left) <= 0.3) >= 0.95
    assert max(left) < 0.5


def test_a_saw_that_does_not_answer_is_noticed_before_it_is_forced() -> None:
    for seed in range(60):
        saw = some_wheel(np.random.default_rng(seed))
        saw.per_turn_mm = 0.0
        advice, made = true_it(saw)
        assert advice.state == "dead" and len(made) <= 4
        assert "lock nut" in metric(advice.words)


def test_a_bolt_that_works_in_reverse_is_noticed_and_still_brought_true() -> None:
    for seed in range(40):
        saw = some_wheel(np.random.default_rng(seed))
        saw.per_turn_mm = -saw.per_turn_mm
        start = saw.read()
        first = advise(start_mm=start, moves=[])
        saw.turn(first.turns)
        moves = [Move(first.turns, saw.read())]
        second = advise(start_mm=start, moves=moves)
        assert second.state == "reversed" and np.sign(second.turns) == -np.sign(first.turns)
        assert "wrong way" in metric(second.words)


def test_what_is_known_of_a_saw_saves_moves() -> None:
    random = np.random.default_rng(5)
    fresh, known = [], []
    for _ in range(300):
        saw = some_wheel(random)
        again = SimulatedWheel(saw.gap_mm, saw.per_turn_mm, saw.backlash_turns, random)
        fresh.append(len(true_it(saw)[1]))
        known.append(len(true_it(again, Response(saw.per_turn_mm, 0.05))[1]))
    assert np.mean(known) < np.mean(fresh)


def test_the_response_is_learnt_from_the_turns() -> None:
    """Two turns of a half on a saw of 2 mm a turn: the estimate comes near 2."""
    learnt = advise(start_mm=3.0, moves=[Move(0.5, 2.0), Move(0.5, 1.0)]).response
    assert learnt.mm_per_turn == pytest.approx(2.0, abs=0.15)
    assert learnt.spread_mm < Response().spread_mm / 2


def test_within_tolerance_nothing_is_turned() -> None:
    advice = advise(start_mm=0.1, moves=[])
    assert (advice.state, advice.turns) == ("done", 0.0)
    assert "lock it" in metric(advice.words)


def test_it_gives_up_after_so_many_moves_and_says_where_to_look() -> None:
    wander = [Move(0.5 * (-1) ** i, 1.5 + 0.6 * (-1) ** i) for i in range(8)]
    assert advise(start_mm=1.5, moves=wander).state in ("lost", "dead")


@given(st.floats(-6, 6), st.floats(0.3, 5), st.floats(0, 1))
def test_the_cap_holds_for_any_gap_and_response(gap: float, rate: float, spread: float) -> None:
    known = Response(rate, spread)
    advice = advise(start_mm=gap, moves=[], known=known)
    assert abs(advice.turns) <= min(MOST_TURNS, MOST_MOVE_MM / rate) + 1 / 16
    assert cap_turns(known) * rate <= MOST_MOVE_MM + 1e-9


def test_a_turn_over_the_cap_is_refused() -> None:
    with pytest.raises(InputError, match=r"moves\.0\.turns: 1\.5 turns is out of range"):
        advise(start_mm=2.0, moves=[Move(1.5, 1.0)])


@pytest.mark.parametrize(
    ("turns", "words"),
    [
        (1.0, "1 turn clockwise"),
        (-0.5, "1/2 turn anticlockwise"),
        (0.3125, "5/16 turn clockwise"),
    ],
)
def test_turns_are_said_as_people_make_them(turns: float, words: str) -> None:
    assert turn_words(turns) == words


@pytest.mark.parametrize(
    ("gap", "sits", "rule", "wanted"),
    [
        (2.0, True, "when_it_shows", False),
        (2.0, False, "when_it_shows", True),
        (3.5, True, "when_it_shows", True),
        (0.5, True, "always", True),
    ],
)
def test_wheels_are_acted_on_by_the_house_rule(
    gap: float, sits: bool, rule: str, wanted: bool
) -> None:
    does, words = acts(gap, limit_mm=3.0, sits_on_both=sits, rule=rule)
    assert does is wanted and metric(words).endswith(".")


@pytest.mark.parametrize(
    ("one", "other", "same"),
    [(2.0, 1.7, True), (-1.9, -1.4, True), (0.4, -2.0, False), (2.0, -2.0, False)],
)
def test_two_bands_show_one_fault_only_alike(one: float, other: float, same: bool) -> None:
    assert same_fault(one, other) is same is same_fault(other, one)


def test_gaps_far_apart_are_two_faults() -> None:
    assert not same_fault(0.6, 3.0)


def test_a_reading_that_no_turn_explains_is_read_again_before_anything_is_turned() -> None:
    """Half a turn brought 2.0 to 1.3, a quarter more reads 4.5: neither 0.9, nor 1.3, nor 1.7."""
    moves = [Move(0.5, 1.3), Move(0.25, 4.5)]
    asked = advise(start_mm=2.0, moves=moves)
    assert (asked.state, asked.turns) == ("ask", 0.0) and "read it again" in metric(asked.words)
    slip = advise(start_mm=2.0, moves=[*moves, Move(0.0, 0.95)])
    assert slip.state == "turn" and slip.gap_mm == pytest.approx(0.95, abs=0.1)
    real = advise(start_mm=2.0, moves=[*moves, Move(0.0, 4.45)])
    assert real.state in ("turn", "reversed") and real.gap_mm == pytest.approx(4.5, abs=0.15)


def test_what_a_turn_can_have_done_is_no_contradiction() -> None:
    for gap in (1.3, 2.0, 2.7):  # as it should, not at all, the other way
        assert advise(start_mm=2.0, moves=[Move(0.5, gap)]).state != "ask"
