"""From signs, records and answers to the chance of each cause: exact over all sets of causes."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal

import numpy as np

from jade_ribbon.core.faults.knowledge import (
    Floats,
    Indexes,
    Knowledge,
    known_key,
    listed,
    sets_holding,
)
from jade_ribbon.core.faults.readings import RANGES
from jade_ribbon.core.quantities.errors import Fault, InputError, refuse
from jade_ribbon.reference.faults import RecordEvidence

STOPPING_SIGNS = (
    "smoke",
    "snaps_weld",
    "snaps_body",
    "gullet_cracks",
    "teeth_stripped",
    "sparks",
)
"""Told at least half, nothing runs the saw."""
HALF = 0.5
SLIGHT = 0.75
TOP = 5
MOVED = 1e-9
"""A chance moved by less than this share was not moved."""
COULD_NOT_TELL = "could_not_tell"
"""An answer that moves nothing, and is not asked again."""

STILL_THERE = 0.1
"""One remedy in ten is not done right, or not of all there is."""

PieceKind = Literal["sign", "record", "answer", "remedy"]


@dataclass(frozen=True)
class Told:
    """What is known of a trouble: signs with their degree, readings of records, answers of checks.

    A sign's degree: 1 clear, 0.75 slight, 0 looked for and not there. `answers`: outcome by check.
    """

    symptoms: Mapping[str, float] = field(default_factory=dict)
    reads: Mapping[str, float] = field(default_factory=dict)
    answers: Mapping[str, str] = field(default_factory=dict)
    remedied: tuple[str, ...] = ()
    """Causes whose remedy was done, and it is still there."""
    cannot_be: tuple[str, ...] = ()
    """Causes that this kind of saw does not have: their odds are 0."""


@dataclass(frozen=True, eq=False)
class Piece:
    """One thing known, and the factor it puts on each set of causes."""

    kind: PieceKind
    key: str
    value: float | str
    factor: Floats


@dataclass(frozen=True, eq=False)
class Diagnosis:
    """Weights of all sets of causes (they sum to one), and what made them."""

    knowledge: Knowledge
    told: Told
    pieces: tuple[Piece, ...]
    weights: Floats

    @cached_property
    def chances(self) -> Floats:
        """Chance of each cause: the sum over the sets that hold it."""
        return marginals(self.weights, self.knowledge.columns)

    @property
    def none_listed(self) -> float:
        """Chance that it is none of the listed causes."""
        return float(self.weights[0])

    @property
    def entropy_bits(self) -> float:
        """Sum over causes of the uncertainty of each, bits."""
        return float(binary_entropy(self.chances).sum())

    @cached_property
    def order(self) -> Indexes:
        """Causes by chance, the likeliest first; ties in the table's order."""
        return np.argsort(-self.chances, kind="stable")

    @property
    def first(self) -> str:
        """The likeliest cause that something speaks for."""
        return self.knowledge.causes[self.likeliest(1)[0]]

    def chance(self, cause: str) -> float:
        """Chance of a cause by its key."""
        return float(self.chances[self.knowledge.place[cause]])

    def likeliest(self, most: int) -> tuple[int, ...]:
        """The first causes by chance, those that something told, read or answered speaks for.

        A cause whose odds are no better than in the table is not among them, however likely it is
        to begin with; with nothing spoken for, the likeliest alone.
        """
        before = self._before
        spoken = [int(i) for i in self.order if self.chances[i] > (1.0 + MOVED) * before[i]]
        return tuple(spoken[:most]) or (int(self.order[0]),)

    @cached_property
    def _before(self) -> Floats:
        """Chance of each cause on such a saw before anything is told."""
        weights = _prior(self.knowledge, self.told)
        return marginals(weights / weights.sum(), self.knowledge.columns)

    @property
    def running_withheld(self) -> bool:
        """Whether nothing may run the saw: a stopping sign, or a cause that stops, at a half."""
        if any(self.told.symptoms.get(s, 0.0) >= HALF for s in STOPPING_SIGNS):
            return True
        harms = self.knowledge.harms
        return any(h == "stop" and m >= HALF for h, m in zip(harms, self.chances, strict=True))

    def moved(self, cause: str) -> tuple[tuple[Piece, float], ...]:
        """What each piece did to the log of a cause's odds, by leaving it out."""
        held = sets_holding(len(self.knowledge.causes))[self.knowledge.place[cause]]
        now = _log_odds(float(self.weights[held].sum()), float(self.weights.sum()))
        return tuple(
            (piece, now - _log_odds(float(without[held].sum()), total))
            for piece, (without, total) in zip(self.pieces, self._without, strict=True)
        )

    @cached_property
    def _without(self) -> list[tuple[Floats, float]]:
        """Weights with each piece left out, and their sum."""
        found = []
        for piece in self.pieces:
            with np.errstate(divide="ignore", invalid="ignore"):
                without = self.weights / piece.factor
            without[piece.factor == 0.0] = 0.0
            found.append((without, float(without.sum())))
        return found


def _log_odds(inside: float, total: float) -> float:
    least = 1e-300
    return math.log(max(inside, least)) - math.log(max(total - inside, least))


def binary_entropy(chances: Floats) -> Floats:
    """Uncertainty (bits) of each chance: -m log2 m - (1 - m) log2(1 - m).

    >>> float(binary_entropy(np.array([0.5]))[0])
    1.0
    """
    m = np.clip(chances, 0.0, 1.0)
    with np.errstate(divide="ignore", invalid="ignore"):
        found = -m * np.log2(m) - (1.0 - m) * np.log2(1.0 - m)
    return np.where((m > 0.0) & (m < 1.0), found, 0.0)


ON_A_MILL = ("guide_gap_wide", "guides_on_teeth", "table_out_of_square")
"""Causes that a mill does not have: it has rollers, and a bed."""


def marginals(weights: Floats, columns: tuple[Indexes, ...]) -> Floats:
    """Sum of the weights of the sets that hold each cause (empty places fall to one more)."""
    causes = int(columns[0][0])
    total = np.zeros(causes + 1)
    for column in columns:
        total += np.bincount(column, weights, causes + 1)
    return total[:causes]


def evidence_odds(row: RecordEvidence, value: float) -> float:
    """Factor on a cause's odds of a reading: odds_low^(1-x) odds_high^x, x held to 0..1.

    Held on purpose: beyond its ends a scale of evidence says no more.
    """
    share = (value - row.at_low) / (row.at_high - row.at_low)
    x = min(max(share, 0.0), 1.0)
    return float(row.odds_low ** (1.0 - x) * row.odds_high**x)


def _of_reading(known: Knowledge, reading: str, value: float) -> Piece:
    """One reading, which may speak of several causes."""
    odds = np.ones(len(known.causes))
    for row in known.evidence:
        if row.reads == reading:
            odds[known.place[row.cause]] *= evidence_odds(row, value)
    return Piece("record", reading, value, known.products(odds))


def _of_sign(known: Knowledge, sign: str, degree: float) -> Piece:
    p = known.showing[known.sign_place[sign]]
    return Piece("sign", sign, degree, degree * p + (1.0 - degree) * (1.0 - p))


def _of_remedy(known: Knowledge, cause: str) -> Piece:
    """A remedy that did not help speaks against its cause."""
    odds = np.ones(len(known.causes))
    odds[known.place[cause]] = STILL_THERE
    return Piece("remedy", cause, STILL_THERE, known.products(odds))


def _prior(known: Knowledge, told: Told) -> Floats:
    """Weights of all sets before anything is told, without causes that such a saw has not."""
    if not told.cannot_be:
        return known.prior_weights.copy()
    odds = np.ones(len(known.causes))
    odds[[known.place[cause] for cause in told.cannot_be]] = 0.0
    without: Floats = known.prior_weights * known.products(odds)
    return without


def _of_answer(known: Knowledge, check: str, outcome: str) -> Piece:
    model = known.check_of[check]
    column = model.chances[:, model.outcomes.index(outcome)]
    return Piece("answer", check, outcome, column[model.spoken])


def check_told(known: Knowledge, told: Told) -> None:
    """Refuse unknown keys and figures out of range, all at once. InputError."""
    faults: list[Fault] = []

    def collect(path: str, key: str, accepted: tuple[str, ...]) -> bool:
        try:
            known_key(path, key, accepted)
        except InputError as error:
            faults.extend(error.faults)
            return False
        return True

    for sign, degree in told.symptoms.items():
        path = f"symptoms.{sign}"
        if collect(path, sign, known.signs) and not _is_number(degree, 0.0, 1.0):
            faults.append(Fault(path, f"{degree!r} is not accepted; accepted: 0 to 1", degree))
    for reading, value in told.reads.items():
        path = f"reads.{reading}"
        if collect(path, reading, tuple(RANGES)):
            low, high = RANGES[reading]
            if not _is_number(value, low, high):
                words = f"{value!r} is not accepted; accepted: {low:g} to {high:g}"
                faults.append(Fault(path, words, value))
    for cause in (*told.remedied, *told.cannot_be):
        collect("causes", cause, known.causes)
    for check, outcome in told.answers.items():
        path = f"answers.{check}"
        if collect(path, check, tuple(known.check_of)) and outcome != COULD_NOT_TELL:
            collect(path, outcome, known.check_of[check].outcomes)
    if faults:
        raise InputError(faults)


def _is_number(value: object, low: float, high: float) -> bool:
    return (
        isinstance(value, int | float)
        and not isinstance(value, bool)
        and math.isfinite(value)
        and low <= value <= high
    )


def infer(told: Told, known: Knowledge | None = None) -> Diagnosis:
    """Chances of all sets of up to three causes, given what is told.

    Prior odds times what the records say, times each sign's factor, times each answer's; divided
    by their sum. InputError for what is unknown, out of range, or cannot all be so.

    Source: docs/model, "Faults".
    """
    known = known or listed()
    check_told(known, told)
    pieces = [_of_reading(known, reading, value) for reading, value in told.reads.items()]
    pieces += [_of_sign(known, sign, degree) for sign, degree in told.symptoms.items()]
    pieces += [
        _of_answer(known, check, outcome)
        for check, outcome in told.answers.items()
        if outcome != COULD_NOT_TELL
    ]
    pieces += [_of_remedy(known, cause) for cause in told.remedied]
    weights = _prior(known, told)
    for piece in pieces:
        weights *= piece.factor
    total = float(weights.sum())
    if total <= 0.0:
        raise refuse("answers", "cannot all be so; take the last one back", None)
    return Diagnosis(known, told, tuple(pieces), weights / total)
