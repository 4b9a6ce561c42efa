"""What is seen, heard or felt at a run, as it is noted with it."""

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

SMOULDERS: tuple[Symptom, ...] = ("burn", "smoke")
SMOULDER_STOP = "Look into the dust box for smouldering before leaving it."


@dataclass(frozen=True)
class Sign:
    """A sign as it is tapped, with the stop it calls for ('' for none)."""

    key: Symptom
    name: str
    stop: str


def signs() -> tuple[Sign, ...]:
    """All signs, in the order they are offered."""
    return tuple(
        Sign(key, key.replace("_", " "), SMOULDER_STOP if key in SMOULDERS else "")
        for key in SYMPTOMS
    )
