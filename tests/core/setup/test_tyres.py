"""A tyre by the light under a straightedge."""

import pytest

from jade_ribbon.core.quantities.words import metric
from jade_ribbon.core.setup.tyres import tyre_verdict


@pytest.mark.parametrize(
    ("gaps", "recorded", "state", "words"),
    [
        ((0.4, 0.0, 0.4), "crowned", "crowned", "it holds a band."),
        ((0.0, 0.5, 0.0), "crowned", "worn", "recorded as crowned: correct it"),
        ((0.05, 0.0, 0.05), "flat", "flat", "wheels must stand true"),
        ((0.9, 0.0, 0.2), "crowned", "crowned", "slopes to one side"),
        ((0.0, 0.0, 0.0), "none", "flat", "Flat: a band rides"),
    ],
)
def test_a_tyre_is_known_by_the_light_under_a_straightedge(
    gaps: tuple[float, float, float], recorded: str, state: str, words: str
) -> None:
    front, middle, back = gaps
    found = tyre_verdict(
        front_gap_mm=front,
        middle_gap_mm=middle,
        back_gap_mm=back,
        width_mm=30.0,
        recorded=recorded,
    )
    assert found.state == state and words in metric(found.words)
    assert found.agrees == ("correct it" not in metric(found.words))
    assert found.crown_mm == pytest.approx((front + back) / 2 - middle)
