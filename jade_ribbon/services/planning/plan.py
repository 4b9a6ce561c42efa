"""Plan: the answer to "which band, on which saw, how" for a cut."""

from collections.abc import Sequence

from sqlalchemy.orm import Session

from jade_ribbon.core.choosing.catalogue import type_label
from jade_ribbon.core.choosing.choose import Choice, Ranked, choose
from jade_ribbon.core.choosing.explanation.cautions import DISCLAIMER, cautions_for
from jade_ribbon.core.choosing.explanation.explain import reasons, worth_buying
from jade_ribbon.core.choosing.explanation.figures import explain_figures
from jade_ribbon.core.choosing.explanation.rules_at_work import offered, rules_applied
from jade_ribbon.core.choosing.nearest_feasible import openers
from jade_ribbon.core.choosing.uncertainty.chances import Chances, chances_together, cost_range
from jade_ribbon.core.choosing.uncertainty.confidence import sure
from jade_ribbon.core.choosing.uncertainty.steel_costs import steel_costs
from jade_ribbon.core.job import Candidate, Job
from jade_ribbon.core.money.changing import prevented
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.saw_defaults.kinds import assumed_names
from jade_ribbon.core.stock.slices import Slices, slices_for
from jade_ribbon.services.planning.answers import (
    AtOtherSaw,
    Buy,
    ExcludedBand,
    Option,
    PlanAnswer,
    option,
)
from jade_ribbon.services.planning.inputs import PlanInput
from jade_ribbon.services.planning.snapshot import (
    Snapshot,
    job_for,
    on_saw,
    rack_candidates,
    read_snapshot,
    type_candidates,
)
from jade_ribbon.services.records import get
from jade_ribbon.services.shop.defects import told_defects
from jade_ribbon.store.models import SawRow

OPTIONS_SHOWN = 6


def _elsewhere(
    row: SawRow, given: PlanInput, snapshot: Snapshot, rack: Sequence[Candidate]
) -> AtOtherSaw:
    """What one saw would do with the bands of the rack that are long enough for it."""
    job = job_for(snapshot, row, given, on_saw(rack, snapshot, row))
    try:
        choice = choose(job, brief=True)
        if choice.best is None:
            choice = choose(job)  # with the account of what keeps each band from it
    except InputError as error:
        return AtOtherSaw(row.id, row.name, False, error.faults[0].message, None, None)
    best = choice.best
    if best is None:
        words = choice.stop.text if choice.stop else prevented(choice)
        return AtOtherSaw(row.id, row.name, False, words, None, None)
    facts, cost, feed = best.evaluation.facts, cost_range(best, job), best.run.feed_m_min
    return AtOtherSaw(row.id, row.name, True, facts.band.label, cost, feed, facts.kerf_mm)


def _options(choice: Choice, found: Chances | None, job: Job, snapshot: Snapshot) -> list[Option]:
    """The best band and the next, each with how sure it is."""
    best = choice.best
    if best is None or found is None:
        return []
    shown = zip(choice.ranked[: OPTIONS_SHOWN + 1], found.bands, strict=False)
    return [
        option(ranked, best, spread, job, snapshot, rivals=place < found.group > 1)
        for place, (ranked, spread) in enumerate(shown)
    ]


def _buy(
    choice: Choice,
    found: Chances | None,
    job: Job,
    snapshot: Snapshot,
    rack_best: Ranked | None,
) -> Buy | None:
    """A catalogue type clearly better than the rack's best, or the only one able."""
    best = choice.best
    if best is None or found is None:
        return None
    words = worth_buying(best, rack_best)
    if not words:
        return None
    facts = best.evaluation.facts
    return Buy(
        option=option(best, best, found.bands[0], job, snapshot),
        type_label=type_label(
            facts.band.width_mm,
            facts.band.thickness_mm,
            facts.band.tpi_lo,
            facts.band.tpi_hi,
            facts.band.form,
            facts.band.steel,
        ),
        length_mm=facts.length_mm,
        price=facts.price,
        words=words,
    )


def plan_cut(session: Session, given: PlanInput) -> PlanAnswer:
    """Answer a cut on a saw from the rack, the catalogue and the shop's other saws."""
    row: SawRow = get(session, "saw", given.saw_id)
    snapshot = read_snapshot(session)
    rack = rack_candidates(snapshot, row.id, given)
    job = job_for(snapshot, row, given, rack)
    choice = choose(job, beside=OPTIONS_SHOWN + 1)
    best = choice.best
    types_job = job_for(snapshot, row, given, type_candidates(snapshot))
    types = choose(types_job, brief=True)
    found, types_found = chances_together((choice, types), job)
    options = _options(choice, found, job, snapshot)
    return PlanAnswer(
        saw_id=row.id,
        saw_name=row.name,
        best=options[0] if options else None,
        alternatives=options[1:],
        excluded=[
            ExcludedBand(e.facts.band.label, e.facts.band.band_id, e.conflicts)
            for e in choice.excluded
        ],
        reasons=reasons(best, choice, job) if best else (),
        rules=rules_applied(best, choice, job),
        rules_offered=offered(job),
        cautions=cautions_for(job, best),
        disclaimer=DISCLAIMER,
        explained=explain_figures(best, job) if best else {},
        stop=choice.stop,
        sure=sure(choice, found, snapshot.shop.currency),
        buy=None if choice.stop else _buy(types, types_found, types_job, snapshot, best),
        steels=() if choice.stop else steel_costs(types, types_found),
        saws=[_elsewhere(s, given, snapshot, rack) for s in snapshot.saws if s.id != row.id],
        assumed=assumed_names(row.assumed),
        prevented="" if best or choice.stop else prevented(choice),
        openers=() if best or choice.stop else openers(choice.excluded, job),
        slices=_slices(given, job, best),
        defects=told_defects(session, row.id),
    )


def _slices(given: PlanInput, job: Job, best: Ranked | None) -> Slices | None:
    """What the pieces take of the billet, where the sentence says how thick they are."""
    if best is None or given.slice_mm is None:
        return None
    return slices_for(
        job.cut,
        slice_mm=given.slice_mm,
        billet_mm=given.billet_mm,
        kerf_mm=best.evaluation.facts.kerf_mm,
    )
