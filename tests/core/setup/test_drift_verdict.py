"""What a freehand trial says."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.quantities.words import metric
from jade_ribbon.core.setup.drift_verdict import drift_verdict


def test_small_drift_shifts_the_fence_at_its_bolts() -> None:
    found = drift_verdict(offset_mm=6.0, run_mm=300.0, fence_bolt_spacing_mm=200.0, method="fence")
    assert found.fence_shift_mm == pytest.approx(4.0) and not found.stop
    assert metric(found.words) == (
        "Far end of the fence, behind the band: 4.00 mm to the right at its far bolt; "
        "the near bolt stays."
    )
    assert found.uncertainty_deg == pytest.approx(math.degrees(0.5 / 300))


@given(st.floats(-100, 100), st.sampled_from(["fence", "single_point", "tracking"]))
def test_over_two_degrees_it_is_a_fault_by_any_method(offset: float, method: str) -> None:
    found = drift_verdict(
        offset_mm=offset, run_mm=300.0, fence_bolt_spacing_mm=200.0, method=method
    )
    over = abs(math.degrees(math.atan(offset / 300))) > 2
    assert found.stop == over
    assert ("look for the cause" in metric(found.words)) == over
    assert not (over and found.fence_shift_mm is not None)


@pytest.mark.parametrize(
    ("method", "words"),
    [("single_point", "no shift is needed"), ("tracking", "fraction of a degree")],
)
def test_other_methods_say_what_they_do_and_their_limit(method: str, words: str) -> None:
    found = drift_verdict(offset_mm=-4.0, run_mm=300.0, fence_bolt_spacing_mm=None, method=method)
    assert words in metric(found.words) and found.fence_shift_mm is None


def test_a_drift_that_grows_tells_of_uneven_wear() -> None:
    def trial(earlier: tuple[float, ...]) -> str:
        return drift_verdict(
            offset_mm=5.2,
            run_mm=300.0,
            fence_bolt_spacing_mm=None,
            method="fence",
            earlier_deg=earlier,
        ).trend_words

    assert "one side wears faster" in trial((0.3, 0.6))
    assert trial((1.0, 0.9)) == "" and trial(()) == ""
