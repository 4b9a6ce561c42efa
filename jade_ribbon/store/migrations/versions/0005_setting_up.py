"""Setting up: what is known of a saw's bench, its scale, alignment, drift and defects."""

from collections.abc import Sequence

import sqlalchemy as sa
from alembic import op

revision: str = "0005"
down_revision: str | None = "0004"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None


def _link(table: str, column: str, to: str, ondelete: str | None = None) -> sa.ForeignKeyConstraint:
    return sa.ForeignKeyConstraint(
        [column], [f"{to}.id"], name=f"fk_{table}_{column}_{to}", ondelete=ondelete
    )


def upgrade() -> None:
    empty = sa.text("'{}'")
    op.add_column("shop", sa.Column("setting_up", sa.JSON, nullable=False, server_default=empty))
    op.add_column("saw", sa.Column("speed_set_m_s", sa.Double()))
    op.add_column("saw", sa.Column("bench", sa.JSON, nullable=False, server_default=empty))
    op.create_table(
        "scale_point",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("saw_id", sa.Integer, nullable=False),
        sa.Column("band_id", sa.Integer, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("reading", sa.Double(), nullable=False),
        sa.Column("stress_MPa", sa.Double(), nullable=False),
        sa.Column("travel_mm", sa.Double()),
        sa.Column("means", sa.String(10), nullable=False),
        sa.Column("who", sa.String(40), nullable=False),
        sa.Column("deleted_at", sa.DateTime),
        sa.PrimaryKeyConstraint("id", name="pk_scale_point"),
        _link("scale_point", "saw_id", "saw", "CASCADE"),
        _link("scale_point", "band_id", "band"),
    )
    op.create_index("ix_scale_point_saw_id", "scale_point", ["saw_id"])
    op.create_table(
        "alignment",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("saw_id", sa.Integer, nullable=False),
        sa.Column("band_id", sa.Integer),
        sa.Column("axis", sa.String(8), nullable=False),
        sa.Column("wheel", sa.String(8), nullable=False),
        sa.Column("start_mm", sa.Double(), nullable=False),
        sa.Column("sits_on_both", sa.Boolean, nullable=False),
        sa.Column("moves", sa.JSON, nullable=False),
        sa.Column("state", sa.String(10), nullable=False),
        sa.Column("response_mm", sa.Double()),
        sa.Column("response_spread_mm", sa.Double()),
        sa.Column("who", sa.String(40), nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("finished_at", sa.DateTime),
        sa.Column("deleted_at", sa.DateTime),
        sa.PrimaryKeyConstraint("id", name="pk_alignment"),
        _link("alignment", "saw_id", "saw", "CASCADE"),
        _link("alignment", "band_id", "band"),
    )
    op.create_index("ix_alignment_saw_id", "alignment", ["saw_id"])
    op.create_table(
        "drift",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("saw_id", sa.Integer, nullable=False),
        sa.Column("band_id", sa.Integer, nullable=False),
        sa.Column("setup_id", sa.Integer),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("offset_mm", sa.Double(), nullable=False),
        sa.Column("run_mm", sa.Double(), nullable=False),
        sa.Column("angle_deg", sa.Double(), nullable=False),
        sa.Column("method", sa.String(14), nullable=False),
        sa.Column("who", sa.String(40), nullable=False),
        sa.Column("deleted_at", sa.DateTime),
        sa.PrimaryKeyConstraint("id", name="pk_drift"),
        _link("drift", "saw_id", "saw", "CASCADE"),
        _link("drift", "band_id", "band", "CASCADE"),
        _link("drift", "setup_id", "setup"),
    )
    op.create_index("ix_drift_band_id", "drift", ["band_id"])
    op.create_table(
        "defect",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("saw_id", sa.Integer, nullable=False),
        sa.Column("text", sa.String(400), nullable=False),
        sa.Column("stops", sa.Boolean, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("who", sa.String(40), nullable=False),
        sa.Column("closed_at", sa.DateTime),
        sa.Column("closed_by", sa.String(40), nullable=False),
        sa.Column("deleted_at", sa.DateTime),
        sa.PrimaryKeyConstraint("id", name="pk_defect"),
        _link("defect", "saw_id", "saw", "CASCADE"),
    )
    op.create_index("ix_defect_saw_id", "defect", ["saw_id"])


def downgrade() -> None:
    for table in ("defect", "drift", "alignment", "scale_point"):
        op.drop_table(table)
    op.drop_column("saw", "bench")
    op.drop_column("saw", "speed_set_m_s")
    op.drop_column("shop", "setting_up")
