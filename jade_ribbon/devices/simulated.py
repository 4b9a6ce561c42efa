"""Stand-ins for instruments: noise, a zero error until zeroed, dropouts, a range.

Each feels the simulated saw it is held against through `sense`; the same seed gives the
same readings, so that a demonstration can be repeated.
"""

import random
from dataclasses import dataclass, field

from jade_ribbon.devices.instrument import SPECS, DropoutError, OutOfRangeError, Reading, Spec
from jade_ribbon.devices.shop_floor import Sense

DROPOUT_SHARE = 0.03
NOISE_SHARE = 0.01
STEADY_SHARE: dict[str, float] = {"caliper": 0.0015}
"""Instruments whose noise grows less with what they read."""
ZERO_ERROR_STEPS = 6.0
"""How far off a stand-in is until it is zeroed, in steps of what it resolves."""


@dataclass
class SimulatedInstrument:
    """A stand-in of any kind."""

    spec: Spec
    sense: Sense
    seed: int = 0
    simulated: bool = True
    _random: random.Random = field(init=False)
    _offset: float = field(init=False)

    def __post_init__(self) -> None:
        self._random = random.Random(f"{self.spec.kind}-{self.seed}")  # noqa: S311 - noise
        steps = self._random.uniform(-ZERO_ERROR_STEPS, ZERO_ERROR_STEPS)
        self._offset = steps * self.spec.resolves

    @property
    def name(self) -> str:
        return f"simulated {self.spec.name}"

    def zero(self) -> None:
        self._offset = 0.0

    def read(self) -> Reading:
        near = self.sense()
        if self._random.random() < DROPOUT_SHARE:
            raise DropoutError(f"The {self.name} gave no reading; try again.")
        share = STEADY_SHARE.get(self.spec.kind, NOISE_SHARE)
        noise = self._random.gauss(0.0, share * abs(near) + 0.5 * self.spec.resolves)
        value = near + noise + self._offset
        if not self.spec.low <= value <= self.spec.high:
            raise OutOfRangeError(
                f"{value:.3g} {self.spec.unit} is beyond the {self.name}; it reads "
                f"{self.spec.low:g} to {self.spec.high:g} {self.spec.unit}."
            )
        shown = round(value / self.spec.resolves) * self.spec.resolves
        return Reading(round(shown, 6), self.spec.unit, True, self.name)


def simulated(kind: str, sense: Sense, seed: int = 0) -> SimulatedInstrument:
    """The stand-in of a kind. KeyError for a kind there is none of."""
    return SimulatedInstrument(SPECS[kind], sense, seed)
