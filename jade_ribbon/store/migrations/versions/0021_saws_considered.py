"""A saw may be considered only: asked about, and never offered for work."""

from collections.abc import Sequence

import sqlalchemy as sa
from alembic import op

revision: str = "0021"
down_revision: str | None = "0020"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None


def upgrade() -> None:
    op.add_column(
        "saw", sa.Column("considered", sa.Boolean, nullable=False, server_default=sa.text("0"))
    )


def downgrade() -> None:
    op.drop_column("saw", "considered")
