"""What a shop may enter of each quantity: one range, read by every form, file and reading."""

from collections.abc import Mapping

from jade_ribbon.reference.quantities import Range, ranges

ENTRIES: Mapping[str, Range] = ranges("entry")
