"""What was answered, and every change."""

from datetime import datetime
from typing import Any

from sqlalchemy import (
    JSON,
    Index,
    String,
    Text,
    text,
)
from sqlalchemy.orm import Mapped, mapped_column

from jade_ribbon.store.models.base import Base


class AnsweredRow(Base):
    """What a write was answered with, by its sender's key: sent again, it is not done again."""

    __tablename__ = "answered"
    __table_args__ = (Index("ix_answered_at", "at"),)

    key: Mapped[str] = mapped_column(String(64), primary_key=True)
    asked: Mapped[str] = mapped_column(String(64))
    at: Mapped[datetime]
    status: Mapped[int]
    answer: Mapped[str] = mapped_column(Text)


class ChangeRow(Base):
    """One change to a record: what it was before and after, for history and undo.

    `deed` is the first change of those made together; `undoes` the deed taken back by an undo.
    """

    __tablename__ = "change"
    __table_args__ = (
        Index("ix_change_noun_noun_id", "noun", "noun_id"),
        Index("ix_change_deed", "deed"),
    )

    id: Mapped[int] = mapped_column(primary_key=True)
    at: Mapped[datetime]
    noun: Mapped[str] = mapped_column(String(20))
    noun_id: Mapped[int]
    action: Mapped[str] = mapped_column(String(20))
    before: Mapped[dict[str, Any] | None] = mapped_column(JSON)
    after: Mapped[dict[str, Any] | None] = mapped_column(JSON)
    undone: Mapped[bool] = mapped_column(default=False)
    deed: Mapped[int | None]
    undoes: Mapped[int | None]
    who: Mapped[str] = mapped_column(String(40), server_default=text("''"), default="")
