"""What the rack knows of its bands: judgements, feeds, weighed cuts, coils, making, upkeep."""

import json
from collections.abc import Sequence

import sqlalchemy as sa
from alembic import op

revision: str = "0017"
down_revision: str | None = "0016"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None

EMPTY = sa.text("''")
NOTHING = sa.text("'{}'")
NO = sa.text("0")
LIVES = {
    "carbon_hardback": 1.0,
    "carbon_flexback": 1.0,
    "silicon_steel": 1.3,
    "bimetal_m42": 3.0,
    "carbide_tipped": 15.0,
    "carbide_grit": 12.0,
    "diamond_grit": 60.0,
    "cobalt_tipped_narrow": 5.0,
    "cobalt_tipped_wide": 6.0,
}
"""Lives of steels against plain carbon, as the table had them when judgements were metres only."""
CARBON_M = 8000.0
SHORTER = 0.9


def upgrade() -> None:
    """Judgements were kept as metres: what was said is those over the table's life then."""
    for name in ("judged", "fed", "weighed"):
        op.add_column("band", sa.Column(name, sa.JSON, nullable=True))
    op.add_column("band", sa.Column("look_first", sa.Boolean, nullable=False, server_default=NO))
    op.add_column("band_event", sa.Column("minutes", sa.Double, nullable=True))
    op.add_column("band_event", sa.Column("cost_minor", sa.Integer, nullable=True))
    op.add_column("band_event", sa.Column("facts", sa.JSON, nullable=False, server_default=NOTHING))
    op.add_column("run", sa.Column("edge_number", sa.Integer, nullable=False, server_default=NO))
    op.add_column("run", sa.Column("edge_before_m", sa.Double, nullable=False, server_default=NO))
    op.add_column("shop", sa.Column("rack", sa.JSON, nullable=False, server_default=NOTHING))
    for name in ("upkeep", "accessories"):
        op.add_column("saw", sa.Column(name, sa.JSON, nullable=False, server_default=NOTHING))
    _sums()
    _coils()
    _upkeep()
    _photos()
    _said()


def _sums() -> None:
    """Filled when the file's bands are replayed, by whoever opens it next."""
    numbers = ("seconds", "metres", "area_m2", "time_area", "time2", "area2")
    op.create_table(
        "run_sum",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("band_id", sa.Integer, nullable=False),
        sa.Column("month", sa.String(7), nullable=False),
        sa.Column("saw_id", sa.Integer, nullable=False),
        sa.Column("material", sa.String(80), nullable=False),
        sa.Column("operation", sa.String(12), nullable=False),
        sa.Column("height_step", sa.Integer, nullable=False),
        sa.Column("edge_number", sa.Integer, nullable=False),
        sa.Column("edge_step", sa.Integer, nullable=False),
        sa.Column("who", sa.String(40), nullable=False),
        sa.Column("runs", sa.Integer, nullable=False),
        sa.Column("pieces", sa.Integer, nullable=False),
        *(sa.Column(name, sa.Double, nullable=False) for name in numbers),
        sa.Column("table_m", sa.Double, nullable=False),
        sa.Column("equivalent_m", sa.Double, nullable=False),
        sa.ForeignKeyConstraint(
            ["band_id"], ["band.id"], name="fk_run_sum_band_id_band", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name="pk_run_sum"),
    )
    op.create_index("ix_run_sum_band_id", "run_sum", ["band_id"])
    op.create_index("ix_run_waiting", "run", ["id"], sqlite_where=sa.text("to_confirm"))


def _coils() -> None:
    op.create_table(
        "coil",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("width_mm", sa.Double, nullable=False),
        sa.Column("thickness_mm", sa.Double, nullable=False),
        sa.Column("tpi_lo", sa.Double, nullable=True),
        sa.Column("tpi_hi", sa.Double, nullable=True),
        sa.Column("form", sa.String(40), nullable=False),
        sa.Column("steel", sa.String(40), nullable=False),
        sa.Column("set_per_side_mm", sa.Double, nullable=True),
        sa.Column("left_mm", sa.Double, nullable=False),
        sa.Column("price_per_m_minor", sa.Integer, nullable=True),
        sa.Column("place", sa.String(80), nullable=False),
        sa.Column("note", sa.String, nullable=False),
        sa.Column("arrived_at", sa.DateTime, nullable=False),
        sa.Column("version", sa.Integer, nullable=False, server_default=sa.text("1")),
        sa.Column("deleted_at", sa.DateTime, nullable=True),
        sa.CheckConstraint("left_mm >= 0", name="left"),
        sa.PrimaryKeyConstraint("id", name="pk_coil"),
    )
    op.create_table(
        "making",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("coil_id", sa.Integer, nullable=False),
        sa.Column("band_id", sa.Integer, nullable=True),
        sa.Column("label", sa.String(40), nullable=False),
        sa.Column("length_mm", sa.Double, nullable=False),
        sa.Column("procedure", sa.String(80), nullable=False),
        sa.Column("steps", sa.JSON, nullable=False),
        sa.Column("state", sa.String(8), nullable=False),
        sa.Column("failed_at", sa.String(20), nullable=False),
        sa.Column("why", sa.String, nullable=False),
        sa.Column("who", sa.String(40), nullable=False),
        sa.Column("started_at", sa.DateTime, nullable=False),
        sa.Column("finished_at", sa.DateTime, nullable=True),
        sa.Column("version", sa.Integer, nullable=False, server_default=sa.text("1")),
        sa.Column("deleted_at", sa.DateTime, nullable=True),
        sa.CheckConstraint("state IN ('open', 'made', 'failed')", name="state"),
        sa.ForeignKeyConstraint(["coil_id"], ["coil.id"], name="fk_making_coil_id_coil"),
        sa.ForeignKeyConstraint(["band_id"], ["band.id"], name="fk_making_band_id_band"),
        sa.PrimaryKeyConstraint("id", name="pk_making"),
    )
    op.create_index("ix_making_coil_id", "making", ["coil_id"])


def _upkeep() -> None:
    op.create_table(
        "upkeep",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("saw_id", sa.Integer, nullable=False),
        sa.Column("key", sa.String(20), nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("hours", sa.Double, nullable=False),
        sa.Column("found", sa.String(8), nullable=False),
        sa.Column("note", sa.String, nullable=False),
        sa.Column("who", sa.String(40), nullable=False),
        sa.Column("deleted_at", sa.DateTime, nullable=True),
        sa.ForeignKeyConstraint(
            ["saw_id"], ["saw.id"], name="fk_upkeep_saw_id_saw", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name="pk_upkeep"),
    )
    op.create_index("ix_upkeep_saw_id", "upkeep", ["saw_id"])
    op.create_table(
        "commissioning",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("saw_id", sa.Integer, nullable=False),
        sa.Column("kind", sa.String(10), nullable=False),
        sa.Column("started_at", sa.DateTime, nullable=False),
        sa.Column("finished_at", sa.DateTime, nullable=True),
        sa.Column("steps", sa.JSON, nullable=False),
        sa.Column("version", sa.Integer, nullable=False, server_default=sa.text("1")),
        sa.Column("deleted_at", sa.DateTime, nullable=True),
        sa.ForeignKeyConstraint(
            ["saw_id"], ["saw.id"], name="fk_commissioning_saw_id_saw", ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name="pk_commissioning"),
    )
    op.create_index("ix_commissioning_saw_id", "commissioning", ["saw_id"])


def _photos() -> None:
    with op.batch_alter_table("photo") as photo:
        photo.alter_column("stock_id", existing_type=sa.Integer, nullable=True)
        for name in ("band", "run", "saw"):
            photo.add_column(sa.Column(f"{name}_id", sa.Integer, nullable=True))
            photo.create_foreign_key(
                f"fk_photo_{name}_id_{name}", name, [f"{name}_id"], ["id"], ondelete="CASCADE"
            )
        photo.add_column(sa.Column("shows", sa.String(8), nullable=False, server_default=EMPTY))
        photo.create_check_constraint(
            "of_one",
            "(stock_id IS NOT NULL) + (band_id IS NOT NULL) + (saw_id IS NOT NULL) = 1",
        )
    op.create_index("ix_photo_band_id", "photo", ["band_id"])


def _said() -> None:
    """How dull an edge was said to be, beside the metres that were kept of it."""
    found = op.get_bind().execute(
        sa.text(
            "SELECT e.id, e.value, b.steel, (SELECT count(*) FROM band_event s WHERE"
            " s.band_id = e.band_id AND s.kind = 'sharpened' AND s.deleted_at IS NULL"
            " AND s.at <= e.at) FROM band_event e JOIN band b ON b.id = e.band_id"
            " WHERE e.kind = 'edge_judged' AND e.value IS NOT NULL"
        )
    )
    for key, metres, steel, sharpenings in found.fetchall():
        life = CARBON_M * LIVES.get(steel, 1.0) * SHORTER**sharpenings
        facts = json.dumps({"dullness": min(2.0, metres / life)})
        op.get_bind().execute(
            sa.text("UPDATE band_event SET facts = :facts WHERE id = :id"),
            {"facts": facts, "id": key},
        )


def downgrade() -> None:
    """Photographs of bands and saws go with the rest."""
    op.execute("DELETE FROM photo WHERE stock_id IS NULL")
    op.drop_index("ix_photo_band_id", "photo")
    with op.batch_alter_table("photo") as photo:
        photo.drop_constraint("of_one", type_="check")
        for name in ("band", "run", "saw"):
            photo.drop_constraint(f"fk_photo_{name}_id_{name}", type_="foreignkey")
            photo.drop_column(f"{name}_id")
        photo.drop_column("shows")
        photo.alter_column("stock_id", existing_type=sa.Integer, nullable=False)
    for table in ("commissioning", "upkeep", "making", "coil", "run_sum"):
        op.drop_table(table)
    for name in ("upkeep", "accessories"):
        op.drop_column("saw", name)
    op.drop_column("shop", "rack")
    op.drop_index("ix_run_waiting", "run")
    for name in ("edge_before_m", "edge_number"):
        op.drop_column("run", name)
    for name in ("facts", "cost_minor", "minutes"):
        op.drop_column("band_event", name)
    for name in ("look_first", "weighed", "fed", "judged"):
        op.drop_column("band", name)
