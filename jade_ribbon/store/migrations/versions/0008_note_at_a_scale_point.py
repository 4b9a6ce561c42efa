"""A point of a saw's scale may carry the plucked band's note beside its stress."""

from collections.abc import Sequence

import sqlalchemy as sa
from alembic import op

revision: str = "0008"
down_revision: str | None = "0007"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None


def upgrade() -> None:
    """Points kept before have no note."""
    op.add_column("scale_point", sa.Column("note_Hz", sa.Double()))


def downgrade() -> None:
    """The note goes; the point stays."""
    op.drop_column("scale_point", "note_Hz")
