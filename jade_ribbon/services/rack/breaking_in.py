"""What a band's first edge has cut so far, and how it is broken in."""

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from jade_ribbon.core.bands.break_in import BreakIn, break_in, is_new
from jade_ribbon.core.job import Cut
from jade_ribbon.reference.tables import steels
from jade_ribbon.store.models import BandRow, RunSumRow


def cut_when_new(session: Session, band: BandRow) -> tuple[float, float] | None:
    """Area (mm2) and time (s) that a band cut since it was new; None of an edge that is not."""
    judged = None if band.judged is None else float(band.judged["dullness"])
    if not is_new(sharpenings=band.sharpenings, judged=judged):
        return None
    area, seconds = session.execute(
        select(func.sum(RunSumRow.area_m2), func.sum(RunSumRow.seconds)).where(
            RunSumRow.band_id == band.id
        )
    ).one()
    return float(area or 0.0) * 1e6, float(seconds or 0.0)


def break_in_of(
    session: Session, band: BandRow, cut: Cut, *, planned_m_min: float, floor_m_min: float
) -> BreakIn | None:
    """How a band is broken in for a planned feed; None where there is nothing to break in."""
    before = cut_when_new(session, band)
    if before is None:
        return None
    return break_in(
        steels()[band.steel].token,
        cut,
        cut_mm2=before[0],
        cut_s=before[1],
        planned_m_min=planned_m_min,
        floor_m_min=floor_m_min,
    )
