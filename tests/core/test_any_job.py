"""Any job at all: an answer that keeps its own limits, or reasons; never a crash."""

import dataclasses
import json
import math
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from jade_ribbon.core.choose import choose
from jade_ribbon.core.conflicts import least_teeth
from jade_ribbon.core.errors import InputError
from jade_ribbon.core.evaluate import dullness_now
from jade_ribbon.core.job import Candidate, Cut, Drive, Job, Rules, Saw
from jade_ribbon.core.openers import openers
from jade_ribbon.core.recommend import catalogue_candidates, recommend
from jade_ribbon.reference.tables import materials

TYPES = catalogue_candidates()
OPERATIONS = (
    "resaw",
    "rip",
    "crosscut",
    "curve",
    "circle",
    "veneer",
    "wedge",
    "mill",
    "reclaim",
    "sheet",
    "bar",
    "tube",
    "block",
)


@st.composite
def saws(draw: st.DrawFn) -> Saw:
    wheel = draw(st.floats(220, 1000))
    drive = draw(
        st.one_of(
            st.builds(
                Drive,
                kind=st.just("fixed"),
                speeds_m_s=st.lists(st.floats(0.3, 30), min_size=1, max_size=4).map(tuple),
            ),
            st.just(Drive("inverter", base_hz=50, min_hz=10, max_hz=60, base_speed_m_s=wheel / 30)),
        )
    )
    return Saw(
        name="Any",
        orientation=draw(st.sampled_from(["vertical", "horizontal"])),
        wheel_diameters_mm=(wheel,) * draw(st.sampled_from([2, 3])),
        tyre="crowned",
        band_length_mm=(3000.0, 3100.0),
        band_width_mm=(3.0, draw(st.floats(10, 60))),
        band_thickness_max_mm=draw(st.floats(0.5, 1.3)),
        wheel_force_max_N=draw(st.one_of(st.none(), st.floats(500, 20_000))),
        height_mm=500.0,
        throat_mm=400.0,
        guides="rolling",
        guide_span_base_mm=draw(st.floats(40, 150)),
        guide_span_per_height=1.0,
        motor_kW=draw(st.floats(0.3, 15)),
        drive_efficiency=0.8,
        drive=drive,
        feed=draw(st.sampled_from(["hand", "power", "carriage"])),
        feed_max_m_min=draw(st.one_of(st.none(), st.floats(0.3, 20))),
    )


@st.composite
def jobs(draw: st.DrawFn) -> Job:
    operation = draw(st.sampled_from(OPERATIONS))
    height = draw(st.floats(3, 450))
    cut = Cut(
        operation=operation,  # type: ignore[arg-type]
        material=draw(st.sampled_from(list(materials().values()))),
        height_mm=height,
        length_mm=draw(st.floats(50, 6000)),
        count=draw(st.integers(1, 100)),
        finish=draw(st.sampled_from(["rough", "plane", "sand", "show"])),
        min_radius_mm=draw(st.floats(5, 800)) if operation in ("curve", "circle") else None,
        angle_deg=draw(st.sampled_from([0.0, 0.0, 12.0])),
        wall_mm=height * draw(st.floats(0.05, 0.5)) if operation == "tube" else None,
        round_stock=draw(st.booleans()),
    )
    rules = Rules(
        resaw_width=draw(st.sampled_from(["frame", "widest", "narrow"])),
        resaw_pitch=draw(st.sampled_from(["coarse", "fine"])),
        least_teeth=draw(st.sampled_from([2, 3, 4])),
        tension=draw(st.sampled_from(["full", "light"])),
        radius=draw(st.sampled_from(["comfortable", "tightest"])),
        steel=draw(st.sampled_from(["cost", "long_life", "cheap"])),
    )
    return Job(saw=draw(saws()), cut=cut, rules=rules, bands=TYPES)


@settings(max_examples=60, deadline=None, derandomize=True)
@given(jobs())
def test_the_answer_keeps_every_limit_it_states(job: Job) -> None:
    choice = choose(job)
    for ranked in choice.ranked:
        e, run = ranked.evaluation, ranked.run
        facts = e.facts
        assert e.speed is not None and e.window is not None
        assert facts.band.thickness_mm <= job.saw.band_thickness_max_mm
        assert job.saw.band_width_mm[0] <= facts.band.width_mm <= job.saw.band_width_mm[1]
        if facts.has_teeth:
            assert e.teeth_in_cut_least >= least_teeth(job) - 1e-9
        if job.cut.min_radius_mm is not None:
            assert e.tight_radius_mm <= job.cut.min_radius_mm
        if job.saw.wheel_force_max_N is not None:
            force = e.strand_force_N * job.saw.force_per_strand
            assert force <= job.saw.wheel_force_max_N * (1 + 1e-9)
        assert facts.stress_low_MPa is not None
        assert e.stress_MPa >= min(facts.stress_low_MPa, facts.stress_target_MPa or 0) - 1e-9
        assert run.feed_m_min <= e.window.ceiling_m_min * (1 + 1e-9)
        assert run.power_share <= 1 + 1e-9
        assert run.gullet_fill <= job.cut.material.gullet_fill_limit * (1 + 1e-9)
        assert dullness_now(facts) <= job.rates.dullness_limit(job.cut.finish, job.rules)
        assert ranked.total >= 0 and math.isfinite(ranked.total)


@settings(max_examples=40, deadline=None, derandomize=True)
@given(jobs())
def test_every_band_is_ranked_or_told_why_not(job: Job) -> None:
    choice = choose(job)
    assert len(choice.ranked) + len(choice.excluded) == len(TYPES)
    for e in choice.excluded:
        assert e.conflicts
        for reason in e.conflicts:
            assert reason.text and "nan" not in reason.text and "{" not in reason.text
    json.dumps(recommend(job), allow_nan=False)


@settings(max_examples=25, deadline=None, derandomize=True)
@given(jobs())
def test_the_best_is_of_the_best_class_and_offers_hold(job: Job) -> None:
    choice = choose(job)
    if choice.ranked:
        assert choice.ranked[0].band_class == min(r.band_class for r in choice.ranked)
    few = dataclasses.replace(job, bands=TYPES[:12])
    shut = choose(few)
    if shut.best is None and shut.stop is None:
        for offer in openers(shut.excluded, few):
            assert offer.step >= 1
            changed: dict[str, Any] = {
                k: v
                for k, v in (
                    ("height_mm", offer.height_mm),
                    ("min_radius_mm", offer.min_radius_mm),
                )
                if v is not None
            }
            if changed:
                again = dataclasses.replace(few, cut=dataclasses.replace(few.cut, **changed))
                assert choose(again).ranked, offer


@settings(max_examples=40, deadline=None, derandomize=True)
@given(jobs(), st.floats(0, 1), st.floats(0, 1))
def test_a_duller_band_is_never_let_in_where_a_keener_is_kept_out(
    job: Job, a: float, b: float
) -> None:
    keen, dull = sorted((a, b))

    def able(dullness: float) -> set[str]:
        bands = tuple(dataclasses.replace(t, dullness=dullness) for t in TYPES[::6])
        choice = choose(dataclasses.replace(job, bands=bands))
        return {r.evaluation.facts.band.label for r in choice.ranked}

    assert able(dull) <= able(keen)


def test_a_senseless_height_is_refused_not_guessed() -> None:
    saw = Saw(
        name="",
        orientation="vertical",
        wheel_diameters_mm=(400.0, 400.0),
        tyre="crowned",
        band_length_mm=(3000.0, 3100.0),
        band_width_mm=(3.0, 25.0),
        band_thickness_max_mm=0.9,
        wheel_force_max_N=3000.0,
        height_mm=300.0,
        throat_mm=300.0,
        guides="rolling",
        guide_span_base_mm=10.0,
        guide_span_per_height=0.5,
        motor_kW=1.5,
        drive_efficiency=0.8,
        drive=Drive("fixed", speeds_m_s=(14.0,)),
    )
    cut = Cut(
        operation="tube",
        material=materials()["mild_steel"],
        height_mm=310.0,
        length_mm=100.0,
        count=1,
    )
    with pytest.raises(InputError) as caught:
        choose(Job(saw=saw, cut=cut, bands=TYPES))
    told: dict[str, Any] = {f.path: f.message for f in caught.value.faults}
    assert set(told) == {"cut.height_mm", "saw.guide_span_per_height", "cut.wall_mm"}
    walls = dataclasses.replace(cut, height_mm=100.0, wall_mm=60.0)
    with pytest.raises(InputError, match="accepted: up to 50"):
        choose(Job(saw=dataclasses.replace(saw, guide_span_per_height=1.0), cut=walls))


def test_bad_bands_are_told_by_their_place() -> None:
    bands = (TYPES[0], Candidate("x", 19.0, 0.8, None, None, "hook", "carbon_flexback"))
    with pytest.raises(InputError, match=r"bands\.1\.tpi: is missing"):
        choose(dataclasses.replace(_plain(), bands=bands))


def _plain() -> Job:
    cut = Cut(
        operation="rip",
        material=materials()["red_oak_dry"],
        height_mm=50.0,
        length_mm=1000.0,
        count=1,
    )
    saw = Saw(
        name="",
        orientation="vertical",
        wheel_diameters_mm=(400.0, 400.0),
        tyre="crowned",
        band_length_mm=(3000.0, 3100.0),
        band_width_mm=(3.0, 25.0),
        band_thickness_max_mm=0.9,
        wheel_force_max_N=3000.0,
        height_mm=300.0,
        throat_mm=300.0,
        guides="rolling",
        guide_span_base_mm=70.0,
        guide_span_per_height=1.0,
        motor_kW=1.5,
        drive_efficiency=0.8,
        drive=Drive("fixed", speeds_m_s=(14.0,)),
    )
    return Job(saw=saw, cut=cut)
