"""Bands made here from coil stock: step by step, with what failed by which procedure."""

from collections import defaultdict
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.reference.care import making_steps
from jade_ribbon.services.clock import now
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.rack.bands import check_type, one_living_band_of_a_label
from jade_ribbon.services.rack.edges import MINOR, SHAPE_KEYS
from jade_ribbon.services.rack.inputs import (
    CoilInput,
    MakingEndInput,
    MakingInput,
    MakingStepInput,
)
from jade_ribbon.services.records import ChangeId, as_record, get, log_change
from jade_ribbon.services.shop.saws import owned_saws
from jade_ribbon.store.models import BandEventRow, BandRow, CoilRow, MakingRow

TRIED_LEAST = 5
"""Bands of a procedure before its share of failures is told."""


@dataclass(frozen=True)
class CoilLine:
    """A coil: what it is, how much is left."""

    id: int
    width_mm: float
    thickness_mm: float
    tpi_lo: float | None
    tpi_hi: float | None
    form: str
    steel: str
    set_per_side_mm: float | None
    left_mm: float
    price_per_m: float | None
    place: str
    note: str
    lengths: list["CoilLength"]
    version: int


@dataclass(frozen=True)
class CoilLength:
    """How many bands of a saw's length a coil still gives."""

    saw_id: int
    saw: str
    length_mm: float
    bands: int


@dataclass(frozen=True)
class StepTick:
    """A step of making: what to do, and who did it when."""

    key: str
    title: str
    do: str
    check: str
    caution: str
    done: bool
    who: str
    at: str
    note: str


@dataclass(frozen=True)
class MakingLine:
    """A band being made, made, or that failed."""

    id: int
    coil_id: int
    band_id: int | None
    label: str
    length_mm: float
    procedure: str
    state: str
    failed_at: str
    why: str
    who: str
    started_at: datetime
    finished_at: datetime | None
    steps: list[StepTick]


@dataclass(frozen=True)
class ProcedureLine:
    """A procedure with how many bands it made and failed; its share told from five on."""

    procedure: str
    made: int
    failed: int
    at: Mapping[str, int]
    words: str


@dataclass(frozen=True)
class MadeHere:
    """Coils, bands under way and made, procedures with their failures."""

    coils: list[CoilLine]
    making: list[MakingLine]
    procedures: list[ProcedureLine]


def made_here(session: Session) -> MadeHere:
    """All of it; three statements."""

    saws = sorted(session.scalars(owned_saws()).all(), key=lambda saw: saw.name)
    coils = session.scalars(
        select(CoilRow).where(CoilRow.deleted_at.is_(None)).order_by(CoilRow.width_mm)
    ).all()
    making = session.scalars(
        select(MakingRow)
        .where(MakingRow.deleted_at.is_(None))
        .order_by(MakingRow.started_at.desc(), MakingRow.id.desc())
    ).all()
    lengths = [
        (s.id, s.name, round((s.band_length_min_mm + s.band_length_max_mm) / 2.0, 1)) for s in saws
    ]
    return MadeHere(
        [
            CoilLine(
                id=c.id,
                **{name: getattr(c, name) for name in SHAPE_KEYS},
                left_mm=c.left_mm,
                price_per_m=None if c.price_per_m_minor is None else c.price_per_m_minor / MINOR,
                place=c.place,
                note=c.note,
                lengths=[CoilLength(i, n, mm, int(c.left_mm // mm)) for i, n, mm in lengths],
                version=c.version,
            )
            for c in coils
        ],
        [_line(m) for m in making],
        _procedures(making),
    )


def _line(row: MakingRow) -> MakingLine:
    steps = []
    for key, step in making_steps().items():
        told: dict[str, Any] = row.steps.get(key, {})
        steps.append(
            StepTick(
                key,
                step.title,
                step.do,
                step.check,
                step.caution,
                bool(told),
                told.get("who", ""),
                told.get("at", ""),
                told.get("note", ""),
            )
        )
    return MakingLine(
        id=row.id,
        coil_id=row.coil_id,
        band_id=row.band_id,
        label=row.label,
        length_mm=row.length_mm,
        procedure=row.procedure,
        state=row.state,
        failed_at=row.failed_at,
        why=row.why,
        who=row.who,
        started_at=row.started_at,
        finished_at=row.finished_at,
        steps=steps,
    )


def _procedures(rows: Any) -> list[ProcedureLine]:
    made: dict[str, int] = defaultdict(int)
    failed: dict[str, dict[str, int]] = defaultdict(lambda: defaultdict(int))
    for row in rows:
        if row.state == "made":
            made[row.procedure] += 1
        elif row.state == "failed":
            failed[row.procedure][row.failed_at] += 1
    found = []
    for name in sorted({*made, *failed}):
        bad = sum(failed[name].values())
        tried = made[name] + bad
        words = (
            f"{bad} of {tried} failed"
            if tried >= TRIED_LEAST
            else f"{bad} of {tried} failed: too few to tell procedures apart"
        )
        found.append(ProcedureLine(name, made[name], bad, dict(failed[name]), words))
    return found


def add_coil(session: Session, given: CoilInput) -> MadeHere:
    """A coil comes in."""
    check_type(given)
    row = CoilRow(
        **{name: getattr(given, name) for name in SHAPE_KEYS},
        left_mm=given.left_mm,
        price_per_m_minor=None if given.price_per_m is None else round(given.price_per_m * MINOR),
        place=given.place,
        note=given.note,
        arrived_at=now(),
    )
    session.add(row)
    log_change(session, row, "add", None)
    return made_here(session)


def delete_coil(session: Session, coil_id: int) -> ChangeId:
    """A coil goes; the id of the change, for undo."""
    row: CoilRow = get(session, "coil", coil_id)
    before = as_record(row)
    row.deleted_at = now()
    return log_change(session, row, "delete", before).id


def begin_making(session: Session, coil_id: int, given: MakingInput) -> MadeHere:
    """A band is begun from a coil: its length is off the coil, made or failed."""
    coil: CoilRow = get(session, "coil", coil_id)
    if coil.left_mm < given.length_mm:
        raise ConflictError(
            f"The coil has {coil.left_mm:g} mm left; a band of {given.length_mm:g} mm does not fit."
        )
    before = as_record(coil)
    coil.left_mm = round(coil.left_mm - given.length_mm, 3)
    log_change(session, coil, "edit", before)
    row = MakingRow(
        coil_id=coil.id,
        label=given.label,
        length_mm=given.length_mm,
        procedure=given.procedure,
        steps={},
        who=given.who,
        started_at=now(),
    )
    session.add(row)
    log_change(session, row, "add", None)
    return made_here(session)


def _open(session: Session, making_id: int) -> MakingRow:
    row: MakingRow = get(session, "making", making_id)
    if row.state != "open":
        raise ConflictError(f"{row.label} is {row.state} already.")
    return row


def making_step(session: Session, making_id: int, given: MakingStepInput) -> MadeHere:
    """A step is done; in their order, each once. ConflictError out of it."""
    row = _open(session, making_id)
    order = list(making_steps())
    done = [key for key in order if key in row.steps]
    wanted = order[len(done)] if len(done) < len(order) else ""
    if given.key != wanted:
        step = making_steps().get(wanted)
        raise ConflictError(f"{step.title if step else 'Nothing'} comes first.")
    before = as_record(row)
    told = {"who": given.who, "at": now().isoformat(), "note": given.note}
    row.steps = {**row.steps, given.key: told}
    log_change(session, row, "edit", before)
    return made_here(session)


def end_making(session: Session, making_id: int, given: MakingEndInput) -> MadeHere:
    """Made: a band is on the rack. Failed: it stays on record with the step and why."""
    row = _open(session, making_id)
    missing = [s.title for key, s in making_steps().items() if key not in row.steps]
    if given.made and missing:
        raise ConflictError(f"Not done yet: {', '.join(missing)}.")
    before = as_record(row)
    row.finished_at = now()
    if given.made:
        row.state, row.band_id = "made", _band(session, row, given.who).id
    else:
        row.state, row.failed_at, row.why = "failed", given.failed_at, given.why
    log_change(session, row, "edit", before)
    return made_here(session)


def _band(session: Session, row: MakingRow, who: str) -> BandRow:
    """The band that was made, with where it came from."""
    coil = session.get(CoilRow, row.coil_id)
    assert coil is not None
    per_m = coil.price_per_m_minor
    band = BandRow(
        label=row.label,
        **{name: getattr(coil, name) for name in SHAPE_KEYS},
        length_mm=row.length_mm,
        price_minor=None if per_m is None else round(per_m * row.length_mm / 1000.0),
        arrived_at=now(),
        state="rack",
    )
    one_living_band_of_a_label(session, band)
    session.add(band)
    log_change(session, band, "add", None)
    made = BandEventRow(
        band_id=band.id, at=band.arrived_at, kind="made", detail=row.procedure, who=who
    )
    session.add(made)
    log_change(session, made, "add", None)
    return band
