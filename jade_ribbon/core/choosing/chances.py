"""How sure a choice is: chances to be cheapest, ranges of figures, and what would settle it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from jade_ribbon.core.choosing.at_the_cut import Evaluation, figures_at
from jade_ribbon.core.choosing.choose import Choice, Ranked
from jade_ribbon.core.choosing.cost import Cost
from jade_ribbon.core.choosing.draws import Dice, Drawn, Factor, drawn
from jade_ribbon.core.choosing.lot import Lot
from jade_ribbon.core.job import Job
from jade_ribbon.core.mechanics.feed import Limit
from jade_ribbon.core.mechanics.life import SHAPE
from jade_ribbon.core.quantities.arrays import Array, as_array

LOW_SHARE, HIGH_SHARE = 0.1, 0.9
"""Ranges hold the middle eight draws of ten."""
CLOSE_CHANCE = 0.1
"""Too close to call: the other one is the cheaper in more than so many draws, and less than all
but so many."""
WORN_MOST = 1e4
UNLIMITED = 1e12
"""Stands in an array for a limit that a band does not have."""
WORTH_MEASURING_SHARE = 0.002
"""A measurement is named when it is worth more than this share of the job's money."""


@dataclass(frozen=True)
class Between:
    """A figure that is not sure: eight draws in ten lie from low to high."""

    low: float
    high: float


@dataclass(frozen=True)
class BandSpread:
    """One band in all draws. Money a piece over the lot; feeds in m/min."""

    chance_best: float
    cost: Between
    feed: Between
    floor: Between
    ceiling: Between
    safe_feed_m_min: float
    limits: Mapping[Limit, Between]
    push_N: Between
    power_W: Between
    power_share: Between
    chance_held: float
    """Push and power at the one feed planned, and the chance that no limit is under it."""


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
class Chances:
    """The spread of a choice: by place among the bands looked at, its best first."""

    group: int
    bands: tuple[BandSpread, ...]
    cheaper: tuple[tuple[float, ...], ...]
    """For each band of the group the share of draws in which it costs less than each other."""
    close_to: int | None
    settles: Settles | None
    surer: Surer | None
    guesses: tuple[str, ...]


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


def _betweens(columns: Sequence[Array], shape: tuple[int, ...]) -> list[list[Between]]:
    """For each figure the range of each band, bands down and draws across, in one sort."""
    drawn_all = np.stack([np.broadcast_to(column, shape) for column in columns])
    held = np.minimum(drawn_all, UNLIMITED)
    low, high = np.quantile(held, (LOW_SHARE, HIGH_SHARE), axis=2)
    return [
        [Between(*line) for line in zip(*pair, strict=True)]
        for pair in zip(low.tolist(), high.tolist(), strict=True)
    ]


def lot_costs(now: Sequence[Cost], lots: Sequence[Lot], seen: Drawn, job: Job) -> Array:
    """Money a piece in each draw, over the lot: each part grows as the lot made it grow.

    `now` is each band's cost with its edge as it is. Bands down, draws across.
    """
    drawn_cost = seen.run.cost

    def grown(lot: list[float], now: list[float], drawn: float) -> Array:
        """A part's draws, times what the lot made of its middle."""
        of_lot, of_now = np.array(lot), np.array(now)
        ratio = np.divide(of_lot, of_now, out=np.ones_like(of_lot), where=of_now > 0.0)
        parts: Array = as_array(drawn) * ratio[:, None]
        return parts

    whole = [lot.cost for lot in lots]
    # Edge money over its middle is how much faster or slower the edges go in a draw.
    wear = as_array(drawn_cost.edge) / np.maximum([[c.edge] for c in now], 1e-12)
    change: Array = as_array(drawn_cost.change) + _changes(lots, wear) * _change_money(job, seen)
    total: Array = (
        grown([c.edge for c in whole], [c.edge for c in now], drawn_cost.edge)
        + grown([c.time for c in whole], [c.time for c in now], drawn_cost.time)
        + as_array(drawn_cost.kerf)
        + as_array(drawn_cost.later)
        + np.array([w.later - n.later for w, n in zip(whole, now, strict=True)])[:, None]
        + grown([c.power for c in whole], [c.power for c in now], drawn_cost.power)
        + change
    )
    return total


def _changes(lots: Sequence[Lot], wear: Array) -> Array:
    """Bands begun in each draw: as the lives go where they are few, as the metres where many."""
    mean = np.array([lot.forecast.changes_mean for lot in lots])[:, None]
    power = 1.0 + (SHAPE - 1.0) * np.exp(-mean)
    return np.asarray(mean * np.minimum(wear**power, WORN_MOST / np.maximum(mean, 1e-12)))


def _change_money(job: Job, seen: Drawn) -> Array:
    """What one change of bands costs a piece, in each draw."""
    money: Array | float = job.rates.change_min * job.rates.hour / 60.0 / job.cut.count
    for factor in seen.factors:
        if factor.spread.key in ("change_min", "hour"):
            money = money * np.exp(factor.spread.sd * factor.draws)
    return np.asarray(money)


def chances_best(costs: Array) -> Array:
    """Share of the draws in which each row is the least; ties are shared out. They sum to one."""
    least = costs <= costs.min(axis=0) * (1.0 + 1e-12)
    return np.asarray((least / least.sum(axis=0)).mean(axis=1))


def _settles(costs: Array, rival: int, factors: Sequence[Factor]) -> Settles | None:
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


def _surer(
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


def _rival(costs: Array) -> int | None:
    """The place of the band that most often costs less than the first; None without another."""
    if len(costs) < 2:
        return None
    return 1 + int(np.argmax((costs[1:] < costs[0]).mean(axis=1)))


def _close(costs: Array, rival: int) -> bool:
    """Whether two costs overlap by more than a tenth of the draws, either way."""
    cheaper = float((costs[rival] < costs[0]).mean())
    return CLOSE_CHANCE < cheaper < 1.0 - CLOSE_CHANCE


def cost_range(best: Ranked, job: Job) -> Between:
    """Eight draws in ten of what one band costs a piece, over the whole lot."""
    assert best.lot is not None
    seen = drawn([best.evaluation], job, Dice())
    low, high = np.quantile(
        lot_costs([best.run.cost], [best.lot], seen, job), (LOW_SHARE, HIGH_SHARE)
    )
    return Between(float(low), float(high))


def chances(
    choice: Choice, job: Job, dice: Dice | None = None, *, advice: bool = True
) -> Chances | None:
    """How sure a choice is, over draws of all that is not sure; None where nothing was chosen.

    Looks at the bands whose whole lot was looked at: the last group, and some beside it. Each
    draw runs at the feed it allows, as a shop does that watches its cut. `advice` on what decides
    and what to measure may be left out.
    """
    found = [r for r in choice.ranked if r.lot is not None]
    lots = [r.lot for r in found if r.lot is not None]
    if choice.best is None or not found or choice.best is not found[0]:
        return None
    seen = drawn([r.evaluation for r in found], job, dice or Dice())
    costs = lot_costs([r.run.cost for r in found], lots, seen, job)
    group = max(1, sum(r.in_pitch for r in found))
    best = np.zeros(len(found))
    best[:group] = chances_best(costs[:group])
    rival = _rival(costs[:group])
    close = rival if rival is not None and _close(costs, rival) else None
    return Chances(
        group=group,
        cheaper=tuple(tuple((costs[:group] > row).mean(axis=1).tolist()) for row in costs[:group]),
        bands=band_spreads(best, costs, seen, np.array([r.run.feed_m_min for r in found])),
        close_to=close,
        settles=_settles(costs, rival, seen.factors) if advice and rival is not None else None,
        surer=_surer(found[:group], costs[:group], seen.factors, job) if advice else None,
        guesses=tuple(
            dict.fromkeys(f.spread.name for f in seen.factors if f.spread.source == "guess")
        ),
    )


def band_spreads(
    best: Array, costs: Array, seen: Drawn, feeds_m_min: Array
) -> tuple[BandSpread, ...]:
    """Each band's ranges; push and power at the feed it is planned at, whatever the draw allows."""
    window, run = seen.window, seen.run
    keys = list(window.limits_m_min)
    ceiling = np.broadcast_to(as_array(window.ceiling_m_min), costs.shape)
    exponent = 1.0 - as_array(seen.job.cut.material.size_exponent_m)
    planned = (feeds_m_min[:, None] / seen.feed_m_min) ** exponent
    columns = (
        costs,
        seen.feed_m_min,
        as_array(window.floor_m_min),
        ceiling,
        as_array(run.cut.feed_force_N) * planned,
        as_array(run.cut.cutting_power_W) * planned,
        as_array(run.power_share) * planned,
        *(as_array(window.limits_m_min[key]) for key in keys),
    )
    cost, feed, floor, top, push, power, share, *limits = _betweens(columns, costs.shape)
    held = (ceiling >= feeds_m_min[:, None] * (1.0 - 1e-9)).mean(axis=1).tolist()
    return tuple(
        BandSpread(
            chance_best=chance,
            cost=cost[place],
            feed=feed[place],
            floor=floor[place],
            ceiling=top[place],
            safe_feed_m_min=top[place].low,
            limits={
                key: ranges[place]
                for key, ranges in zip(keys, limits, strict=True)
                if ranges[place].low < UNLIMITED
            },
            push_N=push[place],
            power_W=power[place],
            power_share=share[place],
            chance_held=held[place],
        )
        for place, chance in enumerate(best.tolist())
    )


def at_feed(evaluation: Evaluation, lot: Lot, job: Job, feed_m_min: float) -> BandSpread:
    """The ranges of one band at one feed in all draws: of its cost, push and power."""
    seen = drawn([evaluation], job, Dice(), feed_m_min=feed_m_min)
    assert evaluation.run is not None
    run = figures_at(evaluation, job, feed_m_min)
    costs = lot_costs([run.cost], [lot], seen, job)
    feeds = np.array([feed_m_min])
    return band_spreads(np.ones(1), costs, seen, feeds)[0]
