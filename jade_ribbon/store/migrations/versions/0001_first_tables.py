"""First tables"""

from collections.abc import Sequence

import sqlalchemy as sa
from alembic import op

revision: str = "0001"
down_revision: str | None = None
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None


def upgrade() -> None:
    op.create_table(
        "band",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("label", sa.String(length=40), nullable=False),
        sa.Column("width_mm", sa.Double(), nullable=False),
        sa.Column("thickness_mm", sa.Double(), nullable=False),
        sa.Column("tpi_lo", sa.Double(), nullable=True),
        sa.Column("tpi_hi", sa.Double(), nullable=True),
        sa.Column("form", sa.String(length=40), nullable=False),
        sa.Column("steel", sa.String(length=40), nullable=False),
        sa.Column("length_mm", sa.Double(), nullable=False),
        sa.Column("set_per_side_mm", sa.Double(), nullable=True),
        sa.Column("price_minor", sa.Integer(), nullable=True),
        sa.Column("place", sa.String(length=80), nullable=False),
        sa.Column("state", sa.String(length=12), nullable=False),
        sa.Column("scrap_reason", sa.String(length=20), nullable=True),
        sa.Column("arrived_at", sa.DateTime(), nullable=False),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("sharpenings", sa.Integer(), nullable=False),
        sa.Column("edge_equivalent_m", sa.Double(), nullable=False),
        sa.Column("edge_contact_m", sa.Double(), nullable=False),
        sa.Column("total_contact_m", sa.Double(), nullable=False),
        sa.Column("fouling", sa.Double(), nullable=False),
        sa.Column("bending_share", sa.Double(), nullable=False),
        sa.Column("runs", sa.Integer(), nullable=False),
        sa.Column("last_run_at", sa.DateTime(), nullable=True),
        sa.Column("deleted_at", sa.DateTime(), nullable=True),
        sa.CheckConstraint("state IN ('rack', 'out', 'scrapped')", name=op.f("ck_band_state")),
        sa.CheckConstraint(
            "width_mm > 0 AND thickness_mm > 0 AND length_mm > 0", name=op.f("ck_band_sizes")
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_band")),
    )
    with op.batch_alter_table("band", schema=None) as batch_op:
        batch_op.create_index("ix_band_label", ["label"], unique=False)

    op.create_table(
        "change",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("noun", sa.String(length=20), nullable=False),
        sa.Column("noun_id", sa.Integer(), nullable=False),
        sa.Column("action", sa.String(length=20), nullable=False),
        sa.Column("before", sa.JSON(), nullable=True),
        sa.Column("after", sa.JSON(), nullable=True),
        sa.Column("undone", sa.Boolean(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_change")),
    )
    with op.batch_alter_table("change", schema=None) as batch_op:
        batch_op.create_index("ix_change_noun_noun_id", ["noun", "noun_id"], unique=False)

    op.create_table(
        "shop",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=80), nullable=False),
        sa.Column("units", sa.String(length=10), nullable=False),
        sa.Column("currency", sa.String(length=8), nullable=False),
        sa.Column("gauge_length_mm", sa.Double(), nullable=False),
        sa.Column("rules", sa.JSON(), nullable=False),
        sa.Column("rates", sa.JSON(), nullable=False),
        sa.Column("people", sa.JSON(), nullable=False),
        sa.CheckConstraint("id = 1", name=op.f("ck_shop_single")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_shop")),
    )
    op.create_table(
        "band_event",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("band_id", sa.Integer(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("kind", sa.String(length=20), nullable=False),
        sa.Column("detail", sa.String(), nullable=False),
        sa.Column("value", sa.Double(), nullable=True),
        sa.Column("who", sa.String(length=40), nullable=False),
        sa.Column("deleted_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(
            ["band_id"], ["band.id"], name=op.f("fk_band_event_band_id_band"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_band_event")),
    )
    with op.batch_alter_table("band_event", schema=None) as batch_op:
        batch_op.create_index("ix_band_event_band_id", ["band_id"], unique=False)

    op.create_table(
        "edge_life",
        sa.Column("band_id", sa.Integer(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("equivalent_m", sa.Double(), nullable=False),
        sa.Column("ending", sa.String(length=20), nullable=True),
        sa.ForeignKeyConstraint(
            ["band_id"], ["band.id"], name=op.f("fk_edge_life_band_id_band"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("band_id", "number", name=op.f("pk_edge_life")),
    )
    op.create_table(
        "saw",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=80), nullable=False),
        sa.Column("orientation", sa.String(length=12), nullable=False),
        sa.Column("wheel_diameters_mm", sa.JSON(), nullable=False),
        sa.Column("tyre", sa.String(length=12), nullable=False),
        sa.Column("band_length_min_mm", sa.Double(), nullable=False),
        sa.Column("band_length_max_mm", sa.Double(), nullable=False),
        sa.Column("band_width_min_mm", sa.Double(), nullable=False),
        sa.Column("band_width_max_mm", sa.Double(), nullable=False),
        sa.Column("band_thickness_max_mm", sa.Double(), nullable=False),
        sa.Column("wheel_force_max_N", sa.Double(), nullable=True),
        sa.Column("height_mm", sa.Double(), nullable=False),
        sa.Column("throat_mm", sa.Double(), nullable=False),
        sa.Column("guides", sa.String(length=16), nullable=False),
        sa.Column("guide_span_base_mm", sa.Double(), nullable=False),
        sa.Column("guide_span_per_height", sa.Double(), nullable=False),
        sa.Column("motor_kW", sa.Double(), nullable=False),
        sa.Column("drive_efficiency", sa.Double(), nullable=False),
        sa.Column("drive", sa.JSON(), nullable=False),
        sa.Column("feed", sa.String(length=12), nullable=False),
        sa.Column("feed_max_m_min", sa.Double(), nullable=True),
        sa.Column("tensioner", sa.String(length=12), nullable=False),
        sa.Column("hand_force_N", sa.Double(), nullable=False),
        sa.Column("assumed", sa.JSON(), nullable=False),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("mounted_band_id", sa.Integer(), nullable=True),
        sa.Column("tension_state", sa.String(length=10), nullable=False),
        sa.Column("tension_since", sa.DateTime(), nullable=True),
        sa.Column("tension_stress_MPa", sa.Double(), nullable=True),
        sa.Column("deleted_at", sa.DateTime(), nullable=True),
        sa.CheckConstraint(
            "tension_state IN ('on', 'slack', 'unknown')", name=op.f("ck_saw_tension_state")
        ),
        sa.CheckConstraint(
            "band_length_min_mm <= band_length_max_mm", name=op.f("ck_saw_band_length")
        ),
        sa.CheckConstraint(
            "band_width_min_mm <= band_width_max_mm", name=op.f("ck_saw_band_width")
        ),
        sa.ForeignKeyConstraint(
            ["mounted_band_id"], ["band.id"], name=op.f("fk_saw_mounted_band_id_band")
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_saw")),
        sa.UniqueConstraint("mounted_band_id", name=op.f("uq_saw_mounted_band_id")),
    )
    op.create_table(
        "job",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(length=120), nullable=False),
        sa.Column("operation", sa.String(length=12), nullable=False),
        sa.Column("material", sa.String(length=80), nullable=False),
        sa.Column("height_mm", sa.Double(), nullable=False),
        sa.Column("length_mm", sa.Double(), nullable=False),
        sa.Column("count", sa.Integer(), nullable=False),
        sa.Column("slice_mm", sa.Double(), nullable=True),
        sa.Column("min_radius_mm", sa.Double(), nullable=True),
        sa.Column("angle_deg", sa.Double(), nullable=False),
        sa.Column("finish", sa.String(length=8), nullable=False),
        sa.Column("tolerance_mm", sa.Double(), nullable=True),
        sa.Column("round_stock", sa.Boolean(), nullable=False),
        sa.Column("wall_mm", sa.Double(), nullable=True),
        sa.Column("rules", sa.JSON(), nullable=False),
        sa.Column("saw_id", sa.Integer(), nullable=True),
        sa.Column("band_id", sa.Integer(), nullable=True),
        sa.Column("state", sa.String(length=12), nullable=False),
        sa.Column("created_at", sa.DateTime(), nullable=False),
        sa.Column("updated_at", sa.DateTime(), nullable=False),
        sa.Column("deleted_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["band_id"], ["band.id"], name=op.f("fk_job_band_id_band")),
        sa.ForeignKeyConstraint(["saw_id"], ["saw.id"], name=op.f("fk_job_saw_id_saw")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_job")),
    )
    op.create_table(
        "run",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("client_key", sa.String(length=64), nullable=False),
        sa.Column("job_id", sa.Integer(), nullable=True),
        sa.Column("saw_id", sa.Integer(), nullable=False),
        sa.Column("band_id", sa.Integer(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("operation", sa.String(length=12), nullable=False),
        sa.Column("material", sa.String(length=80), nullable=False),
        sa.Column("height_mm", sa.Double(), nullable=False),
        sa.Column("length_mm", sa.Double(), nullable=False),
        sa.Column("pieces", sa.Integer(), nullable=False),
        sa.Column("feed_m_min", sa.Double(), nullable=False),
        sa.Column("time_s", sa.Double(), nullable=False),
        sa.Column("speed_m_s", sa.Double(), nullable=False),
        sa.Column("finish", sa.String(length=8), nullable=False),
        sa.Column("symptoms", sa.JSON(), nullable=False),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("who", sa.String(length=40), nullable=False),
        sa.Column("contact_m", sa.Double(), nullable=False),
        sa.Column("equivalent_m", sa.Double(), nullable=False),
        sa.Column("fouling_gain", sa.Double(), nullable=False),
        sa.Column("bending_share", sa.Double(), nullable=False),
        sa.Column("deleted_at", sa.DateTime(), nullable=True),
        sa.ForeignKeyConstraint(["band_id"], ["band.id"], name=op.f("fk_run_band_id_band")),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_run_job_id_job")),
        sa.ForeignKeyConstraint(["saw_id"], ["saw.id"], name=op.f("fk_run_saw_id_saw")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_run")),
        sa.UniqueConstraint("client_key", name=op.f("uq_run_client_key")),
    )
    with op.batch_alter_table("run", schema=None) as batch_op:
        batch_op.create_index("ix_run_band_id_at", ["band_id", "at"], unique=False)
        batch_op.create_index("ix_run_job_id", ["job_id"], unique=False)

    op.create_table(
        "setup",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("job_id", sa.Integer(), nullable=False),
        sa.Column("saw_id", sa.Integer(), nullable=False),
        sa.Column("band_id", sa.Integer(), nullable=False),
        sa.Column("started_at", sa.DateTime(), nullable=False),
        sa.Column("finished_at", sa.DateTime(), nullable=True),
        sa.Column("steps", sa.JSON(), nullable=False),
        sa.Column("acknowledged", sa.JSON(), nullable=False),
        sa.Column("figures", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["band_id"], ["band.id"], name=op.f("fk_setup_band_id_band")),
        sa.ForeignKeyConstraint(
            ["job_id"], ["job.id"], name=op.f("fk_setup_job_id_job"), ondelete="CASCADE"
        ),
        sa.ForeignKeyConstraint(["saw_id"], ["saw.id"], name=op.f("fk_setup_saw_id_saw")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_setup")),
    )
    with op.batch_alter_table("setup", schema=None) as batch_op:
        batch_op.create_index("ix_setup_job_id", ["job_id"], unique=False)


def downgrade() -> None:
    with op.batch_alter_table("setup", schema=None) as batch_op:
        batch_op.drop_index("ix_setup_job_id")

    op.drop_table("setup")
    with op.batch_alter_table("run", schema=None) as batch_op:
        batch_op.drop_index("ix_run_job_id")
        batch_op.drop_index("ix_run_band_id_at")

    op.drop_table("run")
    op.drop_table("job")
    op.drop_table("saw")
    op.drop_table("edge_life")
    with op.batch_alter_table("band_event", schema=None) as batch_op:
        batch_op.drop_index("ix_band_event_band_id")

    op.drop_table("band_event")
    op.drop_table("shop")
    with op.batch_alter_table("change", schema=None) as batch_op:
        batch_op.drop_index("ix_change_noun_noun_id")

    op.drop_table("change")
    with op.batch_alter_table("band", schema=None) as batch_op:
        batch_op.drop_index("ix_band_label")

    op.drop_table("band")
