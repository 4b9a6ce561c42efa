"""What a shop's own closed troubles teach: its priors and its chances of signs."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from jade_ribbon.core.faults.diagnosis import HALF
from jade_ribbon.core.faults.knowledge import Floats, Knowledge

WEIGHT = 20.0
"""The table's word counts as so many troubles of this shop's own."""
MOST_CHANCE, LEAST_CHANCE = 0.98, 0.002
"""Nothing is learned to be certain, or never."""


@dataclass(frozen=True)
class ClosedTrouble:
    """A trouble closed with what it truly was: its causes, and the signs told with their degree."""

    causes: tuple[str, ...]
    symptoms: Mapping[str, float]


@dataclass(frozen=True, eq=False)
class LearnedFaults:
    """Knowledge moved by a shop's own findings, and what moved."""

    knowledge: Knowledge
    troubles: int
    found: Mapping[str, int]
    """How often each cause was the true one."""


def _noticed(known: Knowledge, alone: Sequence[tuple[int, Mapping[str, float]]]) -> float:
    """Share of the signs that a cause shows which people here mention; few are all looked for."""
    told = sum(
        1.0
        for place, signs in alone
        for sign, degree in signs.items()
        if degree >= HALF and known.shows[place, known.sign_place[sign]] > 0.0
    )
    shown = sum(float(known.shows[place].sum()) for place, _ in alone)
    usual = 0.5 * WEIGHT
    return float(min((told + usual) / (shown + WEIGHT), 1.0))


def _own_signs(known: Knowledge, alone: Sequence[tuple[int, Mapping[str, float]]]) -> Floats:
    """Chances of signs: Beta with the table's at weight 20; a sign not mentioned counts less.

    Of a cause seen n times with a sign mentioned k times, where people mention a share q of what
    is there, a silence counts w = q (1 - c)/(1 - q c): told as often as the table's chance c says,
    nothing moves. Looked for and not there counts whole.
    """
    shows = known.shows[:-1].copy()
    q = _noticed(known, alone)
    for place in {place for place, _ in alone}:
        seen = [signs for at, signs in alone if at == place]
        for column, sign in enumerate(known.signs):
            c = float(known.shows[place, column])
            told = sum(1 for s in seen if s.get(sign, -1.0) >= HALF)
            absent = sum(1 for s in seen if 0.0 <= s.get(sign, -1.0) < HALF)
            silent = len(seen) - told - absent
            misses = absent + silent * q * (1.0 - c) / (1.0 - q * c)
            if told or c > 0.0:
                shows[place, column] = min(
                    (WEIGHT * c + told) / (WEIGHT + told + misses), MOST_CHANCE
                )
    return shows


def learn(known: Knowledge, troubles: Sequence[ClosedTrouble]) -> LearnedFaults:
    """A shop's own counts beside the table: priors and chances as Beta with weight 20.

    Prior of a cause: (20 p + times found)/(20 + troubles). Signs are learned of troubles with one
    cause, since of two nobody knows which showed what. No troubles: the table's word.

    Source: docs/model, "Faults".
    """
    found: dict[str, int] = {}
    for trouble in troubles:
        for cause in trouble.causes:
            found[cause] = found.get(cause, 0) + 1
    if not troubles:
        return LearnedFaults(known, 0, found)
    counts = np.array([found.get(cause, 0) for cause in known.causes], dtype=float)
    priors = (WEIGHT * known.priors + counts) / (WEIGHT + len(troubles))
    alone = [(known.place[t.causes[0]], t.symptoms) for t in troubles if len(t.causes) == 1]
    return LearnedFaults(
        known.learned(np.clip(priors, LEAST_CHANCE, MOST_CHANCE), _own_signs(known, alone)),
        len(troubles),
        found,
    )
