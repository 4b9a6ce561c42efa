"""What would open a job that no band can do: the nearest computed change of each kind.

Every offer was tried: the band is evaluated again with the change, and only changes that
leave a feed to run at are offered.
"""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace

from jade_ribbon.core.choosing.evaluate import evaluate
from jade_ribbon.core.choosing.operating_point import Evaluation
from jade_ribbon.core.choosing.sentences import used_fields
from jade_ribbon.core.job import Candidate, Cut, Job
from jade_ribbon.core.quantities.words import Said, quantity, sentence

BISECTIONS = 14
LOOKED_AT = 6
"""Bands with the fewest obstacles that are tried."""
LOWEST_GUARD_MM = 6.0
MOST_OFFERS = 6
BACKINGS_MM = (6.0, 12.0, 18.0, 25.0)
"""Boards that lie about in any shop."""


@dataclass(frozen=True)
class Opener:
    """One change that lets one band do the job. `step` is its size as a ratio, 1 for none."""

    kind: str
    text: Said
    band: str
    step: float
    height_mm: float | None = None
    min_radius_mm: float | None = None
    backing_mm: float | None = None
    stack: int | None = None


def _runs(band: Candidate, job: Job) -> bool:
    found = evaluate(band, job)
    return not found.conflicts and found.run is not None


def _most(low: float, high: float, works: Callable[[float], bool]) -> float | None:
    """The largest value between low and high that works, if low does: by bisection."""
    if not works(low):
        return None
    if works(high):
        return high
    for _ in range(BISECTIONS):
        middle = (low + high) / 2.0
        low, high = (middle, high) if works(middle) else (low, middle)
    return low


def _with_cut(job: Job, cut: Cut) -> Job:
    return replace(job, cut=cut)


def _less_height(band: Candidate, job: Job) -> Iterator[Opener]:
    cut = job.cut
    if cut.is_tube:
        return

    def works(height: float) -> bool:
        return _runs(band, _with_cut(job, replace(cut, height_mm=height)))

    best = _most(cut.height_mm * 0.25, cut.height_mm * 0.999, works)
    if best is not None:
        yield Opener(
            "height",
            sentence(
                quantity(best, "length"),
                " in the cut instead of ",
                quantity(cut.height_mm, "length"),
                f" lets {band.label} do it",
            ),
            band.label,
            cut.height_mm / best,
            height_mm=float(f"{best * 0.995:.3g}"),
        )


def _wider_radius(e: Evaluation, job: Job) -> Iterator[Opener]:
    asked = job.cut.min_radius_mm
    if asked is None or e.tight_radius_mm <= asked:
        return
    wanted = float(f"{e.tight_radius_mm * 1.005:.3g}")
    band = e.facts.band
    if _runs(band, _with_cut(job, replace(job.cut, min_radius_mm=wanted))):
        yield Opener(
            "radius",
            sentence(
                "Relief cuts, or no bend under ",
                quantity(wanted, "length"),
                f", let {band.label} do it",
            ),
            band.label,
            wanted / asked,
            min_radius_mm=wanted,
        )


def _sharper(band: Candidate, job: Job) -> Iterator[Opener]:
    if band.fouling > 0.05 and _runs(replace(band, fouling=0.0), job):
        yield Opener("clean", f"Cleaning {band.label} lets it do it", band.label, 1.05)
    elif band.dullness > 0 and _runs(replace(band, dullness=0.0, fouling=0.0), job):
        yield Opener(
            "sharpen", f"Sharpening {band.label} lets it do it", band.label, 1.0 + band.dullness
        )


def _slower(band: Candidate, e: Evaluation, job: Job) -> Iterator[Opener]:
    drive = job.saw.drive
    if e.speed is None:
        return
    if drive.kind == "fixed":
        slower = sorted((s for s in drive.speeds_m_s if s < e.speed.speed_m_s), reverse=True)
    else:
        span = e.speed.speed_m_s - drive.slowest_m_s
        slower = [e.speed.speed_m_s - span * i / 8 for i in range(1, 9)]
    for speed in slower:
        only = replace(job.saw, drive=replace(drive, kind="fixed", speeds_m_s=(speed,)))
        if _runs(band, replace(job, saw=only)):
            yield Opener(
                "speed",
                sentence(
                    "A band speed of ",
                    quantity(speed, "speed"),
                    " instead of ",
                    quantity(e.speed.speed_m_s, "speed"),
                    f" lets {band.label} do it",
                ),
                band.label,
                e.speed.speed_m_s / speed,
            )
            return


def _lower_guard(band: Candidate, job: Job) -> Iterator[Opener]:
    if job.rules.guard_gap_mm <= LOWEST_GUARD_MM:
        return
    rules = replace(job.rules, guard_gap_mm=LOWEST_GUARD_MM)
    if _runs(band, replace(job, rules=rules)):
        yield Opener(
            "guard",
            sentence(
                "The guard at ",
                quantity(LOWEST_GUARD_MM, "length"),
                f" over the work lets {band.label} do it",
            ),
            band.label,
            1.02,
        )


def _more_frame(band: Candidate, e: Evaluation, job: Job) -> Iterator[Opener]:
    low, have = e.facts.stress_low_MPa, job.saw.wheel_force_max_N
    if low is None or have is None or e.reachable_MPa >= low:
        return
    need = low * e.facts.body_area_mm2 * job.saw.force_per_strand
    if _runs(band, replace(job, saw=replace(job.saw, wheel_force_max_N=need))):
        yield Opener(
            "frame",
            sentence(
                "A frame that holds ",
                quantity(need, "force"),
                " instead of ",
                quantity(have, "force"),
                f" lets {band.label} do it",
            ),
            band.label,
            need / have,
        )


def _backing(band: Candidate, e: Evaluation, job: Job) -> Iterator[Opener]:
    """Sheet too thin for the teeth: a sacrificial board under it puts more of them in the cut."""
    if job.cut.operation != "sheet" or not any(r.key == "teeth" for r in e.conflicts):
        return
    for backing in BACKINGS_MM:
        under = replace(job.cut, backing_mm=job.cut.backing_mm + backing)
        if _runs(band, _with_cut(job, under)):
            yield Opener(
                "backing",
                sentence(
                    "A sacrificial board of ",
                    quantity(under.backing_mm, "length"),
                    f" under the sheet lets {band.label} do it",
                ),
                band.label,
                1.0 + backing / 100.0,
                backing_mm=under.backing_mm,
            )
            return


def _teeth(band: Candidate, e: Evaluation, job: Job) -> Iterator[Opener]:
    """Too few teeth in thin work: stacking pieces puts more in."""
    stacks = "stack" in used_fields(job.cut.operation)
    if not stacks or not any(r.key == "teeth" for r in e.conflicts):
        return
    for pieces in (2, 3, 4, 6):
        stacked = replace(job.cut, stack=job.cut.stack * pieces)
        if stacked.standing_height_mm > job.saw.height_mm:
            return
        if _runs(band, _with_cut(job, stacked)):
            yield Opener(
                "stack",
                f"{pieces} pieces in a stack, clamped, let {band.label} do it",
                band.label,
                float(pieces),
                stack=stacked.stack,
            )
            return


def openers(excluded: Sequence[Evaluation], job: Job) -> tuple[Opener, ...]:
    """The nearest change of each kind that lets some band do the job, smallest step first."""
    if not excluded:
        return ()
    fewest = min(len(e.conflicts) for e in excluded)
    near = sorted(
        (e for e in excluded if len(e.conflicts) == fewest),
        key=lambda e: (e.conflicts[0].key != "window_shut", e.facts.band.label),
    )[:LOOKED_AT]
    found: dict[str, Opener] = {}
    for e in near:
        band = e.facts.band
        for offer in (
            *_sharper(band, job),
            *_lower_guard(band, job),
            *_slower(band, e, job),
            *_wider_radius(e, job),
            *_less_height(band, job),
            *_backing(band, e, job),
            *_teeth(band, e, job),
            *_more_frame(band, e, job),
        ):
            if offer.kind not in found or offer.step < found[offer.kind].step:
                found[offer.kind] = offer
    return tuple(sorted(found.values(), key=lambda o: o.step)[:MOST_OFFERS])
