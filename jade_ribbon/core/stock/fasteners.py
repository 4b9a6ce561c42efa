"""Metal in a board: where it is met, where to go slow, and whether to dig it out."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Literal

from jade_ribbon.core.quantities.words import Said, figure

FastenerKind = Literal["nail", "screw", "stone"]
FastenerFace = Literal["face", "back"]
Better = Literal["dig", "saw", "cannot_tell"]
MetalRule = Literal["compare", "dig_out", "saw_through"]
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

    Source: reclaimers' practice, 75 mm each side of a mark; docs/model "Metal in the board".

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

    Source: geometric probability; docs/model "Metal in the board".

    >>> nails = [Fastener(500, "face", 20, "nail"), Fastener(900, "back", 20, "nail")]
    >>> strikes_expected(nails, [15.0, 30.0], thickness_mm=60)
    1.0
    """
    return height_share * sum(
        reaches(mark, cut, thickness_mm) for mark in found if mark.state == "in" for cut in cuts_mm
    )


def slow_minutes(
    zones: Iterable[SlowZone], *, cuts: int, feed_m_min: float, slow_m_min: float | None
) -> float:
    """Minutes that going slowly through the zones adds to some cuts; at a third where unknown.

    >>> slow_minutes([SlowZone(0.0, 600.0, 1)], cuts=2, feed_m_min=3.0, slow_m_min=0.6)
    1.6
    """
    metres = cuts * sum(z.to_mm - z.from_mm for z in zones) / 1000.0
    slow = slow_m_min or feed_m_min / 3.0
    return max(0.0, metres / slow - metres / feed_m_min)


@dataclass(frozen=True)
class MetalPrices:
    """What metal in a board costs with: a piece, the band, minutes; shop currency."""

    piece_value: float
    piece_length_mm: float
    steel: str
    edge_value: float
    change_min: float
    slow_min: float
    hour_rate: float

    @property
    def minute(self) -> float:
        return self.hour_rate / 60.0


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
    better: Better
    words: Said
    rule: str
    """The house rule that decided; empty where money did."""


def _dig(mark: Fastener, reached: float, prices: MetalPrices) -> float:
    """Minutes to dig one out, and its hole's length of every piece that it reaches."""
    lost = prices.piece_value * min(1.0, HOLE_MM / prices.piece_length_mm)
    return DIG_MIN[mark.kind] * prices.minute + lost * (1.0 + reached)


def _saw(mark: Fastener, reached: float, prices: MetalPrices) -> float:
    """Each strike looked into; by its steel's chance it ends the edge, and the band is changed."""
    ends = min(1.0, HURT.get(prices.steel, HURT_USUAL) * HARDER[mark.kind])
    changed = prices.edge_value + prices.change_min * prices.minute
    return reached * (LOOK_MIN * prices.minute + ends * changed)


def _better(dig: float, saw: float) -> Better:
    """Called only where the ranges do not overlap."""
    if dig * DOUBT < saw / DOUBT:
        return "dig"
    return "saw" if saw * DOUBT < dig / DOUBT else "cannot_tell"


SAID: dict[Better, str] = {
    "dig": "Dig it out",
    "saw": "Saw through it, slowly",
    "cannot_tell": "Too close to call by money",
}


def dig_or_saw(
    found: Sequence[Fastener],
    cuts_mm: Sequence[float],
    prices: MetalPrices,
    *,
    thickness_mm: float,
    rule: MetalRule = "compare",
    height_share: float = 1.0,
) -> DigOrSaw:
    """Labour and wood of digging out, against edges, changes and slow stretches of sawing through.

    Both are known to a factor of two: where the ranges overlap neither is called cheaper.

    Source: least expected cost; house rule "metal in old timber"; docs/model "Metal in the board".
    """
    marks = [f for f in found if f.state == "in"]
    hits = [
        strikes_expected([m], cuts_mm, thickness_mm=thickness_mm, height_share=height_share)
        for m in marks
    ]
    dig = sum(_dig(m, hit, prices) for m, hit in zip(marks, hits, strict=True))
    saw = sum(_saw(m, hit, prices) for m, hit in zip(marks, hits, strict=True))
    saw += prices.slow_min * prices.minute
    ruled = bool(marks) and rule != "compare"
    better = _better(dig, saw)
    words = f"{SAID[better]}: {figure(sum(hits), 2)} strikes to expect of these cuts."
    if ruled:
        better = "dig" if rule == "dig_out" else "saw"
        words = f"By house rule it is {'dug out' if better == 'dig' else 'sawn through'}."
    if not marks:
        words = "No metal that is known is left in it."
    return DigOrSaw(
        sum(hits),
        dig,
        dig / DOUBT,
        dig * DOUBT,
        saw,
        saw / DOUBT,
        saw * DOUBT,
        better,
        words,
        "old_metal" if ruled else "",
    )
