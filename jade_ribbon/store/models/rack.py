"""Bands, their types, what happened to them."""

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


class BandRow(Base):
    """A band on the rack, with counters replayed from its runs and events."""

    __tablename__ = "band"
    __table_args__ = (
        CheckConstraint("width_mm > 0 AND thickness_mm > 0 AND length_mm > 0", name="sizes"),
        CheckConstraint("state IN ('rack', 'out', 'scrapped')", name="state"),
        Index("ix_band_label", "label"),
        Index(
            "uq_band_label_living", "label", unique=True, sqlite_where=text("deleted_at IS NULL")
        ),
    )

    id: Mapped[int] = mapped_column(primary_key=True)
    label: Mapped[str] = mapped_column(String(40))
    width_mm: Mapped[float]
    thickness_mm: Mapped[float]
    tpi_lo: Mapped[float | None]
    tpi_hi: Mapped[float | None]
    form: Mapped[str] = mapped_column(String(40))
    steel: Mapped[str] = mapped_column(String(40))
    length_mm: Mapped[float]
    set_per_side_mm: Mapped[float | None]
    price_minor: Mapped[int | None]
    place: Mapped[str] = mapped_column(String(80), default="")
    state: Mapped[str] = mapped_column(String(12), default="rack")
    scrap_reason: Mapped[str | None] = mapped_column(String(20))
    arrived_at: Mapped[datetime]
    note: Mapped[str] = mapped_column(default="")
    sharpenings: Mapped[int] = mapped_column(default=0)
    edge_equivalent_m: Mapped[float] = mapped_column(default=0.0)
    edge_contact_m: Mapped[float] = mapped_column(default=0.0)
    total_contact_m: Mapped[float] = mapped_column(default=0.0)
    fouling: Mapped[float] = mapped_column(default=0.0)
    bending_share: Mapped[float] = mapped_column(default=0.0)
    runs: Mapped[int] = mapped_column(default=0)
    last_run_at: Mapped[datetime | None]
    sign_odds: Mapped[float] = mapped_column(server_default=text("1"), default=1.0)
    left_factor: Mapped[float] = mapped_column(server_default=text("1"), default=1.0)
    defects: Mapped[list[str]] = mapped_column(server_default=text("'[]'"), default=list)
    teeth_lost: Mapped[int] = mapped_column(server_default=text("0"), default=0)
    confirmed_m: Mapped[float] = mapped_column(server_default=text("0"), default=0.0)
    kept_for: Mapped[str] = mapped_column(String(20), server_default=text("'all'"), default="all")
    version: Mapped[int] = mapped_column(server_default=text("1"), default=1)
    deleted_at: Mapped[datetime | None]


class BandTypeRow(Base):
    """A band type the shop can buy, beside the built-in catalogue."""

    __tablename__ = "band_type"
    __table_args__ = (CheckConstraint("width_mm > 0 AND thickness_mm > 0", name="sizes"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    width_mm: Mapped[float]
    thickness_mm: Mapped[float]
    tpi_lo: Mapped[float | None]
    tpi_hi: Mapped[float | None]
    form: Mapped[str] = mapped_column(String(40))
    steel: Mapped[str] = mapped_column(String(40))
    set_per_side_mm: Mapped[float | None]
    price_per_m_minor: Mapped[int | None]
    note: Mapped[str] = mapped_column(default="")
    version: Mapped[int] = mapped_column(server_default=text("1"), default=1)
    deleted_at: Mapped[datetime | None]


class EdgeLifeRow(Base):
    """One life of an edge: new, or from one sharpening to the next."""

    __tablename__ = "edge_life"

    band_id: Mapped[int] = mapped_column(
        ForeignKey("band.id", ondelete="CASCADE"), primary_key=True
    )
    number: Mapped[int] = mapped_column(primary_key=True)
    equivalent_m: Mapped[float]
    ending: Mapped[str | None] = mapped_column(String(20))
    confirmed_m: Mapped[float] = mapped_column(server_default=text("0"), default=0.0)


class BandEventRow(Base):
    """Something that happened to a band other than a run."""

    __tablename__ = "band_event"
    __table_args__ = (Index("ix_band_event_band_id", "band_id"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    band_id: Mapped[int] = mapped_column(ForeignKey("band.id", ondelete="CASCADE"))
    at: Mapped[datetime]
    kind: Mapped[str] = mapped_column(String(20))
    detail: Mapped[str] = mapped_column(default="")
    value: Mapped[float | None]
    who: Mapped[str] = mapped_column(String(40), default="")
    deleted_at: Mapped[datetime | None]
