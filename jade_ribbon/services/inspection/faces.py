"""Faces of sawn pieces: read, kept, advised on, and what they teach of their saw."""

import dataclasses
import math
from dataclasses import dataclass
from datetime import datetime
from typing import cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.bands.facts import FINISH_ORDER
from jade_ribbon.core.choosing.cost import delivered_place
from jade_ribbon.core.choosing.evaluate import evaluate
from jade_ribbon.core.choosing.operating_point import Evaluation, figures_at
from jade_ribbon.core.faults.ridges import RidgeSource, ridge_source, ridge_words
from jade_ribbon.core.inspection.advice import FaceAdvice, Guided, SetFigures, advise_on
from jade_ribbon.core.inspection.face import Face, read_face
from jade_ribbon.core.inspection.roughness import Grade, RoughnessSays, roughness_says
from jade_ribbon.core.inspection.trend import TaperTrend
from jade_ribbon.core.inspection.trial import (
    TrialJudgement,
    TrialProposal,
    cheap_woods,
    judge_trial,
    propose_trial,
)
from jade_ribbon.core.job import Job, Known
from jade_ribbon.core.mechanics.cutting import bite as bite_of
from jade_ribbon.core.mechanics.straightness import MENDING_FACTOR, side_share
from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.reference.tables import Material, trial_woods
from jade_ribbon.services.clock import now
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.inspection.inputs import FaceInput
from jade_ribbon.services.inspection.learned_from_faces import (
    Moved,
    SideKnown,
    Told,
    edge_moved,
    moved_by,
    side_known,
    told_by,
    trend_of,
)
from jade_ribbon.services.planning.jobs import job_with_band
from jade_ribbon.services.records import ChangeId, as_record, get, log_change
from jade_ribbon.services.setup.roles import fittings_record, read_setting_up
from jade_ribbon.services.shop.materials import material_table
from jade_ribbon.store.models import BandRow, FaceRow, JobRow, RunRow, SawRow

USUAL_TOLERANCE_MM = 1.0
"""A job that names no accuracy is held to a millimetre."""


@dataclass(frozen=True)
class FaceAnswer:
    """A face with its parts, what to change, and what it was cut with."""

    id: int
    at: datetime
    who: str
    piece: str
    simulated: bool
    job_id: int
    band_id: int
    band_label: str
    saw_id: int
    saw_name: str
    readings: list[list[float]]
    face: Face
    tolerance_mm: float
    feed_m_min: float
    feed_force_N: float | None
    advice: FaceAdvice | None
    roughness: RoughnessSays | None
    ridge_mm: float | None
    ridges: RidgeSource | None
    ridge_words: str
    stops: list[float]
    """Where the feed stopped in the run it comes from, mm along."""
    trial: str
    trial_name: str
    guided: str
    moved: Moved | None
    """What it taught of its saw's side share; None where it moved nothing."""
    edge_moved: Moved | None
    """How dull it makes its band: 0 as new."""
    judgement: TrialJudgement | None
    """Of a trial: what it says of the job's own material."""
    change_id: int | None = None


@dataclass(frozen=True)
class FacePage:
    """What Inspect opens with for a job: where to read, earlier faces, what the saw has taught."""

    job_id: int
    saw_id: int | None
    band_id: int | None
    why_not: str
    tolerance_mm: float
    tolerance_usual: bool
    """No accuracy is asked: it is held to the usual one."""
    feed_m_min: float | None
    caliper: bool
    """A caliper's stand-in is chosen, which reads by itself."""
    faces: list[FaceAnswer]
    side: SideKnown | None
    trend: TaperTrend | None
    proposal: TrialProposal | None


@dataclass(frozen=True)
class _Cut:
    """The cut a face comes from: job, band in it, and the feed it was really made at."""

    job: Job
    band: Evaluation
    feed_m_min: float


def last_feed(session: Session, job_id: int, band_id: int) -> float | None:
    """The true feed of a job's last run with a band."""
    return session.scalars(
        select(RunRow.feed_m_min)
        .where(RunRow.job_id == job_id, RunRow.band_id == band_id, RunRow.deleted_at.is_(None))
        .order_by(RunRow.at.desc(), RunRow.id.desc())
    ).first()


def cut_of(
    session: Session, row: JobRow, feed_m_min: float | None, trial: Material | None = None
) -> _Cut:
    """A job's cut as its saw stands, or a trial of it in another material.

    ConflictError before saw and band are chosen.
    """
    if row.saw_id is None or row.band_id is None:
        raise ConflictError("Plan it first: no saw and band are chosen.")
    saw: SawRow = get(session, "saw", row.saw_id)
    get(session, "band", row.band_id)
    job, _ = job_with_band(session, row, saw, row.band_id)
    if not job.bands:
        raise ConflictError("The band of this job is not on the rack.")
    if saw.mounted_band_id == row.band_id and saw.tension_stress_MPa is not None:
        job = dataclasses.replace(job, stress_MPa=saw.tension_stress_MPa)
    if trial is not None:
        job = dataclasses.replace(job, cut=dataclasses.replace(job.cut, material=trial))
    band = evaluate(job.bands[0], job)
    feed = feed_m_min or last_feed(session, row.id, row.band_id) or _planned_feed(band, job)
    if feed is None:
        raise ConflictError("At what feed was it cut? Nothing is logged of this job yet.")
    return _Cut(job, band, feed)


def _planned_feed(band: Evaluation, job: Job) -> float | None:
    """The feed planned; where what faces taught has shut the window, the one before that."""
    if band.run is None:
        band = evaluate(band.facts.band, dataclasses.replace(job, known=Known()))
    return None if band.run is None else band.run.feed_m_min


def tolerance_of(row: JobRow) -> float:
    """The accuracy a job asks; a millimetre where it asks none."""
    return row.tolerance_mm or USUAL_TOLERANCE_MM


def usual_side_share(cut: _Cut) -> float:
    """The share of the push that would push this band aside, before any face was seen."""
    worn = cut.job.saw.tyre == "worn" or cut.job.saw.wheels_out
    usual = side_share(cut.band.facts.band.dullness)
    return usual * (MENDING_FACTOR if worn else 1.0)


def push_of(cut: _Cut) -> float | None:
    """The push (N) at the feed it was cut at; None for a band that has no window here."""
    if cut.band.window is None:
        return None
    return float(figures_at(cut.band, cut.job, cut.feed_m_min).cut.feed_force_N)


def _trial_of(session: Session, key: str) -> Material | None:
    """The material of a trial; None for the job's own. InputError."""
    if not key:
        return None
    table = material_table(session)
    if key not in table:
        words = f"{key!r} is not known; accepted: a material of the list"
        raise InputError([Fault("trial", words, key)])
    return table[key]


def _roughness(grade: int | None, cut: _Cut) -> RoughnessSays | None:
    """What a face's class says, against the finish asked and what these teeth leave."""
    facts = cut.band.facts
    speed = cut.band.speed
    if grade is None or speed is None or not facts.has_teeth:
        return None
    bite = bite_of(
        feed_m_min=cut.feed_m_min, speed_m_s=speed.speed_m_s, pitch_mm=facts.pitch_mm
    ).bite_mm
    return roughness_says(
        cast(Grade, grade),
        asked_place=FINISH_ORDER.index(cut.job.cut.finish),
        left_place=delivered_place(facts, bite_mm=bite, job=cut.job),
    )


def add_face(session: Session, given: FaceInput, *, at: datetime | None = None) -> FaceAnswer:
    """Keep a face as read. InputError for readings that tell nothing; ConflictError."""
    row: JobRow = get(session, "job", given.job_id)
    cut = cut_of(session, row, given.feed_m_min, _trial_of(session, given.trial))
    readings = [list(r) for r in given.readings]
    read_face(readings, tolerance_mm=tolerance_of(row))
    rough = _roughness(given.roughness, cut)
    kept = FaceRow(
        job_id=row.id,
        saw_id=row.saw_id,
        band_id=row.band_id,
        at=at or now(),
        who=given.who,
        piece=given.piece,
        readings=readings,
        simulated=given.simulated,
        height_mm=cut.job.cut.standing_height_mm,
        length_mm=row.length_mm,
        tolerance_mm=tolerance_of(row),
        feed_m_min=cut.feed_m_min,
        stress_MPa=cut.band.stress_MPa,
        dullness=cut.band.facts.band.dullness,
        feed_force_N=push_of(cut),
        strand_force_N=cut.band.strand_force_N or None,
        side_share_usual=usual_side_share(cut),
        roughness=given.roughness,
        rough_over=None if rough is None else rough.over,
        ridge_mm=given.ridge_mm,
        speed_m_s=cut.band.speed.speed_m_s if cut.band.speed else None,
        trial=given.trial,
        guided=given.guided,
    )
    session.add(kept)
    change = log_change(session, kept, "add", None)
    told = told_by(session, kept.saw_id)
    return dataclasses.replace(_answer(session, kept, cut, told), change_id=change.id)


def delete_face(session: Session, face_id: int) -> ChangeId:
    """Take a face back, and what it taught; the id of the change, for undo."""
    row: FaceRow = get(session, "face", face_id)
    before = as_record(row)
    row.deleted_at = now()
    return log_change(session, row, "delete", before).id


def _answer(session: Session, row: FaceRow, cut: _Cut | None, told: Told) -> FaceAnswer:
    band, saw = session.get(BandRow, row.band_id), session.get(SawRow, row.saw_id)
    assert band is not None and saw is not None
    job: JobRow = get(session, "job", row.job_id)
    asked = None if row.trial else job.slice_mm
    face = read_face(row.readings, tolerance_mm=row.tolerance_mm, asked_mm=asked)
    trial = _trial_of(session, row.trial)
    ridges = _ridges(row, band, saw, cut)
    stops = _stops(session, row)
    return FaceAnswer(
        id=row.id,
        at=row.at,
        who=row.who,
        piece=row.piece,
        simulated=row.simulated,
        job_id=row.job_id,
        band_id=row.band_id,
        band_label=band.label,
        saw_id=row.saw_id,
        saw_name=saw.name,
        readings=row.readings,
        face=face,
        tolerance_mm=row.tolerance_mm,
        feed_m_min=row.feed_m_min,
        feed_force_N=row.feed_force_N,
        advice=None
        if cut is None
        else advise_on(face, _set_figures(row, saw, cut, stops, asked, ridges)),
        roughness=None if cut is None else _roughness(row.roughness, cut),
        ridge_mm=row.ridge_mm,
        ridges=ridges,
        ridge_words="" if ridges is None else ridge_words(ridges),
        stops=stops,
        trial=row.trial,
        trial_name=trial.name if trial is not None else row.trial,
        guided=row.guided,
        moved=moved_by(told, row.id),
        edge_moved=edge_moved(session, row),
        judgement=None if cut is None else _judged(session, row, face, trial, cut),
    )


def _ridges(row: FaceRow, band: BandRow, saw: SawRow, cut: _Cut | None) -> RidgeSource | None:
    """What made the ridges of a face; None where nobody measured them."""
    if row.ridge_mm is None or row.speed_m_s is None or cut is None:
        return None
    return ridge_source(
        spacing_mm=row.ridge_mm,
        feed_m_min=row.feed_m_min,
        speed_m_s=row.speed_m_s,
        band_length_mm=band.length_mm,
        pitch_mm=cut.band.facts.pitch_mm,
        wheel_diameters_mm=saw.wheel_diameters_mm,
    )


def _stops(session: Session, row: FaceRow) -> list[float]:
    """Where the feed stopped in the last run before a face, mm along its pieces."""
    marks = session.scalars(
        select(RunRow.stops)
        .where(
            RunRow.job_id == row.job_id,
            RunRow.band_id == row.band_id,
            RunRow.at <= row.at,
            RunRow.deleted_at.is_(None),
        )
        .order_by(RunRow.at.desc(), RunRow.id.desc())
    ).first()
    return [mark["along_mm"] for mark in marks or []]


def _judged(
    session: Session, row: FaceRow, face: Face, trial: Material | None, cut: _Cut
) -> TrialJudgement | None:
    """What a trial says of the job's own material, by the push of both; None of its own faces."""
    if trial is None or not row.feed_force_N:
        return None
    job: JobRow = get(session, "job", row.job_id)
    own = push_of(dataclasses.replace(cut_of(session, job, row.feed_m_min)))
    if own is None:
        return None
    sds = (trial.kc_uncertainty_pct, cut.job.cut.material.kc_uncertainty_pct)
    return judge_trial(
        face,
        push_ratio=own / row.feed_force_N,
        ratio_sd_ln=math.hypot(*(math.log1p(pct / 100.0) for pct in sds)),
        tolerance_mm=row.tolerance_mm,
    )


def _push_barrel(row: FaceRow) -> float | None:
    """What the usual share of the push bowed the cut by (mm); None where it is not known."""
    known = (row.side_share_usual, row.feed_force_N, row.strand_force_N)
    share, push, strand = known
    if share is None or push is None or not strand:
        return None
    return share * push * row.height_mm / (8.0 * strand)


def _set_figures(
    row: FaceRow,
    saw: SawRow,
    cut: _Cut,
    stops: list[float],
    asked_mm: float | None,
    ridges: RidgeSource | None,
) -> SetFigures:
    window, facts = cut.band.window, cut.band.facts
    return SetFigures(
        length_mm=row.length_mm,
        height_mm=row.height_mm,
        tolerance_mm=row.tolerance_mm,
        feed_m_min=row.feed_m_min,
        floor_m_min=window.floor_m_min if window is not None else 0.0,
        size_exponent_m=cut.job.cut.material.size_exponent_m,
        dullness=row.dullness,
        stress_MPa=row.stress_MPa,
        high_MPa=facts.stress_high_MPa or row.stress_MPa,
        kerf_mm=facts.kerf_mm,
        asked_mm=asked_mm,
        guided=cast(Guided, row.guided),
        push_barrel_mm=_push_barrel(row),
        ridges="" if ridges is None else ridge_words(ridges),
        fence_bolt_spacing_mm=fittings_record(saw).fence_bolt_spacing_mm,
        stops_mm=tuple(stops),
    )


def has_caliper(session: Session) -> bool:
    """Whether the shop has chosen the caliper's stand-in."""
    return read_setting_up(session).instruments.get("caliper") == "simulated"


def face_page(session: Session, job_id: int) -> FacePage:
    """What Inspect shows of a job, the latest face first."""
    row: JobRow = get(session, "job", job_id)
    cut, why_not = None, ""
    try:
        cut = cut_of(session, row, None)
    except ConflictError as error:
        why_not = str(error)
    rows = session.scalars(
        select(FaceRow)
        .where(FaceRow.job_id == job_id, FaceRow.deleted_at.is_(None))
        .order_by(FaceRow.id.desc())
    )
    told = told_by(session, row.saw_id) if row.saw_id is not None else {}
    return FacePage(
        job_id=job_id,
        saw_id=row.saw_id,
        band_id=row.band_id,
        why_not=why_not,
        tolerance_mm=tolerance_of(row),
        tolerance_usual=not row.tolerance_mm,
        feed_m_min=cut.feed_m_min if cut is not None else None,
        caliper=has_caliper(session),
        faces=[_answer(session, face, cut, told) for face in rows],
        side=side_known(told),
        trend=trend_of(session, row.band_id, row.saw_id) if row.saw_id and row.band_id else None,
        proposal=_proposal(session, row),
    )


def _proposal(session: Session, row: JobRow) -> TrialProposal | None:
    """The cheap wood to try a job's set-up on; None for a job whose own wood is cheap."""
    table = material_table(session)
    dear = table.get(row.material)
    if dear is None or row.material in trial_woods() or row.tolerance_mm is None:
        return None
    return propose_trial(dear, cheap_woods(table, list(trial_woods())))
