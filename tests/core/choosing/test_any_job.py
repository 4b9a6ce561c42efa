"""Any job at all: an answer that keeps its own limits, or reasons; never a crash."""

import dataclasses
import json
import math
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from jade_ribbon.core.choosing.choose import choose
from jade_ribbon.core.choosing.conflicts import (
    LEAST_STRESS_MPA,
    LEAST_STRESS_SHARE,
    LEAST_TEETH_COARSEST,
    WIDTH_OVER_SHARE,
    least_teeth,
)
from jade_ribbon.core.choosing.nearest_feasible import openers
from jade_ribbon.core.choosing.operating_point import dullness_now
from jade_ribbon.core.job import Candidate, Cut, Drive, Job, Saw
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import metric
from jade_ribbon.formats.recommendation import recommend
from jade_ribbon.reference.tables import materials
from tests.support.jobs import TYPES, jobs


@settings(max_examples=60, deadline=None, derandomize=True)
@given(jobs())
def test_the_answer_keeps_every_limit_it_states(job: Job) -> None:
    choice = choose(job)
    for ranked in choice.ranked:
        e, run = ranked.evaluation, ranked.run
        facts = e.facts
        assert e.speed is not None and e.window is not None
        over = 1 + WIDTH_OVER_SHARE
        assert facts.band.thickness_mm <= job.saw.band_thickness_max_mm * over
        low, high = job.saw.band_width_mm
        assert low / over <= facts.band.width_mm <= high * over
        if facts.has_teeth:
            assert e.teeth_in_cut >= least_teeth(job) - 1e-9
            assert e.teeth_in_cut_least >= LEAST_TEETH_COARSEST - 1e-9
        if job.cut.min_radius_mm is not None:
            assert e.tight_radius_mm <= job.cut.min_radius_mm
        if job.saw.wheel_force_max_N is not None:
            force = e.strand_force_N * job.saw.force_per_strand
            assert force <= job.saw.wheel_force_max_N * (1 + 1e-9)
        assert facts.stress_low_MPa is not None
        if job.saw.force_known:
            soft = max(LEAST_STRESS_SHARE * facts.stress_low_MPa, LEAST_STRESS_MPA)
            assert e.stress_MPa >= min(soft, facts.stress_target_MPa or 0) - 1e-9
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
            assert (
                metric(reason.text)
                and "nan" not in metric(reason.text)
                and "{" not in metric(reason.text)
            )
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
