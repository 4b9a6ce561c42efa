"""Cost of a piece: edge, time, kerf, later operation, change-over, power."""

from dataclasses import dataclass

from jade_ribbon.core.bands.facts import BandFacts
from jade_ribbon.core.job import Finish, Job, Rates

FINISH_ORDER: tuple[Finish, ...] = ("rough", "plane", "sand", "show")
"""From roughest to finest."""
FORM_FINISH: dict[int, Finish] = {1: "rough", 2: "plane", 3: "plane", 4: "sand", 5: "show"}
"""Class that a form's finish mark (1..5) leaves at best, before pitch and tips."""
FINE_PITCH_MM = 4.5
"""Pitches up to this leave one class better."""


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
        "plane": min(2.0 * bite_target_mm, bite_max_mm),
        "sand": bite_target_mm,
        "show": 0.6 * bite_target_mm,
    }[finish]


def finish_by_bite(*, bite_mm: float, bite_target_mm: float, bite_max_mm: float) -> Finish:
    """Finest class whose bite ceiling this bite keeps."""
    for finish in reversed(FINISH_ORDER):
        ceiling = bite_ceiling_mm(finish, bite_target_mm=bite_target_mm, bite_max_mm=bite_max_mm)
        if bite_mm <= ceiling * (1.0 + 1e-9):
            return finish
    return "rough"


def finish_by_band(facts: BandFacts) -> Finish:
    """Finest class the teeth leave: the form's mark, one better for fine pitch, hard tips."""
    place = FINISH_ORDER.index(FORM_FINISH[facts.form.finish_1_5])
    place += facts.pitch_mm <= FINE_PITCH_MM
    place += facts.steel.token == "carbide_tipped"
    return FINISH_ORDER[min(place, len(FINISH_ORDER) - 1)]


def delivered_finish(facts: BandFacts, *, bite_mm: float, job: Job) -> Finish:
    """The coarser of what bite and band leave."""
    material = job.cut.material
    by_bite = finish_by_bite(
        bite_mm=bite_mm, bite_target_mm=material.bite_target_mm, bite_max_mm=material.bite_max_mm
    )
    return min(by_bite, finish_by_band(facts), key=FINISH_ORDER.index)


def later_minutes_per_m2(delivered: Finish, asked: Finish, rates: Rates) -> float:
    """Minutes of surfacing per m2 that bring a delivered class to the class asked."""
    steps = {"plane": rates.plane_min_m2, "sand": rates.sand_min_m2, "show": rates.show_min_m2}
    start, end = FINISH_ORDER.index(delivered), FINISH_ORDER.index(asked)
    return sum(steps[FINISH_ORDER[i]] for i in range(start + 1, end + 1))


def piece_cost(
    facts: BandFacts,
    job: Job,
    *,
    cut_time_s: float,
    equivalent_m: float,
    delivered: Finish,
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
        time=cut_time_s / 60.0 * minute,
        kerf=area_m2 * facts.kerf_mm / 1000.0 * rates.timber_m3 if timber else 0.0,
        later=later_minutes_per_m2(delivered, cut.finish, rates) * area_m2 * minute,
        change=0.0 if facts.band.mounted else rates.change_min * minute / cut.count,
        power=power_W * cut_time_s / 3.6e6 * rates.power_kWh,
    )
