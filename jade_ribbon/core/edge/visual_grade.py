"""How dull an edge is taken to be that came into the record with no history, by how it looks."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from jade_ribbon.core.edge.edge_states import EDGE_STATES

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


@dataclass(frozen=True)
class Judgement:
    """One step of how an edge is judged by a look, with the tip radius it is drawn with."""

    name: str
    dullness: float
    tip_radius_um: float


JUDGEMENTS = (
    Judgement("as new", 0.0, 6.0),
    Judgement("3/4 left", 0.25, 14.0),
    Judgement("1/2 left", 0.5, 26.0),
    Judgement("done", 1.0, 55.0),
)
"""One tap each, keenest first."""
