"""Past metal: the speed and the feed that strike it most gently."""

from dataclasses import dataclass

from jade_ribbon.core.bands.facts import BandFacts
from jade_ribbon.core.job import Job
from jade_ribbon.reference.tables import materials

NAILED = "reclaimed_nails"


@dataclass(frozen=True)
class SlowPass:
    """Band speed (m/s) with how it is set, and feed (m/min) past metal."""

    speed_m_s: float
    setting: str
    feed_m_min: float


def slow_pass(facts: BandFacts, job: Job, planned_m_min: float | None) -> SlowPass:
    """The fastest speed the saw has within the range of nailed timber, else its slowest.

    The feed is the least at which the teeth still cut there, so that each meets the metal with the
    smallest bite; never over half the planned one, where there is one.

    Source: materials table, nailed timber; reclaimers' practice; docs/model "Metal in the board".
    """
    drive = job.saw.drive
    nailed = materials()[NAILED]
    fit = [
        v
        for v in drive.speeds_to_try(nailed.speed_min_m_s, nailed.speed_max_m_s)
        if v <= nailed.speed_max_m_s
    ]
    speed = max(fit, default=drive.slowest_m_s)
    least = 60.0 * job.cut.material.bite_min_mm * speed / facts.pitch_mm
    feed = least if planned_m_min is None else min(least, planned_m_min / 2.0)
    return SlowPass(speed, drive.setting_words(speed), feed)
