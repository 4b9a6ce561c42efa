"""A simulated wheel to be trued: it answers a turn with backlash, and is read with noise."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np

READING_NOISE_MM = 0.08
"""Standard error of a straightedge reading."""


@dataclass
class SimulatedWheel:
    """mm of gap as it stands, mm of gap a turn, backlash in turns."""

    gap_mm: float
    per_turn_mm: float
    backlash_turns: float
    random: np.random.Generator
    last_way: float = 0.0

    def read(self) -> float:
        """The gap (mm) as a straightedge shows it."""
        return self.gap_mm + float(self.random.normal(0, READING_NOISE_MM))

    def turn(self, turns: float) -> float:
        """Turn the bolt; mm the wheel moved."""
        way = float(np.sign(turns))
        lost = 0.0 if self.last_way in (0, way) else self.backlash_turns
        real = way * max(abs(turns) - lost, 0)
        self.last_way = way
        self.gap_mm -= real * self.per_turn_mm
        return abs(real * self.per_turn_mm)


def some_wheel(random: np.random.Generator) -> SimulatedWheel:
    """As a coach is asked to meet: start, response and backlash over their whole ranges."""
    gap = random.uniform(0.6, 4) * random.choice([-1, 1])
    return SimulatedWheel(gap, random.uniform(0.8, 2.5), random.uniform(0, 0.1), random)


def follow(
    wheel: SimulatedWheel, next_turn: Callable[[float, Sequence[tuple[float, float]]], float | None]
) -> list[tuple[float, float]]:
    """Do what a coach says until it says nothing more: the turns made, and the gaps after them.

    `next_turn` takes the gap at the start and the moves so far, and gives turns or None.
    """
    start, moves = wheel.read(), list[tuple[float, float]]()
    while (turns := next_turn(start, moves)) is not None:
        wheel.turn(turns)
        moves.append((turns, wheel.read()))
    return moves
