"""One job on a saw that is only considered, against the saw one has."""

from dataclasses import dataclass
from typing import Literal

from jade_ribbon.core.choosing.choose import CLOSE_SHARE

Stands = Literal["cheaper", "dearer", "same", "only_new", "only_own", "neither"]


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


def summed(found: list[Against], own_money: float) -> str:
    """What all jobs together say of buying it."""
    new = sum(a.stands == "only_new" for a in found)
    both = [a.saved for a in found if a.saved is not None]
    if not found:
        return "No job to ask it with yet: write some on Plan first."
    words = [f"{new} of {len(found)} jobs can be done on it only."] if new else []
    if both:
        saved = sum(both)
        share = abs(saved) / own_money if own_money > 0.0 else 0.0
        if share <= CLOSE_SHARE:
            words.append(f"Over the {len(both)} that both do, it costs about the same.")
        else:
            less = "less" if saved > 0.0 else "more"
            words.append(f"Over the {len(both)} that both do, it costs {100 * share:.0f} % {less}.")
    elif not new:
        words.append("It does none of these jobs.")
    return " ".join(words)
