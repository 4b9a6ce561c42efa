"""What Plan answers: bands, settings, costs and verdicts as shown."""

from collections.abc import Mapping
from dataclasses import dataclass

from jade_ribbon.core.bands.facts import BandFacts
from jade_ribbon.core.bands.reach import span_mm
from jade_ribbon.core.choosing.choose import Ranked
from jade_ribbon.core.choosing.conflicts import Reason
from jade_ribbon.core.choosing.cost import Cost
from jade_ribbon.core.choosing.explanation.cautions import Caution
from jade_ribbon.core.choosing.explanation.explain import difference, held_words
from jade_ribbon.core.choosing.explanation.figures import Explained
from jade_ribbon.core.choosing.explanation.rules_at_work import RuleApplied
from jade_ribbon.core.choosing.lot import Lot
from jade_ribbon.core.choosing.nearest_feasible import Opener
from jade_ribbon.core.choosing.operating_point import Evaluation, RunFigures
from jade_ribbon.core.choosing.uncertainty.chances import BandSpread, Between
from jade_ribbon.core.choosing.uncertainty.confidence import Sure, lot_words
from jade_ribbon.core.choosing.uncertainty.steel_costs import SteelCost
from jade_ribbon.core.edge.edge_states import edge_state
from jade_ribbon.core.edge.shop_life import to_wood_metres
from jade_ribbon.core.job import BandType, Job, type_of
from jade_ribbon.core.mechanics.feed import FeedWindow, Limit, hot_from_m_min
from jade_ribbon.core.mechanics.geometry import InCurve, in_curve
from jade_ribbon.core.mechanics.tension import tension
from jade_ribbon.core.mechanics.wear import effective_dullness
from jade_ribbon.core.quantities.chances import chance_words
from jade_ribbon.core.quantities.words import Said
from jade_ribbon.core.stock.slices import Slices
from jade_ribbon.services.planning.snapshot import Snapshot
from jade_ribbon.services.rack.edges import chance
from jade_ribbon.services.shop.defects import OpenDefect


@dataclass(frozen=True)
class BandFigures(BandType):
    """A band as drawn and named: geometry from its type, edge from its record."""

    band_id: int | None
    form_name: str
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
class FeedSpread:
    """How sure the figures at a feed are, and the chance that no limit is under it."""

    cost: Between
    push_N: Between
    power_share: Between
    chance_held: float
    held_words: str


@dataclass(frozen=True)
class LotFigures:
    """The whole job: bands it takes, minutes with their changes, money of both beside timber."""

    bands: float
    words: str
    chance_this_edge: float
    minutes: float
    money: float


@dataclass(frozen=True)
class OptionSpread:
    """How sure an option is: its chance to be the cheapest of its group, ranges of its figures."""

    chance_best: float
    chance_words: str
    cost: Between
    feed: Between
    floor: Between
    ceiling: Between
    limits: Mapping[Limit, Between]
    safe_feed_m_min: float


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
    spread: FeedSpread
    lot: LotFigures
    margin: float
    hot: bool
    held_words: str
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
    reachable_MPa: float
    speed_m_s: float
    speed_setting: str
    speed_off_target: float
    window: FeedWindow
    hot_from_m_min: float
    figures: FeedFigures
    spread: OptionSpread
    teeth_in_cut: float
    tight_radius_mm: float
    comfortable_radius_mm: float
    in_curve: InCurve | None
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
class AtOtherSaw:
    """What another saw of the shop would do with this cut."""

    saw_id: int
    name: str
    able: bool
    words: Said
    cost: Between | None
    feed_m_min: float | None
    kerf_mm: float | None = None


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
    rules_offered: tuple[str, ...]
    """House rules that can matter for this job."""
    cautions: tuple[Caution, ...]
    disclaimer: str
    explained: Mapping[str, Explained]
    stop: Reason | None
    sure: Sure | None
    buy: Buy | None
    saws: list[AtOtherSaw]
    assumed: list[str]
    prevented: Said
    openers: tuple[Opener, ...]
    steels: tuple[SteelCost, ...]
    slices: Slices | None
    defects: list[OpenDefect]


def band_figures(facts: BandFacts, place: str) -> BandFigures:
    band = facts.band
    state = edge_state(effective_dullness(edge_dullness=band.dullness, fouled=band.fouling))
    return BandFigures(
        band_id=band.band_id,
        **type_of(band),
        form_name=facts.form.name,
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


def feed_figures(
    e: Evaluation, run: RunFigures, lot: Lot, spread: BandSpread, job: Job, snapshot: Snapshot
) -> FeedFigures:
    """Figures at a feed, with the whole lot, how sure they are, and the odds of lasting it."""
    facts, cut = e.facts, job.cut
    assert e.window is not None
    hot = run.feed_m_min < e.window.floor_m_min * (1 - 1e-9)
    total_m = lot.metres_m
    lasts = None
    row = next((b for b in snapshot.bands if b.id == facts.band.band_id), None)
    if row is not None:
        wood_m = to_wood_metres(total_m, steel_key=row.steel, material=cut.material)
        limit = job.rates.dullness_limit(cut.finish, job.rules)
        lasts = chance(row, snapshot.lives, wood_m, limit=limit)
    return FeedFigures(
        feed_m_min=run.feed_m_min,
        bite_mm=run.cut.bite_mm,
        power_W=run.cut.cutting_power_W,
        power_share=run.power_share,
        push_N=run.cut.feed_force_N,
        gullet_fill=run.gullet_fill,
        piece_time_s=run.contact.cutting_time_s,
        total_time_s=lot.minutes * 60.0,
        finish=run.delivered,
        equivalent_m=run.equivalent_m,
        cost=lot.cost,
        cost_total=lot.cost.total,
        spread=FeedSpread(
            spread.cost,
            spread.push_N,
            spread.power_share,
            spread.chance_held,
            chance_words(spread.chance_held),
        ),
        lot=LotFigures(
            lot.bands,
            lot_words(lot),
            lot.forecast.chance_none,
            lot.forecast.minutes_mean,
            lot.forecast.money_mean,
        ),
        margin=run.margin,
        hot=hot,
        held_words=held_words(e.window, feed_m_min=run.feed_m_min),
        lasts=lasts,
        dullness_after=facts.band.dullness + total_m / facts.life_m,
    )


def _in_curve(facts: BandFacts, job: Job) -> InCurve | None:
    """How the band stands in the curve the job asks for."""
    if job.cut.min_radius_mm is None:
        return None
    return in_curve(
        width_mm=facts.band.width_mm,
        thickness_mm=facts.band.thickness_mm,
        kerf_mm=facts.kerf_mm,
        radius_mm=job.cut.min_radius_mm,
    )


def option(
    ranked: Ranked,
    best: Ranked,
    spread: BandSpread,
    job: Job,
    snapshot: Snapshot,
    *,
    rivals: bool = False,
) -> Option:
    """One feasible band as shown; `rivals` where it has others in its group."""
    e, lot = ranked.evaluation, ranked.lot
    assert lot is not None
    assert e.speed is not None and e.window is not None and e.fatigue is not None
    assert e.stability is not None and e.edge_slack_N is not None
    facts = e.facts
    row = next((b for b in snapshot.bands if b.id == facts.band.band_id), None)
    forms = tension(
        stress_MPa=e.stress_MPa,
        body_width_mm=facts.body_width_mm,
        thickness_mm=facts.band.thickness_mm,
        band_length_mm=facts.length_mm,
        gauge_length_mm=snapshot.shop.gauge_length_mm,
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
        hot_from_m_min=hot_from_m_min(e.window),
        figures=feed_figures(e, ranked.run, lot, spread, job, snapshot),
        spread=OptionSpread(
            chance_best=spread.chance_best,
            chance_words=chance_words(spread.chance_best) if rivals else "",
            cost=spread.cost,
            feed=spread.feed,
            floor=spread.floor,
            ceiling=spread.ceiling,
            limits=spread.limits,
            safe_feed_m_min=spread.safe_feed_m_min,
        ),
        teeth_in_cut=e.teeth_in_cut,
        tight_radius_mm=e.tight_radius_mm,
        comfortable_radius_mm=e.comfortable_radius_mm,
        in_curve=_in_curve(facts, job),
        bending_hours=e.fatigue.running_hours,
        critical_force_N=e.stability.critical_feed_force_N,
        edge_slack_N=e.edge_slack_N,
        stiffness_N_mm=e.stability.lateral_stiffness_N_mm,
        guide_span_mm=span_mm(facts, job),
        class_words=ranked.class_words,
        difference="" if ranked is best else difference(best, ranked),
    )
