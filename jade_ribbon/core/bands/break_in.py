"""Breaking in a new hard edge: at half the bite until its sharpest points are gone."""

import math
from dataclasses import dataclass

from jade_ribbon.core.job import Cut
from jade_ribbon.core.quantities.words import Said, quantity, sentence

BREAK_IN_S = 1800.0
BREAK_IN_MM2 = 30_000.0
"""Half an hour of cutting, or 300 cm2, whichever comes first."""
BITE_SHARE = 0.5
WHOLE_SLACK = 1e-9
HARD_EDGES = ("bimetal", "carbide_tipped")
"""Steels (tokens) whose new edges chip at the full bite."""
FULL_SHARE = 0.75
"""A feed over so much of the planned one broke nothing in."""
UNBROKEN_WEAR = 2.0
"""Times that what is cut at the full bite meanwhile wears the edge: our judgement."""


NEW_UNDER = 0.1
"""An edge judged duller than this was used before it came: it is broken in."""


@dataclass(frozen=True)
class BreakIn:
    """A feed (m/min) for a new edge, what is left to be cut at it, and how many whole cuts."""

    feed_m_min: float
    left_mm2: float
    left_s: float
    whole_cuts: int
    words: Said


def is_new(*, sharpenings: int, judged: float | None) -> bool:
    """Whether an edge is a band's first, and nobody judged it to be used already."""
    return sharpenings == 0 and (judged is None or judged <= NEW_UNDER)


def left_share(steel_token: str, *, cut_mm2: float, cut_s: float) -> float:
    """Share of the breaking in that a new edge has before it; 0 of a steel that needs none.

    >>> left_share("bimetal", cut_mm2=7500.0, cut_s=0.0), left_share("carbon", cut_mm2=0, cut_s=0)
    (0.75, 0.0)
    """
    if steel_token not in HARD_EDGES:
        return 0.0
    return max(0.0, 1.0 - max(cut_mm2 / BREAK_IN_MM2, cut_s / BREAK_IN_S))


def break_in(
    steel_token: str,
    cut: Cut,
    *,
    cut_mm2: float,
    cut_s: float,
    planned_m_min: float,
    floor_m_min: float,
) -> BreakIn | None:
    """How a new edge is broken in: half the planned bite, never under the least; None where not.

    Areas in mm2 of cut, times in s of cutting, since the edge was new; `cut` is what it cuts next.

    Source: metal sawing practice: half feed for the first 300 cm2; docs/model "Breaking in".
    """
    if left_share(steel_token, cut_mm2=cut_mm2, cut_s=cut_s) <= 0.0:
        return None
    feed = max(BITE_SHARE * planned_m_min, min(floor_m_min, planned_m_min))
    area, seconds = BREAK_IN_MM2 - cut_mm2, BREAK_IN_S - cut_s
    a_cut_s = cut.at_full_chord_mm / 1000.0 / feed * 60.0
    cuts = min(area / cut.section_mm2, seconds / a_cut_s)
    whole = math.floor(cuts + WHOLE_SLACK)
    here: Said = f"about {whole} cuts" if whole > 1 else "the first cut"
    if whole < 1:
        here = sentence("the first ", quantity(cuts * cut.stroke_mm, "length"), " of a cut")
    words = sentence(
        "A new edge: break it in at ",
        quantity(feed, "feed"),
        " for ",
        quantity(area, "section"),
        f" or {seconds / 60.0:.0f} min, whichever is first: ",
        here,
        ". At the full bite its points chip.",
    )
    return BreakIn(feed, area, seconds, whole, words)


def unbroken_factor(
    steel_token: str,
    *,
    cut_mm2: float,
    cut_s: float,
    run_mm2: float,
    run_s: float,
    feed_m_min: float,
    planned_m_min: float | None,
) -> float:
    """Factor on a run's wear: what of it fell within the breaking in, cut at the full bite."""
    left = left_share(steel_token, cut_mm2=cut_mm2, cut_s=cut_s)
    if left <= 0.0 or planned_m_min is None or feed_m_min <= FULL_SHARE * planned_m_min:
        return 1.0
    took = max(run_mm2 / BREAK_IN_MM2, run_s / BREAK_IN_S)
    share = 1.0 if took <= left else left / took
    return 1.0 + (UNBROKEN_WEAR - 1.0) * share
