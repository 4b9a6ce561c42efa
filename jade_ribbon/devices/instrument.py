"""One protocol for every instrument: what it reads, in what unit, and how it fails."""

from dataclasses import dataclass
from typing import Literal, Protocol

Kind = Literal[
    "strain_gauge", "tachometer", "caliper", "push_scale", "feeler", "level", "microphone"
]


@dataclass(frozen=True)
class Spec:
    """What an instrument of a kind reads: unit, range, and what it resolves."""

    kind: Kind
    name: str
    unit: str
    low: float
    high: float
    resolves: float


SPECS: dict[str, Spec] = {
    s.kind: s
    for s in (
        Spec("strain_gauge", "strain gauge", "µm", 0.0, 500.0, 1.0),
        Spec("tachometer", "tachometer", "rpm", 20.0, 6000.0, 1.0),
        Spec("caliper", "caliper", "mm", 0.0, 150.0, 0.01),
        Spec("push_scale", "push scale", "N", 0.0, 200.0, 0.5),
        Spec("feeler", "feeler and straightedge", "mm", -10.0, 10.0, 0.05),
        Spec("level", "level", "°", -45.0, 45.0, 0.05),
    )
}


@dataclass(frozen=True)
class Reading:
    """One reading, and whether a stand-in made it."""

    value: float
    unit: str
    simulated: bool
    instrument: str


class DropoutError(Exception):
    """Nothing came from the instrument; asking again is the cure."""


class OutOfRangeError(Exception):
    """What it is held against is beyond what the instrument reads."""


class Instrument(Protocol):
    """What a driver must give: it is held against something, and read."""

    @property
    def spec(self) -> Spec: ...

    @property
    def name(self) -> str: ...

    @property
    def simulated(self) -> bool: ...

    def zero(self) -> None:
        """Take what it shows now for nothing."""

    def read(self) -> Reading:
        """One reading. DropoutError or OutOfRangeError when there is none."""
