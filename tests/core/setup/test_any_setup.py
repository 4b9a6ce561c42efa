"""A set-up card for any job that a band can do: complete, finite, and one tension throughout."""

import math

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from jade_ribbon.core.choosing.choose import choose
from jade_ribbon.core.faults.resonance import Running, remedies, vibration_of_band
from jade_ribbon.core.job import Job
from jade_ribbon.core.quantities.words import join, metric
from jade_ribbon.core.setup.card import READING_RANGES, setup_card
from jade_ribbon.core.setup.reasons import explain_steps
from jade_ribbon.core.setup.tension.tension_reading import (
    Calibrated,
    Means,
    TensionBand,
    tension_reading,
)
from jade_ribbon.core.setup.words import ShopHabits
from jade_ribbon.reference.tables import house_rules
from tests.support.jobs import jobs

HABITS = st.builds(
    ShopHabits,
    band_position=st.sampled_from(house_rules()["band_position"].choices),
    side_gap=st.sampled_from(house_rules()["side_gap"].choices),
    thrust_gap=st.sampled_from(house_rules()["thrust_gap"].choices),
    guide_order=st.sampled_from(house_rules()["guide_order"].choices),
    tension_means=st.sampled_from(house_rules()["tension_means"].choices),
    drift=st.sampled_from(house_rules()["drift"].choices),
)


@settings(max_examples=60, deadline=None, derandomize=True)
@given(jobs(), HABITS)
def test_a_card_is_whole_and_its_figures_are_numbers(job: Job, habits: ShopHabits) -> None:
    best = choose(job).best
    assume(best is not None)
    assert best is not None
    card = setup_card(best, job, gauge_length_mm=100.0, habits=habits)
    keys = [s.key for s in card.steps]
    assert keys[0] == "isolate" and keys[-1] == "trial"
    assert len(keys) == len(set(keys))
    assert keys.index("mount") < keys.index("tension") < keys.index("fine_track")
    assert ("drift" in keys) <= (job.saw.orientation == "vertical")
    for step in card.steps:
        words = metric(join(" ", (step.do, step.check, step.wrong, step.figure)))
        assert words and not {"nan", "inf", "None"} & set(words.split())
        assert all(r.kind in READING_RANGES for r in step.readings)
    for reasons in explain_steps(card, best, job).values():
        assert math.isfinite(reasons.value)
        assert all(math.isfinite(i.value) for i in reasons.inputs)


@settings(max_examples=60, deadline=None, derandomize=True)
@given(jobs())
def test_every_form_of_the_card_s_tension_reads_back_as_the_same_stress(job: Job) -> None:
    best = choose(job).best
    assume(best is not None)
    assert best is not None
    known = Calibrated(travel_give=0.2)
    card = setup_card(
        best, job, gauge_length_mm=100.0, habits=ShopHabits(), calibrated=known
    ).tension
    facts = best.evaluation.facts
    band = TensionBand(
        width_mm=facts.band.width_mm,
        body_width_mm=facts.body_width_mm,
        gullet_depth_mm=facts.gullet_depth_mm,
        thickness_mm=facts.band.thickness_mm,
        band_length_mm=facts.length_mm,
        free_span_mm=card.free_span_mm,
        force_per_strand=job.saw.force_per_strand,
        wheel_force_max_N=job.saw.wheel_force_max_N,
        yield_MPa=1350.0,
    )
    forms: dict[Means, tuple[float | None, float | None]] = {
        "gauge": (card.forms.gauge_stretch_um, None),
        "pluck": (card.note_Hz, None),
        "travel": (card.wheel_travel_mm if card.free_span_mm else None, None),
    }
    if card.side_push is not None:
        forms["push"] = (card.side_push.force_N, card.side_push.deflection_mm)
    for means, (value, bent) in forms.items():
        if value is None:
            continue
        got = tension_reading(
            band, means=means, value=value, gauge_length_mm=100.0, deflection_mm=bent, known=known
        )
        assert math.isclose(got.stress_MPa, card.stress_MPa, rel_tol=1e-9), means
        assert got.frame_share is None or got.frame_share <= 1 + 1e-9
        assert not [w for w in got.warnings if "over the frame" in metric(w)]


@settings(max_examples=40, deadline=None, derandomize=True)
@given(jobs(), st.floats(0.5, 1.5))
def test_what_shakes_is_told_for_any_band_and_each_remedy_clears_it(job: Job, share: float) -> None:
    best = choose(job).best
    assume(best is not None)
    assert best is not None and best.evaluation.speed is not None
    facts = best.evaluation.facts
    speed = best.evaluation.speed.speed_m_s * share
    running = Running(
        stress_MPa=best.evaluation.stress_MPa,
        width_mm=facts.band.width_mm,
        gullet_depth_mm=facts.gullet_depth_mm,
        thickness_mm=facts.band.thickness_mm,
        band_length_mm=facts.length_mm,
        wheel_diameter_mm=job.saw.smallest_wheel_mm,
        guide_span_mm=job.saw.guide_span_mm(job.cut.height_mm),
        pitch_mm=facts.pitch_mm if facts.has_teeth else None,
        pitch_varies=facts.band.is_variable,
        tensioner=job.saw.tensioner,
        free_span_mm=1200.0,
    )
    card = vibration_of_band(running, speed_m_s=speed)
    rates = (card.wheel_Hz, card.band_Hz, *card.guide_bending_Hz, *card.guide_twisting_Hz)
    assert all(r > 0 and math.isfinite(r) for r in rates)
    assert list(card.guide_bending_Hz) == sorted(card.guide_bending_Hz)
    assert all(abs(m.apart_share) <= 0.05 for m in card.meetings)
    offered = remedies(running, speed_m_s=speed)
    assert bool(offered) == bool(card.meetings)
    if offered and metric(offered[0]).endswith("m/s, clears it"):
        percent, way = metric(offered[0]).split(" % ")
        to = speed * (1 + float(percent) / 100 * (1 if way.startswith("faster") else -1))
        assert vibration_of_band(running, speed_m_s=to).meetings == ()
