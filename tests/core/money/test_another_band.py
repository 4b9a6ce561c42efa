"""A lot under way: another band of the rack for what is left, only where it clearly pays."""

import dataclasses

from jade_ribbon.core.choosing.choose import choose
from jade_ribbon.core.job import Candidate, Job
from jade_ribbon.core.money.lot_stand import another_band
from jade_ribbon.core.quantities.words import metric

FINE = Candidate("F-6", 19.0, 0.81, 6.0, 6.0, "hook", "carbon_flexback", band_id=1, mounted=True)
COARSE = Candidate("C-2", 19.0, 0.81, 2.0, 2.0, "hook", "carbon_flexback", band_id=2)


def rack(job: Job, count: int, *bands: Candidate) -> Job:
    cut = dataclasses.replace(job.cut, count=count)
    return dataclasses.replace(job, cut=cut, bands=bands)


def said(job: Job, count: int, *bands: Candidate) -> str:
    found = choose(rack(job, count, *bands), beside=10)
    return metric(another_band(found, 1, count, "€"))


def test_a_coarser_band_is_named_for_a_long_rest(job: Job) -> None:
    """By hand: so many pieces times the difference of cost a piece, which has the change in it."""
    words = said(job, 80, FINE, COARSE)
    found = choose(rack(job, 80, FINE, COARSE), beside=10)
    by_id = {r.evaluation.facts.band.band_id: r.total for r in found.ranked}
    assert by_id[2] < 0.9 * by_id[1]
    assert words.startswith("C-2 (coarser, changed over) does the 80 left for some €")


def test_nothing_is_said_of_the_band_that_is_on_or_of_its_like(job: Job) -> None:
    assert said(job, 80, FINE) == ""
    like = dataclasses.replace(FINE, label="F-7", band_id=3, mounted=False)
    assert said(job, 80, FINE, like) == ""
