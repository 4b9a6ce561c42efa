"""How each operation reads as a sentence, what it uses, and what it leaves empty."""

import re
from collections.abc import Mapping
from dataclasses import MISSING, dataclass, fields
from functools import cache
from typing import Any

from jade_ribbon.core.job import Cut, Finish, Operation
from jade_ribbon.reference.tables import SentencePart, operations, sentence_parts

ENDING = ", to {tolerance_mm}, on the {saw}, by {rules}."
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


@dataclass(frozen=True)
class OperationSentence:
    """An operation: its name, its sentence of words and live parts, what it empties."""

    key: Operation
    name: str
    parts: tuple[str | SentencePart, ...]
    empties: dict[str, Any]
    takes_outline: bool


def _parts(template: str) -> tuple[str | SentencePart, ...]:
    """Words and live parts in order; a part after a colon says the same field otherwise."""
    found: list[str | SentencePart] = []
    last = 0
    for live in _LIVE.finditer(template):
        if live.start() > last:
            found.append(template[last : live.start()])
        found.append(sentence_parts()[live.group(2) or live.group(1)])
        last = live.end()
    return (*found, template[last:]) if last < len(template) else tuple(found)


def said_fields(operation: Operation) -> frozenset[str]:
    """Fields that stand in an operation's sentence."""
    parts = _parts(operations()[operation].sentence + ENDING)
    return frozenset(p.field for p in parts if isinstance(p, SentencePart))


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
