"""Plan: the answer to "which band, on which saw, how" for a cut."""

import dataclasses
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.band_facts import BandFacts
from jade_ribbon.core.cautions import DISCLAIMER, Caution, cautions_for
from jade_ribbon.core.choose import Choice, Ranked, choose
from jade_ribbon.core.conflicts import Reason
from jade_ribbon.core.cost import Cost
from jade_ribbon.core.edge_life import ShopLives, life_in, own_life_m, to_wood_metres
from jade_ribbon.core.errors import Fault, InputError
from jade_ribbon.core.evaluate import Evaluation, RunFigures, evaluate, figures_at
from jade_ribbon.core.explain import RuleApplied, difference, reasons, rules_applied
from jade_ribbon.core.feed import FeedWindow
from jade_ribbon.core.job import Candidate, Job, Saw
from jade_ribbon.core.openers import Opener, openers
from jade_ribbon.core.provenance import Explained, explain
from jade_ribbon.core.recommend import catalogue_candidates, type_label
from jade_ribbon.core.steel_money import SteelCost, steel_costs
from jade_ribbon.core.tension import tension
from jade_ribbon.core.wear import edge_state, effective_dullness
from jade_ribbon.formats.job import CutFile
from jade_ribbon.reference.tables import Material
from jade_ribbon.services.bands import candidate, chance, shop_lives
from jade_ribbon.services.inputs import CompareInput, FeedInput, PlanInput, WhatIf
from jade_ribbon.services.own_materials import material_table
from jade_ribbon.services.records import get
from jade_ribbon.services.saws import core_saw
from jade_ribbon.services.shop import Shop, read_shop, rules_for
from jade_ribbon.store.models import BandRow, SawRow

OPTIONS_SHOWN = 6
WORTH_BUYING = 0.9
"""A type not on the rack is worth naming when it costs under this share of the rack's best."""


@dataclass(frozen=True)
class BandFigures:
    """A band as drawn and named: geometry from its type, edge from its record."""

    band_id: int | None
    label: str
    width_mm: float
    thickness_mm: float
    tpi_lo: float | None
    tpi_hi: float | None
    form: str
    form_name: str
    steel: str
    steel_name: str
    length_mm: float
    pitch_mm: float
    hook_deg: float
    gullet_depth_mm: float
    gullet_area_mm2: float
    body_width_mm: float
    kerf_mm: float
    set_per_side_mm: float
    set_source: str
    dullness: float
    fouling: float
    edge: str
    tip_radius_um: float
    mounted: bool
    place: str


@dataclass(frozen=True)
class FeedFigures:
    """What follows from a feed."""

    feed_m_min: float
    bite_mm: float
    power_W: float
    power_share: float
    push_N: float
    gullet_fill: float
    piece_time_s: float
    total_time_s: float
    finish: str
    equivalent_m: float
    cost: Cost
    cost_total: float
    margin: float
    hot: bool
    lasts: float | None
    dullness_after: float


@dataclass(frozen=True)
class Option:
    """One band that can do it, with its settings."""

    band: BandFigures
    stress_MPa: float
    stress_target_MPa: float
    stress_share: float
    stress_psi: float
    gauge_stretch_um: float
    wheel_force_N: float
    reachable_MPa: float | None
    speed_m_s: float
    speed_setting: str
    speed_off_target: float
    window: FeedWindow
    figures: FeedFigures
    teeth_in_cut: float
    tight_radius_mm: float
    comfortable_radius_mm: float
    bending_hours: float
    critical_force_N: float
    edge_slack_N: float
    stiffness_N_mm: float
    guide_span_mm: float
    class_words: str
    difference: str


@dataclass(frozen=True)
class ExcludedBand:
    """A band that cannot, and why."""

    label: str
    band_id: int | None
    reasons: tuple[Reason, ...]


@dataclass(frozen=True)
class SawVerdict:
    """What another saw of the shop would do with this cut."""

    saw_id: int
    name: str
    able: bool
    words: str
    cost: float | None
    feed_m_min: float | None


@dataclass(frozen=True)
class Buy:
    """A type worth buying for this cut."""

    option: Option
    type_label: str
    length_mm: float
    price: float
    words: str


@dataclass(frozen=True)
class PlanAnswer:
    """Everything Plan draws."""

    saw_id: int
    saw_name: str
    best: Option | None
    alternatives: list[Option]
    excluded: list[ExcludedBand]
    reasons: tuple[Reason, ...]
    rules: tuple[RuleApplied, ...]
    cautions: tuple[Caution, ...]
    disclaimer: str
    explained: Mapping[str, Explained]
    stop: Reason | None
    too_close: str
    buy: Buy | None
    saws: list[SawVerdict]
    assumed: list[str]
    prevented: str
    openers: tuple[Opener, ...]
    steels: tuple[SteelCost, ...]


@dataclass(frozen=True)
class World:
    """What a plan reads from the store, once."""

    shop: Shop
    saws: Sequence[SawRow]
    bands: Sequence[BandRow]
    lives: ShopLives
    by_band: Mapping[int, int]
    materials: Mapping[str, Material]


def read_world(session: Session) -> World:
    """Saws, usable bands, lives, settings and materials: five statements."""
    saws = session.scalars(
        select(SawRow).where(SawRow.deleted_at.is_(None)).order_by(SawRow.id)
    ).all()
    bands = session.scalars(
        select(BandRow).where(BandRow.deleted_at.is_(None), BandRow.state == "rack")
    ).all()
    mounted = {s.mounted_band_id: s.id for s in saws if s.mounted_band_id is not None}
    table = material_table(session)
    return World(read_shop(session), saws, bands, shop_lives(session), mounted, table)


def _with_material_life(
    band: Candidate, row: BandRow, world: World, material: Material
) -> Candidate:
    shop_life = world.lives.of(row.steel, row.sharpenings)
    life = own_life_m(shop_life, used_m=row.edge_equivalent_m)
    return dataclasses.replace(band, life_m=life_in(life, steel_key=row.steel, material=material))


def rack_candidates(world: World, saw_id: int, cut: CutFile) -> tuple[Candidate, ...]:
    """The whole rack as candidates for a saw, each with its life in this material."""
    material = cut.to_core(world.materials).material
    return tuple(
        _with_material_life(
            candidate(row, world.lives, saw_id, world.by_band.get(row.id)), row, world, material
        )
        for row in world.bands
    )


def job_for(world: World, saw: Saw, given: PlanInput, bands: tuple[Candidate, ...]) -> Job:
    """The core's job of a question, with what is tried out in place of the shop's figures."""
    rules = rules_for(world.shop, given.rules)
    job = Job(
        saw=saw,
        cut=given.to_core(world.materials),
        rules=rules,
        rates=world.shop.rates,
        bands=bands,
    )
    return job if given.what_if is None else _tried_out(job, given.what_if)


def _tried_out(job: Job, tried: WhatIf) -> Job:
    """The job with other motor, tension, guard or edges."""
    saw, bands = job.saw, job.bands
    if tried.motor_kW is not None:
        saw = dataclasses.replace(saw, motor_kW=tried.motor_kW)
    if tried.guard_gap_mm is not None:
        base = saw.guide_span_base_mm + tried.guard_gap_mm - job.rules.guard_gap_mm
        saw = dataclasses.replace(saw, guide_span_base_mm=max(base, 0.0))
    if tried.dullness is not None:
        bands = tuple(dataclasses.replace(b, dullness=tried.dullness) for b in bands)
    return dataclasses.replace(job, saw=saw, bands=bands, stress_MPa=tried.stress_MPa)


def band_figures(facts: BandFacts, place: str) -> BandFigures:
    band = facts.band
    state = edge_state(effective_dullness(edge_dullness=band.dullness, fouled=band.fouling))
    return BandFigures(
        band_id=band.band_id,
        label=band.label,
        width_mm=band.width_mm,
        thickness_mm=band.thickness_mm,
        tpi_lo=band.tpi_lo,
        tpi_hi=band.tpi_hi,
        form=band.form,
        form_name=facts.form.name,
        steel=band.steel,
        steel_name=facts.steel.name,
        length_mm=facts.length_mm,
        pitch_mm=facts.pitch_mm,
        hook_deg=facts.form.hook_deg,
        gullet_depth_mm=facts.gullet_depth_mm,
        gullet_area_mm2=facts.gullet_area_mm2,
        body_width_mm=facts.body_width_mm,
        kerf_mm=facts.kerf_mm,
        set_per_side_mm=facts.set_per_side_mm,
        set_source=facts.set_source,
        dullness=band.dullness,
        fouling=band.fouling,
        edge=state.key,
        tip_radius_um=state.tip_radius_um,
        mounted=band.mounted,
        place=place,
    )


def feed_figures(e: Evaluation, run: RunFigures, job: Job, world: World) -> FeedFigures:
    """Figures at a feed, with wear after the job and the odds of lasting it."""
    facts, cut = e.facts, job.cut
    assert e.window is not None
    total_m = run.equivalent_m * cut.count
    lasts = None
    row = next((b for b in world.bands if b.id == facts.band.band_id), None)
    if row is not None:
        wood_m = to_wood_metres(total_m, steel_key=row.steel, material=cut.material)
        lasts = chance(row, world.lives, wood_m)
    return FeedFigures(
        feed_m_min=run.feed_m_min,
        bite_mm=run.cut.bite_mm,
        power_W=run.cut.cutting_power_W,
        power_share=run.power_share,
        push_N=run.cut.feed_force_N,
        gullet_fill=run.gullet_fill,
        piece_time_s=run.contact.cutting_time_s,
        total_time_s=run.contact.cutting_time_s * cut.count,
        finish=run.delivered,
        equivalent_m=run.equivalent_m,
        cost=run.cost,
        cost_total=run.cost.total,
        margin=run.margin,
        hot=run.feed_m_min < e.window.floor_m_min * (1 - 1e-9),
        lasts=lasts,
        dullness_after=facts.band.dullness + total_m / facts.life_m,
    )


def option(ranked: Ranked, best: Ranked, job: Job, world: World) -> Option:
    """One feasible band as shown."""
    e = ranked.evaluation
    assert e.speed is not None and e.window is not None and e.fatigue is not None
    assert e.stability is not None and e.edge_slack_N is not None
    facts = e.facts
    row = next((b for b in world.bands if b.id == facts.band.band_id), None)
    forms = tension(
        stress_MPa=e.stress_MPa,
        body_width_mm=facts.body_width_mm,
        thickness_mm=facts.band.thickness_mm,
        band_length_mm=facts.length_mm,
        gauge_length_mm=world.shop.gauge_length_mm,
    )
    return Option(
        band=band_figures(facts, row.place if row else ""),
        stress_MPa=e.stress_MPa,
        stress_target_MPa=facts.stress_target_MPa or 0.0,
        stress_share=e.stress_share,
        stress_psi=forms.stress_psi,
        gauge_stretch_um=forms.gauge_stretch_um,
        wheel_force_N=e.strand_force_N * job.saw.force_per_strand,
        reachable_MPa=e.reachable_MPa,
        speed_m_s=e.speed.speed_m_s,
        speed_setting=e.speed.setting,
        speed_off_target=e.speed.off_target_share,
        window=e.window,
        figures=feed_figures(e, ranked.run, job, world),
        teeth_in_cut=e.teeth_in_cut,
        tight_radius_mm=e.tight_radius_mm,
        comfortable_radius_mm=e.comfortable_radius_mm,
        bending_hours=e.fatigue.running_hours,
        critical_force_N=e.stability.critical_feed_force_N,
        edge_slack_N=e.edge_slack_N,
        stiffness_N_mm=e.stability.lateral_stiffness_N_mm,
        guide_span_mm=job.saw.guide_span_mm(job.cut.height_mm),
        class_words=ranked.class_words,
        difference="" if ranked is best else difference(best, ranked),
    )


def _elsewhere(row: SawRow, given: PlanInput, world: World) -> SawVerdict:
    """What one saw would do with the bands of the rack that are long enough for it."""
    fitting = [
        b for b in world.bands if row.band_length_min_mm <= b.length_mm <= row.band_length_max_mm
    ]
    near = dataclasses.replace(world, bands=fitting)
    job = job_for(near, core_saw(row), given, rack_candidates(near, row.id, given))
    try:
        choice = choose(job)
    except InputError as error:
        return SawVerdict(row.id, row.name, False, error.faults[0].message, None, None)
    best = choice.best
    if best is None:
        words = choice.stop.text if choice.stop else prevented(choice)
        return SawVerdict(row.id, row.name, False, words, None, None)
    label = best.evaluation.facts.band.label
    return SawVerdict(row.id, row.name, True, label, best.total, best.run.feed_m_min)


def prevented(choice: Choice) -> str:
    """In one sentence, what keeps every band from the job: the commonest last obstacle."""
    if not choice.excluded:
        return "No band of its length is on the rack."
    fewest = min(len(e.conflicts) for e in choice.excluded)
    nearest = [e for e in choice.excluded if len(e.conflicts) == fewest]
    keys = [e.conflicts[0].key for e in nearest]
    commonest = max(set(keys), key=lambda k: (keys.count(k), k))
    example = next(e for e in nearest if e.conflicts[0].key == commonest)
    return f"{example.facts.band.label}: {example.conflicts[0].text}."


def _buy(choice: Choice, job: Job, world: World, rack_best: Ranked | None) -> Buy | None:
    """A catalogue type clearly better than the rack's best, or the only one able."""
    best = choice.best
    if best is None:
        return None
    if rack_best is not None and (
        best.band_class > rack_best.band_class
        or (
            best.band_class == rack_best.band_class and best.total >= WORTH_BUYING * rack_best.total
        )
    ):
        return None
    facts = best.evaluation.facts
    words = "Nothing on the rack can do it; this would."
    if rack_best is not None:
        words = f"The rack's best will do meanwhile; this {difference(rack_best, best)}."
    return Buy(
        option=option(best, best, job, world),
        type_label=type_label(
            facts.band.width_mm,
            facts.band.thickness_mm,
            facts.band.tpi_lo,
            facts.band.tpi_hi,
            facts.form.name.split(" (")[0].split(" / ")[0],
            facts.steel.name,
        ),
        length_mm=facts.length_mm,
        price=facts.price,
        words=words,
    )


def _too_close(choice: Choice) -> str:
    best, second = choice.best, choice.runner_up
    if best is None or second is None or not choice.too_close:
        return ""
    return (
        f"Too close to call against {second.evaluation.facts.band.label}: "
        f"{best.total:.2f} and {second.total:.2f} a piece, within what edge life is known to. "
        "A logged run on each would settle it."
    )


def plan(session: Session, given: PlanInput) -> PlanAnswer:
    """Answer a cut on a saw from the rack, the catalogue and the shop's other saws."""
    row: SawRow = get(session, "saw", given.saw_id)
    world = read_world(session)
    saw = core_saw(row)
    job = job_for(world, saw, given, rack_candidates(world, row.id, given))
    choice = choose(job)
    best = choice.best
    types_job = job_for(world, saw, given, catalogue_candidates())
    types = choose(types_job)
    return PlanAnswer(
        saw_id=row.id,
        saw_name=row.name,
        best=option(best, best, job, world) if best else None,
        alternatives=[option(r, best, job, world) for r in choice.ranked[1 : OPTIONS_SHOWN + 1]]
        if best
        else [],
        excluded=[
            ExcludedBand(e.facts.band.label, e.facts.band.band_id, e.conflicts)
            for e in choice.excluded
        ],
        reasons=reasons(best, choice, job) if best else (),
        rules=rules_applied(best, choice, job),
        cautions=cautions_for(job, best),
        disclaimer=DISCLAIMER,
        explained=explain(best, job) if best else {},
        stop=choice.stop,
        too_close=_too_close(choice),
        buy=None if choice.stop else _buy(types, types_job, world, best),
        steels=() if choice.stop else steel_costs(types, job.cut.material),
        saws=[_elsewhere(s, given, world) for s in world.saws if s.id != row.id],
        assumed=row.assumed,
        prevented="" if best or choice.stop else prevented(choice),
        openers=() if best or choice.stop else openers(choice.excluded, job),
    )


def evaluation_of(
    session: Session, given: PlanInput, band: Candidate | None, band_id: int | None
) -> tuple[Evaluation, Job, World]:
    """One band in a cut, from the rack or given."""
    world = read_world(session)
    row: SawRow = get(session, "saw", given.saw_id)
    if band_id is not None:
        found: BandRow = get(session, "band", band_id)
        plain = candidate(found, world.lives, row.id, world.by_band.get(found.id))
        material = given.to_core(world.materials).material
        band = _with_material_life(plain, found, world, material)
    assert band is not None
    job = job_for(world, core_saw(row), given, (band,))
    choose(job)
    return evaluate(job.bands[0], job), job, world


def feed(session: Session, given: FeedInput) -> FeedFigures:
    """What happens at a feed. InputError when the band cannot do the cut at all."""
    band = given.band.to_core() if given.band is not None else None
    evaluation, job, world = evaluation_of(session, given, band, given.band_id)
    if evaluation.run is None:
        reason: Any = evaluation.conflicts[0].text if evaluation.conflicts else "no feed works"
        raise InputError([Fault("band_id", f"this band cannot do the cut: {reason}")])
    run = figures_at(evaluation, job, given.feed_m_min)
    return feed_figures(evaluation, run, job, world)


@dataclass(frozen=True)
class Compared:
    """One band of a comparison: its figures, or why it cannot."""

    band: BandFigures
    option: Option | None
    reasons: tuple[Reason, ...]
    life_m: float


def compare(session: Session, given: CompareInput) -> list[Compared]:
    """The named bands in one cut, in the order asked, feasible or not."""
    row: SawRow = get(session, "saw", given.saw_id)
    world = read_world(session)
    known = {b.band_id: b for b in rack_candidates(world, row.id, given)}
    faults = [
        Fault(f"band_ids.{i}", f"band {band_id} is not on the rack", band_id)
        for i, band_id in enumerate(given.band_ids)
        if band_id not in known
    ]
    if faults:
        raise InputError(faults)
    bands = tuple(known[i] for i in dict.fromkeys(given.band_ids))
    job = job_for(world, core_saw(row), given, bands)
    choice = choose(job)
    ranked = {r.evaluation.facts.band.band_id: r for r in choice.ranked}
    excluded = {e.facts.band.band_id: e for e in choice.excluded}
    found = []
    for band in bands:
        best = ranked.get(band.band_id)
        evaluation = best.evaluation if best is not None else excluded[band.band_id]
        found.append(
            Compared(
                band=band_figures(evaluation.facts, ""),
                option=option(best, best, job, world) if best is not None else None,
                reasons=evaluation.conflicts,
                life_m=evaluation.facts.life_m,
            )
        )
    return found
