"""How keen an edge is: metres over life, its feed, a weighed cut, its signs and a judgement."""

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Literal

from jade_ribbon.core.edge.dullness import dullness_combined, dullness_for
from jade_ribbon.core.mechanics.life import LEAST_SD, metres_sd

PAST = 0.8
"""A sign speaks for an edge duller than this."""
SIGN_ODDS: Mapping[str, float] = {
    "burn": 4.0,
    "smoke": 6.0,
    "fuzz": 3.0,
    "hard_push": 3.0,
    "squeal": 2.0,
    "dusty": 2.0,
    "rough_face": 2.0,
    "torn_face": 4.0,
}
"""Seen at a run; dust at a feed that should cut chips; a face coarser than its teeth leave."""
NOTHING_SEEN = 0.8
LEFT_AFTER_SMOKE = 0.5
"""An edge that smoked through a cut loses half of what is left."""
DULL_SIGNS = frozenset(("torn_face", "burn", "smoke", "fuzz", "hard_push"))
"""Signs that speak of a dull edge at its sharpening."""
FEED_SD = 0.15
WEIGHED_SD = 0.10
JUDGED_SD, JUDGED_LATER_SD = 0.10, 0.15
"""A judgement is one of four steps, an eighth either way; after the next run it counts for less."""
APART = 2.0
"""A direct test this many joint deviations off the metres stands alone."""
WHAT_HAPPENED = (
    "far from what its metres say, so it stands alone until the next sharpening: what happened? "
    "A nail, heat, the wrong band?"
)
SURE_PAIRS = 2
"""One faster cut is no proof of a keen edge: so many on either side, before it counts as one."""

Kind = Literal["metres", "judged", "feed", "weighed", "smoke", "signs"]


@dataclass(frozen=True)
class Slowed:
    """How the push at one feed has grown: from a keener edge of this life to a later reading.

    Metres are those of the edge at either; `pairs` how many readings stand on each side.
    """

    growth: float
    from_m: float
    at_m: float
    pairs: int
    dull_energy_gain: float
    feed_ratio_sharp: float
    feed_ratio_dull: float


@dataclass(frozen=True)
class Judged:
    """What somebody said of an edge: dullness 0 to 2, and the metres that it had then."""

    dullness: float
    at_m: float
    since: int = 0
    """Runs since."""


@dataclass(frozen=True)
class EdgeRecord:
    """What the record of an edge holds: equivalent metres, and what else speaks of it."""

    metres: float = 0.0
    odds: float = 1.0
    left_factor: float = 1.0
    judged: Judged | None = None
    fed: Slowed | None = None
    weighed: Slowed | None = None


@dataclass(frozen=True)
class Evidence:
    """One kind of evidence: what it says by itself, and what is taken with it.

    `counted` False where it stands aside, with `why`; counted with a `why`, it stands alone.
    """

    kind: Kind
    says: float | None
    sd: float
    counted: bool
    taken: float
    taken_sd: float
    why: str = ""


@dataclass(frozen=True)
class Keenness:
    """How dull an edge is taken to be, with its spread and what it rests on."""

    dullness: float
    sd: float
    evidence: tuple[Evidence, ...]

    def chance_past(self, limit: float) -> float:
        """Chance that the edge is duller than a limit."""
        return 0.5 * math.erfc((limit - self.dullness) / (self.sd * math.sqrt(2.0)))


def odds_of(signs: Iterable[str]) -> float:
    """What the signs of one run do to the odds that the edge is past 0.8."""
    seen = [SIGN_ODDS[s] for s in signs if s in SIGN_ODDS]
    return math.prod(seen) if seen else NOTHING_SEEN


def with_signs(mean: float, *, sd: float, odds: float) -> float:
    """Mean dullness when the weight past 0.8 of a normal is multiplied by the odds.

    >>> with_signs(0.5, sd=0.2, odds=1.0)
    0.5
    """
    return moved_by_signs(mean, sd=sd, odds=odds)[0]


def moved_by_signs(mean: float, *, sd: float, odds: float) -> tuple[float, float]:
    """Mean and standard deviation when the weight past 0.8 is multiplied by the odds.

    Source: the moments of a normal cut at 0.8, either part weighted.
    """
    z = (PAST - mean) / sd
    density = math.exp(-0.5 * z * z) / math.sqrt(2.0 * math.pi)
    above = 0.5 * math.erfc(z / math.sqrt(2.0))
    below = 1.0 - above
    if odds == 1.0 or min(above, below) < 1e-12:
        return mean, sd
    weight = odds * above / (below + odds * above)
    up, down = density / above, density / below
    high, low = mean + sd * up, mean - sd * down
    moved = (1.0 - weight) * low + weight * high
    within = weight * (1.0 + z * up - up * up) + (1.0 - weight) * (1.0 - z * down - down * down)
    between = weight * (1.0 - weight) * (high - low) ** 2
    return moved, math.sqrt(max(sd * sd * within + between, LEAST_SD**2))


def by_metres(record: EdgeRecord, *, life_m: float, retired: int) -> Evidence:
    """What the metres say: over the life to expect."""
    mean = record.metres / life_m
    sd = metres_sd(mean, retired=retired)
    return Evidence("metres", mean, sd, True, mean, sd)


def _judged_now(record: EdgeRecord, *, life_m: float, retired: int) -> tuple[float, float] | None:
    """What a judgement says by now, the metres since added, with its spread."""
    judged = record.judged
    if judged is None:
        return None
    since = max(0.0, record.metres - judged.at_m) / life_m
    sd = JUDGED_LATER_SD if judged.since else JUDGED_SD
    more = metres_sd(since, retired=retired) if since else 0.0
    return judged.dullness + since, math.hypot(sd, more)


def by_feed(slowed: Slowed, record: EdgeRecord, *, life_m: float) -> float | None:
    """Dullness told by a feed that fell at the same push, worn on by the metres since."""
    start = (1.0 + slowed.dull_energy_gain * slowed.from_m / life_m) * (
        slowed.feed_ratio_sharp
        + (slowed.feed_ratio_dull - slowed.feed_ratio_sharp) * slowed.from_m / life_m
    )
    found = dullness_for(
        start * slowed.growth,
        dull_energy_gain=slowed.dull_energy_gain,
        feed_ratio_sharp=slowed.feed_ratio_sharp,
        feed_ratio_dull=slowed.feed_ratio_dull,
    )
    return None if found is None else found + max(0.0, record.metres - slowed.at_m) / life_m


def _together(kind: Kind, says: float, sd: float, so_far: Evidence) -> Evidence:
    """One more piece of evidence, weighted with what is known so far."""
    both = dullness_combined(
        from_metres=so_far.taken, from_metres_sd=so_far.taken_sd, from_feed=says, from_feed_sd=sd
    )
    return Evidence(kind, says, sd, True, both.dullness, both.sd)


def _by_push(slowed: Slowed, record: EdgeRecord, so_far: Evidence, life_m: float) -> Evidence:
    """What a feed that fell at the same push adds to what is known so far."""
    says = by_feed(slowed, record, life_m=life_m)
    aside = TOO_SLOW if says is None else ""
    if says is not None and says < so_far.taken and slowed.pairs < SURE_PAIRS:
        aside = "one faster cut is no proof of a keen edge"
    if says is None or aside:
        return Evidence("feed", says, FEED_SD, False, so_far.taken, so_far.taken_sd, aside)
    return _together("feed", says, FEED_SD, so_far)


TOO_SLOW = "wear alone cannot have slowed it so: look for gum, tension or guides"


def _direct_tests(
    record: EdgeRecord, metres: Evidence, so_far: Evidence, *, life_m: float, retired: int
) -> list[Evidence]:
    """What a look and a weighed cut say: with the metres, or alone where they are far apart."""
    told: list[tuple[Literal["judged", "weighed"], float, float]] = []
    found: list[Evidence] = []
    judged = _judged_now(record, life_m=life_m, retired=retired)
    if judged is not None:
        told.append(("judged", *judged))
    if record.weighed is not None:
        says = by_feed(record.weighed, record, life_m=life_m)
        if says is None:
            found.append(
                Evidence(
                    "weighed", says, WEIGHED_SD, False, so_far.taken, so_far.taken_sd, TOO_SLOW
                )
            )
        else:
            told.append(("weighed", says, WEIGHED_SD))
    alone: Evidence | None = None
    for kind, says, sd in told:
        if abs(says - metres.taken) > APART * math.hypot(metres.taken_sd, sd):
            first = alone is None
            piece = (
                Evidence(kind, says, sd, True, says, sd)
                if alone is None
                else _together(kind, says, sd, alone)
            )
            alone = replace(piece, why=WHAT_HAPPENED if first else "")
            found.append(alone)
        elif alone is not None:
            found.append(
                Evidence(
                    kind, says, sd, False, alone.taken, alone.taken_sd, "another test stands alone"
                )
            )
        else:
            so_far = _together(kind, says, sd, so_far)
            found.append(so_far)
    return found


def _smoked(record: EdgeRecord, so_far: Evidence, retired: int) -> Evidence:
    """What smoke took: of what is left by all else, so that no other evidence makes light of it."""
    lost = max(0.0, 1.0 - so_far.taken) * (1.0 - record.left_factor)
    sd = metres_sd(lost, retired=retired)
    return Evidence("smoke", None, sd, True, so_far.taken + lost, so_far.taken_sd)


def how_keen(record: EdgeRecord, *, life_m: float, retired: int) -> Keenness:
    """An edge by all that is known of it; a judgement wins until the next run.

    Source: normal evidence weighed by its precision; judgement each sd; docs/model "How dull".
    """
    metres = by_metres(record, life_m=life_m, retired=retired)
    if record.judged is not None and record.judged.since == 0:
        dull = record.judged.dullness
        judged = Evidence("judged", dull, JUDGED_SD, True, dull, JUDGED_SD)
        return Keenness(dull, JUDGED_SD, (metres, judged))
    found = [metres]
    if record.fed is not None:
        found.append(_by_push(record.fed, record, found[-1], life_m))
    found += _direct_tests(record, metres, found[-1], life_m=life_m, retired=retired)
    lost_sd = 0.0
    if record.left_factor < 1.0:
        found.append(_smoked(record, found[-1], retired))
        lost_sd = found[-1].sd
    mean, sd = found[-1].taken, found[-1].taken_sd
    moved, spread = moved_by_signs(mean, sd=sd, odds=record.odds)
    if moved != mean:
        found.append(Evidence("signs", None, spread, True, moved, spread))
    # What smoke took is no surer than a life is; it widens the answer, not what signs weigh.
    return Keenness(max(0.0, moved), math.hypot(spread, lost_sd), tuple(found))


def keenness(mean: float, *, retired: int, odds: float, left_factor: float) -> float:
    """Dullness (0 as new) by metres, less what smoking took, moved by the signs of late runs."""
    record = EdgeRecord(metres=mean, odds=odds, left_factor=left_factor)
    return how_keen(record, life_m=1.0, retired=retired).dullness
