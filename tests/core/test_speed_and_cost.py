"""The speed a drive gives, what a face is worth, and a band's facts from the tables."""

import dataclasses
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.band_facts import (
    band_facts,
    look_up,
    pitches_mm,
    price_per_m,
    relative_edge_life,
    set_per_side,
    tension_columns,
)
from jade_ribbon.core.cost import bite_ceiling_mm, finish_by_band, finish_by_bite
from jade_ribbon.core.errors import InputError
from jade_ribbon.core.evaluate import comfort_factor, evaluate, paced_feed
from jade_ribbon.core.feed import window_from_limits
from jade_ribbon.core.job import Candidate, Drive, Job, Rates, Rules
from jade_ribbon.core.speed_choice import (
    choose_speed,
    nearest_speed,
    speed_range,
    too_fast_for_any_steel,
)
from jade_ribbon.core.wear import bite_term, effective_dullness, nominal_life_m
from jade_ribbon.formats.job import JobFile
from jade_ribbon.reference.tables import materials, steels, tooth_forms

K07 = Candidate("K-07", 19.0, 0.81, 2.0, 2.0, "hook", "silicon_steel", length_mm=3360.0)
VARIABLE = Candidate("V", 19.0, 0.9, 6.0, 10.0, "variable", "bimetal_m42", length_mm=3360.0)
GRIT = Candidate("G", 12.7, 0.64, None, None, "grit_continuous", "carbide_grit")
STEPS = Drive("fixed", speeds_m_s=(0.5, 1.0, 2.0, 8.0, 16.0))
INVERTER = Drive("inverter", base_hz=50, min_hz=10, max_hz=60, base_speed_m_s=20.0)


@pytest.fixture
def job(job_file: dict[str, Any]) -> Job:
    return JobFile.model_validate(job_file).to_core()


def in_material(job: Job, key: str, **cut: Any) -> Job:
    return dataclasses.replace(
        job, cut=dataclasses.replace(job.cut, material=materials()[key], **cut)
    )


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


def test_bite_ceilings_fall_with_the_finish() -> None:
    ceilings = [
        bite_ceiling_mm(f, bite_target_mm=0.03, bite_max_mm=0.2)
        for f in ("rough", "plane", "sand", "show")
    ]
    assert ceilings == [0.2, 0.06, 0.03, pytest.approx(0.018)]


@given(st.floats(0.001, 0.3))
def test_the_face_is_no_finer_than_its_bite(bite: float) -> None:
    finish = finish_by_bite(bite_mm=bite, bite_target_mm=0.03, bite_max_mm=0.2)
    if finish != "rough":
        assert bite <= bite_ceiling_mm(finish, bite_target_mm=0.03, bite_max_mm=0.2) * 1.001


def test_fine_pitch_and_hard_tips_leave_a_better_face(job: Job) -> None:
    coarse = finish_by_band(band_facts(K07, job))
    tipped = finish_by_band(band_facts(dataclasses.replace(K07, steel="carbide_tipped"), job))
    fine = finish_by_band(band_facts(dataclasses.replace(K07, tpi_lo=6.0, tpi_hi=6.0), job))
    assert (coarse, tipped, fine) == ("plane", "sand", "sand")


def test_pitch_is_by_mean_teeth_and_both_ends_are_kept() -> None:
    mean, fine, coarse = pitches_mm(VARIABLE, tooth_forms()["variable"])
    assert (mean, fine, coarse) == (25.4 / 8, 25.4 / 10, 25.4 / 6)
    assert pitches_mm(GRIT, tooth_forms()["grit_continuous"]) == (2.0, 2.0, 2.0)
    with pytest.raises(InputError, match="needs teeth per inch"):
        pitches_mm(dataclasses.replace(VARIABLE, tpi_lo=None, tpi_hi=None), tooth_forms()["hook"])


def test_a_variable_pitch_counts_four_fifths_of_its_gullet(job: Job) -> None:
    facts = band_facts(VARIABLE, job)
    assert facts.gullet_area_mm2 == pytest.approx(0.8 * 0.195 * (25.4 / 8) ** 2)


def test_set_is_measured_or_layer_or_alternate_or_raker() -> None:
    hook, variable = tooth_forms()["hook"], tooth_forms()["variable"]
    oak, steel = materials()["red_oak_dry"], materials()["mild_steel"]
    measured = dataclasses.replace(K07, set_per_side_mm=0.4)
    assert set_per_side(measured, hook, oak, "generous") == (0.4, "measured")
    assert set_per_side(K07, hook, oak, "material") == (0.38 * 0.81, "alternate set")
    assert set_per_side(VARIABLE, variable, steel, "material")[1] == "raker set"
    assert set_per_side(GRIT, tooth_forms()["grit_continuous"], oak, "slight") == (
        0.15,
        "grit layer",
    )
    generous, _ = set_per_side(K07, hook, oak, "generous")
    assert generous == pytest.approx(1.15 * 0.38 * 0.81)


def test_price_life_and_tension_come_from_the_tables() -> None:
    silicon, grit = steels()["silicon_steel"], steels()["diamond_grit"]
    assert price_per_m(silicon, 19.0, Rates()) == pytest.approx(1.3 * 5.8)
    assert price_per_m(silicon, 19.0, Rates(price_factor=2)) == pytest.approx(2 * 1.3 * 5.8)
    assert relative_edge_life(grit, materials()["grp"]) == 300
    assert relative_edge_life(grit, materials()["red_oak_dry"]) == 60
    bimetal = steels()["bimetal_m42"]
    assert relative_edge_life(bimetal, materials()["mild_steel"]) == 9
    assert tension_columns(bimetal, materials()["mild_steel"]) == (180, 240, 300)
    assert tension_columns(silicon, materials()["mild_steel"]) == (None, None, None)


def test_unknown_steel_and_form_are_both_told() -> None:
    with pytest.raises(InputError) as caught:
        look_up(dataclasses.replace(K07, steel="tin", form="wave"))
    assert [f.path for f in caught.value.faults] == ["steel", "form"]


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


@given(st.floats(1e-4, 1))
def test_the_bite_term_of_wear_stays_within_its_ends(bite: float) -> None:
    assert 2 / 3 <= bite_term(bite_mm=bite, bite_exponent=0.5) <= 4
    assert bite_term(bite_mm=bite, bite_exponent=0.0) == 1


def test_lives_shorten_and_gum_adds() -> None:
    assert nominal_life_m(rel_edge_life=1.0, sharpenings=1) == pytest.approx(7200)
    assert effective_dullness(edge_dullness=0.3, fouled=1.0) == pytest.approx(0.7)


def test_crosscuts_take_three_quarters_of_the_energy(job: Job) -> None:
    along = evaluate(K07, job).window
    across = dataclasses.replace(job, cut=dataclasses.replace(job.cut, operation="crosscut"))
    over = evaluate(K07, across).window
    assert along is not None and over is not None
    ratio = over.limits_m_min["power"] / along.limits_m_min["power"]
    assert ratio == pytest.approx((1 / 0.75) ** (1 / 0.65))
