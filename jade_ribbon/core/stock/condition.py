"""Whether a piece of stock is ready to saw, and how oversize it must be cut to dry."""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from jade_ribbon.core.quantities.words import Said, percent, quantity, sentence

Suspect = Literal["none", "nails", "paint", "grit"]
StockVerdict = Literal["ready", "not_ready", "cannot_tell"]

Trued = Literal["none", "face", "face_edge", "four"]
StockRule = Literal["face_edge", "four_square", "as_it_is"]

PREPARE_MM: dict[Trued, float] = {"none": 2.0, "face": 1.0, "face_edge": 1.0, "four": 0.0}
"""Thickness that truing still takes, by what is flat and square already."""
FIBRE_SATURATION_PCT = 28.0
"""Over this wood shrinks no more for being wetter."""
SETTLED_PCT = 12.0
"""Moisture of wood in a heated shop."""
SHRINKAGE_PER_PCT = 0.0025
"""Across the grain, each per cent of moisture lost; known to two fifths."""
SHRINKAGE_DOUBT = 0.4
SHRINKS = 0.01
"""Stock that shrinks less than this in thickness needs nothing over."""
STALE_DAYS = 30
"""A moisture older than this is no reading any more."""
ROCKS_MM = 1.0
"""With more twist than this stock does not stand on its face."""
BOWS_MM = 1.0
"""What is four-square has less bow than this."""
OVER_DRY_PCT = 6.0
"""Under this a meter tells little, and wood takes water up again."""
SUSPECTED: dict[Suspect, str] = {
    "nails": "Metal is suspected: go over it with a detector and map what it finds.",
    "paint": "Paint: it dulls, and its dust is not for the general collector; scrape it off first.",
    "grit": "Grit is suspected: wash or brush it; it takes the edge in minutes.",
}


def volume_m3(
    length_mm: float, *, thickness_mm: float, height_mm: float, round_mm: float | None
) -> float:
    """Wood in a billet, or in a log by its small end with its bark.

    >>> round(volume_m3(1000.0, thickness_mm=0.0, height_mm=0.0, round_mm=200.0), 4)
    0.0314
    """
    section = thickness_mm * height_mm if round_mm is None else math.pi * round_mm**2 / 4.0
    return section * length_mm * 1e-9


@dataclass(frozen=True)
class Condition:
    """What was noted of a piece of stock; lengths in mm, moisture in per cent and its age."""

    trued: Trued
    twist_mm: float
    moisture_pct: float | None
    moisture_days: float | None
    suspect: Suspect
    mapped: int
    """Pieces of metal found and mapped."""
    log: bool = False
    """A log is milled green: it is asked for no moisture, and what it shrinks stands in no way."""
    bow_mm: float = 0.0
    is_wood: bool = True
    """Plastics and metals hold no water that moves them."""
    sawn_up: bool = False


@dataclass(frozen=True)
class StockReadiness:
    """Ready, not ready, or not to be told; each reason, and what to cut over size."""

    verdict: StockVerdict
    reasons: tuple[Said, ...]
    oversize_low: float
    oversize_high: float
    """Shares of a thickness to add, so that it holds once it has settled."""


def oversize_share(moisture_pct: float) -> tuple[float, float]:
    """Least and most share of a thickness that drying to 12 % takes, across the grain.

    Source: Wood Handbook, "Shrinkage": nothing over 28 %, then evenly with the moisture lost.

    >>> oversize_share(12.0)
    (0.0, 0.0)
    >>> [round(x, 3) for x in oversize_share(40.0)]
    [0.024, 0.056]
    """
    lost = max(0.0, min(moisture_pct, FIBRE_SATURATION_PCT) - SETTLED_PCT)
    middle = SHRINKAGE_PER_PCT * lost
    return middle * (1.0 - SHRINKAGE_DOUBT), middle * (1.0 + SHRINKAGE_DOUBT)


def _untrue(trued: Trued, rule: StockRule) -> str:
    """What is still to be trued before the first cut, by house rule; nothing where nothing is."""
    if rule == "as_it_is" or trued == "four":
        return ""
    if rule == "four_square":
        return "By house rule it is made four-square before it is sawn."
    if trued == "none":
        return "No face is flat yet: true one, and an edge square to it."
    return "" if trued == "face_edge" else "No edge is square to the face yet."


def _at_odds(found: Condition) -> Iterator[Said]:
    """What was noted of it and cannot both be so."""
    if found.trued != "four":
        return
    if abs(found.bow_mm) > BOWS_MM:
        bow = quantity(abs(found.bow_mm), "thin")
        yield sentence("Noted four-square, yet with ", bow, " of bow: look along it again.")
    if found.twist_mm > ROCKS_MM:
        twist = quantity(found.twist_mm, "thin")
        yield sentence("Noted four-square, yet with ", twist, " of twist: lay it down again.")


def _twisted(found: Condition) -> Iterator[Said]:
    """Twist that is left in what is trued on one side only."""
    if found.twist_mm > ROCKS_MM and found.trued in ("face", "face_edge"):
        twist = quantity(found.twist_mm, "thin")
        yield sentence("Its back still has ", twist, " of twist: that comes off its thickness.")


def _moisture_untold(found: Condition) -> Iterator[Said]:
    """What is not known of its moisture; of a log nobody asks."""
    if not found.is_wood or found.log:
        return
    days = found.moisture_days
    if found.moisture_pct is None:
        yield "Its moisture was not measured: wet wood moves and shrinks when it is open."
    elif days is None or days > STALE_DAYS:
        age = "an unknown time" if days is None else f"{days:.0f} days"
        yield f"Its moisture was measured {age} ago: measure it again."
    elif found.moisture_pct < OVER_DRY_PCT:
        yield (
            f"At {found.moisture_pct:g} % it is over-dry, or the meter is below what it can tell: "
            "over-dry wood takes water up again and bows. Let it lie, and measure it again."
        )


def readiness_of(found: Condition, rule: StockRule) -> StockReadiness:
    """Ready only by what was noted: a moisture that nobody read, or read long ago, tells nothing.

    Source: kiln and sawmill practice; house rule "stock before resawing"; docs/model "Stock".
    """
    if found.sawn_up:
        return StockReadiness("not_ready", ("It is sawn up.",), 0.0, 0.0)
    wrong: list[Said] = []
    if words := _untrue(found.trued, rule):
        wrong.append(words)
    if found.twist_mm > ROCKS_MM and found.trued == "none":
        twist = quantity(found.twist_mm, "thin")
        wrong.append(sentence("It rocks: ", twist, " of twist from corner to corner."))
    if found.suspect != "none" and not (found.suspect == "nails" and found.mapped):
        wrong.append(SUSPECTED[found.suspect])
    low = high = 0.0
    untold: list[Said] = [*_at_odds(found), *_moisture_untold(found)]
    noted: list[Said] = [*_twisted(found)]
    if found.suspect == "nails" and found.mapped:
        marks = "One mark" if found.mapped == 1 else f"{found.mapped} marks"
        noted.append(f"{marks} of metal mapped; what a detector missed is in no map.")
    days = found.moisture_days
    if found.moisture_pct is not None and days is not None and days <= STALE_DAYS and found.is_wood:
        low, high = oversize_share(found.moisture_pct)
        if high > SHRINKS:
            told = noted if found.log else wrong
            told.append(
                f"At {found.moisture_pct:g} % it will shrink {percent(low, 1)} to "
                f"{percent(high, 1)} in thickness: cut so much over, rest it, then true it."
            )
    verdict: StockVerdict = "not_ready" if wrong else "cannot_tell" if untold else "ready"
    return StockReadiness(verdict, (*wrong, *untold, *noted), low, high)
