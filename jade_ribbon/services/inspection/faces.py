"""Faces of sawn pieces: read, kept, advised on, and what they teach of their saw."""

import dataclasses
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.choosing.at_the_cut import Evaluation, figures_at
from jade_ribbon.core.choosing.evaluate import evaluate
from jade_ribbon.core.inspection.advice import Advice, SetFigures, advise_on
from jade_ribbon.core.inspection.evidence import (
    FACE_SD_LN,
    FaceReading,
    SideSharePosterior,
    believed,
    side_share_posterior,
    teaching,
)
from jade_ribbon.core.inspection.face import Face, read_face
from jade_ribbon.core.job import Job, Known
from jade_ribbon.core.mechanics.straightness import (
    MENDING_FACTOR,
    SIDE_SHARE_SPREAD_LN,
    side_share,
)
from jade_ribbon.services.clock import now
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.inspection.inputs import FaceInput
from jade_ribbon.services.planning.jobs import job_with_band
from jade_ribbon.services.records import as_record, get, log_change, projected
from jade_ribbon.services.setup.roles import fittings_record
from jade_ribbon.store.models import BandRow, FaceRow, JobRow, RunRow, SawRow

USUAL_TOLERANCE_MM = 1.0
"""A job that names no accuracy is held to a millimetre."""


@dataclass(frozen=True)
class SideKnown:
    """A saw's side share as a multiple of the usual, its eight-in-ten range, from so many faces."""

    factor: float
    low: float
    high: float
    faces: int
    doubted: int
    """Faces far from the usual that no others agree with: left out until they do."""


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
    advice: Advice | None
    change_id: int | None = None


@dataclass(frozen=True)
class FacePage:
    """What Inspect opens with for a job: where to read, earlier faces, what the saw has taught."""

    job_id: int
    saw_id: int | None
    band_id: int | None
    why_not: str
    tolerance_mm: float
    feed_m_min: float | None
    caliper: bool
    """A caliper's stand-in is chosen, which reads by itself."""
    faces: list[FaceAnswer]
    side: SideKnown | None


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


def cut_of(session: Session, row: JobRow, feed_m_min: float | None) -> _Cut:
    """A job's cut as its saw stands. ConflictError before saw and band are chosen."""
    if row.saw_id is None or row.band_id is None:
        raise ConflictError("Plan it first: no saw and band are chosen.")
    saw: SawRow = get(session, "saw", row.saw_id)
    get(session, "band", row.band_id)
    job, _ = job_with_band(session, row, saw, row.band_id)
    if not job.bands:
        raise ConflictError("The band of this job is not on the rack.")
    if saw.mounted_band_id == row.band_id and saw.tension_stress_MPa is not None:
        job = dataclasses.replace(job, stress_MPa=saw.tension_stress_MPa)
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


def add_face(session: Session, given: FaceInput) -> FaceAnswer:
    """Keep a face as read. InputError for readings that tell nothing; ConflictError."""
    row: JobRow = get(session, "job", given.job_id)
    cut = cut_of(session, row, given.feed_m_min)
    readings = [list(r) for r in given.readings]
    read_face(readings, tolerance_mm=tolerance_of(row))
    kept = FaceRow(
        job_id=row.id,
        saw_id=row.saw_id,
        band_id=row.band_id,
        at=now(),
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
    )
    session.add(kept)
    change = log_change(session, kept, "add", None)
    return dataclasses.replace(_answer(session, kept, cut), change_id=change.id)


def delete_face(session: Session, face_id: int) -> int:
    """Take a face back, and what it taught; the id of the change, for undo."""
    row: FaceRow = get(session, "face", face_id)
    before = as_record(row)
    row.deleted_at = now()
    return log_change(session, row, "delete", before).id


def _answer(session: Session, row: FaceRow, cut: _Cut | None) -> FaceAnswer:
    band, saw = session.get(BandRow, row.band_id), session.get(SawRow, row.saw_id)
    assert band is not None and saw is not None
    face = read_face(row.readings, tolerance_mm=row.tolerance_mm)
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
        advice=None if cut is None else advise_on(face, _set_figures(row, saw, cut)),
    )


def _set_figures(row: FaceRow, saw: SawRow, cut: _Cut) -> SetFigures:
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
        fence_bolt_spacing_mm=fittings_record(saw).fence_bolt_spacing_mm,
    )


def face_page(session: Session, job_id: int, *, caliper: bool) -> FacePage:
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
    return FacePage(
        job_id=job_id,
        saw_id=row.saw_id,
        band_id=row.band_id,
        why_not=why_not,
        tolerance_mm=tolerance_of(row),
        feed_m_min=cut.feed_m_min if cut is not None else None,
        caliper=caliper,
        faces=[_answer(session, face, cut) for face in rows],
        side=side_known(session, row.saw_id) if row.saw_id is not None else None,
    )


def _teaching(session: Session, saw_id: int) -> list[FaceReading]:
    """What the faces of a saw say of its side share, those that say anything."""
    found = []
    for row in _faces(session, saw_id):
        part = read_face(row.readings, tolerance_mm=row.tolerance_mm).part("barrel")
        if part is None or row.feed_force_N is None or row.strand_force_N is None:
            continue
        told = teaching(
            barrel_mm=part.amount_mm,
            se_mm=part.se_mm,
            cut_height_mm=row.height_mm,
            strand_force_N=row.strand_force_N,
            feed_force_N=row.feed_force_N,
            usual_share=row.side_share_usual,
        )
        if told is not None:
            found.append(told)
    return found


def _faces(session: Session, saw_id: int) -> Sequence[FaceRow]:
    return session.scalars(
        select(FaceRow)
        .where(FaceRow.saw_id == saw_id, FaceRow.deleted_at.is_(None), FaceRow.simulated.is_(False))
        .order_by(FaceRow.id)
    ).all()


def _taught(seen: list[FaceReading]) -> SideSharePosterior | None:
    """The saw's side share as a multiple of the usual; None before any face."""
    if not seen:
        return None
    return side_share_posterior(
        prior_share=1.0,
        prior_sd_ln=SIDE_SHARE_SPREAD_LN,
        observed=seen,
        observation_sd_ln=FACE_SD_LN,
    )


def side_known(session: Session, saw_id: int) -> SideKnown | None:
    """What a saw's faces have taught; None before any."""
    seen = _teaching(session, saw_id)
    counted = believed(seen)
    found = _taught(counted)
    doubted = len(seen) - len(counted)
    if found is None:
        return SideKnown(1.0, 1.0, 1.0, 0, doubted) if doubted else None
    return SideKnown(found.share, found.low_10, found.high_90, len(counted), doubted)


@projected("face")
def refresh_side(session: Session, row: FaceRow) -> None:
    """A saw's side share follows its faces, whoever changed them."""
    session.flush()
    saw = session.get(SawRow, row.saw_id)
    if saw is None:
        return
    found = _taught(believed(_teaching(session, saw.id)))
    saw.side_factor = 1.0 if found is None else found.share
    saw.side_sd_ln = None if found is None else found.sd_ln
