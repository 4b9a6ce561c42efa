"""One band for many jobs: sums of what each costs alone, by hand and in its limits."""

import json
from dataclasses import replace

import pytest

from jade_ribbon.core.choosing.choose import choose
from jade_ribbon.core.job import Job
from jade_ribbon.core.money.all_round import all_round, change_over, job_cost
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.formats.job import JobFile
from tests.support.shop import JOB_FILE


def job(**cut: object) -> Job:
    plain = json.loads(JOB_FILE.read_text())
    plain["cut"] = {**plain["cut"], **cut}
    plain["bands"] = None
    found: Job = JobFile.model_validate(plain).to_core()
    return replace(found, bands=found.bands[40:90])


RESAW = job()
THIN = job(operation="rip", height_mm=30, length_mm=1200, count=20)
CURVE = job(operation="curve", height_mm=40, length_mm=600, min_radius_mm=90, count=4)


def test_each_total_is_the_sum_of_what_each_job_costs_with_that_band_alone() -> None:
    found = all_round([("a", RESAW), ("b", THIN), ("c", CURVE)])
    change = change_over(RESAW)
    looked = [one for one in found.ranked if not one.impossible][:6]
    assert looked
    for one in looked:
        alone = 0.0
        for mine in (RESAW, THIN, CURVE):
            best = choose(replace(mine, bands=(one.band,))).best
            assert best is not None, one.band.label
            alone += job_cost(best, mine)
        assert one.total == pytest.approx(alone + change), one.band.label


def test_changing_takes_each_job_s_choice_and_counts_only_changes() -> None:
    found = all_round([("a", RESAW), ("again", RESAW), ("c", CURVE)])
    own = choose(RESAW, beside=len(RESAW.bands)).best
    assert own is not None
    first, second, third = found.changing.jobs
    assert first.band == second.band == own.evaluation.facts.band
    assert first.cost == second.cost == pytest.approx(job_cost(own, RESAW))
    differs = third.band is not None and third.band != first.band
    assert found.changing.changes == 1 + differs
    costs = sum(j.cost or 0.0 for j in found.changing.jobs)
    assert found.changing.total == pytest.approx(
        costs + found.changing.changes * change_over(RESAW)
    )


def test_two_bands_are_never_dearer_than_one_and_one_job_needs_no_second() -> None:
    found = all_round([("a", RESAW), ("b", THIN), ("c", CURVE)])
    assert found.pair is not None
    whole = [one.total for one in found.ranked if not one.impossible]
    assert found.pair.total <= min(whole) + 1e-9
    single = all_round([("a", RESAW)])
    assert single.pair is not None
    assert single.pair.total == pytest.approx(single.ranked[0].total)


def test_what_none_can_do_is_told_and_jobs_of_two_saws_are_refused() -> None:
    shut = job(operation="curve", height_mm=250, length_mm=600, min_radius_mm=4, count=1)
    found = all_round([("a", RESAW), ("shut", shut)])
    assert found.ranked[0].impossible == 1 and found.compromise is None
    assert found.changing.jobs[1].band is None
    other = replace(RESAW, saw=replace(RESAW.saw, name="Another"))
    with pytest.raises(InputError, match="another saw"):
        all_round([("a", RESAW), ("b", other)])
    with pytest.raises(InputError, match="is empty"):
        all_round([])
