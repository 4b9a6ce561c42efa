"""What a run does to its band, and whether it is believed: the same however it came in."""

from jade_ribbon.core.bands.break_in import unbroken_factor
from jade_ribbon.core.choosing.evaluate import planned_for
from jade_ribbon.core.edge.run_pace import doubt
from jade_ribbon.core.edge.run_wear import run_wear
from jade_ribbon.core.job import Candidate, Job
from jade_ribbon.reference.tables import steels
from jade_ribbon.store.models import RunRow


def wear_in(
    row: RunRow,
    band: Candidate,
    job: Job,
    *,
    planned_length_mm: float,
    confirmed: bool,
    cut_when_new: tuple[float, float] | None = None,
) -> None:
    """Wear a run in, and hold it against the plan: unlike it, and not confirmed, it waits.

    Its feed, speed and length stand on it already. `cut_when_new`: area (mm2) and time (s) that a
    first edge had cut before; a hard one not broken in wears faster.
    """
    wear = run_wear(band, job, feed_m_min=row.feed_m_min, speed_m_s=row.speed_m_s)
    row.contact_m, row.equivalent_m = wear.contact_m, wear.equivalent_m
    row.fouling_gain = wear.fouling_gain
    row.bending_share = min(wear.bending_share, 1.0)
    planned = planned_for(band, job)
    row.planned_m_min, row.planned_length_mm = planned.feed_m_min, planned_length_mm
    row.floor_m_min = planned.floor_m_min
    if cut_when_new is not None:
        row.equivalent_m *= unbroken_factor(
            steels()[band.steel].token,
            cut_mm2=cut_when_new[0],
            cut_s=cut_when_new[1],
            run_mm2=row.height_mm * row.length_mm * row.pieces,
            run_s=row.time_s,
            feed_m_min=row.feed_m_min,
            planned_m_min=row.planned_m_min,
        )
    asked = doubt(
        feed_m_min=row.feed_m_min,
        planned_m_min=row.planned_m_min,
        length_mm=row.length_mm,
        planned_length_mm=planned_length_mm,
    )
    odd = asked is not None or not planned.fits or bool(row.time_doubt)
    row.to_confirm = odd and not confirmed
