"""The best choice of patterns: greatest value, then fewest billets, then the largest left-over."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from ortools.sat.python import cp_model

LENGTH_PARTS = 1000
"""Lengths are counted in thousandths of a mm, money in ten-thousandths."""
MONEY_PARTS = 10_000
SEED = 1


@dataclass(frozen=True)
class StockProgram:
    """Plain figures: patterns of billets, each of a length, giving so many of each kind."""

    billet_lengths: tuple[float, ...]
    pattern_billets: tuple[int, ...]
    pattern_lengths: tuple[float, ...]
    """With the crosscut kerf after it; the billets' lengths with one more."""
    pattern_counts: tuple[tuple[int, ...], ...]
    wanted: tuple[int, ...]
    values: tuple[float, ...]
    end_faces: tuple[float, ...]
    """What a unit of length of each billet's uncut end is worth keeping."""


@dataclass(frozen=True)
class StockChoice:
    """How often each pattern is sawn, and whether nothing better is possible."""

    times: tuple[int, ...]
    proven: bool
    at_most: float
    """No choice of these patterns has more value."""


def _parts(value: float, parts: int) -> int:
    return round(value * parts)


def solve(
    program: StockProgram,
    *,
    seconds: float,
    tell: Callable[[float], bool] = lambda value: True,
) -> StockChoice:
    """Solve within so many seconds; `tell` hears of each better value, and ends it by False.

    The same program gives the same choice.
    """
    from ortools.sat.python import cp_model  # a large library: only where a plan is asked for

    class Told(cp_model.CpSolverSolutionCallback):
        """Tells of every better choice, and stops when asked to."""

        def on_solution_callback(self) -> None:
            if not tell(self.objective_value / MONEY_PARTS):
                self.stop_search()

    model = cp_model.CpModel()
    count = len(program.pattern_lengths)
    lengths = [_parts(v, LENGTH_PARTS) for v in program.pattern_lengths]
    rooms = [_parts(v, LENGTH_PARTS) for v in program.billet_lengths]
    times = [
        model.new_int_var(0, max(0, rooms[b] // max(1, length)), f"x{i}")
        for i, (b, length) in enumerate(zip(program.pattern_billets, lengths, strict=True))
    ]
    mine = [[i for i in range(count) if program.pattern_billets[i] == b] for b in range(len(rooms))]
    for b, room in enumerate(rooms):
        model.add(sum(lengths[i] * times[i] for i in mine[b]) <= room)
    made = [model.new_int_var(0, n, f"made{k}") for k, n in enumerate(program.wanted)]
    for k, pieces in enumerate(made):
        given = [(program.pattern_counts[i][k], times[i]) for i in range(count)]
        model.add(pieces <= sum(n * x for n, x in given if n))
    value = sum(_parts(v, MONEY_PARTS) * n for v, n in zip(program.values, made, strict=True))
    model.maximize(value)
    solver = _solver(seconds)
    state = solver.solve(model, Told())
    if state not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return StockChoice((0,) * count, False, math.inf)
    best = round(solver.objective_value)
    found = tuple(solver.value(x) for x in times)
    proven = state == cp_model.OPTIMAL
    model.add(value >= best)
    most = solver.best_objective_bound / MONEY_PARTS
    tidy = _tidied(model, times, mine, lengths, rooms, program, found, seconds)
    return StockChoice(tidy, proven, most)


def _solver(seconds: float) -> "cp_model.CpSolver":
    from ortools.sat.python import cp_model

    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = seconds
    solver.parameters.random_seed = SEED
    solver.parameters.num_workers = 1
    return solver


def _tidied(
    model: "cp_model.CpModel",
    times: "Sequence[cp_model.IntVar]",
    mine: Sequence[Sequence[int]],
    lengths: Sequence[int],
    rooms: Sequence[int],
    program: StockProgram,
    found: tuple[int, ...],
    seconds: float,
) -> tuple[int, ...]:
    """Of choices of the same value the one of fewest billets, then with the largest end left."""
    from ortools.sat.python import cp_model

    for x, n in zip(times, found, strict=True):
        model.add_hint(x, n)
    used = [model.new_bool_var(f"used{b}") for b in range(len(rooms))]
    for b, indices in enumerate(mine):
        for i in indices:
            model.add(times[i] == 0).only_enforce_if(used[b].negated())
    model.minimize(sum(used))
    solver = _solver(seconds / 4.0)
    if solver.solve(model) not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return found
    found = tuple(solver.value(x) for x in times)
    model.add(sum(used) <= round(solver.objective_value))
    ends = []
    for b, room in enumerate(rooms):
        end = model.new_int_var(0, room, f"end{b}")
        model.add(end <= room - sum(lengths[i] * times[i] for i in mine[b]))
        ends.append(end)
    kept = [model.new_bool_var(f"kept{b}") for b in range(len(rooms))]
    model.add_exactly_one(kept)
    for b, end in enumerate(ends):
        model.add(end == 0).only_enforce_if(kept[b].negated())
        model.add_implication(kept[b], used[b])
    faces = [max(1, round(face)) for face in program.end_faces]
    model.maximize(sum(face * end for face, end in zip(faces, ends, strict=True)))
    solver = _solver(seconds / 4.0)
    if solver.solve(model) in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return tuple(solver.value(x) for x in times)
    return found
