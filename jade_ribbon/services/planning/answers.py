"""What Plan answers: bands, settings, costs and verdicts as shown."""

from collections.abc import Mapping
from dataclasses import dataclass

from jade_ribbon.core.bands.facts import BandFacts
from jade_ribbon.core.choosing.cautions import Caution
from jade_ribbon.core.choosing.choose import Choice, Ranked
from jade_ribbon.core.choosing.conflicts import Reason
from jade_ribbon.core.choosing.cost import Cost
from jade_ribbon.core.choosing.evaluate import Evaluation, RunFigures
from jade_ribbon.core.choosing.explain import RuleApplied, difference
from jade_ribbon.core.choosing.figures import Explained
from jade_ribbon.core.choosing.steel_costs import SteelCost
from jade_ribbon.core.choosing.unblock import Opener
from jade_ribbon.core.edge.shop_life import to_wood_metres
from jade_ribbon.core.job import Job
from jade_ribbon.core.mechanics.feed import FeedWindow
from jade_ribbon.core.mechanics.tension import tension
from jade_ribbon.core.mechanics.wear import edge_state, effective_dullness
from jade_ribbon.services.planning.snapshot import World
from jade_ribbon.services.rack.bands import chance

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
