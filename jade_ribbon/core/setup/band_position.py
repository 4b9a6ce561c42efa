"""Where the band rides on the wheel: its place, why, and where its teeth stand on the tyre."""

from dataclasses import dataclass
from typing import Literal

from jade_ribbon.core.job import Job

Place = Literal["centred", "front_edge", "forward"]
OVER_EDGE_SHARE = 0.04
"""Teeth at or just over the front edge: this share of the band's width."""
FORWARD_SHARE = 0.08
"""Slightly forward of centre: this share of the tyre's width."""
WIDE_SHARE = 0.8
"""A set band wider than this share of the tyre would chew the rubber under its teeth."""
USUAL_TYRE_SHARE = 1.3
"""A tyre of unknown width is drawn so much wider than the band."""
WORDS: dict[Place, str] = {
    "centred": "centred on the crown",
    "front_edge": "teeth at or just over the front edge",
    "forward": "slightly forward of centre",
}


@dataclass(frozen=True)
class BandPosition:
    """Where the band rides: `toothed_edge_mm` from the tyre's front edge, negative over it."""

    place: Place
    toothed_edge_mm: float
    tyre_width_mm: float
    tyre_width_known: bool
    words: str


def _place(
    job: Job, rule: Place, band_width_mm: float, tyre_width_mm: float | None, *, is_set: bool
) -> Place:
    wide = tyre_width_mm is not None and band_width_mm > WIDE_SHARE * tyre_width_mm
    return "front_edge" if job.saw.tyre in ("flat", "none") or (wide and is_set) else rule


def _why(job: Job, rule: Place, place: Place) -> str:
    if place == rule:
        return ""
    if job.saw.tyre in ("flat", "none"):
        return ", since the tyre is flat"
    return ", since it is wider than four fifths of the tyre and its set would chew it"


def toothed_edge_mm(place: Place, *, band_width_mm: float, tyre_width_mm: float) -> float:
    """Where the teeth stand from the tyre's front edge (mm), negative over it."""
    if place == "front_edge":
        return -OVER_EDGE_SHARE * band_width_mm
    centred = (tyre_width_mm - band_width_mm) / 2.0
    return centred - FORWARD_SHARE * tyre_width_mm if place == "forward" else centred


def band_position(
    job: Job, rule: Place, band_width_mm: float, tyre_width_mm: float | None, *, is_set: bool
) -> BandPosition:
    """Where the band rides, by tyre, width, set and house rule.

    Source: house rules, "band position on the wheel".
    """
    place = _place(job, rule, band_width_mm, tyre_width_mm, is_set=is_set)
    tyre = tyre_width_mm or USUAL_TYRE_SHARE * band_width_mm
    return BandPosition(
        place=place,
        toothed_edge_mm=toothed_edge_mm(place, band_width_mm=band_width_mm, tyre_width_mm=tyre),
        tyre_width_mm=tyre,
        tyre_width_known=tyre_width_mm is not None,
        words=WORDS[place] + _why(job, rule, place),
    )
