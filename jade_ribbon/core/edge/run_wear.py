"""What a logged run did to its band, whether or not the cut was wise."""

from dataclasses import dataclass

from jade_ribbon.core.bands.cut_wear import wear_factor
from jade_ribbon.core.bands.facts import BandFacts, band_facts
from jade_ribbon.core.bands.reach import least_bite_mm, reachable_stress
from jade_ribbon.core.bands.speed_choice import SpeedChoice, speed_range
from jade_ribbon.core.edge.shop_life import to_wood_metres
from jade_ribbon.core.job import Candidate, Job
from jade_ribbon.core.mechanics.bending import bending_fatigue
from jade_ribbon.core.mechanics.cutting import bite, gullet_fill
from jade_ribbon.core.mechanics.wear import BITE_EXPONENT, contact_length, fouling
from jade_ribbon.core.quantities.errors import InputError


@dataclass(frozen=True)
class RunWear:
    """Contact metres, equivalent metres of the steel's wood life, gum and bending shares."""

    contact_m: float
    equivalent_m: float
    fouling_gain: float
    bending_share: float
    bite_mm: float
    hot: bool


def run_wear(band: Candidate, job: Job, *, feed_m_min: float, speed_m_s: float) -> RunWear:
    """Wear of one run of `job.cut` (length x count) at the feed and speed that were run."""
    facts = band_facts(band, job)
    material, cut = job.cut.material, job.cut
    contact = contact_length(
        cut_length_mm=cut.at_full_chord_mm * cut.count,
        height_mm=cut.mean_height_mm,
        feed_m_min=feed_m_min,
        speed_m_s=speed_m_s,
        band_length_mm=facts.length_mm,
        pitch_mm=facts.pitch_mm,
        abrasiveness=material.abrasiveness,
        bite_exponent=0.0 if material.is_metal else BITE_EXPONENT,
    )
    chip = bite(feed_m_min=feed_m_min, speed_m_s=speed_m_s, pitch_mm=facts.pitch_mm).bite_mm
    filled = gullet_fill(
        bite_mm=chip, height_mm=cut.loaded_height_mm, gullet_area_mm2=facts.gullet_area_mm2
    )
    hot = chip < least_bite_mm(facts, job) * (1.0 - 1e-9)
    accepted = speed_range(facts.steel, material)
    speed = SpeedChoice(speed_m_s, "", accepted, over_most=speed_m_s > accepted.most_m_s * 1.02)
    floor = feed_m_min * least_bite_mm(facts, job) / chip
    factor = wear_factor(facts, job, speed, feed_m_min=feed_m_min, floor_m_min=floor)
    return RunWear(
        contact_m=contact.contact_m,
        equivalent_m=to_wood_metres(
            contact.equivalent_contact_m * factor, steel_key=band.steel, material=material
        ),
        fouling_gain=fouling(
            gum_factor=material.gum_factor,
            gullet_share=min(filled, 1.0),
            contact_m=contact.contact_m,
        ),
        bending_share=_bending_share(facts, job, speed_m_s, contact.cutting_time_s),
        bite_mm=chip,
        hot=hot,
    )


def _bending_share(facts: BandFacts, job: Job, speed_m_s: float, time_s: float) -> float:
    """Share of the bending life a run takes; a band over its strength is spent by any run."""
    target = facts.stress_target_MPa or facts.steel.tension_wood_target_MPa
    reach = reachable_stress(facts, job)
    try:
        hours = bending_fatigue(
            tension_stress_MPa=min(target, reach),
            thickness_mm=facts.band.thickness_mm,
            smallest_wheel_diameter_mm=job.saw.smallest_wheel_mm,
            wheels=job.saw.wheels,
            band_length_mm=facts.length_mm,
            speed_m_s=speed_m_s,
            ultimate_MPa=facts.steel.uts_MPa,
            endurance_amplitude_MPa=facts.steel.fatigue_amp_1e7_MPa,
            basquin_k=facts.steel.basquin_k,
            notch_factor=1.0,
        ).running_hours
    except InputError:
        return 1.0
    return time_s / 3600.0 / hours
