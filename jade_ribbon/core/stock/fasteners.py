"""Metal in a board: where it is met, where to go slow, and whether to dig it out."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Literal

from jade_ribbon.core.quantities.words import Said, figure

FastenerKind = Literal["nail", "screw", "stone"]
FastenerFace = Literal["face", "back"]
FastenerState = Literal["in", "dug_out", "sawn_through"]

SLOW_EACH_SIDE_MM = 75.0
"""From so far before a mark to so far behind it: a detector is no surer."""
HOLE_MM = 60.0
"""Length of a piece that a hole dug for a nail spoils."""
DIG_MIN = {"nail": 5.0, "screw": 8.0, "stone": 6.0}
"""Minutes to dig one out; known to a factor of two."""
LOOK_MIN = 3.0
"""After a strike: stop, isolate, look at every tooth and the weld."""
HURT = {
    "carbon": 0.4,
    "silicon_steel": 0.4,
    "bimetal": 0.2,
    "cobalt_tipped": 0.7,
    "carbide_tipped": 0.9,
}
"""Chance that a nail struck slowly ends an edge, by steel; a guess, known to a factor of two."""
HURT_USUAL = 0.4
HARDER = {"nail": 1.0, "screw": 1.3, "stone": 2.0}
DOUBT = 2.0


@dataclass(frozen=True)
class Fastener:
    """Metal or stone in a board: mm along, from which face, how deep; None where unknown."""

    along_mm: float
    face: FastenerFace
    depth_mm: float | None
    kind: FastenerKind
    state: FastenerState = "in"


@dataclass(frozen=True)
class SlowZone:
    """A stretch of the board to go slowly through, and how many marks lie in it."""

    from_mm: float
    to_mm: float
    marks: int


def slow_zones(found: Iterable[Fastener], length_mm: float) -> tuple[SlowZone, ...]:
    """Stretches about the metal that is still in, those that touch taken together.

    Source: practice, docs/model "Metal in the board".

    >>> slow_zones([Fastener(500, "face", 20, "nail"), Fastener(600, "face", 20, "nail")], 3000)
    (SlowZone(from_mm=425.0, to_mm=675.0, marks=2),)
    """
    zones: list[SlowZone] = []
    for mark in sorted((f for f in found if f.state == "in"), key=lambda f: f.along_mm):
        start = max(0.0, mark.along_mm - SLOW_EACH_SIDE_MM)
        end = min(length_mm, mark.along_mm + SLOW_EACH_SIDE_MM)
        if zones and start <= zones[-1].to_mm:
            zones[-1] = SlowZone(zones[-1].from_mm, max(end, zones[-1].to_mm), zones[-1].marks + 1)
        else:
            zones.append(SlowZone(start, end, 1))
    return tuple(zones)


def reaches(mark: Fastener, from_face_mm: float, thickness_mm: float) -> float:
    """Chance that a fastener crosses a cut at a distance from the marked face.

    Sure where its depth is known; where it is not, any depth through the board is as likely.
    """
    distance = from_face_mm if mark.face == "face" else thickness_mm - from_face_mm
    if mark.depth_mm is not None:
        return 1.0 if distance <= mark.depth_mm else 0.0
    return max(0.0, 1.0 - distance / thickness_mm)


def strikes_expected(
    found: Iterable[Fastener],
    cuts_mm: Sequence[float],
    *,
    thickness_mm: float,
    height_share: float = 1.0,
) -> float:
    """Strikes to expect of some cuts: nails x the share of the board's height that is cut.

    Cuts by their distance from the marked face, mm.

    Source: ours, docs/model "Metal in the board".

    >>> nails = [Fastener(500, "face", 20, "nail"), Fastener(900, "back", 20, "nail")]
    >>> strikes_expected(nails, [15.0, 30.0], thickness_mm=60)
    1.0
    """
    return height_share * sum(
        reaches(mark, cut, thickness_mm) for mark in found if mark.state == "in" for cut in cuts_mm
    )


@dataclass(frozen=True)
class DigOrSaw:
    """Money of digging the metal out and of sawing through it, each with its range."""

    strikes: float
    dig: float
    dig_low: float
    dig_high: float
    saw: float
    saw_low: float
    saw_high: float
    better: Literal["dig", "saw", "cannot_tell"]
    words: Said
    rule: str
    """The house rule that decided; empty where money did."""


def dig_or_saw(
    found: Sequence[Fastener],
    cuts_mm: Sequence[float],
    *,
    thickness_mm: float,
    piece_value: float,
    piece_length_mm: float,
    steel: str,
    edge_value: float,
    change_min: float,
    slow_min: float,
    hour_rate: float,
    rule: Literal["compare", "dig_out", "saw_through"] = "compare",
    height_share: float = 1.0,
) -> DigOrSaw:
    """Labour and wood of digging out, against edges, changes and slow stretches of sawing through.

    A hole spoils its length of every piece that it reaches; a strike ends the edge by its steel's
    chance, and is looked into each time. Both are known to a factor of two: where the ranges
    overlap neither is called cheaper.

    Source: ours, docs/model "Metal in the board"; house rule "metal in old timber".
    """
    minute = hour_rate / 60.0
    marks = [f for f in found if f.state == "in"]
    lost = piece_value * min(1.0, HOLE_MM / piece_length_mm)
    dig = sum(
        DIG_MIN[f.kind] * minute
        + lost * (1.0 + sum(reaches(f, c, thickness_mm) for c in cuts_mm)) * height_share
        for f in marks
    )
    hurt = HURT.get(steel, HURT_USUAL)
    saw = slow_min * minute
    strikes = 0.0
    for mark in marks:
        hits = strikes_expected(
            [mark], cuts_mm, thickness_mm=thickness_mm, height_share=height_share
        )
        strikes += hits
        ends = min(1.0, hurt * HARDER[mark.kind])
        saw += hits * (LOOK_MIN * minute + ends * (edge_value + change_min * minute))
    low, high = 1.0 / DOUBT, DOUBT
    better: Literal["dig", "saw", "cannot_tell"] = "cannot_tell"
    if dig * high < saw * low:
        better = "dig"
    elif saw * high < dig * low:
        better = "saw"
    if not marks:
        words = "No metal that is known is left in it."
    elif rule != "compare":
        better = "dig" if rule == "dig_out" else "saw"
        words = f"By house rule it is {'dug out' if better == 'dig' else 'sawn through'}."
    else:
        said = {
            "dig": "Dig it out",
            "saw": "Saw through it, slowly",
            "cannot_tell": "Too close to call by money",
        }[better]
        words = f"{said}: {figure(strikes, 2)} strikes to expect of these cuts."
    return DigOrSaw(
        strikes,
        dig,
        dig * low,
        dig * high,
        saw,
        saw * low,
        saw * high,
        better,
        words,
        "old_metal" if marks and rule != "compare" else "",
    )
