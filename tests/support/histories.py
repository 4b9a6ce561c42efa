"""Shared by the tests of several rooms: histories."""

import dataclasses
from datetime import UTC, datetime, timedelta

from jade_ribbon.core.edge.history import EventFact, RunFact
from jade_ribbon.core.job import Candidate

K07 = Candidate("K-07", 19.0, 0.81, 2.0, 2.0, "hook", "silicon_steel", length_mm=3360.0)

T0 = datetime(2026, 1, 1, tzinfo=UTC)


def run(day: int, metres: float = 100.0, gum: float = 0.1) -> RunFact:
    return RunFact(T0 + timedelta(days=day), metres, metres, gum, 0.01)


def event(day: int, kind: str, detail: str = "", value: float | None = None) -> EventFact:
    return EventFact(T0 + timedelta(days=day), kind, detail, value)


def seen(fact: RunFact, *signs: str, counts: bool = True) -> RunFact:
    """A run with what was seen at it, or one that waits to be confirmed."""
    return dataclasses.replace(fact, signs=signs, counts=counts)
