"""A log sawn through and through: where its boards lie, and what they are."""

import math
from dataclasses import dataclass

from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.fields import checked


@dataclass(frozen=True)
class LogBoards:
    """Boards of a log's small end: how many, their end area, its share of the end, the widest."""

    boards: int
    board_area_mm2: float
    recovery: float
    widest_mm: float


def clear_width_mm(near_mm: float, far_mm: float, radius_mm: float) -> float:
    """Width clear of wane of a board between two distances from the middle of a round end."""
    out = max(abs(near_mm), abs(far_mm))
    return 2.0 * math.sqrt(radius_mm**2 - out**2) if out < radius_mm else 0.0


def places_mm(count: int, board_mm: float, kerf_mm: float) -> list[tuple[float, float]]:
    """Where so many boards lie, centred: each from one distance from the middle to another."""
    first = -(count * board_mm + (count - 1) * kerf_mm) / 2.0
    starts = [first + i * (board_mm + kerf_mm) for i in range(count)]
    return [(start, start + board_mm) for start in starts]


@checked
def log_boards(
    *,
    small_end_mm: float,
    bark_mm: float,
    board_mm: float,
    kerf_mm: float,
    least_width_mm: float,
) -> LogBoards:
    """Boards of one thickness from a round end, laid so that their area is greatest.

    A board is clear over w = 2 sqrt(r^2 - max(|x|, |x + board|)^2), r the end without bark, and
    kept from the least width on. Boards that are kept lie side by side. The area of so many of them
    is concave in where the first lies and the same from either side, so it is greatest when they
    lie centred; so are the outer boards' widths. The best number of them is tried out. Raises
    InputError when bark takes the whole log.

    Source: ours, docs/model "Logs".

    >>> log_boards(small_end_mm=251, bark_mm=6, board_mm=59, kerf_mm=2, least_width_mm=80).boards
    3
    """
    radius = small_end_mm / 2.0 - bark_mm
    if radius <= 0.0:
        half = small_end_mm / 2.0
        raise refuse(
            "bark_mm", f"{bark_mm:g} takes the whole log; accepted: under {half:g}", bark_mm
        )
    most = math.floor((2.0 * radius + kerf_mm) / (board_mm + kerf_mm))
    best: list[float] = []
    for count in range(1, most + 1):
        widths = [clear_width_mm(*p, radius) for p in places_mm(count, board_mm, kerf_mm)]
        if min(widths) >= least_width_mm and sum(widths) > sum(best):
            best = widths
    area = board_mm * sum(best)
    end = math.pi * (small_end_mm / 2.0) ** 2
    return LogBoards(len(best), area, area / end, max(best, default=0.0))
