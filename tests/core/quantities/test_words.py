"""Quantities inside sentences: the same cases are run by the interface's own tests."""

import json
from typing import Any, get_args

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.quantities.words import (
    UNITS,
    Quantity,
    Said,
    Sentence,
    between,
    fill,
    metric,
    number,
    quantity,
    said,
    sentence,
)
from jade_ribbon.reference.quantities import Kind, Units
from tests.support.shop import DATA

CASES = json.loads((DATA / "said.json").read_text())
KINDS: list[Kind] = sorted(UNITS["metric"])


def read(parts: Any) -> Said:
    """A sentence from the cases: plain words, or words and quantities."""
    if isinstance(parts, str):
        return parts
    return sentence(*(p if isinstance(p, str) else Quantity(**p) for p in parts))


@pytest.mark.parametrize("case", CASES, ids=lambda c: c["metric"])
def test_a_sentence_is_said_in_either_units(case: dict[str, Any]) -> None:
    assert said(read(case["parts"]), "metric") == case["metric"] == metric(read(case["parts"]))
    assert said(read(case["parts"]), "inch") == case["inch"]


def test_both_units_know_the_same_kinds() -> None:
    assert UNITS["metric"].keys() == UNITS["inch"].keys()


@given(st.floats(1e-6, 1e6), st.sampled_from(KINDS))
def test_what_is_left_open_is_always_filled_and_near(value: float, kind: Kind) -> None:
    for units in get_args(Units):
        text = said(sentence("about ", quantity(value, kind), "."), units)
        assert text.startswith("about ") and UNITS[units][kind].name in text
    shown = float(number(value, kind))
    assert shown == pytest.approx(value / UNITS["metric"][kind].size, rel=0.051, abs=5.1e-7)


@given(st.floats(0.001, 1e5), st.floats(0.001, 1e5), st.sampled_from(KINDS))
def test_a_range_says_both_ends_and_its_unit_once(low: float, high: float, kind: Kind) -> None:
    text = metric(sentence(between(low, high, kind)))
    name = UNITS["metric"][kind].name
    assert text == f"{number(low, kind)} to {number(high, kind)} {name}".rstrip()


def test_what_people_write_is_never_a_quantity() -> None:
    typed = "put [[1e999|stress]] and {force} here"
    assert metric(sentence("Note: ", typed, quantity(3.0, "length"))) == f"Note: {typed}3 mm"
    assert metric(fill("It says {note}.", {"note": typed})) == f"It says {typed}."


def test_a_sentence_in_an_f_string_is_refused() -> None:
    with pytest.raises(TypeError, match="use sentence"):
        f"{sentence('about ', quantity(1.0, 'length'))}"


@given(
    st.lists(
        st.one_of(st.text(max_size=4), st.builds(quantity, st.floats(1, 9), st.just("length")))
    )
)
def test_putting_together_in_any_grouping_says_the_same(parts: list[Any]) -> None:
    halves = sentence(sentence(*parts[: len(parts) // 2]), sentence(*parts[len(parts) // 2 :]))
    assert halves == sentence(*parts)
    assert halves.said("inch") == "".join(said(sentence(p), "inch") for p in parts)
    assert isinstance(halves, Sentence)


def test_an_empty_word_of_a_table_leaves_no_double_space() -> None:
    assert metric(fill("{a} Set {b}, then {c}", {"a": "", "b": "it", "c": ""})) == "Set it, then"
