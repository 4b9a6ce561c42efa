"""How each operation reads as a sentence, what it uses, and what it leaves empty."""

import re
from collections.abc import Mapping
from dataclasses import MISSING, dataclass, fields
from functools import cache
from typing import Any

from jade_ribbon.core.job import Cut, Finish, Operation
from jade_ribbon.reference.tables import SentencePart, operations, sentence_parts

ENDING = "[, to {tolerance_mm}], on the {saw}[, by {rules}]."
"""What every sentence ends with."""
ALWAYS = ("finish", "tolerance_mm")
"""Fields that may be left out of a cut, and that every sentence says."""
EMPTY: Mapping[str, Any] = {
    f.name: f.default
    for f in fields(Cut)
    if f.default is not MISSING and f.name not in (*ALWAYS, "stretches")
} | {"stretches": [], "slice_mm": None, "billet_mm": None}
"""Fields that only some operations use, each with what it is when it is not at work."""
FOLLOWED = frozenset(("min_radius_mm", "stretches"))
"""What an outline tells of a path that is curved."""
FINISH_WORDS: Mapping[Finish, str] = {
    "rough": "left rough",
    "plane": "to be planed",
    "sand": "ready to sand",
    "show": "finished off the saw",
}
_LIVE = re.compile(r"\{(\w+)(?::(\w+))?\}")
_FOLDED = re.compile(r"\[([^]]*)\]")


@dataclass(frozen=True)
class FoldedPart:
    """A live part with the words about it, said once it is not as usual or somebody asks."""

    lead: str
    part: SentencePart
    tail: str
    usual: Any


SentenceBit = str | SentencePart | FoldedPart


@dataclass(frozen=True)
class OperationSentence:
    """An operation: its name, its sentence of words and live parts, what it empties."""

    key: Operation
    name: str
    parts: tuple[SentenceBit, ...]
    empties: dict[str, Any]
    takes_outline: bool


def _live(template: str) -> tuple[str | SentencePart, ...]:
    """Words and live parts in order; a part after a colon says the same field otherwise."""
    found: list[str | SentencePart] = []
    last = 0
    for live in _LIVE.finditer(template):
        if live.start() > last:
            found.append(template[last : live.start()])
        found.append(sentence_parts()[live.group(2) or live.group(1)])
        last = live.end()
    return (*found, template[last:]) if last < len(template) else tuple(found)


def _folded(clause: str) -> FoldedPart:
    """A clause in brackets: one live part and the words about it."""
    bits = _live(clause)
    (part,) = (bit for bit in bits if isinstance(bit, SentencePart))
    lead, tail = _LIVE.split(clause)[0], _LIVE.split(clause)[-1]
    return FoldedPart(lead, part, tail, EMPTY.get(part.field, part.start))


def _parts(template: str) -> tuple[SentenceBit, ...]:
    """A sentence's words, parts and folded ones in order."""
    said = _FOLDED.split(template)
    found = [_live(bit) if n % 2 == 0 else (_folded(bit),) for n, bit in enumerate(said)]
    return tuple(bit for bits in found for bit in bits)


def said_parts(operation: Operation) -> tuple[SentencePart, ...]:
    """Live parts of an operation's sentence, folded ones among them."""
    bits = _parts(operations()[operation].sentence + ENDING)
    parts = (bit.part if isinstance(bit, FoldedPart) else bit for bit in bits)
    return tuple(part for part in parts if isinstance(part, SentencePart))


def said_fields(operation: Operation) -> frozenset[str]:
    """Fields that stand in an operation's sentence."""
    return frozenset(part.field for part in said_parts(operation))


def used_fields(operation: Operation) -> frozenset[str]:
    """Fields an operation uses: those its sentence says, and those a file may give beside."""
    followed = FOLLOWED if operations()[operation].curved else frozenset()
    return said_fields(operation) | frozenset(operations()[operation].also_uses) | followed


def unsaid(operation: Operation) -> dict[str, Any]:
    """What choosing an operation empties: a field its sentence does not say must not be at work.

    An outline's radius stays where the operation follows one.
    """
    said = said_fields(operation)
    if operations()[operation].curved:
        said |= FOLLOWED
    return {field: empty for field, empty in EMPTY.items() if field not in said}


def emptied(operation: Operation, fields: Mapping[str, Any]) -> dict[str, Any]:
    """The fields given that this operation has no use for, as they must be: empty."""
    used = used_fields(operation)
    return {
        field: EMPTY[field]
        for field, value in fields.items()
        if field in EMPTY and field not in used and value != EMPTY[field]
    }


@cache
def operation_sentences() -> tuple[OperationSentence, ...]:
    """Every operation with its sentence, in the order of the table."""
    return tuple(
        OperationSentence(
            key=row.key,
            name=row.name,
            parts=_parts(row.sentence + ENDING),
            empties=unsaid(row.key),
            takes_outline=row.curved,
        )
        for row in operations().values()
    )
