"""The life of an edge from this shop's own record, per steel and sharpening."""

import math
from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import NamedTuple

from jade_ribbon.core.bands.facts import relative_edge_life
from jade_ribbon.core.mechanics.life import (
    PRIOR_WEIGHT,
    SHAPE,
    LifePosterior,
    life_posterior,
    life_quantile,
    survival,
)
from jade_ribbon.core.mechanics.wear import nominal_life_m
from jade_ribbon.reference.tables import Material, steels

TRUSTED_TIMES = 4.0
"""One life is trusted to so many times the median, or its inverse, before it is confirmed."""
FAN_SHARES = (0.9, 0.5, 0.1)
"""Shares of edges that still last at the near, middle and far end of the fan."""


@dataclass(frozen=True)
class ShopLife:
    """Life of one steel at one sharpening, with the record it rests on. Metres in oak."""

    steel: str
    sharpenings: int
    prior_life_m: float
    retired: int
    running: int
    posterior: LifePosterior
    counted: Mapping[float, float] = field(default_factory=dict)
    """What each running edge's metres count for, where that is not all of them."""
    doubted: tuple[float, ...] = ()
    """Lives that nobody would believe unconfirmed: not counted."""

    @property
    def median_m(self) -> float:
        return self.posterior.median_life_m


STILL_GOOD_FOR = 1.25
"""An edge said to be still good is asked about again so many times further on."""


def asks_still_good(*, used_m: float, life_m: float, confirmed_m: float, dullness: float) -> bool:
    """Whether a running edge is asked about: past its life or its wear, and not answered lately.

    >>> asks_still_good(used_m=9000, life_m=8000, confirmed_m=0, dullness=1.1)
    True
    """
    past = used_m > life_m or dullness >= 1.0
    return past and used_m > STILL_GOOD_FOR * confirmed_m


class LifeRecord(NamedTuple):
    """A life as it counts: equivalent metres, ended by wear or not, and what was confirmed."""

    steel: str
    sharpenings: int
    metres: float
    ended: bool
    confirmed_m: float = 0.0


class ShopLives:
    """Posterior lives of every steel and sharpening, computed once from the record."""

    def __init__(self, records: Iterable[LifeRecord]) -> None:
        self._records: dict[tuple[str, int], list[LifeRecord]] = defaultdict(list)
        for record in records:
            self._records[(record.steel, record.sharpenings)].append(record)
        self._cache: dict[tuple[str, int], ShopLife] = {}

    def of(self, steel: str, sharpenings: int) -> ShopLife:
        """Life of a steel after so many sharpenings; the table's where there is no record."""
        key = (steel, sharpenings)
        if key not in self._cache:
            prior = nominal_life_m(
                rel_edge_life=steels()[steel].rel_edge_life_wood, sharpenings=sharpenings
            )
            self._cache[key] = _learned(steel, sharpenings, prior, self._records.get(key, []))
        return self._cache[key]


def _posterior(prior: float, retired: Sequence[float], running: Sequence[float]) -> LifePosterior:
    return life_posterior(
        prior_life_m=prior,
        prior_weight=PRIOR_WEIGHT,
        shape=SHAPE,
        retired_m=retired,
        running_m=running,
    )


def _references(prior: float, records: Sequence[LifeRecord]) -> list[float]:
    """For each record the median life that all others give, none of them too far out."""
    table = _posterior(prior, [], [])
    middle = table.median_life_m
    low, high = middle / TRUSTED_TIMES, middle * TRUSTED_TIMES
    shares = [
        max(
            min(max(r.metres, low), high) if r.ended else min(r.metres, middle),
            min(r.metres, r.confirmed_m),
        )
        ** SHAPE
        for r in records
    ]
    alpha = table.alpha + sum(r.ended for r in records)
    beta = table.beta + math.fsum(shares)
    return [
        _median(alpha - r.ended, beta - share) for r, share in zip(records, shares, strict=True)
    ]


def _median(alpha: float, beta: float) -> float:
    """Median life (m) of a posterior, as `life_posterior` gives it."""
    return float((beta * math.expm1(math.log(2.0) / alpha)) ** (1.0 / SHAPE))


def _learned(steel: str, sharpenings: int, prior: float, records: Sequence[LifeRecord]) -> ShopLife:
    """What the record of one steel says, with what nobody would believe left out.

    A life is trusted from a quarter to four times the median that all others give; a running
    edge past the median counts no further than it. What somebody confirmed counts as it is.
    """
    ended, going, counted, doubted = [], [], {}, []
    medians = _references(prior, records)
    for record, median in zip(records, medians, strict=True):
        metres, sure = record.metres, min(record.metres, record.confirmed_m)
        far = metres > TRUSTED_TIMES * median
        far = far or (record.ended and metres < median / TRUSTED_TIMES)
        if far := far and not (0.0 < metres == sure):
            doubted.append(metres)
        if record.ended and not far:
            ended.append(metres)
        if not record.ended:
            counted[metres] = max(0.0 if far else min(metres, median), sure)
            going.append(counted[metres])
    return ShopLife(
        steel=steel,
        sharpenings=sharpenings,
        prior_life_m=prior,
        retired=len(ended),
        running=len(going),
        posterior=_posterior(prior, ended, going),
        counted=counted,
        doubted=tuple(doubted),
    )


def own_life_m(life: ShopLife, *, used_m: float) -> float:
    """Median life (m) to measure an edge by: its own running metres left out.

    Otherwise a band that runs on would lengthen the very life it is measured against.
    """
    return _median(life.posterior.alpha, beta_without(life, used_m))


def median_without(life: ShopLife, metres: float, *, dull: bool) -> float:
    """Median life (m) that all others give, one ended life left out; as it is for one doubted."""
    if metres in life.doubted:
        return life.median_m
    alpha = life.posterior.alpha - dull
    counted = metres if dull else life.counted.get(metres, metres)
    return _median(alpha, max(life.posterior.beta - float(counted**SHAPE), 1e-12))


def beta_without(life: ShopLife, own_m: float) -> float:
    """Beta of the posterior without this band's own running metres."""
    mine = life.counted.get(own_m, own_m)
    return max(life.posterior.beta - float(mine**SHAPE), 1e-12)


def chance_to_last(
    life: ShopLife, *, used_m: float, next_m: float, lost_m: float = 0.0, limit: float = 1.0
) -> float:
    """Chance (0..1) that an edge also sees the next metres through, to a share of its life.

    `lost_m` is what signs took of it beyond its own metres. Used up to a limit of its life, an
    edge has used so much more of what it may.
    """
    return survival(
        alpha=life.posterior.alpha,
        beta=beta_without(life, used_m),
        shape=SHAPE,
        used_m=(used_m + lost_m) / limit,
        next_m=next_m / limit,
    ).probability


def metres_left(life: ShopLife, *, used_m: float, lost_m: float = 0.0) -> tuple[float, ...]:
    """Further equivalent metres that 90, 50 and 10 % of such edges last.

    `lost_m` is what else than its metres says that it has used, or not used.
    """
    return tuple(
        life_quantile(
            alpha=life.posterior.alpha,
            beta=beta_without(life, used_m),
            shape=SHAPE,
            used_m=used_m + lost_m,
            share=share,
        )
        for share in FAN_SHARES
    )


def to_wood_metres(equivalent_m: float, *, steel_key: str, material: Material) -> float:
    """Metres in any material as metres of the steel's life in wood.

    An edge has one wear account; a steel whose life in metal is a different multiple of
    plain carbon's is brought to its wood life here.
    """
    steel = steels()[steel_key]
    return equivalent_m * steel.rel_edge_life_wood / relative_edge_life(steel, material)


def life_in(life_m: float, *, steel_key: str, material: Material) -> float:
    """The inverse for a life: what a wood life amounts to in a material."""
    steel = steels()[steel_key]
    return life_m * relative_edge_life(steel, material) / steel.rel_edge_life_wood
