"""A diagnosis in words: how likely, what spoke for a cause and what against it."""

import math
from dataclasses import dataclass

from jade_ribbon.core.faults.diagnosis import HALF, SLIGHT, Diagnosis, Piece
from jade_ribbon.core.faults.readings import record_words
from jade_ribbon.core.quantities.words import Said
from jade_ribbon.reference.faults import causes, checks, record_evidence, sign_texts

SAYS = math.log(1.25)
"""A piece that changes the odds by less than a quarter is not worth a line."""

HARDLY = 0.05
"""Odds changed by no more are hardly moved."""


def sign_words(sign: str, degree: float) -> str:
    """A sign as it was told: clear, slight, or looked for and not there.

    >>> sign_words("tick", 0.75)
    'Tick each turn, slight'
    """
    name = sign_texts()[sign].name
    if degree < HALF:
        return f"{name}: looked for, not there"
    return f"{name}, slight" if degree <= SLIGHT else f"{name}, clear"


def answer_words(check: str, outcome: str) -> str:
    """A check's answer in the words of its table."""
    row = checks()[check]
    return row.outcome_words[row.outcomes.index(outcome)]


def reading_words(reading: str, value: float, cause: str = "") -> Said:
    """What a reading of the records says of a cause, or of the first that it speaks of."""
    rows = [r for r in record_evidence() if r.reads == reading]
    return record_words(next((r for r in rows if r.cause == cause), rows[0]), value)


def piece_words(piece: Piece, cause: str = "") -> Said:
    """One thing known, in words, as it speaks of a cause."""
    if piece.kind == "sign":
        return sign_words(piece.key, float(piece.value))
    if piece.kind == "answer":
        return f"Check: {answer_words(piece.key, str(piece.value))}"
    if piece.kind == "remedy":
        return f"Its remedy was done, and it is still there: {causes()[piece.key].name.lower()}"
    return reading_words(piece.key, float(piece.value), cause)


@dataclass(frozen=True)
class Spoke:
    """What a piece did to the odds of a cause: times so much; over 1 for it, under 1 against."""

    kind: str
    key: str
    words: Said
    times: float


@dataclass(frozen=True)
class ForAndAgainst:
    """What spoke for a cause and what against it, the strongest first."""

    spoke_for: tuple[Spoke, ...]
    against: tuple[Spoke, ...]


def for_and_against(diagnosis: Diagnosis, cause: str) -> ForAndAgainst:
    """Pieces that changed a cause's odds by a quarter or more, by leaving each out in turn."""
    moved = sorted(diagnosis.moved(cause), key=lambda m: -abs(m[1]))
    spoke = [
        Spoke(p.kind, p.key, piece_words(p, cause), math.exp(by))
        for p, by in moved
        if abs(by) >= SAYS
    ]
    return ForAndAgainst(
        tuple(s for s in spoke if s.times > 1.0), tuple(s for s in spoke if s.times < 1.0)
    )
