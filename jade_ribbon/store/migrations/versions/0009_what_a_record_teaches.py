"""Runs wait to be confirmed and are marked without a card; bands carry signs, defects and a use."""

from collections.abc import Sequence
from typing import Any

import sqlalchemy as sa
from alembic import op

revision: str = "0009"
down_revision: str | None = "0008"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None


def _columns() -> list[tuple[str, sa.Column[Any]]]:
    no, nothing, one = sa.text("0"), sa.text("''"), sa.text("1")
    every = sa.text("'all'")
    return [
        ("run", sa.Column("to_confirm", sa.Boolean(), nullable=False, server_default=no)),
        ("run", sa.Column("planned_m_min", sa.Double())),
        ("run", sa.Column("planned_length_mm", sa.Double())),
        ("run", sa.Column("without_card", sa.String(), nullable=False, server_default=nothing)),
        ("band", sa.Column("defects", sa.JSON(), nullable=False, server_default=sa.text("'[]'"))),
        ("band", sa.Column("sign_odds", sa.Double(), nullable=False, server_default=one)),
        ("band", sa.Column("left_factor", sa.Double(), nullable=False, server_default=one)),
        ("band", sa.Column("kept_for", sa.String(20), nullable=False, server_default=every)),
    ]


def upgrade() -> None:
    """What was kept before counts as it did: confirmed, unmarked, sound, kept for anything."""
    for table, column in _columns():
        op.add_column(table, column)


def downgrade() -> None:
    """The columns go; runs that waited count again."""
    for table, column in reversed(_columns()):
        op.drop_column(table, column.name)
