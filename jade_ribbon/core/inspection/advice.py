"""What a part of a face comes of, and the one thing to change, with its amount."""

import math
from dataclasses import dataclass

from jade_ribbon.core.inspection.face import Face, FacePart
from jade_ribbon.core.quantities.words import Said, figure, join, quantity, sentence

AIMED_SHARE = 0.6
"""A change aims at so much of the tolerance, so that the next board is well within it."""
ROOM_FOR_TENSION = 0.9
"""A band under so much of its greatest stress can be tensioned further first."""
KEEN = 0.35


@dataclass(frozen=True)
class SetFigures:
    """What the saw was set to when a face was cut: mm, m/min, MPa, shares."""

    length_mm: float
    height_mm: float
    tolerance_mm: float
    feed_m_min: float
    floor_m_min: float
    size_exponent_m: float
    dullness: float
    stress_MPa: float
    high_MPa: float
    fence_bolt_spacing_mm: float | None = None
    guard_gap_mm: float | None = None
    stops_mm: tuple[float, ...] = ()
    """Where the feed stopped, along the piece."""


@dataclass(frozen=True)
class Advice:
    """The part that matters most, what it likely comes of, and what to change."""

    part: str
    cause: str
    change: Said
    feed_m_min: float | None = None
    """The feed to go on with, where easing it is the change."""


def eased_feed_m_min(barrel_mm: float, given: SetFigures) -> float:
    """The feed at which a barrel would be well within the tolerance.

    A barrel goes as the push, and the push as feed^(1 - m).

    Source: ours, docs/model "Straight enough"; Chip Formation in Wood, "Size effect".
    """
    wanted = AIMED_SHARE * given.tolerance_mm / abs(barrel_mm)
    share: float = min(1.0, wanted) ** (1.0 / (1.0 - given.size_exponent_m))
    return given.feed_m_min * share


def _taper(part: FacePart, given: SetFigures) -> Advice:
    angle = math.atan2(abs(part.amount_mm), given.length_mm)
    minutes = figure(60.0 * math.degrees(angle), 2)
    toward = "thicker at its end" if part.amount_mm > 0.0 else "thinner at its end"
    move: Said = f"Turn the fence by {minutes} minutes of arc"
    if given.fence_bolt_spacing_mm is not None:
        slip = given.fence_bolt_spacing_mm * math.tan(angle)
        move = sentence(move, ", ", quantity(slip, "thin"), " at its far bolt")
    way = "away from" if part.amount_mm > 0.0 else "toward"
    words = sentence(move, f", its far end {way} the band's side; try it on scrap first.")
    return Advice(
        "taper", f"The board is {toward}: the fence is not at the band's own line.", words
    )


def _lean(part: FacePart, given: SetFigures) -> Advice:
    degrees = math.degrees(math.atan2(abs(part.amount_mm), given.height_mm))
    slip = sentence(
        quantity(abs(part.amount_mm), "thin"), " over ", quantity(given.height_mm, "length")
    )
    thick = "top" if part.amount_mm > 0.0 else "bottom"
    words = sentence(f"Set table and band square: they are {figure(degrees, 2)}° off (", slip, ").")
    return Advice("lean", f"It is thicker at the {thick}: table and band are not square.", words)


def _barrel(part: FacePart, given: SetFigures) -> Advice:
    feed = eased_feed_m_min(part.amount_mm, given)
    cause = "The push bows the band between its guides"
    if feed >= given.floor_m_min:
        words = sentence(
            "Ease the feed from ",
            quantity(given.feed_m_min, "feed"),
            " to ",
            quantity(feed, "feed"),
            ".",
        )
        return Advice("barrel", f"{cause}: fed harder than it stands straight.", words, feed)
    slower = sentence("Slower alone would rub (under ", quantity(given.floor_m_min, "feed"), "): ")
    if given.dullness > KEEN:
        words = sentence(slower, "sharpen or change the band first.")
        return Advice("barrel", f"{cause}: the edge is dull and wants more push.", words)
    if given.stress_MPa < ROOM_FOR_TENSION * given.high_MPa:
        wanted = min(given.high_MPa, given.stress_MPa * abs(part.amount_mm) / given.tolerance_mm)
        words = sentence(slower, "tension it to ", quantity(wanted, "stress"), " first.")
        return Advice("barrel", f"{cause}: it is slacker than its steel stands.", words)
    words = sentence(slower, "bring the guides closer, or take a wider band.")
    return Advice("barrel", f"{cause}, keen and tight as it is.", words)


def _waves(part: FacePart, given: SetFigures) -> Advice:
    if given.stops_mm:
        places = join(", ", (quantity(stop, "length") for stop in given.stops_mm))
        change = sentence("Feed without stopping: it stopped at ", places, " and marked the face.")
        return Advice("waves", "The feed stopped and went on.", change)
    words = "Measure the spacing of the ridges; look at guides and weld; feed without stopping."
    return Advice("waves", "Something comes round, or the feed stopped and went on.", words)


_OF = {"taper": _taper, "lean": _lean, "barrel": _barrel, "waves": _waves}


def advise_on(face: Face, given: SetFigures) -> Advice | None:
    """The change that matters most: of the part farthest over the tolerance.

    None where nothing is surely over it; what cannot be told wants more readings, not a change.
    """
    over = next((p for p in face.parts if p.verdict == "over"), None)
    return None if over is None else _OF[over.key](over, given)
