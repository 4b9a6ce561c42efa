"""Vibration, gaps by slips, drive settings, drift and ticks: by hand and at their limits."""

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.bench import Knob
from jade_ribbon.core.drift_verdict import drift_verdict
from jade_ribbon.core.drive_settings import (
    corrected,
    counting_uncertainty,
    pulley_change,
    settings,
    speed_from_turns,
)
from jade_ribbon.core.errors import InputError
from jade_ribbon.core.job import Drive
from jade_ribbon.core.slips import slips_for
from jade_ribbon.core.tension import pluck_frequency
from jade_ribbon.core.ticks import name_tick, turners
from jade_ribbon.core.tracking import track_advice
from jade_ribbon.core.tyres import tyre_verdict
from jade_ribbon.core.vibration import Running, remedies, running_note, vibration
from jade_ribbon.core.words import metric

BAND = Running(
    stress_MPa=134.0,
    width_mm=19.0,
    gullet_depth_mm=4.32,
    thickness_mm=0.81,
    band_length_mm=3360.0,
    wheel_diameter_mm=400.0,
    guide_span_mm=255.0,
    pitch_mm=12.7,
    pitch_varies=False,
    tensioner="spring",
    free_span_mm=1050.0,
)


# Vibration


def test_rates_are_speed_over_what_goes_round() -> None:
    card = vibration(BAND, speed_m_s=14.5)
    assert card.wheel_Hz == pytest.approx(14.5 / (math.pi * 0.4))
    assert card.band_Hz == pytest.approx(14.5 / 3.36)
    assert card.tooth_Hz == pytest.approx(14.5 / 0.0127)


def test_standing_still_the_span_sounds_its_plucked_note() -> None:
    note = pluck_frequency(
        stress_MPa=134.0, width_mm=19.0, gullet_depth_mm=4.32, thickness_mm=0.81, span_mm=1050.0
    ).frequency_Hz
    slow = vibration(BAND, speed_m_s=1e-6)
    assert slow.free_still_Hz == pytest.approx(note)
    assert slow.free_running_Hz == pytest.approx(note)


@given(st.floats(1, 60), st.sampled_from(["spring", "fixed"]))
def test_running_lowers_the_note_and_a_fixed_frame_more(speed: float, tensioner: str) -> None:
    still = running_note(wave_m_s=120.0, speed_m_s=1e-9, span_mm=1000.0, tensioner=tensioner)
    runs = running_note(wave_m_s=120.0, speed_m_s=speed, span_mm=1000.0, tensioner=tensioner)
    assert runs < still == pytest.approx(60.0)
    spring, fixed = (
        running_note(wave_m_s=120.0, speed_m_s=speed, span_mm=1000.0, tensioner=t)
        for t in ("spring", "fixed")
    )
    assert fixed <= spring


def test_a_fixed_band_as_fast_as_its_waves_has_no_note() -> None:
    assert running_note(wave_m_s=50.0, speed_m_s=50.0, span_mm=900.0, tensioner="fixed") == 0
    fast = vibration(replace(BAND, tensioner="fixed", stress_MPa=10.0), speed_m_s=40.0)
    assert fast.free_running_Hz == 0 and not [m for m in fast.meetings if m.note.key == "free"]


def test_guide_notes_by_hand_at_the_limit_of_a_string() -> None:
    """With next to no thickness bending goes: f = sqrt(T/mu)/(2 l); body is all of the width."""
    thin = replace(BAND, thickness_mm=0.01, gullet_depth_mm=0.0)
    wave = math.sqrt(134e6 / 7850)
    assert vibration(thin, speed_m_s=10.0).guide_bending_Hz[0] == pytest.approx(
        wave / (2 * 0.255), rel=1e-3
    )
    assert vibration(thin, speed_m_s=10.0).guide_twisting_Hz[0] == pytest.approx(
        wave / (2 * 0.255), rel=1e-3
    )


def test_a_meeting_within_five_per_cent_is_warned_of_and_cleared() -> None:
    """A span as long as makes its note four turns of the wheel."""
    card = vibration(BAND, speed_m_s=14.5)
    assert card.free_running_Hz is not None
    span = 1050.0 * card.free_running_Hz / (4 * card.wheel_Hz) / 1.01
    band = replace(BAND, free_span_mm=span, pitch_mm=None)
    near = vibration(band, speed_m_s=14.5)
    assert [m.source.name for m in near.meetings] == ["4 × wheel turns"]
    assert abs(near.meetings[0].apart_share) < 0.02
    offered = remedies(band, speed_m_s=14.5)
    assert "clears it" in offered[0]
    cleared = float(offered[0].split("[[")[1].split("|")[0])
    assert vibration(band, speed_m_s=cleared).meetings == ()


def test_teeth_meet_the_guide_span_and_a_variable_pitch_is_offered() -> None:
    twist = vibration(BAND, speed_m_s=10.0).guide_twisting_Hz[0]
    speed = twist * 0.0127
    near = vibration(BAND, speed_m_s=speed)
    assert near.meetings[0].source.key == "tooth"
    assert "a variable pitch spreads the tooth rate" in remedies(BAND, speed_m_s=speed)
    varied = replace(BAND, pitch_varies=True)
    assert "a variable pitch spreads the tooth rate" not in remedies(varied, speed_m_s=speed)


def test_three_wheels_have_no_free_span_note_and_grit_no_teeth() -> None:
    card = vibration(replace(BAND, free_span_mm=None, pitch_mm=None), speed_m_s=14.5)
    assert card.free_still_Hz is None and card.tooth_Hz is None and card.meetings == ()
    assert remedies(replace(BAND, free_span_mm=None, pitch_mm=None), speed_m_s=14.5) == ()


# Slips


@pytest.mark.parametrize(
    ("gap", "stack", "layers", "words"),
    [
        (0.3, 1.05, 3, "3 of these, 0.32 mm."),
        (0.1, 1.0, 1, "1 of these, 0.10 mm."),
        (0.1, 3.2, 1, "1 of these make 0.32 mm, 0.22 mm wider."),
        (0.0, 1.0, 0, "No slip: just touching."),
        (0.8, 0.2, 40, "40 of these: take something thicker."),
    ],
)
def test_slips(gap: float, stack: float, layers: int, words: str) -> None:
    found = slips_for(gap_mm=gap, stack_mm=stack)
    assert found.layers == layers
    assert metric(found.words).startswith(words.rstrip("."))


@given(st.floats(0.05, 1), st.floats(0.3, 6))
def test_slips_are_never_more_than_half_a_slip_off_when_one_goes_in(
    gap: float, stack: float
) -> None:
    found = slips_for(gap_mm=gap, stack_mm=stack)
    assert found.makes_mm == pytest.approx(found.layers * stack / 10)
    if found.layers > 1:
        assert abs(found.off_mm) <= stack / 20 + 1e-9


# Speeds

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


# Drift


def test_small_drift_shifts_the_fence_at_its_bolts() -> None:
    found = drift_verdict(offset_mm=6.0, run_mm=300.0, fence_bolt_spacing_mm=200.0, method="fence")
    assert found.fence_shift_mm == pytest.approx(4.0) and not found.stop
    assert metric(found.words) == "Shift the fence's far bolt 4.00 mm to the right."
    assert found.uncertainty_deg == pytest.approx(math.degrees(0.5 / 300))


@given(st.floats(-100, 100), st.sampled_from(["fence", "single_point", "tracking"]))
def test_over_two_degrees_it_is_a_fault_by_any_method(offset: float, method: str) -> None:
    found = drift_verdict(
        offset_mm=offset, run_mm=300.0, fence_bolt_spacing_mm=200.0, method=method
    )
    over = abs(math.degrees(math.atan(offset / 300))) > 2
    assert found.stop == over
    assert ("look for the cause" in found.words) == over
    assert not (over and found.fence_shift_mm is not None)


@pytest.mark.parametrize(
    ("method", "words"),
    [("single_point", "no shift is needed"), ("tracking", "fraction of a degree")],
)
def test_other_methods_say_what_they_do_and_their_limit(method: str, words: str) -> None:
    found = drift_verdict(offset_mm=-4.0, run_mm=300.0, fence_bolt_spacing_mm=None, method=method)
    assert words in found.words and found.fence_shift_mm is None


def test_a_drift_that_grows_tells_of_uneven_wear() -> None:
    def trial(earlier: tuple[float, ...]) -> str:
        return drift_verdict(
            offset_mm=5.2,
            run_mm=300.0,
            fence_bolt_spacing_mm=None,
            method="fence",
            earlier_deg=earlier,
        ).trend_words

    assert "one side wears faster" in trial((0.3, 0.6))
    assert trial((1.0, 0.9)) == "" and trial(()) == ""


# Ticks


def test_a_tick_is_named_by_its_rate() -> None:
    known = turners(
        speed_m_s=14.5,
        band_length_mm=3360.0,
        wheel_diameters_mm=(400.0, 400.0),
        belt_length_mm=900.0,
        pulley_mm=200.0,
    )
    assert [t.key for t in known] == ["weld", "wheel", "belt"]
    weld = name_tick(ticks=43, seconds=10, known=known)
    assert weld.key == "weld" and "never while it moves" in weld.words
    wheel = name_tick(ticks=115, seconds=10, known=known)
    assert wheel.key == "wheel"
    belt = name_tick(ticks=81, seconds=10, known=known)
    assert belt.key == "belt"
    none = name_tick(ticks=60, seconds=10, known=known)
    assert none.key == "" and "Count again" in none.words
    with pytest.raises(InputError, match="count at least one tick"):
        name_tick(ticks=0, seconds=10, known=known)


# Tracking


@pytest.mark.parametrize(
    ("position", "creep", "knob", "words"),
    [
        (0.3, 0.1, "unknown", "stays: go on"),
        (2.0, 0.0, "clockwise_back", "bring it back, an eighth of a turn clockwise"),
        (2.0, 0.0, "clockwise_forward", "bring it back, an eighth of a turn anticlockwise"),
        (-5.0, 0.0, "unknown", "a quarter turn, whichever way moves it forward"),
        (0.0, 3.0, "clockwise_back", "It creeps 0.30 mm a turn: bring it back"),
        (4.0, -2.0, "clockwise_back", "creeps towards its place"),
    ],
)
def test_the_knob_is_turned_against_what_is_seen(
    position: float, creep: float, knob: Knob, words: str
) -> None:
    advice = track_advice(position_mm=position, creep_mm=creep, turns=10, knob=knob)
    assert words in metric(advice.words)


def test_tracking_needs_turns() -> None:
    with pytest.raises(InputError, match="turns: 0 is out of range"):
        track_advice(position_mm=0, creep_mm=0, turns=0, knob="unknown")


# Tyres


@pytest.mark.parametrize(
    ("gaps", "recorded", "state", "words"),
    [
        ((0.4, 0.0, 0.4), "crowned", "crowned", "it holds a band."),
        ((0.0, 0.5, 0.0), "crowned", "worn", "recorded as crowned: correct it"),
        ((0.05, 0.0, 0.05), "flat", "flat", "wheels must stand true"),
        ((0.9, 0.0, 0.2), "crowned", "crowned", "One side is lower"),
        ((0.0, 0.0, 0.0), "none", "flat", "Flat: a band rides"),
    ],
)
def test_a_tyre_is_known_by_the_light_under_a_straightedge(
    gaps: tuple[float, float, float], recorded: str, state: str, words: str
) -> None:
    front, middle, back = gaps
    found = tyre_verdict(
        front_gap_mm=front,
        middle_gap_mm=middle,
        back_gap_mm=back,
        width_mm=30.0,
        recorded=recorded,
    )
    assert found.state == state and words in found.words
    assert found.agrees == ("correct it" not in found.words)
    assert found.crown_mm == pytest.approx((front + back) / 2 - middle)
