"""Figures of a set-up: tension in every form, and gaps of guides and guard."""

from collections.abc import Mapping
from dataclasses import dataclass

from jade_ribbon.core.choosing.choose import Ranked
from jade_ribbon.core.job import Job, Saw
from jade_ribbon.core.mechanics.tension import (
    SIDE_PUSH_LINEAR_SHARE,
    Tension,
    free_span_mm,
    pluck_frequency,
    side_push,
    side_push_extra_MPa,
    side_push_extra_strain_share,
    tension,
)
from jade_ribbon.core.setup.fittings import Fittings
from jade_ribbon.core.setup.tension.calibration import ScaleSetting, scale_for_stress
from jade_ribbon.core.setup.tension.note_names import note_name
from jade_ribbon.core.setup.tension.tension_reading import (
    PUSH_SHARE,
    TRAVEL_SHARE,
    Calibrated,
    gauge_share,
    pluck_share,
)

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
LEAST_FREE_SPAN_MM = 100.0
"""Nobody plucks or pushes a shorter span; wheels that near are a band of the wrong length."""


ROLLER_WITHIN_MM = 1.0
"""Of a maker's own figure, so much either way."""
FLANGE_GAP_MM = 3.0


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
    scale: ScaleSetting | None
    uncertainty: Mapping[str, float]


@dataclass(frozen=True)
class RollerPress:
    """How far a mill's rollers press the band below the line of the wheels, mm."""

    least_mm: float
    most_mm: float


@dataclass(frozen=True)
class GuideCard:
    """Gaps in mm; None where there is no guide of the kind.

    A mill's rollers press the band down, and their flange stands off its back at rest.
    """

    side_gap_mm: float | None
    thrust_gap_mm: float
    behind_gullet_mm: float
    guard_gap_mm: float
    guard_height_mm: float
    roller_press_mm: RollerPress | None
    flange_gap_mm: float


def side_push_for(
    stress_MPa: float, *, body_mm: float, thick_mm: float, span: float
) -> SidePushFigure | None:
    """The largest round deflection that is still linear, and its force with what it adds."""
    for deflection in SIDE_PUSH_STEPS_MM:
        share = side_push_extra_strain_share(
            stress_MPa=stress_MPa, span_mm=span, deflection_mm=deflection
        )
        if share <= SIDE_PUSH_LINEAR_SHARE:
            added = side_push_extra_MPa(span_mm=span, deflection_mm=deflection)
            force = side_push(
                stress_MPa=stress_MPa + added,
                body_width_mm=body_mm,
                thickness_mm=thick_mm,
                span_mm=span,
                deflection_mm=deflection,
            ).side_force_N
            return SidePushFigure(force, deflection, span)
    return None


def _uncertainty(
    forms: Tension, calibrated: Calibrated, scale: ScaleSetting | None, stress_MPa: float
) -> dict[str, float]:
    """How surely each means tells this stress, as a share of it."""
    own = {"scale": scale.stress_uncertainty_MPa / stress_MPa} if scale is not None else {}
    return {
        **own,
        "gauge": gauge_share(forms.gauge_stretch_um),
        "pluck": pluck_share(checked=calibrated.note_factor is not None),
        "push": PUSH_SHARE,
        "travel": TRAVEL_SHARE,
    }


def _travel(forms: Tension, calibrated: Calibrated) -> float:
    """Wheel travel (mm) to set, with what tyres and frame were found to give."""
    return forms.wheel_travel_mm / (1.0 - (calibrated.travel_give or 0.0))


def _scale(calibrated: Calibrated, best: Ranked, per_strand: float) -> ScaleSetting | None:
    """Where the saw's own scale stands for the stress; None until it is calibrated."""
    if calibrated.scale is None:
        return None
    facts = best.evaluation.facts
    return scale_for_stress(
        calibrated.scale,
        stress_MPa=best.evaluation.stress_MPa,
        body_width_mm=facts.body_width_mm,
        thickness_mm=facts.band.thickness_mm,
        force_per_strand=per_strand,
    )


def free_span_of(saw: Saw, band_length_mm: float) -> float | None:
    """Free span between two wheels (mm); None on three, or where it is too short to measure on."""
    if saw.wheels != 2:
        return None
    mean = sum(saw.wheel_diameters_mm) / 2.0
    span = free_span_mm(band_length_mm=band_length_mm, wheel_diameter_mm=mean)
    return span if span >= LEAST_FREE_SPAN_MM else None


def tension_card(
    best: Ranked, job: Job, gauge_length_mm: float, calibrated: Calibrated
) -> TensionCard:
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
    span, push, hertz = free_span_of(saw, facts.length_mm), None, None
    if span is not None:
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
    scale = _scale(calibrated, best, saw.force_per_strand)
    travels = saw.wheels == 2 and calibrated.travel_give is not None
    return TensionCard(
        stress_MPa=e.stress_MPa,
        low_MPa=facts.stress_low_MPa or 0.0,
        high_MPa=facts.stress_high_MPa or 0.0,
        forms=forms,
        wheel_force_N=e.strand_force_N * saw.force_per_strand,
        gauge_length_mm=gauge_length_mm,
        free_span_mm=span,
        side_push=push,
        note_Hz=hertz,
        note_name=note_name(hertz) if hertz is not None else None,
        wheel_travel_mm=_travel(forms, calibrated) if travels else None,
        frame_limit_N=saw.wheel_force_max_N,
        scale=scale,
        uncertainty=_uncertainty(forms, calibrated, scale, e.stress_MPa),
    )


ROLLER_PRESS = RollerPress(6.0, 8.0)
"""Where the maker gives no figure."""


def _roller_press(fittings: Fittings) -> RollerPress:
    own = fittings.manual_roller_press_mm
    if own is None:
        return ROLLER_PRESS
    return RollerPress(max(0.0, own - ROLLER_WITHIN_MM), own + ROLLER_WITHIN_MM)


def guide_card(
    best: Ranked, job: Job, side_rule: str, thrust_rule: str, fittings: Fittings
) -> GuideCard:
    """Guide and guard settings by guide kind and house rule; the saw's manual wins."""
    by_kind = SIDE_GAP_BY_GUIDE_MM[job.saw.guides]
    side = by_kind if by_kind is None else SIDE_GAP_BY_RULE_MM.get(side_rule, by_kind)
    if job.saw.guides == "soft_block":
        side = by_kind  # made to touch, whatever the shop's rule for hard ones
    if side is not None and fittings.manual_side_gap_mm is not None:
        side = fittings.manual_side_gap_mm
    if best.evaluation.facts.band.width_mm <= NARROW_ON_THRUST_MM or job.saw.is_mill:
        side = None
    thrust = fittings.manual_thrust_gap_mm
    gap = job.rules.guard_gap_mm
    return GuideCard(
        side_gap_mm=side,
        thrust_gap_mm=THRUST_GAP_MM[thrust_rule] if thrust is None else thrust,
        behind_gullet_mm=best.evaluation.facts.gullet_depth_mm,
        guard_gap_mm=gap,
        guard_height_mm=job.cut.height_mm + gap,
        roller_press_mm=_roller_press(fittings) if job.saw.is_mill else None,
        flange_gap_mm=FLANGE_GAP_MM,
    )
