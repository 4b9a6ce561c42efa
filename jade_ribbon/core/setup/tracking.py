"""Tracking: where the band rides against where it should, and which way the knob goes."""

from dataclasses import dataclass

from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.words import Said, quantity, sentence
from jade_ribbon.core.setup.fittings import Knob

PLACED_MM = 1.0
"""As near its place as anyone sets it."""
STILL_MM_PER_TURN = 0.02
"""Creep a turn under which the band counts as standing still."""
RUNS_OFF_MM_PER_TURN = 1.0
"""Creep a turn at which a band is off its wheel within a few turns."""
SETTLES_TURNS = 10.0


@dataclass(frozen=True)
class TrackAdvice:
    """How far off, how fast it creeps, and the next touch of the knob."""

    creep_mm_per_turn: float
    settled: bool
    placed: bool
    direction: str
    words: Said


def _way(forward: bool, knob: Knob) -> str:
    """Direction of the knob that moves the band forward or back."""
    if knob == "unknown":
        return ""
    clockwise = (knob == "clockwise_forward") == forward
    return "clockwise" if clockwise else "anticlockwise"


def _runs_off(creep: float) -> Said:
    """What is said of a band that would be off before a turn of the knob tells."""
    return sentence(
        "Stop turning: at ",
        quantity(abs(creep), "thin"),
        " a turn it runs off. Slacken, set it back in its place, and look first at tyres, wheel "
        "alignment and guides off the band.",
    )


def _size(off_mm: float) -> str:
    return "a quarter turn" if abs(off_mm) > 3.0 * PLACED_MM else "an eighth of a turn"


def track_advice(*, position_mm: float, creep_mm: float, turns: float, knob: Knob) -> TrackAdvice:
    """What to do with a band that stands `position_mm` off its place and crept so far in turns.

    Forward (towards the operator) is positive in both. Raises InputError for no turns.

    >>> track_advice(position_mm=0.4, creep_mm=0.1, turns=10, knob="unknown").placed
    True
    """
    if turns <= 0:
        raise refuse("turns", f"{turns:g} is out of range; accepted: more than 0", turns)
    creep = creep_mm / turns
    settled = abs(creep) <= STILL_MM_PER_TURN
    placed = abs(position_mm) <= PLACED_MM
    if settled and placed:
        return TrackAdvice(creep, True, True, "", "It stands where it should and stays: go on.")
    towards = -(creep * SETTLES_TURNS + position_mm)
    if abs(creep) >= RUNS_OFF_MM_PER_TURN:
        return TrackAdvice(creep, False, placed, "", _runs_off(creep))
    if not settled and abs(position_mm) > PLACED_MM and creep * position_mm < 0:
        wait = "It creeps towards its place: turn by hand and wait before touching the knob."
        return TrackAdvice(creep, False, placed, "", wait)
    forward = towards > 0
    where = "forward" if forward else "back"
    way = _way(forward, knob)
    how = f"{_size(towards)} {way}" if way else f"{_size(towards)}, whichever way moves it {where}"
    seen = (
        sentence("It creeps ", quantity(abs(creep), "thin"), " a turn")
        if not settled
        else sentence("It stays, ", quantity(abs(position_mm), "thin"), " off its place")
    )
    words = sentence(seen, f": bring it {where}, {how}, then {SETTLES_TURNS:g} turns by hand.")
    return TrackAdvice(creep, settled, placed, way, words)
