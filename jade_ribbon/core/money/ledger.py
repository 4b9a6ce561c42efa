"""What cutting cost, from sums of the record: by the metre, the square metre, the piece."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from jade_ribbon.core.money.what_next import OAK_DULL, OAK_GAIN, OAK_M, OAK_SHARP

TENTHS = 1.2815516
"""Eight in ten of a normal lie within so many standard deviations."""


@dataclass(frozen=True)
class Summed:
    """Sums of a group's runs on one steel and edge: seconds, metres, m2, pieces, wear.

    `time_area`, `time2` and `area2` are the sums of products of a run's minutes and area.
    `priced_m` is wear times price (money metres) where a price is known, `unpriced_m` wear without.
    """

    steel: str
    edge_number: int
    runs: int
    seconds: float
    metres: float
    area_m2: float
    pieces: float
    time_area: float
    time2: float
    area2: float
    equivalent_m: float
    priced_m: float
    unpriced_m: float


@dataclass(frozen=True)
class GroupCost:
    """What a group of runs cost, with what a metre, a m2 and a piece came to.

    Money of all of it; `m2_low` and `m2_high` hold eight in ten, None where too little speaks.
    """

    runs: int
    hours: float
    metres: float
    area_m2: float
    pieces: float
    equivalent_m: float
    time: float
    edge: float
    total: float
    per_metre: float | None
    per_m2: float | None
    per_piece: float | None
    m2_low: float | None
    m2_high: float | None
    unpriced_share: float
    """Share of the wear on bands whose price nobody gave: reckoned at the usual one."""


LEAST_RUNS = 3


def group_cost(
    sums: Sequence[Summed],
    *,
    hour_rate: float,
    per_m: Mapping[str, float],
    usual_price: Mapping[str, float],
) -> GroupCost:
    """A group's cost from its sums.

    `per_m` is, by steel, the share of a band's price that an equivalent metre takes (with its
    sharpenings); `usual_price` what a band costs where nobody gave a price.

    Source: ours, docs/model "Money from the record": the spread of a ratio of sums.
    """
    hours = math.fsum(s.seconds for s in sums) / 3600.0
    area = math.fsum(s.area_m2 for s in sums)
    metres = math.fsum(s.metres for s in sums)
    pieces = math.fsum(s.pieces for s in sums)
    runs = sum(s.runs for s in sums)
    time = hours * hour_rate
    edge = math.fsum(
        (s.priced_m + s.unpriced_m * usual_price[s.steel]) * per_m[s.steel] for s in sums
    )
    worn = math.fsum(s.equivalent_m for s in sums)
    total = time + edge
    low, high = _range(sums, runs, area, hours, edge, hour_rate)
    return GroupCost(
        runs=runs,
        hours=hours,
        metres=metres,
        area_m2=area,
        pieces=pieces,
        equivalent_m=worn,
        time=time,
        edge=edge,
        total=total,
        per_metre=total / metres if metres > 0.0 else None,
        per_m2=total / area if area > 0.0 else None,
        per_piece=total / pieces if pieces > 0.0 else None,
        m2_low=low,
        m2_high=high,
        unpriced_share=math.fsum(s.unpriced_m for s in sums) / worn if worn > 0.0 else 0.0,
    )


EDGE_SD = 0.35
"""The edge's share is known no better than a life is."""


def _range(
    sums: Sequence[Summed], runs: int, area: float, hours: float, edge: float, hour_rate: float
) -> tuple[float | None, float | None]:
    """Money a m2 within which eight in ten such groups would lie; None under three runs."""
    if runs < LEAST_RUNS or area <= 0.0:
        return None, None
    minutes = 60.0 * hours
    ratio = minutes / area
    squares = math.fsum(s.time2 - 2.0 * ratio * s.time_area + ratio * ratio * s.area2 for s in sums)
    spread = math.sqrt(max(0.0, squares) * runs / (runs - 1.0)) / area
    sd = math.hypot(spread * hour_rate / 60.0, EDGE_SD * edge / area)
    mean = (hours * hour_rate + edge) / area
    return max(0.0, mean - TENTHS * sd), mean + TENTHS * sd


@dataclass(frozen=True)
class DullMinutes:
    """Minutes sawn by hand, and those of them that a fresh edge would have spared."""

    minutes: float
    lost: float


def lost_to_dullness(parts: Sequence[tuple[float, float]]) -> DullMinutes:
    """Minutes lost to dull edges, from minutes and the dullness they were sawn at.

    At one push the feed falls as f(d)^(-1/(1 - m)); told for dry hardwood.

    >>> lost_to_dullness([(60.0, 0.0)]).lost
    0.0
    """

    def push(d: float) -> float:
        return (1.0 + OAK_GAIN * d) * (OAK_SHARP + (OAK_DULL - OAK_SHARP) * d)

    whole = math.fsum(minutes for minutes, _ in parts)
    lost = math.fsum(
        minutes * (1.0 - (push(0.0) / push(min(d, 1.5))) ** (1.0 / (1.0 - OAK_M)))
        for minutes, d in parts
    )
    return DullMinutes(whole, lost)
