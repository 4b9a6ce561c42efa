"""What a trouble is about: saw, band and job, and what the choice says of them."""

from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.choosing.evaluate import evaluate
from jade_ribbon.core.choosing.operating_point import Evaluation
from jade_ribbon.core.faults.measured import SawContext
from jade_ribbon.core.faults.trial_face import FACE_SIGNS, part_mm
from jade_ribbon.core.job import Job
from jade_ribbon.core.setup.figures import free_span_of
from jade_ribbon.core.setup.words import coplanar_limit_of
from jade_ribbon.services.clock import now
from jade_ribbon.services.planning.jobs import job_with_band
from jade_ribbon.services.records import get
from jade_ribbon.services.setup.roles import core_fittings
from jade_ribbon.services.shop.saws import core_saw
from jade_ribbon.services.shop.settings import read_shop
from jade_ribbon.store.models import BandRow, FaceRow, JobRow, SawRow


@dataclass(frozen=True)
class Scene:
    """A saw, its band and job where they are known, and the band in that job's cut."""

    saw: SawRow
    band: BandRow | None
    job: JobRow | None
    core: Job | None
    found: Evaluation | None
    at: datetime
    """When it is looked at."""


def scene_of(
    session: Session,
    saw_id: int,
    band_id: int | None,
    job_id: int | None,
    at: datetime | None = None,
) -> Scene:
    """The rows of a trouble, and the evaluation where saw, band and job allow one."""
    saw: SawRow = get(session, "saw", saw_id)
    band = session.get(BandRow, band_id) if band_id else None
    row = session.get(JobRow, job_id) if job_id else None
    core = found = None
    if band is not None and row is not None:
        core, _ = job_with_band(session, row, saw, band.id)
        found = evaluate(core.bands[0], core) if core.bands else None
    return Scene(saw, band, row, core, found, at or now())


def speed_of(scene: Scene) -> float | None:
    """The band speed (m/s) that is set, or the only one the saw has."""
    if scene.saw.speed_set_m_s is not None:
        return scene.saw.speed_set_m_s
    speeds = core_saw(scene.saw).drive.speeds_m_s
    return speeds[0] if len(speeds) == 1 else None


def _complaint_mm(session: Session, scene: Scene, complaint: str) -> float | None:
    """How much of a sign the last face of this job had that was read before, mm."""
    if complaint not in FACE_SIGNS or scene.job is None:
        return None
    face = session.scalars(
        select(FaceRow)
        .where(
            FaceRow.job_id == scene.job.id,
            FaceRow.saw_id == scene.saw.id,
            FaceRow.at <= scene.at,
            FaceRow.trial == "",
            FaceRow.deleted_at.is_(None),
        )
        .order_by(FaceRow.at.desc(), FaceRow.id.desc())
    ).first()
    return None if face is None else part_mm(face.readings, complaint)


def saw_context(session: Session, scene: Scene, complaint: str = "") -> SawContext:
    """What measured checks are held against."""
    saw, shop = core_saw(scene.saw), read_shop(session)
    found = scene.found
    facts = found.facts if found else None
    window = found.window if found else None
    return SawContext(
        stress_target_MPa=facts.stress_target_MPa if facts else None,
        width_mm=facts.band.width_mm if facts else None,
        gullet_depth_mm=facts.gullet_depth_mm if facts else None,
        thickness_mm=facts.band.thickness_mm if facts else None,
        free_span_mm=free_span_of(saw, facts.length_mm) if facts else None,
        band_length_mm=scene.band.length_mm if scene.band else None,
        pitch_mm=facts.pitch_mm if facts else None,
        wheel_diameters_mm=tuple(saw.wheel_diameters_mm),
        speed_m_s=speed_of(scene),
        speed_target_m_s=found.speed.accepted.target_m_s if found and found.speed else None,
        floor_m_min=window.floor_m_min if window else None,
        ceiling_m_min=window.ceiling_m_min if window else None,
        gullet_limit_m_min=window.limits_m_min.get("gullet") if window else None,
        set_per_side_mm=facts.set_per_side_mm if facts else None,
        guard_gap_mm=shop.guard_gap_mm,
        plane_limit_mm=coplanar_limit_of(saw),
        plan_breaks=tuple(c.key for c in found.conflicts) if found else None,
        window_shut_by=window.binding if window and window.state == "shut" else "",
        least_wheel_ratio=facts.steel.min_D_over_t if facts else None,
        complaint=complaint,
        complaint_mm=_complaint_mm(session, scene, complaint),
        bending_share=scene.band.bending_share if scene.band and scene.band.runs else None,
        teeth_most=scene.core.cut.material.teeth_in_cut_max if scene.core else None,
    )


def belt_of(scene: Scene) -> tuple[float | None, float | None]:
    """Belt length and the wheel's pulley (mm), where the saw's fittings say."""
    fittings = core_fittings(scene.saw)
    return fittings.belt_length_mm, fittings.wheel_pulley_mm
