"""Properties of the formulas: inverses, monotony, scaling, limiting cases."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.mechanics.bending import bending_fatigue, wheel_bending
from jade_ribbon.core.mechanics.cutting import bite, cutting_power
from jade_ribbon.core.mechanics.feed import Limit, feed_window
from jade_ribbon.core.mechanics.geometry import min_radius, widest_for_radius
from jade_ribbon.core.mechanics.life import life_posterior, survival
from jade_ribbon.core.mechanics.slicing import slicing
from jade_ribbon.core.mechanics.speed import drive_hz_for_speed, drive_speed
from jade_ribbon.core.mechanics.stiffness import edge_slack, stability_limit
from jade_ribbon.core.mechanics.tension import (
    pluck_frequency,
    stress_from_gauge,
    stress_from_pluck,
    tension,
)

stress = st.floats(40, 300)
width = st.floats(5, 50)
thick = st.floats(0.3, 1.3)
depth = st.floats(0, 4.9)
span = st.floats(100, 1500)

STRIP = {"width_mm": 19.0, "gullet_depth_mm": 3.0, "thickness_mm": 0.8}


@given(width, thick, st.floats(0.1, 2), st.floats(1, 2))
def test_radius_and_width_are_inverse(w: float, t: float, clear: float, a: float) -> None:
    kerf = t + clear
    r = min_radius(width_mm=w, thickness_mm=t, kerf_mm=kerf, allowance=a).min_radius_mm
    back = widest_for_radius(radius_mm=r, thickness_mm=t, kerf_mm=kerf, allowance=a)
    assert math.isclose(back.width_mm, w, rel_tol=1e-9)


@given(stress, width, depth, thick, span)
def test_note_and_stress_are_inverse(s: float, w: float, d: float, t: float, l_: float) -> None:
    strip = {"width_mm": w, "gullet_depth_mm": min(d, 0.8 * w), "thickness_mm": t, "span_mm": l_}
    f = pluck_frequency(stress_MPa=s, **strip).frequency_Hz
    assert math.isclose(stress_from_pluck(frequency_Hz=f, **strip).stress_MPa, s, rel_tol=1e-6)


@given(stress, st.floats(20, 300))
def test_gauge_and_stress_are_inverse_whatever_the_width(s: float, g: float) -> None:
    stretches = [
        tension(
            stress_MPa=s, body_width_mm=w, thickness_mm=0.8, band_length_mm=3000, gauge_length_mm=g
        ).gauge_stretch_um
        for w in (5.0, 19.0, 50.0)
    ]
    assert stretches[0] == stretches[1] == stretches[2]
    back = stress_from_gauge(gauge_stretch_um=stretches[0], gauge_length_mm=g).stress_MPa
    assert math.isclose(back, s, rel_tol=1e-9)


@given(st.floats(0.5, 40), st.floats(20, 100))
def test_drive_and_hertz_are_inverse(v: float, base: float) -> None:
    drive = {
        "motor_rpm": 1425.0,
        "motor_pulley_mm": 80.0,
        "wheel_pulley_mm": 240.0,
        "gear_ratio": 1.0,
        "wheel_diameter_mm": 600.0,
    }
    hz = drive_hz_for_speed(target_speed_m_s=v, base_hz=base, **drive).drive_hz
    got = drive_speed(base_hz=base, drive_hz=hz, **drive).speed_m_s
    assert math.isclose(got, v, rel_tol=1e-9)


@given(stress, st.floats(1.05, 2), st.floats(100, 900), st.floats(0.1, 0.95))
def test_stiffness_grows_with_tension_and_a_lower_guide(
    s: float, more: float, guides: float, share: float
) -> None:
    cut = guides * share * 0.9

    def force(stress_MPa: float, guide_span: float) -> float:
        return stability_limit(
            stress_MPa=stress_MPa,
            guide_span_mm=guide_span,
            cut_height_mm=cut,
            speed_m_s=15,
            tensioner="spring",
            **STRIP,
        ).critical_feed_force_N

    base = force(s, guides)
    assert force(s * more, guides) > base
    assert force(s, guides * 0.95) > base


@given(stress, st.floats(100, 900), st.floats(0.1, 0.95))
def test_edge_holds_more_with_tension_and_a_lower_guide(
    s: float, guides: float, share: float
) -> None:
    cut = guides * share * 0.9

    def force(stress_MPa: float, guide_span: float) -> float:
        return edge_slack(
            stress_MPa=stress_MPa, guide_span_mm=guide_span, cut_height_mm=cut, **STRIP
        ).edge_slack_feed_force_N

    assert force(s * 1.2, guides) > force(s, guides)
    assert force(s, guides * 0.95) > force(s, guides)


def test_twisting_without_tension_offset_or_spread_meets_its_closed_form() -> None:
    """The derivation's limiting case: 17.9 sqrt(EI GJ)/l2, the one-mode answer."""
    b, t, l_ = 40.0, 1.0, 400.0
    force = stability_limit(
        stress_MPa=1e-9,
        width_mm=b,
        gullet_depth_mm=0,
        thickness_mm=t,
        guide_span_mm=l_,
        cut_height_mm=1e-3,
        speed_m_s=1e-3,
        tensioner="spring",
    ).critical_feed_force_N
    e, g = 206_000.0, 206_000.0 / 2.58
    a = e * b * t**3 / 12 * (math.pi / l_) ** 4 * l_ / 2
    twist = g * b * t**3 / 3 * (math.pi / l_) ** 2 * l_ / 2
    c = math.pi**2 * (1 / 16 + 1 / (4 * math.pi**2))
    offset = b / 2
    by_hand = (-a * offset + math.sqrt((a * offset) ** 2 + 4 * c**2 * a * twist)) / (2 * c**2)
    assert math.isclose(force, by_hand, rel_tol=1e-6)
    free_of_offset = math.sqrt(a * twist) / c
    ei_gj = math.sqrt(e * b * t**3 / 12 * g * b * t**3 / 3)
    assert free_of_offset * l_**2 / ei_gj == pytest.approx(17.9, abs=0.05)


def test_edge_slack_of_an_untensioned_beam_meets_simple_bending() -> None:
    """With little tension the moment of a centred load is P l/4."""
    force = edge_slack(
        stress_MPa=0.01,
        width_mm=20,
        gullet_depth_mm=0,
        thickness_mm=1,
        guide_span_mm=200,
        cut_height_mm=0.5,
    ).edge_slack_feed_force_N
    assert math.isclose(force, 0.01 * 20**2 / 6 / (200 / 4), rel_tol=0.01)


WINDOW = {
    "speed_m_s": 14.5,
    "pitch_mm": 12.7,
    "kerf_mm": 1.4,
    "height_mm": 185.0,
    "gullet_area_mm2": 34.0,
    "gullet_fill_limit": 0.5,
    "bite_min_mm": 0.008,
    "bite_max_mm": 0.06,
    "K_ref_MPa": 76.0,
    "m": 0.35,
    "dullness": 0.0,
    "dull_energy_gain": 0.5,
    "feed_ratio_sharp": 0.35,
    "feed_ratio_dull": 0.9,
    "motor_kW": 1.5,
    "drive_efficiency": 0.8,
    "critical_feed_force_N": 400.0,
    "stability_factor": 2.0,
    "edge_slack_feed_force_N": 300.0,
    "hand_force_N": 80.0,
}


@given(st.sampled_from(["power", "stability", "edge", "hand"]), st.floats(0, 1))
def test_each_force_limit_is_where_the_cut_takes_that_force(limit: Limit, dull: float) -> None:
    """Putting a limit's feed back into the power law gives the limit itself."""
    window = feed_window(**{**WINDOW, "dullness": dull})
    keys = ("speed_m_s", "pitch_mm", "kerf_mm", "height_mm", "K_ref_MPa", "m")
    ratios = ("dull_energy_gain", "feed_ratio_sharp", "feed_ratio_dull")
    cut = cutting_power(
        feed_m_min=window.limits_m_min[limit],
        dullness=dull,
        **{k: WINDOW[k] for k in (*keys, *ratios)},
    )
    wanted = {"power": 1200.0, "stability": 200.0, "edge": 300.0, "hand": 80.0}[limit]
    got = cut.cutting_power_W if limit == "power" else cut.feed_force_N
    assert math.isclose(got, wanted, rel_tol=1e-9)


@given(st.sampled_from(["motor_kW", "critical_feed_force_N", "hand_force_N"]), st.floats(1, 3))
def test_more_of_anything_never_narrows_the_window(key: str, more: float) -> None:
    base = feed_window(**WINDOW)
    wider = feed_window(**{**WINDOW, key: WINDOW[key] * more})
    assert wider.ceiling_m_min >= base.ceiling_m_min
    assert wider.floor_m_min == base.floor_m_min


@given(st.floats(0, 1), st.floats(0, 1))
def test_a_duller_edge_never_widens_the_window(a: float, b: float) -> None:
    sharp, dull = sorted((a, b))
    ceilings = [feed_window(**{**WINDOW, "dullness": d}).ceiling_m_min for d in (sharp, dull)]
    assert ceilings[1] <= ceilings[0]


@given(st.floats(0.1, 30), st.floats(0.5, 40), st.floats(1, 25), st.floats(0.1, 5))
def test_bite_scales_with_feed_and_pitch_over_speed(f: float, v: float, p: float, k: float) -> None:
    one = bite(feed_m_min=f, speed_m_s=v, pitch_mm=p).bite_mm
    assert math.isclose(bite(feed_m_min=f * k, speed_m_s=v * k, pitch_mm=p).bite_mm, one)
    assert math.isclose(bite(feed_m_min=f, speed_m_s=v, pitch_mm=p * k).bite_mm, one * k)


@given(st.floats(200, 1000), st.floats(0.3, 1.2))
def test_bigger_wheels_and_thinner_bands_bend_less_and_last_longer(d: float, t: float) -> None:
    def hours(diameter: float, thickness: float) -> float:
        return bending_fatigue(
            tension_stress_MPa=120,
            thickness_mm=thickness,
            smallest_wheel_diameter_mm=diameter,
            wheels=2,
            band_length_mm=3000,
            speed_m_s=15,
            ultimate_MPa=1550,
            endurance_amplitude_MPa=245,
            basquin_k=10,
            notch_factor=1,
        ).running_hours

    assert hours(d * 1.1, t) > hours(d, t) > hours(d, t * 1.1)
    bend = wheel_bending(
        thickness_mm=t, smallest_wheel_diameter_mm=d, tension_stress_MPa=0, speed_m_s=10
    )
    assert bend.bending_stress_MPa == bend.peak_stress_MPa


@given(st.floats(100, 30_000), st.floats(0, 10_000), st.floats(0, 10_000))
def test_survival_falls_with_the_next_metres_and_is_one_for_none(
    life: float, used: float, more: float
) -> None:
    post = life_posterior(prior_life_m=life, prior_weight=2, shape=2.5, retired_m=[], running_m=[])
    odds = {"alpha": post.alpha, "beta": post.beta, "shape": 2.5, "used_m": used}
    assert survival(next_m=0, **odds).probability == 1
    near, far = (survival(next_m=n, **odds).probability for n in (more, more * 1.5 + 1))
    assert 0 <= far <= near <= 1


@given(st.floats(100, 30_000), st.lists(st.floats(100, 30_000), max_size=6))
def test_the_median_splits_the_odds(life: float, retired: list[float]) -> None:
    post = life_posterior(
        prior_life_m=life, prior_weight=2, shape=2.5, retired_m=retired, running_m=[]
    )
    half = survival(
        alpha=post.alpha, beta=post.beta, shape=2.5, used_m=0, next_m=post.median_life_m
    )
    assert math.isclose(half.probability, 0.5, rel_tol=1e-9)


@given(st.floats(50, 400), st.floats(2, 40), st.floats(0.8, 3), st.floats(0, 1))
def test_slices_fit_and_one_more_would_not(b: float, s: float, k: float, c: float) -> None:
    cut = slicing(billet_mm=b, slice_mm=s, kerf_mm=k, clean_up_per_face_mm=c, prepare_loss_mm=2)
    used = cut.slices * cut.sawn_thickness_mm + max(cut.slices - 1, 0) * k
    assert used <= b - 2 + 1e-6
    assert used + cut.sawn_thickness_mm + (k if cut.slices else 0) > b - 2 - 1e-6


def test_slices_that_fit_exactly_count() -> None:
    cut = slicing(
        billet_mm=3 * 14.2 + 2 * 1.4,
        slice_mm=14.2,
        kerf_mm=1.4,
        clean_up_per_face_mm=0,
        prepare_loss_mm=0,
    )
    assert (cut.slices, cut.left_over_mm) == (3, 0.0)
