"""A log sawn through and through: where its boards lie, and what they are."""

import math
from dataclasses import dataclass

from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.formula_limits import within_limits


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


def _round_end_mm(small_end_mm: float, bark_mm: float) -> float:
    """Radius of the end without its bark. InputError when bark takes it all."""
    radius = small_end_mm / 2.0 - bark_mm
    if radius <= 0.0:
        half = small_end_mm / 2.0
        raise refuse(
            "bark_mm", f"{bark_mm:g} takes the whole log; accepted: under {half:g}", bark_mm
        )
    return radius


def _best_widths(
    radius_mm: float,
    *,
    board_mm: float,
    kerf_mm: float,
    least_mm: float,
    most_mm: float,
) -> list[float]:
    """Clear widths of the boards, centred in a round end, whose sum is greatest."""
    most = math.floor((2.0 * radius_mm + kerf_mm) / (board_mm + kerf_mm))
    best: list[float] = []
    for count in range(1, most + 1):
        places = places_mm(count, board_mm, kerf_mm)
        widths = [min(most_mm, clear_width_mm(*p, radius_mm)) for p in places]
        if min(widths) >= least_mm and sum(widths) > sum(best):
            best = widths
    return best


@dataclass(frozen=True)
class LaidBoard:
    """A board in a round end: its left, top, breadth and height, mm from the middle."""

    x_mm: float
    y_mm: float
    width_mm: float
    height_mm: float
    side: bool
    """Off the slabs, not of the cant."""


@dataclass(frozen=True)
class CantBoards:
    """A log sawn around a cant: its boards, those of its two sides, and what they come to.

    `cant_mm` is the thickness of the cant, which is the width of its boards.
    """

    cant_mm: float
    boards: int
    square_boards: int
    """Boards of the cant without any wane."""
    side_boards: int
    board_area_mm2: float
    recovery: float
    cuts: int
    laid: tuple[LaidBoard, ...]


@within_limits
def cant_boards(
    *,
    small_end_mm: float,
    bark_mm: float,
    board_mm: float,
    kerf_mm: float,
    least_width_mm: float,
    cant_mm: float,
) -> CantBoards:
    """A log sawn around a cant: two slabs off, then the cant laid on its sawn face into boards.

    Boards of the cant are as wide as the cant or as they are clear of wane, whichever is less.
    Widths stay concave and the same from either side, so that the boards are best centred, as in
    `log_boards`. Outside the cant as many boards are taken off each side as are clear over the
    least width. Raises InputError when bark takes the whole log, or a cant does not lie within it.

    Source: geometry of chords, concave in the lay; docs/model "Logs".

    >>> found = cant_boards(small_end_mm=400, bark_mm=10, board_mm=27, kerf_mm=2,
    ...     least_width_mm=80, cant_mm=200)
    >>> found.boards, found.square_boards, found.side_boards
    (12, 10, 4)
    """
    radius = _round_end_mm(small_end_mm, bark_mm)
    if not cant_mm < 2.0 * radius:
        words = f"{cant_mm:g} is more than the log; accepted: under {2.0 * radius:g}"
        raise refuse("cant_mm", words, cant_mm)
    widths = _best_widths(
        radius,
        board_mm=board_mm,
        kerf_mm=kerf_mm,
        least_mm=least_width_mm,
        most_mm=cant_mm,
    )
    sides: list[float] = []
    near = cant_mm / 2.0 + kerf_mm
    while (width := clear_width_mm(near, near + board_mm, radius)) >= least_width_mm:
        sides.append(width)
        near += board_mm + kerf_mm
    area = board_mm * (sum(widths) + 2.0 * sum(sides))
    end = math.pi * (small_end_mm / 2.0) ** 2
    return CantBoards(
        cant_mm,
        len(widths),
        sum(w >= cant_mm - 1e-9 for w in widths),
        2 * len(sides),
        area,
        area / end,
        2 + 2 * len(sides) + len(widths) + 1,
        _laid(widths, sides, cant_mm=cant_mm, board_mm=board_mm, kerf_mm=kerf_mm),
    )


def _laid(
    widths: list[float], sides: list[float], *, cant_mm: float, board_mm: float, kerf_mm: float
) -> tuple[LaidBoard, ...]:
    """Boards of the cant lie flat, one over another; those of its sides stand beside it."""
    places = places_mm(len(widths), board_mm, kerf_mm)
    laid = [
        LaidBoard(-w / 2.0, low, w, board_mm, False)
        for w, (low, _) in zip(widths, places, strict=True)
    ]
    for i, high in enumerate(sides):
        near = cant_mm / 2.0 + kerf_mm + i * (board_mm + kerf_mm)
        laid += [LaidBoard(x, -high / 2.0, board_mm, high, True) for x in (near, -near - board_mm)]
    return tuple(laid)


@within_limits
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

    Source: geometry of chords, concave in the lay; docs/model "Logs".

    >>> log_boards(small_end_mm=251, bark_mm=6, board_mm=59, kerf_mm=2, least_width_mm=80).boards
    3
    """
    radius = _round_end_mm(small_end_mm, bark_mm)
    best = _best_widths(
        radius,
        board_mm=board_mm,
        kerf_mm=kerf_mm,
        least_mm=least_width_mm,
        most_mm=2.0 * radius,
    )
    area = board_mm * sum(best)
    end = math.pi * (small_end_mm / 2.0) ** 2
    return LogBoards(len(best), area, area / end, max(best, default=0.0))
