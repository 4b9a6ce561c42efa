"""Every quantity the core takes: its accepted range, in one place.

The formulas, the command line and the interface all read these ranges. They are the
limits of sense for the formula, deliberately wide; what is *usual* on a shop floor is
in `plausible`, and only leads to a question ("did you mean 0.64 mm?").
"""

import functools
import inspect
import math
from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass
from typing import Any, ParamSpec, TypeVar

import numpy as np

from jade_ribbon.core.quantities.arrays import is_array
from jade_ribbon.core.quantities.errors import Fault, InputError

P = ParamSpec("P")
R = TypeVar("R")


LEAST = 1e-9
"""No quantity that must be more than nothing is less: 5e-324 mm is a slip of the hand."""


@dataclass(frozen=True)
class Range:
    """Accepted interval of a number; `open_low` leaves the lower end out."""

    low: float
    high: float
    open_low: bool = False
    choices: tuple[str, ...] = ()

    def words(self) -> str:
        """The range as said to a person."""
        if self.choices:
            return "one of " + ", ".join(self.choices)
        if self.open_low:
            return f"more than {self.low:g} and at most {self.high:g}"
        return f"{self.low:g} to {self.high:g}"

    def holds(self, value: float) -> bool:
        above = value >= self.low + LEAST if self.open_low else value >= self.low
        return math.isfinite(value) and above and value <= self.high


def _positive(high: float) -> Range:
    return Range(0.0, high, open_low=True)


RANGES: Mapping[str, Range] = {
    "width_mm": _positive(1000),
    "body_width_mm": _positive(1000),
    "thickness_mm": _positive(10),
    "kerf_mm": _positive(50),
    "tpi": _positive(100),
    "pitch_mm": _positive(200),
    "gullet_depth_ratio": Range(0, 1),
    "gullet_depth_mm": Range(0, 200),
    "gullet_area_coefficient": Range(0, 1),
    "gullet_area_mm2": _positive(10_000),
    "gullet_fill_limit": _positive(10),
    "set_per_side_mm": Range(0, 10),
    "length_mm": _positive(100_000),
    "band_length_mm": _positive(100_000),
    "allowance": Range(1, 10),
    "radius_mm": _positive(1e6),
    "stress_MPa": _positive(3000),
    "tension_stress_MPa": Range(0, 3000),
    "gauge_length_mm": _positive(10_000),
    "gauge_stretch_um": Range(0, 1e5),
    "span_mm": _positive(50_000),
    "deflection_mm": _positive(1000),
    "side_force_N": _positive(1e5),
    "wheel_travel_mm": _positive(100),
    "force_per_strand": Range(1, 2),
    "give": Range(0, 0.9),
    "gap_mm": Range(0, 10),
    "front_gap_mm": Range(0, 20),
    "middle_gap_mm": Range(0, 20),
    "back_gap_mm": Range(0, 20),
    "stack_mm": Range(0.02, 20),
    "turns": _positive(100_000),
    "seconds": _positive(100_000),
    "frequency_Hz": _positive(20_000),
    "smallest_wheel_diameter_mm": _positive(10_000),
    "wheel_diameter_mm": _positive(10_000),
    "second_wheel_mm": _positive(10_000),
    "centres_mm": _positive(50_000),
    "wheel_rpm": _positive(100_000),
    "spacing_mm": _positive(1000),
    "span_Hz": _positive(20_000),
    "motor_rpm": _positive(100_000),
    "motor_pulley_mm": _positive(5000),
    "wheel_pulley_mm": _positive(5000),
    "gear_ratio": _positive(1000),
    "base_hz": _positive(1000),
    "drive_hz": _positive(1000),
    "target_speed_m_s": _positive(200),
    "speed_m_s": _positive(200),
    "wheels": Range(1, 4),
    "ultimate_MPa": _positive(5000),
    "endurance_amplitude_MPa": _positive(3000),
    "basquin_k": _positive(100),
    "notch_factor": Range(1, 10),
    "guide_span_mm": _positive(10_000),
    "cut_height_mm": _positive(10_000),
    "height_mm": _positive(10_000),
    "feed_m_min": _positive(1000),
    "K_ref_MPa": _positive(20_000),
    "m": Range(0, 0.95),
    "dullness": Range(0, 10),
    "dull_energy_gain": Range(0, 10),
    "feed_ratio_sharp": _positive(10),
    "feed_ratio_dull": _positive(10),
    "bite_min_mm": Range(0, 10),
    "bite_max_mm": _positive(50),
    "motor_kW": _positive(1000),
    "drive_efficiency": Range(0, 1, open_low=True),
    "critical_feed_force_N": _positive(1e7),
    "stability_factor": Range(1, 100),
    "edge_slack_feed_force_N": _positive(1e7),
    "hand_force_N": _positive(10_000),
    "feed_force_N": _positive(1e6),
    "side_share": _positive(5),
    "tolerance_mm": _positive(1000),
    "cut_length_mm": _positive(1e9),
    "abrasiveness": _positive(10_000),
    "bite_exponent": Range(0, 2),
    "prior_life_m": _positive(1e9),
    "prior_weight": _positive(1000),
    "shape": Range(0.1, 20),
    "alpha": _positive(1e6),
    "beta": _positive(1e300),
    "used_m": Range(0, 1e15),
    "next_m": Range(0, 1e15),
    "limit": Range(0, 2, open_low=True),
    "metres_m": Range(0, 1e15),
    "cutting_min": Range(0, 1e12),
    "band_price": Range(0, 1e7),
    "change_min": Range(0, 10_000),
    "hour_rate": Range(0, 100_000),
    "offset_mm": Range(-10_000, 10_000),
    "run_mm": _positive(100_000),
    "fence_bolt_spacing_mm": _positive(10_000),
    "billet_mm": _positive(100_000),
    "slice_mm": _positive(10_000),
    "clean_up_per_face_mm": Range(0, 1000),
    "prepare_loss_mm": Range(0, 10_000),
    "small_end_mm": _positive(10_000),
    "bark_mm": Range(0, 1000),
    "board_mm": _positive(10_000),
    "least_width_mm": _positive(10_000),
    "cant_mm": _positive(10_000),
    "bow_mm": Range(0, 10_000),
    "wood_modulus_MPa": _positive(100_000),
    "segments": Range(3, 10_000),
    "face_error_deg": Range(-45, 45),
    "error_doubt_deg": Range(0, 45),
    "blank_mm": _positive(100_000),
    "throat_mm": _positive(10_000),
    "table_reach_mm": Range(0, 10_000),
    "joint_width_mm": _positive(10_000),
    "gap_allowed_mm": Range(0, 1000),
    "drift_deg": Range(-45, 45),
    "pivot_behind_tooth_line_mm": Range(-10_000, 10_000),
    "prior_share": _positive(5),
    "prior_K_ref_MPa": _positive(20_000),
    "prior_sd_ln": _positive(5),
    "observation_sd_ln": _positive(5),
    "barrel_mm": Range(-1000, 1000),
    "strand_force_N": _positive(1e6),
    "amps_A": Range(0, 2000),
    "volts_V": _positive(1000),
    "power_factor": Range(0, 1, open_low=True),
    "phases": Range(1, 3),
    "power_W": _positive(1e6),
    "idle_W": Range(0, 1e6),
    "chance_lasts": Range(0, 1),
    "spoil_value": Range(0, 1e7),
    "interruption_min": Range(0, 10_000),
    "edge_value_left": Range(0, 1e7),
    "salvage_share": Range(0, 1),
    "slower_min": Range(0, 100_000),
    "feed_keen_m_min": _positive(1000),
    "feed_now_m_min": _positive(1000),
    "dullness_keen": Range(0, 10),
    "from_metres": Range(0, 100),
    "from_metres_sd": _positive(100),
    "from_feed": Range(0, 100),
    "from_feed_sd": _positive(100),
    "price_new": Range(0, 1e7),
    "life_new_m": _positive(1e9),
    "sharpen_cost": Range(0, 1e7),
    "life_ratio": _positive(2),
    "times_most": Range(0, 100),
    "used_up": Range(0, 100_000),
    "weeks": _positive(5200),
    "lead_weeks": _positive(520),
    "service": Range(0, 0.9999, open_low=True),
    "tensioner": Range(0, 0, choices=("spring", "weight", "air", "fixed")),
}


def fault_in(name: str, value: object) -> Fault | None:
    """The fault of a value for a named quantity, or None when it is accepted."""
    accepted = RANGES[name]
    if accepted.choices:
        if value in accepted.choices:
            return None
        return Fault(name, f"{value!r} is not accepted; give {accepted.words()}", value)
    if isinstance(value, np.ndarray):
        bad = [float(v) for v in (value.min(), value.max()) if not accepted.holds(float(v))]
        value = bad[0] if bad else accepted.high
        if not bad:
            return None
    if isinstance(value, bool) or not isinstance(value, (int, float)):
        return Fault(name, f"{value!r} is not a number; give {accepted.words()}", value)
    if not accepted.holds(float(value)):
        return Fault(name, f"{value:g} is out of range; accepted: {accepted.words()}", value)
    return None


_columns_checked: ContextVar[bool] = ContextVar("columns checked", default=False)


@contextmanager
def columns_checked() -> Iterator[None]:
    """Inside, arrays are not held to their ranges: the single figures they vary were, before.

    Single numbers are checked as ever, and so is every result that must be finite.
    """
    token = _columns_checked.set(True)
    try:
        yield
    finally:
        _columns_checked.reset(token)


def within_limits(formula: Callable[P, R]) -> Callable[P, R]:
    """Check every argument of a formula against RANGES by its name before computing.

    Arguments whose default is None may be None. Raises InputError with all faults.
    """
    signature = inspect.signature(formula)
    ranges = {n: RANGES[n] for n in signature.parameters if n in RANGES}
    bounds = {n: (r.low, r.high) for n, r in ranges.items() if not r.choices}
    optional = {n for n, p in signature.parameters.items() if p.default is None}

    def faults_in(given: Mapping[str, Any]) -> list[Fault]:
        faults = []
        skipped = np.ndarray if _columns_checked.get() else None
        for name, value in given.items():
            # The common case first, without building anything.
            if value.__class__ is float and name in bounds:
                low, high = bounds[name]
                if low + LEAST < value < high:
                    continue
            elif value.__class__ is skipped:
                continue
            if name not in ranges or (value is None and name in optional):
                continue
            if (fault := fault_in(name, value)) is not None:
                faults.append(fault)
        return faults

    @functools.wraps(formula)
    def wrapper(*args: P.args, **kwargs: P.kwargs) -> R:
        given: Mapping[str, Any] = kwargs if not args else signature.bind(*args, **kwargs).arguments
        if faults := faults_in(given):
            raise InputError(faults)
        return formula(*args, **kwargs)

    return wrapper


def finite(**results: float) -> None:
    """Refuse a result that is not a finite number, naming it."""
    for name, value in results.items():
        if not (np.isfinite(value).all() if is_array(value) else math.isfinite(value)):
            raise InputError(
                [Fault(name, "the result is not a finite number for these inputs", None)]
            )
