"""What the records of a saw, a band and a job say before anybody looks: read by themselves.

A record that is missing is no evidence: its reading is left out. So is one that nobody measured.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import func, select, true
from sqlalchemy.orm import Session

from jade_ribbon.services.faults.context import Scene, speed_of
from jade_ribbon.services.rack.edges import dullness_of, shop_lives
from jade_ribbon.services.rack.replay import AS_PLANNED
from jade_ribbon.store.models import (
    AlignmentRow,
    BandEventRow,
    DriftRow,
    RunRow,
    SawRow,
    SetupRow,
    SetupStepRow,
    StockRow,
    UpkeepRow,
)

DAY_S = 86_400.0
RUN_DAYS, TENSION_DAYS = 3.0, 14.0
"""A feed and a tension older than this are not those of the trouble."""
NEW_DAYS, RUNS_KEPT = 120.0, 10
"""A band that came lately, or has so many runs on record, has them on record all."""
TRIALS = 5
"""The trend of drift is the change over so many measurements."""
SEEN_OF_AN_EDGE = ("edge_judged", "sharpened", "life_confirmed")
MEASURED_MEANS = ("gauge", "pluck", "push")
"""What measures tension; the saw's own scale and wheel travel only say what was set."""


@dataclass(frozen=True)
class RecordReading:
    """One reading: its figure, and the record that it was read from."""

    reads: str
    value: float
    source: str
    at: datetime | None


def _days(at: datetime, then: datetime) -> float:
    return max((then - at).total_seconds() / DAY_S, 0.0)


def _steps(
    session: Session, scene: Scene, key: str, *, of_job: bool = False
) -> SetupStepRow | None:
    """The last time a step was done with this band on this saw, or for this very job."""
    if scene.band is None or (of_job and scene.job is None):
        return None
    job = SetupRow.job_id == scene.job.id if of_job and scene.job else true()
    return session.scalars(
        select(SetupStepRow)
        .join(SetupRow, SetupStepRow.setup_id == SetupRow.id)
        .where(
            SetupRow.saw_id == scene.saw.id,
            SetupRow.band_id == scene.band.id,
            job,
            SetupRow.deleted_at.is_(None),
            SetupStepRow.key == key,
            SetupStepRow.deleted_at.is_(None),
        )
        .order_by(SetupStepRow.at.desc(), SetupStepRow.id.desc())
    ).first()


def _edge(session: Session, scene: Scene) -> Iterator[RecordReading]:
    """Dullness, fouling and bending of a band that has a record of work."""
    band = scene.band
    if band is None:
        return
    seen = session.scalars(
        select(BandEventRow.kind).where(
            BandEventRow.band_id == band.id, BandEventRow.deleted_at.is_(None)
        )
    ).all()
    rack = f"rack, {band.label}"
    if band.runs or any(kind in SEEN_OF_AN_EDGE for kind in seen):
        life = shop_lives(session).of(band.steel, band.sharpenings)
        dull = min(dullness_of(band, life), 2.0)
        yield RecordReading("dullness", dull, rack, band.last_run_at)
    if not band.runs:
        return
    yield RecordReading("fouling", min(max(band.fouling, 0.0), 1.0), rack, band.last_run_at)
    yield RecordReading("bending_life_share", band.bending_share, rack, band.last_run_at)
    known = band.runs >= RUNS_KEPT or _days(band.arrived_at, scene.at) <= NEW_DAYS
    if known and "edge_judged" not in seen[:1]:
        # A band that came with an edge already worn had runs that nobody wrote down here; one
        # that hung here for months with next to none may have, too.
        yield RecordReading("runs_since_welding", float(band.runs), rack, band.last_run_at)


def _hits(session: Session, scene: Scene) -> Iterator[RecordReading]:
    """Metal struck since the last sharpening, of a band whose runs are written down."""
    band = scene.band
    if band is None or not band.runs:
        return
    sharpened = session.scalar(
        select(func.max(BandEventRow.at)).where(
            BandEventRow.band_id == band.id,
            BandEventRow.kind == "sharpened",
            BandEventRow.deleted_at.is_(None),
        )
    )
    strikes = select(func.coalesce(func.sum(RunRow.strikes), 0)).where(
        RunRow.band_id == band.id, RunRow.deleted_at.is_(None)
    )
    noted = select(func.count()).where(
        BandEventRow.band_id == band.id,
        BandEventRow.kind == "hit",
        BandEventRow.deleted_at.is_(None),
    )
    if sharpened is not None:
        strikes = strikes.where(RunRow.at > sharpened)
        noted = noted.where(BandEventRow.at > sharpened)
    found = float(session.scalar(strikes) or 0) + float(session.scalar(noted) or 0)
    yield RecordReading("hits_since_sharpening", found, f"runs of {band.label}", sharpened)


def _last_run(session: Session, scene: Scene) -> RunRow | None:
    if scene.band is None or scene.job is None:
        return None
    return session.scalars(
        select(RunRow)
        .where(
            RunRow.saw_id == scene.saw.id,
            RunRow.band_id == scene.band.id,
            RunRow.job_id == scene.job.id,
            RunRow.to_confirm.is_(False),
            RunRow.deleted_at.is_(None),
        )
        .order_by(RunRow.at.desc(), RunRow.id.desc())
    ).first()


def _feed(session: Session, scene: Scene) -> Iterator[RecordReading]:
    """The feed of this job's last run against its window; one logged as planned tells nothing."""
    run = _last_run(session, scene)
    window = scene.found.window if scene.found else None
    if run is None or _days(run.at, scene.at) > RUN_DAYS:
        return
    when = f"run of {run.at:%d %b}"
    if any(stop.get("why") == "knot" for stop in run.stops):
        yield RecordReading("knots_noted", 1.0, when, run.at)
    planned = run.planned_m_min
    if window is None or (planned and abs(run.feed_m_min / planned - 1.0) < AS_PLANNED):
        return
    yield RecordReading("feed_over_ceiling", run.feed_m_min / window.ceiling_m_min, when, run.at)
    yield RecordReading("feed_under_floor", window.floor_m_min / run.feed_m_min, when, run.at)
    gullet = window.limits_m_min.get("gullet")
    if gullet:
        yield RecordReading("gullet_fill", run.feed_m_min / gullet, when, run.at)


def _ran_slack(session: Session, saw: SawRow) -> bool:
    """Whether a run is on record since the saw was slackened; at rest it may well be slack."""
    if saw.tension_since is None:
        return False
    run = session.scalars(
        select(RunRow.id).where(
            RunRow.saw_id == saw.id, RunRow.at > saw.tension_since, RunRow.deleted_at.is_(None)
        )
    ).first()
    return run is not None


def _tension(session: Session, scene: Scene) -> Iterator[RecordReading]:
    """Tension as last measured with this band, if it is the one that is on."""
    saw, band = scene.saw, scene.band
    if saw.tension_state == "on" or (saw.tension_state == "slack" and _ran_slack(session, saw)):
        slack = float(saw.tension_state == "slack")
        yield RecordReading("tension_released", slack, saw.name, saw.tension_since)
    step = _steps(session, scene, "tension")
    if step is None or not step.done or band is None or saw.mounted_band_id != band.id:
        return
    if step.means not in MEASURED_MEANS:
        return
    yield RecordReading("days_since_tension", _days(step.at, scene.at), "set-up card", step.at)
    stress = step.left.get("stress_MPa")
    target = scene.found.facts.stress_target_MPa if scene.found else None
    if stress and target and _days(step.at, scene.at) <= TENSION_DAYS:
        yield RecordReading(
            "stress_share_of_target", float(stress) / target, "set-up card", step.at
        )


def _cut(session: Session, scene: Scene) -> Iterator[RecordReading]:
    """Teeth, speed and the stock of the job."""
    found, core = scene.found, scene.core
    if found is not None and found.facts.has_teeth:
        yield RecordReading("teeth_in_cut", found.teeth_in_cut, "job and band", None)
    if core is not None:
        gum = core.cut.material.gum_factor
        yield RecordReading("material_gum", min(max(gum, 0.0), 1.0), core.cut.material.name, None)
    speed = speed_of(scene)
    if found is not None and found.speed is not None and speed is not None:
        share = speed / found.speed.accepted.target_m_s
        yield RecordReading("speed_over_target", share, scene.saw.name, None)
    stock = session.get(StockRow, scene.job.stock_id) if scene.job and scene.job.stock_id else None
    if stock is None:
        return
    note = f"stock {stock.label}"
    if stock.moisture_pct is not None:
        yield RecordReading("stock_moisture", stock.moisture_pct, note, stock.moisture_at)
    yield RecordReading("stock_reactive", float(stock.reactive), note, None)


def _wheels(session: Session, scene: Scene) -> Iterator[RecordReading]:
    """Truing and tyres of the saw, where they are on record."""
    saw = scene.saw
    trued = session.scalars(
        select(AlignmentRow)
        .where(
            AlignmentRow.saw_id == saw.id,
            AlignmentRow.finished_at.is_not(None),
            AlignmentRow.deleted_at.is_(None),
        )
        .order_by(AlignmentRow.finished_at.desc())
    ).first()
    if trued is not None and trued.finished_at is not None:
        ran = session.scalar(
            select(func.coalesce(func.sum(RunRow.time_s), 0.0)).where(
                RunRow.saw_id == saw.id,
                RunRow.at > trued.finished_at,
                RunRow.deleted_at.is_(None),
            )
        )
        hours = float(ran or 0.0) / 3600.0
        yield RecordReading("hours_since_alignment", hours, "truing", trued.finished_at)
        gap = trued.moves[-1]["gap_mm"] if trued.moves else trued.start_mm
        yield RecordReading("gap_last_alignment_mm", abs(float(gap)), "truing", trued.finished_at)
    tyres = session.scalar(
        select(func.max(UpkeepRow.at)).where(
            UpkeepRow.saw_id == saw.id,
            UpkeepRow.key.in_(("tyres", "tyre_age")),
            UpkeepRow.found == "right",
            UpkeepRow.deleted_at.is_(None),
        )
    )
    if tyres is not None:
        yield RecordReading("days_since_tyre", _days(tyres, scene.at), "upkeep", tyres)


def _set_up(session: Session, scene: Scene) -> Iterator[RecordReading]:
    """Guard, fence and drift of this band's set-ups."""
    guard = _steps(session, scene, "guard", of_job=True)
    if guard is not None and guard.done and scene.core is not None:
        above = guard.left.get("clear_mm")
        if above is None and guard.left.get("height_mm") is not None:
            above = float(guard.left["height_mm"]) - scene.core.cut.standing_height_mm
        if above is not None and above >= 0.0:
            yield RecordReading("guard_above_work_mm", float(above), "set-up card", guard.at)
    if scene.band is None:
        return
    drifts = session.scalars(
        select(DriftRow)
        .where(
            DriftRow.band_id == scene.band.id,
            DriftRow.saw_id == scene.saw.id,
            DriftRow.deleted_at.is_(None),
        )
        .order_by(DriftRow.at.desc(), DriftRow.id.desc())
        .limit(TRIALS)
    ).all()
    if len(drifts) >= 2:
        trend = abs(drifts[0].angle_deg - drifts[-1].angle_deg)
        words = f"{len(drifts)} drift trials"
        yield RecordReading("drift_deg_trend", trend, words, drifts[0].at)
    step = _steps(session, scene, "drift", of_job=True)
    if step is not None and (step.done or step.skipped):
        matched = float(step.done and bool(drifts) and drifts[0].method == "fence")
        if step.skipped or (drifts and drifts[0].method == "fence"):
            yield RecordReading("fence_matched_to_drift", matched, "set-up card", step.at)


READERS: tuple[Callable[[Session, Scene], Iterator[RecordReading]], ...] = (
    _edge,
    _hits,
    _feed,
    _tension,
    _cut,
    _wheels,
    _set_up,
)


def readings_from_records(session: Session, scene: Scene) -> list[RecordReading]:
    """Every reading that the records give of a saw, its band and its job."""
    return [reading for read in READERS for reading in read(session, scene)]
