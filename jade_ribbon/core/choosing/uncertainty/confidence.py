"""How sure a choice is, in words: chances as people say them, figures no finer than they are."""

import math
from dataclasses import dataclass

from jade_ribbon.core.choosing.choose import Choice
from jade_ribbon.core.choosing.lot import Lot
from jade_ribbon.core.choosing.uncertainty.best_measurement import Surer
from jade_ribbon.core.choosing.uncertainty.chances import Between, Chances
from jade_ribbon.core.quantities.chances import SURE, chance_words

MUCH_SHARE = 0.1
"""A figure that explains less of a difference than this settles nothing by itself."""


@dataclass(frozen=True)
class Sure:
    """What Plan says of its own sureness: what decides, what to measure and where, the guesses."""

    too_close: str
    settles: str
    surer: str
    surer_place: str
    surer_band_id: int | None
    guesses: str


def lot_words(lot: Lot) -> str:
    """The bands a lot takes, no finer than they are known."""
    forecast = lot.forecast
    if forecast.chance_none >= SURE:
        return "one edge does them all"
    if forecast.changes_mean < 1.0:
        return f"a second band needed: {chance_words(1.0 - forecast.chance_none)}"
    return f"about {lot.bands:.0f} bands, one after another"


def money_between(spread: Between) -> str:
    """A range of money, in steps no finer than it is wide.

    >>> money_between(Between(2.713, 4.667)), money_between(Between(12.31, 12.34))
    ('2.7 to 4.7', '12.31 to 12.34')
    """
    return _money(spread, _places(spread))


def _places(*spreads: Between) -> int:
    """Decimals that money is worth saying to, so wide as it is."""
    quarter = max(spread.high - spread.low for spread in spreads) / 4.0
    return 2 if quarter < 0.01 else min(2, max(0, -math.floor(math.log10(quarter))))


def _money(spread: Between, places: int) -> str:
    low, high = (f"{value:.{places}f}" for value in (spread.low, spread.high))
    return low if low == high else f"{low} to {high}"


def too_close_words(choice: Choice, found: Chances) -> str:
    """That another band may as well be the cheaper; '' when it is not so."""
    if found.close_to is None or choice.best is None:
        return ""
    other = choice.ranked[found.close_to].evaluation.facts.band.label
    mine, its = found.bands[0].cost, found.bands[found.close_to].cost
    places = _places(mine, its)
    return (
        f"Too close to call against {other}: {_money(mine, places)} a piece against "
        f"{_money(its, places)}."
    )


def _settles_words(found: Chances) -> str:
    if found.settles is None or found.settles.share < MUCH_SHARE or found.close_to is None:
        return ""
    return f"What decides between them most is the {found.settles.name}."


def _surer_words(surer: Surer | None, currency: str) -> str:
    if surer is None:
        return ""
    worth = f"{surer.gain:.0f}" if surer.gain >= 10 else f"{surer.gain:.1g}"
    return (
        f"Surer in {surer.minutes:.0f} min: {surer.do} ({surer.name}). It is worth about "
        f"{currency} {worth} on this job."
    )


def sure(choice: Choice, found: Chances | None, currency: str) -> Sure | None:
    """All that is said of how sure a choice is; None where nothing was chosen."""
    if found is None:
        return None
    guesses = ", ".join(found.guesses)
    return Sure(
        too_close=too_close_words(choice, found),
        settles=_settles_words(found),
        surer=_surer_words(found.surer, currency),
        surer_place=found.surer.place if found.surer is not None else "",
        surer_band_id=found.surer.band_id if found.surer is not None else None,
        guesses=f"Guessed, not from a table: {guesses}." if guesses else "",
    )
