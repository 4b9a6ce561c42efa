"""Jobs have notes; a shop has its paper."""

from collections.abc import Sequence

import sqlalchemy as sa
from alembic import op

revision: str = "0016"
down_revision: str | None = "0015"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None


def upgrade() -> None:
    """No notes were kept before, and A4 was printed on."""
    with op.batch_alter_table("job") as job:
        job.add_column(sa.Column("note", sa.String, server_default=sa.text("''"), nullable=False))
    with op.batch_alter_table("shop") as shop:
        a4 = sa.text("'a4'")
        shop.add_column(sa.Column("paper", sa.String(8), server_default=a4, nullable=False))


def downgrade() -> None:
    with op.batch_alter_table("shop") as shop:
        shop.drop_column("paper")
    with op.batch_alter_table("job") as job:
        job.drop_column("note")
