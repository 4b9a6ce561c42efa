"""How soon something that spares bands pays for itself."""

from dataclasses import dataclass
from typing import Literal

from jade_ribbon.core.quantities.fields import finite

UNSURE = 1.6
"""What an accessory saves is a guess: so many times more or less."""

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

    Source: ours, docs/model "Payback".

    >>> payback(price=1000, saved_per_year=0, costs_per_year=10).verdict
    'never'
    """
    low, high = (saved_per_year * share - costs_per_year for share in (1.0 / UNSURE, UNSURE))
    finite(saved=high)

    def months(saved: float) -> float | None:
        return 12.0 * price / saved if saved > 0.0 else None

    quick, slow = months(high), months(low)
    verdict: Verdict = "pays" if slow is not None else "never" if quick is None else "cannot_tell"
    return PaybackFound(low, high, quick, slow, verdict)
