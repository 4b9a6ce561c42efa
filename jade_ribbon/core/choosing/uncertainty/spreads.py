"""How surely each figure behind a choice is known, and what it says that from."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from jade_ribbon.core.bands.reach import ASSUMED_FACTOR
from jade_ribbon.core.job import DEFAULT_HAND_FORCE_N, Job, Rates
from jade_ribbon.reference.tables import Material

Source = Literal["table", "records", "guess"]

WEAR_UNCERTAINTY = {
    "softwood": 1.5,
    "hardwood": 1.5,
    "tropical": 3.0,
    "troubled_wood": 2.5,
    "panel": 2.0,
    "carbon": 3.0,
}
"""Factor to which abrasiveness is known, by group (reference table); silica-bearing ones more."""
WEAR_UNCERTAINTY_ELSE = 2.0
SILICA_UNCERTAINTY = 5.0

EXPONENT_SD = 0.06
LEAST_BITE_FACTOR = 2.0
LARGEST_BITE_SHARE = 0.35
FILL_SD = 0.1
SET_SHARE = 0.15
MEASURED_SET_SHARE = 0.03
HAND_SHARE = 0.25
STEERING_SHARE = 0.3
RATE_SHARE = 0.25
"""A rate that the shop never set is the usual one, and a guess."""


@dataclass(frozen=True)
class Spread:
    """One figure that is not sure: standard deviation of its logarithm, or plain where `plain`."""

    key: str
    name: str
    sd: float
    source: Source
    plain: bool = False


def wear_uncertainty(material: Material) -> float:
    """Factor either way to which the wear in a material is known."""
    if "silica" in material.dust_hazard:
        return SILICA_UNCERTAINTY
    return WEAR_UNCERTAINTY.get(material.group, WEAR_UNCERTAINTY_ELSE)


def share_sd_ln(share: float) -> float:
    """Spread of a logarithm for a figure known to so large a share: ln(1 + share).

    >>> round(share_sd_ln(0.2), 4)
    0.1823
    """
    return math.log1p(share)


RATES: Mapping[str, tuple[str, float]] = {
    "hour": ("what an hour costs", Rates.hour),
    "machine_hour": ("what an hour of the saw costs", Rates.machine_hour),
    "timber_m3": ("the price of timber", Rates.timber_m3),
    "change_min": ("the minutes of a change", Rates.change_min),
    "plane_min_m2": ("the minutes of planing", Rates.plane_min_m2),
    "sand_min_m2": ("the minutes of sanding", Rates.sand_min_m2),
    "show_min_m2": ("the minutes of a show face", Rates.show_min_m2),
}


def job_spreads(job: Job) -> tuple[Spread, ...]:
    """Spreads of what all bands of a job share: stock, saw, person and prices."""
    material, known = job.cut.material, job.known
    table_pressure = share_sd_ln(material.kc_uncertainty_pct / 100.0)
    pressure = table_pressure if known.pressure_sd_ln is None else known.pressure_sd_ln
    logged: Source = "table" if known.pressure_sd_ln is None else "records"
    found = [
        Spread("pressure", f"cutting pressure of {material.name}", pressure, logged),
        Spread("exponent", "how it falls with the bite", EXPONENT_SD, "table", plain=True),
        Spread("least_bite", "least bite", math.log(LEAST_BITE_FACTOR), "table"),
        Spread("largest_bite", "largest bite", share_sd_ln(LARGEST_BITE_SHARE), "table"),
        Spread("fill", "how full gullets may be", FILL_SD, "table", plain=True),
        Spread("wear", "how it wears an edge", math.log(wear_uncertainty(material)), "table"),
        Spread("side", "share of the push that goes aside", known.side_sd_ln, "table"),
    ]
    saw = job.saw
    if not saw.force_known:
        found.append(Spread("frame", "frame force", math.log(ASSUMED_FACTOR), "guess"))
    if job.cut.min_radius_mm is not None:
        turning = share_sd_ln(STEERING_SHARE)
        found.append(Spread("steering", "how fast you turn the work", turning, "guess"))
    if saw.feed == "hand" and saw.hand_force_N == DEFAULT_HAND_FORCE_N:
        found.append(Spread("hand", "your push", share_sd_ln(HAND_SHARE), "guess"))
    for key, (name, usual) in RATES.items():
        if key == "machine_hour" and saw.feed != "power":
            continue
        if getattr(job.rates, key) == usual:
            found.append(Spread(key, name, share_sd_ln(RATE_SHARE), "guess"))
    return tuple(found)
