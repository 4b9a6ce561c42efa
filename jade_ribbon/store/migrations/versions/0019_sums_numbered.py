"""Sums of runs have numbers that are never given twice: what is new in them is seen by these."""

from collections.abc import Sequence

import sqlalchemy as sa
from alembic import op

revision: str = "0019"
down_revision: str | None = "0018"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None

WORDS = {"month": 7, "material": 80, "operation": 12, "who": 40}
WHOLE = ("id", "band_id", "saw_id", "height_step", "edge_number", "edge_step", "runs", "pieces")
NUMBERS = ("seconds", "metres", "area_m2", "time_area", "time2", "area2", "table_m", "equivalent_m")


def _rebuilt(*, numbered_once: bool) -> None:
    op.drop_index("ix_run_sum_band_id", "run_sum")
    op.rename_table("run_sum", "run_sum_before")
    op.create_table(
        "run_sum",
        *(sa.Column(n, sa.Integer, nullable=False) for n in WHOLE),
        *(sa.Column(n, sa.String(most), nullable=False) for n, most in WORDS.items()),
        *(sa.Column(n, sa.Double, nullable=False) for n in NUMBERS),
        sa.ForeignKeyConstraint(
            ["band_id"], ["band.id"], name="fk_run_sum_band_id_band", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name="pk_run_sum"),
        sqlite_autoincrement=numbered_once,
    )
    names = (*WHOLE, *WORDS, *NUMBERS)
    new, before = (sa.table(t, *map(sa.column, names)) for t in ("run_sum", "run_sum_before"))
    op.execute(new.insert().from_select(list(names), sa.select(*before.c)))
    op.drop_table("run_sum_before")
    op.create_index("ix_run_sum_band_id", "run_sum", ["band_id"])


def upgrade() -> None:
    _rebuilt(numbered_once=True)


def downgrade() -> None:
    _rebuilt(numbered_once=False)
