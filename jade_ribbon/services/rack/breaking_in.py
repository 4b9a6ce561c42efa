"""What a band's first edge has cut so far, and how it is broken in."""

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from jade_ribbon.core.bands.break_in import BreakIn, break_in
from jade_ribbon.reference.tables import steels
from jade_ribbon.store.models import BandRow, RunSumRow


def cut_when_new(session: Session, band: BandRow) -> tuple[float, float] | None:
    """Area (mm2) and time (s) that a band cut since it was new; None once it was sharpened."""
    if band.sharpenings > 0:
        return None
    area, seconds = session.execute(
        select(func.sum(RunSumRow.area_m2), func.sum(RunSumRow.seconds)).where(
            RunSumRow.band_id == band.id
        )
    ).one()
    return float(area or 0.0) * 1e6, float(seconds or 0.0)


def break_in_of(
    session: Session, band: BandRow, *, planned_m_min: float, floor_m_min: float
) -> BreakIn | None:
    """How a band is broken in for a planned feed; None where there is nothing to break in."""
    cut = cut_when_new(session, band)
    if cut is None:
        return None
    return break_in(
        steels()[band.steel].token,
        cut_mm2=cut[0],
        cut_s=cut[1],
        planned_m_min=planned_m_min,
        floor_m_min=floor_m_min,
    )
