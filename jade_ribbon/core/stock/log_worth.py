"""What a log gives through and through and around the best cant, and what its boards cost."""

from dataclasses import dataclass

from jade_ribbon.core.stock.logs import (
    CantBoards,
    LogBoards,
    cant_boards,
    clear_width_mm,
    log_boards,
    places_mm,
)

CANT_STEP_MM = 10.0
"""Cants are tried in such steps: nobody sets a saw for a log nearer."""
ABOUT = 0.02
"""Ways that give so nearly the same are not told apart."""


@dataclass(frozen=True)
class RoundLog:
    """A log: small end with its bark, bark, length, and what is trimmed off each end; mm."""

    small_end_mm: float
    bark_mm: float
    length_mm: float
    trim_mm: float


@dataclass(frozen=True)
class LogBoard:
    """A board of a log's end: from and to across it, mm from the middle, and its clear width."""

    from_mm: float
    to_mm: float
    width_mm: float


@dataclass(frozen=True)
class LogWorth:
    """A log through and through, and around the cant that gives most; money of a cubic metre."""

    through: LogBoards
    boards: tuple[LogBoard, ...]
    cant: CantBoards | None
    through_m3: float
    cant_m3: float | None
    through_money_m3: float | None
    """None without a price, or without a board."""
    cant_money_m3: float | None
    words: str


def best_cant(
    log: RoundLog, *, board_mm: float, kerf_mm: float, least_width_mm: float
) -> CantBoards | None:
    """Of all cants in steps of a centimetre the one with most board; None where none gives any."""
    clear = log.small_end_mm - 2.0 * log.bark_mm
    steps = max(0, int((clear - least_width_mm) // CANT_STEP_MM))
    found = [
        cant_boards(
            small_end_mm=log.small_end_mm,
            bark_mm=log.bark_mm,
            board_mm=board_mm,
            kerf_mm=kerf_mm,
            least_width_mm=least_width_mm,
            cant_mm=least_width_mm + i * CANT_STEP_MM,
        )
        for i in range(steps)
    ]
    return max((f for f in found if f.boards), key=lambda f: f.board_area_mm2, default=None)


def _words(through: LogBoards, cant: CantBoards | None) -> str:
    if not through.boards:
        return "No board of that thickness is wide enough in this log."
    share = cant.board_area_mm2 / through.board_area_mm2 if cant is not None else 0.0
    if share > 1.0 + ABOUT:
        return f"Around a cant gives {100 * (share - 1):.0f} % more board."
    if cant is None or share < 1.0 - ABOUT:
        more = f"{100 * (1 / share - 1):.0f} % more board" if share else "all the boards"
        return f"Through and through gives {more}."
    return "Through and through and around a cant give about as much."


def log_worth(
    log: RoundLog,
    *,
    board_mm: float,
    kerf_mm: float,
    least_width_mm: float,
    cant_mm: float | None,
    price: float | None,
    minutes_a_cut: float,
    hour_rate: float,
) -> LogWorth:
    """Both ways to saw a log into boards of one thickness, around a cant given or the best.

    Money of a cubic metre of boards: the log's price and its cuts over what it gives. InputError
    as `log_boards` and `cant_boards`.

    Source: geometry of a log; its price over what it gives; docs/model "Logs around a cant".
    """
    through = log_boards(
        small_end_mm=log.small_end_mm,
        bark_mm=log.bark_mm,
        board_mm=board_mm,
        kerf_mm=kerf_mm,
        least_width_mm=least_width_mm,
    )
    if cant_mm is None:
        cant = best_cant(log, board_mm=board_mm, kerf_mm=kerf_mm, least_width_mm=least_width_mm)
    else:
        cant = cant_boards(
            small_end_mm=log.small_end_mm,
            bark_mm=log.bark_mm,
            board_mm=board_mm,
            kerf_mm=kerf_mm,
            least_width_mm=least_width_mm,
            cant_mm=cant_mm,
        )
    radius = log.small_end_mm / 2.0 - log.bark_mm
    length = max(0.0, log.length_mm - 2.0 * log.trim_mm) * 1e-9
    through_m3 = through.board_area_mm2 * length
    cant_m3 = None if cant is None else cant.board_area_mm2 * length

    def money(volume_m3: float | None, cuts: int) -> float | None:
        if price is None or not volume_m3:
            return None
        return (price + cuts * minutes_a_cut * hour_rate / 60.0) / volume_m3

    return LogWorth(
        through,
        tuple(
            LogBoard(a, b, clear_width_mm(a, b, radius))
            for a, b in places_mm(through.boards, board_mm, kerf_mm)
        ),
        cant,
        through_m3,
        cant_m3,
        money(through_m3, through.boards + 1),
        money(cant_m3, cant.cuts) if cant is not None else None,
        _words(through, cant),
    )
