"""Quantities as people write them; the interface reads the same cases by the same tables."""

import json
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.formats.written import read_written, written_rules
from tests.support.shop import DATA

CASES = json.loads((DATA / "written.json").read_text())


@pytest.mark.parametrize("case", CASES, ids=lambda c: f"{c['text']} {c['kind']}")
def test_what_people_write_is_read(case: dict[str, Any]) -> None:
    found = read_written(case["text"], case["kind"], usual_size=case["usual_size"])
    assert found.values == pytest.approx(case["values"], rel=1e-9)
    assert (found.value is None) == (len(case["values"]) != 1)


@given(st.floats(0.001, 90_000))
def test_a_number_with_either_sign_is_itself_unless_it_may_be_two(value: float) -> None:
    for digits in (1, 2, 4):
        text = f"{value:.{digits}f}"
        for shown in (text, text.replace(".", ",")):
            read = read_written(shown, "length", usual_size=1.0).value
            assert read == pytest.approx(float(text), abs=1e-9)


INCH_M, POUND_N, KILO_N = 0.0254, 0.45359237 * 9.80665, 9.80665
BY_DEFINITION = {
    ("length", "in"): 1000 * INCH_M,
    ("length", "thou"): INCH_M,
    ("length", "yd"): 36_000 * INCH_M,
    ("long", "ft"): 12_000 * INCH_M,
    ("stretch", "thou"): 1000 * INCH_M,
    ("feed", "ft/min"): 12 * INCH_M,
    ("feed", "in/min"): INCH_M,
    ("feed", "mm/s"): 60 / 1000,
    ("speed", "ft/min"): 12 * INCH_M / 60,
    ("speed", "m/min"): 1 / 60,
    ("speed", "ft/s"): 12 * INCH_M,
    ("stress", "psi"): POUND_N / INCH_M**2 / 1e6,
    ("stress", "ksi"): POUND_N / INCH_M**2 / 1e3,
    ("stress", "kgf/cm2"): KILO_N / 1e2,
    ("stress", "kgf/mm2"): KILO_N,
    ("force", "kgf"): KILO_N,
    ("force", "lbf"): POUND_N,
    ("power", "hp"): 550 * 12 * INCH_M * POUND_N,
    ("motor", "hp"): 550 * 12 * INCH_M * POUND_N / 1000,
    ("power", "ps"): 75 * KILO_N,
    ("area", "ft2"): (12 * INCH_M) ** 2,
}


@pytest.mark.parametrize("unit", BY_DEFINITION)
def test_a_unit_is_as_large_as_it_is_defined(unit: tuple[str, str]) -> None:
    sizes = {(u.kind, name): u.size for u in written_rules().units for name in u.names}
    assert sizes[unit] == pytest.approx(BY_DEFINITION[unit], rel=1e-11)


def test_no_name_means_two_things_in_a_kind() -> None:
    seen = [(u.kind, name) for u in written_rules().units for name in u.names]
    assert len(seen) == len(set(seen))
