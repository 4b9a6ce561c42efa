"""What cutting cost, from sums of the record: by the metre, the square metre, the piece."""

import math
from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

TENTHS = 1.2815516
"""Eight in ten of a normal lie within so many standard deviations."""


@dataclass(frozen=True)
class Summed:
    """Sums of a group's runs on one steel, sharpened or not: seconds, metres, m2, pieces, wear.

    `time` is the money of its hours, each at what it costs on that saw.
    `time_area`, `time2` and `area2` are the sums of products of a run's minutes and area.
    `priced_m` is wear times price (money metres) where a price is known, `usual_m` wear times the
    usual price of plain carbon of that width and length where it is not, `unpriced_m` that wear.
    """

    steel: str
    sharpened: bool
    runs: int
    seconds: float
    metres: float
    area_m2: float
    pieces: float
    time_area: float
    time2: float
    area2: float
    equivalent_m: float
    time: float
    priced_m: float
    unpriced_m: float
    usual_m: float


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


def share_per_m(lives_m: Sequence[float], *, life_ratio: float, times: int) -> float:
    """Share of a new band's price that an equivalent metre takes, sharpened so many times.

    `lives_m`: median lives by times sharpened, the new one's first.

    >>> share_per_m([8000.0], life_ratio=0.9, times=0)
    0.000125
    """
    return 1.0 / (lives_m[0] * math.fsum(life_ratio**n for n in range(times + 1)))


def group_cost(
    sums: Sequence[Summed],
    *,
    per_m: Mapping[tuple[str, bool], float],
    dearer: Mapping[str, float],
) -> GroupCost:
    """A group's cost from its sums.

    `per_m` is, by steel and whether it is sharpened, the share of a band's price that an
    equivalent metre takes; `dearer` what it costs against plain carbon, where nobody gave a price.

    Source: survey sampling, variance of a ratio; docs/model "Money from the record".
    """
    hours = math.fsum(s.seconds for s in sums) / 3600.0
    area = math.fsum(s.area_m2 for s in sums)
    metres = math.fsum(s.metres for s in sums)
    pieces = math.fsum(s.pieces for s in sums)
    runs = sum(s.runs for s in sums)
    time = math.fsum(s.time for s in sums)
    edge = math.fsum(
        (s.priced_m + s.usual_m * dearer[s.steel]) * per_m[(s.steel, s.sharpened)] for s in sums
    )
    worn = math.fsum(s.equivalent_m for s in sums)
    total = time + edge
    low, high = _range(sums, runs, area, hours, edge, time)
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
    sums: Sequence[Summed], runs: int, area: float, hours: float, edge: float, time: float
) -> tuple[float | None, float | None]:
    """Money a m2 within which eight in ten such groups would lie; None under three runs."""
    if runs < LEAST_RUNS or area <= 0.0:
        return None, None
    minutes = 60.0 * hours
    ratio = minutes / area
    squares = math.fsum(s.time2 - 2.0 * ratio * s.time_area + ratio * ratio * s.area2 for s in sums)
    spread = math.sqrt(max(0.0, squares) * runs / (runs - 1.0)) / area
    a_minute = time / minutes if minutes > 0.0 else 0.0
    sd = math.hypot(spread * a_minute, EDGE_SD * edge / area)
    mean = (time + edge) / area
    return max(0.0, mean - TENTHS * sd), mean + TENTHS * sd


@dataclass(frozen=True)
class DullPart:
    """Minutes and m2 of one kind of cut, sawn at about one dullness, in so many runs."""

    kind: str
    dullness: float
    runs: int
    minutes: float
    area_m2: float


@dataclass(frozen=True)
class DullMinutes:
    """What dull edges took, by the record: minutes that keen ones would not have taken.

    `told_min` are minutes on duller edges of kinds of cut that keen edges made too; of `untold_min`
    nobody can tell.
    """

    lost_min: float
    told_min: float
    untold_min: float


KEEN_UNDER = 0.35
KEEN_RUNS = 3
"""Runs on keen edges before a kind of cut has a pace of its own."""


def lost_to_dullness(parts: Sequence[DullPart]) -> DullMinutes:
    """Minutes that duller edges took beyond the pace of keen ones at the same kind of cut.

    Kinds that keen edges hardly made are left out, and said so; one cut faster dull than keen
    counts against the others.

    >>> lost_to_dullness([DullPart("a", 0.1, 3, 30, 3), DullPart("a", 0.7, 2, 40, 2)]).lost_min
    20.0
    """
    keen: dict[str, list[DullPart]] = defaultdict(list)
    dull: dict[str, list[DullPart]] = defaultdict(list)
    for part in parts:
        (keen if part.dullness < KEEN_UNDER else dull)[part.kind].append(part)
    lost = told = untold = 0.0
    for kind, mine in dull.items():
        minutes = math.fsum(p.minutes for p in mine)
        area = math.fsum(p.area_m2 for p in keen[kind])
        if sum(p.runs for p in keen[kind]) < KEEN_RUNS or area <= 0.0:
            untold += minutes
            continue
        pace = math.fsum(p.minutes for p in keen[kind]) / area
        told += minutes
        lost += minutes - pace * math.fsum(p.area_m2 for p in mine)
    return DullMinutes(max(0.0, lost), told, untold)
