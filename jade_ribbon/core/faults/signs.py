"""Signs as they are offered: by where they show, each beside its nearest neighbour."""

from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from jade_ribbon.core.faults.diagnosis import STOPPING_SIGNS
from jade_ribbon.reference.faults import Sense, sign_texts

Group = Literal["cut", "band", "saw", "hands"]

GROUPS: dict[Group, tuple[str, ...]] = {
    "cut": (
        "wander",
        "drift",
        "barrel",
        "lean",
        "taper",
        "waves",
        "washboard",
        "fine_marks",
        "burn",
        "fuzz",
        "step",
        "one_face_rough",
        "dust",
        "packed",
        "pinches",
    ),
    "hands": ("hard_push", "no_bite", "wont_turn", "twists", "chatter", "motor_bogs", "slip"),
    "saw": ("tick", "vibration", "squeal", "hum", "flutter", "smoke", "sparks", "gauge_disagrees"),
    "band": (
        "climbs_forward",
        "climbs_backward",
        "wheels_differ",
        "hunts",
        "thrust_turns",
        "back_worn",
        "dulls_soon",
        "snaps_weld",
        "snaps_body",
        "gullet_cracks",
        "teeth_stripped",
    ),
}
GROUP_NAMES: dict[Group, str] = {
    "cut": "On the cut",
    "hands": "Under the hands",
    "saw": "Seen and heard at the saw",
    "band": "On the band",
}
NEIGHBOURS: dict[str, str] = {
    "wander": "drift",
    "drift": "wander",
    "barrel": "lean",
    "lean": "barrel",
    "taper": "drift",
    "waves": "washboard",
    "washboard": "fine_marks",
    "fine_marks": "washboard",
    "burn": "smoke",
    "smoke": "burn",
    "fuzz": "one_face_rough",
    "tick": "vibration",
    "vibration": "chatter",
    "squeal": "hum",
    "hum": "squeal",
    "hard_push": "no_bite",
    "no_bite": "hard_push",
    "motor_bogs": "slip",
    "slip": "motor_bogs",
    "climbs_forward": "hunts",
    "climbs_backward": "climbs_forward",
    "wheels_differ": "hunts",
    "hunts": "climbs_forward",
    "flutter": "vibration",
    "snaps_weld": "snaps_body",
    "snaps_body": "snaps_weld",
    "gullet_cracks": "teeth_stripped",
    "teeth_stripped": "gullet_cracks",
    "step": "fine_marks",
    "twists": "wont_turn",
    "wont_turn": "twists",
    "pinches": "wont_turn",
    "dust": "packed",
    "packed": "dust",
    "sparks": "smoke",
    "chatter": "vibration",
    "thrust_turns": "back_worn",
    "back_worn": "thrust_turns",
    "gauge_disagrees": "slip",
    "dulls_soon": "no_bite",
    "one_face_rough": "fuzz",
}
"""What each is taken for, by what its text tells it from."""
SOUNDS = ("tick", "vibration", "squeal", "hum", "motor_bogs", "slip", "chatter")
"""Signs that the simulated saw can sound."""


@dataclass(frozen=True)
class SignShown:
    """A sign: its words, group and neighbour, whether it can be heard, and whether it stops."""

    key: str
    name: str
    look: str
    sense: Sense
    group: Group
    group_name: str
    like: str
    sounds: bool
    stops: bool


@lru_cache
def signs() -> tuple[SignShown, ...]:
    """All signs, group by group."""
    texts = sign_texts()
    return tuple(
        SignShown(
            key,
            texts[key].name,
            texts[key].look,
            texts[key].sense,
            group,
            GROUP_NAMES[group],
            NEIGHBOURS[key],
            key in SOUNDS,
            key in STOPPING_SIGNS,
        )
        for group, keys in GROUPS.items()
        for key in keys
    )
