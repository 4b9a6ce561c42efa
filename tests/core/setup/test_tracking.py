"""The tracking knob."""

import pytest

from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import metric
from jade_ribbon.core.setup.fittings import Knob
from jade_ribbon.core.setup.tracking import track_advice


@pytest.mark.parametrize(
    ("position", "creep", "knob", "words"),
    [
        (0.3, 0.1, "unknown", "stays: go on"),
        (2.0, 0.0, "clockwise_back", "bring it back, an eighth of a turn clockwise"),
        (2.0, 0.0, "clockwise_forward", "bring it back, an eighth of a turn anticlockwise"),
        (-5.0, 0.0, "unknown", "a quarter turn, whichever way moves it forward"),
        (0.0, 3.0, "clockwise_back", "It creeps 0.30 mm a turn: bring it back"),
        (4.0, -2.0, "clockwise_back", "creeps towards its place"),
    ],
)
def test_the_knob_is_turned_against_what_is_seen(
    position: float, creep: float, knob: Knob, words: str
) -> None:
    advice = track_advice(position_mm=position, creep_mm=creep, turns=10, knob=knob)
    assert words in metric(advice.words)


def test_tracking_needs_turns() -> None:
    with pytest.raises(InputError, match="turns: 0 is out of range"):
        track_advice(position_mm=0, creep_mm=0, turns=0, knob="unknown")
