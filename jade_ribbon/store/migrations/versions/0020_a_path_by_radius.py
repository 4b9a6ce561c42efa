"""A job keeps its path by radius, as an outline told it."""

from collections.abc import Sequence

import sqlalchemy as sa
from alembic import op

revision: str = "0020"
down_revision: str | None = "0019"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None


def upgrade() -> None:
    op.add_column(
        "job", sa.Column("stretches", sa.JSON, nullable=False, server_default=sa.text("'[]'"))
    )


def downgrade() -> None:
    op.drop_column("job", "stretches")
