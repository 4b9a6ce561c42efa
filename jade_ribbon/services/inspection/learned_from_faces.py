"""What the faces of a saw teach: how much of the push goes aside, and whether a band pulls."""

from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.inspection.evidence import (
    FACE_SD_LN,
    FaceReading,
    SideSharePosterior,
    believed,
    side_share_posterior,
    teaching,
)
from jade_ribbon.core.inspection.face import read_face
from jade_ribbon.core.inspection.trend import TaperTrend, taper_trend
from jade_ribbon.core.mechanics.straightness import SIDE_SHARE_SPREAD_LN
from jade_ribbon.services.rack.edges import dullness_of, dullness_without_face, shop_lives
from jade_ribbon.services.records import projected
from jade_ribbon.store.models import BandRow, FaceRow, SawRow


@dataclass(frozen=True)
class SideKnown:
    """A saw's side share as a multiple of the usual, its eight-in-ten range, from so many faces."""

    factor: float
    low: float
    high: float
    faces: int
    doubted: int
    """Faces far from the usual that no others agree with: left out until they do."""


def _told(row: FaceRow) -> FaceReading | None:
    """What one face says of its saw's side share; None where it says nothing."""
    part = read_face(row.readings, tolerance_mm=row.tolerance_mm).part("barrel")
    if part is None or row.feed_force_N is None or row.strand_force_N is None:
        return None
    return teaching(
        barrel_mm=part.amount_mm,
        se_mm=part.se_mm,
        cut_height_mm=row.height_mm,
        strand_force_N=row.strand_force_N,
        feed_force_N=row.feed_force_N,
        usual_share=row.side_share_usual,
    )


Told = dict[int, FaceReading]


def told_by(session: Session, saw_id: int) -> Told:
    """What the faces of a saw say of its side share, by face; those that say anything."""
    each = ((row.id, _told(row)) for row in _faces(session, saw_id))
    return {key: told for key, told in each if told is not None}


LEAST_MOVED = 0.005
"""Half a per cent of an edge is nothing that anybody sees."""


@dataclass(frozen=True)
class Moved:
    """What one face moved: a figure without it, and with it."""

    before: float
    after: float


def moved_by(told: Told, face_id: int) -> Moved | None:
    """None where a face says nothing, or was left out and so moved nothing."""
    if face_id not in told:
        return None
    without = _taught(believed([t for key, t in told.items() if key != face_id]))
    whole = _taught(believed(list(told.values())))
    before = without.share if without else 1.0
    after = whole.share if whole else 1.0
    return Moved(before, after) if before != after else None


def edge_moved(session: Session, row: FaceRow) -> Moved | None:
    """How dull the band is taken for without a face and with it; None where nothing moves."""
    band = session.get(BandRow, row.band_id)
    if band is None or row.simulated or not row.rough_over:
        return None
    life = shop_lives(session).of(band.steel, band.sharpenings)
    before, after = dullness_without_face(session, band, row.id), dullness_of(band, life)
    return Moved(before, after) if abs(after - before) > LEAST_MOVED else None


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


def side_known(told: Told) -> SideKnown | None:
    """What a saw's faces have taught; None before any."""
    seen = list(told.values())
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
    found = _taught(believed(list(told_by(session, saw.id).values())))
    saw.side_factor = 1.0 if found is None else found.share
    saw.side_sd_ln = None if found is None else found.sd_ln


def trend_of(session: Session, band_id: int, saw_id: int) -> TaperTrend | None:
    """Whether a band's faces taper more and more on a saw; None under four of them."""
    rows = [row for row in _faces(session, saw_id) if row.band_id == band_id]
    tapers = [
        read_face(row.readings, tolerance_mm=row.tolerance_mm).map.taper_along_mm for row in rows
    ]
    return taper_trend(tapers, [row.length_mm for row in rows])
