"""Gaps by slips of card."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.quantities.words import metric
from jade_ribbon.core.setup.shims import shims_for


@pytest.mark.parametrize(
    ("gap", "stack", "layers", "words"),
    [
        (0.3, 1.05, 3, "3 of these, 0.32 mm."),
        (0.1, 1.0, 1, "1 of these, 0.10 mm."),
        (0.1, 3.2, 1, "1 of these make 0.32 mm, 0.22 mm wider."),
        (0.0, 1.0, 0, "No slip: just touching."),
        (0.8, 0.2, 40, "40 of these: take something thicker."),
    ],
)
def test_slips(gap: float, stack: float, layers: int, words: str) -> None:
    found = shims_for(gap_mm=gap, stack_mm=stack)
    assert found.layers == layers
    assert metric(found.words).startswith(words.rstrip("."))


@given(st.floats(0.05, 1), st.floats(0.3, 6))
def test_slips_are_never_more_than_half_a_slip_off_when_one_goes_in(
    gap: float, stack: float
) -> None:
    found = shims_for(gap_mm=gap, stack_mm=stack)
    assert found.makes_mm == pytest.approx(found.layers * stack / 10)
    if found.layers > 1:
        assert abs(found.off_mm) <= stack / 20 + 1e-9
