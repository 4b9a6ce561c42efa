"""Are the ranges and chances of a choice as sure as they say? Shops whose truth is drawn tell."""

import dataclasses
import json
import zlib
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np

from jade_ribbon.core.bands.reach import reachable_stress
from jade_ribbon.core.choosing.batch import rows, stack
from jade_ribbon.core.choosing.choose import Ranked, choose
from jade_ribbon.core.choosing.lot import lots
from jade_ribbon.core.choosing.operating_point import (
    Evaluation,
    feed_to_run_at,
    figures_at,
    stiffened,
)
from jade_ribbon.core.choosing.uncertainty.chances import chances
from jade_ribbon.core.choosing.uncertainty.monte_carlo import (
    Dice,
    drawn_bands,
    drawn_job,
    factors_of,
)
from jade_ribbon.core.job import Job
from jade_ribbon.core.quantities.arrays import Array
from jade_ribbon.formats.job import JobFile
from jade_ribbon.reference.tables import materials

SHOPS = 2000
EXAMPLE = Path("tests/data/job.json")
PICTURE = Path("docs/calibration.svg")
STOCK = ("european_larch_dry", "white_oak_dry", "red_oak_dry", "teak_dry", "eastern_white_pine_dry")
DULLNESS = (0.0, 0.0, 0.2, 0.4, 0.6)
JOBS = 125
TENTHS = 10


@dataclass(frozen=True)
class Truth(Dice):
    """One shop's truth: every figure drawn by itself, not in even parts."""

    def of(self, key: str) -> Array:
        own = np.random.default_rng((self.seed, zlib.crc32(key.encode()), 7))
        return own.standard_normal(self.count)


def plain(thing: Any) -> Any:
    """A record whose arrays of one are numbers again."""
    found = {
        f.name: float(value.flat[0])
        for f in dataclasses.fields(thing)
        if isinstance(value := getattr(thing, f.name), np.ndarray)
    }
    return dataclasses.replace(thing, **found)


def true_costs(group: Sequence[Ranked], job: Job, seed: int) -> list[float]:
    """What each band really costs a piece in one shop: its truth drawn, all computed plainly."""
    found = [r.evaluation for r in group]
    factors = factors_of(found, job, Truth(1, seed))
    there = drawn_job(job, factors)
    there = dataclasses.replace(
        there,
        saw=plain(there.saw),
        rates=plain(there.rates),
        known=plain(there.known),
        cut=dataclasses.replace(there.cut, material=plain(there.cut.material)),
    )
    many = drawn_bands(stack(found, wide=True), factors, 1)
    columns = zip(
        found,
        rows(np.asarray(many.set_per_side_mm)[:, 0], len(found)),
        rows(np.asarray(many.life_m)[:, 0], len(found)),
        rows(np.asarray(many.band.dullness)[:, 0], len(found)),
        strict=True,
    )
    really = [_really(e, there, *line) for e, *line in columns]
    return [lot.cost.total for lot in lots(really, there)]


def _really(e: Evaluation, job: Job, side: float, life: float, dull: float) -> Evaluation:
    facts = dataclasses.replace(
        e.facts,
        band=dataclasses.replace(e.facts.band, dullness=dull),
        set_per_side_mm=side,
        kerf_mm=e.facts.band.thickness_mm + 2.0 * side,
        life_m=life,
    )
    stress = min(facts.stress_target_MPa or 0.0, reachable_stress(facts, job))
    at = stiffened(dataclasses.replace(e, facts=facts, stress_MPa=stress), job)
    assert at.window is not None
    return dataclasses.replace(at, run=figures_at(at, job, feed_to_run_at(at.window, job)))


def some_jobs() -> Iterator[Job]:
    """Resaws of several stocks, heights and lots, among types of which some are worn."""
    job = JobFile.model_validate(json.loads(EXAMPLE.read_text())).to_core()
    roll = np.random.default_rng(5)
    for place in range(JOBS):
        worn = tuple(
            dataclasses.replace(band, dullness=round(float(roll.choice(DULLNESS)), 2))
            for band in job.bands
        )
        cut = dataclasses.replace(
            job.cut,
            material=materials()[STOCK[place % len(STOCK)]],
            height_mm=float(roll.uniform(40.0, 240.0)),
            count=int(roll.integers(2, 200)),
            tolerance_mm=(0.8, None)[place % 2],
        )
        yield dataclasses.replace(job, bands=worn, cut=cut)


@dataclass
class Tally:
    """Where truths fell: in the ranges, and how often the band called best was."""

    inside: list[bool] = dataclasses.field(default_factory=list)
    called: list[float] = dataclasses.field(default_factory=list)
    was_best: list[bool] = dataclasses.field(default_factory=list)

    def by_tenths(self) -> list[tuple[float, float, int]]:
        """Mean chance told, share that came true, and number, for each tenth of chances."""
        told, came = np.array(self.called), np.array(self.was_best)
        place = np.minimum((told * TENTHS).astype(int), TENTHS - 1)
        tenths = [place == t for t in range(TENTHS)]
        return [
            (float(told[there].mean()), float(came[there].mean()), int(there.sum()))
            for there in tenths
            if there.any()
        ]


def measure(shops: int = SHOPS) -> Tally:
    """Shops over all the jobs, each with a truth of its own."""
    tally, jobs = Tally(), list(some_jobs())
    for place, job in enumerate(jobs):
        choice = choose(job)
        found = chances(choice, job)
        if found is None:
            continue
        group = choice.ranked[: found.group]
        for seed in range(place, shops, len(jobs)):
            costs = true_costs(group, job, seed)
            least = min(costs)
            for cost, spread in zip(costs, found.bands, strict=False):
                tally.inside.append(spread.cost.low <= cost <= spread.cost.high)
                tally.called.append(spread.chance_best)
                tally.was_best.append(cost <= least * (1.0 + 1e-9))
    return tally


def picture(tally: Tally) -> str:
    """Chance told across, share that came true up; the line is where they agree."""
    dots = "".join(
        f'<circle cx="{40 + 320 * told:.1f}" cy="{340 - 320 * came:.1f}" '
        f'r="{3 + min(9.0, count**0.5 / 12):.1f}"/>'
        for told, came, count in tally.by_tenths()
    )
    words = [
        (200, 385, "middle", "chance told that a band is the cheapest"),
        (40, 362, "middle", "0"),
        (360, 362, "middle", "1"),
        (44, 16, "start", "share of shops in which it was"),
    ]
    texts = "".join(f'<text x="{x}" y="{y}" text-anchor="{a}">{w}</text>' for x, y, a, w in words)
    return (
        '<svg xmlns="http://www.w3.org/2000/svg" width="400" height="400" '
        'viewBox="0 0 400 400" font-family="sans-serif" font-size="13">'
        '<rect width="400" height="400" fill="#f4efe4"/>'
        '<path d="M40 20V340H360M40 340L360 20" fill="none" stroke="#6b6f66"/>'
        f'<g fill="#0d5c49">{dots}</g><g fill="#17211d">{texts}</g></svg>\n'
    )


def main() -> None:
    tally = measure()
    inside = 100.0 * float(np.mean(tally.inside))
    print(f"{'cost ranges that hold the truth':<44} {inside:6.1f} %   wanted 76 to 84 %")
    for told, came, count in tally.by_tenths():
        words = f"bands called best with {told:.2f} ({count})"
        print(f"{words:<44} {came:6.2f}   off by {came - told:+.3f}")
    PICTURE.write_text(picture(tally))


if __name__ == "__main__":
    main()
