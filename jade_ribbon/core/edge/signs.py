"""What is seen, heard or felt at a run, as it is noted with it."""

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
SYMPTOMS: tuple[str, ...] = get_args(Symptom)
