"""The best choice of patterns: greatest value, then fewest billets, then the largest left-over."""

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from ortools.sat.python import cp_model

LENGTH_PARTS = 1000
"""Lengths are counted in thousandths of a mm, money in ten-thousandths."""
MONEY_PARTS = 10_000
SEED = 1
TIDY_SHARE = 0.15
"""Of the seconds for the value, so much again for fewest billets, and for what is left."""


@dataclass(frozen=True)
class StockPatterns:
    """Patterns of sections of billets, each of a length, giving so many slices of each kind."""

    billets: tuple[int, ...]
    lengths: tuple[float, ...]
    """With the crosscut kerf after it; the billets' lengths with one more."""
    slices: tuple[tuple[int, ...], ...]


@dataclass(frozen=True)
class SlicePatterns:
    """Patterns of slices of billets of a group: of which kind, how long, how many pieces each."""

    groups: tuple[int, ...]
    kinds: tuple[int, ...]
    lengths: tuple[float, ...]
    """With a crosscut kerf, as those of sections."""
    counts: tuple[tuple[int, ...], ...]


@dataclass(frozen=True)
class StockProgram:
    """Plain figures: billets, the patterns that fill them, what is wanted and worth."""

    billet_lengths: tuple[float, ...]
    billet_groups: tuple[int, ...]
    """Billets of a group are as high, and give the same slices."""
    patterns: StockPatterns
    slices: SlicePatterns
    wanted: tuple[int, ...]
    values: tuple[float, ...]
    end_faces: tuple[float, ...]
    """What a unit of length of each billet's uncut end is worth keeping."""
    kept: StockPatterns
    """Patterns of which something is left, one of which may be sawn for its rest."""
    kept_rests: tuple[float, ...]
    """What that rest is worth keeping, as ends are."""


@dataclass(frozen=True)
class StockChoice:
    """How often each pattern is sawn, which is sawn for its rest, whether none is better."""

    times: tuple[int, ...]
    slice_times: tuple[int, ...]
    kept: int | None
    proven: bool
    at_most: float
    """No choice of these patterns has more value."""


def _parts(value: float, parts: int) -> int:
    return round(value * parts)


@dataclass(frozen=True)
class _Found:
    """How often each section and each slice is sawn."""

    times: tuple[int, ...]
    slice_times: tuple[int, ...]


class _Sawing:
    """The integer program of some billets: patterns by how often, and at most one for its rest."""

    def __init__(self, program: StockProgram, *, with_kept: bool) -> None:
        from ortools.sat.python import cp_model  # a large library: only where a plan is asked for

        self.cp = cp_model
        self.proven = False
        self.model = cp_model.CpModel()
        self.rooms = [_parts(v, LENGTH_PARTS) for v in program.billet_lengths]
        known, kept = program.patterns, program.kept
        lengths = [_parts(v, LENGTH_PARTS) for v in known.lengths]
        self.times = [
            self.model.new_int_var(0, max(0, self.rooms[b] // max(1, length)), f"x{i}")
            for i, (b, length) in enumerate(zip(known.billets, lengths, strict=True))
        ]
        self.kept = [
            self.model.new_bool_var(f"z{i}") for i in range(len(kept.billets) if with_kept else 0)
        ]
        self.slice_times = self._slice_times(program.slices, sum(program.wanted))
        self.each = [
            *zip(self.times, known.billets, lengths, known.slices, strict=True),
            *(
                (z, b, _parts(length, LENGTH_PARTS), slices)
                for z, b, length, slices in zip(
                    self.kept, kept.billets, kept.lengths, kept.slices, strict=False
                )
            ),
        ]
        self.taken = [
            sum(length * x for x, b, length, _ in self.each if b == billet)
            for billet in range(len(self.rooms))
        ]
        for room, taken in zip(self.rooms, self.taken, strict=True):
            self.model.add(taken <= room)
        self._hold_slices(program)
        made = [self.model.new_int_var(0, n, f"made{k}") for k, n in enumerate(program.wanted)]
        sliced = list(zip(self.slice_times, program.slices.counts, strict=True))
        for k, pieces in enumerate(made):
            self.model.add(pieces <= sum(c[k] * y for y, c in sliced if c[k]))
        self.value = sum(
            _parts(v, MONEY_PARTS) * n for v, n in zip(program.values, made, strict=True)
        )

    def _slice_times(self, slices: SlicePatterns, wanted: int) -> "list[cp_model.IntVar]":
        return [self.model.new_int_var(0, wanted, f"y{i}") for i in range(len(slices.groups))]

    def _hold_slices(self, program: StockProgram) -> None:
        """Slices of a length and more come of sections of that length and more.

        For each length of each kind of slice: as sections that take a length take all shorter ones
        too, this is enough for every slice to find its place.
        """
        slices = program.slices
        lengths = [_parts(v, LENGTH_PARTS) for v in slices.lengths]
        cut = list(zip(self.slice_times, slices.groups, slices.kinds, lengths, strict=True))
        for group, kind, least in sorted({(g, k, length) for _, g, k, length in cut}):
            given = [
                sawn[kind] * x
                for x, billet, length, sawn in self.each
                if sawn[kind] and length >= least and program.billet_groups[billet] == group
            ]
            taken = [y for y, g, k, length in cut if (g, k) == (group, kind) and length >= least]
            self.model.add(sum(taken) <= sum(given))

    def use_few(self) -> "list[cp_model.IntVar]":
        """Whether each billet is used at all."""
        used = [self.model.new_bool_var(f"used{b}") for b in range(len(self.rooms))]
        for x, billet, _, _ in self.each:
            self.model.add(x == 0).only_enforce_if(used[billet].negated())
        return used

    def hint(self, found: "_Found") -> None:
        for variables, times in ((self.times, found.times), (self.slice_times, found.slice_times)):
            for x, n in zip(variables, times, strict=True):
                self.model.add_hint(x, n)

    def found(self, solver: "cp_model.CpSolver") -> "_Found":
        return _Found(
            tuple(solver.value(x) for x in self.times),
            tuple(solver.value(y) for y in self.slice_times),
        )

    def solve(self, seconds: float) -> "cp_model.CpSolver | None":
        """The best found in time; None where none was. `proven` tells whether it is the best."""
        solver = self.cp.CpSolver()
        solver.parameters.max_time_in_seconds = seconds
        solver.parameters.random_seed = SEED
        solver.parameters.num_workers = 1
        state = solver.solve(self.model)
        self.proven = state == self.cp.OPTIMAL
        return solver if state in (self.cp.OPTIMAL, self.cp.FEASIBLE) else None


def solve(program: StockProgram, *, seconds: float) -> StockChoice:
    """Greatest value in so many seconds; then fewest billets; then the largest single left-over.

    The same program gives the same choice.
    """
    first = _Sawing(program, with_kept=False)
    first.model.maximize(first.value)
    solver = first.solve(seconds)
    if solver is None:
        nothing = (0,) * len(first.times), (0,) * len(first.slice_times)
        return StockChoice(*nothing, None, False, math.inf)
    best = round(solver.objective_value)
    most = solver.best_objective_bound / MONEY_PARTS
    found = first.found(solver)
    few, found = _fewest(program, best, found, TIDY_SHARE * seconds)
    found, kept = _largest_left(program, best, few, found, TIDY_SHARE * seconds)
    return StockChoice(found.times, found.slice_times, kept, first.proven, most)


def _fewest(program: StockProgram, best: int, found: _Found, seconds: float) -> tuple[int, _Found]:
    """Of choices of a value one of the fewest billets: how many, and how often each pattern."""
    sawing = _Sawing(program, with_kept=False)
    sawing.model.add(sawing.value >= best)
    sawing.hint(found)
    sawing.model.minimize(sum(sawing.use_few()))
    if solver := sawing.solve(seconds):
        found = sawing.found(solver)
    used = {b for b, n in zip(program.patterns.billets, found.times, strict=True) if n}
    return len(used), found


def _largest_left(
    program: StockProgram, best: int, few: int, found: _Found, seconds: float
) -> tuple[_Found, int | None]:
    """Of those the one with the largest single left-over: a billet's end, or a section's rest."""
    sawing = _Sawing(program, with_kept=True)
    sawing.model.add(sawing.value >= best)
    used = sawing.use_few()
    sawing.model.add(sum(used) <= few)
    sawing.hint(found)
    ends, here = [], []
    for b, (room, taken) in enumerate(zip(sawing.rooms, sawing.taken, strict=True)):
        end = sawing.model.new_int_var(0, room, f"end{b}")
        sawing.model.add(end <= room - taken)
        kept = sawing.model.new_bool_var(f"kept{b}")
        sawing.model.add(end == 0).only_enforce_if(kept.negated())
        sawing.model.add_implication(kept, used[b])
        ends.append(end)
        here.append(kept)
    sawing.model.add_exactly_one([*here, *sawing.kept])
    faces = [max(1, round(face)) for face in program.end_faces]
    rests = [_parts(rest, LENGTH_PARTS) for rest in program.kept_rests]
    sawing.model.maximize(
        sum(face * end for face, end in zip(faces, ends, strict=True))
        + sum(rest * z for rest, z in zip(rests, sawing.kept, strict=True))
    )
    solver = sawing.solve(seconds)
    if solver is None:
        return found, None
    chosen = [i for i, z in enumerate(sawing.kept) if solver.value(z)]
    return sawing.found(solver), chosen[0] if chosen else None
