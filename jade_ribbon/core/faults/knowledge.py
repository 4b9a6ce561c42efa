"""What shows which cause and what each check tells, as arrays over all sets of causes."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from itertools import chain, combinations, permutations

import numpy as np
from numpy.typing import NDArray

from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.reference import faults as tables
from jade_ribbon.reference.faults import RecordEvidence

Floats = NDArray[np.float64]
Indexes = NDArray[np.intp]

MOST_AT_ONCE = 3
"""Sets of up to so many causes are hypotheses."""
TELLS = 1e-12
"""A check speaks of a cause whose answers differ from nobody's by more than rounding."""


@lru_cache
def sets_of(causes: int) -> Indexes:
    """All sets of 0 to 3 of so many causes, (N, 3); places left empty hold `causes` itself.

    >>> sets_of(55).shape
    (27776, 3)
    """
    members = [
        (*chosen, *([causes] * (MOST_AT_ONCE - len(chosen))))
        for chosen in chain.from_iterable(
            combinations(range(causes), size) for size in range(MOST_AT_ONCE + 1)
        )
    ]
    return np.array(members, dtype=np.intp).reshape(-1, MOST_AT_ONCE)


@lru_cache
def columns_of(causes: int) -> tuple[Indexes, ...]:
    """First, second and third members of all sets, each in one piece of memory."""
    return tuple(np.ascontiguousarray(column) for column in sets_of(causes).T)


@lru_cache
def sets_holding(causes: int) -> tuple[Indexes, ...]:
    """Numbers of the sets that hold each cause."""
    sets = sets_of(causes)
    return tuple(np.flatnonzero((sets == place).any(axis=1)) for place in range(causes))


@lru_cache
def triples_of(causes: int) -> Indexes:
    """Which set each triple of different causes is, in any order, (causes, causes, causes).

    Where two are alike there is none: the number of sets itself.
    """
    sets = sets_of(causes)
    place = np.full((causes,) * MOST_AT_ONCE, len(sets), dtype=np.intp)
    numbers = np.flatnonzero((sets < causes).all(axis=1))
    for turn in permutations(range(MOST_AT_ONCE)):
        place[tuple(sets[numbers][:, turn].T)] = numbers
    return place


@lru_cache
def pairs_of(causes: int) -> Indexes:
    """Which set each pair of different causes is; one cause with itself is that cause alone."""
    sets = sets_of(causes)
    place = np.empty((causes, causes), dtype=np.intp)
    for number in np.flatnonzero((sets < causes).sum(axis=1) == 2):
        i, j = sets[number][:2]
        place[i, j] = place[j, i] = number
    place[np.arange(causes), np.arange(causes)] = 1 + np.arange(causes)
    return place


@dataclass(frozen=True, eq=False)
class CheckModel:
    """A check's answers: chances (causes + 1, outcomes), the last row where nobody is spoken of.

    `speaks`: the causes it speaks of, most first; the first of them in a set decides its answer.
    """

    key: str
    minutes: float
    needs: str
    runs: bool
    outcomes: tuple[str, ...]
    chances: Floats
    speaks: Indexes

    @property
    def causes(self) -> int:
        return int(self.chances.shape[0]) - 1

    @cached_property
    def spoken(self) -> Indexes:
        """The cause of each set that decides its answer, or the last row."""
        rank = np.full(self.causes + 1, self.causes, dtype=np.intp)
        rank[self.speaks] = np.arange(len(self.speaks))
        first = rank[sets_of(self.causes)].min(axis=1)
        spoken: Indexes = np.append(self.speaks, np.full(self.causes + 1, self.causes))[first]
        return spoken

    @cached_property
    def open_to(self) -> Floats:
        """By deciding cause: 1 for each other cause that may stand beside it in a set."""
        masks = np.ones((len(self.speaks), self.causes))
        for i in range(len(self.speaks)):
            masks[i, self.speaks[: i + 1]] = 0.0
        return masks


def check_model(
    key: str,
    *,
    minutes: float,
    needs: str,
    runs: bool,
    outcomes: tuple[str, ...],
    chances: Floats,
) -> CheckModel:
    """A check whose answer comes from the cause of a set that it speaks of most.

    Most: the largest sum of P(o|c) ln(P(o|c)/P(o|none)); on a tie the earlier cause.
    """
    with np.errstate(divide="ignore", invalid="ignore"):
        terms = np.where(chances > 0, chances * np.log(chances / chances[-1]), 0.0)
    tells = terms.sum(axis=1)[:-1]
    order = np.argsort(-tells, kind="stable")
    speaks = order[tells[order] > TELLS]
    return CheckModel(key, minutes, needs, runs, outcomes, chances, speaks)


@dataclass(frozen=True, eq=False)
class Knowledge:
    """Causes with their priors, signs with their leaks, what shows what, checks, record evidence.

    `shows` (causes + 1, signs): the last row is the empty place of a set, which shows nothing.
    """

    causes: tuple[str, ...]
    priors: Floats
    harms: tuple[str, ...]
    signs: tuple[str, ...]
    leaks: Floats
    shows: Floats
    checks: tuple[CheckModel, ...]
    evidence: tuple[RecordEvidence, ...]

    @cached_property
    def place(self) -> Mapping[str, int]:
        return {key: i for i, key in enumerate(self.causes)}

    @cached_property
    def sign_place(self) -> Mapping[str, int]:
        return {key: i for i, key in enumerate(self.signs)}

    @cached_property
    def check_of(self) -> Mapping[str, CheckModel]:
        return {check.key: check for check in self.checks}

    @property
    def members(self) -> Indexes:
        return sets_of(len(self.causes))

    @cached_property
    def prior_weights(self) -> Floats:
        """Product of the prior odds of a set's causes; 1 of the empty set."""
        return self.products(self.priors / (1.0 - self.priors))

    def products(self, of_causes: Floats) -> Floats:
        """Product over a set's causes of a figure of each; 1 of the empty set."""
        a, b, c = (np.append(of_causes, 1.0)[column] for column in self.columns)
        products: Floats = a * b * c
        return products

    @property
    def columns(self) -> tuple[Indexes, ...]:
        """First, second and third members of all sets."""
        return columns_of(len(self.causes))

    @cached_property
    def showing(self) -> Floats:
        """Chance of each sign in each set, (signs, N): 1 - (1 - leak) prod (1 - chance)."""
        hidden = 1.0 - self.shows
        a, b, c = self.columns
        showing = 1.0 - (1.0 - self.leaks) * hidden[a] * hidden[b] * hidden[c]
        return np.ascontiguousarray(showing.T)

    def learned(self, priors: Floats, shows: Floats) -> "Knowledge":
        """The same with a shop's own priors and chances of signs."""
        return replace(self, priors=priors, shows=np.vstack([shows, np.zeros(len(self.signs))]))


def _chances(check: tables.Check, places: Mapping[str, int]) -> Floats:
    """A check's table as an array; a cause left out answers as nobody."""
    given: dict[str, dict[str, float]] = {}
    for row in tables.outcome_chances():
        if row.check == check.key:
            given.setdefault(row.cause, {})[row.outcome] = row.chance
    none = np.array([given["none"][o] for o in check.outcomes])
    chances = np.tile(none, (len(places) + 1, 1))
    for cause, by_outcome in given.items():
        if cause != "none":
            chances[places[cause]] = [by_outcome[o] for o in check.outcomes]
    return chances


@lru_cache
def listed() -> Knowledge:
    """The tables' knowledge."""
    known = tables.causes()
    places = {key: i for i, key in enumerate(known)}
    signs = tables.sign_texts()
    columns = {key: i for i, key in enumerate(signs)}
    shows = np.zeros((len(known) + 1, len(signs)))
    for pair in tables.shown_by():
        shows[places[pair.cause], columns[pair.symptom]] = pair.chance
    return Knowledge(
        causes=tuple(known),
        priors=np.array([c.prior for c in known.values()]),
        harms=tuple(c.harm for c in known.values()),
        signs=tuple(signs),
        leaks=np.array([s.leak for s in signs.values()]),
        shows=shows,
        checks=tuple(
            check_model(
                check.key,
                minutes=check.minutes,
                needs=check.needs,
                runs=check.runs,
                outcomes=check.outcomes,
                chances=_chances(check, places),
            )
            for check in tables.checks().values()
        ),
        evidence=tables.record_evidence(),
    )


def known_key(path: str, key: str, accepted: Iterable[str]) -> str:
    """A key of a table. InputError naming what is accepted for any other."""
    listed_keys = tuple(accepted)
    if key not in listed_keys:
        raise refuse(path, f"{key!r} is not known; accepted: {', '.join(listed_keys)}", key)
    return key
