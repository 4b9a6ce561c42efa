"""Jobs, their runs and the faces they left."""

from datetime import datetime
from typing import Any

from sqlalchemy import (
    ForeignKey,
    Index,
    String,
    text,
)
from sqlalchemy.orm import Mapped, mapped_column

from jade_ribbon.store.models.base import Base


class JobRow(Base):
    """A job and its cut; the ticket that travels with the work."""

    __tablename__ = "job"

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(120))
    operation: Mapped[str] = mapped_column(String(12))
    material: Mapped[str] = mapped_column(String(80))
    height_mm: Mapped[float]
    length_mm: Mapped[float]
    count: Mapped[int]
    slice_mm: Mapped[float | None]
    billet_mm: Mapped[float | None]
    min_radius_mm: Mapped[float | None]
    angle_deg: Mapped[float]
    finish: Mapped[str] = mapped_column(String(8))
    tolerance_mm: Mapped[float | None]
    round_stock: Mapped[bool]
    wall_mm: Mapped[float | None]
    log_diameter_mm: Mapped[float | None]
    stood_on_end: Mapped[bool] = mapped_column(server_default=text("0"), default=False)
    backing_mm: Mapped[float] = mapped_column(server_default=text("0"), default=0.0)
    stack: Mapped[int] = mapped_column(server_default=text("1"), default=1)
    throat_need_mm: Mapped[float | None]
    last_face_sawn: Mapped[bool] = mapped_column(server_default=text("0"), default=False)
    stretches: Mapped[list[Any]] = mapped_column(server_default=text("'[]'"), default=list)
    rules: Mapped[dict[str, Any]]
    what_if: Mapped[dict[str, Any]] = mapped_column(server_default=text("'{}'"), default=dict)
    saw_id: Mapped[int | None] = mapped_column(ForeignKey("saw.id"))
    band_id: Mapped[int | None] = mapped_column(ForeignKey("band.id"))
    stock_id: Mapped[int | None] = mapped_column(ForeignKey("stock.id"))
    state: Mapped[str] = mapped_column(String(12), default="planned")
    note: Mapped[str] = mapped_column(server_default=text("''"), default="")
    created_at: Mapped[datetime]
    updated_at: Mapped[datetime]
    version: Mapped[int] = mapped_column(server_default=text("1"), default=1)
    deleted_at: Mapped[datetime | None]


class RunRow(Base):
    """What was cut with what; `client_key` makes a resent run arrive once."""

    __tablename__ = "run"
    __table_args__ = (
        Index("ix_run_band_id_at", "band_id", "at"),
        Index("ix_run_job_id", "job_id"),
        Index("ix_run_waiting", "id", sqlite_where=text("to_confirm")),
    )

    id: Mapped[int] = mapped_column(primary_key=True)
    client_key: Mapped[str] = mapped_column(String(64), unique=True)
    job_id: Mapped[int | None] = mapped_column(ForeignKey("job.id"))
    saw_id: Mapped[int] = mapped_column(ForeignKey("saw.id"))
    band_id: Mapped[int] = mapped_column(ForeignKey("band.id"))
    at: Mapped[datetime]
    operation: Mapped[str] = mapped_column(String(12))
    material: Mapped[str] = mapped_column(String(80))
    height_mm: Mapped[float]
    length_mm: Mapped[float]
    pieces: Mapped[int]
    feed_m_min: Mapped[float]
    time_s: Mapped[float]
    speed_m_s: Mapped[float]
    finish: Mapped[str] = mapped_column(String(8))
    symptoms: Mapped[list[str]]
    note: Mapped[str] = mapped_column(default="")
    who: Mapped[str] = mapped_column(String(40), default="")
    contact_m: Mapped[float]
    equivalent_m: Mapped[float]
    fouling_gain: Mapped[float]
    bending_share: Mapped[float]
    to_confirm: Mapped[bool] = mapped_column(server_default=text("0"), default=False)
    device_at: Mapped[datetime | None]
    time_doubt: Mapped[str] = mapped_column(String(20), server_default=text("''"), default="")
    planned_m_min: Mapped[float | None]
    planned_length_mm: Mapped[float | None]
    floor_m_min: Mapped[float | None]
    power_W: Mapped[float | None]
    idle_W: Mapped[float | None]
    amps_A: Mapped[float | None]
    k_ref_MPa: Mapped[float | None]
    preflight: Mapped[list[str]] = mapped_column(server_default=text("'[]'"), default=list)
    chips: Mapped[str] = mapped_column(String(8), server_default=text("''"), default="")
    stops: Mapped[list[Any]] = mapped_column(server_default=text("'[]'"), default=list)
    strikes: Mapped[int] = mapped_column(server_default=text("0"), default=0)
    teeth_lost: Mapped[int] = mapped_column(server_default=text("0"), default=0)
    edge_number: Mapped[int] = mapped_column(server_default=text("0"), default=0)
    edge_before_m: Mapped[float] = mapped_column(server_default=text("0"), default=0.0)
    without_card: Mapped[str] = mapped_column(server_default=text("''"), default="")
    deleted_at: Mapped[datetime | None]


class FaceRow(Base):
    """A sawn face as read, with what the saw was doing; readings [x 0..1, y -1..1, mm]."""

    __tablename__ = "face"
    __table_args__ = (Index("ix_face_saw_id", "saw_id"), Index("ix_face_job_id", "job_id"))

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("job.id"))
    saw_id: Mapped[int] = mapped_column(ForeignKey("saw.id"))
    band_id: Mapped[int] = mapped_column(ForeignKey("band.id"))
    at: Mapped[datetime]
    who: Mapped[str] = mapped_column(String(40), default="")
    piece: Mapped[str] = mapped_column(String(40), default="")
    readings: Mapped[list[Any]]
    simulated: Mapped[bool]
    height_mm: Mapped[float]
    length_mm: Mapped[float]
    tolerance_mm: Mapped[float]
    feed_m_min: Mapped[float]
    stress_MPa: Mapped[float]
    dullness: Mapped[float]
    feed_force_N: Mapped[float | None]
    strand_force_N: Mapped[float | None]
    side_share_usual: Mapped[float]
    roughness: Mapped[int | None]
    rough_over: Mapped[int | None]
    ridge_mm: Mapped[float | None]
    speed_m_s: Mapped[float | None]
    guided: Mapped[str] = mapped_column(String(8), server_default=text("''"), default="")
    trial: Mapped[str] = mapped_column(String(80), server_default=text("''"), default="")
    deleted_at: Mapped[datetime | None]


class RunSumRow(Base):
    """Runs of a band alike in month, saw, stock and edge, summed: replayed with the band.

    Seconds, metres and m2 of cut; sums of products of a run's minutes and area; wear as the table
    counts it, and as wear by material counts it here.
    """

    __tablename__ = "run_sum"
    __table_args__ = (Index("ix_run_sum_band_id", "band_id"), {"sqlite_autoincrement": True})

    id: Mapped[int] = mapped_column(primary_key=True)
    band_id: Mapped[int] = mapped_column(ForeignKey("band.id", ondelete="CASCADE"))
    month: Mapped[str] = mapped_column(String(7))
    saw_id: Mapped[int]
    material: Mapped[str] = mapped_column(String(80))
    operation: Mapped[str] = mapped_column(String(12))
    height_step: Mapped[int]
    edge_number: Mapped[int]
    edge_step: Mapped[int]
    who: Mapped[str] = mapped_column(String(40))
    runs: Mapped[int]
    seconds: Mapped[float]
    metres: Mapped[float]
    area_m2: Mapped[float]
    pieces: Mapped[int]
    time_area: Mapped[float]
    time2: Mapped[float]
    area2: Mapped[float]
    table_m: Mapped[float]
    equivalent_m: Mapped[float]
