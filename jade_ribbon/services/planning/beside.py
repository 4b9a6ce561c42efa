"""Beside the plan: one band at a feed, bands compared, and what the choice leans on."""

from dataclasses import dataclass

from sqlalchemy.orm import Session

from jade_ribbon.core.choosing.choose import Choice, choose
from jade_ribbon.core.choosing.conflicts import Reason
from jade_ribbon.core.choosing.evaluate import evaluate
from jade_ribbon.core.choosing.explanation.sensitivity import RulePrice, Sway, rule_prices, sways
from jade_ribbon.core.choosing.lot import lots
from jade_ribbon.core.choosing.operating_point import Evaluation, figures_at
from jade_ribbon.core.choosing.uncertainty.chances import BandSpread, at_feed, chances
from jade_ribbon.core.job import Candidate, Job
from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.quantities.words import Said, sentence
from jade_ribbon.services.planning.answers import (
    BandFigures,
    FeedFigures,
    Option,
    band_figures,
    feed_figures,
    option,
)
from jade_ribbon.services.planning.inputs import CompareInput, FeedInput, PlanInput
from jade_ribbon.services.planning.snapshot import (
    Snapshot,
    job_for,
    rack_candidates,
    read_snapshot,
    with_material_life,
)
from jade_ribbon.services.rack.edges import candidate
from jade_ribbon.services.records import get
from jade_ribbon.store.models import BandRow, SawRow


def evaluation_of(
    session: Session, given: PlanInput, band: Candidate | None, band_id: int | None
) -> tuple[Evaluation, Job, Snapshot]:
    """One band in a cut, from the rack or given."""
    snapshot = read_snapshot(session)
    row: SawRow = get(session, "saw", given.saw_id)
    if band_id is not None:
        found: BandRow = get(session, "band", band_id)
        plain = candidate(found, snapshot.lives, row.id, snapshot.by_band.get(found.id))
        material = given.to_core(snapshot.materials).material
        band = with_material_life(plain, found, snapshot, material)
    assert band is not None
    job = job_for(snapshot, row, given, (band,))
    choose(job)
    return evaluate(job.bands[0], job), job, snapshot


def plan_feed(session: Session, given: FeedInput) -> FeedFigures:
    """What happens at a feed. InputError when the band cannot do the cut at all."""
    band = given.band.to_core() if given.band is not None else None
    evaluation, job, snapshot = evaluation_of(session, given, band, given.band_id)
    if evaluation.run is None:
        reason: Said = evaluation.conflicts[0].text if evaluation.conflicts else "no feed works"
        raise InputError([Fault("band_id", sentence("this band cannot do the cut: ", reason))])
    feed_m_min = given.feed_m_min
    run = figures_at(evaluation, job, feed_m_min)
    lot = lots([evaluation], job, share=feed_m_min / evaluation.run.feed_m_min)[0]
    spread = at_feed(evaluation, lot, job, feed_m_min)
    return feed_figures(evaluation, run, lot, spread, job, snapshot)


@dataclass(frozen=True)
class Compared:
    """One band of a comparison: its figures, or why it cannot."""

    band: BandFigures
    option: Option | None
    reasons: tuple[Reason, ...]
    life_m: float


def compare_bands(session: Session, given: CompareInput) -> list[Compared]:
    """The named bands in one cut, in the order asked, feasible or not."""
    row: SawRow = get(session, "saw", given.saw_id)
    snapshot = read_snapshot(session)
    known = {b.band_id: b for b in rack_candidates(snapshot, row.id, given)}
    faults = [
        Fault(f"band_ids.{i}", f"band {band_id} is not on the rack", band_id)
        for i, band_id in enumerate(given.band_ids)
        if band_id not in known
    ]
    if faults:
        raise InputError(faults)
    bands = tuple(known[i] for i in dict.fromkeys(given.band_ids))
    job = job_for(snapshot, row, given, bands)
    choice = choose(job, beside=len(bands))
    spreads = _spreads(choice, job)
    ranked = {r.evaluation.facts.band.band_id: r for r in choice.ranked}
    excluded = {e.facts.band.band_id: e for e in choice.excluded}
    found = []
    for band in bands:
        best = ranked.get(band.band_id)
        evaluation = best.evaluation if best is not None else excluded[band.band_id]
        found.append(
            Compared(
                band=band_figures(evaluation.facts, ""),
                option=option(best, best, spreads[band.band_id], job, snapshot)
                if best is not None
                else None,
                reasons=evaluation.conflicts,
                life_m=evaluation.facts.life_m,
            )
        )
    return found


def _spreads(choice: Choice, job: Job) -> dict[int | None, BandSpread]:
    """How sure each band that can do it is, by its place on the rack."""
    found = chances(choice, job)
    labels = (r.evaluation.facts.band.band_id for r in choice.ranked)
    return dict(zip(labels, found.bands if found is not None else (), strict=True))


@dataclass(frozen=True)
class SwayAnswer:
    """What the choice leans on."""

    prices: tuple[RulePrice, ...]
    sways: tuple[Sway, ...]


def what_sways(session: Session, given: PlanInput) -> SwayAnswer:
    """The price of each house rule at work, and the nearest changes that change the band."""
    row: SawRow = get(session, "saw", given.saw_id)
    snapshot = read_snapshot(session)
    job = job_for(snapshot, row, given, rack_candidates(snapshot, row.id, given))
    return SwayAnswer(rule_prices(job), sways(job))
