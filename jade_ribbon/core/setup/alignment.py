"""The alignment coach: straightedge readings and turns in, the next turn out.

The gap answers a turn by k mm (unknown, per saw), less the backlash after a turn back.
Each reading is off by some hundredths. A Kalman filter on gap and response keeps what is
known of both; the next turn aims at nothing left, and never beyond the cap.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

import numpy as np

from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.words import Said, Sentence, quantity, sentence

NOISE_MM = 0.08
"""Standard error of a straightedge reading."""
BACKLASH_TURNS = 0.05
"""Usual lost motion after turning back."""
TOLERANCE_MM = 0.3
MOST_TURNS = 1.0
MOST_MOVE_MM = 2.0
MOST_RESPONSE_MM = 2.5
"""Fastest bolt reckoned with before this saw's own is known."""
RESPONSE_MM, RESPONSE_SPREAD_MM = 1.5, 0.55
"""mm of gap a turn, before anything is known of a saw."""
MOVES_TO_GIVE_UP = 8
DEAD_SHARE = 0.25
"""A saw that moves less than this share of the least expected does not respond."""
QUARTERS = 16.0
"""Turns are told in sixteenths: nobody sets a bolt finer."""

FAULT_OVER_MM = 0.5
"""A gap under this is no fault for a second band to show."""
SAME_SHARE = 0.5
"""Two gaps this near to each other, as a share of the larger, are one fault."""
By = Literal["bolt", "shim"]
SHIM_PARTS = 20.0
"""Shims are told in twentieths of a millimetre: no foil is finer."""
CONTRADICTS = 4.0
"""Spreads by which a reading is off all that a turn can have done: it is read again."""
State = Literal["turn", "done", "dead", "reversed", "lost", "ask"]
ENDED: tuple[State, ...] = ("done", "dead", "lost")


@dataclass(frozen=True)
class Response:
    """What is known of a saw: mm of gap a turn (of shim, for an offset), and how surely."""

    mm_per_turn: float = RESPONSE_MM
    spread_mm: float = RESPONSE_SPREAD_MM


@dataclass(frozen=True)
class Move:
    """A turn made (positive clockwise, towards a smaller gap) and the gap read after it."""

    turns: float
    gap_mm: float


@dataclass(frozen=True)
class TurnAdvice:
    """What to do next."""

    state: State
    turns: float
    words: Said
    gap_mm: float
    gap_spread_mm: float
    expected_mm: float
    expected_spread_mm: float
    response: Response


@dataclass
class _Belief:
    """Mean and covariance of gap (mm) and response (mm a turn)."""

    mean: np.ndarray
    cov: np.ndarray
    last_sign: float = 0.0
    held: Move | None = None
    """A reading that contradicts what was known, until it is read again."""
    start_mm: float = 0.0
    believed: list[Move] = field(default_factory=list)
    """The gap begun from, and the moves since, without what was misread."""

    def move(self, move: Move) -> None:
        """A turn, or none, and the gap read after it; what contradicts all before is held."""
        held, self.held = self.held, None
        if held is not None and (move.turns or abs(move.gap_mm - held.gap_mm) <= self._doubt(2.0)):
            self._begin_at(held.gap_mm)
        elif held is not None:
            self._take(replace(move, turns=held.turns))
            return
        before = float(self.mean[0])
        if move.turns:
            self.turn(move.turns)
        expected = float(self.mean[0])
        answers = (expected, before, 2.0 * before - expected)  # as it should, not, the other way
        off = min(abs(move.gap_mm - answer) for answer in answers)
        if held is None and off > self._doubt(1.0 + self.cov[0, 0] / NOISE_MM**2):
            self.held = move
        else:
            self._take(move)

    def _take(self, move: Move) -> None:
        self.read(move.gap_mm)
        self.believed.append(move)

    @staticmethod
    def _doubt(readings: float) -> float:
        """How far a reading may be off, with so many readings' own spreads in it."""
        return CONTRADICTS * NOISE_MM * math.sqrt(readings)

    def _begin_at(self, gap: float) -> None:
        """What was read twice stands, whatever was known of the gap before."""
        self.mean = np.array([gap, self.mean[1]])
        self.cov = np.diag([NOISE_MM**2, self.cov[1, 1]])
        self.start_mm, self.believed = gap, []

    def turn(self, turns: float) -> None:
        """Gap falls by response x turns; lost motion where the direction changes."""
        sign = math.copysign(1.0, turns)
        lost = BACKLASH_TURNS if self.last_sign and sign != self.last_sign else 0.0
        real = sign * max(abs(turns) - lost, 0.0)
        step = np.array([[1.0, -real], [0.0, 1.0]])
        self.mean = step @ self.mean
        self.cov = step @ self.cov @ step.T
        slack = (self.mean[1] * (0.03 if lost else 0.0)) ** 2 + 1e-4
        self.cov[0, 0] += slack
        self.last_sign = sign

    def read(self, gap: float) -> None:
        """A reading of the gap, off by NOISE_MM."""
        gain = self.cov[:, 0] / (self.cov[0, 0] + NOISE_MM**2)
        self.mean = self.mean + gain * (gap - self.mean[0])
        self.cov = self.cov - np.outer(gain, self.cov[0, :])


def cap_turns(response: Response) -> float:
    """Greatest turn allowed: one, or what could move the wheel 2 mm at the fastest likely."""
    fastest = min(
        abs(response.mm_per_turn) + 4.0 * response.spread_mm,
        max(MOST_RESPONSE_MM, abs(response.mm_per_turn)),
    )
    return min(MOST_TURNS, MOST_MOVE_MM / fastest)


def _rounded(turns: float, cap: float, parts: float) -> float:
    """To a sixteenth of a turn or a foil of shim, towards nothing at the cap."""
    small = math.copysign(round(abs(turns) * parts) / parts, turns)
    if abs(small) > cap:
        small = math.copysign(math.floor(cap * parts) / parts, turns)
    return small


def _belief(start_mm: float, moves: Sequence[Move], known: Response) -> _Belief:
    belief = _Belief(
        np.array([start_mm, known.mm_per_turn]),
        np.diag([NOISE_MM**2, known.spread_mm**2]),
        start_mm=start_mm,
    )
    for move in moves:
        belief.move(move)
    return belief


def _unusual(
    start_mm: float, moves: Sequence[Move], known: Response
) -> Literal["dead", "reversed", ""]:
    """'dead' or 'reversed' when the turns so far speak for it, else ''."""
    before = [start_mm, *(m.gap_mm for m in moves)]
    turned = [(m.turns, b - m.gap_mm) for m, b in zip(moves, before, strict=False) if m.turns]
    turns = sum(abs(t) for t, _ in turned)
    moved = sum(math.copysign(1.0, t) * d for t, d in turned)
    noise = NOISE_MM * math.sqrt(2.0 * max(len(turned), 1))
    least = max(known.mm_per_turn - 2.0 * known.spread_mm, 0.4) * max(
        turns - BACKLASH_TURNS * len(turned), 0.0
    )
    if moved < -max(2.5 * noise, DEAD_SHARE * least):
        return "reversed"
    if least > 3.0 * noise and abs(moved) < DEAD_SHARE * least + noise:
        return "dead"
    return ""


WORDS: dict[State, str] = {
    "done": "Within tolerance: lock it, track the band again and read once more at tension.",
    "dead": "The gap does not answer the turns: look for a lock nut still tight, a worn thread "
    "or the wrong bolt before turning more.",
    "reversed": "The gap went the other way: the turn was made the wrong way, or this bolt works "
    "in reverse. Turn it back the other way.",
    "ask": "This reading contradicts the ones before: no turn made so far moves the wheel there. "
    "Track the band, and read it again before turning.",
    "lost": "Still out after so many moves: stop, and look for a loose bearing, a bent shaft or "
    "a reading taken slack.",
}


def _check_turns(moves: Sequence[Move]) -> None:
    """InputError for a turn over the cap."""
    for i, move in enumerate(moves):
        if abs(move.turns) > MOST_TURNS + 1e-9:
            raise refuse(
                f"moves.{i}.turns",
                f"{move.turns:g} turns is out of range; accepted: -1 to 1 at a time",
                move.turns,
            )


def _turn_words(turns: float, by: By, left_mm: float, spread_mm: float, odd: str | None) -> Said:
    words = sentence(
        move_words(turns, by),
        ". The gap should come to ",
        quantity(round(left_mm, 1), "length"),
        ", give or take ",
        quantity(2 * spread_mm, "thin"),
        ".",
    )
    return sentence(f"{WORDS['reversed']} ", words) if odd == "reversed" else words


def advise(
    *,
    start_mm: float,
    moves: Sequence[Move],
    known: Response | None = None,
    tolerance_mm: float = TOLERANCE_MM,
    by: By = "bolt",
    leave: Said = "",
) -> TurnAdvice:
    """The next turn for a gap (mm) read at tension, after the moves made so far.

    Cap: one turn, or 2 mm of wheel movement. Turns are positive clockwise; of shims they are mm,
    put in where positive. `leave` is why a gap under its limit is left alone: then nothing is
    turned. Raises InputError for a turn over the cap, which nobody was told to make.
    """
    _check_turns(moves)
    response = known or Response()
    belief = _belief(start_mm, moves, response)
    odd = _unusual(belief.start_mm, belief.believed, response)
    if odd == "reversed":
        response = Response(-response.mm_per_turn, response.spread_mm)
        belief = _belief(start_mm, moves, response)
    gap, rate = float(belief.mean[0]), float(belief.mean[1])
    spread = math.sqrt(belief.cov[0, 0])
    learnt = Response(rate, math.sqrt(belief.cov[1, 1]))

    def no_turn(state: State, words: Said = "") -> TurnAdvice:
        return TurnAdvice(state, 0.0, words or WORDS[state], gap, spread, gap, spread, learnt)

    if belief.held is not None:
        return no_turn("ask")
    if abs(gap) <= tolerance_mm - 0.5 * spread:
        return no_turn("done")
    if odd == "dead":
        return no_turn("dead")
    if len(moves) >= MOVES_TO_GIVE_UP:
        return no_turn("lost")
    if leave and not moves:
        return no_turn("done", leave)
    parts = QUARTERS if by == "bolt" else SHIM_PARTS
    cap = cap_turns(learnt)
    wanted = gap / rate
    if belief.last_sign and math.copysign(1.0, wanted) != belief.last_sign:
        wanted += math.copysign(BACKLASH_TURNS, wanted)
    turns = _rounded(math.copysign(min(abs(wanted), cap), wanted), cap, parts)
    if turns == 0.0:
        turns = math.copysign(1.0 / parts, wanted)
    after = _belief(start_mm, moves, response)
    after.turn(turns)
    left, left_spread = float(after.mean[0]), math.sqrt(after.cov[0, 0])
    words = _turn_words(turns, by, left, left_spread, odd)
    return TurnAdvice(odd or "turn", turns, words, gap, spread, left, left_spread, learnt)


def same_fault(gap_mm: float, other_mm: float) -> bool:
    """Whether two gaps (mm), read with two bands, show one fault: both out, one way, alike.

    >>> same_fault(2.0, 1.7), same_fault(0.4, -2.0), same_fault(2.0, -2.0)
    (True, False, False)
    """
    if min(abs(gap_mm), abs(other_mm)) <= FAULT_OVER_MM or gap_mm * other_mm < 0:
        return False
    larger = max(abs(gap_mm), abs(other_mm))
    return abs(gap_mm - other_mm) <= max(SAME_SHARE * larger, 2.0 * NOISE_MM)


def cap_words() -> Sentence:
    """How far a bolt is turned at a time, as the coach says it."""
    return sentence(
        "Read at working tension with the band tracked; slacken, isolated, to turn. Each turn is "
        "at most one, or ",
        quantity(MOST_MOVE_MM, "length"),
        " of the wheel.",
    )


def turn_words(turns: float) -> str:
    """A turn as said: '3/8 turn clockwise'; '' for none.

    >>> turn_words(-0.375)
    '3/8 turn anticlockwise'
    """
    if turns == 0.0:
        return ""
    way = "clockwise" if turns > 0 else "anticlockwise"
    sixteenths = round(abs(turns) * QUARTERS)
    if sixteenths == QUARTERS:
        return f"1 turn {way}"
    shared = math.gcd(sixteenths, int(QUARTERS))
    return f"{sixteenths // shared}/{int(QUARTERS) // shared} turn {way}"


def move_words(turns: float, by: By) -> Said:
    """A turn of a bolt as said, or how much shim goes in or out; '' for none."""
    if by == "bolt" or turns == 0.0:
        return turn_words(turns)
    thick = quantity(abs(turns), "thin")
    if turns > 0.0:
        return sentence("Put in ", thick, " of shim")
    return sentence("Take out ", thick, " of shim")


SHIM_RESPONSE = Response(1.0, 0.05)


def acts(gap_mm: float, *, limit_mm: float, sits_on_both: bool, rule: str) -> tuple[bool, Said]:
    """Whether a gap (mm) is to be acted on, by the house rule on wheels in one plane."""
    if abs(gap_mm) > limit_mm:
        return (
            True,
            sentence(
                quantity(abs(gap_mm), "thin"),
                " is over the ",
                quantity(limit_mm, "length"),
                " this saw stands.",
            ),
        )
    if rule == "always":
        return True, "House rule: wheels are always trued."
    if not sits_on_both:
        return True, "The band does not sit within tolerance on both wheels."
    return False, (
        sentence(
            quantity(abs(gap_mm), "thin"),
            " is within the ",
            quantity(limit_mm, "length"),
            " this saw stands, and the band sits on both wheels: leave it.",
        )
    )
