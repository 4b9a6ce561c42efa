"""The shop's own band types; a log's diameter and stock stood on its end."""

from collections.abc import Sequence

import sqlalchemy as sa
from alembic import op

revision: str = "0004"
down_revision: str | None = "0003"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None


def upgrade() -> None:
    op.create_table(
        "band_type",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("width_mm", sa.Double(), nullable=False),
        sa.Column("thickness_mm", sa.Double(), nullable=False),
        sa.Column("tpi_lo", sa.Double()),
        sa.Column("tpi_hi", sa.Double()),
        sa.Column("form", sa.String(40), nullable=False),
        sa.Column("steel", sa.String(40), nullable=False),
        sa.Column("set_per_side_mm", sa.Double()),
        sa.Column("price_per_m_minor", sa.Integer),
        sa.Column("note", sa.String, nullable=False),
        sa.Column("deleted_at", sa.DateTime),
        sa.PrimaryKeyConstraint("id", name="pk_band_type"),
        sa.CheckConstraint("width_mm > 0 AND thickness_mm > 0", name="ck_band_type_sizes"),
    )
    op.add_column("job", sa.Column("log_diameter_mm", sa.Double()))
    op.add_column(
        "job",
        sa.Column("stood_on_end", sa.Boolean, nullable=False, server_default=sa.text("0")),
    )


def downgrade() -> None:
    op.drop_column("job", "stood_on_end")
    op.drop_column("job", "log_diameter_mm")
    op.drop_table("band_type")
