"""Versions of what two hands edit, changes by deed and by whom, answers kept by key, one label."""

from collections.abc import Sequence

import sqlalchemy as sa
from alembic import op

revision: str = "0013"
down_revision: str | None = "0012"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None

EDITED = ("shop", "saw", "band", "band_type", "job", "material")


def upgrade() -> None:
    """Every change so far was a deed by itself; two living bands of a label are told apart."""
    for table in EDITED:
        op.add_column(
            table, sa.Column("version", sa.Integer, nullable=False, server_default=sa.text("1"))
        )
    op.add_column("change", sa.Column("deed", sa.Integer, nullable=True))
    op.add_column("change", sa.Column("undoes", sa.Integer, nullable=True))
    op.add_column(
        "change", sa.Column("who", sa.String(40), nullable=False, server_default=sa.text("''"))
    )
    op.execute("UPDATE change SET deed = id")
    op.create_index("ix_change_deed", "change", ["deed"])
    op.add_column("setup", sa.Column("deleted_at", sa.DateTime, nullable=True))
    op.add_column("run", sa.Column("device_at", sa.DateTime, nullable=True))
    op.add_column(
        "run", sa.Column("time_doubt", sa.String(20), nullable=False, server_default=sa.text("''"))
    )
    op.create_table(
        "answered",
        sa.Column("key", sa.String(64), nullable=False),
        sa.Column("asked", sa.String(64), nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("status", sa.Integer, nullable=False),
        sa.Column("answer", sa.Text, nullable=False),
        sa.PrimaryKeyConstraint("key", name="pk_answered"),
    )
    op.create_index("ix_answered_at", "answered", ["at"])
    op.execute(
        "UPDATE band SET label = substr(label, 1, 30) || ' (' || id || ')'"
        " WHERE deleted_at IS NULL AND EXISTS (SELECT 1 FROM band AS first WHERE"
        " first.deleted_at IS NULL AND first.label = band.label AND first.id < band.id)"
    )
    op.create_index(
        "uq_band_label_living",
        "band",
        ["label"],
        unique=True,
        sqlite_where=sa.text("deleted_at IS NULL"),
    )


def downgrade() -> None:
    """Versions, deeds and kept answers go; labels stay as they are."""
    op.drop_index("uq_band_label_living", "band")
    op.drop_table("answered")
    op.drop_column("run", "time_doubt")
    op.drop_column("run", "device_at")
    op.drop_column("setup", "deleted_at")
    op.drop_index("ix_change_deed", "change")
    op.drop_column("change", "who")
    op.drop_column("change", "undoes")
    op.drop_column("change", "deed")
    for table in reversed(EDITED):
        op.drop_column(table, "version")
