"""Roughness by look: five drawn classes, against what was asked and what the teeth should leave."""

from dataclasses import dataclass
from typing import Literal

Grade = Literal[1, 2, 3, 4, 5]
NAMES: dict[Grade, str] = {
    1: "smooth as planed",
    2: "fine marks, felt by a nail",
    3: "even tooth marks",
    4: "coarse marks",
    5: "torn, woolly or burnt",
}
PLACES: dict[Grade, int] = {1: 3, 2: 2, 3: 1, 4: 0, 5: -1}
"""Of each grade in the classes of finish, from rough (0) to show (3); torn is under rough."""
ROUGH_FACE, TORN_FACE = "rough_face", "torn_face"


@dataclass(frozen=True)
class RoughnessClass:
    """A drawn class, by its grade."""

    grade: Grade
    name: str


def classes() -> tuple[RoughnessClass, ...]:
    """All five, the smoothest first."""
    return tuple(RoughnessClass(grade, name) for grade, name in NAMES.items())


@dataclass(frozen=True)
class RoughnessSays:
    """A face's class against the finish asked and what these teeth leave at this bite keen.

    `over` counts the classes it is coarser than they leave; `sign` is what it says of the edge.
    """

    grade: Grade
    enough: bool
    over: int
    sign: str
    words: str


def roughness_says(grade: Grade, *, asked_place: int, left_place: int) -> RoughnessSays:
    """Coarser than the teeth leave at this bite speaks of the edge; else of the bite or the teeth.

    Places count from rough (0) to show (3). A smooth face says nothing for the edge: soft wood is
    smooth under a tired one.

    Source: docs/model "The face"; finish classes of the forms table.

    >>> roughness_says(4, asked_place=1, left_place=2).over
    2
    """
    place = PLACES[grade]
    over, enough = max(0, left_place - place), place >= asked_place
    sign = TORN_FACE if over >= 2 else ROUGH_FACE if over == 1 else ""
    if over:
        classes_ = "a class" if over == 1 else f"{over} classes"
        words = f"Coarser by {classes_} than these teeth leave at this bite: the edge speaks of it."
    elif enough:
        words = "As asked."
    else:
        words = "As these teeth leave it: ease the feed, or take finer ones."
    return RoughnessSays(grade, enough, over, sign, words)
