"""What is usual, and what was meant."""

import pytest

from jade_ribbon.core.quantities.typical import USUAL, meant


@pytest.mark.parametrize(
    ("field", "value", "want"),
    [
        ("thickness_mm", 6.4, 0.64),
        ("height_mm", 1.85, 18.5),
        ("width_mm", 0.75, 19.05),
        ("tpi", 2.0, None),
        ("unknown", 1e9, None),
    ],
)
def test_unusual_values_are_asked_about(field: str, value: float, want: float | None) -> None:
    assert meant(field, value) == want


def test_usual_ranges_are_in_order() -> None:
    assert all(0 <= u.low < u.high for u in USUAL.values())
