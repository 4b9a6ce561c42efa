"""A lot under way: what this edge still has, and whether the next piece is better on another."""

import dataclasses
from collections.abc import Callable
from dataclasses import dataclass

from jade_ribbon.core.choosing.choose import CLOSE_SHARE, Choice, Ranked
from jade_ribbon.core.choosing.lot import lots
from jade_ribbon.core.choosing.operating_point import Evaluation
from jade_ribbon.core.choosing.uncertainty.confidence import lot_words
from jade_ribbon.core.edge.run_pace import PACES
from jade_ribbon.core.job import Job
from jade_ribbon.core.money.change_now import ChangeNow, change_now
from jade_ribbon.core.quantities.chances import LEAST, chance_percent
from jade_ribbon.core.quantities.words import Said, figure, sentence

SURE, UNLIKELY = 0.9, 0.1
SPOILT_THICKNESS_MM = 20.0
"""Of a piece whose thickness the job does not say."""
KEPT_FOR_ROUGH = 0.5
"""A band taken off before its edge is done keeps so much of what is left: for rougher work."""

Lasts = Callable[[float], float]
"""The chance that an edge lasts so many more equivalent metres."""


@dataclass(frozen=True)
class LotUnderWay:
    """Where a lot stands, and whether the next piece is better cut with this edge or another."""

    done: int
    left: int
    pieces_low: int
    pieces_high: int
    """Pieces this edge still has: nine chances in ten, and one in ten."""
    chance_next: float
    go_on: ChangeNow
    words: Said
    pace_words: str
    """How fast it went so far against the plan; empty before a run was timed."""
    bands_words: Said
    """Bands that what is left will take, and in how many hours."""
    blocked: bool
    """Plan would not choose this band as it is: `words` say why, and what would help."""
    another: Said = ""
    """Another band of the rack that does what is left for clearly less, the change counted."""


def another_band(choice: Choice, mounted_id: int, left: int, currency: str) -> Said:
    """What changing to the rack's best for the pieces left would save; '' unless clearly.

    Costs of a piece within a tenth are too close to change a band for.
    """
    best = choice.best
    now = next((r for r in choice.ranked if _band_id(r) == mounted_id), None)
    if best is None or now is None or _band_id(best) == mounted_id or now.lot is None:
        return ""
    if best.total > (1.0 - CLOSE_SHARE) * now.total:
        return ""
    pitch = best.evaluation.facts.pitch_mm / now.evaluation.facts.pitch_mm
    kind = "coarser, " if pitch > 1.1 else "finer, " if pitch < 1.0 / 1.1 else ""
    money = figure((now.total - best.total) * left, 2)
    label = best.evaluation.facts.band.label
    return f"{label} ({kind}changed over) does the {left} left for some {currency} {money} less."


def _band_id(ranked: Ranked) -> int | None:
    return ranked.evaluation.facts.band.band_id


def pieces_left(lasts: Lasts, piece_m: float, *, most: int, wanted: float) -> int:
    """Most pieces, up to so many, that an edge lasts with a chance; it only falls with metres.

    >>> pieces_left(lambda m: 1.0 - m / 100.0, 10.0, most=50, wanted=0.35)
    6
    """
    low, high = 0, most + 1
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if lasts(middle * piece_m) >= wanted else (low, middle)
    return low


def lot_stand(
    job: Job,
    now: Evaluation,
    keen: Evaluation,
    lasts: Lasts,
    *,
    done: int,
    slice_mm: float | None,
    feed_so_far_m_min: float | None = None,
) -> LotUnderWay | None:
    """A lot by its edge as it is and keen; None once all is cut, or where even a keen one cannot.

    The next piece: going on may spoil its timber and takes longer; changing first costs the change
    and what the edge was still worth to finer work.
    """
    left = job.cut.count - done
    if keen.run is None or left <= 0:
        return None
    run, blocked = now.run or keen.run, now.run is None
    limit = job.rates.dullness_limit(job.cut.finish, job.rules)
    chance = 0.0 if blocked else lasts(run.equivalent_m)
    slower_s = run.contact.cutting_time_s - keen.run.contact.cutting_time_s
    spoilt_m3 = job.cut.length_mm * job.cut.height_mm * (slice_mm or SPOILT_THICKNESS_MM) * 1e-9
    decision = change_now(
        chance_lasts=chance,
        spoil_value=spoilt_m3 * job.rates.timber_m3,
        interruption_min=0.0,
        change_min=job.rates.change_min,
        hour_rate=job.rates.hour,
        edge_value_left=now.facts.price * max(0.0, 1.0 - now.facts.band.dullness / limit),
        salvage_share=KEPT_FOR_ROUGH,
        slower_min=max(0.0, slower_s) / 60.0,
    )
    most = 0 if blocked else left
    return LotUnderWay(
        done=done,
        left=left,
        pieces_low=pieces_left(lasts, run.equivalent_m, most=most, wanted=SURE),
        pieces_high=pieces_left(lasts, run.equivalent_m, most=most, wanted=UNLIKELY),
        chance_next=chance,
        go_on=decision,
        words=_blocked_words(now) if blocked else _words(decision, chance),
        pace_words=_pace(feed_so_far_m_min, run.feed_m_min),
        bands_words="" if blocked else _to_come(job, now, left),
        blocked=blocked,
    )


def _blocked_words(found: Evaluation) -> Said:
    """Why a band would not be chosen as it is now."""
    why = found.conflicts[0].text if found.conflicts else "its window is shut"
    return sentence("Stop and see to the band: ", why, ".")


def _words(decision: ChangeNow, chance: float) -> str:
    on = decision.better == "go_on"
    said = "Go on with this edge." if on else "Change the band now."
    if decision.even_at_chance is None:
        return said
    even, now = chance_percent(decision.even_at_chance), chance_percent(chance)
    if on and decision.even_at_chance < LEAST:
        return f"{said} This band should last."
    return f"{said} It lasts the next piece with a chance of {now}; below {even}, change."


def _pace(so_far_m_min: float | None, planned_m_min: float) -> str:
    """The feed so far beside the one planned for the edge as it is, by the words of a run."""
    if so_far_m_min is None:
        return ""
    share = so_far_m_min / planned_m_min
    named = next(p.words for p in PACES if p.upto_share is None or share <= p.upto_share)
    return f"so far {named}"


def _to_come(job: Job, now: Evaluation, left: int) -> Said:
    """Bands and hours that the pieces left take, the forecast over unknown lives."""
    rest = dataclasses.replace(job, cut=dataclasses.replace(job.cut, count=left))
    found = lots([now], rest)[0]
    hours = found.forecast.minutes_mean / 60.0
    time = f"{60.0 * hours:.0f} min" if hours < 1.5 else f"{figure(hours, 2)} h"
    return f"{lot_words(found)}; about {time} more."
