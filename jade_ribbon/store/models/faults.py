"""Troubles with the path taken to their cause, and how saws sounded when they ran well."""

from datetime import datetime
from typing import Any

from sqlalchemy import CheckConstraint, ForeignKey, Index, String, text
from sqlalchemy.orm import Mapped, mapped_column

from jade_ribbon.store.models.base import Base


class TroubleRow(Base):
    """A trouble of a saw: signs, what the records said, answers in order, remedy, true causes."""

    __tablename__ = "trouble"
    __table_args__ = (
        CheckConstraint("state IN ('open', 'watching', 'closed', 'gone')", name="state"),
        Index("ix_trouble_saw_id", "saw_id"),
        Index("ix_trouble_band_id", "band_id"),
    )

    id: Mapped[int] = mapped_column(primary_key=True)
    saw_id: Mapped[int] = mapped_column(ForeignKey("saw.id", ondelete="CASCADE"))
    band_id: Mapped[int | None] = mapped_column(ForeignKey("band.id"))
    job_id: Mapped[int | None] = mapped_column(ForeignKey("job.id"))
    run_id: Mapped[int | None] = mapped_column(ForeignKey("run.id"))
    began: Mapped[str] = mapped_column(String(10))
    opened_at: Mapped[datetime]
    symptoms: Mapped[dict[str, Any]]
    reads: Mapped[dict[str, Any]]
    aside: Mapped[list[str]] = mapped_column(server_default=text("'[]'"), default=list)
    path: Mapped[list[Any]] = mapped_column(server_default=text("'[]'"), default=list)
    state: Mapped[str] = mapped_column(String(10), default="open")
    remedy: Mapped[str] = mapped_column(String(40), server_default=text("''"), default="")
    remedied_at: Mapped[datetime | None]
    remedy_minutes: Mapped[float | None]
    causes: Mapped[list[str]] = mapped_column(server_default=text("'[]'"), default=list)
    closed_at: Mapped[datetime | None]
    spoiled_minor: Mapped[int] = mapped_column(server_default=text("0"), default=0)
    note: Mapped[str] = mapped_column(server_default=text("''"), default="")
    who: Mapped[str] = mapped_column(String(40), server_default=text("''"), default="")
    version: Mapped[int] = mapped_column(server_default=text("1"), default=1)
    deleted_at: Mapped[datetime | None]


class SoundRow(Base):
    """A saw as it sounded when it ran well, by speed: levels only, never the sound itself."""

    __tablename__ = "sound"
    __table_args__ = (Index("ix_sound_saw_id", "saw_id"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    saw_id: Mapped[int] = mapped_column(ForeignKey("saw.id", ondelete="CASCADE"))
    band_id: Mapped[int | None] = mapped_column(ForeignKey("band.id"))
    speed_m_s: Mapped[float]
    at: Mapped[datetime]
    heard: Mapped[dict[str, Any]]
    who: Mapped[str] = mapped_column(String(40), server_default=text("''"), default="")
    deleted_at: Mapped[datetime | None]
