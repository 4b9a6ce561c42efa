"""Speeds a drive can be set to, and correcting them by measurement."""

import math

import pytest

from jade_ribbon.core.job import Drive
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.setup.drive_settings import (
    corrected,
    counting_uncertainty,
    pulley_change,
    settings,
    speed_from_turns,
)

STEPS = Drive("fixed", speeds_m_s=(7.0, 14.5))


INVERTER = Drive("inverter", base_hz=50, min_hz=15, max_hz=60, base_speed_m_s=20.0)


def test_every_step_is_listed_with_how_far_off_and_the_nearest_marked() -> None:
    slow, fast = settings(STEPS, target_m_s=12.0)
    assert (slow.chosen, fast.chosen) == (False, True)
    assert fast.off_share == pytest.approx(14.5 / 12 - 1)


def test_an_inverter_gives_the_target_or_its_nearest_end() -> None:
    assert [s.chosen for s in settings(INVERTER, target_m_s=13.0)] == [False, True, False]
    assert settings(INVERTER, target_m_s=13.0)[1].name == "32.5 Hz"
    over = settings(INVERTER, target_m_s=40.0)
    assert over[-1].chosen and over[-1].speed_m_s == pytest.approx(24.0)


def test_a_pulley_is_computed_only_when_no_step_is_near() -> None:
    pulleys = {"motor_pulley_mm": 80.0, "wheel_pulley_mm": 200.0}
    near = pulley_change(STEPS, target_speed_m_s=14.0, **pulleys)
    assert not near.needed
    faster = pulley_change(STEPS, target_speed_m_s=20.0, **pulleys)
    assert faster.motor_pulley_mm == pytest.approx(80 * 20 / 14.5)
    slower = pulley_change(STEPS, target_speed_m_s=3.5, **pulleys)
    assert slower.wheel_pulley_mm == pytest.approx(400.0)
    ratio = slower.motor_pulley_mm / slower.wheel_pulley_mm / (80 / 200)
    assert 7.0 * ratio == pytest.approx(3.5)


def test_counted_turns_give_the_speed_and_how_surely() -> None:
    assert speed_from_turns(turns=50, seconds=10, wheel_diameter_mm=400) == pytest.approx(
        math.pi * 0.4 * 5
    )
    assert counting_uncertainty(50, 10) == pytest.approx(math.hypot(0.01, 0.02))


def test_a_measurement_corrects_its_own_step_or_the_whole_inverter() -> None:
    assert corrected(STEPS, nominal_m_s=14.5, measured_m_s=13.9).speeds_m_s == (7.0, 13.9)
    scaled = corrected(INVERTER, nominal_m_s=20.0, measured_m_s=19.0)
    assert scaled.base_speed_m_s == pytest.approx(19.0)
    with pytest.raises(InputError, match=r"accepted: 7\.25 to 29"):
        corrected(STEPS, nominal_m_s=14.5, measured_m_s=145.0)
