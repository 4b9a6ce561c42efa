"""What decides a choice between bands, and the one measurement that would make it surer."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from jade_ribbon.core.choosing.choose import Ranked
from jade_ribbon.core.choosing.uncertainty.monte_carlo import Factor
from jade_ribbon.core.job import Job
from jade_ribbon.core.quantities.arrays import Array

WORTH_MEASURING_SHARE = 0.002
"""A measurement is named when it is worth more than this share of the job's money."""


@dataclass(frozen=True)
class Settles:
    """The one figure that most decides between a choice and its nearest rival."""

    name: str
    share: float


@dataclass(frozen=True)
class Surer:
    """A measurement worth making for this job: what it saves on the average, and where."""

    key: str
    name: str
    gain: float
    minutes: float
    do: str
    place: str
    band_id: int | None

    @property
    def gain_per_minute(self) -> float:
        return self.gain / self.minutes


@dataclass(frozen=True)
class Measurement:
    """How a figure is measured in the shop: minutes, what to do, where."""

    minutes: float
    do: str
    place: str


MEASUREMENTS: Mapping[str, Measurement] = {
    "set": Measurement(4.0, "measure the set of ten teeth", "rack"),
    "dullness": Measurement(2.0, "judge the edge by its tips", "rack"),
    "frame": Measurement(15.0, "tension a band by a gauge until the frame holds no more", "saw"),
    "hand": Measurement(5.0, "push against a scale as you push the work", "saw"),
    "hour": Measurement(3.0, "say what an hour costs the shop", "shop"),
    "timber_m3": Measurement(3.0, "say what this timber costs", "shop"),
    "change_min": Measurement(12.0, "time a change of bands", "shop"),
    "plane_min_m2": Measurement(6.0, "time the planing of a square metre", "shop"),
    "sand_min_m2": Measurement(8.0, "time the sanding of a square metre", "shop"),
    "show_min_m2": Measurement(10.0, "time a square metre made a show face", "shop"),
}
"""What can be measured where the application has a place for it."""


def settles(costs: Array, rival: int, factors: Sequence[Factor]) -> Settles | None:
    """The drawn figure that explains most of the difference to a rival."""
    gap = costs[rival] - costs[0]
    spread = float(np.var(gap))
    if spread <= 0.0:
        return None
    shares: dict[str, float] = {}
    for factor in factors:
        if factor.band in (None, 0, rival):
            share = float(np.cov(gap, factor.draws, bias=True)[0, 1] ** 2 / spread)
            shares[factor.spread.name] = max(shares.get(factor.spread.name, 0.0), share)
    name = max(shares, key=lambda key: shares[key])
    return Settles(name, shares[name])


def _worth(over: Array, draws: Array) -> float:
    """What knowing one figure saves a piece on the average: another band where it says so.

    `over` is what each band costs over the first in each draw; over the figure it is taken as a
    parabola.
    """
    line = draws - draws.mean()
    if not line.any():
        return 0.0
    curve = line**2 - (line**2).mean()
    curve = curve - line * (curve @ line) / (line @ line)
    middle = over.mean(axis=1)
    fitted = middle[:, None] + sum(
        np.outer(over @ part, part) / max(float(part @ part), 1e-300) for part in (line, curve)
    )
    return max(0.0, float(middle.min()) - float(fitted.min(axis=0).mean()))


def surer(
    group: Sequence[Ranked], costs: Array, factors: Sequence[Factor], job: Job
) -> Surer | None:
    """The measurement worth most a minute for this job; None where none would pay."""
    best: Surer | None = None
    over = costs - costs[0]
    floor = WORTH_MEASURING_SHARE * float(np.median(costs[0])) * job.cut.count
    for factor in factors:
        how = MEASUREMENTS.get(factor.spread.key)
        if how is None or (factor.band is not None and factor.band >= len(group)):
            continue
        gain = _worth(over, factor.draws) * job.cut.count
        band = None if factor.band is None else group[factor.band].evaluation.facts.band.band_id
        found = Surer(
            factor.spread.key, factor.spread.name, gain, how.minutes, how.do, how.place, band
        )
        better = best is None or found.gain_per_minute > best.gain_per_minute
        if gain > floor and better:
            best = found
    return best
