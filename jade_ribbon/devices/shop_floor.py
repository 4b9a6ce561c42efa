"""Where the stand-ins live: simulated saws, and which place each instrument is held against.

A real driver needs none of this: what it is held against is in the shop.
"""

from collections.abc import Callable

from jade_ribbon.core.simulation.saw import SimulatedSaw
from jade_ribbon.devices.instrument import DropoutError

Sense = Callable[[], float]


class ShopFloor:
    """Simulated saws by the set-up they stand for."""

    def __init__(self) -> None:
        self._saws: dict[int, SimulatedSaw] = {}
        self._held: dict[str, Sense] = {}

    def saw(self, setup_id: int, build: Callable[[], SimulatedSaw]) -> SimulatedSaw:
        """The saw of a set-up, built when it is first met."""
        if setup_id not in self._saws:
            self._saws[setup_id] = build()
        return self._saws[setup_id]

    def hold(self, kind: str, sense: Sense) -> None:
        """Hold the instrument of a kind against a place."""
        self._held[kind] = sense

    def sense(self, kind: str) -> Sense:
        """What the instrument of a kind feels when it is read."""

        def felt() -> float:
            if kind not in self._held:
                raise DropoutError("It is held against nothing: hold it to the place first.")
            return self._held[kind]()

        return felt
