"""Figures tried out, kept with a variant of a job."""

from collections.abc import Sequence

import sqlalchemy as sa
from alembic import op

revision: str = "0003"
down_revision: str | None = "0002"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None


def upgrade() -> None:
    op.add_column(
        "job", sa.Column("what_if", sa.JSON(), nullable=False, server_default=sa.text("'{}'"))
    )


def downgrade() -> None:
    op.drop_column("job", "what_if")
