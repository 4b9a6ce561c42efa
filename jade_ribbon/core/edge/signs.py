"""What is seen, heard or felt at a run, as it is noted with it."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal, get_args

Symptom = Literal[
    "wander",
    "drift",
    "barrel",
    "waves",
    "washboard",
    "burn",
    "smoke",
    "fuzz",
    "tick",
    "vibration",
    "squeal",
    "hard_push",
    "gummed",
]
SYMPTOMS: tuple[Symptom, ...] = get_args(Symptom)

STOPS: Mapping[Symptom, str] = {
    "smoke": (
        "Stop the saw now, and look into the dust box for smouldering before leaving it. Then find "
        "out why before another cut."
    ),
    "tick": (
        "Stop the saw. A tick each turn may be a crack, or a weld standing proud: isolate, wait "
        "for the wheels, and look all round the band, the weld first."
    ),
}
"""Signs over which nobody goes on: what is done, before anything else."""


@dataclass(frozen=True)
class Sign:
    """A sign as it is tapped, with the stop it calls for ('' for none)."""

    key: Symptom
    name: str
    stop: str


def signs() -> tuple[Sign, ...]:
    """All signs, in the order they are offered."""
    return tuple(Sign(key, key.replace("_", " "), STOPS.get(key, "")) for key in SYMPTOMS)
