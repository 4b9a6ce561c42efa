"""Bands, their types, what happened to them."""

from datetime import datetime
from typing import Any

from sqlalchemy import (
    JSON,
    CheckConstraint,
    ForeignKey,
    Index,
    String,
    text,
)
from sqlalchemy.orm import Mapped, mapped_column

from jade_ribbon.store.models.base import Base


class BandShape:
    """What a band is made as: its strip, its teeth and its steel."""

    width_mm: Mapped[float]
    thickness_mm: Mapped[float]
    tpi_lo: Mapped[float | None]
    tpi_hi: Mapped[float | None]
    form: Mapped[str] = mapped_column(String(40))
    steel: Mapped[str] = mapped_column(String(40))
    set_per_side_mm: Mapped[float | None]


class BandRow(BandShape, Base):
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
    length_mm: Mapped[float]
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
    judged: Mapped[dict[str, Any] | None] = mapped_column(JSON(none_as_null=True))
    fed: Mapped[dict[str, Any] | None] = mapped_column(JSON(none_as_null=True))
    weighed: Mapped[dict[str, Any] | None] = mapped_column(JSON(none_as_null=True))
    look_first: Mapped[bool] = mapped_column(server_default=text("0"), default=False)
    kept_for: Mapped[str] = mapped_column(String(20), server_default=text("'all'"), default="all")
    version: Mapped[int] = mapped_column(server_default=text("1"), default=1)
    deleted_at: Mapped[datetime | None]


class BandTypeRow(BandShape, Base):
    """A band type the shop can buy, beside the built-in catalogue."""

    __tablename__ = "band_type"
    __table_args__ = (CheckConstraint("width_mm > 0 AND thickness_mm > 0", name="sizes"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    price_per_m_minor: Mapped[int | None]
    told_life: Mapped[float | None]
    """How many times a plain carbon edge it lasts, as its seller tells."""
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
    """Something that happened to a band other than a run; what a kind of it tells more in facts."""

    __tablename__ = "band_event"
    __table_args__ = (Index("ix_band_event_band_id", "band_id"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    band_id: Mapped[int] = mapped_column(ForeignKey("band.id", ondelete="CASCADE"))
    at: Mapped[datetime]
    kind: Mapped[str] = mapped_column(String(20))
    detail: Mapped[str] = mapped_column(default="")
    value: Mapped[float | None]
    minutes: Mapped[float | None]
    cost_minor: Mapped[int | None]
    facts: Mapped[dict[str, Any]] = mapped_column(server_default=text("'{}'"), default=dict)
    who: Mapped[str] = mapped_column(String(40), default="")
    deleted_at: Mapped[datetime | None]


class CoilRow(BandShape, Base):
    """Band stock on a coil, from which bands are made here."""

    __tablename__ = "coil"
    __table_args__ = (CheckConstraint("left_mm >= 0", name="left"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    left_mm: Mapped[float]
    price_per_m_minor: Mapped[int | None]
    place: Mapped[str] = mapped_column(String(80), default="")
    note: Mapped[str] = mapped_column(default="")
    arrived_at: Mapped[datetime]
    version: Mapped[int] = mapped_column(server_default=text("1"), default=1)
    deleted_at: Mapped[datetime | None]


class MakingRow(Base):
    """A band being made here: the steps ticked, and how it ended; failures stay on record."""

    __tablename__ = "making"
    __table_args__ = (
        CheckConstraint("state IN ('open', 'made', 'failed')", name="state"),
        Index("ix_making_coil_id", "coil_id"),
    )

    id: Mapped[int] = mapped_column(primary_key=True)
    coil_id: Mapped[int] = mapped_column(ForeignKey("coil.id"))
    band_id: Mapped[int | None] = mapped_column(ForeignKey("band.id"))
    label: Mapped[str] = mapped_column(String(40))
    length_mm: Mapped[float]
    procedure: Mapped[str] = mapped_column(String(80))
    steps: Mapped[dict[str, Any]]
    state: Mapped[str] = mapped_column(String(8), default="open")
    failed_at: Mapped[str] = mapped_column(String(20), default="")
    why: Mapped[str] = mapped_column(default="")
    who: Mapped[str] = mapped_column(String(40), default="")
    started_at: Mapped[datetime]
    finished_at: Mapped[datetime | None]
    version: Mapped[int] = mapped_column(server_default=text("1"), default=1)
    deleted_at: Mapped[datetime | None]
