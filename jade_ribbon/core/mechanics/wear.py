"""Metres of contact, and how far along its life an edge is."""

from dataclasses import dataclass

from jade_ribbon.core.mechanics.cutting import bite
from jade_ribbon.core.quantities.arrays import exp, least, most
from jade_ribbon.core.quantities.formula_limits import within_limits

USUAL_BITE_MM = 0.012
"""Bite at which an edge wears as its life in metres says."""
BITE_TERM_LOW = 2.0 / 3.0
BITE_TERM_HIGH = 4.0
BITE_EXPONENT = 0.5
"""Exponent of the bite term in woods, plastics and panels; 0 in metals."""

LIFE_M_CARBON_OAK = 8000.0
"""Metres of contact to dull a plain carbon edge in clean dry oak."""
RESHARPEN_FACTOR = 0.9
"""Each resharpening starts a life a tenth shorter."""
FOULING_LENGTH_M = 1500.0
FOULING_DULLNESS = 0.4
"""While fully fouled an edge cuts as if this much duller."""
HOT_WEAR = 2.0
"""A hot cut (under the least bite) wears twice as fast."""
METAL_OVERSPEED_EXPONENT = {"carbon": 7.0, "bimetal": 6.0}
METAL_OVERSPEED_EXPONENT_HARD = 3.0


@dataclass(frozen=True)
class ContactLength:
    cutting_time_s: float
    contact_m: float
    bite_mm: float
    equivalent_contact_m: float


def bite_term(*, bite_mm: float, bite_exponent: float) -> float:
    """Growth of wear with bite, (h/0.012)^x held to 2/3..4: 1 when the exponent is 0.

    Source: kinematics of a tooth in the cut; docs/model "Metres of contact".
    """
    term = (bite_mm / USUAL_BITE_MM) ** bite_exponent
    return least(most(term, BITE_TERM_LOW), BITE_TERM_HIGH)


@within_limits
def contact_length(
    *,
    cut_length_mm: float,
    height_mm: float,
    feed_m_min: float,
    speed_m_s: float,
    band_length_mm: float,
    pitch_mm: float,
    abrasiveness: float,
    bite_exponent: float,
) -> ContactLength:
    """Metres each tooth has rubbed, and their equivalent in clean dry oak.

    In the time of the cut the band passes sV/L times and each tooth rubs the height each
    time; times abrasiveness times the bite term. Source: docs/model, "Metres of contact".
    """
    time = cut_length_mm / 1000.0 / feed_m_min * 60.0
    passes = time * speed_m_s * 1000.0 / band_length_mm
    contact = passes * height_mm / 1000.0
    chip = bite(feed_m_min=feed_m_min, speed_m_s=speed_m_s, pitch_mm=pitch_mm).bite_mm
    factor = abrasiveness * bite_term(bite_mm=chip, bite_exponent=bite_exponent)
    return ContactLength(time, contact, chip, contact * factor)


def nominal_life_m(*, rel_edge_life: float, sharpenings: int = 0) -> float:
    """Prior life of an edge in equivalent metres, shorter by a tenth each resharpening.

    Source: reference table steels; docs/model "Life".

    >>> nominal_life_m(rel_edge_life=1.3)
    10400.0
    """
    return float(LIFE_M_CARBON_OAK * rel_edge_life * RESHARPEN_FACTOR**sharpenings)


def fouling(*, gum_factor: float, gullet_share: float, contact_m: float) -> float:
    """How gummed the band is after these metres since cleaning: 0 clean .. 1.

    Source: first-order growth to full; judgement its length, twice or half; docs/model "Gum".
    """
    return 1.0 - exp(-gum_factor * gullet_share * contact_m / FOULING_LENGTH_M)


def fouling_added(before: float, gain: float) -> float:
    """Fouling after a further run on top of what is there: clean shares multiply.

    Source: first-order growth to full; docs/model "Gum".

    >>> round(fouling_added(0.1, 0.1), 2)
    0.19
    """
    return 1.0 - (1.0 - before) * (1.0 - gain)


def effective_dullness(*, edge_dullness: float, fouled: float) -> float:
    """Dullness the cut feels: wear plus what gum adds until the band is cleaned.

    Source: judgement, gum as half a dull edge; docs/model "Gum".
    """
    return edge_dullness + FOULING_DULLNESS * fouled
