"""Jobs have notes."""

from collections.abc import Sequence

import sqlalchemy as sa
from alembic import op

revision: str = "0016"
down_revision: str | None = "0015"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None


def upgrade() -> None:
    """No notes were kept before."""
    with op.batch_alter_table("job") as job:
        job.add_column(sa.Column("note", sa.String, server_default=sa.text("''"), nullable=False))


def downgrade() -> None:
    with op.batch_alter_table("job") as job:
        job.drop_column("note")
