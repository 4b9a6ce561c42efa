"""How sure a choice is: chances to be cheapest, ranges of figures, and what would settle it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from jade_ribbon.core.choosing.choose import Choice, Ranked
from jade_ribbon.core.choosing.cost import Cost
from jade_ribbon.core.choosing.lot import Lot
from jade_ribbon.core.choosing.operating_point import Evaluation, figures_at
from jade_ribbon.core.choosing.uncertainty.best_measurement import Settles, Surer, settles, surer
from jade_ribbon.core.choosing.uncertainty.monte_carlo import Dice, Drawn, Factor, drawn
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
    most = np.maximum(1.0, WORN_MOST / np.maximum(mean, 1e-12))
    return np.asarray(mean * np.minimum(wear**power, most))


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
    return chances_together((choice,), job, dice, advice=advice)[0]


def chances_together(
    choices: Sequence[Choice], job: Job, dice: Dice | None = None, *, advice: bool = True
) -> list[Chances | None]:
    """How sure each of some choices for one cut on one saw is, all looked at in the same draws.

    Advice is given on the first of them.
    """
    parts = [_looked_at(choice) for choice in choices]
    everything = [r for part in parts for r in part]
    if not everything:
        return [None] * len(parts)
    seen = drawn([r.evaluation for r in everything], job, dice or Dice())
    lots = [r.lot for r in everything if r.lot is not None]
    costs = lot_costs([r.run.cost for r in everything], lots, seen, job)
    best = np.zeros(len(everything))
    starts = [0, *np.cumsum([len(part) for part in parts]).tolist()]
    # The band left on the saw by house rule stands first, of the last group or not.
    groups = [sum(r.in_pitch or r is part[0] for r in part) or 1 for part in parts]
    for part, start, group in zip(parts, starts, groups, strict=False):
        if part:
            best[start : start + group] = chances_best(costs[start : start + group])
    bands = band_spreads(best, costs, seen, np.array([r.run.feed_m_min for r in everything]))
    return [
        _of_one(
            part[:group],
            bands[start : start + len(part)],
            costs[start : start + group],
            _own(seen.factors, start, start + len(part)) if advice and start == 0 else None,
            job,
            tuple(dict.fromkeys(f.spread.name for f in seen.factors if f.spread.source == "guess")),
        )
        if part
        else None
        for part, start, group in zip(parts, starts, groups, strict=False)
    ]


def _looked_at(choice: Choice) -> list[Ranked]:
    """The bands of a choice whose lot was looked at; none where its best is not among them."""
    found = [r for r in choice.ranked if r.lot is not None]
    return found if found and choice.best is found[0] else []


def _own(factors: Sequence[Factor], start: int, end: int) -> list[Factor]:
    """What was drawn for all, and for the bands from one place to another."""
    return [f for f in factors if f.band is None or start <= f.band < end]


def _of_one(
    group: Sequence[Ranked],
    bands: tuple[BandSpread, ...],
    costs: Array,
    advise: Sequence[Factor] | None,
    job: Job,
    guesses: tuple[str, ...],
) -> Chances:
    """One choice among bands drawn with others: its group's costs, first in its rows."""
    rival = _rival(costs)
    return Chances(
        group=len(group),
        cheaper=tuple(tuple((costs > row).mean(axis=1).tolist()) for row in costs),
        bands=bands,
        close_to=rival if rival is not None and _close(costs, rival) else None,
        settles=None if advise is None or rival is None else settles(costs, rival, advise),
        surer=None if advise is None else surer(group, costs, advise, job),
        guesses=guesses,
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
