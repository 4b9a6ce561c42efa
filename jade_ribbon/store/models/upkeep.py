"""What a saw's upkeep and coming to life leave on record."""

from datetime import datetime
from typing import Any

from sqlalchemy import ForeignKey, Index, String, text
from sqlalchemy.orm import Mapped, mapped_column

from jade_ribbon.store.models.base import Base


class UpkeepRow(Base):
    """A task of upkeep done on a saw, with the hours it had run by then."""

    __tablename__ = "upkeep"
    __table_args__ = (Index("ix_upkeep_saw_id", "saw_id"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    saw_id: Mapped[int] = mapped_column(ForeignKey("saw.id", ondelete="CASCADE"))
    key: Mapped[str] = mapped_column(String(20))
    at: Mapped[datetime]
    hours: Mapped[float]
    found: Mapped[str] = mapped_column(String(8))
    note: Mapped[str] = mapped_column(default="")
    who: Mapped[str] = mapped_column(String(40), default="")
    deleted_at: Mapped[datetime | None]


class CommissioningRow(Base):
    """A saw brought to life: its steps with who did them and what was found."""

    __tablename__ = "commissioning"
    __table_args__ = (Index("ix_commissioning_saw_id", "saw_id"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    saw_id: Mapped[int] = mapped_column(ForeignKey("saw.id", ondelete="CASCADE"))
    kind: Mapped[str] = mapped_column(String(10))
    started_at: Mapped[datetime]
    finished_at: Mapped[datetime | None]
    steps: Mapped[dict[str, Any]]
    version: Mapped[int] = mapped_column(server_default=text("1"), default=1)
    deleted_at: Mapped[datetime | None]
