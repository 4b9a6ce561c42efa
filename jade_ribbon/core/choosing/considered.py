"""One job on a saw that is only considered, against the saw one has."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from jade_ribbon.core.choosing.choose import CLOSE_SHARE
from jade_ribbon.core.quantities.words import figure

Stands = Literal["cheaper", "dearer", "same", "only_new", "only_own", "neither"]


SAID: Mapping[Stands, str] = {
    "cheaper": "cheaper",
    "dearer": "dearer",
    "same": "about the same",
    "only_new": "only this one can",
    "only_own": "it cannot",
    "neither": "neither can",
}


@dataclass(frozen=True)
class Against:
    """How a considered saw stands to one's own in a job, and what all its pieces would save."""

    stands: Stands
    saved: float | None
    """Money over the pieces of the job; None unless both saws do it."""


def against_own(considered: float | None, own: float | None, pieces: int) -> Against:
    """Cost a piece on either saw, None where it cannot: costs within a tenth are the same.

    >>> against_own(1.0, 2.0, 10)
    Against(stands='cheaper', saved=10.0)
    >>> against_own(1.0, None, 10).stands
    'only_new'
    """
    if considered is None or own is None:
        only: Stands = "only_new" if considered is not None else "only_own"
        return Against("neither" if considered is None and own is None else only, None)
    saved = (own - considered) * pieces
    if abs(own - considered) <= CLOSE_SHARE * max(own, considered):
        return Against("same", saved)
    return Against("cheaper" if saved > 0.0 else "dearer", saved)


def summed(found: Sequence[Against], currency: str) -> str:
    """What all jobs together say of having it too: each job goes where it costs least.

    >>> summed([Against("cheaper", 10.0), Against("dearer", -90.0)], "€")
    'Of 2 jobs it would take over 1, and save some € 10 on it; the rest stay where they are.'
    """
    if not found:
        return "No job to ask it with yet: write some on Plan first."
    of = "Of one job" if len(found) == 1 else f"Of {len(found)} jobs"
    new = sum(a.stands == "only_new" for a in found)
    taken = [a.saved or 0.0 for a in found if a.stands == "cheaper"]
    words = []
    if new:
        words.append(f"{of} {new} can be done on it only.")
    if taken:
        on = "it" if len(taken) == 1 else "them"
        words.append(
            f"{of} it would take over {len(taken)}, and save some "
            f"{currency} {figure(sum(taken), 2)} on {on}; the rest stay where they are."
        )
    if not words and all(a.stands == "neither" for a in found):
        return f"{of} it does none, nor do your saws."
    return " ".join(words) or f"{of} it takes over none: what it does, your saws do as well."
