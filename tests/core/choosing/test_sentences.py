"""Sentences of the operations, and what each empties."""

from typing import Any, get_args

import pytest

from jade_ribbon.core.choosing.sentences import (
    EMPTY,
    FOLLOWED,
    emptied,
    operation_sentences,
    said_fields,
    unsaid,
    used_fields,
)
from jade_ribbon.core.job import (
    DEEP_RESAW_OPERATIONS,
    STRAIGHT_OPERATIONS,
    Cut,
    Operation,
)
from jade_ribbon.formats.job import CutFile
from jade_ribbon.reference.tables import SentencePart, operations, sentence_parts

ALL: tuple[Operation, ...] = get_args(Operation)
CURVED_OPERATIONS = {key for key, row in operations().items() if row.curved}
CUT: dict[str, Any] = {
    "material": "white_oak_dry",
    "height_mm": 60.0,
    "length_mm": 900.0,
    "count": 3,
    "finish": "plane",
}


def test_the_table_and_the_type_name_the_same_operations() -> None:
    assert tuple(operations()) == ALL


def test_straight_deep_and_curved_are_told_once() -> None:
    assert set(DEEP_RESAW_OPERATIONS) <= set(STRAIGHT_OPERATIONS)
    assert not set(STRAIGHT_OPERATIONS) & CURVED_OPERATIONS
    assert DEEP_RESAW_OPERATIONS == ("resaw", "veneer")


@pytest.mark.parametrize("operation", ALL)
def test_every_sentence_says_what_every_cut_has(operation: Operation) -> None:
    always = {"operation", "material", "finish", "saw_id", "rules", "count", "length_mm"}
    assert always | {"height_mm", "tolerance_mm"} <= said_fields(operation)
    row = next(o for o in operation_sentences() if o.key == operation)
    words = "".join(p for p in row.parts if isinstance(p, str))
    assert "{" not in words and words.endswith(".")
    assert row.parts[0] == sentence_parts()["operation"]


def test_parts_stand_for_fields_of_the_cut() -> None:
    fields = {*Cut.__dataclass_fields__, "slice_mm", "billet_mm", "saw_id", "rules"}
    for part in sentence_parts().values():
        assert part.field in fields, part.key
        assert (part.start is None) == (part.kind == "")


@pytest.mark.parametrize("operation", ALL)
def test_choosing_an_operation_empties_only_what_it_does_not_say(operation: Operation) -> None:
    gone = unsaid(operation)
    assert not set(gone) & said_fields(operation)
    left = set(EMPTY) - set(gone)
    assert left <= said_fields(operation) | FOLLOWED
    assert (left >= FOLLOWED) == (operation in CURVED_OPERATIONS)


@pytest.mark.parametrize(
    ("operation", "given", "field"),
    [
        ("resaw", {"wall_mm": 3.0}, "wall_mm"),
        ("rip", {"min_radius_mm": 90.0}, "min_radius_mm"),
        ("bar", {"log_diameter_mm": 300.0}, "log_diameter_mm"),
        ("mill", {"angle_deg": 8.0, "round_stock": True}, "angle_deg"),
    ],
)
def test_a_cut_read_from_outside_obeys_the_table(
    operation: Operation, given: dict[str, Any], field: str
) -> None:
    cut = CutFile.model_validate({**CUT, "operation": operation, **given}, strict=True)
    assert getattr(cut, field) == EMPTY[field]
    assert emptied(operation, given)[field] == EMPTY[field]


def test_what_is_used_unsaid_is_kept() -> None:
    """Round stock is a stop in any hand-fed cut, though only a bar's sentence says it."""
    cut = CutFile.model_validate({**CUT, "operation": "crosscut", "round_stock": True})
    assert cut.round_stock and "round_stock" in used_fields("crosscut")
    assert CutFile.model_validate(
        {**CUT, "operation": "sheet", "min_radius_mm": 90.0}
    ).min_radius_mm


def test_parts_in_a_sentence_are_rows_of_the_table() -> None:
    rows = set(sentence_parts().values())
    for sentence in operation_sentences():
        assert all(p in rows for p in sentence.parts if isinstance(p, SentencePart))
