"""Which records go out and come in, column by column, and how each line is written."""

from collections.abc import Callable, Hashable, Iterable, Mapping
from dataclasses import dataclass
from typing import Any
from uuid import uuid4

from pydantic import ValidationError
from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.edge.run_wear import run_wear
from jade_ribbon.core.edge.signs import SYMPTOMS
from jade_ribbon.core.job import Job, Rules
from jade_ribbon.core.quantities.entries import ENTRIES
from jade_ribbon.core.quantities.errors import InputError, refuse
from jade_ribbon.formats.job import CutFile, MaterialChanges
from jade_ribbon.formats.records_csv import Column
from jade_ribbon.formats.validation import Strict, faults_of
from jade_ribbon.services.clock import now
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.rack import band_types, bands, events
from jade_ribbon.services.rack.edges import MINOR, candidate, shop_lives
from jade_ribbon.services.rack.inputs import BandEventInput, BandInput, OwnTypeInput
from jade_ribbon.services.records import as_record, log_change
from jade_ribbon.services.shop import materials
from jade_ribbon.services.shop.inputs import MaterialInput
from jade_ribbon.services.shop.materials import material_table
from jade_ribbon.services.shop.saws import core_saw
from jade_ribbon.services.shop.settings import read_shop
from jade_ribbon.store.models import (
    BandEventRow,
    BandRow,
    BandTypeRow,
    MaterialRow,
    RunRow,
    SawRow,
)

Record = dict[str, Any]
Write = Callable[[Session, Record, Record | None], None]


@dataclass(frozen=True)
class FileTable:
    """A table of records: its columns, its lines, what tells one from another, how one is kept."""

    key: str
    name: str
    columns: tuple[Column, ...]
    records: Callable[[Session], Iterable[Record]]
    identity: Callable[[Mapping[str, Any]], Hashable | None]
    """None: a new one."""
    write: Write


def checked(model: type[Strict], values: Mapping[str, Any]) -> Any:
    """A record of a line by its model. InputError with everything wrong in it."""
    try:
        return model.model_validate(dict(values))
    except ValidationError as error:
        raise InputError(faults_of(error, model)) from None


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
        band_types.add_type(session, given)
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

# Runs


def _labels(session: Session) -> dict[int, str]:
    return {b.id: b.label for b in session.scalars(select(BandRow))}


def _runs(session: Session) -> Iterable[Record]:
    labels = _labels(session)
    saws = {s.id: s.name for s in session.scalars(select(SawRow))}
    rows = session.scalars(
        select(RunRow).where(RunRow.deleted_at.is_(None)).order_by(RunRow.at, RunRow.id)
    )
    for row in rows:
        record = {c.name: getattr(row, c.name, None) for c in RUNS.columns}
        yield record | {
            "key": row.client_key,
            "band": labels[row.band_id],
            "saw": saws[row.saw_id],
        }


def _one(session: Session, kind: type[Any], column: Any, name: str, field: str) -> Any:
    """The living record of a name. InputError where there is none, or more than one."""
    rows = session.scalars(
        select(kind).where(column == name, kind.deleted_at.is_(None)).limit(2)
    ).all()
    if len(rows) != 1:
        words = f"{name!r} is not here; accepted: a name on record"
        raise refuse(field, words if not rows else f"{name!r} is there twice", name)
    return rows[0]


def _write_run(session: Session, values: Record, before: Record | None) -> None:
    """A new run is worn in as if it had been logged; of one known, only what was noted changes."""
    if before is not None:
        row = session.scalars(select(RunRow).where(RunRow.client_key == before["key"])).one()
        was = as_record(row)
        row.note, row.who = values.get("note") or "", values.get("who") or ""
        log_change(session, row, "edit", was)
        return
    band = _one(session, BandRow, BandRow.label, str(values.get("band")), "band")
    saw = _one(session, SawRow, SawRow.name, str(values.get("saw")), "saw")
    at = values.get("at")
    if at is None:
        raise refuse("at", "is missing; accepted: a time such as 2026-03-12T14:05:00+00:00")
    if at > now():
        raise refuse("at", f"{at.isoformat()} is still to come; accepted: up to now", str(at))
    cut = checked(
        CutFile,
        {
            "operation": values.get("operation"),
            "material": values.get("material"),
            "height_mm": values.get("height_mm"),
            "length_mm": values.get("length_mm"),
            "count": values.get("pieces"),
            "finish": values.get("finish") or "rough",
            "min_radius_mm": BROUGHT_RADIUS_MM
            if values.get("operation") in ("curve", "circle")
            else None,
        },
    )
    for name, entry_name in (("feed_m_min", "feed_m_min"), ("speed_m_s", "speed_m_s")):
        accepted, value = ENTRIES[entry_name], values.get(name)
        if value is None or not accepted.holds(value):
            raise refuse(name, f"{value} is out of range; accepted: {accepted.words()}", value)
    feed, speed = float(values["feed_m_min"]), float(values["speed_m_s"])
    job = Job(
        saw=core_saw(saw),
        cut=cut.to_core(material_table(session)),
        rules=Rules(),
        rates=read_shop(session).rates,
    )
    cand = candidate(band, shop_lives(session), saw.id, saw.id)
    wear = run_wear(cand, job, feed_m_min=feed, speed_m_s=speed)
    length_m = cut.length_mm * cut.count / 1000.0
    row = RunRow(
        client_key=str(values.get("key") or uuid4().hex),
        saw_id=saw.id,
        band_id=band.id,
        at=at,
        operation=cut.operation,
        material=cut.material,
        height_mm=cut.height_mm,
        length_mm=cut.length_mm,
        pieces=cut.count,
        feed_m_min=feed,
        time_s=values.get("time_s") or length_m / feed * 60.0,
        speed_m_s=speed,
        finish=cut.finish,
        symptoms=_signs(values.get("symptoms")),
        note=values.get("note") or "",
        who=values.get("who") or "",
        contact_m=wear.contact_m,
        equivalent_m=wear.equivalent_m,
        fouling_gain=wear.fouling_gain,
        bending_share=min(wear.bending_share, 1.0),
    )
    session.add(row)
    log_change(session, row, "add", None)


BROUGHT_RADIUS_MM = 500.0
"""A curve of the record whose radius is not told: what it wears does not hang on it."""


def _signs(given: list[Any] | None) -> list[str]:
    for sign in given or []:
        if sign not in SYMPTOMS:
            words = f"{sign!r} is unknown; accepted: {', '.join(SYMPTOMS)}"
            raise refuse("symptoms", words, sign)
    return list(given or [])


RUNS = FileTable(
    "runs",
    "Runs",
    (
        Column("key", fixed=True),
        Column("at", "time", fixed=True),
        Column("band", fixed=True),
        Column("saw", fixed=True),
        Column("operation", fixed=True),
        Column("material", fixed=True),
        Column("height_mm", "number", fixed=True),
        Column("length_mm", "number", fixed=True),
        Column("pieces", "whole", fixed=True),
        Column("feed_m_min", "number", fixed=True),
        Column("time_s", "number", fixed=True),
        Column("speed_m_s", "number", fixed=True),
        Column("finish", fixed=True),
        Column("symptoms", "list", fixed=True),
        Column("note"),
        Column("who"),
    ),
    _runs,
    lambda r: r.get("key") or None,
    _write_run,
)

# Events


def _events(session: Session) -> Iterable[Record]:
    labels = _labels(session)
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
    band = _one(session, BandRow, BandRow.label, str(values.get("band")), "band")
    at = values.get("at") or now()
    if at > now():
        raise refuse("at", f"{at.isoformat()} is still to come; accepted: up to now", str(at))
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
    given = checked(
        MaterialInput,
        {"name": values.get("name") or "", "note": values.get("note") or "", "changes": figures},
    )
    key, base = str(values.get("key") or ""), str(values.get("base") or "")
    if before is not None or key in material_table(session):
        materials.correct(session, key, given)
    elif base in material_table(session):
        materials.add(session, base, given)
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
