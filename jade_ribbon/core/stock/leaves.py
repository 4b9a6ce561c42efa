"""Leaves of one billet that are opened as pairs: which belong together, which way each opens."""

from dataclasses import dataclass
from typing import Literal

from jade_ribbon.core.quantities.errors import refuse


@dataclass(frozen=True)
class Leaf:
    """A leaf as sawn, counted from the marked face, with the face it shows once opened."""

    number: int
    pair: int
    shows: Literal["face", "back"]
    """The side that was toward the marked face, or away from it."""
    single: bool
    """The last of an odd set: it has no mirror."""


@dataclass(frozen=True)
class MatchedSet:
    """Leaves in order, and the width of the panel they make with their joints planed, mm."""

    leaves: tuple[Leaf, ...]
    panel_width_mm: float


def matched_set(count: int, *, height_mm: float, joint_loss_mm: float) -> MatchedSet:
    """Neighbours open like a book: the kerf between them shows on both.

    Leaf 1 shows its back, leaf 2 its face, and so on: the two sides of one cut mirror each other.
    Each joint takes its loss off both edges that meet, mm each. InputError for a joint that takes
    a whole leaf.

    Source: plane geometry, docs/model "Stock".

    >>> found = matched_set(4, height_mm=185, joint_loss_mm=1.5)
    >>> [leaf.shows for leaf in found.leaves], found.panel_width_mm
    (['back', 'face', 'back', 'face'], 731.0)
    """
    if 2.0 * joint_loss_mm >= height_mm:
        words = f"{joint_loss_mm:g} takes the whole leaf; accepted: under {height_mm / 2.0:g}"
        raise refuse("joint_loss_mm", words, joint_loss_mm)
    leaves = tuple(
        Leaf(
            number=i + 1,
            pair=i // 2 + 1,
            shows="back" if i % 2 == 0 else "face",
            single=i % 2 == 0 and i == count - 1,
        )
        for i in range(count)
    )
    width = count * height_mm - 2.0 * max(count - 1, 0) * joint_loss_mm
    return MatchedSet(leaves, width)
