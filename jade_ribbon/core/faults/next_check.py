"""Which check tells most per minute: the expected drop of the causes' uncertainty."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass

import numpy as np

from jade_ribbon.core.faults.diagnosis import (
    TOP,
    Diagnosis,
    Told,
    binary_entropy,
    infer,
)
from jade_ribbon.core.faults.knowledge import (
    CheckModel,
    Floats,
    known_key,
    listed,
    pairs_of,
    triples_of,
)
from jade_ribbon.core.quantities.errors import refuse

ALWAYS = "nothing"
"""What every shop has."""


@dataclass(frozen=True, eq=False)
class Offer:
    """A check that may be made: expected bits, per minute, and each answer's chance.

    `after`: chances of the causes after each answer, (outcomes, causes).
    """

    check: str
    bits: float
    bits_per_min: float
    minutes: float
    outcomes: tuple[tuple[str, float], ...]
    after: Floats


@dataclass(frozen=True, eq=False)
class _Together:
    """Weights of sets by their members: pairs (the cause alone on the diagonal), and triples."""

    pairs: Floats
    triples: Floats
    chances: Floats
    entropy_bits: float


def _together(diagnosis: Diagnosis) -> _Together:
    causes = len(diagnosis.knowledge.causes)
    weights = np.append(diagnosis.weights, 0.0)
    return _Together(
        weights[pairs_of(causes)],
        weights[triples_of(causes)],
        diagnosis.chances,
        diagnosis.entropy_bits,
    )


def _held(together: _Together, check: CheckModel) -> tuple[Floats, Floats]:
    """By the cause that decides the answer, nobody last: weight of its sets, and of each cause
    in them.

    Of a deciding cause: itself alone, beside one open to it, beside two.
    """
    d, beside = check.speaks, check.open_to
    alone = together.pairs[d, d]
    pairs = together.pairs[d] * beside
    triples = np.matmul(together.triples[d], beside[:, :, None])[:, :, 0] * beside
    held = pairs + triples
    total = alone + pairs.sum(axis=1) + triples.sum(axis=1) / 2.0
    held[np.arange(len(d)), d] = total
    rest = np.maximum(together.chances - held.sum(axis=0), 0.0)
    rest[d] = 0.0
    return (
        np.append(total, max(1.0 - float(total.sum()), 0.0)),
        np.vstack([held, rest]),
    )


def _offer(together: _Together, check: CheckModel) -> Offer:
    """What a check is expected to tell. Sets are summed by the cause that decides its answer."""
    total, held = _held(together, check)
    answers = check.chances[np.append(check.speaks, check.causes)]
    chance = total @ answers
    possible = chance > 0.0
    after = np.zeros((len(check.outcomes), check.causes))
    after[possible] = (answers.T @ held)[possible] / chance[possible, None]
    left = float(chance @ binary_entropy(after).sum(axis=1))
    bits = max(together.entropy_bits - left, 0.0)
    return Offer(
        check=check.key,
        bits=bits,
        bits_per_min=bits / check.minutes,
        minutes=check.minutes,
        outcomes=tuple(zip(check.outcomes, (float(p) for p in chance), strict=True)),
        after=after,
    )


def offers(diagnosis: Diagnosis, instruments: Collection[str] | None = None) -> tuple[Offer, ...]:
    """Checks not yet answered and not held back, the most bits per minute first.

    `instruments`: what the shop has; None for all. Ties go in the order of the table.
    """
    withheld, together = diagnosis.running_withheld, _together(diagnosis)
    found = [
        _offer(together, check)
        for check in diagnosis.knowledge.checks
        if check.key not in diagnosis.told.answers
        and not (check.runs and withheld)
        and (instruments is None or check.needs == ALWAYS or check.needs in instruments)
    ]
    return tuple(sorted(found, key=lambda o: -o.bits_per_min))


def known_instruments(given: object) -> Collection[str] | None:
    """Instruments by name; None for all. InputError for what no check needs."""
    if given is None:
        return None
    if not isinstance(given, list | tuple):
        raise refuse("instruments", "give a list of instruments, or null for all", given)
    accepted = tuple(dict.fromkeys(c.needs for c in listed().checks))
    return [known_key("instruments", str(name), accepted) for name in given]


@dataclass(frozen=True)
class DiagnoseResult:
    """The five likeliest causes, what is left unsure, and the next check."""

    top_causes: tuple[str, ...]
    top_chances: tuple[float, ...]
    none_listed: float
    entropy_bits: float
    running_withheld: bool
    next_check: str | None
    next_check_bits: float
    next_check_bits_per_min: float


def diagnose(
    *,
    symptoms: Mapping[str, float],
    reads: Mapping[str, float],
    answers: Mapping[str, str],
) -> DiagnoseResult:
    """Likeliest causes of a trouble, and the check that tells most per minute.

    `symptoms`: degree 0..1 by sign; `reads`: readings of the records; `answers`: outcome by check.

    Source: docs/model, "Faults"; expected information as in Lindley, "On a measure of the
    information provided by an experiment".

    >>> found = diagnose(symptoms={"lean": 1.0}, reads={}, answers={})
    >>> found.top_causes[0], round(found.top_chances[0], 4), found.next_check
    ('table_out_of_square', 0.2904, 'when_began')
    """
    for name, given in (("symptoms", symptoms), ("reads", reads), ("answers", answers)):
        if not isinstance(given, Mapping):
            raise refuse(name, "give an object", given)
    found = infer(Told(symptoms, reads, answers))
    order = found.order[:TOP]
    best = next(iter(offers(found)), None)
    return DiagnoseResult(
        top_causes=tuple(found.knowledge.causes[int(i)] for i in order),
        top_chances=tuple(float(found.chances[i]) for i in order),
        none_listed=found.none_listed,
        entropy_bits=found.entropy_bits,
        running_withheld=found.running_withheld,
        next_check=best.check if best else None,
        next_check_bits=best.bits if best else 0.0,
        next_check_bits_per_min=best.bits_per_min if best else 0.0,
    )
