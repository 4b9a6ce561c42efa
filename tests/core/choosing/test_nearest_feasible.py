"""A shut job is told what would open it, and every offer really does."""

import dataclasses
from typing import Any

import pytest

from jade_ribbon.core.choosing.choose import choose
from jade_ribbon.core.choosing.evaluate import evaluate
from jade_ribbon.core.choosing.nearest_feasible import openers
from jade_ribbon.core.job import Candidate, Job
from jade_ribbon.core.quantities.words import metric
from jade_ribbon.formats.job import JobFile
from jade_ribbon.reference.tables import materials

K05 = Candidate("K-05", 19.0, 0.81, 3.0, 3.0, "hook", "carbon_flexback", length_mm=3360.0)


@pytest.fixture
def job(job_file: dict[str, Any]) -> Job:
    return dataclasses.replace(JobFile.model_validate(job_file).to_core(), bands=(K05,))


def offers(job: Job) -> dict[str, Any]:
    choice = choose(job)
    assert choice.best is None
    return {o.kind: o for o in openers(choice.excluded, job)}


def with_cut(job: Job, **changed: Any) -> Job:
    return dataclasses.replace(job, cut=dataclasses.replace(job.cut, **changed))


def test_a_weak_motor_is_offered_less_height_that_works(job: Job) -> None:
    weak = dataclasses.replace(job, saw=dataclasses.replace(job.saw, motor_kW=0.3))
    found = offers(weak)
    height = found["height"].height_mm
    assert 0 < height < 185
    assert choose(with_cut(weak, height_mm=height)).best is not None
    assert not evaluate(K05, with_cut(weak, height_mm=height)).conflicts


def test_a_dull_band_is_offered_sharpening_and_a_gummed_one_cleaning(job: Job) -> None:
    dull = dataclasses.replace(job, bands=(dataclasses.replace(K05, dullness=0.9),))
    gummed = dataclasses.replace(job, bands=(dataclasses.replace(K05, dullness=0.6, fouling=0.9),))
    assert offers(dull)["sharpen"].text == "Sharpening K-05 lets it do it"
    assert offers(gummed)["clean"].text == "Cleaning K-05 lets it do it"


def test_a_tight_bend_is_offered_the_radius_that_turns(job: Job) -> None:
    bend = with_cut(job, operation="curve", height_mm=40.0, min_radius_mm=40.0)
    radius = offers(bend)["radius"].min_radius_mm
    assert radius > 40
    assert choose(with_cut(bend, min_radius_mm=radius)).best is not None


def test_thin_work_is_offered_a_stack(job: Job) -> None:
    thin = with_cut(job, operation="rip", height_mm=15.0)
    stack = offers(thin)["stack"]
    assert "pieces in a stack" in stack.text
    assert choose(with_cut(thin, stack=stack.stack)).best is not None


def test_a_light_frame_is_told_what_it_lacks(job: Job) -> None:
    light = dataclasses.replace(job, saw=dataclasses.replace(job.saw, wheel_force_max_N=900.0))
    assert metric(offers(light)["frame"].text).startswith("A frame that holds")


def test_offers_come_smallest_step_first_and_none_for_an_empty_rack(job: Job) -> None:
    light = dataclasses.replace(job, saw=dataclasses.replace(job.saw, motor_kW=0.1))
    steps = [o.step for o in openers(choose(light).excluded, light)]
    assert steps == sorted(steps)
    assert openers((), job) == ()


def test_thin_sheet_is_offered_a_board_under_it(job: Job) -> None:
    """Half a tooth stands in 4 mm of ply at 3 tpi: a board under it puts two in the cut."""
    regular = dataclasses.replace(K05, form="regular")
    job = dataclasses.replace(job, bands=(regular,))
    thin = with_cut(job, operation="sheet", material=materials()["plywood_birch"], height_mm=4.0)
    assert choose(thin).best is None
    offer = offers(thin)["backing"]
    assert offer.backing_mm is not None
    assert choose(with_cut(thin, backing_mm=offer.backing_mm)).best is not None
