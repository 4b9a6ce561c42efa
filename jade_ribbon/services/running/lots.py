"""A lot under way: what is done and left, what this edge still has, go on or change now."""

import dataclasses
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.choosing.at_the_cut import Evaluation
from jade_ribbon.core.choosing.evaluate import evaluate
from jade_ribbon.core.job import Job
from jade_ribbon.core.money.change_now import ChangeNow, change_now
from jade_ribbon.core.quantities.words import Said, sentence
from jade_ribbon.services.planning.jobs import plan_input
from jade_ribbon.services.planning.snapshot import job_for, rack_candidates, read_snapshot
from jade_ribbon.services.rack.bands import chance, shop_lives
from jade_ribbon.store.models import BandRow, JobRow, RunRow, SawRow

SURE, UNLIKELY = 0.9, 0.1
MOST_PIECES = 100_000
SPOILT_THICKNESS_MM = 20.0
"""Of a piece whose thickness the job does not say."""
KEPT_FOR_ROUGH = 0.5
"""A band taken off before its edge is done keeps so much of what is left: for rougher work."""


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
    blocked: bool
    """Plan would not choose this band as it is: `words` say why, and what would help."""


def _pieces_at(row: BandRow, session: Session, piece_m: float, limit: float, wanted: float) -> int:
    """Most pieces that the edge lasts with a chance."""
    lives = shop_lives(session)

    def lasts(pieces: int) -> bool:
        return chance(row, lives, pieces * piece_m, limit=limit) >= wanted

    low, high = 0, 1
    while high < MOST_PIECES and lasts(high):
        low, high = high, 2 * high
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if lasts(middle) else (low, middle)
    return low


def lot_under_way(session: Session, row: JobRow) -> LotUnderWay | None:
    """Where a job's lot stands; None before a run, once all is cut, or for a band with no run."""
    if row.saw_id is None or row.band_id is None:
        return None
    pieces = session.scalars(
        select(RunRow.pieces).where(RunRow.job_id == row.id, RunRow.deleted_at.is_(None))
    ).all()
    done, left = sum(pieces), max(0, row.count - sum(pieces))
    saw, band = session.get(SawRow, row.saw_id), session.get(BandRow, row.band_id)
    if not pieces or left == 0 or saw is None or band is None:
        return None
    given = plan_input(row, saw.id)
    snapshot = read_snapshot(session)
    found = [b for b in rack_candidates(snapshot, saw.id, given) if b.band_id == band.id]
    if not found:
        return None
    job = job_for(snapshot, saw, given, tuple(found))
    now_ = evaluate(found[0], job)
    keen = evaluate(dataclasses.replace(found[0], dullness=0.0, fouling=0.0), job)
    if keen.run is None:
        return None
    thick = row.slice_mm or SPOILT_THICKNESS_MM
    timber = job.cut.length_mm * job.cut.height_mm * thick * 1e-9 * job.rates.timber_m3
    return _stand(session, job, band, (done, left), (now_, keen), timber)


def _stand(
    session: Session,
    job: Job,
    band: BandRow,
    counted: tuple[int, int],
    edges: tuple[Evaluation, Evaluation],
    spoilt: float,
) -> LotUnderWay:
    """A lot by pieces done and left, the edge as it is and keen, and a spoilt piece's money."""
    (done, left), (now_, keen) = counted, edges
    assert keen.run is not None
    run = now_.run or keen.run
    limit = job.rates.dullness_limit(job.cut.finish, job.rules)

    def pieces_at(wanted: float) -> int:
        return _pieces_at(band, session, piece_m, limit, wanted)

    piece_m = run.equivalent_m
    chance_next = chance(band, shop_lives(session), piece_m, limit=limit)
    blocked = now_.run is None
    if blocked:
        chance_next = 0.0
    slower = max(0.0, run.contact.cutting_time_s - keen.run.contact.cutting_time_s) / 60.0
    worth = max(0.0, 1.0 - now_.facts.band.dullness / limit) if limit > 0.0 else 0.0
    decision = change_now(
        chance_lasts=chance_next,
        spoil_value=spoilt,
        interruption_min=0.0,
        change_min=job.rates.change_min,
        hour_rate=job.rates.hour,
        edge_value_left=worth * now_.facts.price,
        salvage_share=KEPT_FOR_ROUGH,
        slower_min=slower,
    )
    return LotUnderWay(
        done=done,
        left=left,
        pieces_low=0 if blocked else min(left, pieces_at(SURE)),
        pieces_high=0 if blocked else min(left, pieces_at(UNLIKELY)),
        chance_next=chance_next,
        go_on=decision,
        words=_blocked_words(now_) if blocked else _words(decision, chance_next),
        blocked=blocked,
    )


def _blocked_words(found: Evaluation) -> Said:
    """Why Plan would not choose a band as it is now."""
    why = found.conflicts[0].text if found.conflicts else "its window is shut"
    return sentence("Stop and see to the band: ", why, ".")


def _words(decision: ChangeNow, chance_next: float) -> str:
    said = "Go on with this edge." if decision.better == "go_on" else "Change the band now."
    if decision.even_at_chance is None:
        return said
    even = f"{100 * decision.even_at_chance:.0f} %"
    now_ = "over 99 %" if chance_next > 0.99 else f"{100 * chance_next:.0f} %"
    tips = f"It tips where the chance that it lasts the next piece is {even}"
    return f"{said} {tips}; now it is {now_}."
