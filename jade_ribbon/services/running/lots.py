"""A lot under way, from the records of its job and band."""

import dataclasses

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from jade_ribbon.core.choosing.choose import choose
from jade_ribbon.core.choosing.evaluate import evaluate
from jade_ribbon.core.money.lot_stand import LotUnderWay, another_band, lot_stand
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import Said
from jade_ribbon.services.planning.jobs import job_with_band, plan_input
from jade_ribbon.services.planning.snapshot import Snapshot, job_for, rack_candidates
from jade_ribbon.services.rack.edges import chance, shop_lives
from jade_ribbon.store.models import BandRow, JobRow, RunRow, SawRow


def lot_under_way(session: Session, row: JobRow) -> LotUnderWay | None:
    """Where a job's lot stands; None before a run, once all is cut, or without its band."""
    done = session.scalar(
        select(func.sum(RunRow.pieces)).where(RunRow.job_id == row.id, RunRow.deleted_at.is_(None))
    )
    saw = session.get(SawRow, row.saw_id) if row.saw_id else None
    band = session.get(BandRow, row.band_id) if row.band_id else None
    if not done or saw is None or band is None:
        return None
    job, snapshot = job_with_band(session, row, saw, band.id)
    if not job.bands:
        return None
    as_it_is = job.bands[0]
    keen = dataclasses.replace(as_it_is, dullness=0.0, fouling=0.0)
    lives = shop_lives(session)
    limit = job.rates.dullness_limit(job.cut.finish, job.rules)
    found = lot_stand(
        job,
        evaluate(as_it_is, job),
        evaluate(keen, job),
        lambda metres: chance(band, lives, metres, limit=limit),
        done=done,
        slice_mm=row.slice_mm,
        feed_so_far_m_min=_feed_so_far(session, row.id),
    )
    if found is None or found.blocked:
        return found
    return dataclasses.replace(found, another=_another(snapshot, row, saw, band.id, found.left))


ALL_BESIDE = 200
"""All bands of a rack are looked at over the lot, so that the one that is on is among them."""


def _another(snapshot: Snapshot, row: JobRow, saw: SawRow, band_id: int, left: int) -> Said:
    """The rack's best for the pieces left, against the band that is on."""
    given = plan_input(row, saw.id)
    job = job_for(snapshot, saw, given, rack_candidates(snapshot, saw.id, given))
    rest = dataclasses.replace(job, cut=dataclasses.replace(job.cut, count=left))
    try:
        choice = choose(rest, beside=ALL_BESIDE)
    except InputError:
        return ""
    return another_band(choice, band_id, left, snapshot.shop.currency)


def _feed_so_far(session: Session, job_id: int) -> float | None:
    """The mean feed of a job's runs that are believed, m/min; None before any."""
    metres, minutes = session.execute(
        select(
            func.sum(RunRow.pieces * RunRow.length_mm / 1000.0), func.sum(RunRow.time_s / 60.0)
        ).where(RunRow.job_id == job_id, RunRow.deleted_at.is_(None), RunRow.to_confirm.is_(False))
    ).one()
    return float(metres) / float(minutes) if minutes else None
