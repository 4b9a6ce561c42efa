"""The motor's watts: what a run says of a cutting pressure, and what all of them say."""

import math
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.bands.facts import band_facts
from jade_ribbon.core.inspection.evidence import (
    PowerReading,
    pressure_by_watts,
    reference_pressure_MPa,
)
from jade_ribbon.core.job import Candidate, Job
from jade_ribbon.services.records import projected
from jade_ribbon.services.running.inputs import RunInput
from jade_ribbon.services.shop.materials import material_table
from jade_ribbon.services.shop.settings import shop_row
from jade_ribbon.store.models import RunRow


def pressure_of(
    given: RunInput, band: Candidate, job: Job, *, feed_m_min: float, speed_m_s: float
) -> float | None:
    """Cutting pressure (MPa, bite 0.1 mm, keen) that a run's watts say; None without them."""
    facts = band_facts(band, job)
    watts = given.watts()
    if watts is None or not facts.has_teeth:
        return None
    material = job.cut.material
    reading = PowerReading(
        power_W=watts[0],
        idle_W=watts[1],
        drive_efficiency=job.saw.drive_efficiency,
        kerf_mm=facts.kerf_mm,
        height_mm=job.cut.loaded_height_mm,
        feed_m_min=feed_m_min,
        speed_m_s=speed_m_s,
        pitch_mm=facts.pitch_mm,
        dullness=band.dullness,
    )
    return reference_pressure_MPa(reading, material.size_exponent_m, material.dull_energy_gain)


@projected("run")
def refresh_pressure(session: Session, row: RunRow) -> None:
    """A material's own cutting pressure follows the runs that measured it, whoever changed them."""
    if row.k_ref_MPa is None:
        return
    session.flush()
    seen = session.execute(
        select(RunRow.k_ref_MPa, RunRow.amps_A).where(
            RunRow.material == row.material,
            RunRow.k_ref_MPa.is_not(None),
            RunRow.to_confirm.is_(False),
            RunRow.deleted_at.is_(None),
        )
    ).all()
    shop = shop_row(session)
    session.add(shop)
    pressures: dict[str, Any] = dict((shop.learned or {}).get("pressures", {}))
    material = material_table(session).get(row.material)
    pressures.pop(row.material, None)
    if seen and material is not None:
        found = pressure_by_watts(
            material.specific_cutting_pressure_MPa,
            math.log1p(material.kc_uncertainty_pct / 100.0),
            [(k, amps is not None) for k, amps in seen if k is not None],
        )
        pressures[row.material] = {
            "K_ref_MPa": found.K_ref_MPa,
            "sd_ln": found.sd_ln,
            "runs": len(seen),
        }
    shop.learned = {**(shop.learned or {}), "pressures": pressures}
