"""Bands alike but for their edge: where only the choice counts, the best speak for them all."""

import dataclasses
from collections.abc import Iterable
from operator import attrgetter

from jade_ribbon.core.job import Candidate, Job
from jade_ribbon.core.mechanics.wear import effective_dullness

BEST = 2
"""So many of a kind are looked at: the choice, and the one beside it."""
OF_ITS_OWN = ("label", "band_id", "dullness", "dullness_sd", "fouling", "life_m")
"""What tells a band from others of its kind."""


_KIND = attrgetter(*(f.name for f in dataclasses.fields(Candidate) if f.name not in OF_ITS_OWN))


def _merits(band: Candidate) -> tuple[float, float, float]:
    """How keen it is, how long its edges live, what is left of this one: the more the better."""
    felt = effective_dullness(edge_dullness=band.dullness, fouled=band.fouling)
    life = band.life_m if band.life_m is not None else 0.0
    return -felt, life, (1.0 - band.dullness) * life


def best_of_a_kind(bands: Iterable[Candidate]) -> tuple[Candidate, ...]:
    """Of each kind of band the keenest, the longest lived and those with most left, in order given.

    Bands alike in all but their edge differ in these alone, and each of them only ever makes a cut
    cheaper: one that has less of all three is never chosen.
    """
    kinds: dict[object, list[int]] = {}
    given = tuple(bands)
    for place, band in enumerate(given):
        kinds.setdefault(_KIND(band), []).append(place)
    kept: set[int] = set()
    for places in kinds.values():
        merits = {place: _merits(given[place]) for place in places}
        for merit in range(3):
            best = sorted(places, key=lambda p: merits[p][merit], reverse=True)
            kept.update(best[:BEST])
    return tuple(given[place] for place in sorted(kept))


def kind_of(band: Candidate) -> tuple[object, ...]:
    """What makes two bands the same to buy, their edge and set aside."""
    return (band.width_mm, band.thickness_mm, band.tpi_lo, band.form, band.steel)


def thinned(job: Job) -> Job:
    """The job among the bands that could ever be its choice, whatever a rule or figure is.

    A length does not change, nor which of two bands alike is the keener.
    """
    low, high = job.saw.band_length_mm
    fitting = (b for b in job.bands if b.length_mm is None or low <= b.length_mm <= high)
    return dataclasses.replace(job, bands=best_of_a_kind(fitting))
