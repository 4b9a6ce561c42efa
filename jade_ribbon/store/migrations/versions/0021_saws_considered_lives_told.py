"""A saw may be considered only, and a band type has the life its seller tells of."""

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
    op.add_column("band_type", sa.Column("told_life", sa.Double))


def downgrade() -> None:
    op.drop_column("band_type", "told_life")
    op.drop_column("saw", "considered")
