"""Keen, fair, tired, spent: what an edge is called by its dullness."""

import math
from dataclasses import dataclass


@dataclass(frozen=True)
class EdgeState:
    """A class of edge, by dullness, with the tooth-tip radius it is drawn with."""

    key: str
    upto: float
    tip_radius_um: float


EDGE_STATES = (
    EdgeState("keen", 0.35, 8.0),
    EdgeState("fair", 0.6, 18.0),
    EdgeState("tired", 0.9, 32.0),
    EdgeState("spent", math.inf, 55.0),
)


def edge_state(dullness: float) -> EdgeState:
    """The class an edge is in: keen under 0.35, fair under 0.6, tired under 0.9, else spent.

    Source: judgement, each end give or take 0.05; docs/model "Life".

    >>> edge_state(0.4).key
    'fair'
    """
    return next(s for s in EDGE_STATES if dullness < s.upto or math.isinf(s.upto))
