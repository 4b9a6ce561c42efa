"""The set-up card: this saw, this band, this cut, step by step with figures."""

from collections.abc import Mapping
from dataclasses import dataclass

from jade_ribbon.core.choose import Ranked
from jade_ribbon.core.job import Job
from jade_ribbon.core.note_names import note_name
from jade_ribbon.core.tension import (
    SIDE_PUSH_LINEAR_SHARE,
    Tension,
    free_span_mm,
    pluck_frequency,
    side_push,
    side_push_extra_strain_share,
    tension,
)
from jade_ribbon.reference.tables import SetupStepText, house_rules, setup_step_texts

SIDE_PUSH_STEPS_MM = (10.0, 8.0, 6.0, 5.0, 4.0, 3.0, 2.0, 1.0)
SIDE_GAP_BY_GUIDE_MM = {
    "rolling": 0.1,
    "ceramic": 0.1,
    "steel_block": 0.15,
    "soft_block": 0.0,
    "thrust_only": None,
    "none": None,
}
SIDE_GAP_BY_RULE_MM = {"paper": 0.1, "wide": 0.8, "touching": 0.0}
THRUST_GAP_MM = {"spacer": 0.3, "hair": 0.1}
NARROW_ON_THRUST_MM = 2.0
STRESS_UNCERTAINTY = {"gauge": 0.03, "pluck": 0.04, "push": 0.10, "travel": 0.20}
"""Relative uncertainty of a stress set by each means, as usual on a shop floor."""


@dataclass(frozen=True)
class SidePushFigure:
    """Push at mid-span, guides off, and what it must bend the band by."""

    force_N: float
    deflection_mm: float
    span_mm: float


@dataclass(frozen=True)
class TensionCard:
    """The target stress in each form a shop can set. Span forms are None on three wheels."""

    stress_MPa: float
    low_MPa: float
    high_MPa: float
    forms: Tension
    wheel_force_N: float
    gauge_length_mm: float
    free_span_mm: float | None
    side_push: SidePushFigure | None
    note_Hz: float | None
    note_name: str | None
    wheel_travel_mm: float | None
    frame_limit_N: float | None
    uncertainty: Mapping[str, float]


@dataclass(frozen=True)
class SetupStep:
    """One step of the card. `figure` is what to set, largest on the page."""

    key: str
    title: str
    doors_open: bool
    do: str
    check: str
    wrong: str
    figure: str
    reading: str


@dataclass(frozen=True)
class GuideCard:
    """Gaps in mm; None where there is no guide of the kind."""

    side_gap_mm: float | None
    thrust_gap_mm: float
    behind_gullet_mm: float
    guard_gap_mm: float
    guard_height_mm: float


@dataclass(frozen=True)
class SetupCard:
    """Everything the card shows for this saw, band and cut."""

    tension: TensionCard
    guides: GuideCard
    speed_m_s: float
    speed_setting: str
    feed_m_min: float
    steps: tuple[SetupStep, ...]


def side_push_for(
    stress_MPa: float, *, body_mm: float, thick_mm: float, span: float
) -> SidePushFigure | None:
    """The largest round deflection that is still linear, and its force."""
    for deflection in SIDE_PUSH_STEPS_MM:
        share = side_push_extra_strain_share(
            stress_MPa=stress_MPa, span_mm=span, deflection_mm=deflection
        )
        if share <= SIDE_PUSH_LINEAR_SHARE:
            force = side_push(
                stress_MPa=stress_MPa,
                body_width_mm=body_mm,
                thickness_mm=thick_mm,
                span_mm=span,
                deflection_mm=deflection,
            ).side_force_N
            return SidePushFigure(force, deflection, span)
    return None


def tension_card(best: Ranked, job: Job, gauge_length_mm: float) -> TensionCard:
    """Tension in every form that this saw's geometry allows."""
    e, saw = best.evaluation, job.saw
    facts = e.facts
    forms = tension(
        stress_MPa=e.stress_MPa,
        body_width_mm=facts.body_width_mm,
        thickness_mm=facts.band.thickness_mm,
        band_length_mm=facts.length_mm,
        gauge_length_mm=gauge_length_mm,
    )
    span, push, hertz = None, None, None
    if saw.wheels == 2:
        mean = sum(saw.wheel_diameters_mm) / 2.0
        span = free_span_mm(band_length_mm=facts.length_mm, wheel_diameter_mm=mean)
    if span is not None and span > 0:
        push = side_push_for(
            e.stress_MPa, body_mm=facts.body_width_mm, thick_mm=facts.band.thickness_mm, span=span
        )
        hertz = pluck_frequency(
            stress_MPa=e.stress_MPa,
            width_mm=facts.band.width_mm,
            gullet_depth_mm=facts.gullet_depth_mm,
            thickness_mm=facts.band.thickness_mm,
            span_mm=span,
        ).frequency_Hz
    return TensionCard(
        stress_MPa=e.stress_MPa,
        low_MPa=facts.stress_low_MPa or 0.0,
        high_MPa=facts.stress_high_MPa or 0.0,
        forms=forms,
        wheel_force_N=e.strand_force_N * saw.force_per_strand,
        gauge_length_mm=gauge_length_mm,
        free_span_mm=span if span is not None and span > 0 else None,
        side_push=push,
        note_Hz=hertz,
        note_name=note_name(hertz) if hertz is not None else None,
        wheel_travel_mm=forms.wheel_travel_mm if saw.wheels == 2 else None,
        frame_limit_N=saw.wheel_force_max_N,
        uncertainty=STRESS_UNCERTAINTY,
    )


def guide_card(best: Ranked, job: Job, side_rule: str, thrust_rule: str) -> GuideCard:
    """Guide and guard settings by guide kind and house rule."""
    by_kind = SIDE_GAP_BY_GUIDE_MM[job.saw.guides]
    side = by_kind if by_kind is None else SIDE_GAP_BY_RULE_MM.get(side_rule, by_kind)
    if best.evaluation.facts.band.width_mm <= NARROW_ON_THRUST_MM:
        side = None
    gap = job.rules.guard_gap_mm
    return GuideCard(
        side_gap_mm=side,
        thrust_gap_mm=THRUST_GAP_MM[thrust_rule],
        behind_gullet_mm=best.evaluation.facts.gullet_depth_mm,
        guard_gap_mm=gap,
        guard_height_mm=job.cut.height_mm + gap,
    )


def band_position(job: Job, rule: str, band_width_mm: float) -> str:
    """Where the band rides, by tyre and house rule."""
    if job.saw.tyre in ("flat", "none") and rule != "front_edge":
        return "teeth at or just over the front edge, since the tyre is flat"
    return {
        "centred": "centred on the crown",
        "front_edge": "teeth at or just over the front edge",
        "forward": "slightly forward of centre",
    }[rule]


@dataclass(frozen=True)
class ShopHabits:
    """House rules that shape the card but not the choice."""

    band_position: str = "centred"
    side_gap: str = "by_guide"
    thrust_gap: str = "spacer"
    guide_order: str = "upper_first"
    tension_means: str = "gauge"
    guides_role: str = "backup"
    coplanar: str = "when_it_shows"
    factory_alignment: str = "leave"
    drift: str = "fence"
    guiding: str = "fence"
    stock: str = "face_edge"
    reactive: str = "halves"
    weld: str = "by_hand"
    guide_kind: str = "soft"
    billet: str = "yield"


def _tension_check(card: TensionCard, means: str) -> str:
    if means == "pluck" and card.note_Hz is not None:
        return f"Plucked with guides off it sounds {card.note_Hz:.1f} Hz, about {card.note_name}."
    if means == "push" and card.side_push is not None:
        p = card.side_push
        return f"{p.force_N:.1f} N pushes the middle of the span {p.deflection_mm:g} mm aside."
    if means == "travel" and card.wheel_travel_mm is not None:
        return f"From snug the wheel has moved about {card.wheel_travel_mm:.2f} mm, tyres aside."
    return (
        f"The gauge, zeroed slack, shows {card.forms.gauge_stretch_um:.0f} µm "
        f"over {card.gauge_length_mm:g} mm."
    )


def _gap_words(gap: float | None) -> str:
    if gap is None:
        return "none"
    return "just touching" if gap == 0 else f"{gap:g} mm"


BIG_WHEEL_MM = 500.0
SOFT_GUIDE_BELOW_MM = 6.0
REACTIVE_WORDS = ("spring", "bows", "case-hardened", "stress", "pinch")
"""What the table's remarks say of stock that moves when it is opened."""


def coplanar_limit_mm(job: Job) -> float:
    """How far wheels may stand out of plane before acting: 1 mm flat or big, else 3 mm."""
    flat = job.saw.tyre in ("flat", "none")
    return 1.0 if flat or max(job.saw.wheel_diameters_mm) > BIG_WHEEL_MM else 3.0


def _habit_words(best: Ranked, job: Job, habits: ShopHabits) -> dict[str, str]:
    """The shop's own ways, as the steps say them."""
    limit = coplanar_limit_mm(job)
    narrow = best.evaluation.facts.band.width_mm < SOFT_GUIDE_BELOW_MM
    hard = job.saw.guides not in ("soft_block", "thrust_only", "none")
    moves = any(word in job.cut.material.cautions for word in REACTIVE_WORDS)
    resaw = job.cut.operation in ("resaw", "veneer", "rip")
    billet = {
        "yield": " A bowed billet: count the pieces flattened first and along its curve.",
        "flatten": " Flatten a bowed billet first.",
        "curve": " Saw a bowed billet along its curve, to a scribed line.",
    }[habits.billet]
    stock = {
        "face_edge": "Stock with one face and an edge square.",
        "four_square": "Stock four-square.",
        "as_it_is": "Stock as it is, to a scribed line.",
    }[habits.stock]
    reactive = {
        "halves": " It moves when opened: halve from the middle outwards.",
        "one_face": " It moves when opened: slice from one face and true it between.",
    }[habits.reactive]
    return {
        "coplanar": f"Wheels in one plane within {limit:g} mm: true them if not."
        if habits.coplanar == "always"
        else f"Look at the wheels' plane only if it will not sit on both, or over {limit:g} mm.",
        "alignment": {
            "leave": "A fault in alignment shows with a second band too: try one first.",
            "true": "True the wheels before chasing it with the knob.",
        }[habits.factory_alignment],
        "guides_role": {
            "backup": "If it wanders, look at crown, alignment and tension before the guides.",
            "straight": "The guides make this cut straight: take care over each gap.",
        }[habits.guides_role],
        "guide_kind": "Under 6 mm, soft blocks save the teeth at a touch."
        if narrow and hard and habits.guide_kind == "soft"
        else "",
        "guiding": {
            "fence": "Guide by the fence.",
            "single_point": "Guide by a single point at the tooth line; it needs no drift shift.",
            "scribed": "Freehand to a scribed line.",
        }[habits.guiding]
        if resaw
        else "",
        "stock": (stock + billet + (reactive if moves else "")) if resaw else "",
        "weld": {
            "by_hand": "Dress it turning by hand.",
            "running": "Dress the back edge only, running, doors shut; never faces or teeth.",
        }[habits.weld],
        "drift": {
            "fence": "Drift up to 2 degrees: set the fence to it. Over that is a fault to find.",
            "single_point": "A single-point fence follows drift; over 2 degrees seek the fault.",
            "tracking": "Steer a small drift out by tracking; over 2 degrees is a fault to find.",
        }[habits.drift],
    }


def _step_words(
    best: Ranked, job: Job, habits: ShopHabits, card: TensionCard, guides: GuideCard
) -> dict[str, str]:
    speed = best.evaluation.speed
    assert speed is not None
    position = band_position(job, habits.band_position, best.evaluation.facts.band.width_mm)
    return {
        **_habit_words(best, job, habits),
        "position": position,
        "position_again": f"Again {position}, now under tension",
        "stress": f"{card.stress_MPa:.0f} MPa",
        "tension_check": _tension_check(card, habits.tension_means),
        "order": house_rules()["guide_order"].name_of(habits.guide_order).capitalize()
        + "; sides, then thrust",
        "gullet": f"gullets are {guides.behind_gullet_mm:.1f} mm deep",
        "side_gap": _gap_words(guides.side_gap_mm),
        "thrust_gap": _gap_words(guides.thrust_gap_mm),
        "guard_gap": f"{guides.guard_gap_mm:g} mm",
        "guard_height": f"{guides.guard_height_mm:g} mm",
        "speed_setting": speed.setting.capitalize(),
        "speed": f"{speed.speed_m_s:.3g} m/s",
        "feed": f"{best.run.feed_m_min:.2g} m/min",
        "tolerance": f"{job.cut.tolerance_mm:g} mm" if job.cut.tolerance_mm else "your tolerance",
    }


FIGURES = {
    "tension": "{stress}",
    "guides": "{side_gap}",
    "guard": "{guard_height}",
    "speed": "{speed}",
    "trial": "{feed}",
}
READINGS = {
    "tension": "MPa",
    "fine_track": "mm off centre",
    "guides": "mm side gap",
    "guard": "mm above table",
    "speed": "m/s",
    "trial": "mm thickest less thinnest",
}


def _step(text: SetupStepText, words: dict[str, str]) -> SetupStep:
    return SetupStep(
        key=text.key,
        title=text.title,
        doors_open=text.doors_open == "yes",
        do=text.do.format(**words).strip(),
        check=text.check.format(**words),
        wrong=text.wrong.format(**words).strip(),
        figure=FIGURES.get(text.key, "").format(**words),
        reading=READINGS.get(text.key, ""),
    )


def setup_card(best: Ranked, job: Job, *, gauge_length_mm: float, habits: ShopHabits) -> SetupCard:
    """The card for the chosen band. Gauge length (mm) is the shop's own gauge's."""
    speed = best.evaluation.speed
    assert speed is not None
    card = tension_card(best, job, gauge_length_mm)
    guides = guide_card(best, job, habits.side_gap, habits.thrust_gap)
    words = _step_words(best, job, habits, card, guides)
    return SetupCard(
        tension=card,
        guides=guides,
        speed_m_s=speed.speed_m_s,
        speed_setting=speed.setting,
        feed_m_min=best.run.feed_m_min,
        steps=tuple(_step(t, words) for t in setup_step_texts().values()),
    )
