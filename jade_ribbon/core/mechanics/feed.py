"""The feed window: what holds the feed back, and below what it rubs."""

import functools
import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Literal, cast

import numpy as np

from jade_ribbon.core.mechanics.cutting import PRESSURE_BITE_MM, bite, energy_factor, feed_ratio
from jade_ribbon.core.quantities.arrays import is_array, least, most, one_of, somewhere, where
from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.formula_limits import within_limits

RECOMMENDED_SHARE = 0.8
"""Recommended feed as a share of the ceiling."""
HOT_SHARE = 0.5
"""The least bite is known to a factor of two: down to half the floor a cut is hot, not shut."""


Limit = Literal[
    "gullet",
    "power",
    "stability",
    "edge",
    "hand",
    "bite",
    "pace",
    "steering",
    "straight",
    "grit",
]
"""What may hold the feed back."""
State = Literal["open", "hot", "rubs", "shut"]


@dataclass(frozen=True)
class FeedWindow:
    """Limits in m/min. State open, hot, rubs or shut; recommended is None when shut."""

    limits_m_min: Mapping[Limit, float]
    floor_m_min: float
    ceiling_m_min: float
    binding: Limit
    state: State
    recommended_m_min: float | None


@dataclass(frozen=True)
class FeedLimits:
    """Limits of the feed and the least feed that cuts clean, m/min."""

    limits_m_min: Mapping[Limit, float]
    floor_m_min: float


def hot_from_m_min(window: FeedWindow) -> float:
    """Feed (m/min) from which a cut under the floor is hot instead of shut.

    Source: judgement, half the least bite, give or take a third; docs/model "Choosing".
    """
    return HOT_SHARE * window.floor_m_min


RUBBING_WEAR = 4.0
"""Wear of teeth that rub, under half the least bite."""


def slow_wear(*, feed_m_min: float, floor_m_min: float, hot_wear: float) -> float:
    """Factor on wear for a feed under the clean bite: hot, and further down rubbing.

    Source: judgement, hot twice and rubbing four times; docs/model "Choosing".
    """
    slack = 1.0 - 1e-9
    rubs = feed_m_min < HOT_SHARE * floor_m_min * slack
    hot = feed_m_min < floor_m_min * slack
    return where(rubs, RUBBING_WEAR, where(hot, hot_wear, 1.0))


def window_from_limits(limits: Mapping[Limit, float], floor: float) -> FeedWindow:
    """State and recommendation from the limits found: shared by every caller.

    Source: judgement, four fifths of what binds; docs/model "Choosing".
    """
    if is_array(floor) or any(is_array(limit) for limit in limits.values()):
        return _many_windows(limits, floor)
    binding = min(limits, key=lambda name: limits[name])
    ceiling = limits[binding]
    aim = RECOMMENDED_SHARE * ceiling
    if ceiling >= floor:
        return FeedWindow(limits, floor, ceiling, binding, "open", max(aim, floor))
    if ceiling >= HOT_SHARE * floor:
        return FeedWindow(limits, floor, ceiling, binding, "hot", aim)
    return FeedWindow(limits, floor, ceiling, binding, "shut", None)


def _many_windows(limits: Mapping[Limit, float], floor: float) -> FeedWindow:
    """The same for arrays: states and bindings are arrays too, a shut one recommends NaN."""
    ceiling = least(*limits.values())
    aim = RECOMMENDED_SHARE * ceiling
    is_open, is_hot = ceiling >= floor, ceiling >= HOT_SHARE * floor
    wide = np.broadcast_arrays(*limits.values())
    binding = np.array(list(limits))[np.argmin(np.stack(wide), axis=0)]
    state = np.where(is_open, "open", np.where(is_hot, "hot", "shut"))
    feed = where(is_open, most(aim, floor), where(is_hot, aim, math.nan))
    return FeedWindow(limits, floor, ceiling, cast(Limit, binding), cast(State, state), feed)


def _check_bites(least_mm: float, largest_mm: float) -> None:
    """InputError where the largest bite is under the least."""
    if somewhere(largest_mm < least_mm):
        raise refuse(
            "bite_max_mm",
            f"{one_of(largest_mm):g} is under the least bite; "
            f"accepted: at least {one_of(least_mm):g}",
            largest_mm,
        )


@within_limits
def feed_limits(
    *,
    speed_m_s: float,
    pitch_mm: float,
    kerf_mm: float,
    height_mm: float,
    gullet_area_mm2: float,
    gullet_fill_limit: float,
    bite_min_mm: float,
    bite_max_mm: float,
    K_ref_MPa: float,
    m: float,
    dullness: float,
    dull_energy_gain: float,
    feed_ratio_sharp: float,
    feed_ratio_dull: float,
    motor_kW: float,
    drive_efficiency: float,
    critical_feed_force_N: float,
    stability_factor: float,
    edge_slack_feed_force_N: float | None = None,
    hand_force_N: float | None = None,
) -> FeedLimits:
    """All limits of the feed, and the floor below which teeth rub (m/min).

    Gullet: bite x height <= fill x area. Power, stability, edge and hand: the size law
    K ~ bite^-m makes each force or power ~ feed^(1-m), solved exactly. Bite: largest
    bite for the finish. Floor: least bite. Limits not given are absent.

    Raises InputError when bite_max_mm < bite_min_mm.

    Source: each limit from its own formula, the least binds; docs/model "Choosing".
    """
    _check_bites(bite_min_mm, bite_max_mm)
    per_bite = speed_m_s / pitch_mm * 60.0
    energy = K_ref_MPa * energy_factor(dullness=dullness, dull_energy_gain=dull_energy_gain)
    unit = bite(feed_m_min=1.0, speed_m_s=speed_m_s, pitch_mm=pitch_mm).bite_mm
    power_at_1 = energy * (unit / PRESSURE_BITE_MM) ** -m * kerf_mm * height_mm / 60.0
    push_at_1 = (
        power_at_1
        / speed_m_s
        * feed_ratio(
            dullness=dullness, feed_ratio_sharp=feed_ratio_sharp, feed_ratio_dull=feed_ratio_dull
        )
    )

    def feed_at_force(force_N: float) -> float:
        return cast(float, (force_N / push_at_1) ** (1.0 / (1.0 - m)))

    limits: dict[Limit, float] = {
        "gullet": gullet_fill_limit * gullet_area_mm2 / height_mm * per_bite,
        "power": (motor_kW * 1000.0 * drive_efficiency / power_at_1) ** (1.0 / (1.0 - m)),
        "stability": feed_at_force(critical_feed_force_N / stability_factor),
    }
    if edge_slack_feed_force_N is not None:
        limits["edge"] = feed_at_force(edge_slack_feed_force_N)
    if hand_force_N is not None:
        limits["hand"] = feed_at_force(hand_force_N)
    limits["bite"] = bite_max_mm * per_bite
    return FeedLimits(limits, bite_min_mm * per_bite)


@functools.wraps(feed_limits, assigned=())
def feed_window(**given: Any) -> FeedWindow:
    """The window that the limits of the feed leave; takes what `feed_limits` takes.

    Source: each limit from its own formula, the least binds; docs/model "Choosing".
    """
    found = feed_limits(**given)
    return window_from_limits(found.limits_m_min, found.floor_m_min)
