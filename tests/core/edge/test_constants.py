"""The edge's constants, each with a case whose answer moves when it does."""

import math

import pytest

from jade_ribbon.core.edge import abrasion, dullness, feed_force, run_pace, sharpening
from jade_ribbon.core.edge.feed_force import PushFact
from jade_ribbon.core.mechanics.life import SHAPE
from jade_ribbon.core.quantities.errors import InputError
from tests.support.pins import Pin, held

EULER = 0.5772156649015329
ONE_LIFE = (1.28 / SHAPE) ** 2
"""Variance of ln of one Weibull life: (pi / sqrt 6 / k)^2, as 1.28 / k."""


def factor_of_two_short_lives(prior: float) -> float:
    """Two lives of half the table's median, nothing known beside them: 0 +- prior twice over."""
    said = math.log(2.0) - (math.log(math.log(2.0)) + EULER) / SHAPE
    doubt = ONE_LIFE / 2 + prior**2
    return math.exp(said / doubt / (prior**-2 + 1.0 / doubt))


def pairs_of(readings: int) -> int:
    """How many first and last of eight readings of one kind are held against each other."""
    fact = [PushFact("oak", 2.0 - 0.1 * i, 0.0, 0.0, 0.5, 1.0) for i in range(readings)]
    found = feed_force.slowed([(100.0 * i, f) for i, f in enumerate(fact)])
    assert found is not None
    return found.pairs


def asked(feed_m_min: float) -> bool:
    """Whether a run is asked about whose job is planned at 1 m/min."""
    found = run_pace.doubt(
        feed_m_min=feed_m_min, planned_m_min=1.0, length_mm=1000.0, planned_length_mm=1000.0
    )
    return found is not None


def taken(time_s: float) -> bool:
    """Whether so many seconds are taken for 2 m at 1 m/min, which is two minutes of cutting."""
    try:
        run_pace.feed_and_time(length_m=2.0, feed_m_min=1.0, time_s=time_s)
    except InputError:
        return False
    return True


def learned(lives: int) -> float | None:
    found = abrasion.learned_abrasion([(4000.0, 8000.0)] * lives, [])
    return None if found is None else found.factor


def blunted(push: float) -> float | None:
    return dullness.dullness_for(
        push, dull_energy_gain=0.0, feed_ratio_sharp=0.5, feed_ratio_dull=1.0
    )


PINS = (
    Pin(abrasion, "PRIOR_SD_LN", lambda: learned(2), factor_of_two_short_lives(0.7)),
    Pin(abrasion, "LEAST_LIVES", lambda: learned(2) is None, False),
    Pin(dullness, "BLUNTEST", lambda: blunted(0.5 + 0.5 * 2.5), None),
    Pin(feed_force, "MOST_PAIRS", lambda: pairs_of(8), 3),
    Pin(run_pace, "ASKED_TIMES", lambda: asked(4.0), True),
    Pin(run_pace, "HURRY_SHARE", lambda: taken(30.0), False),
    Pin(sharpening, "WORTH_WIDTH_MM", lambda: sharpening.worth_sharpening(13.0, 3.0), True),
    Pin(sharpening, "WORTH_PITCH_TPI", lambda: sharpening.worth_sharpening(19.0, 5.0), False),
)


@pytest.mark.parametrize("pin", PINS, ids=str)
def test_a_constant_moves_its_case(pin: Pin, monkeypatch: pytest.MonkeyPatch) -> None:
    held(pin, monkeypatch)
