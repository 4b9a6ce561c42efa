"""Quantities inside sentences: the same cases are run by the interface's own tests."""

import json
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.quantities.words import (
    QUANTITY,
    UNITS,
    between,
    metric,
    number,
    quantity,
    said,
)
from tests.support.shop import DATA

CASES = json.loads((DATA / "said.json").read_text())
KINDS = sorted(UNITS["metric"])


@pytest.mark.parametrize("case", CASES, ids=lambda c: str(c["text"]))
def test_a_sentence_is_said_in_either_units(case: dict[str, Any]) -> None:
    assert said(case["text"], "metric") == case["metric"] == metric(case["text"])
    assert said(case["text"], "inch") == case["inch"]


def test_both_units_know_the_same_kinds() -> None:
    assert UNITS["metric"].keys() == UNITS["inch"].keys()


@given(st.floats(1e-6, 1e6), st.sampled_from(KINDS))
def test_what_is_left_open_is_always_filled_and_near(value: float, kind: str) -> None:
    for units in ("metric", "inch"):
        text = said(f"about {quantity(value, kind)}.", units)
        assert not QUANTITY.search(text) and "[[" not in text
    shown = float(number(value, kind))
    assert shown == pytest.approx(value / UNITS["metric"][kind].size, rel=0.051, abs=5.1e-7)


@given(st.floats(0.001, 1e5), st.floats(0.001, 1e5), st.sampled_from(KINDS))
def test_a_range_says_both_ends_and_its_unit_once(low: float, high: float, kind: str) -> None:
    text = metric(between(low, high, kind))
    name = UNITS["metric"][kind].name
    assert text == f"{number(low, kind)} to {number(high, kind)} {name}".rstrip()
