"""The speed a drive gives."""

import dataclasses

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.bands.facts import (
    band_facts,
)
from jade_ribbon.core.bands.speed_choice import (
    choose_speed,
    nearest_speed,
    speed_range,
    too_fast_for_any_steel,
)
from jade_ribbon.core.job import Drive, Job
from jade_ribbon.reference.tables import materials, steels
from tests.support.jobs import K07, in_material

STEPS = Drive("fixed", speeds_m_s=(0.5, 1.0, 2.0, 8.0, 16.0))


INVERTER = Drive("inverter", base_hz=50, min_hz=10, max_hz=60, base_speed_m_s=20.0)


def test_nearest_on_a_ratio_scale() -> None:
    assert nearest_speed(STEPS, 4.0, 20.0) == 2.0
    assert nearest_speed(STEPS, 4.1, 20.0) == 8.0
    assert nearest_speed(STEPS, 12.0, 10.0) == 8.0
    assert nearest_speed(STEPS, 1.0, 0.4) is None


@given(st.floats(0.1, 100), st.floats(0.1, 100))
def test_never_over_the_most(target: float, most: float) -> None:
    for drive in (STEPS, INVERTER):
        speed = nearest_speed(drive, target, most)
        if speed is None:
            assert drive.slowest_m_s > most
        else:
            assert drive.slowest_m_s <= speed <= min(most, drive.fastest_m_s)


def test_an_inverter_gives_the_target_itself_and_tells_its_hertz() -> None:
    assert nearest_speed(INVERTER, 13.0, 35.0) == 13.0
    assert INVERTER.setting_words(13.0) == "32.5 Hz"
    assert (INVERTER.slowest_m_s, INVERTER.fastest_m_s) == (4.0, 24.0)


def test_power_falls_below_an_inverter_s_base_and_stays_level_above() -> None:
    assert INVERTER.power_share(10.0) == 0.5
    assert INVERTER.power_share(20.0) == INVERTER.power_share(24.0) == 1.0
    assert STEPS.power_share(0.5) == 1.0


def test_steps_are_named_by_their_place() -> None:
    assert STEPS.setting_words(16.0) == "fastest of 5 steps"
    assert STEPS.setting_words(0.5) == "slowest of 5 steps"
    assert STEPS.setting_words(2.0) == "step 3 of 5, slowest first"
    assert Drive("fixed", speeds_m_s=(14.0,)).setting_words(14.0) == "its one speed"


def test_steels_scale_the_material_s_speeds() -> None:
    steel = materials()["mild_steel"]
    plain = speed_range(steels()["carbon_flexback"], steel)
    bimetal = speed_range(steels()["bimetal_m42"], steel)
    carbide = speed_range(steels()["carbide_tipped"], steel)
    assert (plain.target_m_s, bimetal.target_m_s) == (1.0, 1.9)
    assert carbide.most_m_s == pytest.approx(1.5 * 2.6)


def test_wood_may_run_over_its_most_with_more_wear(job: Job) -> None:
    teak = in_material(job, "teak_dry")
    fast = dataclasses.replace(
        teak, saw=dataclasses.replace(job.saw, drive=Drive("fixed", speeds_m_s=(26.0,)))
    )
    band = dataclasses.replace(K07, steel="carbon_flexback")
    speed = choose_speed(band_facts(band, fast), fast)
    assert speed is not None and speed.over_most
    assert speed.wear_factor == pytest.approx((26 / 20) ** 2)
    faster = dataclasses.replace(
        teak, saw=dataclasses.replace(job.saw, drive=Drive("fixed", speeds_m_s=(31.0,)))
    )
    assert choose_speed(band_facts(band, faster), faster) is None


def test_only_ferrous_saws_stop_at_wood_speed() -> None:
    assert too_fast_for_any_steel(Drive("fixed", speeds_m_s=(7.0,)), materials()["mild_steel"])
    assert not too_fast_for_any_steel(STEPS, materials()["mild_steel"])
