"""A job says its billet, backing, stack, room in the throat, and whether the last face is sawn."""

from collections.abc import Sequence

import sqlalchemy as sa
from alembic import op

revision: str = "0007"
down_revision: str | None = "0006"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None


def upgrade() -> None:
    """Jobs kept before stand as they were: one at a time, nothing under them."""
    op.add_column("job", sa.Column("billet_mm", sa.Double()))
    op.add_column("job", sa.Column("throat_need_mm", sa.Double()))
    op.add_column(
        "job", sa.Column("backing_mm", sa.Double(), nullable=False, server_default=sa.text("0"))
    )
    op.add_column(
        "job", sa.Column("stack", sa.Integer, nullable=False, server_default=sa.text("1"))
    )
    op.add_column(
        "job",
        sa.Column("last_face_sawn", sa.Boolean, nullable=False, server_default=sa.text("0")),
    )


def downgrade() -> None:
    """The columns go; nothing else held what they say."""
    for name in ("last_face_sawn", "stack", "backing_mm", "throat_need_mm", "billet_mm"):
        op.drop_column("job", name)
