"""Limits of the feed beside those of band and motor: pace, steering, straightness, grit."""

import math
from dataclasses import replace
from typing import cast

import numpy as np

from jade_ribbon.core.bands.facts import BandFacts
from jade_ribbon.core.bands.reach import span_mm
from jade_ribbon.core.job import Job
from jade_ribbon.core.mechanics.cutting import cutting_power
from jade_ribbon.core.mechanics.feed import (
    HOT_SHARE,
    RECOMMENDED_SHARE,
    FeedWindow,
    Limit,
    State,
    window_from_limits,
)
from jade_ribbon.core.mechanics.straightness import (
    MENDING_FACTOR,
    side_share,
    straightness,
)
from jade_ribbon.core.quantities.arrays import is_array, least, somewhere, where

STEERING_RAD_S = 0.7
STEERING_ARM_MM = 15.0
"""A person turns the work at this rate about a point so far inside the curve."""
MM_S_PER_M_MIN = 1000.0 / 60.0


def steering_m_min(job: Job) -> float | None:
    """Feed along the tightest arc at which a person still steers it; None of a straight cut."""
    radius = job.cut.min_radius_mm
    return None if radius is None else steering_at_m_min(job, radius)


def steering_at_m_min(job: Job, radius: float) -> float:
    """Feed (m/min) along a curve at which a person still steers: 0.7 rad/s x (R + 15 mm)."""
    turning = STEERING_RAD_S * job.known.steering_factor
    return turning * (radius + STEERING_ARM_MM) / MM_S_PER_M_MIN


def grit_m_min(facts: BandFacts, job: Job) -> float | None:
    """Feed a grit edge stands: what it takes off a second over the height in the cut."""
    rate = job.cut.material.grit_rate_max_mm2_s
    if rate is None or not somewhere(facts.is_grit):
        return None
    return where(facts.is_grit, rate / job.cut.loaded_height_mm / MM_S_PER_M_MIN, math.inf)


def share_of(job: Job, dullness: float) -> float:
    """Share of the push that goes sideways; twice on a worn tyre or with wheels out of plane.

    Times what the shop's inspected faces say of this saw and steel.
    """
    worn = job.saw.tyre == "worn" or job.saw.wheels_out
    return side_share(dullness) * (MENDING_FACTOR if worn else 1.0) * job.known.side_factor


def straight_force_N(
    facts: BandFacts, job: Job, *, stress_MPa: float, dullness: float
) -> float | None:
    """Push (N) at which the band is aside by half the tolerance; None without a tolerance."""
    if job.cut.tolerance_mm is None:
        return None
    return straightness(
        stress_MPa=stress_MPa,
        body_width_mm=facts.body_width_mm,
        thickness_mm=facts.band.thickness_mm,
        guide_span_mm=span_mm(facts, job),
        cut_height_mm=job.cut.standing_height_mm,
        feed_force_N=1.0,
        side_share=share_of(job, dullness),
        tolerance_mm=job.cut.tolerance_mm,
    ).feed_force_limit_N


def feed_at_push_m_min(
    facts: BandFacts, job: Job, *, speed_m_s: float, push_N: float, dullness: float, energy: float
) -> float:
    """Feed (m/min) whose push is so many N: push grows as feed^(1 - m)."""
    material = job.cut.material
    at_one = cutting_power(
        feed_m_min=1.0,
        speed_m_s=speed_m_s,
        pitch_mm=facts.pitch_mm,
        kerf_mm=facts.kerf_mm,
        height_mm=job.cut.loaded_height_mm,
        K_ref_MPa=material.specific_cutting_pressure_MPa * energy,
        m=material.size_exponent_m,
        dullness=dullness,
        dull_energy_gain=material.dull_energy_gain,
        feed_ratio_sharp=material.feed_force_ratio_sharp,
        feed_ratio_dull=material.feed_force_ratio_dull,
    ).feed_force_N
    return cast(float, (push_N / at_one) ** (1.0 / (1.0 - material.size_exponent_m)))


def pace_m_min(job: Job) -> float | None:
    """Fastest feed a person or carriage keeps; None where nothing limits it."""
    paces = [job.saw.feed_max_m_min] if job.saw.feed_max_m_min is not None else []
    if job.saw.feed == "hand":
        paces.append(hand_pace_m_min(job))
    return min(paces, default=None)


SLOWLY_FED, SOFT = ("plastic", "rubber", "leather"), ("foam", "cork")
"""Groups fed by hand no faster than plastics, and than foam."""
THIN_MM = 10.0
"""Under this height hands come near the band, and go slower."""


def hand_pace_m_min(job: Job) -> float:
    """Fastest feed by hand: the least that applies of material, curve and thin stock."""
    rates, material = job.rates, job.cut.material
    paces = [rates.hand_feed_max_m_min]
    if material.group in SLOWLY_FED:
        paces.append(rates.hand_feed_plastic_m_min)
    if material.is_metal:
        paces.append(rates.hand_feed_metal_m_min)
    if material.group in SOFT:
        paces.append(rates.hand_feed_foam_m_min)
    if job.cut.is_curved:
        paces.append(rates.hand_feed_curve_m_min)
    if job.cut.standing_height_mm < THIN_MM:
        paces.append(rates.hand_feed_thin_m_min)
    return min(paces)


LEANING: tuple[Limit, ...] = ("edge", "stability", "straight")
"""Limits that lean on the frame's force."""
PERSON: tuple[Limit, ...] = ("pace", "steering")
"""Limits that are a person's own, or the carriage's."""
NEVER_RUBBED = ("pvc", "magnesium")
"""What gives off poison or catches fire where it is rubbed."""


def may_rub(job: Job) -> bool:
    """Whether a cut of this material may be rubbed through at all, said plainly."""
    material = job.cut.material
    return not (material.work_hardens or any(w in material.key for w in NEVER_RUBBED))


def rubbing(window: FeedWindow, job: Job) -> FeedWindow:
    """A shut window that is no conflict: the teeth rub, at a share of the ceiling.

    In curves of anything but metals whatever binds; elsewhere where a person's pace binds, or what
    leans on an assumed frame, and all else is at least half the floor.

    Source: judgement, half the floor as sawyers bear it; docs/model "Choosing".
    """
    if not may_rub(job):
        return window
    turning = job.cut.is_curved and not job.cut.material.is_metal
    free = PERSON if job.saw.force_known else (*PERSON, *LEANING)
    hard = [limit for key, limit in window.limits_m_min.items() if key not in free]
    allowed = turning | (least(*hard) >= HOT_SHARE * window.floor_m_min)
    aim = RECOMMENDED_SHARE * window.ceiling_m_min
    if is_array(window.ceiling_m_min):
        rubs = (np.asarray(window.state) == "shut") & allowed
        state = np.where(rubs, "rubs", np.asarray(window.state))
        feed = np.where(rubs, aim, np.asarray(window.recommended_m_min, dtype=float))
        return replace(window, state=cast(State, state), recommended_m_min=cast(float, feed))
    if window.state == "shut" and allowed:
        return replace(window, state="rubs", recommended_m_min=aim)
    return window


def at_radius(window: FeedWindow, job: Job, radius_mm: float | None) -> FeedWindow:
    """The window on a stretch of another radius than the tightest; None: straight."""
    limits: dict[Limit, float] = {k: v for k, v in window.limits_m_min.items() if k != "steering"}
    if radius_mm is not None and "steering" in window.limits_m_min:
        limits["steering"] = steering_at_m_min(job, radius_mm)
    return window_from_limits(limits, window.floor_m_min)


def further_limits(
    facts: BandFacts,
    job: Job,
    *,
    speed_m_s: float,
    stress_MPa: float,
    dullness: float,
    energy: float,
) -> dict[Limit, float]:
    """Each limit whose input is given."""
    push = straight_force_N(facts, job, stress_MPa=stress_MPa, dullness=dullness)
    straight = None
    if push is not None:
        straight = feed_at_push_m_min(
            facts, job, speed_m_s=speed_m_s, push_N=push, dullness=dullness, energy=energy
        )
    found: dict[Limit, float | None] = {
        "pace": pace_m_min(job),
        "steering": steering_m_min(job),
        "straight": straight,
        "grit": grit_m_min(facts, job),
    }
    return {key: value for key, value in found.items() if value is not None}
