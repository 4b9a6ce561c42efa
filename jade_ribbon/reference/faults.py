"""Tables of fault finding: causes, what shows them, checks and what they tell, what records say.

Chances are a mechanic's judgement, good to a factor of 1.5; priors to 2; minutes to 1.5.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from jade_ribbon.reference.tables import keyed, rows_of

Where = Literal["band", "saw", "setting", "stock", "operator"]
Harm = Literal["note", "caution", "stop"]
Sense = Literal["see", "hear", "feel", "measure"]
Needs = Literal[
    "nothing",
    "light",
    "rule",
    "scrap",
    "gloves",
    "feeler",
    "square",
    "straightedge",
    "caliper",
    "gauge",
    "microphone",
    "tachometer",
    "wax",
]


@dataclass(frozen=True)
class Cause:
    """A cause of trouble: its prior, where it sits, its remedy and how badly it can hurt."""

    key: str
    name: str
    where: Where
    prior: float
    remedy: str
    remedy_minutes: float
    remedy_opens: str
    harm: Harm


@dataclass(frozen=True)
class SignText:
    """A sign of trouble, with the difference from its neighbour; `leak`: seen without a cause."""

    key: str
    name: str
    look: str
    sense: Sense
    leak: float


@dataclass(frozen=True)
class Shows:
    """How likely a cause, alone and plainly there, shows a sign."""

    cause: str
    symptom: str
    chance: float


@dataclass(frozen=True)
class Check:
    """A check: what to do, minutes with isolating and starting again, what it needs, answers."""

    key: str
    do: str
    minutes: float
    needs: Needs
    isolate: bool
    runs: bool
    opens: str
    outcomes: tuple[str, ...]
    outcome_words: tuple[str, ...]


@dataclass(frozen=True)
class OutcomeChance:
    """How likely an answer is given a cause, or none of those that the check speaks of."""

    check: str
    outcome: str
    cause: str
    chance: float


@dataclass(frozen=True)
class RecordEvidence:
    """What a reading of the records does to the odds of a cause, on a scale from low to high."""

    key: str
    cause: str
    reads: str
    at_low: float
    odds_low: float
    at_high: float
    odds_high: float
    words: str


@lru_cache
def causes() -> Mapping[str, Cause]:
    """The listed causes by key, in the order of the table."""
    return keyed("faults/causes", Cause)


@lru_cache
def sign_texts() -> Mapping[str, SignText]:
    """The signs by key."""
    return keyed("faults/symptoms", SignText)


@lru_cache
def shown_by() -> tuple[Shows, ...]:
    """What shows which cause; a pair left out is never seen."""
    return tuple(rows_of("faults/cause_symptom", Shows))


@lru_cache
def checks() -> Mapping[str, Check]:
    """The checks by key, short ones first."""
    return keyed("faults/checks", Check)


@lru_cache
def outcome_chances() -> tuple[OutcomeChance, ...]:
    """Answers given causes."""
    return tuple(rows_of("faults/check_outcome", OutcomeChance))


@lru_cache
def record_evidence() -> tuple[RecordEvidence, ...]:
    """What the records say, row by row."""
    return tuple(rows_of("faults/record_evidence", RecordEvidence))


@lru_cache
def instruments() -> tuple[Needs, ...]:
    """What checks need that a shop may not have, in the order of the checks."""
    found = dict.fromkeys(c.needs for c in checks().values())
    return tuple(n for n in found if n != "nothing")
