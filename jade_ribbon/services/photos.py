"""Photographs of stock, bands and saws: kept small; each can be taken back."""

from typing import Literal

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.formats.photo import small_jpeg
from jade_ribbon.formats.sandbox import read_apart
from jade_ribbon.services.clock import now
from jade_ribbon.services.errors import ConflictError, NotFoundError
from jade_ribbon.services.field_types import Id
from jade_ribbon.services.records import ChangeId, as_record, get, log_change
from jade_ribbon.store.models import PhotoRow

Of = Literal["stock", "band", "saw"]
Shows = Literal["", "teeth", "face", "plate"]


def latest(session: Session, stock_id: int) -> int | None:
    """The number of the latest photograph of a piece; None without any."""
    return session.scalars(
        select(PhotoRow.id)
        .where(PhotoRow.stock_id == stock_id, PhotoRow.deleted_at.is_(None))
        .order_by(PhotoRow.id.desc())
    ).first()


def _add_photo(
    session: Session,
    of: Of,
    key: int,
    data: bytes,
    *,
    shows: Shows = "",
    run_id: int | None = None,
) -> ChangeId:
    """Keep a photograph; the id of the change. InputError for what is no picture.

    Of a band one may go with a run of it. ConflictError for a run of another band.
    """
    get(session, of, key)
    if run_id is not None and get(session, "run", run_id).band_id != key:
        raise ConflictError("That run was cut with another band.")
    row = PhotoRow(
        **{f"{of}_id": key},
        run_id=run_id,
        shows=shows,
        jpeg=read_apart("photo", small_jpeg, data),
        at=now(),
    )
    session.add(row)
    return log_change(session, row, "add", None).id


def add_stock_photo(session: Session, stock_id: int, photo: bytes) -> ChangeId:
    """Keep a photograph of a piece: small, and without where it was taken."""
    return _add_photo(session, "stock", stock_id, photo)


def add_band_photo(
    session: Session,
    band_id: int,
    photo: bytes,
    shows: Literal["teeth", "face"] = "teeth",
    run_id: Id | None = None,
) -> ChangeId:
    """Keep a photograph of a band's teeth, or of a face it left, with its run."""
    return _add_photo(session, "band", band_id, photo, shows=shows, run_id=run_id)


def add_saw_photo(session: Session, saw_id: int, photo: bytes) -> ChangeId:
    """Keep a photograph of a saw's plate."""
    return _add_photo(session, "saw", saw_id, photo, shows="plate")


def delete_photo(session: Session, photo_id: int) -> ChangeId:
    """Take a photograph back; the id of the change, for undo."""
    row: PhotoRow = get(session, "photo", photo_id)
    before = as_record(row)
    row.deleted_at = now()
    return log_change(session, row, "delete", before).id


def jpeg_of(session: Session, photo_id: int) -> bytes:
    """A photograph. NotFoundError."""
    row = session.get(PhotoRow, photo_id)
    if row is None or row.deleted_at is not None:
        raise NotFoundError("photo", photo_id)
    return row.jpeg
