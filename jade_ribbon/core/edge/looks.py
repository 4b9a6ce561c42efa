"""How dull an edge is taken to be that came into the record with no history, by how it looks."""

import math
from collections.abc import Mapping
from typing import Literal

from jade_ribbon.core.mechanics.wear import EDGE_STATES

Looks = Literal["new", "keen", "fair", "tired", "spent"]


def _middles() -> dict[str, float]:
    """The middle of each class of edge; a spent one is at its limit."""
    found, low = {}, 0.0
    for state in EDGE_STATES:
        found[state.key] = 1.0 if math.isinf(state.upto) else round((low + state.upto) / 2.0, 4)
        low = state.upto
    return found


DULLNESS_BY_LOOKS: Mapping[str, float] = {"new": 0.0, **_middles()}
"""Dullness by how an edge looks: 0 of a new one, the middle of its class of another."""
