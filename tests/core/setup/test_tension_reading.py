"""Tension by every means: they invert each other, agree, and say how sure they are."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.mechanics.tension import (
    deflection_for_share,
    pluck_frequency,
    side_push,
    side_push_extra_MPa,
    stress_from_side_push,
    stress_from_travel,
    tension,
    travel_give,
)
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import metric
from jade_ribbon.core.setup.tension.calibration import (
    CalibrationPoint,
    PrintedMark,
    fit_scale,
    scale_for_stress,
    stress_from_scale,
)
from jade_ribbon.core.setup.tension.tension_reading import (
    MEANS,
    AgainstTarget,
    Calibrated,
    Means,
    TensionBand,
    TensionReading,
    judged,
    means_agree,
    stands,
    tension_reading,
)

BAND = TensionBand(
    width_mm=19.0,
    body_width_mm=14.68,
    gullet_depth_mm=4.32,
    thickness_mm=0.81,
    band_length_mm=3360.0,
    free_span_mm=1050.0,
    force_per_strand=2.0,
    wheel_force_max_N=3600.0,
    yield_MPa=1350.0,
)
stresses = st.floats(40, 250)


def read(means: Means, value: float, **more: object) -> TensionReading:
    return tension_reading(BAND, means=means, value=value, gauge_length_mm=100.0, **more)  # type: ignore[arg-type]


@given(stresses, st.floats(3, 40), st.floats(0.4, 1.3), st.floats(300, 2000))
def test_gauge_note_push_and_travel_invert_each_other(
    stress: float, width: float, thick: float, span: float
) -> None:
    """One stress made into each reading and read back is the same stress."""
    body = 0.8 * width
    band = TensionBand(width, body, width - body, thick, 3000.0, span, 2.0, None, 1350.0)
    forms = tension(
        stress_MPa=stress,
        body_width_mm=body,
        thickness_mm=thick,
        band_length_mm=3000.0,
        gauge_length_mm=100.0,
    )
    note = pluck_frequency(
        stress_MPa=stress,
        width_mm=width,
        gullet_depth_mm=width - body,
        thickness_mm=thick,
        span_mm=span,
    ).frequency_Hz
    deflection = deflection_for_share(stress_MPa=stress, span_mm=span, share=0.05)
    added = side_push_extra_MPa(span_mm=span, deflection_mm=deflection)
    push = side_push(
        stress_MPa=stress + added,
        body_width_mm=body,
        thickness_mm=thick,
        span_mm=span,
        deflection_mm=deflection,
    ).side_force_N
    readings: dict[Means, float] = {
        "gauge": forms.gauge_stretch_um,
        "pluck": note,
        "push": push,
        "travel": forms.wheel_travel_mm,
    }
    known = Calibrated(travel_give=0.0)
    for means, value in readings.items():
        got = tension_reading(
            band,
            means=means,
            value=value,
            gauge_length_mm=100.0,
            deflection_mm=deflection,
            known=known,
        )
        assert got.stress_MPa == pytest.approx(stress, rel=1e-9), means
        assert got.wheel_force_N == pytest.approx(forms.wheel_force_N, rel=1e-9)
        assert got.uncertainty_MPa > 0


@given(st.floats(20, 290), st.floats(3, 60), st.floats(3, 60))
def test_one_gauge_reading_is_one_stress_whatever_the_width_but_not_one_force(
    stretch: float, narrow: float, wide: float
) -> None:
    found = []
    for width in (narrow, wide):
        band = TensionBand(width, 0.8 * width, 0.2 * width, 0.8, 3000.0, 900.0, 2.0, None, 1350.0)
        found.append(tension_reading(band, means="gauge", value=stretch, gauge_length_mm=100.0))
    assert found[0].stress_MPa == found[1].stress_MPa
    ratio = found[1].wheel_force_N / found[0].wheel_force_N
    assert math.isclose(ratio, wide / narrow, rel_tol=1e-9)


def test_a_means_is_surer_the_better_it_is() -> None:
    gauge = read("gauge", 65.0).uncertainty_MPa / read("gauge", 65.0).stress_MPa
    note = read("pluck", 62.0).uncertainty_MPa / read("pluck", 62.0).stress_MPa
    push = read("push", 26.0, deflection_mm=4.0)
    travel = read("travel", 1.1, known=Calibrated(travel_give=0.1))
    shares = [gauge, note, *(r.uncertainty_MPa / r.stress_MPa for r in (push, travel))]
    assert shares[2] >= 0.1 and shares[3] >= 0.1
    assert shares[0] < shares[1] < 0.06
    checked = read("pluck", 62.0, known=Calibrated(note_factor=1.0))
    assert checked.uncertainty_MPa / checked.stress_MPa < 0.03


def test_plucks_that_scatter_are_less_sure() -> None:
    tight, loose = (read("pluck", 62.0, spread_share=s) for s in (0.005, 0.05))
    assert loose.uncertainty_MPa > 1.7 * tight.uncertainty_MPa
    assert loose.stress_MPa == tight.stress_MPa


def test_a_push_s_own_strain_is_taken_out_and_too_far_a_push_is_refused() -> None:
    """4 mm over 1050 mm add 206000 x 2 x (4/1050)2 = 6.0 MPa; 10 mm add 37.4 of about 100."""
    near = read("push", 20.0, deflection_mm=4.0)
    raw = stress_from_side_push(
        side_force_N=20.0,
        body_width_mm=14.68,
        thickness_mm=0.81,
        span_mm=1050.0,
        deflection_mm=4.0,
    ).stress_MPa
    assert raw - near.stress_MPa == pytest.approx(5.98, abs=0.01)
    with pytest.raises(InputError, match=r"adds 37\.4 MPa, and leaves 6\d\.\d MPa") as refused:
        read("push", 47.0, deflection_mm=10.0)
    (fault,) = refused.value.faults
    assert fault.path == "deflection_mm" and "about 3 mm aside" in metric(fault.message)


def test_over_the_frame_says_slacken() -> None:
    """165 MPa on 14.68 x 0.81: 2 x 1962 = 3924 N, over 3600."""
    hard = read("gauge", 80.1)
    assert hard.wheel_force_N == pytest.approx(3924, rel=0.01)
    assert hard.frame_share is not None and hard.frame_share > 1
    assert "over the frame's" in metric(hard.warnings[-1]) and metric(hard.warnings[-1]).endswith(
        "slacken."
    )


@pytest.mark.parametrize(
    ("means", "value", "more", "words"),
    [
        ("push", 20.0, {}, "deflection_mm: is missing"),
        ("push", 0.001, {"deflection_mm": 4.0}, "accepted: more than"),
        ("scale", 3.0, {}, "not calibrated"),
        ("pluck", 250.0, {}, "With the octave above heard for the note it would be"),
        ("thumb", 3.0, {}, "give one of gauge, pluck, push, scale, travel"),
        ("gauge", -4.0, {}, "gauge_stretch_um: -4 is out of range"),
        ("pluck", 0.2, {}, "own bending note"),
    ],
)
def test_a_reading_that_cannot_be_is_refused(
    means: Means, value: float, more: dict[str, float], words: str
) -> None:
    with pytest.raises(InputError, match=words):
        read(means, value, **more)


def test_three_wheels_have_no_single_span() -> None:
    three = TensionBand(19.0, 14.68, 4.32, 0.81, 3360.0, None, 1.732, None, 1350.0)
    for means in ("pluck", "push", "travel"):
        with pytest.raises(InputError, match="accepted on three wheels: gauge, scale"):
            tension_reading(
                three, means=means, value=10.0, gauge_length_mm=100.0, deflection_mm=3.0
            )
    assert tension_reading(three, means="gauge", value=65.0, gauge_length_mm=100.0).stress_MPa > 0
    assert set(MEANS) == {"gauge", "pluck", "push", "scale", "travel"}


# The saw's own scale


def point(reading: float, force: float) -> CalibrationPoint:
    """A point whose wheel force is this, on two strands."""
    return CalibrationPoint(reading, force / 2.0 / (14.68 * 0.81), 14.68, 0.81)


def test_points_on_a_line_give_the_line_and_no_residuals() -> None:
    fit = fit_scale([point(s, 300.0 + 120.0 * s) for s in (5, 10, 20)], force_per_strand=2.0)
    assert fit.offset_N == pytest.approx(300.0) and fit.slope_N == pytest.approx(120.0)
    assert max(abs(r) for r in fit.residuals_N) < 1e-6
    assert fit.uncertainty_N(12.0) < 1e-5


@given(stresses, st.floats(3, 40))
def test_the_scale_inverts_for_any_width(stress: float, width: float) -> None:
    fit = fit_scale(
        [point(5, 850), point(10, 1560), point(15, 2080), point(20, 2720)], force_per_strand=2.0
    )
    body, thick = 0.8 * width, 0.7
    setting = scale_for_stress(
        fit, stress_MPa=stress, body_width_mm=body, thickness_mm=thick, force_per_strand=2.0
    )
    back = stress_from_scale(
        fit,
        reading=setting.reading,
        body_width_mm=body,
        thickness_mm=thick,
        force_per_strand=2.0,
    )
    assert back == pytest.approx(stress, rel=1e-9)
    assert setting.extrapolated == (not 5 <= setting.reading <= 20)
    assert bool(setting.warning) == setting.extrapolated


def test_outside_the_calibrated_readings_it_is_less_sure_and_says_so() -> None:
    fit = fit_scale(
        [point(5, 850), point(10, 1560), point(15, 2080), point(20, 2720)], force_per_strand=2.0
    )
    assert fit.uncertainty_N(40) > fit.uncertainty_N(12) > 0
    known = Calibrated(scale=fit)
    assert read("scale", 12.0, known=known).warnings == ()
    assert "outside the readings calibrated here, 5 to 20" in metric(
        read("scale", 26.0, known=known).warnings[0]
    )


def test_too_few_or_falling_points_are_refused() -> None:
    with pytest.raises(InputError, match="accepted: at least 3, at two readings or more"):
        fit_scale([point(5, 850), point(10, 1560)], force_per_strand=2.0)
    with pytest.raises(InputError, match="1 readings are too few"):
        fit_scale([point(5, 850)] * 3, force_per_strand=2.0)
    with pytest.raises(InputError, match="falls as the scale rises"):
        fit_scale([point(5, 2720), point(10, 1560), point(15, 850)], force_per_strand=2.0)


def test_a_printed_mark_is_off_by_what_it_gives() -> None:
    assert PrintedMark(19.0, 3.0, 90.0, 120.0).off_share == pytest.approx(-0.25)


def test_what_travel_gives_away_is_found_by_measuring() -> None:
    """1.5 mm of travel at 134 MPa: stretch is 134 x 3360/412000 = 1.093, so 27 % is give."""
    give = travel_give(wheel_travel_mm=1.5, band_length_mm=3360.0, stress_MPa=134.0)
    assert give == pytest.approx(0.271, abs=0.001)
    back = stress_from_travel(wheel_travel_mm=1.5, band_length_mm=3360.0, give=give).stress_MPa
    assert back == pytest.approx(134.0)
    known = read("travel", 1.5, known=Calibrated(travel_give=give))
    assert known.stress_MPa == pytest.approx(134.0) and known.warnings == ()
    with pytest.raises(InputError, match="until it is calibrated on this saw"):
        read("travel", 1.5)


def test_a_push_the_strip_takes_by_itself_has_no_stress() -> None:
    with pytest.raises(InputError, match="accepted: more than 0"):
        stress_from_side_push(
            side_force_N=0.01,
            body_width_mm=14.68,
            thickness_mm=0.81,
            span_mm=1050.0,
            deflection_mm=4.0,
        )


# What a reading may say of the target

SHARES = {"gauge": 0.04, "pluck": 0.06, "push": 0.1, "travel": 0.1}


def a_reading(means: Means, stress: float, sd: float) -> TensionReading:
    return TensionReading(means, stress, sd, 3000.0, 0.9, ())


def stand(reading: TensionReading, low: float = 130.0, high: float = 170.0) -> AgainstTarget:
    return stands(reading, target=150.0, low=low, high=high, shares=SHARES)


@given(st.floats(60, 260), st.floats(0.1, 60), st.floats(0.1, 60))
def test_a_worse_instrument_never_passes_what_a_better_one_would_fail(
    stress: float, one: float, other: float
) -> None:
    fine, coarse = sorted((one, other))
    if stand(a_reading("gauge", stress, coarse)).verdict == "on_target":
        assert stand(a_reading("gauge", stress, fine)).verdict == "on_target"
    if stand(a_reading("gauge", stress, fine)).verdict in ("slack", "tight"):
        assert stand(a_reading("gauge", stress, coarse)).verdict != "on_target"


@pytest.mark.parametrize(
    ("stress", "sd", "verdict", "words"),
    [
        (150.0, 6.0, "on_target", "On target"),
        (150.0, 15.0, "cannot_tell", "between 125 MPa and 175 MPa; wanted 130 MPa to 170 MPa"),
        (100.0, 5.0, "slack", "Too slack by 50.0 MPa: more."),
        (200.0, 5.0, "tight", "Too tight by 50.0 MPa: less."),
        (126.0, 6.0, "cannot_tell", "Probably slack: more, then read again."),
        (176.0, 6.0, "cannot_tell", "Probably tight: less, then read again."),
    ],
)
def test_on_target_only_when_it_cannot_be_otherwise(
    stress: float, sd: float, verdict: str, words: str
) -> None:
    found = stand(a_reading("push", stress, sd))
    assert found.verdict == verdict and words in metric(found.words)
    if verdict == "cannot_tell":
        assert "use the strain gauge" in metric(found.words)


def test_where_no_means_is_fine_enough_it_says_so() -> None:
    found = stands(a_reading("push", 150.0, 15.0), target=150.0, low=148.0, high=152.0)
    assert "a gauge over a greater length" in metric(found.words)


@pytest.mark.parametrize(
    ("means", "stress", "words"),
    [
        ("gauge", 15.0, "a figure ten times too small"),
        ("pluck", 600.0, "the octave above heard for the note it would be 150 MPa"),
        ("pluck", 37.5, "the octave below, or a hum, heard for the note it would be 150 MPa"),
        ("push", 1500.0, "a figure ten times too large"),
        ("gauge", 50.0, "No band is left so"),
    ],
)
def test_a_reading_no_band_could_give_is_asked_about(
    means: Means, stress: float, words: str
) -> None:
    found = stand(a_reading(means, stress, 2.0))
    assert found.verdict == "cannot_tell" and words in metric(found.words)


def test_two_means_that_differ_say_by_how_much_and_which_to_believe() -> None:
    gauge, push = a_reading("gauge", 150.0, 6.0), a_reading("push", 95.0, 9.0)
    agree, words = means_agree(push, gauge)
    assert not agree
    assert "differ by 55.0 MPa" in metric(words) and "believe the strain gauge" in metric(words)
    assert means_agree(a_reading("push", 160.0, 15.0), gauge)[0]


def test_two_that_differ_leave_nothing_on_target_nor_does_too_much_for_the_frame() -> None:
    wanted = {"target": 150.0, "low": 130.0, "high": 170.0, "shares": SHARES}
    gauge, push = a_reading("gauge", 150.0, 6.0), a_reading("push", 95.0, 9.0)
    found, words = judged(gauge, push, **wanted)  # type: ignore[arg-type]
    assert found.verdict == "cannot_tell" and words
    over = TensionReading("gauge", 150.0, 6.0, 4000.0, 1.1, ())
    assert judged(over, None, **wanted)[0].verdict == "tight"  # type: ignore[arg-type]
    assert judged(gauge, None, **wanted) == (stand(gauge), "")  # type: ignore[arg-type]
