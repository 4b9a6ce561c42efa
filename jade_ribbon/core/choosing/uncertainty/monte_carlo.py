"""Draws of what is not sure: the same dice for every band, so that only bands differ."""

import dataclasses
import zlib
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from statistics import NormalDist
from typing import Any

import numpy as np

from jade_ribbon.core.bands.facts import BandFacts
from jade_ribbon.core.bands.reach import frame_force_N, reachable_stress
from jade_ribbon.core.choosing.batch import stack
from jade_ribbon.core.choosing.cost import bite_ceiling_mm
from jade_ribbon.core.choosing.lot import BLUNT
from jade_ribbon.core.choosing.operating_point import (
    Evaluation,
    RunFigures,
    feed_to_run_at,
    figures_at,
    stiffened,
)
from jade_ribbon.core.choosing.uncertainty.spreads import (
    MEASURED_SET_SHARE,
    RATES,
    SET_SHARE,
    Spread,
    job_spreads,
    share_sd_ln,
)
from jade_ribbon.core.job import Job
from jade_ribbon.core.mechanics.feed import FeedWindow
from jade_ribbon.core.mechanics.life import PRIOR_WEIGHT, life_sd_ln, metres_sd
from jade_ribbon.core.quantities.arrays import Array, as_array, as_figure, least, most
from jade_ribbon.core.quantities.formula_limits import columns_checked

DRAWS = 256
SEED = 1
EXPONENT_MOST = 0.9
FILL_LEAST = 0.05


@lru_cache(maxsize=8)
def _strata(count: int) -> Array:
    """Middles of so many equally likely parts of a standard normal."""
    normal = NormalDist()
    return np.array([normal.inv_cdf((i + 0.5) / count) for i in range(count)])


@lru_cache(maxsize=2048)
def dice(key: str, count: int, seed: int) -> Array:
    """Standard normal draws of one figure: every part of it once, in an order of its own."""
    order = np.random.default_rng((seed, zlib.crc32(key.encode()))).permutation(count)
    return _strata(count)[order]


@dataclass(frozen=True)
class Dice:
    """So many draws from a seed; `wide` times as wide as what is known says."""

    count: int = DRAWS
    seed: int = SEED
    wide: float = 1.0

    def of(self, key: str) -> Array:
        return self.wide * dice(key, self.count, self.seed)


@dataclass(frozen=True)
class Drawn:
    """Bands down, draws across: what each costs and may be fed at, and each thing drawn."""

    run: RunFigures
    window: FeedWindow
    feed_m_min: Array
    factors: "tuple[Factor, ...]"
    job: Job
    """The job with its own figures drawn."""


@dataclass(frozen=True)
class Factor:
    """A figure as it was drawn: of one band (its place) or of all of them."""

    spread: Spread
    draws: Array
    band: int | None = None


def _moved(value: float, spread: Spread, draws: Array) -> Array:
    return value + spread.sd * draws if spread.plain else value * np.exp(spread.sd * draws)


def drawn_job(job: Job, factors: Sequence[Factor]) -> Job:
    """The job with its uncertain figures drawn."""
    by_key = {f.spread.key: f for f in factors if f.band is None}

    def moved(key: str, value: float) -> float:
        factor = by_key.get(key)
        return value if factor is None else as_figure(_moved(value, factor.spread, factor.draws))

    material = job.cut.material
    largest = moved("largest_bite", material.bite_max_mm)
    target = moved("largest_bite", material.bite_target_mm)
    # Whatever the least bite is, the bite that the finish asks for does not rub.
    finest = bite_ceiling_mm(job.cut.finish, bite_target_mm=target, bite_max_mm=largest)
    exponent = moved("exponent", material.size_exponent_m)
    stock = dataclasses.replace(
        material,
        specific_cutting_pressure_MPa=moved("pressure", material.specific_cutting_pressure_MPa),
        size_exponent_m=least(most(exponent, 0.0), EXPONENT_MOST),
        bite_min_mm=least(moved("least_bite", material.bite_min_mm), finest),
        bite_max_mm=largest,
        bite_target_mm=target,
        gullet_fill_limit=most(moved("fill", material.gullet_fill_limit), FILL_LEAST),
        abrasiveness=moved("wear", material.abrasiveness),
    )
    saw = dataclasses.replace(job.saw, hand_force_N=moved("hand", job.saw.hand_force_N))
    if "frame" in by_key:
        saw = dataclasses.replace(saw, wheel_force_max_N=moved("frame", frame_force_N(job.saw)))
    rates: dict[str, Any] = {key: moved(key, getattr(job.rates, key)) for key in RATES}
    return dataclasses.replace(
        job,
        saw=saw,
        cut=dataclasses.replace(job.cut, material=stock),
        known=dataclasses.replace(
            job.known,
            side_factor=moved("side", job.known.side_factor),
            steering_factor=moved("steering", job.known.steering_factor),
        ),
        rates=dataclasses.replace(job.rates, **rates),
    )


def _own_key(facts: BandFacts, seen: dict[object, int]) -> str:
    """What marks a band for its own dice: what it is, and which of those alike; not its label."""
    band = facts.band
    kind = (band.width_mm, band.thickness_mm, band.tpi_lo, band.tpi_hi, band.form, band.steel)
    alike = (*kind, band.set_per_side_mm, band.length_mm, band.dullness, band.price)
    seen[alike] = seen.get(alike, 0) + 1
    return f"{alike} {seen[alike]}"


def dullness_sd(facts: BandFacts) -> float:
    """How surely a band's dullness is known; a new edge is sharp."""
    band = facts.band
    if band.dullness_sd is not None:
        return band.dullness_sd
    if band.dullness == 0.0:
        return 0.0
    return metres_sd(band.dullness, retired=round(band.life_alpha - PRIOR_WEIGHT))


def _own_factors(found: Sequence[Evaluation], dice: Dice) -> list[Factor]:
    """Set and dullness of each band, and the life of each steel."""
    factors: list[Factor] = []
    seen: dict[object, int] = {}
    for place, e in enumerate(found):
        facts, key = e.facts, _own_key(e.facts, seen)
        label = facts.band.label or "the band"
        share = MEASURED_SET_SHARE if facts.set_source == "measured" else SET_SHARE
        spread = Spread("set", f"set of {label}", share_sd_ln(share), "table")
        factors.append(Factor(spread, dice.of(f"set {key}"), place))
        dull = Spread("dullness", f"edge of {label}", dullness_sd(facts), "records", plain=True)
        factors.append(Factor(dull, dice.of(f"dullness {key}"), place))
        sd = life_sd_ln(facts.band.life_alpha)
        life = Spread("life", f"life of {facts.steel.name}", sd, "records")
        factors.append(Factor(life, dice.of(f"life {facts.steel.key}"), place))
    return factors


def factors_of(found: Sequence[Evaluation], job: Job, dice: Dice) -> tuple[Factor, ...]:
    """Everything drawn for some bands of a job; what is exactly known is left out."""
    shared = [Factor(s, dice.of(s.key)) for s in job_spreads(job)]
    return tuple(f for f in (*shared, *_own_factors(found, dice)) if f.spread.sd > 0.0)


def drawn_bands(many: Evaluation, factors: Sequence[Factor], count: int) -> BandFacts:
    """The bands with set, dullness and life drawn."""
    facts = many.facts
    columns: dict[str, Any] = {
        "set": np.repeat(as_array(facts.set_per_side_mm), count, axis=1),
        "dullness": np.repeat(as_array(facts.band.dullness), count, axis=1),
        "life": np.repeat(as_array(facts.life_m), count, axis=1),
    }
    bluntest = np.maximum(BLUNT, as_array(facts.band.dullness))
    for factor in factors:
        if factor.band is not None:
            column = columns[factor.spread.key]
            column[factor.band] = _moved(column[factor.band], factor.spread, factor.draws)
    return dataclasses.replace(
        facts,
        band=dataclasses.replace(
            facts.band, dullness=as_figure(np.clip(columns["dullness"], 0.0, bluntest))
        ),
        set_per_side_mm=as_figure(columns["set"]),
        kerf_mm=as_figure(as_array(facts.band.thickness_mm) + 2.0 * columns["set"]),
        life_m=as_figure(columns["life"]),
    )


def drawn(
    found: Sequence[Evaluation], job: Job, dice: Dice, *, feed_m_min: float | None = None
) -> Drawn:
    """What bands would do in every draw: at the feed it allows, or at one feed in all of them."""
    factors = factors_of(found, job, dice)
    many = stack(found, wide=True)
    there = drawn_job(job, factors)
    facts = drawn_bands(many, factors, dice.count)
    target = facts.stress_target_MPa
    assert target is not None
    with columns_checked():
        stress = least(target, reachable_stress(facts, there))
        at = stiffened(dataclasses.replace(many, facts=facts, stress_MPa=stress), there)
        assert at.window is not None
        feed = feed_to_run_at(at.window, there) if feed_m_min is None else feed_m_min
        run = figures_at(at, there, feed)
    return Drawn(run, at.window, as_array(feed), factors, there)
