"""Stock, metal in it, photographs."""

from datetime import datetime

from sqlalchemy import (
    CheckConstraint,
    ForeignKey,
    Index,
    String,
    text,
)
from sqlalchemy.orm import Mapped, mapped_column

from jade_ribbon.store.models.base import Base


class StockRow(Base):
    """A billet or a log; bow is positive when its marked face is hollow."""

    __tablename__ = "stock"
    __table_args__ = (
        CheckConstraint("kind IN ('billet', 'log')", name="kind"),
        CheckConstraint("state IN ('in', 'opened', 'gone')", name="state"),
        Index(
            "uq_stock_label_living",
            "label",
            unique=True,
            sqlite_where=text("deleted_at IS NULL AND state = 'in'"),
        ),
    )

    id: Mapped[int] = mapped_column(primary_key=True)
    kind: Mapped[str] = mapped_column(String(8))
    label: Mapped[str] = mapped_column(String(40))
    material: Mapped[str] = mapped_column(String(80))
    thickness_mm: Mapped[float | None]
    height_mm: Mapped[float | None]
    length_mm: Mapped[float]
    small_end_mm: Mapped[float | None]
    bark_mm: Mapped[float | None]
    bow_mm: Mapped[float]
    twist_mm: Mapped[float]
    moisture_pct: Mapped[float | None]
    moisture_at: Mapped[datetime | None]
    trued: Mapped[str] = mapped_column(String(10))
    reactive: Mapped[bool]
    suspect: Mapped[str] = mapped_column(String(8))
    price_minor: Mapped[int | None]
    place: Mapped[str] = mapped_column(String(80), default="")
    note: Mapped[str] = mapped_column(default="")
    parent_id: Mapped[int | None] = mapped_column(ForeignKey("stock.id"))
    state: Mapped[str] = mapped_column(String(8), default="in")
    arrived_at: Mapped[datetime]
    version: Mapped[int] = mapped_column(server_default=text("1"), default=1)
    deleted_at: Mapped[datetime | None]


class FastenerRow(Base):
    """Metal or stone mapped in a piece of stock."""

    __tablename__ = "fastener"
    __table_args__ = (Index("ix_fastener_stock_id", "stock_id"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    stock_id: Mapped[int] = mapped_column(ForeignKey("stock.id", ondelete="CASCADE"))
    along_mm: Mapped[float]
    face: Mapped[str] = mapped_column(String(6))
    depth_mm: Mapped[float | None]
    kind: Mapped[str] = mapped_column(String(8))
    state: Mapped[str] = mapped_column(String(14), default="in")
    at: Mapped[datetime]
    who: Mapped[str] = mapped_column(String(40), default="")
    version: Mapped[int] = mapped_column(server_default=text("1"), default=1)
    deleted_at: Mapped[datetime | None]


class PhotoRow(Base):
    """A photograph, small: of a piece of stock, a band, a run or a saw."""

    __tablename__ = "photo"
    __table_args__ = (
        Index("ix_photo_stock_id", "stock_id"),
        Index("ix_photo_band_id", "band_id"),
        CheckConstraint(
            "(stock_id IS NOT NULL) + (band_id IS NOT NULL) + (saw_id IS NOT NULL) = 1",
            name="of_one",
        ),
    )

    id: Mapped[int] = mapped_column(primary_key=True)
    stock_id: Mapped[int | None] = mapped_column(ForeignKey("stock.id", ondelete="CASCADE"))
    band_id: Mapped[int | None] = mapped_column(ForeignKey("band.id", ondelete="CASCADE"))
    run_id: Mapped[int | None] = mapped_column(ForeignKey("run.id", ondelete="CASCADE"))
    saw_id: Mapped[int | None] = mapped_column(ForeignKey("saw.id", ondelete="CASCADE"))
    shows: Mapped[str] = mapped_column(String(8), server_default=text("''"), default="")
    jpeg: Mapped[bytes]
    at: Mapped[datetime]
    deleted_at: Mapped[datetime | None]
