"""What a reading may be left at: the card's own figures, and what is said beyond them."""

import pytest

from jade_ribbon.core.choosing.choose import choose
from jade_ribbon.core.job import Job
from jade_ribbon.core.quantities.words import metric
from jade_ribbon.core.setup.card import SetupCard, SetupStep, left_out, setup_card
from jade_ribbon.core.setup.reading_limits import ReadingLimit
from jade_ribbon.core.setup.words import ShopHabits
from tests.support.jobs import with_cut


def the_card(job: Job) -> SetupCard:
    best = choose(job).best
    assert best is not None
    return setup_card(best, job, gauge_length_mm=100.0, habits=ShopHabits())


def the_step(card: SetupCard, key: str) -> SetupStep:
    return next(s for s in card.steps if s.key == key)


def limit_of(card: SetupCard, key: str, reading: str) -> ReadingLimit:
    found = next(r.limit for r in the_step(card, key).readings if r.key == reading)
    assert found is not None
    return found


def test_limits_are_the_card_s_own_figures(job: Job) -> None:
    card = the_card(with_cut(job, tolerance_mm=0.8))
    stress = limit_of(card, "tension", "stress_MPa")
    assert (stress.low, stress.high) == (card.tension.low_MPa, card.tension.high_MPa)
    assert limit_of(card, "guides_upper", "side_mm") == ReadingLimit(0.0, 0.2)
    guard = limit_of(card, "guard", "height_mm")
    assert (guard.low, guard.high) == (187.0, 200.0)
    speed = limit_of(card, "speed", "speed_m_s")
    assert speed.low == pytest.approx(0.95 * card.speed_m_s)
    assert limit_of(card, "trial", "spread_mm").high == 0.8


def test_a_looser_tolerance_lets_a_wider_spread_stay(job: Job) -> None:
    for tolerance in (0.3, 2.0):
        step = the_step(the_card(with_cut(job, tolerance_mm=tolerance)), "trial")
        assert bool(left_out(step, {"spread_mm": 1.0})) == (tolerance < 1.0)
    assert left_out(the_step(the_card(with_cut(job, tolerance_mm=None)), "trial"), {}) == ()


@pytest.mark.parametrize(
    ("key", "left", "words"),
    [
        ("tension", {"stress_MPa": 60.0}, "Stress: 60.0 MPa left, "),
        ("guides_upper", {"side_mm": 0.6}, "Side gap: 0.60 mm left, up to 0.20 mm wanted"),
        ("guides_lower", {"thrust_mm": 2.0}, "Thrust gap: 2.00 mm left, up to 0.80 mm wanted"),
        ("guard", {"height_mm": 260.0}, "Above the table: 260 mm left, "),
        ("guard", {"height_mm": 180.0}, "Above the table: 180 mm left, "),
        ("speed", {"speed_m_s": 7.0}, "Band speed: 7.00 m/s left, "),
        ("drift", {"offset_mm": 30.0, "run_mm": 600.0}, "Drift: 2.9 degrees left"),
    ],
)
def test_out_of_limits_is_said_with_both_figures(
    job: Job, key: str, left: dict[str, float], words: str
) -> None:
    (said,) = left_out(the_step(the_card(job), key), left)
    assert metric(said).startswith(words)


def test_within_or_unread_nothing_is_said(job: Job) -> None:
    card = the_card(job)
    for step in card.steps:
        assert left_out(step, {}) == ()
    assert left_out(the_step(card, "tension"), {"stress_MPa": card.tension.stress_MPa}) == ()
    assert left_out(the_step(card, "drift"), {"offset_mm": 5.0, "run_mm": 600.0}) == ()
