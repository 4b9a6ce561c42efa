"""Faces inspected, the motor's watts of a run, and what they taught of saw and materials."""

from collections.abc import Sequence

import sqlalchemy as sa
from alembic import op

revision: str = "0014"
down_revision: str | None = "0013"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None


def upgrade() -> None:
    """Nothing was inspected or measured before."""
    op.create_table(
        "face",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("job_id", sa.Integer, nullable=False),
        sa.Column("saw_id", sa.Integer, nullable=False),
        sa.Column("band_id", sa.Integer, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("who", sa.String(40), nullable=False),
        sa.Column("piece", sa.String(40), nullable=False),
        sa.Column("readings", sa.JSON, nullable=False),
        sa.Column("simulated", sa.Boolean, nullable=False),
        sa.Column("height_mm", sa.Double, nullable=False),
        sa.Column("length_mm", sa.Double, nullable=False),
        sa.Column("tolerance_mm", sa.Double, nullable=False),
        sa.Column("feed_m_min", sa.Double, nullable=False),
        sa.Column("stress_MPa", sa.Double, nullable=False),
        sa.Column("dullness", sa.Double, nullable=False),
        sa.Column("feed_force_N", sa.Double, nullable=True),
        sa.Column("strand_force_N", sa.Double, nullable=True),
        sa.Column("side_share_usual", sa.Double, nullable=False),
        sa.Column("deleted_at", sa.DateTime, nullable=True),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name="fk_face_job_id_job"),
        sa.ForeignKeyConstraint(["saw_id"], ["saw.id"], name="fk_face_saw_id_saw"),
        sa.ForeignKeyConstraint(["band_id"], ["band.id"], name="fk_face_band_id_band"),
        sa.PrimaryKeyConstraint("id", name="pk_face"),
    )
    op.create_index("ix_face_saw_id", "face", ["saw_id"])
    op.create_index("ix_face_job_id", "face", ["job_id"])
    op.add_column(
        "saw", sa.Column("side_factor", sa.Double, nullable=False, server_default=sa.text("1"))
    )
    op.add_column("saw", sa.Column("side_sd_ln", sa.Double, nullable=True))
    op.add_column(
        "shop", sa.Column("learned", sa.JSON, nullable=False, server_default=sa.text("'{}'"))
    )
    for name in ("power_W", "idle_W", "k_ref_MPa"):
        op.add_column("run", sa.Column(name, sa.Double, nullable=True))


def downgrade() -> None:
    """Faces, watts and what they taught go."""
    for name in ("k_ref_MPa", "idle_W", "power_W"):
        op.drop_column("run", name)
    op.drop_column("shop", "learned")
    op.drop_column("saw", "side_sd_ln")
    op.drop_column("saw", "side_factor")
    op.drop_table("face")
