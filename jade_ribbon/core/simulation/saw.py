"""A saw that is not there: its true state, brought nearer to what somebody sets it to."""

import random
from dataclasses import dataclass, field

FIRST_OFF_SHARE = 0.2
SETTLES = 0.35
"""A figure starts off by a tenth to a fifth and is brought nearer between one look and the next."""
LEAST_START = 0.5
USUAL_START = 0.75
SCALE_OF_NOTHING = 0.5
"""A figure that should be nothing is off by shares of this."""


@dataclass(frozen=True)
class SimulatedBand:
    """The band on it, mm; `free_span_mm` None on three wheels."""

    width_mm: float
    body_width_mm: float
    gullet_depth_mm: float
    thickness_mm: float
    band_length_mm: float
    free_span_mm: float | None


@dataclass
class SimulatedSaw:
    """What is truly so of a saw being set up.

    `state` holds each figure by its name with the unit in it: stress_MPa, speed_m_s, gaps in mm.
    """

    band: SimulatedBand
    wheel_diameter_mm: float
    seed: int = 0
    state: dict[str, float] = field(default_factory=dict)
    looks: dict[str, int] = field(default_factory=dict)

    def adjust(self, what: str, towards: float, *, step: str = "") -> float:
        """Somebody sets a figure towards a target: where it has come by now.

        The same seed, step and figure start off alike, so that a demonstration repeats.
        """
        key = f"{step}/{what}"
        look = self.looks.get(key, 0)
        start = random.Random(f"{self.seed}/{key}").uniform(-1.0, 1.0)  # noqa: S311 - simulated
        off = FIRST_OFF_SHARE * (start if abs(start) > LEAST_START else USUAL_START)
        scale = towards if towards else SCALE_OF_NOTHING
        self.state[what] = towards + scale * off * SETTLES**look
        return self.state[what]

    def looked(self, what: str, *, step: str = "") -> None:
        """A figure was read: it is brought nearer before the next look."""
        key = f"{step}/{what}"
        self.looks[key] = self.looks.get(key, 0) + 1
