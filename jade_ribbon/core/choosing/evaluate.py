"""Every band of a job: its figures, and every hard conflict in words."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import islice

from jade_ribbon.core.bands.facts import BandFacts, band_facts, look_up
from jade_ribbon.core.bands.reach import reachable_stress, teeth_in_cut
from jade_ribbon.core.bands.speed_choice import MAX_TOLERANCE, SpeedChoice, choose_speed
from jade_ribbon.core.choosing.batch import rows, stack, windows
from jade_ribbon.core.choosing.catalogue import facts_finder
from jade_ribbon.core.choosing.conflicts import (
    conflicts_before_speed,
    conflicts_by_kind,
    hot_conflict,
    window_conflict,
)
from jade_ribbon.core.choosing.operating_point import (
    Evaluation,
    RunFigures,
    bending,
    comfort_factor,
    feed_to_run_at,
    figures_at,
    matched_speed_target,
    stiffened,
)
from jade_ribbon.core.job import Candidate, Job
from jade_ribbon.core.mechanics.bending import BendingFatigue
from jade_ribbon.core.mechanics.feed import FeedWindow
from jade_ribbon.core.mechanics.geometry import min_radius
from jade_ribbon.core.mechanics.stiffness import StabilityLimit
from jade_ribbon.core.quantities.errors import Fault, InputError


def evaluate(band: Candidate, job: Job) -> Evaluation:
    """Every figure of a band in a job, with its hard conflicts."""
    return _at_best_speed([_start(band_facts(band, job), job, _speed_finder(job))], job)[0]


def evaluate_bands(
    bands: Sequence[Candidate], job: Job, *, brief: bool = False
) -> list[Evaluation]:
    """Evaluate every band; an unresolvable one faults by its place in the list.

    In metals at the speed of least cost among those the drive has; else at the one nearest the
    target. `brief` passes over bands that anything before the feed is against.
    """
    found: list[Evaluation] = []
    faults: list[Fault] = []
    facts_of, speed_of = facts_finder(job), _speed_finder(job)
    for i, band in enumerate(bands):
        try:
            if brief and any(conflicts_by_kind(band, *look_up(band), job)):
                continue
            start = _start(facts_of(band), job, speed_of, brief=brief)
            if not (brief and start.conflicts):
                found.append(start)
        except InputError as error:
            faults += [f.under(f"bands.{i}") for f in error.faults]
    if faults:
        raise InputError(faults)
    return _at_best_speed(found, job)


def _speed_finder(job: Job) -> Callable[[BandFacts], SpeedChoice | None]:
    """Finds the drive's speed nearest a band's target: the same for all bands of a steel.

    Only a mill matched to its engine asks each band for its own.
    """
    if job.cut.operation == "mill":
        return lambda facts: choose_speed(facts, job, matched_speed_target(facts, job))
    known: dict[str, SpeedChoice | None] = {}

    def find(facts: BandFacts) -> SpeedChoice | None:
        key = facts.steel.key
        if key not in known:
            known[key] = choose_speed(facts, job, None)
        return known[key]

    return find


@lru_cache(maxsize=4096)
def _tight_radius_mm(width_mm: float, thickness_mm: float, kerf_mm: float) -> float:
    """Asked again at every plan for the same types, rack and kerfs."""
    found = min_radius(width_mm=width_mm, thickness_mm=thickness_mm, kerf_mm=kerf_mm)
    return found.min_radius_mm


def _start(
    facts: BandFacts,
    job: Job,
    speed_of: Callable[[BandFacts], SpeedChoice | None],
    *,
    brief: bool = False,
) -> Evaluation:
    """A band up to its speed at the drive's nearest the target, with what excludes it by then."""
    band = facts.band
    tight = _tight_radius_mm(band.width_mm, band.thickness_mm, facts.kerf_mm)
    reachable = reachable_stress(facts, job)
    mean, least = teeth_in_cut(facts, job)
    speed = speed_of(facts)
    conflicts = conflicts_before_speed(
        facts,
        job,
        reachable_MPa=reachable,
        tight_radius_mm=tight,
        teeth=(mean, least),
        speed=speed,
        kind_fits=brief,
    )
    return Evaluation(
        facts=facts,
        conflicts=tuple(islice(conflicts, 1) if brief else conflicts),
        stress_MPa=min(facts.stress_target_MPa or 0.0, reachable),
        reachable_MPa=reachable,
        tight_radius_mm=tight,
        comfortable_radius_mm=tight * comfort_factor(job),
        teeth_in_cut=mean,
        teeth_in_cut_least=least,
        speed=speed,
    )


def _at_best_speed(starts: Sequence[Evaluation], job: Job) -> list[Evaluation]:
    """Each band with its figures at the cut: in metals at the speed of least cost."""
    places = [i for i, e in enumerate(starts) if not e.conflicts and e.speed is not None]
    tries = [[starts[i], *_at_other_speeds(starts[i], job)] for i in places]
    fed = iter(_fed([e for each in tries for e in each], job))
    found = list(starts)
    for place, each in zip(places, tries, strict=True):
        found[place] = _cheapest(list(islice(fed, len(each))))
    return found


def _cheapest(tried: Sequence[Evaluation]) -> Evaluation:
    run = [e for e in tried if e.run is not None]
    return min(run, key=_cost_of, default=tried[0])


def _cost_of(e: Evaluation) -> float:
    assert e.run is not None
    return e.run.cost.total


def _at_other_speeds(found: Evaluation, job: Job) -> list[Evaluation]:
    """In metals the same band at the drive's other speeds not over the greatest."""
    speed = found.speed
    if speed is None or not job.cut.material.is_metal:
        return []
    most = MAX_TOLERANCE * speed.accepted.most_m_s
    given = job.saw.drive.speeds_to_try(speed.accepted.least_m_s, most)
    other = (v for v in given if abs(v / speed.speed_m_s - 1.0) > 1e-9)
    chosen = (choose_speed(found.facts, job, v) for v in other)
    return [replace(found, speed=choice) for choice in chosen if choice is not None]


def _fed(starts: Sequence[Evaluation], job: Job) -> list[Evaluation]:
    """Bands with their figures at the recommended feed, all of them at once."""
    if not starts:
        return []
    count = len(starts)
    many = stiffened(starts[0] if count == 1 else stack(starts), job)
    assert many.window is not None
    run = figures_at(many, job, feed_to_run_at(many.window, job))
    columns = (
        rows(many.stability, count),
        rows(many.edge_slack_N, count),
        windows(many.window, count),
        rows(bending(many, job), count),
        rows(run, count),
    )
    return [_judged(start, job, *line) for start, *line in zip(starts, *columns, strict=True)]


def _judged(
    start: Evaluation,
    job: Job,
    stability: StabilityLimit,
    edge_N: float,
    window: FeedWindow,
    fatigue: BendingFatigue,
    run: RunFigures,
) -> Evaluation:
    """A band with its figures, and without a run where its window is shut."""
    shut = window_conflict(window) if window.recommended_m_min is None else None
    conflict = shut or hot_conflict(window, job)
    return Evaluation(
        start.facts,
        () if conflict is None else (conflict,),
        start.stress_MPa,
        start.reachable_MPa,
        start.tight_radius_mm,
        start.comfortable_radius_mm,
        start.teeth_in_cut,
        start.teeth_in_cut_least,
        start.speed,
        stability,
        edge_N,
        window,
        fatigue,
        run if conflict is None else None,
    )


MISFITS = frozenset(("length", "width", "thickness"))


@dataclass(frozen=True)
class Planned:
    """What a run of a band is held against: its feeds, m/min, and whether it goes on the saw."""

    feed_m_min: float | None
    floor_m_min: float | None
    """The least at which its teeth cut; None where it has no window here."""
    fits: bool


def planned_for(band: Candidate, job: Job) -> Planned:
    """The feed for a band as it is; as it was when keen, where it would not be chosen any more."""
    found = evaluate(band, job)
    fits = not any(c.key in MISFITS for c in found.conflicts)
    if found.run is None:
        keen = replace(band, dullness=0.0, fouling=0.0, defects=(), kept_for="all")
        found = evaluate(keen, job)
    floor = found.window.floor_m_min if found.window else None
    return Planned(found.run.feed_m_min if found.run else None, floor, fits)
