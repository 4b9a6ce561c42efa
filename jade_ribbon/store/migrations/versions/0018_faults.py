"""Troubles with their path, how saws sound when they run well, what a shop checks with."""

from collections.abc import Sequence

import sqlalchemy as sa
from alembic import op

revision: str = "0018"
down_revision: str | None = "0017"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None

EMPTY = sa.text("''")
NOTHING = sa.text("'{}'")
NONE = sa.text("'[]'")
ZERO = sa.text("0")
STATES = "state IN ('open', 'watching', 'closed', 'gone')"


def _points_at(
    table: str, column: str, other: str, ondelete: str | None = None
) -> sa.ForeignKeyConstraint:
    name = f"fk_{table}_{column}_{other}"
    return sa.ForeignKeyConstraint([column], [f"{other}.id"], name=name, ondelete=ondelete)


def upgrade() -> None:
    op.add_column("shop", sa.Column("faults", sa.JSON, nullable=False, server_default=NOTHING))
    op.create_table(
        "trouble",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("saw_id", sa.Integer, nullable=False),
        *(sa.Column(f"{n}_id", sa.Integer, nullable=True) for n in ("band", "job", "run")),
        sa.Column("began", sa.String(10), nullable=False),
        sa.Column("opened_at", sa.DateTime, nullable=False),
        sa.Column("symptoms", sa.JSON, nullable=False),
        sa.Column("reads", sa.JSON, nullable=False),
        *(
            sa.Column(n, sa.JSON, nullable=False, server_default=NONE)
            for n in ("aside", "path", "causes")
        ),
        sa.Column("state", sa.String(10), nullable=False),
        sa.Column("remedy", sa.String(40), nullable=False, server_default=EMPTY),
        sa.Column("remedied_at", sa.DateTime, nullable=True),
        sa.Column("remedy_minutes", sa.Double, nullable=True),
        sa.Column("closed_at", sa.DateTime, nullable=True),
        sa.Column("spoiled_minor", sa.Integer, nullable=False, server_default=ZERO),
        sa.Column("note", sa.String, nullable=False, server_default=EMPTY),
        sa.Column("who", sa.String(40), nullable=False, server_default=EMPTY),
        sa.Column("version", sa.Integer, nullable=False, server_default=sa.text("1")),
        sa.Column("deleted_at", sa.DateTime, nullable=True),
        sa.CheckConstraint(STATES, name="ck_trouble_state"),
        _points_at("trouble", "saw_id", "saw", ondelete="CASCADE"),
        *(_points_at("trouble", f"{n}_id", n) for n in ("band", "job", "run")),
        sa.PrimaryKeyConstraint("id", name="pk_trouble"),
    )
    op.create_index("ix_trouble_saw_id", "trouble", ["saw_id"])
    op.create_index("ix_trouble_band_id", "trouble", ["band_id"])
    op.create_table(
        "sound",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("saw_id", sa.Integer, nullable=False),
        sa.Column("band_id", sa.Integer, nullable=True),
        sa.Column("speed_m_s", sa.Double, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("heard", sa.JSON, nullable=False),
        sa.Column("who", sa.String(40), nullable=False, server_default=EMPTY),
        sa.Column("deleted_at", sa.DateTime, nullable=True),
        _points_at("sound", "saw_id", "saw", ondelete="CASCADE"),
        _points_at("sound", "band_id", "band"),
        sa.PrimaryKeyConstraint("id", name="pk_sound"),
    )
    op.create_index("ix_sound_saw_id", "sound", ["saw_id"])


def downgrade() -> None:
    op.drop_table("sound")
    op.drop_table("trouble")
    op.drop_column("shop", "faults")
