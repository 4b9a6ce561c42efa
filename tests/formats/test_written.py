"""Quantities as people write them; the interface reads the same cases by the same tables."""

import json
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.quantities.constants import KGF_CM2_PER_MPA, N_PER_LBF, PSI_PER_MPA
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


def test_sizes_of_units_are_those_of_the_core() -> None:
    sizes = {(u.kind, u.names[0]): u.size for u in written_rules().units}
    assert sizes["stress", "psi"] == pytest.approx(1.0 / PSI_PER_MPA, rel=1e-8)
    assert sizes["stress", "kgf/cm2"] == pytest.approx(1.0 / KGF_CM2_PER_MPA, rel=1e-8)
    assert sizes["force", "lbf"] == pytest.approx(N_PER_LBF, rel=1e-9)
    assert sizes["length", "in"] == 25.4


def test_no_name_means_two_things_in_a_kind() -> None:
    seen = [(u.kind, name) for u in written_rules().units for name in u.names]
    assert len(seen) == len(set(seen))
