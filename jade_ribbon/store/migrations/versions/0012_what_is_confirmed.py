"""Teeth a band lacks, what was confirmed of its lives, and saws whose wheels are out of plane."""

from collections.abc import Sequence

import sqlalchemy as sa
from alembic import op

revision: str = "0012"
down_revision: str | None = "0011"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None


def upgrade() -> None:
    """Lost teeth are counted from the record; nothing was confirmed before."""
    op.add_column(
        "band", sa.Column("teeth_lost", sa.Integer, nullable=False, server_default=sa.text("0"))
    )
    op.add_column(
        "saw", sa.Column("wheels_out", sa.Boolean, nullable=False, server_default=sa.text("0"))
    )
    for table in ("band", "edge_life"):
        op.add_column(
            table, sa.Column("confirmed_m", sa.Double, nullable=False, server_default=sa.text("0"))
        )
    op.execute(
        "UPDATE band SET teeth_lost = coalesce((SELECT sum(value) FROM band_event"
        " WHERE band_event.band_id = band.id AND kind = 'teeth_lost' AND deleted_at IS NULL), 0)"
        " WHERE defects LIKE '%teeth_lost%'"
    )


def downgrade() -> None:
    """The counts and confirmations go."""
    op.drop_column("saw", "wheels_out")
    op.drop_column("edge_life", "confirmed_m")
    op.drop_column("band", "confirmed_m")
    op.drop_column("band", "teeth_lost")
