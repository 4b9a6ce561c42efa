"""Steps of a set-up in a table of their own, so that they can be asked for; a saw's fittings."""

import json
from collections.abc import Sequence
from typing import Any

import sqlalchemy as sa
from alembic import op

revision: str = "0006"
down_revision: str | None = "0005"
branch_labels: str | Sequence[str] | None = None
depends_on: str | Sequence[str] | None = None

COLUMNS = ("id", "setup_id", "key", "done", "found", "left", "means", "note", "skipped", "who")
MORE = ("authorised_by", "still_good", "at", "deleted_at")


def _table() -> None:
    op.create_table(
        "setup_step",
        sa.Column("id", sa.Integer, nullable=False),
        sa.Column("setup_id", sa.Integer, nullable=False),
        sa.Column("key", sa.String(20), nullable=False),
        sa.Column("done", sa.Boolean, nullable=False),
        sa.Column("found", sa.JSON, nullable=False),
        sa.Column("left", sa.JSON, nullable=False),
        sa.Column("means", sa.String(10)),
        sa.Column("note", sa.String, nullable=False),
        sa.Column("skipped", sa.String(200), nullable=False),
        sa.Column("who", sa.String(40), nullable=False),
        sa.Column("authorised_by", sa.String(40), nullable=False),
        sa.Column("still_good", sa.Boolean, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("deleted_at", sa.DateTime),
        sa.PrimaryKeyConstraint("id", name="pk_setup_step"),
        sa.UniqueConstraint("setup_id", "key", name="uq_setup_step_setup_id_key"),
        sa.ForeignKeyConstraint(
            ["setup_id"], ["setup.id"], name="fk_setup_step_setup_id_setup", ondelete="CASCADE"
        ),
    )


def _record(step: dict[str, Any]) -> dict[str, Any]:
    """A step as the first versions kept it, brought to the columns it has now."""
    words = [
        f"{word} {step[key]}"
        for key, word in (("as_found", "found"), ("as_left", "left"))
        if step.get(key)
    ]
    return {
        "done": bool(step["done"]),
        "found": step.get("found", {}),
        "left": step.get("left", {}),
        "means": step.get("means"),
        "note": step.get("note", "") or ", ".join(words),
        "skipped": step.get("skipped", ""),
        "who": step.get("who", ""),
        "authorised_by": step.get("authorised_by", ""),
        "still_good": bool(step.get("still_good", False)),
        "at": step["at"],
    }


def _instant(text: str) -> str:
    """A UTC time as SQLite keeps it."""
    return text.replace("T", " ").removesuffix("+00:00").removesuffix("Z")


def _take_out(run: sa.Connection) -> None:
    """Each step of each card into its own row, and its changes with it."""
    insert = sa.text(
        'INSERT INTO setup_step (setup_id, "key", done, found, "left", means, note, skipped, who,'
        " authorised_by, still_good, at) VALUES (:setup_id, :key, :done, :found, :left, :means,"
        " :note, :skipped, :who, :authorised_by, :still_good, :at)"
    )
    rows = run.execute(sa.text("SELECT id, steps FROM setup")).all()
    ids: dict[tuple[int, str], int] = {}
    for setup_id, steps in rows:
        for key, step in json.loads(steps).items():
            record = _record(step)
            plain = record | {
                "setup_id": setup_id,
                "key": key,
                "found": json.dumps(record["found"]),
                "left": json.dumps(record["left"]),
                "at": _instant(record["at"]),
            }
            ids[setup_id, key] = run.execute(insert, plain).lastrowid
    _move_changes(run, ids)


def _move_changes(run: sa.Connection, ids: dict[tuple[int, str], int]) -> None:
    """Changes of a card that changed one step become changes of that step."""
    changes = run.execute(
        sa.text('SELECT id, noun_id, action, "before", "after" FROM change WHERE noun = \'setup\'')
    ).all()
    for change_id, setup_id, key, before, after in changes:
        step_id = ids.get((setup_id, key))
        if step_id is None or before is None:
            continue
        own = {"id": step_id, "setup_id": setup_id, "key": key, "deleted_at": None}
        was = json.loads(before).get("steps", {}).get(key)
        now = json.loads(after).get("steps", {}).get(key)
        values = {
            "noun_id": step_id,
            "before": None if was is None else json.dumps(own | _record(was)),
            "after": None if now is None else json.dumps(own | _record(now)),
            "id": change_id,
        }
        run.execute(
            sa.text(
                "UPDATE change SET noun = 'step', noun_id = :noun_id, \"before\" = :before,"
                ' "after" = :after WHERE id = :id'
            ),
            values,
        )


def upgrade() -> None:
    _table()
    _take_out(op.get_bind())
    with op.batch_alter_table("setup") as table:
        table.drop_column("steps")
    with op.batch_alter_table("saw") as table:
        table.alter_column("bench", new_column_name="fittings")


def downgrade() -> None:
    run = op.get_bind()
    with op.batch_alter_table("saw") as table:
        table.alter_column("fittings", new_column_name="bench")
    empty = sa.text("'{}'")
    op.add_column("setup", sa.Column("steps", sa.JSON, nullable=False, server_default=empty))
    found: dict[int, dict[str, Any]] = {}
    names = ", ".join(f'"{c}"' for c in (*COLUMNS[1:], *MORE[:-1]))
    for row in run.execute(
        sa.text(f"SELECT {names} FROM setup_step WHERE deleted_at IS NULL ORDER BY id")  # noqa: S608
    ).mappings():
        step = dict(row)
        key, setup_id = step.pop("key"), step.pop("setup_id")
        step["found"], step["left"] = json.loads(step["found"]), json.loads(step["left"])
        step["done"], step["still_good"] = bool(step["done"]), bool(step["still_good"])
        step["at"] = f"{step['at'].replace(' ', 'T')}+00:00"
        found.setdefault(setup_id, {})[key] = step
    for setup_id, steps in found.items():
        run.execute(
            sa.text("UPDATE setup SET steps = :steps WHERE id = :id"),
            {"steps": json.dumps(steps), "id": setup_id},
        )
    run.execute(sa.text("DELETE FROM change WHERE noun = 'step'"))
    op.drop_table("setup_step")
    with op.batch_alter_table("setup") as table:
        table.alter_column("steps", server_default=None)
