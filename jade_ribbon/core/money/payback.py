"""How soon something that spares bands pays for itself."""

from dataclasses import dataclass
from typing import Literal

from jade_ribbon.core.mechanics.wear import LIFE_M_CARBON_OAK
from jade_ribbon.core.quantities.formula_limits import finite
from jade_ribbon.reference.care import Accessory

UNSURE = 1.6
"""What an accessory saves is a guess: so many times more or less."""
MONTHS_A_YEAR = 12.0
LASTS_MONTHS = 120.0
"""What takes longer than this to pay does not: it is worn out by then."""
MONTHS_TOLD = 36.0
"""A longer time is told in years."""

Verdict = Literal["pays", "never", "cannot_tell"]


@dataclass(frozen=True)
class PaybackFound:
    """Money a year that it saves, within its doubt, and months until it has paid for itself.

    `months_high` None: at the low end of its doubt it never does.
    """

    saved_low: float
    saved_high: float
    months_low: float | None
    months_high: float | None
    verdict: Verdict


def payback(*, price: float, saved_per_year: float, costs_per_year: float) -> PaybackFound:
    """What is saved a year, less what using it takes, against its price.

    Source: simple payback; judgement what is saved, twice or half; docs/model "Payback".

    >>> payback(price=1000, saved_per_year=0, costs_per_year=10).verdict
    'never'
    """
    low, high = (saved_per_year * share - costs_per_year for share in (1.0 / UNSURE, UNSURE))
    finite(saved=high)

    def months(saved: float) -> float | None:
        return MONTHS_A_YEAR * price / saved if saved > 0.0 else None

    quick, slow = months(high), months(low)
    surely = slow is not None and slow <= LASTS_MONTHS
    perhaps = quick is not None and quick <= LASTS_MONTHS
    verdict: Verdict = "pays" if surely else "cannot_tell" if perhaps else "never"
    return PaybackFound(low, high, quick, slow, verdict)


LEAST_WEEKS = 8.0
"""A shorter record is no year's worth."""
EDGE_LOST_AT_A_STRIKE = 0.5
"""A strike takes half of an edge: a guess."""
WEEKS_A_YEAR = 52.0


@dataclass(frozen=True)
class Yearly:
    """What the record of some weeks comes to in a year: money in edges, m2, edges used, strikes."""

    edge_money: float
    area_m2: float
    edges: float
    strikes: float


def yearly(
    *, weeks: float, edge_money: float, area_m2: float, equivalent_m: float, strikes: int
) -> Yearly | None:
    """A record as a year's worth; None of one too short to tell."""
    if weeks < LEAST_WEEKS:
        return None
    scale = WEEKS_A_YEAR / weeks
    return Yearly(
        edge_money * scale,
        area_m2 * scale,
        equivalent_m / LIFE_M_CARBON_OAK * scale,
        strikes * scale,
    )


def saved_by(known: Accessory, year: Yearly) -> float:
    """Money a year that an accessory saves in edges: its share of wear, and of strikes."""
    strike = EDGE_LOST_AT_A_STRIKE * year.edge_money / max(year.edges, 1.0)
    return known.wear_saved * year.edge_money + known.strikes_saved * year.strikes * strike


def words_of(found: PaybackFound | None, weeks: float) -> str:
    """What is said of it; None: the record is too short."""
    if found is None:
        return f"Cannot tell: the record holds {weeks:.0f} weeks; {LEAST_WEEKS:.0f} are needed."
    if found.months_low is None:
        return "By this shop's record it never pays for itself from bands alone."
    quick = _told(found.months_low)
    if found.verdict == "never":
        return f"It does not pay from bands alone: {' '.join(quick)} at the best."
    if found.months_high is None:
        return f"In {' '.join(quick)} at the best; at the worst never."
    if found.verdict == "cannot_tell":
        return f"In {' '.join(quick)} at the best; at the worst not before it is worn out."
    slow = _told(found.months_high)
    first = quick[0] if quick[1] == slow[1] else " ".join(quick)
    return f"In {first} to {' '.join(slow)}, from bands alone."


def _told(months: float) -> tuple[str, str]:
    """The number and the unit that a length of time is told in."""
    if months > MONTHS_TOLD:
        return f"{months / MONTHS_A_YEAR:.0f}", "years"
    return f"{months:.0f}", "months"
