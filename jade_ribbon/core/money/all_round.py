"""One band for many jobs: what the compromise costs against changing, and the best two."""

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass

from jade_ribbon.core.choosing.choose import CLOSE_SHARE, Ranked, choose
from jade_ribbon.core.job import Candidate, Job
from jade_ribbon.core.quantities.errors import refuse

LEAST_MONEY = 0.005
MOST_PAIRED = 60
"""Bands looked at for a pair: those that do most jobs, the cheapest of them."""


@dataclass(frozen=True)
class JobCost:
    """What a job costs with a band, its change-over left out; None where it cannot do it."""

    name: str
    cost: float | None

    @property
    def possible(self) -> bool:
        return self.cost is not None


@dataclass(frozen=True)
class OneForAll:
    """A band over all the jobs: money with its one change-over, and how many it cannot do."""

    band: Candidate
    jobs: tuple[JobCost, ...]
    total: float
    impossible: int


@dataclass(frozen=True)
class ChangedFor:
    """A job with its own best band; None where no band can do it."""

    name: str
    band: Candidate | None
    cost: float | None


@dataclass(frozen=True)
class Changing:
    """The jobs each with its best band, in their order."""

    jobs: tuple[ChangedFor, ...]
    changes: int
    total: float


@dataclass(frozen=True)
class Pair:
    """Two bands between them: each job by either, in order, change-overs counted."""

    bands: tuple[Candidate, Candidate]
    total: float
    impossible: int
    by: tuple[int | None, ...]
    """Which of the two does each job."""


@dataclass(frozen=True)
class AllRound:
    """The bands ranked, what changing costs, and the best pair (None under two bands)."""

    ranked: tuple[OneForAll, ...]
    changing: Changing
    pair: Pair | None

    @property
    def close(self) -> bool:
        """Whether one band and changing come to within a tenth: too close to call."""
        extra = self.compromise
        return extra is not None and abs(extra) <= CLOSE_SHARE * self.changing.total

    @property
    def second_saves(self) -> float | None:
        """What the best pair saves of the best one band; None where it does no more and no less.

        With a band that cannot do them all, a pair that can is worth having at any price.
        """
        if self.pair is None or not self.ranked:
            return None
        one = self.ranked[0]
        if self.pair.impossible == one.impossible and self.pair.total >= one.total - LEAST_MONEY:
            return None
        return one.total - self.pair.total

    @property
    def compromise(self) -> float | None:
        """What the best single band costs more than changing; None where it cannot do them all."""
        if not self.ranked or self.ranked[0].impossible:
            return None
        return self.ranked[0].total - self.changing.total


def change_over(job: Job) -> float:
    """Money of putting a band on."""
    return job.rates.change_min * job.rates.hour / 60.0


def job_cost(ranked: Ranked, job: Job) -> float:
    """Cost of a job with a band less the change-over of putting it on.

    Changes within the job, for bands it wears out, stay in.
    """
    put_on = 0.0 if ranked.evaluation.facts.band.mounted else change_over(job)
    return ranked.total * job.cut.count - put_on


Course = tuple[float, int, tuple[int | None, ...]]
"""Money so far, jobs that cannot be done, and which of two bands did each."""


def _by_either(costs: Sequence[Sequence[float | None]], change: float, a: int, b: int) -> Course:
    """The cheapest course of two bands through the jobs, in their order."""
    best: dict[int | None, Course] = {None: (0.0, 0, ())}
    for column in costs:
        able = [(side, column[band]) for side, band in ((0, a), (1, b))]
        if all(cost is None for _, cost in able):
            best = {on: (t, n + 1, (*by, None)) for on, (t, n, by) in best.items()}
            continue
        courses: dict[int | None, Course] = {}
        for side, cost in able:
            if cost is None:
                continue
            courses[side] = min(
                (
                    (total + cost + (0.0 if on == side else change), n, (*by, side))
                    for on, (total, n, by) in best.items()
                ),
                key=lambda course: course[0],
            )
        best = courses
    return min(best.values(), key=lambda course: course[0])


def _best_pair(
    ranked: Sequence[tuple[int, OneForAll]], costs: Sequence[Sequence[float | None]], change: float
) -> Pair | None:
    """The best two of those that do most between them."""
    found: Pair | None = None
    looked = ranked[:MOST_PAIRED]
    for (a, one), (b, two) in itertools.combinations(looked, 2):
        total, impossible, by = _by_either(costs, change, a, b)
        if found is None or (impossible, total) < (found.impossible, found.total):
            found = Pair((one.band, two.band), total, impossible, by)
    return found


def all_round(jobs: Sequence[tuple[str, Job]]) -> AllRound:
    """The band that does all jobs for least money, changing for each, and the best two.

    The jobs bring the same bands, each with its life in the job's material. Each is taken at its
    edge now in every job; a job whose stock needs another saw, or
    that nothing can do, counts as impossible. InputError without jobs, or with jobs of
    different saws.

    Source: setup against run cost, every band tried; docs/model "One band for many jobs".
    """
    if not jobs:
        raise refuse("jobs", "is empty; accepted: 1 job or more", [])
    saw = jobs[0][1].saw
    for i, (_, job) in enumerate(jobs):
        if job.saw != saw:
            words = f"{job.saw.name!r} is another saw; accepted: jobs of {saw.name!r} alone"
            raise refuse(f"jobs.{i}.saw", words, job.saw.name)
    change = change_over(jobs[0][1])
    bands = jobs[0][1].bands
    places = {_key(band): i for i, band in enumerate(bands)}
    costs: list[list[float | None]] = []
    changed = []
    for name, job in jobs:
        choice = choose(job, beside=len(bands))
        column: list[float | None] = [None] * len(bands)
        if choice.stop is None:
            for ranked in choice.ranked:
                column[places[_key(ranked.evaluation.facts.band)]] = job_cost(ranked, job)
        costs.append(column)
        best = choice.best
        changed.append(
            ChangedFor(name, None, None)
            if best is None
            else ChangedFor(name, best.evaluation.facts.band, job_cost(best, job))
        )
    ranked_bands = _ranked([name for name, _ in jobs], bands, costs, change)
    return AllRound(
        tuple(one for _, one in ranked_bands),
        _changing(changed, change),
        _best_pair(ranked_bands, costs, change),
    )


def _key(band: Candidate) -> tuple[object, ...]:
    return (band.band_id, band.label, band.width_mm, band.length_mm, band.dullness, band.price)


def _ranked(
    names: Sequence[str],
    bands: Sequence[Candidate],
    costs: Sequence[Sequence[float | None]],
    change: float,
) -> list[tuple[int, OneForAll]]:
    found = []
    for i, band in enumerate(bands):
        mine = tuple(JobCost(n, column[i]) for n, column in zip(names, costs, strict=True))
        done = [j.cost for j in mine if j.cost is not None]
        if not done:
            continue
        total = math.fsum(done) + change
        found.append((i, OneForAll(band, mine, total, len(mine) - len(done))))
    return sorted(found, key=lambda f: (f[1].impossible, f[1].total))


def _changing(changed: Sequence[ChangedFor], change: float) -> Changing:
    """Each job with its best band: one change-over whenever it differs from the one before."""
    changes, on = 0, None
    for job in changed:
        if job.band is None:
            continue
        key = _key(job.band)
        changes, on = changes + (key != on), key
    total = math.fsum(j.cost for j in changed if j.cost is not None) + changes * change
    return Changing(tuple(changed), changes, total)
