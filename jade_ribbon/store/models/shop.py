"""The shop and its saws."""

from datetime import datetime
from typing import Any

from sqlalchemy import (
    CheckConstraint,
    ForeignKey,
    Index,
    String,
    text,
)
from sqlalchemy.orm import Mapped, mapped_column

from jade_ribbon.core.setup.readiness import TensionState
from jade_ribbon.store.models.base import Base


class ShopRow(Base):
    """The one row of settings of this shop."""

    __tablename__ = "shop"
    __table_args__ = (CheckConstraint("id = 1", name="single"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(80))
    units: Mapped[str] = mapped_column(String(10))
    currency: Mapped[str] = mapped_column(String(8))
    gauge_length_mm: Mapped[float]
    paper: Mapped[str] = mapped_column(String(8), server_default=text("'a4'"), default="a4")
    rules: Mapped[dict[str, Any]]
    rates: Mapped[dict[str, Any]]
    people: Mapped[list[str]]
    setting_up: Mapped[dict[str, Any]] = mapped_column(server_default=text("'{}'"), default=dict)
    rack: Mapped[dict[str, Any]] = mapped_column(server_default=text("'{}'"), default=dict)
    faults: Mapped[dict[str, Any]] = mapped_column(server_default=text("'{}'"), default=dict)
    learned: Mapped[dict[str, Any]] = mapped_column(server_default=text("'{}'"), default=dict)
    version: Mapped[int] = mapped_column(server_default=text("1"), default=1)


class SawRow(Base):
    """A saw, what is mounted on it and whether it is under tension."""

    __tablename__ = "saw"
    __table_args__ = (
        CheckConstraint("tension_state IN ('on', 'slack', 'unknown')", name="tension_state"),
        CheckConstraint("band_length_min_mm <= band_length_max_mm", name="band_length"),
        CheckConstraint("band_width_min_mm <= band_width_max_mm", name="band_width"),
    )

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(80))
    orientation: Mapped[str] = mapped_column(String(12))
    wheel_diameters_mm: Mapped[list[float]]
    tyre: Mapped[str] = mapped_column(String(12))
    band_length_min_mm: Mapped[float]
    band_length_max_mm: Mapped[float]
    band_width_min_mm: Mapped[float]
    band_width_max_mm: Mapped[float]
    band_thickness_max_mm: Mapped[float]
    wheel_force_max_N: Mapped[float | None]
    height_mm: Mapped[float]
    throat_mm: Mapped[float]
    guides: Mapped[str] = mapped_column(String(16))
    guide_span_base_mm: Mapped[float]
    guide_span_per_height: Mapped[float]
    motor_kW: Mapped[float]
    drive_efficiency: Mapped[float]
    drive: Mapped[dict[str, Any]]
    feed: Mapped[str] = mapped_column(String(12))
    feed_max_m_min: Mapped[float | None]
    tensioner: Mapped[str] = mapped_column(String(12))
    hand_force_N: Mapped[float]
    assumed: Mapped[list[str]]
    note: Mapped[str] = mapped_column(default="")
    mounted_band_id: Mapped[int | None] = mapped_column(ForeignKey("band.id"), unique=True)
    tension_state: Mapped[TensionState] = mapped_column(String(10), default="unknown")
    tension_since: Mapped[datetime | None]
    tension_stress_MPa: Mapped[float | None]
    speed_set_m_s: Mapped[float | None]
    considered: Mapped[bool] = mapped_column(server_default=text("0"), default=False)
    """Not owned: asked about, and never offered for work."""
    wheels_out: Mapped[bool] = mapped_column(server_default=text("0"), default=False)
    side_factor: Mapped[float] = mapped_column(server_default=text("1"), default=1.0)
    side_sd_ln: Mapped[float | None]
    fittings: Mapped[dict[str, Any]] = mapped_column(server_default=text("'{}'"), default=dict)
    upkeep: Mapped[dict[str, Any]] = mapped_column(server_default=text("'{}'"), default=dict)
    accessories: Mapped[dict[str, Any]] = mapped_column(server_default=text("'{}'"), default=dict)
    version: Mapped[int] = mapped_column(server_default=text("1"), default=1)
    deleted_at: Mapped[datetime | None]


class MaterialRow(Base):
    """The shop's own copy of a material: what it corrects, or a new one from a nearest."""

    __tablename__ = "material"

    id: Mapped[int] = mapped_column(primary_key=True)
    key: Mapped[str] = mapped_column(String(80), unique=True)
    base_key: Mapped[str] = mapped_column(String(80))
    name: Mapped[str] = mapped_column(String(80))
    changes: Mapped[dict[str, Any]]
    note: Mapped[str] = mapped_column(default="")
    version: Mapped[int] = mapped_column(server_default=text("1"), default=1)
    deleted_at: Mapped[datetime | None]


class DefectRow(Base):
    """Something wrong with a saw until it is closed."""

    __tablename__ = "defect"
    __table_args__ = (Index("ix_defect_saw_id", "saw_id"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    saw_id: Mapped[int] = mapped_column(ForeignKey("saw.id", ondelete="CASCADE"))
    text: Mapped[str] = mapped_column(String(400))
    stops: Mapped[bool]
    at: Mapped[datetime]
    who: Mapped[str] = mapped_column(String(40), default="")
    closed_at: Mapped[datetime | None]
    closed_by: Mapped[str] = mapped_column(String(40), default="")
    deleted_at: Mapped[datetime | None]
