"""Stock of the shop: billets and logs, the metal in them; what a run and a face tell besides."""

from collections.abc import Sequence

import sqlalchemy as sa
from alembic import op

revision: str = "0015"
down_revision: str | None = "0014"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None

EMPTY_LIST = sa.text("'[]'")
EMPTY = sa.text("''")


def upgrade() -> None:
    """No stock was kept before; runs and faces told less."""
    op.create_table(
        "stock",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("kind", sa.String(8), nullable=False),
        sa.Column("label", sa.String(40), nullable=False),
        sa.Column("material", sa.String(80), nullable=False),
        sa.Column("thickness_mm", sa.Double, nullable=True),
        sa.Column("height_mm", sa.Double, nullable=True),
        sa.Column("length_mm", sa.Double, nullable=False),
        sa.Column("small_end_mm", sa.Double, nullable=True),
        sa.Column("bark_mm", sa.Double, nullable=True),
        sa.Column("bow_mm", sa.Double, nullable=False),
        sa.Column("twist_mm", sa.Double, nullable=False),
        sa.Column("moisture_pct", sa.Double, nullable=True),
        sa.Column("moisture_at", sa.DateTime, nullable=True),
        sa.Column("trued", sa.String(10), nullable=False),
        sa.Column("reactive", sa.Boolean, nullable=False),
        sa.Column("suspect", sa.String(8), nullable=False),
        sa.Column("price_minor", sa.Integer, nullable=True),
        sa.Column("place", sa.String(80), nullable=False),
        sa.Column("note", sa.String, nullable=False),
        sa.Column("parent_id", sa.Integer, nullable=True),
        sa.Column("state", sa.String(8), nullable=False),
        sa.Column("arrived_at", sa.DateTime, nullable=False),
        sa.Column("version", sa.Integer, nullable=False, server_default=sa.text("1")),
        sa.Column("deleted_at", sa.DateTime, nullable=True),
        sa.CheckConstraint("kind IN ('billet', 'log')", name="kind"),
        sa.CheckConstraint("state IN ('in', 'opened', 'gone')", name="state"),
        sa.ForeignKeyConstraint(["parent_id"], ["stock.id"], name="fk_stock_parent_id_stock"),
        sa.PrimaryKeyConstraint("id", name="pk_stock"),
    )
    op.create_index(
        "uq_stock_label_living",
        "stock",
        ["label"],
        unique=True,
        sqlite_where=sa.text("deleted_at IS NULL AND state = 'in'"),
    )
    op.create_table(
        "fastener",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("stock_id", sa.Integer, nullable=False),
        sa.Column("along_mm", sa.Double, nullable=False),
        sa.Column("face", sa.String(6), nullable=False),
        sa.Column("depth_mm", sa.Double, nullable=True),
        sa.Column("kind", sa.String(8), nullable=False),
        sa.Column("state", sa.String(14), nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("who", sa.String(40), nullable=False),
        sa.Column("version", sa.Integer, nullable=False, server_default=sa.text("1")),
        sa.Column("deleted_at", sa.DateTime, nullable=True),
        sa.ForeignKeyConstraint(
            ["stock_id"], ["stock.id"], name="fk_fastener_stock_id_stock", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name="pk_fastener"),
    )
    op.create_index("ix_fastener_stock_id", "fastener", ["stock_id"])
    op.create_table(
        "photo",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("stock_id", sa.Integer, nullable=False),
        sa.Column("jpeg", sa.LargeBinary, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("deleted_at", sa.DateTime, nullable=True),
        sa.ForeignKeyConstraint(
            ["stock_id"], ["stock.id"], name="fk_photo_stock_id_stock", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name="pk_photo"),
    )
    op.create_index("ix_photo_stock_id", "photo", ["stock_id"])
    with op.batch_alter_table("job") as job:
        job.add_column(sa.Column("stock_id", sa.Integer, nullable=True))
        job.create_foreign_key("fk_job_stock_id_stock", "stock", ["stock_id"], ["id"])
    for name in ("preflight", "stops"):
        op.add_column("run", sa.Column(name, sa.JSON, nullable=False, server_default=EMPTY_LIST))
    op.add_column("run", sa.Column("chips", sa.String(8), nullable=False, server_default=EMPTY))
    for name in ("strikes", "teeth_lost"):
        op.add_column(
            "run", sa.Column(name, sa.Integer, nullable=False, server_default=sa.text("0"))
        )
    for name in ("amps_A", "floor_m_min"):
        op.add_column("run", sa.Column(name, sa.Double, nullable=True))
    op.add_column("face", sa.Column("roughness", sa.Integer, nullable=True))
    op.add_column("face", sa.Column("rough_over", sa.Integer, nullable=True))
    op.add_column("face", sa.Column("ridge_mm", sa.Double, nullable=True))
    op.add_column("face", sa.Column("guided", sa.String(8), nullable=False, server_default=EMPTY))
    op.add_column("face", sa.Column("speed_m_s", sa.Double, nullable=True))
    op.add_column("face", sa.Column("trial", sa.String(80), nullable=False, server_default=EMPTY))


def downgrade() -> None:
    """Stock, and what runs and faces told besides, go."""
    for name in ("trial", "guided", "speed_m_s", "ridge_mm", "rough_over", "roughness"):
        op.drop_column("face", name)
    for name in ("floor_m_min", "amps_A", "teeth_lost", "strikes", "chips", "stops", "preflight"):
        op.drop_column("run", name)
    with op.batch_alter_table("job") as job:
        job.drop_constraint("fk_job_stock_id_stock", type_="foreignkey")
        job.drop_column("stock_id")
    op.drop_table("photo")
    op.drop_table("fastener")
    op.drop_table("stock")
