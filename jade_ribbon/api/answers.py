"""Answers that only the interface needs."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Changed:
    """What was deleted can be brought back with this change."""

    change_id: int


@dataclass(frozen=True)
class Started:
    """The id of what was opened."""

    id: int
