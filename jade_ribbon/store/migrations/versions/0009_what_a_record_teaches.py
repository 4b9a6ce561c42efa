"""Runs wait to be confirmed and are marked without a card; bands carry signs, defects and a use."""

from collections.abc import Sequence

import sqlalchemy as sa
from alembic import op

revision: str = "0009"
down_revision: str | None = "0008"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None

TEXT = (
    ("run", "to_confirm"),
    ("run", "without_card"),
    ("band", "defects"),
)


def upgrade() -> None:
    """What was kept before counts as it did: confirmed, unmarked, sound, kept for anything."""
    for table, name in TEXT:
        op.add_column(
            table, sa.Column(name, sa.String(), nullable=False, server_default=sa.text("''"))
        )
    for name in ("sign_odds", "left_factor"):
        op.add_column(
            "band", sa.Column(name, sa.Double(), nullable=False, server_default=sa.text("1"))
        )
    op.add_column(
        "band",
        sa.Column("kept_for", sa.String(20), nullable=False, server_default=sa.text("'all'")),
    )


def downgrade() -> None:
    """The columns go; runs that waited count again."""
    for name in ("kept_for", "left_factor", "sign_odds"):
        op.drop_column("band", name)
    for table, name in reversed(TEXT):
        op.drop_column(table, name)
