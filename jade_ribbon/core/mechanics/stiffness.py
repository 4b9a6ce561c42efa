"""How the tensioned strip between the guides stands up to the feed."""

import math
from dataclasses import dataclass

from jade_ribbon.core.mechanics.geometry import body_behind
from jade_ribbon.core.quantities.arrays import exp, one_of, sin, somewhere, sqrt
from jade_ribbon.core.quantities.constants import E_MPA, G_MPA, RHO_KG_M3
from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.formula_limits import finite, within_limits


@dataclass(frozen=True)
class StabilityLimit:
    critical_feed_force_N: float
    lateral_stiffness_N_mm: float
    strand_force_N: float


@dataclass(frozen=True)
class EdgeSlack:
    edge_slack_feed_force_N: float


def _within_span(cut_height_mm: float, guide_span_mm: float) -> None:
    if somewhere(cut_height_mm > guide_span_mm):
        raise refuse(
            "cut_height_mm",
            f"{one_of(cut_height_mm):g} mm does not fit between the guides; "
            f"accepted: at most guide_span_mm {one_of(guide_span_mm):g}",
            cut_height_mm,
        )


def lateral_stiffness(*, strand_N: float, bending_N_mm2: float, span_mm: float) -> float:
    """Sideways stiffness at mid-span, N/mm: string plus pinned strip.

    Source: docs/model, "Twisting aside under feed".
    """
    return 4.0 * strand_N / span_mm + 48.0 * bending_N_mm2 / span_mm**3


def _coupling(span: float, cut_height: float) -> float:
    """Coupling of bow and twist, c x 1 mm: a centred load less what spreading it takes off."""
    centred = math.pi**2 * (1.0 / 16.0 + 1.0 / (4.0 * math.pi**2))
    h = cut_height / 2.0
    n = 2.0 * math.pi / span
    spread = h**3 / 3.0 + 2.0 * h / n**2 - 2.0 * sin(n * h) / n**3
    return centred - math.pi**2 / (span**2 * cut_height) * 0.5 * spread


@within_limits
def stability_limit(
    *,
    stress_MPa: float,
    width_mm: float,
    gullet_depth_mm: float,
    thickness_mm: float,
    guide_span_mm: float,
    cut_height_mm: float,
    speed_m_s: float,
    tensioner: str = "spring",
) -> StabilityLimit:
    """Feed force (N) at which the strip between the guides twists aside.

    Strain energy, first sine mode of bow and twist, load on the tooth tips spread over
    the cut height (docs/model, "Twisting aside under feed"). With a fixed tensioner the
    centrifugal stress comes off the tension; a spring, weight or air one makes it good.
    Use with a factor of 2. Lengths mm, stress MPa, stiffness N/mm.

    Source: docs/model, "Twisting aside under feed".

    >>> round(stability_limit(stress_MPa=84, width_mm=16, gullet_depth_mm=2.794,
    ...     thickness_mm=0.81, guide_span_mm=284, cut_height_mm=118, speed_m_s=28.9,
    ...     tensioner="spring").critical_feed_force_N, 3)
    209.372
    """
    body = body_behind(width_mm, gullet_depth_mm)
    _within_span(cut_height_mm, guide_span_mm)
    lost = RHO_KG_M3 * speed_m_s**2 * 1e-6 if tensioner == "fixed" else 0.0
    if somewhere(stress_MPa <= lost):
        raise refuse(
            "speed_m_s",
            f"{one_of(speed_m_s):g} m/s takes {one_of(lost):.3g} MPa off the tension, "
            f"leaving none; accepted: a stress over that, or a slower band",
            speed_m_s,
        )
    strand = (stress_MPa - lost) * body * thickness_mm
    span = guide_span_mm
    bending = E_MPA * body * thickness_mm**3 / 12.0
    torsion = G_MPA * body * thickness_mm**3 / 3.0
    gyration2 = (body**2 + thickness_mm**2) / 12.0
    q = math.pi / span
    a = (bending * q**4 + strand * q**2) * span / 2.0
    b = (torsion + strand * gyration2) * q**2 * span / 2.0
    c = _coupling(span, cut_height_mm)
    phase = math.pi * cut_height_mm / span
    offset = (body / 2.0 + gullet_depth_mm) * (0.5 + sin(phase) / (2.0 * phase))
    force = (-a * offset + sqrt((a * offset) ** 2 + 4.0 * c**2 * a * b)) / (2.0 * c**2)
    finite(critical_feed_force_N=force)
    stiffness = lateral_stiffness(strand_N=strand, bending_N_mm2=bending, span_mm=span)
    return StabilityLimit(force, stiffness, strand)


@within_limits
def edge_slack(
    *,
    stress_MPa: float,
    width_mm: float,
    gullet_depth_mm: float,
    thickness_mm: float,
    guide_span_mm: float,
    cut_height_mm: float,
) -> EdgeSlack:
    """Feed force (N) at which the toothed edge goes slack.

    Tensioned beam in its own plane under a load spread over the cut height, centred in
    the span (docs/model, "Front edge slack"). A slack edge wanders and barrels.

    Source: docs/model, "Front edge slack".

    >>> round(edge_slack(stress_MPa=94, width_mm=19, gullet_depth_mm=2.9633, thickness_mm=0.81,
    ...     guide_span_mm=319, cut_height_mm=235).edge_slack_feed_force_N, 3)
    79.243
    """
    body = body_behind(width_mm, gullet_depth_mm)
    _within_span(cut_height_mm, guide_span_mm)
    strand = stress_MPa * body * thickness_mm
    in_plane = E_MPA * thickness_mm * body**3 / 12.0
    k = sqrt(strand / in_plane)
    outside = k * (guide_span_mm - cut_height_mm) / 2.0
    half = k * guide_span_mm / 2.0
    per_force = (1.0 - _cosh_ratio(outside, half)) / (k**2 * cut_height_mm)
    force = stress_MPa * body**2 * thickness_mm / 6.0 / per_force
    finite(edge_slack_feed_force_N=force)
    return EdgeSlack(force)


def _cosh_ratio(small: float, large: float) -> float:
    """cosh(small)/cosh(large) for small <= large, without overflow."""
    return exp(small - large) * (1.0 + exp(-2.0 * small)) / (1.0 + exp(-2.0 * large))
