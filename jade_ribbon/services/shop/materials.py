"""The shop's own copies of materials: corrections beside the original, and new ones."""

import dataclasses
import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Any

from pydantic import Field
from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.formats.job import MaterialChanges, MaterialFile, order_faults
from jade_ribbon.reference.tables import Material, materials
from jade_ribbon.services.clock import now
from jade_ribbon.services.edits import Edit, edit_of
from jade_ribbon.services.errors import ConflictError, NotFoundError
from jade_ribbon.services.records import ChangeId, as_record, log_change, must_hold
from jade_ribbon.services.shop.inputs import MaterialInput, NewMaterialInput
from jade_ribbon.store.models import JobRow, MaterialRow

FIELDS = tuple(MaterialChanges.model_fields)


@dataclass(frozen=True)
class FigureLine:
    """One figure of a material: the table's and the shop's own."""

    field: str
    original: float
    own: float | None


@dataclass(frozen=True)
class MaterialPage:
    """A material with the shop's corrections beside the original."""

    key: str
    name: str
    base_key: str
    base_name: str
    is_new: bool
    figures: list[FigureLine]
    note: str
    change_id: int | None
    version: int


MaterialEdit = edit_of(MaterialInput)


def with_changes(base: Material, row: MaterialRow) -> Material:
    """The material the core computes with."""
    return dataclasses.replace(base, key=row.key, name=row.name, **row.changes)


def material_table(session: Session) -> Mapping[str, Material]:
    """All materials as this shop has them; one statement."""
    table = dict(materials())
    rows = session.scalars(select(MaterialRow).where(MaterialRow.deleted_at.is_(None)))
    for row in rows:
        if row.base_key in materials():
            table[row.key] = with_changes(materials()[row.base_key], row)
    return table


def _row(session: Session, key: str) -> MaterialRow | None:
    return session.scalars(select(MaterialRow).where(MaterialRow.key == key)).first()


Key = Annotated[str, Field(max_length=80)]


def one_material(session: Session, key: Key, *, change_id: int | None = None) -> MaterialPage:
    """A material by key. NotFoundError when there is none."""
    row = _row(session, key)
    alive = row if row is not None and row.deleted_at is None else None
    base_key = alive.base_key if alive else key
    if base_key not in materials():
        raise NotFoundError("material", key)
    base = materials()[base_key]
    own = alive.changes if alive else {}
    return MaterialPage(
        key=key,
        name=alive.name if alive else base.name,
        base_key=base_key,
        base_name=base.name,
        is_new=key not in materials(),
        figures=[
            FigureLine(f, getattr(base, f), own.get(f))
            for f in FIELDS
            if getattr(base, f) is not None
        ],
        note=alive.note if alive else "",
        change_id=change_id,
        version=row.version if row else 0,
    )


def _check(material: Material) -> None:
    if faults := order_faults(material):
        raise InputError(faults)


def _keep(session: Session, row: MaterialRow, given: MaterialInput, action: str) -> MaterialPage:
    base = materials()[row.base_key]
    before = as_record(row) if row.id else None
    plain = given.changes.model_dump(exclude_none=True)
    row.changes = {k: v for k, v in plain.items() if v != getattr(base, k)}
    row.name, row.note, row.deleted_at = given.name, given.note, None
    session.add(row)
    change = log_change(session, row, action, before)
    return one_material(session, row.key, change_id=change.id)


def correct(session: Session, key: str, given: MaterialInput) -> MaterialPage:
    """Save the shop's figures of a material; the table's stay beside them."""
    row = _row(session, key)
    if row is None:
        if key not in materials():
            raise NotFoundError("material", key)
        row = MaterialRow(key=key, base_key=key, name="", changes={}, note="", version=1)
    return _keep(session, row, given, "edit")


def correct_material(session: Session, key: Key, edit: Edit) -> MaterialPage:
    """Save what was changed of a material. StaleError when it was saved by somebody else since."""
    row = _row(session, key)
    alive = row is not None and row.deleted_at is None
    kept = one_material(session, key)
    current = {
        "name": kept.name,
        "note": kept.note,
        "changes": row.changes if row and alive else {},
    }
    return correct(session, key, edit.onto(MaterialInput, current, kept.version))


def add_material(session: Session, given: NewMaterialInput) -> MaterialPage:
    """A new material from the nearest one in the table."""
    if given.nearest not in materials():
        raise NotFoundError("material", given.nearest)
    key = "own_" + re.sub(r"[^a-z0-9]+", "_", given.name.lower()).strip("_")[:70]
    if _row(session, key) is not None:
        raise ConflictError(f"A material named {given.name} is there already.")
    row = MaterialRow(key=key, base_key=given.nearest, name="", changes={}, note="", version=1)
    return _keep(session, row, given, "add")


def reset_material(session: Session, key: Key) -> ChangeId:
    """Drop the shop's copy; the id of the change, for undo."""
    row = _row(session, key)
    if row is None or row.deleted_at is not None:
        raise NotFoundError("own copy of material", key)
    before = as_record(row)
    row.deleted_at = now()
    return log_change(session, row, "delete", before).id


@must_hold("material")
def kept_while_used(session: Session, row: MaterialRow) -> None:
    """A material of the shop's own stays while a job uses it, and its figures fit together."""
    if row.deleted_at is None:
        _check(with_changes(materials()[row.base_key], row))
    elif row.key not in materials() and _in_use(session, row.key):
        raise ConflictError(f"{row.name} is used by a job; it cannot be deleted.")


def _in_use(session: Session, key: str) -> bool:
    query = select(JobRow.id).where(JobRow.material == key, JobRow.deleted_at.is_(None))
    return session.scalars(query).first() is not None


def own_file(session: Session, key: str) -> dict[str, Any] | None:
    """The shop's copy of a material as a job file carries it; None when it has none."""
    row = _row(session, key)
    if row is None or row.deleted_at is not None:
        return None
    return {"base": row.base_key, "name": row.name, "changes": row.changes}


def take_file(session: Session, key: str, given: MaterialFile) -> str:
    """Keep a material that came with a job file, where this shop has none of its own yet.

    The key of the material to use: this shop's own figures win over the file's.
    """
    if key in material_table(session):
        return key
    changes = given.changes
    return add_material(
        session, NewMaterialInput(nearest=given.base, name=given.name, changes=changes)
    ).key
