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
    "band_off",
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
    "band_off": (
        "Stop button, stand clear, wait for the wheels, isolate. Expect the band sprung behind the "
        "door. Look over band, tyres and guides before it, or another, goes on."
    ),
}
"""Signs over which nobody goes on: what is done, before anything else."""
BAND_LOOKED_AT: tuple[Symptom, ...] = ("band_off",)
"""Signs after which the band is looked over before it runs again."""
IN_FAULTS: Mapping[Symptom, str] = {"gummed": "", "band_off": "climbs_forward"}
"""What a sign is called where its cause is looked for, if not by its own name; gum is a cause."""


@dataclass(frozen=True)
class Sign:
    """A sign as it is tapped, with the stop it calls for and its key in Faults ('' for none)."""

    key: Symptom
    name: str
    stop: str
    fault: str


def signs() -> tuple[Sign, ...]:
    """All signs, in the order they are offered."""
    return tuple(
        Sign(key, key.replace("_", " "), STOPS.get(key, ""), IN_FAULTS.get(key, key))
        for key in SYMPTOMS
    )
