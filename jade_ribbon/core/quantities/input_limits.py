"""What a shop may enter of each quantity: one range, read by every form, file and reading."""

from collections.abc import Mapping
from dataclasses import dataclass

from jade_ribbon.reference.quantities import Range, ranges


@dataclass(frozen=True)
class Limit:
    """In an annotation of a figure: by which quantity it is held, where its name does not say."""

    quantity: str


ENTRIES: Mapping[str, Range] = ranges("entry")
