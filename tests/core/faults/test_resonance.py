"""What shakes: rates and notes by hand and at their limits."""

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.faults.resonance import Running, remedies, running_note, vibration_of_band
from jade_ribbon.core.mechanics.tension import pluck_frequency
from jade_ribbon.core.quantities.words import Quantity, Sentence, metric

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


def test_rates_are_speed_over_what_goes_round() -> None:
    card = vibration_of_band(BAND, speed_m_s=14.5)
    assert card.wheel_Hz == pytest.approx(14.5 / (math.pi * 0.4))
    assert card.band_Hz == pytest.approx(14.5 / 3.36)
    assert card.tooth_Hz == pytest.approx(14.5 / 0.0127)


def test_standing_still_the_span_sounds_its_plucked_note() -> None:
    note = pluck_frequency(
        stress_MPa=134.0, width_mm=19.0, gullet_depth_mm=4.32, thickness_mm=0.81, span_mm=1050.0
    ).frequency_Hz
    slow = vibration_of_band(BAND, speed_m_s=1e-6)
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
    fast = vibration_of_band(replace(BAND, tensioner="fixed", stress_MPa=10.0), speed_m_s=40.0)
    assert fast.free_running_Hz == 0 and not [m for m in fast.meetings if m.note.key == "free"]


def test_guide_notes_by_hand_at_the_limit_of_a_string() -> None:
    """With next to no thickness bending goes: f = sqrt(T/mu)/(2 l); body is all of the width."""
    thin = replace(BAND, thickness_mm=0.01, gullet_depth_mm=0.0)
    wave = math.sqrt(134e6 / 7850)
    assert vibration_of_band(thin, speed_m_s=10.0).guide_bending_Hz[0] == pytest.approx(
        wave / (2 * 0.255), rel=1e-3
    )
    assert vibration_of_band(thin, speed_m_s=10.0).guide_twisting_Hz[0] == pytest.approx(
        wave / (2 * 0.255), rel=1e-3
    )


def test_a_meeting_within_five_per_cent_is_warned_of_and_cleared() -> None:
    """A span as long as makes its note four turns of the wheel."""
    card = vibration_of_band(BAND, speed_m_s=14.5)
    assert card.free_running_Hz is not None
    span = 1050.0 * card.free_running_Hz / (4 * card.wheel_Hz) / 1.01
    band = replace(BAND, free_span_mm=span, pitch_mm=None)
    near = vibration_of_band(band, speed_m_s=14.5)
    assert [m.source.name for m in near.meetings] == ["4 × wheel turns"]
    assert abs(near.meetings[0].apart_share) < 0.02
    offered = remedies(band, speed_m_s=14.5)
    first = offered[0]
    assert isinstance(first, Sentence) and "clears it" in metric(first)
    cleared = next(p.value for p in first.parts if isinstance(p, Quantity))
    assert vibration_of_band(band, speed_m_s=cleared).meetings == ()


def test_teeth_meet_the_guide_span_and_a_variable_pitch_is_offered() -> None:
    twist = vibration_of_band(BAND, speed_m_s=10.0).guide_twisting_Hz[0]
    speed = twist * 0.0127
    near = vibration_of_band(BAND, speed_m_s=speed)
    assert near.meetings[0].source.key == "tooth"
    assert "a variable pitch spreads the tooth rate" in remedies(BAND, speed_m_s=speed)
    varied = replace(BAND, pitch_varies=True)
    assert "a variable pitch spreads the tooth rate" not in remedies(varied, speed_m_s=speed)


def test_three_wheels_have_no_free_span_note_and_grit_no_teeth() -> None:
    card = vibration_of_band(replace(BAND, free_span_mm=None, pitch_mm=None), speed_m_s=14.5)
    assert card.free_still_Hz is None and card.tooth_Hz is None and card.meetings == ()
    assert remedies(replace(BAND, free_span_mm=None, pitch_mm=None), speed_m_s=14.5) == ()
