"""Roughness by look, taper's trend, ridges, trial cuts."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.faults.ridges import ridge_source, ridge_words
from jade_ribbon.core.inspection.evidence import pressure_by_watts
from jade_ribbon.core.inspection.face import read_face
from jade_ribbon.core.inspection.roughness import Grade, roughness_says
from jade_ribbon.core.inspection.trend import taper_trend
from jade_ribbon.core.inspection.trial import cheap_woods, judge_trial, propose_trial
from jade_ribbon.core.mechanics.motor import watts_of_amps
from jade_ribbon.reference.tables import materials, trial_woods

NINE = [(x, y) for x in (0.0, 0.5, 1.0) for y in (-1.0, 0.0, 1.0)]


@pytest.mark.parametrize(
    ("grade", "over", "enough", "sign"),
    [(1, 0, True, ""), (3, 0, True, ""), (4, 1, False, "rough_face"), (5, 2, False, "torn_face")],
)
def test_a_face_coarser_than_its_teeth_leave_speaks_of_the_edge(
    grade: Grade, over: int, enough: bool, sign: str
) -> None:
    found = roughness_says(grade, asked_place=1, left_place=1)
    assert (found.over, found.enough, found.sign) == (over, enough, sign)


def test_coarse_teeth_are_not_the_edge_s_fault() -> None:
    found = roughness_says(4, asked_place=2, left_place=0)
    assert not found.enough and found.over == 0 and found.sign == ""


def test_taper_that_grows_is_told_from_one_that_stands() -> None:
    long = [1000.0] * 6
    assert taper_trend([0.1] * 3, [1000.0] * 3) is None
    growing = taper_trend([0.0, 0.6, 1.1, 1.7, 2.3, 2.9], long)
    steady = taper_trend([0.5, 0.52, 0.5, 0.51, 0.5, 0.52], long)
    unsure = taper_trend([0.0, 2.0, -1.0, 3.0, 0.5, 2.5], long)
    assert growing and growing.verdict == "growing"
    # 0.58 mm a face over a metre is 0.033 degrees.
    assert growing.per_face_deg == pytest.approx(0.0331, abs=0.002)
    assert steady and steady.verdict == "steady" and "it is the fence" in steady.words
    straight = taper_trend([0.01, -0.02, 0.0, 0.02, -0.01, 0.0], long)
    assert straight and "No taper to speak of" in straight.words
    assert unsure and "swings" in unsure.words
    assert unsure and unsure.verdict == "cannot_tell"


@given(st.lists(st.floats(-0.5, 0.5), min_size=4, max_size=12), st.floats(-3, 3))
def test_a_fence_that_is_off_is_no_trend(tapers: list[float], fence: float) -> None:
    lengths = [1000.0] * len(tapers)
    plain = taper_trend(tapers, lengths)
    off = taper_trend([t + fence for t in tapers], lengths)
    assert plain and off
    assert off.per_face_deg == pytest.approx(plain.per_face_deg, abs=1e-3)


def test_ridges_are_named_only_where_a_rule_tells_them_apart() -> None:
    def words(spacing: float) -> str:
        return ridge_words(
            ridge_source(
                spacing_mm=spacing,
                feed_m_min=3.0,
                speed_m_s=15.0,
                band_length_mm=3000.0,
                pitch_mm=12.7,
                wheel_diameters_mm=[400.0, 400.0],
            )
        )

    # The weld comes round 5 times a second: 50 mm/s over 5 is 10 mm.
    assert words(10.0).startswith("It comes of the weld")
    assert "a wheel" in words(50.0 / 11.94)
    assert "nothing that turns" in words(37.0)


def test_the_nearest_cheap_wood_is_proposed_and_never_itself() -> None:
    table = materials()
    cheap = cheap_woods(table, list(trial_woods()))
    for key in ("teak_dry", "european_larch_dry", "ebony_dry", "scots_pine_dry"):
        found = propose_trial(table[key], cheap)
        assert found is not None and found.material != key
    assert propose_trial(table["mild_steel"], cheap) is None
    far = propose_trial(table["lignum_vitae_dry"], cheap)
    assert far is not None and not far.near and "only roughly" in far.words


def face(barrel: float) -> list[list[float]]:
    return [
        [x, y, 14.0 + barrel * (1 / 3 - y * y) + 0.01 * (-1) ** i] for i, (x, y) in enumerate(NINE)
    ]


def test_a_trial_is_judged_by_the_push_of_the_dear_wood() -> None:
    def judged(barrel: float, ratio: float, sd: float = 0.2) -> tuple[bool, str]:
        found = judge_trial(
            read_face(face(barrel), tolerance_mm=0.8),
            push_ratio=ratio,
            ratio_sd_ln=sd,
            tolerance_mm=0.8,
        )
        return found.ready, found.words

    assert judged(0.3, 1.0)[0]
    assert judged(0.3, 4.0) == (False, "Not yet: barrel would be over its tolerance.")
    assert judged(0.6, 1.2, sd=0.5) == (False, "Cannot tell: read more points, or try again.")
    corners = [r for r in face(0.0) if r[0] != 0.5 and r[1] != 0.0]
    four = judge_trial(
        read_face(corners, tolerance_mm=0.8), push_ratio=1.0, ratio_sd_ln=0.2, tolerance_mm=0.8
    )
    assert not four.ready and "nine points" in four.words


def test_amps_tell_the_watts_of_one_and_three_phases_and_less_surely() -> None:
    one = watts_of_amps(amps_A=8.0, volts_V=230.0, phases=1, power_factor=0.8)
    three = watts_of_amps(amps_A=8.0, volts_V=400.0, phases=3, power_factor=0.8)
    assert one == pytest.approx(1472.0) and three == pytest.approx(4434.0, abs=1.0)
    by_watts = pressure_by_watts(70.0, 0.2, [(100.0, False)])
    by_amps = pressure_by_watts(70.0, 0.2, [(100.0, True)])
    assert by_amps.sd_ln > by_watts.sd_ln and 70.0 < by_amps.K_ref_MPa < by_watts.K_ref_MPa
