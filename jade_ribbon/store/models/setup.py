"""Set-up cards, trials and truings."""

from datetime import datetime
from typing import Any

from sqlalchemy import (
    ForeignKey,
    Index,
    String,
    UniqueConstraint,
    text,
)
from sqlalchemy.orm import Mapped, mapped_column

from jade_ribbon.core.setup.tension.tension_reading import Means
from jade_ribbon.core.setup.wheel_places import Axis, Wheel
from jade_ribbon.store.models.base import Base


class SetupRow(Base):
    """A set-up card being worked through or kept."""

    __tablename__ = "setup"
    __table_args__ = (Index("ix_setup_job_id", "job_id"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("job.id", ondelete="CASCADE"))
    saw_id: Mapped[int] = mapped_column(ForeignKey("saw.id"))
    band_id: Mapped[int] = mapped_column(ForeignKey("band.id"))
    started_at: Mapped[datetime]
    finished_at: Mapped[datetime | None]
    acknowledged: Mapped[list[Any]]
    figures: Mapped[dict[str, Any]]
    deleted_at: Mapped[datetime | None]


class SetupStepRow(Base):
    """A step of a set-up card as recorded; figures by the step's own readings, SI."""

    __tablename__ = "setup_step"
    __table_args__ = (UniqueConstraint("setup_id", "key"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    setup_id: Mapped[int] = mapped_column(ForeignKey("setup.id", ondelete="CASCADE"))
    key: Mapped[str] = mapped_column(String(20))
    done: Mapped[bool]
    found: Mapped[dict[str, Any]]
    left: Mapped[dict[str, Any]]
    means: Mapped[Means | None] = mapped_column(String(10))
    note: Mapped[str] = mapped_column(default="")
    skipped: Mapped[str] = mapped_column(String(200), default="")
    who: Mapped[str] = mapped_column(String(40), default="")
    authorised_by: Mapped[str] = mapped_column(String(40), default="")
    allowed_by: Mapped[str] = mapped_column(String(40), server_default=text("''"), default="")
    check_again: Mapped[str] = mapped_column(String(60), server_default=text("''"), default="")
    allowed_why: Mapped[str] = mapped_column(String(200), server_default=text("''"), default="")
    still_good: Mapped[bool] = mapped_column(default=False)
    at: Mapped[datetime]
    deleted_at: Mapped[datetime | None]


class ScalePointRow(Base):
    """A reading of a saw's own tension scale with the stress measured at it."""

    __tablename__ = "scale_point"
    __table_args__ = (Index("ix_scale_point_saw_id", "saw_id"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    saw_id: Mapped[int] = mapped_column(ForeignKey("saw.id", ondelete="CASCADE"))
    band_id: Mapped[int] = mapped_column(ForeignKey("band.id"))
    at: Mapped[datetime]
    reading: Mapped[float]
    stress_MPa: Mapped[float]
    travel_mm: Mapped[float | None]
    note_Hz: Mapped[float | None]
    means: Mapped[str] = mapped_column(String(10))
    who: Mapped[str] = mapped_column(String(40), default="")
    deleted_at: Mapped[datetime | None]


class AlignmentRow(Base):
    """One truing of a wheel: the gap found, the turns made, what the saw answered."""

    __tablename__ = "alignment"
    __table_args__ = (Index("ix_alignment_saw_id", "saw_id"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    saw_id: Mapped[int] = mapped_column(ForeignKey("saw.id", ondelete="CASCADE"))
    band_id: Mapped[int | None] = mapped_column(ForeignKey("band.id"))
    axis: Mapped[Axis] = mapped_column(String(8))
    wheel: Mapped[Wheel] = mapped_column(String(8))
    start_mm: Mapped[float]
    sits_on_both: Mapped[bool]
    moves: Mapped[list[Any]]
    state: Mapped[str] = mapped_column(String(10))
    response_mm: Mapped[float | None]
    response_spread_mm: Mapped[float | None]
    who: Mapped[str] = mapped_column(String(40), default="")
    at: Mapped[datetime]
    finished_at: Mapped[datetime | None]
    deleted_at: Mapped[datetime | None]


class DriftRow(Base):
    """A freehand trial: how far a band swung from the line, on which saw."""

    __tablename__ = "drift"
    __table_args__ = (Index("ix_drift_band_id", "band_id"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    saw_id: Mapped[int] = mapped_column(ForeignKey("saw.id", ondelete="CASCADE"))
    band_id: Mapped[int] = mapped_column(ForeignKey("band.id", ondelete="CASCADE"))
    setup_id: Mapped[int | None] = mapped_column(ForeignKey("setup.id"))
    at: Mapped[datetime]
    offset_mm: Mapped[float]
    run_mm: Mapped[float]
    angle_deg: Mapped[float]
    method: Mapped[str] = mapped_column(String(14))
    who: Mapped[str] = mapped_column(String(40), default="")
    deleted_at: Mapped[datetime | None]
