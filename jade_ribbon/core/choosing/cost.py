"""Cost of a piece: edge, time, kerf, later operation, change-over, power."""

from dataclasses import dataclass
from typing import cast

import numpy as np

from jade_ribbon.core.bands.facts import FINISH_ORDER, BandFacts
from jade_ribbon.core.job import Finish, Job, Rates
from jade_ribbon.core.quantities.arrays import is_array, least, where


@dataclass(frozen=True)
class Cost:
    """Money per piece by cause."""

    edge: float
    time: float
    kerf: float
    later: float
    change: float
    power: float

    @property
    def total(self) -> float:
        return self.edge + self.time + self.kerf + self.later + self.change + self.power


def bite_ceiling_mm(finish: Finish, *, bite_target_mm: float, bite_max_mm: float) -> float:
    """Largest bite (mm) for a finish: max, twice target, target, 0.6 of target.

    >>> bite_ceiling_mm("plane", bite_target_mm=0.03, bite_max_mm=0.05)
    0.05
    """
    return {
        "rough": bite_max_mm,
        "plane": least(2.0 * bite_target_mm, bite_max_mm),
        "sand": bite_target_mm,
        "show": 0.6 * bite_target_mm,
    }[finish]


def finish_place_by_bite(*, bite_mm: float, bite_target_mm: float, bite_max_mm: float) -> int:
    """Finest class whose bite ceiling this bite keeps, counted from rough."""
    place = 0
    for finish in FINISH_ORDER[1:]:
        ceiling = bite_ceiling_mm(finish, bite_target_mm=bite_target_mm, bite_max_mm=bite_max_mm)
        place = place + (bite_mm <= ceiling * (1.0 + 1e-9))
    return place


def delivered_place(facts: BandFacts, *, bite_mm: float, job: Job) -> int:
    """The coarser of what bite and band leave, counted from rough."""
    material = job.cut.material
    by_bite = finish_place_by_bite(
        bite_mm=bite_mm, bite_target_mm=material.bite_target_mm, bite_max_mm=material.bite_max_mm
    )
    return cast(int, least(by_bite, facts.finish_place))


def finish_at(place: int) -> Finish:
    """The class at a place; an array of them for an array."""
    return cast(Finish, np.array(FINISH_ORDER)[place]) if is_array(place) else FINISH_ORDER[place]


def later_minutes_per_m2(delivered: int, asked: Finish, rates: Rates) -> float:
    """Minutes of surfacing per m2 that bring a delivered class to the class asked."""
    steps = (0.0, rates.plane_min_m2, rates.sand_min_m2, rates.show_min_m2)
    upto = FINISH_ORDER.index(asked)
    return sum(((delivered < i) * steps[i] for i in range(1, upto + 1)), start=0.0)


def piece_cost(
    facts: BandFacts,
    job: Job,
    *,
    cut_time_s: float,
    equivalent_m: float,
    delivered: int,
    power_W: float,
) -> Cost:
    """Cost of one piece (shop currency) at the recommended feed.

    Edge is band price x equivalent metres / life. Timber price counts for wood, panels
    and the like; other stock has no price in the job.
    """
    cut, rates = job.cut, job.rates
    minute = rates.hour / 60.0
    area_m2 = cut.section_mm2 * 1e-6
    timber = cut.material.is_wood or cut.material.group in ("panel", "special")
    return Cost(
        edge=facts.price * equivalent_m / facts.life_m,
        time=cut_time_s / 3600.0 * job.cutting_hour,
        kerf=area_m2 * facts.kerf_mm / 1000.0 * rates.timber_m3 if timber else 0.0,
        later=later_minutes_per_m2(delivered, cut.finish, rates) * area_m2 * minute,
        change=where(facts.band.mounted, 0.0, rates.change_min * minute / cut.count),
        power=power_W * cut_time_s / 3.6e6 * rates.power_kWh,
    )
