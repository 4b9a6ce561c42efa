"""The whole job on one kind of band: dulling as it goes, the bands it takes and their money."""

import dataclasses
import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from jade_ribbon.core.choosing.batch import stack
from jade_ribbon.core.choosing.cost import Cost
from jade_ribbon.core.choosing.operating_point import (
    Evaluation,
    feed_to_run_at,
    figures_at,
    stiffened,
)
from jade_ribbon.core.job import Job
from jade_ribbon.core.mechanics.life import SHAPE
from jade_ribbon.core.mechanics.lots import LotForecast, lot_forecast
from jade_ribbon.core.quantities.arrays import Array, as_array, as_figure
from jade_ribbon.core.quantities.formula_limits import columns_checked

BLUNT = 2.0
"""No edge is taken for duller: past it a cut only rubs."""
STEPS = 9
"""Dullnesses looked at on the way from an edge as it is to its limit."""


@dataclass(frozen=True)
class Lot:
    """All cuts of a job with one kind of band: figures at the middle of what is known."""

    cost: Cost
    """Money a piece, on the average of the lot."""
    metres_m: float
    minutes: float
    forecast: LotForecast

    @property
    def bands(self) -> float:
        """Bands the lot takes on the average, the first counted."""
        return 1.0 + self.forecast.changes_mean


@dataclass(frozen=True)
class _Way:
    """What an edge does on its way from one dullness to its limit, added up."""

    dullness: Array
    pieces: Array
    minutes: Array
    later: Array
    power: Array

    def upto(self, pieces: float) -> "tuple[float, float, float, float]":
        """Dullness, minutes and later and power money after so many pieces."""
        found = [
            float(np.interp(pieces, self.pieces, column))
            for column in (self.dullness, self.minutes, self.later, self.power)
        ]
        return (found[0], found[1], found[2], found[3])


def _summed(rate: Array, along: Array) -> Array:
    """The integral of a rate along each row, from its start (trapezoid)."""
    parts = 0.5 * (rate[:, 1:] + rate[:, :-1]) * np.diff(along, axis=1)
    return np.concatenate([np.zeros((len(rate), 1)), np.cumsum(parts, axis=1)], axis=1)


def _ways(
    found: Sequence[Evaluation], job: Job, alongs: Sequence[Array], share: float
) -> list[list[_Way]]:
    """For each of some ways through dullness, each band's, at a share of its paced feed."""
    many = stack(found, wide=True)
    everywhere = np.concatenate(alongs, axis=1)
    band = dataclasses.replace(many.facts.band, dullness=as_figure(everywhere))
    facts = dataclasses.replace(many.facts, band=band)
    with columns_checked():
        at = stiffened(dataclasses.replace(many, facts=facts), job)
        assert at.window is not None
        run = figures_at(at, job, share * feed_to_run_at(at.window, job))
    pieces = as_array(many.facts.life_m) / as_array(run.equivalent_m)
    money = (run.contact.cutting_time_s / 60.0, run.cost.later, run.cost.power)
    rates = [pieces * np.broadcast_to(as_array(r), everywhere.shape) for r in (1.0, *money)]
    ways, start = [], 0
    for along in alongs:
        part = slice(start, start + along.shape[1])
        summed = [_summed(rate[:, part], along) for rate in rates]
        ways.append([_Way(*line) for line in zip(along, *summed, strict=True)])
        start = part.stop
    return ways


def lots(found: Sequence[Evaluation], job: Job, *, share: float = 1.0) -> list[Lot]:
    """What the whole job takes of each band that can do it, at a share of its paced feed.

    The edge dulls from where it is to the limit of the finish, then fresh ones follow; the feed
    falls with it. Bands begun are counted by the forecast, over lives as uncertain as they are.
    """
    if not found:
        return []
    limit = job.rates.dullness_limit(job.cut.finish, job.rules)
    now = np.array([e.facts.band.dullness for e in found])
    piece = np.array([e.run.equivalent_m / e.facts.life_m if e.run else 0.0 for e in found])
    ends = np.maximum(limit, np.minimum(now + piece, np.maximum(now, BLUNT)))
    steps = np.linspace(0.0, 1.0, STEPS) ** 2
    here = now[:, None] + (ends - now)[:, None] * steps
    this, fresh = _ways(found, job, (here, np.tile(limit * steps, (len(found), 1))), share)
    return [_lot(*line, job) for line in zip(found, this, fresh, strict=True)]


def _lot(e: Evaluation, this: _Way, fresh: _Way, job: Job) -> Lot:
    """The lot of one band, by the ways of its edge and of fresh ones."""
    cuts, count = job.cut.cuts, job.cut.count
    here = min(float(cuts), float(this.pieces[-1]))
    whole, rest = divmod(cuts - here, float(fresh.pieces[-1]))
    first, last, full = this.upto(here), fresh.upto(rest), fresh.upto(math.inf)
    worn, minutes, later, power = (
        a + whole * b + c for a, b, c in zip(first, full, last, strict=True)
    )
    metres = (worn - float(this.dullness[0])) * e.facts.life_m
    forecast = _forecast(e, job, metres, minutes)
    rates, minute = job.rates, job.rates.hour / 60.0
    put_on = (0.0 if e.facts.band.mounted else 1.0) + forecast.changes_mean
    assert e.run is not None
    cost = Cost(
        edge=e.facts.price * metres / e.facts.life_m / cuts,
        time=minutes / cuts * job.cutting_hour / 60.0,
        kerf=e.run.cost.kerf,
        later=later / cuts,
        change=put_on * rates.change_min * minute / count,
        power=power / cuts,
    )
    return Lot(cost, metres, minutes, forecast)


def _forecast(e: Evaluation, job: Job, metres: float, minutes: float) -> LotForecast:
    """Bands begun over the lot: lives of this kind of edge, to this finish's limit."""
    band, life = e.facts.band, e.facts.life_m
    beta = life**SHAPE / math.expm1(math.log(2.0) / band.life_alpha)
    found = lot_forecast(
        alpha=band.life_alpha,
        beta=beta,
        shape=SHAPE,
        used_m=band.dullness * life,
        limit=job.rates.dullness_limit(job.cut.finish, job.rules),
        metres_m=metres,
        cutting_min=minutes,
        band_price=e.facts.price,
        change_min=job.rates.change_min,
        hour_rate=job.rates.hour,
    )
    spared = minutes / 60.0 * (job.rates.hour - job.cutting_hour)
    return dataclasses.replace(found, money_mean=found.money_mean - spared)
