"""Chances as people say them, in words and in per cent: the same everywhere."""

from dataclasses import dataclass

SURE = 0.97
WORDS = (
    (SURE, "almost certainly"),
    (0.85, "about 9 in 10"),
    (0.7, "about 3 in 4"),
    (0.6, "about 2 in 3"),
    (0.4, "about an even chance"),
    (0.3, "about 1 in 3"),
    (0.17, "about 1 in 4"),
    (0.05, "about 1 in 10"),
    (0.0, "hardly ever"),
)
"""From so large a chance on it is called so."""
LEAST, MOST = 0.01, 0.99
"""Nobody knows a chance nearer to never or always than this."""
UNDER, OVER = "under 1 %", "over 99 %"


@dataclass(frozen=True)
class ChanceEnds:
    """Where a chance in per cent ends, and what is said beyond: for the interface."""

    least: float
    most: float
    under: str
    over: str


ENDS = ChanceEnds(LEAST, MOST, UNDER, OVER)


def chance_words(chance: float) -> str:
    """A chance as people say it.

    >>> chance_words(0.73), chance_words(0.01)
    ('about 3 in 4', 'hardly ever')
    """
    return next(words for least, words in WORDS if chance >= least)


def chance_percent(chance: float) -> str:
    """A chance in whole per cent, never claiming certainty.

    >>> chance_percent(0.999), chance_percent(0.415), chance_percent(0.0)
    ('over 99 %', '42 %', 'under 1 %')
    """
    if chance > MOST:
        return OVER
    return UNDER if chance < LEAST else f"{100.0 * chance:.0f} %"
