"""What a run does to its band, and whether it is believed: the same however it came in."""

from jade_ribbon.core.choosing.evaluate import planned_for
from jade_ribbon.core.edge.run_pace import doubt
from jade_ribbon.core.edge.run_wear import run_wear
from jade_ribbon.core.job import Candidate, Job
from jade_ribbon.store.models import RunRow


def wear_in(
    row: RunRow, band: Candidate, job: Job, *, planned_length_mm: float, confirmed: bool
) -> None:
    """Wear a run in, and hold it against the plan: unlike it, and not confirmed, it waits.

    Its feed, speed and length stand on it already.
    """
    wear = run_wear(band, job, feed_m_min=row.feed_m_min, speed_m_s=row.speed_m_s)
    row.contact_m, row.equivalent_m = wear.contact_m, wear.equivalent_m
    row.fouling_gain = wear.fouling_gain
    row.bending_share = min(wear.bending_share, 1.0)
    planned = planned_for(band, job)
    row.planned_m_min, row.planned_length_mm = planned.feed_m_min, planned_length_mm
    row.floor_m_min = planned.floor_m_min
    asked = doubt(
        feed_m_min=row.feed_m_min,
        planned_m_min=row.planned_m_min,
        length_mm=row.length_mm,
        planned_length_mm=planned_length_mm,
    )
    odd = asked is not None or not planned.fits or bool(row.time_doubt)
    row.to_confirm = odd and not confirmed
