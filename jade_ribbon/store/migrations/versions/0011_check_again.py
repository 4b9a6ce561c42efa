"""A step that a later one disturbed is marked: check again."""

from collections.abc import Sequence

import sqlalchemy as sa
from alembic import op

revision: str = "0011"
down_revision: str | None = "0010"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None


def upgrade() -> None:
    """Steps kept before were disturbed by nothing that is known."""
    op.add_column(
        "setup_step",
        sa.Column("check_again", sa.String(60), nullable=False, server_default=sa.text("''")),
    )


def downgrade() -> None:
    """The marks go."""
    op.drop_column("setup_step", "check_again")
