"""Which pieces from which billets: the best plan that is found in a given time."""

from dataclasses import dataclass, replace
from typing import Annotated

from pydantic import Field

from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.stock.cut_list import (
    CutPlan,
    LaidSection,
    LeftOver,
    SectionPattern,
    Ways,
    YieldJob,
    laid_out,
    nothing_made_because,
    part_filled,
    patterns,
    plan_of,
    rest_mm,
    usable_length_mm,
)
from jade_ribbon.formats.sandbox import work_apart
from jade_ribbon.formats.yield_job import CutListInput
from jade_ribbon.solvers.cutting_stock import (
    SlicePatterns,
    StockPatterns,
    StockProgram,
    solve,
)

MOST_SECONDS = 0.85
"""For the value; tidying up takes at most a third as long again."""
LONGER_S = (MOST_SECONDS, 4.0, 12.0, 25.0)
"""How long each further look may take."""
BESIDE_S = 4.0
"""A reader may take so much longer than its look: to start, and to lay the plan out."""


END_FACE_SHARE = 0.01
"""Ends are weighed by whole hundredths of mm2 a unit of their length, rests by the same."""


def program_of(job: YieldJob, ways: Ways, kept: list[SectionPattern]) -> StockProgram:
    """The solver's plain figures of a job and the ways to fill its billets.

    A section takes its length and the crosscut kerf after it, of which a billet has one to spare.
    """
    kerf = job.crosscut_kerf_mm
    heights = sorted({b.height_mm for b in job.billets})

    def plain(patterns: list[SectionPattern]) -> StockPatterns:
        return StockPatterns(
            tuple(p.billet for p in patterns),
            tuple(p.length_mm + kerf for p in patterns),
            tuple(p.slices for p in patterns),
        )

    return StockProgram(
        billet_lengths=tuple(usable_length_mm(job, b) + kerf for b in job.billets),
        billet_groups=tuple(heights.index(b.height_mm) for b in job.billets),
        patterns=plain(ways.sections),
        slices=SlicePatterns(
            tuple(heights.index(s.height_mm) for s in ways.slices),
            tuple(s.thickness for s in ways.slices),
            tuple(s.length_mm + kerf for s in ways.slices),
            tuple(s.counts for s in ways.slices),
        ),
        wanted=tuple(p.count for p in job.pieces),
        values=tuple(p.value for p in job.pieces),
        end_faces=tuple(b.thickness_mm * b.height_mm * END_FACE_SHARE for b in job.billets),
        kept=plain(kept),
        kept_rests=tuple(
            rest_mm(job, p) * job.billets[p.billet].height_mm * p.length_mm * END_FACE_SHARE
            for p in kept
        ),
    )


@dataclass(frozen=True)
class BestPlan:
    """The best plan found, whether none is better, and what no plan is worth more than.

    `at_most` is None where not every way to fill a section was looked at.
    """

    plan: CutPlan
    proven: bool
    at_most: float | None


def best_plan(job: YieldJob, seconds: float = MOST_SECONDS) -> BestPlan:
    """The plan of greatest value found in so many seconds.

    InputError, saying what is missing, where no piece comes of any billet.
    """
    if words := nothing_made_because(job):
        raise refuse("billets", f"{words} Accepted: a billet that gives at least one piece.")
    ways = patterns(job)
    kept = part_filled(job)
    choice = solve(program_of(job, ways, kept), seconds=seconds)
    sections = [p for p, n in zip(ways.sections, choice.times, strict=True) for _ in range(n)]
    slices = [s for s, n in zip(ways.slices, choice.slice_times, strict=True) for _ in range(n)]
    if choice.kept is not None:
        sections.append(kept[choice.kept])
    plan = plan_of(job, sections, slices)
    bound = min(choice.at_most, sum(p.count * p.value for p in job.pieces))
    proven = choice.proven and ways.all_of_them
    return BestPlan(plan, proven, bound if ways.all_of_them else None)


@dataclass(frozen=True)
class BilletPlan:
    """A billet of a plan: its sections with their slices, where each lies, and its size, mm."""

    label: str
    thickness_mm: float
    height_mm: float
    length_mm: float
    sections: tuple[LaidSection, ...]


@dataclass(frozen=True)
class YieldAnswer:
    """A cutting plan as it is drawn and sawn."""

    billets: list[BilletPlan]
    made: dict[str, int]
    value: float
    left_over: list[LeftOver]
    kerf_m3: float
    waste_m3: float
    best: bool
    """Nothing better is possible; else it is the best that was found in time."""
    at_most: float | None
    """No plan makes more; None where that is not known."""
    looks_left: int
    """How many times it can still be looked for longer."""


class CutListQuestion(CutListInput):
    """A cut list, and for how long a plan is looked for: 0 the first look, 3 the longest."""

    longer: Annotated[int, Field(ge=0, le=len(LONGER_S) - 1)] = 0
    along_curve: bool = False
    """Bowed billets are sawn along their curve: the pieces keep it, and nothing is lost to it."""


def cut_list(asked: CutListQuestion) -> YieldAnswer:
    """The plan of a cut list. InputError, saying what is missing, where nothing can be made."""
    job = replace(asked.to_core(), along_curve=asked.along_curve)
    seconds = LONGER_S[asked.longer]
    best = work_apart("pieces", best_plan, job, seconds, limit_s=1.5 * seconds + BESIDE_S)
    plan = best.plan
    return YieldAnswer(
        billets=[
            BilletPlan(b.label, b.thickness_mm, b.height_mm, b.length_mm, laid)
            for b, laid in zip(job.billets, laid_out(job, plan), strict=True)
        ],
        made={p.label: n for p, n in zip(job.pieces, plan.made, strict=True)},
        value=plan.value,
        left_over=sorted(plan.left_over, key=lambda x: -x.volume_m3),
        kerf_m3=plan.kerf_m3,
        waste_m3=plan.waste_m3,
        best=best.proven,
        at_most=best.at_most,
        looks_left=0 if best.proven else len(LONGER_S) - 1 - asked.longer,
    )
