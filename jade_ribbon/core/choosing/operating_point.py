"""A band at the cut: stiffness, feed window, and every figure that follows from a feed.

One band or an array of them: the same functions serve both.
"""

from dataclasses import dataclass, replace

import numpy as np

from jade_ribbon.core.bands.cut_wear import wear_factor
from jade_ribbon.core.bands.facts import BandFacts
from jade_ribbon.core.bands.reach import least_bite_mm, span_mm
from jade_ribbon.core.bands.speed_choice import SpeedChoice, speed_range
from jade_ribbon.core.choosing.conflicts import (
    Reason,
)
from jade_ribbon.core.choosing.cost import (
    Cost,
    bite_ceiling_mm,
    delivered_place,
    finish_at,
    piece_cost,
)
from jade_ribbon.core.choosing.limits import (
    at_radius,
    further_limits,
    hand_pace_m_min,
    rubbing,
)
from jade_ribbon.core.job import Finish, Job
from jade_ribbon.core.mechanics.bending import BendingFatigue, bending_fatigue
from jade_ribbon.core.mechanics.cutting import CuttingPower, cutting_power, gullet_fill
from jade_ribbon.core.mechanics.feed import (
    RECOMMENDED_SHARE,
    FeedWindow,
    feed_limits,
    window_from_limits,
)
from jade_ribbon.core.mechanics.stiffness import StabilityLimit, edge_slack, stability_limit
from jade_ribbon.core.mechanics.wear import (
    BITE_EXPONENT,
    ContactLength,
    contact_length,
    effective_dullness,
)
from jade_ribbon.core.quantities.arrays import least, most, where

STABILITY_FACTOR = 2.0
ANGLED_STABILITY_FACTOR = 3.0
"""Angled and one-sided loads push the band aside as well as back: a stiffer one is asked for."""
EDGE_FACTOR = 1.0
CROSSCUT_ENERGY = 0.75
ALONG_GRAIN_ENERGY = 0.6
"""Stock stood on its end: the band itself runs along the grain (reference: materials)."""
SHOW_PACE = 2.0 / 3.0
"""Share of the usual feed that show faces get."""
DEEP_MM = 75.0
"""From this height on a curve wants the larger comfortable radius."""


@dataclass(frozen=True)
class Evaluation:
    """A band in a job. Figures after `speed` are None when it was excluded before."""

    facts: BandFacts
    conflicts: tuple[Reason, ...]
    stress_MPa: float
    reachable_MPa: float
    tight_radius_mm: float
    comfortable_radius_mm: float
    teeth_in_cut: float
    teeth_in_cut_least: float
    speed: SpeedChoice | None = None
    stability: StabilityLimit | None = None
    edge_slack_N: float | None = None
    window: FeedWindow | None = None
    fatigue: BendingFatigue | None = None
    run: "RunFigures | None" = None

    @property
    def strand_force_N(self) -> float:
        return self.stress_MPa * self.facts.body_area_mm2

    @property
    def stress_share(self) -> float:
        """Stress over the target."""
        return self.stress_MPa / self.facts.stress_target_MPa if self.facts.stress_target_MPa else 0


@dataclass(frozen=True)
class RunFigures:
    """What happens at a feed."""

    feed_m_min: float
    cut: CuttingPower
    contact: ContactLength
    equivalent_m: float
    gullet_fill: float
    power_share: float
    delivered: Finish
    cost: Cost
    margin: float


def comfort_factor(job: Job) -> float:
    """Factor from tightest to comfortable radius under the house rule."""
    if job.rules.radius == "tightest":
        return 1.0
    hard = job.cut.material.is_green or job.cut.standing_height_mm > DEEP_MM
    return job.rates.comfortable_factor_hard if hard else job.rates.comfortable_factor


def energy_share(job: Job) -> float:
    """Specific energy against resawing, by which way the band runs to the grain."""
    if job.cut.stood_on_end:
        return ALONG_GRAIN_ENERGY
    return CROSSCUT_ENERGY if job.cut.operation == "crosscut" else 1.0


def stability_factor(job: Job) -> float:
    """Safety on the twisting force: two, three where the load comes at an angle."""
    angled = job.cut.operation == "wedge" or job.cut.angle_deg != 0
    return ANGLED_STABILITY_FACTOR if angled else STABILITY_FACTOR


def dullness_now(facts: BandFacts) -> float:
    """Dullness as the cut feels it, gum included."""
    return effective_dullness(edge_dullness=facts.band.dullness, fouled=facts.band.fouling)


def window_at(
    start: "Evaluation", job: Job, speed_m_s: float, stability: StabilityLimit, edge_N: float
) -> FeedWindow:
    """The feed window of a band at a speed: band, motor and person, and what the job asks."""
    facts = start.facts
    material, saw, cut = job.cut.material, job.saw, job.cut
    by_hand = saw.feed == "hand"
    found = feed_limits(
        speed_m_s=speed_m_s,
        pitch_mm=facts.pitch_mm,
        kerf_mm=facts.kerf_mm,
        height_mm=cut.loaded_height_mm,
        gullet_area_mm2=facts.gullet_area_mm2,
        gullet_fill_limit=material.gullet_fill_limit,
        bite_min_mm=least_bite_mm(facts, job),
        bite_max_mm=bite_ceiling_mm(
            cut.finish, bite_target_mm=material.bite_target_mm, bite_max_mm=material.bite_max_mm
        ),
        K_ref_MPa=material.specific_cutting_pressure_MPa * energy_share(job),
        m=material.size_exponent_m,
        dullness=dullness_now(facts),
        dull_energy_gain=material.dull_energy_gain,
        feed_ratio_sharp=material.feed_force_ratio_sharp,
        feed_ratio_dull=material.feed_force_ratio_dull,
        motor_kW=saw.motor_kW * saw.drive.power_share(speed_m_s),
        drive_efficiency=saw.drive_efficiency,
        critical_feed_force_N=stability.critical_feed_force_N,
        stability_factor=stability_factor(job),
        edge_slack_feed_force_N=edge_N / EDGE_FACTOR,
        hand_force_N=saw.hand_force_N if by_hand else None,
    )
    more = further_limits(
        facts,
        job,
        speed_m_s=speed_m_s,
        stress_MPa=start.stress_MPa,
        dullness=dullness_now(facts),
        energy=energy_share(job),
    )
    return rubbing(window_from_limits({**found.limits_m_min, **more}, found.floor_m_min), job)


def paced_feed(window: FeedWindow, job: Job) -> float | None:
    """Feed to run at: the window's, or less for show faces or by the finish rule."""
    feed, floor = window.recommended_m_min, window.floor_m_min
    if feed is None:
        return None
    slow = most(feed * SHOW_PACE, least(floor, feed)) if job.cut.finish == "show" else feed
    if job.rules.feed_pace == "finish":
        return where(window.state == "open", floor, slow)
    return slow


def _worn(
    facts: BandFacts,
    job: Job,
    speed: SpeedChoice,
    window: FeedWindow,
    feed_m_min: float,
    share: float,
) -> tuple[ContactLength, float]:
    """Contact over a share of the path at a feed, and the equivalent metres it wears."""
    contact = contact_length(
        cut_length_mm=job.cut.at_full_chord_mm * share,
        height_mm=job.cut.mean_height_mm,
        feed_m_min=feed_m_min,
        speed_m_s=speed.speed_m_s,
        band_length_mm=facts.length_mm,
        pitch_mm=facts.pitch_mm,
        abrasiveness=job.cut.material.abrasiveness,
        bite_exponent=0.0 if job.cut.material.is_metal else BITE_EXPONENT,
    )
    wear = wear_factor(facts, job, speed, feed_m_min=feed_m_min, floor_m_min=window.floor_m_min)
    return contact, contact.equivalent_contact_m * wear


def _along_path(
    facts: BandFacts, job: Job, speed: SpeedChoice, window: FeedWindow, feed_m_min: float
) -> tuple[ContactLength, float]:
    """Contact and wear of a path: its tightest arc at the feed, the rest as fast as it may."""
    (tightest, _), *rest = job.cut.path
    contact, equivalent = _worn(facts, job, speed, window, feed_m_min, tightest)
    for share, radius in rest:
        feed = most(feed_m_min, feed_to_run_at(at_radius(window, job, radius), job))
        part, more = _worn(facts, job, speed, window, feed, share)
        contact = ContactLength(
            contact.cutting_time_s + part.cutting_time_s,
            contact.contact_m + part.contact_m,
            contact.bite_mm,
            contact.equivalent_contact_m + part.equivalent_contact_m,
        )
        equivalent = equivalent + more
    return contact, equivalent


def figures_at(evaluation: Evaluation, job: Job, feed_m_min: float) -> RunFigures:
    """Everything that follows from a feed: bite, power, push, wear, finish, cost, margin.

    Needs an evaluation with speed, stability and window.
    """
    facts, speed, window = evaluation.facts, evaluation.speed, evaluation.window
    assert speed is not None and window is not None and evaluation.stability is not None
    assert evaluation.edge_slack_N is not None
    material, cut = job.cut.material, job.cut
    power = cutting_power(
        feed_m_min=feed_m_min,
        speed_m_s=speed.speed_m_s,
        pitch_mm=facts.pitch_mm,
        kerf_mm=facts.kerf_mm,
        height_mm=cut.loaded_height_mm,
        K_ref_MPa=material.specific_cutting_pressure_MPa * energy_share(job),
        m=material.size_exponent_m,
        dullness=dullness_now(facts),
        dull_energy_gain=material.dull_energy_gain,
        feed_ratio_sharp=material.feed_force_ratio_sharp,
        feed_ratio_dull=material.feed_force_ratio_dull,
    )
    contact, equivalent = _along_path(facts, job, speed, window, feed_m_min)
    delivered = delivered_place(facts, bite_mm=power.bite_mm, job=job)
    available = job.saw.motor_kW * job.saw.drive.power_share(speed.speed_m_s) * 1000.0
    held = least(
        evaluation.edge_slack_N / EDGE_FACTOR,
        evaluation.stability.critical_feed_force_N / stability_factor(job),
    )
    return RunFigures(
        feed_m_min=feed_m_min,
        cut=power,
        contact=contact,
        equivalent_m=equivalent,
        gullet_fill=gullet_fill(
            bite_mm=power.bite_mm,
            height_mm=cut.loaded_height_mm,
            gullet_area_mm2=facts.gullet_area_mm2,
        ),
        power_share=power.cutting_power_W / (available * job.saw.drive_efficiency),
        delivered=finish_at(delivered),
        cost=piece_cost(
            facts,
            job,
            cut_time_s=contact.cutting_time_s,
            equivalent_m=equivalent,
            delivered=delivered,
            power_W=power.cutting_power_W / job.saw.drive_efficiency,
        ),
        margin=held / power.feed_force_N,
    )


def matched_speed_target(facts: BandFacts, job: Job) -> float | None:
    """A mill's target speed: the highest at which the feed it can hold gives the target bite.

    Power at the target bite fixes a feed; so does the carriage. A slower band turns that
    feed into the wanted bite. By the house rule "as fast as it goes" the most that its steel
    stands in this wood. None of anything but a mill.
    """
    if job.cut.operation != "mill":
        return None
    if job.rules.mill_speed == "fast":
        return speed_range(facts.steel, job.cut.material).most_m_s
    if job.rules.mill_speed == "ladder":
        return min(ladder_speed_m_s(job.saw.motor_kW), job.cut.material.speed_max_m_s)
    material, saw = job.cut.material, job.saw
    table = material.speed_target_m_s
    chip = material.bite_target_mm
    at_table = cutting_power(
        feed_m_min=chip * table / facts.pitch_mm * 60.0,
        speed_m_s=table,
        pitch_mm=facts.pitch_mm,
        kerf_mm=facts.kerf_mm,
        height_mm=job.cut.loaded_height_mm,
        K_ref_MPa=material.specific_cutting_pressure_MPa,
        m=material.size_exponent_m,
        dullness=dullness_now(facts),
        dull_energy_gain=material.dull_energy_gain,
        feed_ratio_sharp=material.feed_force_ratio_sharp,
        feed_ratio_dull=material.feed_force_ratio_dull,
    )
    kerf_area = facts.kerf_mm * job.cut.loaded_height_mm
    power_W = saw.motor_kW * 1000.0 * saw.drive_efficiency
    feeds = [power_W / (at_table.specific_energy_MPa * kerf_area) * 60.0]
    if saw.feed_max_m_min is not None:
        feeds.append(saw.feed_max_m_min)
    if saw.feed == "hand":
        feeds.append(hand_pace_m_min(job))
    return min(table, min(feeds) / 60.0 * facts.pitch_mm / chip)


LADDER_M_S = ((20.0, 16.5), (35.0, 21.5))
LADDER_ABOVE_M_S = 28.0
"""Customary mill speeds by engine: up to so many kW so fast; larger engines faster still."""


def ladder_speed_m_s(motor_kW: float) -> float:
    """Band speed (m/s) by the customary ladder of engines, for large logs.

    >>> ladder_speed_m_s(15), ladder_speed_m_s(60)
    (16.5, 28.0)
    """
    return next((speed for upto, speed in LADDER_M_S if motor_kW <= upto), LADDER_ABOVE_M_S)


def stiffened(start: Evaluation, job: Job) -> Evaluation:
    """With how stiff the band stands between the guides, and the window that leaves."""
    facts, speed = start.facts, start.speed
    assert speed is not None
    span = span_mm(facts, job)
    strip = {
        "stress_MPa": start.stress_MPa,
        "width_mm": facts.band.width_mm,
        "gullet_depth_mm": facts.gullet_depth_mm,
        "thickness_mm": facts.band.thickness_mm,
        "guide_span_mm": span,
        "cut_height_mm": job.cut.standing_height_mm,
    }
    stability = stability_limit(**strip, speed_m_s=speed.speed_m_s, tensioner=job.saw.tensioner)
    edge = edge_slack(**strip).edge_slack_feed_force_N
    window = window_at(start, job, speed.speed_m_s, stability, edge)
    return replace(start, stability=stability, edge_slack_N=edge, window=window)


def bending(start: Evaluation, job: Job) -> BendingFatigue:
    """How long the body stands its wheels at its stress and speed."""
    facts, speed = start.facts, start.speed
    assert speed is not None
    return bending_fatigue(
        tension_stress_MPa=start.stress_MPa,
        thickness_mm=facts.band.thickness_mm,
        smallest_wheel_diameter_mm=job.saw.smallest_wheel_mm,
        wheels=job.saw.wheels,
        band_length_mm=facts.length_mm,
        speed_m_s=speed.speed_m_s,
        ultimate_MPa=facts.uts_MPa,
        endurance_amplitude_MPa=facts.fatigue_amp_MPa,
        basquin_k=facts.basquin_k,
        notch_factor=1.0,
    )


def feed_to_run_at(window: FeedWindow, job: Job) -> float:
    """The paced feed; where nothing can be recommended, the usual share of the ceiling.

    For figures that must be had of every draw: a shut window is slower and hotter still.
    """
    feed, aim = paced_feed(window, job), RECOMMENDED_SHARE * window.ceiling_m_min
    return aim if feed is None else where(np.isnan(feed), aim, feed)
