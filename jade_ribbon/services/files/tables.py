"""Which records go out and come in, column by column, and how each line is written."""

from collections.abc import Iterable, Mapping

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.formats.job import MaterialChanges
from jade_ribbon.formats.records_csv import Column
from jade_ribbon.formats.validation import checked
from jade_ribbon.services.clock import now
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.files.lines import (
    FileTable,
    Record,
    labels_by_id,
    one_named,
    passed,
)
from jade_ribbon.services.files.run_lines import RUNS
from jade_ribbon.services.rack import band_types, bands, events
from jade_ribbon.services.rack.edges import MINOR
from jade_ribbon.services.rack.inputs import BandEventInput, BandInput, OwnTypeInput
from jade_ribbon.services.records import as_record, log_change
from jade_ribbon.services.shop import materials
from jade_ribbon.services.shop.inputs import MaterialInput, NewMaterialInput
from jade_ribbon.services.shop.materials import material_table
from jade_ribbon.store.models import BandEventRow, BandRow, BandTypeRow, MaterialRow


def _money(minor: int | None) -> float | None:
    return None if minor is None else minor / MINOR


SIZES = (
    Column("width_mm", "number"),
    Column("thickness_mm", "number"),
    Column("tpi_lo", "number"),
    Column("tpi_hi", "number"),
    Column("form"),
    Column("steel"),
    Column("set_per_side_mm", "number"),
)

# Bands


def _bands(session: Session) -> Iterable[Record]:
    rows = session.scalars(
        select(BandRow).where(BandRow.deleted_at.is_(None)).order_by(BandRow.label, BandRow.id)
    )
    for row in rows:
        record = {c.name: getattr(row, c.name, None) for c in BANDS.columns}
        yield record | {"price": _money(row.price_minor)}


def _write_band(session: Session, values: Record, before: Record | None) -> None:
    plain = {k: v for k, v in values.items() if k != "state"}
    given = checked(BandInput, plain)
    if before is None:
        bands.add_band(session, given)
        return
    row = session.scalars(
        select(BandRow).where(BandRow.label == before["label"], BandRow.deleted_at.is_(None))
    ).one()
    bands.edit_band(session, row.id, given)


BANDS = FileTable(
    "bands",
    "Bands",
    (
        Column("label"),
        *SIZES,
        Column("length_mm", "number"),
        Column("price", "number"),
        Column("place"),
        Column("kept_for"),
        Column("note"),
    ),
    _bands,
    lambda r: bands.plain_label(str(r.get("label") or "")) or None,
    _write_band,
)

# Types


def _types(session: Session) -> Iterable[Record]:
    rows = session.scalars(
        select(BandTypeRow).where(BandTypeRow.deleted_at.is_(None)).order_by(BandTypeRow.id)
    )
    for row in rows:
        record = {c.name: getattr(row, c.name, None) for c in TYPES.columns}
        yield record | {"price_per_m": _money(row.price_per_m_minor)}


KIND = ("width_mm", "thickness_mm", "tpi_lo", "tpi_hi", "form", "steel")


def _write_type(session: Session, values: Record, before: Record | None) -> None:
    given = checked(OwnTypeInput, values)
    if before is None:
        band_types.add_band_type(session, given)
        return
    rows = session.scalars(select(BandTypeRow).where(BandTypeRow.deleted_at.is_(None)))
    row = next(r for r in rows if all(getattr(r, k) == before[k] for k in KIND))
    band_types.edit_type(session, row.id, given)


TYPES = FileTable(
    "types",
    "Own band types",
    (*SIZES, Column("price_per_m", "number"), Column("note")),
    _types,
    lambda r: tuple(r.get(k) for k in KIND),
    _write_type,
)

# Events


def _events(session: Session) -> Iterable[Record]:
    labels = labels_by_id(session)
    rows = session.scalars(
        select(BandEventRow)
        .where(BandEventRow.deleted_at.is_(None))
        .order_by(BandEventRow.at, BandEventRow.id)
    )
    for row in rows:
        record = {c.name: getattr(row, c.name, None) for c in EVENTS.columns}
        yield record | {"band": labels[row.band_id], "cost": _money(row.cost_minor)}


def _write_event(session: Session, values: Record, before: Record | None) -> None:
    if before is not None:
        row = session.get(BandEventRow, before["id"])
        assert row is not None
        was = as_record(row)
        row.who = values.get("who") or ""
        log_change(session, row, "edit", was)
        return
    if values.get("id") is not None:
        raise refuse("id", f"{values['id']} is not here; accepted: empty for a new one")
    band = one_named(session, BandRow, BandRow.label, str(values.get("band")), "band")
    at = passed(values) or now()
    plain = {k: values.get(k) for k in ("kind", "detail", "value", "minutes", "cost", "who")}
    given = checked(BandEventInput, {k: v for k, v in plain.items() if v is not None})
    events.add_event(session, band.id, given, at)


EVENTS = FileTable(
    "events",
    "What happened to bands",
    (
        Column("id", "whole", fixed=True),
        Column("at", "time", fixed=True),
        Column("band", fixed=True),
        Column("kind", fixed=True),
        Column("detail", fixed=True),
        Column("value", "number", fixed=True),
        Column("minutes", "number", fixed=True),
        Column("cost", "number", fixed=True),
        Column("who"),
    ),
    _events,
    lambda r: r.get("id"),
    _write_event,
)

# Materials

FIGURES = tuple(MaterialChanges.model_fields)


def _materials(session: Session) -> Iterable[Record]:
    rows = session.scalars(
        select(MaterialRow).where(MaterialRow.deleted_at.is_(None)).order_by(MaterialRow.key)
    )
    for row in rows:
        figures = {name: row.changes.get(name) for name in FIGURES}
        yield {"key": row.key, "base": row.base_key, "name": row.name, "note": row.note} | figures


def _write_material(session: Session, values: Record, before: Record | None) -> None:
    figures = {k: values[k] for k in FIGURES if values.get(k) is not None}
    told = {k: values.get(k) or "" for k in ("name", "note")} | {"changes": figures}
    given = checked(MaterialInput, told)
    key, base = str(values.get("key") or ""), str(values.get("base") or "")
    if before is not None or key in material_table(session):
        materials.correct(session, key, given)
    elif base in material_table(session):
        materials.add_material(session, checked(NewMaterialInput, told | {"nearest": base}))
    else:
        raise refuse("base", f"{base!r} is unknown; accepted: the key of a material", base)


MATERIALS = FileTable(
    "materials",
    "The shop's own materials",
    (
        Column("key", fixed=True),
        Column("base", fixed=True),
        Column("name"),
        Column("note"),
        *(Column(name, "number") for name in FIGURES),
    ),
    _materials,
    lambda r: r.get("key") or None,
    _write_material,
)

TABLES: Mapping[str, FileTable] = {t.key: t for t in (BANDS, TYPES, RUNS, EVENTS, MATERIALS)}


def table_of(key: str) -> FileTable:
    """A table by its key. ConflictError for one that does not go out or in."""
    if key not in TABLES:
        raise ConflictError(f"{key[:40]!r} is no such file; there are {', '.join(TABLES)}.")
    return TABLES[key]
