"""What a part of a face comes of, and the one thing to change, with its amount."""

import math
from dataclasses import dataclass
from typing import Literal

from jade_ribbon.core.inspection.face import Face, FacePart
from jade_ribbon.core.quantities.words import Said, figure, join, quantity, sentence

AIMED_SHARE = 0.6
"""A change aims at so much of the tolerance, so that the next board is well within it."""
KEEN = 0.35
EASED_LEAST = 0.2
"""Easing to less than so much of the feed is no answer: something else lets the band bow."""
EXPLAINED_TIMES = 4.0
"""The side share is known to a factor of two each way: a barrel over so many times what the usual
push makes comes of something else."""
ODD_SHARE = 0.25
"""A mean off by more than this share of what was asked is another piece, or a slip of the pen."""
NEAR_A_STOP_MM, NEAR_A_STOP_SHARE = 100.0, 0.05
"""A step so near a stop mark, in mm or of the length, is of that stop."""

Guided = Literal["", "fence", "point", "line"]


@dataclass(frozen=True)
class SetFigures:
    """What the saw was set to when a face was cut: mm, m/min, MPa, shares.

    `asked_mm` is the slice asked for, None where none was; `push_barrel_mm` what the usual push
    bows such a cut by, None where it is not known; `ridges` what made its ridges, '' unmeasured.
    """

    length_mm: float
    height_mm: float
    tolerance_mm: float
    feed_m_min: float
    floor_m_min: float
    size_exponent_m: float
    dullness: float
    stress_MPa: float
    high_MPa: float
    kerf_mm: float
    asked_mm: float | None = None
    guided: Guided = ""
    push_barrel_mm: float | None = None
    ridges: str = ""
    fence_bolt_spacing_mm: float | None = None
    stops_mm: tuple[float, ...] = ()
    """Where the feed stopped, along the piece."""


@dataclass(frozen=True)
class FaceAdvice:
    """The part that matters most, what it likely comes of, and what to change."""

    part: str
    cause: str
    change: Said
    feed_m_min: float | None = None
    """The feed to go on with, where easing it is the change."""


def eased_feed_m_min(barrel_mm: float, given: SetFigures) -> float:
    """The feed at which a barrel would be well within the tolerance.

    A barrel goes as the push, and the push as feed^(1 - m).

    Source: docs/model "Straight enough"; Chip Formation in Wood, "Size effect".
    """
    wanted = AIMED_SHARE * given.tolerance_mm / abs(barrel_mm)
    share: float = min(1.0, wanted) ** (1.0 / (1.0 - given.size_exponent_m))
    return given.feed_m_min * share


def _thickness(part: FacePart, given: SetFigures) -> FaceAdvice:
    """The mean off what was asked: the fence, or the line, moves by as much."""
    thick = part.amount_mm > 0.0
    if given.asked_mm is not None and abs(part.amount_mm) > ODD_SHARE * given.asked_mm:
        read = quantity(given.asked_mm + part.amount_mm, "thin")
        asked = quantity(given.asked_mm, "thin")
        words = sentence(
            read, " on the average where ", asked, " is asked: is it a piece of this job?"
        )
        return FaceAdvice("thickness", "No fence is set so far off.", words)
    off = quantity(abs(part.amount_mm), "thin")
    how = "thick" if thick else "thin"
    if given.guided == "line":
        words = sentence(
            off,
            f" too {how} on the average: saw so that the kerf takes the other side of the line.",
        )
        return FaceAdvice("thickness", "It was sawn beside its line.", words)
    tool = "point" if given.guided == "point" else "fence"
    words = sentence(off, f" too {how}: {tool} {'in' if thick else 'out'} by ", off, ".")
    if given.asked_mm is not None:
        step = quantity(given.asked_mm + given.kerf_mm, "thin")
        words = sentence(words, " Stepping off, the next step is ", step, ", slice and kerf.")
    return FaceAdvice("thickness", f"The {tool} stands too far {'off' if thick else 'in'}.", words)


def _taper(part: FacePart, given: SetFigures) -> FaceAdvice:
    toward = "thicker at its end" if part.amount_mm > 0.0 else "thinner at its end"
    if given.guided in ("point", "line"):
        led = "at a single point" if given.guided == "point" else "along a line"
        words = (
            "There is no fence to turn: scribe a line the whole length, look well ahead of the "
            "teeth, and steer early. If it pulls one way all along, measure the drift."
        )
        return FaceAdvice("taper", f"The board is {toward}: it was steered {led}.", words)
    angle = math.atan2(abs(part.amount_mm), given.length_mm)
    minutes = figure(60.0 * math.degrees(angle), 2)
    move: Said = f"Turn the fence by {minutes} minutes of arc"
    if given.fence_bolt_spacing_mm is not None:
        slip = given.fence_bolt_spacing_mm * math.tan(angle)
        move = sentence(move, ", ", quantity(slip, "thin"), " at its far bolt")
    way = "away from" if part.amount_mm > 0.0 else "toward"
    turned = sentence(move, f", its far end {way} the band's side; try it on scrap first.")
    return FaceAdvice(
        "taper", f"The board is {toward}: the fence is not at the band's own line.", turned
    )


def _lean(part: FacePart, given: SetFigures) -> FaceAdvice:
    degrees = figure(math.degrees(math.atan2(abs(part.amount_mm), given.height_mm)), 2)
    slip = sentence(
        quantity(abs(part.amount_mm), "thin"), " over ", quantity(given.height_mm, "length")
    )
    top = part.amount_mm > 0.0
    thick = "top" if top else "bottom"
    if given.guided == "fence":
        words = sentence(
            "Put a square on the table against the band. Light there: "
            f"{'raise' if top else 'lower'} the table's fence side by {degrees}°. None: the fence "
            "face leans; bring its top ",
            f"{'toward' if top else 'away from'} the band by ",
            slip,
            ".",
        )
        return FaceAdvice(
            "lean", f"It is thicker at the {thick}: the table or the fence face leans.", words
        )
    words = sentence(f"Set table and band square: they are {degrees}° off (", slip, ").")
    return FaceAdvice(
        "lean", f"It is thicker at the {thick}: table and band are not square.", words
    )


def _too_much_for_the_push(part: FacePart, given: SetFigures) -> FaceAdvice | None:
    """A barrel that the push cannot explain, even known so roughly: easing would not mend it."""
    made = given.push_barrel_mm
    if made is None or abs(part.amount_mm) <= EXPLAINED_TIMES * made:
        return None
    words = sentence(
        "Measure the tension by another means, then the set on both sides, the guides' distance "
        "and the tyres. The push explains ",
        quantity(EXPLAINED_TIMES * made, "thin"),
        " of it at the most: easing the feed would not mend it.",
    )
    return FaceAdvice("barrel", "More than the push can bow a band so tight and so held.", words)


def _tighter(part: FacePart, given: SetFigures) -> float | None:
    """The stress (MPa) that brings a barrel within the tolerance; None where none allowed does."""
    wanted = given.stress_MPa * abs(part.amount_mm) / given.tolerance_mm
    return wanted if given.stress_MPa < wanted <= given.high_MPa else None


def _barrel(part: FacePart, given: SetFigures) -> FaceAdvice:
    if (other := _too_much_for_the_push(part, given)) is not None:
        return other
    feed = eased_feed_m_min(part.amount_mm, given)
    cause = "The push bows the band between its guides"
    if feed >= max(given.floor_m_min, EASED_LEAST * given.feed_m_min):
        words = sentence(
            "Ease the feed from ",
            quantity(given.feed_m_min, "feed"),
            " to ",
            quantity(feed, "feed"),
            ".",
        )
        return FaceAdvice("barrel", f"{cause}: fed harder than it stands straight.", words, feed)
    slower = sentence("Easing to ", quantity(feed, "feed"), " would be needed, too slow: ")
    if feed < given.floor_m_min:
        under = quantity(given.floor_m_min, "feed")
        slower = sentence("Slower alone would rub (under ", under, "): ")
    if given.dullness > KEEN:
        words = sentence(slower, "sharpen or change the band first.")
        return FaceAdvice("barrel", f"{cause}: the edge is dull and wants more push.", words)
    if (wanted := _tighter(part, given)) is not None:
        words = sentence(slower, "tension it to ", quantity(wanted, "stress"), " first.")
        return FaceAdvice("barrel", f"{cause}: it is slacker than its steel stands.", words)
    words = sentence(slower, "bring the guides closer, or take a wider band.")
    return FaceAdvice("barrel", f"{cause}, keen and tight as it is.", words)


def _waves(part: FacePart, given: SetFigures, at_mm: float) -> FaceAdvice:
    near = max(NEAR_A_STOP_MM, NEAR_A_STOP_SHARE * given.length_mm)
    stop = min(given.stops_mm, key=lambda s: abs(s - at_mm), default=None)
    if stop is not None and abs(stop - at_mm) <= near:
        where = quantity(stop, "length")
        change = sentence("Feed without stopping: it stopped at ", where, ", where the step is.")
        return FaceAdvice("waves", "The feed stopped and went on.", change)
    if given.ridges:
        return FaceAdvice("waves", "Something comes round.", given.ridges)
    words: Said = "Measure the spacing of the ridges; look at guides and weld."
    if given.stops_mm:
        places = join(", ", (quantity(s, "length") for s in given.stops_mm))
        words = sentence(words, " The feed stopped at ", places, ": the step is elsewhere.")
    return FaceAdvice("waves", "Something comes round, or the feed stopped and went on.", words)


_OF = {"thickness": _thickness, "taper": _taper, "lean": _lean, "barrel": _barrel}


def advise_on(face: Face, given: SetFigures) -> FaceAdvice | None:
    """The change that matters most: of the part farthest over the tolerance.

    None where nothing is surely over it; what cannot be told wants more readings, not a change.
    """
    over = next((p for p in face.parts if p.verdict == "over"), None)
    if over is None:
        return None
    if over.key == "waves":
        return _waves(over, given, face.worst_along * given.length_mm)
    return _OF[over.key](over, given)
