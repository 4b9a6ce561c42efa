"""A reading left out of its limits may stay by a named person's reason."""

from collections.abc import Sequence

import sqlalchemy as sa
from alembic import op

revision: str = "0010"
down_revision: str | None = "0009"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None


def upgrade() -> None:
    """Steps kept before carry no reason: one out of its limits opens again."""
    for name, size in (("allowed_by", 40), ("allowed_why", 200)):
        op.add_column(
            "setup_step",
            sa.Column(name, sa.String(size), nullable=False, server_default=sa.text("''")),
        )


def downgrade() -> None:
    """The reasons go."""
    for name in ("allowed_why", "allowed_by"):
        op.drop_column("setup_step", name)
