"""Runs out and in: a new one is worn in as if it had been logged, and asked about as one."""

from collections.abc import Iterable
from datetime import datetime
from typing import Any
from uuid import uuid4

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from jade_ribbon.core.edge.run_pace import feed_and_time
from jade_ribbon.core.edge.signs import SYMPTOMS
from jade_ribbon.core.job import Job
from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.input_limits import ENTRIES
from jade_ribbon.formats.job import CutFile
from jade_ribbon.formats.records_csv import Column
from jade_ribbon.formats.validation import checked
from jade_ribbon.services.files.lines import (
    FileTable,
    Record,
    labels_by_id,
    one_named,
    passed,
)
from jade_ribbon.services.rack.edges import candidate, shop_lives
from jade_ribbon.services.rack.replay import replayed_once
from jade_ribbon.services.records import as_record, log_change
from jade_ribbon.services.running.worn import wear_in
from jade_ribbon.services.shop.materials import material_table
from jade_ribbon.services.shop.saws import core_saw
from jade_ribbon.services.shop.settings import read_shop, rules_for
from jade_ribbon.store.models import BandEventRow, BandRow, RunRow, SawRow

ROWS_AT_ONCE = 2000
BROUGHT_RADIUS_MM = 500.0
"""A curve of the record whose radius is not told: what it wears does not hang on it."""


def _runs(session: Session) -> Iterable[Record]:
    labels = labels_by_id(session)
    saws = {s.id: s.name for s in session.scalars(select(SawRow))}
    told = [getattr(RunRow, c.name) for c in RUNS.columns if hasattr(RunRow, c.name)]
    rows = session.execute(
        select(RunRow.client_key, RunRow.band_id, RunRow.saw_id, *told)
        .where(RunRow.deleted_at.is_(None))
        .order_by(RunRow.at, RunRow.id)
        .execution_options(yield_per=ROWS_AT_ONCE)
    )
    for row in rows.mappings():
        yield {
            **row,
            "key": row["client_key"],
            "band": labels[row["band_id"]],
            "saw": saws[row["saw_id"]],
        }


def _cut(values: Record) -> CutFile:
    """What was cut, by its line."""
    curved = values.get("operation") in ("curve", "circle")
    found: CutFile = checked(
        CutFile,
        {
            "operation": values.get("operation"),
            "material": values.get("material"),
            "height_mm": values.get("height_mm"),
            "length_mm": values.get("length_mm"),
            "count": values.get("pieces"),
            "finish": values.get("finish") or "rough",
            "min_radius_mm": BROUGHT_RADIUS_MM if curved else None,
        },
    )
    return found


def _number(values: Record, name: str) -> float:
    accepted, value = ENTRIES[name], values.get(name)
    if value is None or not accepted.holds(value):
        raise refuse(name, f"{value} is out of range; accepted: {accepted.words()}", value)
    return float(value)


def _as_told(values: Record, cut: CutFile) -> Record:
    """What a line says of a run."""
    at = passed(values)
    if at is None:
        raise refuse("at", "is missing; accepted: a time such as 2026-03-12T14:05:00+00:00")
    feed, time = feed_and_time(
        length_m=cut.length_mm * cut.count / 1000.0,
        feed_m_min=_number(values, "feed_m_min"),
        time_s=values.get("time_s"),
    )
    return {
        "client_key": str(values.get("key") or uuid4().hex),
        "at": at,
        "operation": cut.operation,
        "material": cut.material,
        "height_mm": cut.height_mm,
        "length_mm": cut.length_mm,
        "pieces": cut.count,
        "feed_m_min": feed,
        "time_s": time,
        "speed_m_s": _number(values, "speed_m_s"),
        "finish": cut.finish,
        "symptoms": _signs(values.get("symptoms")),
        "note": values.get("note") or "",
        "who": values.get("who") or "",
    }


def _not_scrapped(session: Session, band: BandRow, at: datetime) -> None:
    """InputError for a run of a band that was scrapped before it."""
    if band.state != "scrapped":
        return
    since = session.scalar(
        select(func.max(BandEventRow.at)).where(
            BandEventRow.band_id == band.id,
            BandEventRow.kind == "scrapped",
            BandEventRow.deleted_at.is_(None),
        )
    )
    if since is None or at > since:
        words = f"{band.label} is scrapped; accepted: runs before it was"
        raise refuse("band", words, band.label)


def _write_run(session: Session, values: Record, before: Record | None) -> None:
    """A new run is worn in as if it had been logged; of one known, only what was noted changes."""
    if before is not None:
        row = session.scalars(select(RunRow).where(RunRow.client_key == before["key"])).one()
        was = as_record(row)
        row.note, row.who = values.get("note") or "", values.get("who") or ""
        log_change(session, row, "edit", was)
        return
    band = one_named(session, BandRow, BandRow.label, str(values.get("band")), "band")
    saw = one_named(session, SawRow, SawRow.name, str(values.get("saw")), "saw")
    cut = _cut(values)
    row = RunRow(saw_id=saw.id, band_id=band.id, **_as_told(values, cut))
    _not_scrapped(session, band, row.at)
    known = read_shop(session)
    job = Job(
        saw=core_saw(saw),
        cut=cut.to_core(material_table(session)),
        rules=rules_for(known),
        rates=known.rates,
    )
    worn = candidate(band, shop_lives(session), saw.id, saw.id)
    wear_in(row, worn, job, planned_length_mm=cut.length_mm, confirmed=False)
    session.add(row)
    log_change(session, row, "add", None)


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
    replayed_once,
)
