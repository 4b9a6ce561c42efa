"""Tables of a shop: saws, bands, jobs, set-ups, runs, settings and the change log.

Every quantity column names its unit; times are UTC; money is in minor units. Changed
rows keep `deleted_at`, so that a delete can be undone.
"""

from datetime import UTC, datetime
from typing import Any

from sqlalchemy import (
    JSON,
    CheckConstraint,
    DateTime,
    ForeignKey,
    Index,
    MetaData,
    String,
    Text,
    UniqueConstraint,
    text,
)
from sqlalchemy.engine import Dialect
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column
from sqlalchemy.types import TypeDecorator

from jade_ribbon.core.setup.readiness import TensionState
from jade_ribbon.core.setup.tension_reading import Means
from jade_ribbon.core.setup.wheel_places import Axis, Wheel

NAMING = {
    "ix": "ix_%(table_name)s_%(column_0_N_name)s",
    "uq": "uq_%(table_name)s_%(column_0_N_name)s",
    "ck": "ck_%(table_name)s_%(constraint_name)s",
    "fk": "fk_%(table_name)s_%(column_0_name)s_%(referred_table_name)s",
    "pk": "pk_%(table_name)s",
}


class UtcDateTime(TypeDecorator[datetime]):
    """Times kept in UTC; a time without a zone is refused."""

    impl = DateTime
    cache_ok = True

    def process_bind_param(self, value: datetime | None, dialect: Dialect) -> datetime | None:
        if value is None:
            return None
        if value.tzinfo is None:
            raise ValueError(f"time without a zone: {value}")
        return value.astimezone(UTC).replace(tzinfo=None)

    def process_result_value(self, value: Any | None, dialect: Dialect) -> datetime | None:
        return None if value is None else value.replace(tzinfo=UTC)


class Base(DeclarativeBase):
    metadata = MetaData(naming_convention=NAMING)
    type_annotation_map = {  # noqa: RUF012 - SQLAlchemy's own idiom
        datetime: UtcDateTime,
        dict[str, Any]: JSON,
        list[Any]: JSON,
        list[str]: JSON,
        list[float]: JSON,
    }


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
    wheels_out: Mapped[bool] = mapped_column(server_default=text("0"), default=False)
    side_factor: Mapped[float] = mapped_column(server_default=text("1"), default=1.0)
    side_sd_ln: Mapped[float | None]
    fittings: Mapped[dict[str, Any]] = mapped_column(server_default=text("'{}'"), default=dict)
    version: Mapped[int] = mapped_column(server_default=text("1"), default=1)
    deleted_at: Mapped[datetime | None]


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
    """A photograph of a piece of stock, small."""

    __tablename__ = "photo"
    __table_args__ = (Index("ix_photo_stock_id", "stock_id"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    stock_id: Mapped[int] = mapped_column(ForeignKey("stock.id", ondelete="CASCADE"))
    jpeg: Mapped[bytes]
    at: Mapped[datetime]
    deleted_at: Mapped[datetime | None]


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


class RunRow(Base):
    """What was cut with what; `client_key` makes a resent run arrive once."""

    __tablename__ = "run"
    __table_args__ = (Index("ix_run_band_id_at", "band_id", "at"), Index("ix_run_job_id", "job_id"))

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
