"""Billets and logs on their rack: add, change, open, and the metal mapped in them."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any, cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.quantities.errors import Fault, InputError, refuse
from jade_ribbon.core.stock.condition import (
    Condition,
    StockReadiness,
    StockRule,
    Suspect,
    Trued,
    readiness_of,
    volume_m3,
)
from jade_ribbon.core.stock.fasteners import (
    Fastener,
    FastenerFace,
    FastenerKind,
    FastenerState,
)
from jade_ribbon.reference.tables import Material
from jade_ribbon.services.clock import now
from jade_ribbon.services.edits import Edit, edit_of
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.photos import latest
from jade_ribbon.services.rack.edges import MINOR
from jade_ribbon.services.records import ChangeId, as_record, get, log_change, must_hold
from jade_ribbon.services.shop.materials import material_table
from jade_ribbon.services.shop.settings import read_shop
from jade_ribbon.services.stock.inputs import FastenerInput, OpenInput, StockInput
from jade_ribbon.store.models import FastenerRow, JobRow, StockRow

PLAIN = tuple(n for n in StockInput.model_fields if n != "price")
StockEdit = edit_of(StockInput)
FastenerEdit = edit_of(FastenerInput)
FASTENER_PLAIN = tuple(FastenerInput.model_fields)
DAY_S = 86_400.0


@dataclass(frozen=True)
class FastenerAnswer:
    """Metal in a piece of stock, as mapped."""

    id: int
    along_mm: float
    face: FastenerFace
    depth_mm: float | None
    kind: FastenerKind
    state: FastenerState
    version: int


@dataclass(frozen=True)
class StockAnswer:
    """A billet or a log, with whether it is ready to saw."""

    id: int
    kind: str
    label: str
    material: str
    material_name: str
    thickness_mm: float | None
    height_mm: float | None
    length_mm: float
    small_end_mm: float | None
    bark_mm: float | None
    bow_mm: float
    twist_mm: float
    moisture_pct: float | None
    moisture_at: datetime | None
    trued: Trued
    reactive: bool
    suspect: Suspect
    price: float | None
    place: str
    note: str
    parent_id: int | None
    parent_label: str | None
    state: str
    volume_m3: float
    readiness: StockReadiness
    photo_id: int | None
    version: int
    change_id: int | None = None


@dataclass(frozen=True)
class Opened:
    """The two parts of an opened billet, and the change that undoes it."""

    first: StockAnswer
    second: StockAnswer
    change_id: int


def fasteners(session: Session, stock_id: int) -> list[FastenerRow]:
    """The metal mapped in a piece of stock, along it."""
    query = (
        select(FastenerRow)
        .where(FastenerRow.stock_id == stock_id, FastenerRow.deleted_at.is_(None))
        .order_by(FastenerRow.along_mm, FastenerRow.id)
    )
    return list(session.scalars(query))


def core_fastener(row: FastenerRow) -> Fastener:
    """A mark as the core takes it."""
    return Fastener(
        row.along_mm,
        cast(FastenerFace, row.face),
        row.depth_mm,
        cast(FastenerKind, row.kind),
        cast(FastenerState, row.state),
    )


def readiness(session: Session, row: StockRow, material: Material | None) -> StockReadiness:
    """Whether a piece of stock can be sawn, by what was noted of it."""
    read_at = row.moisture_at
    days = None if read_at is None else (now() - read_at).total_seconds() / DAY_S
    found = Condition(
        trued=cast(Trued, row.trued) if row.kind == "billet" else "four",
        twist_mm=row.twist_mm,
        moisture_pct=row.moisture_pct,
        moisture_days=days,
        suspect=cast(Suspect, row.suspect),
        mapped=len(fasteners(session, row.id)),
        log=row.kind == "log",
        bow_mm=row.bow_mm,
        is_wood=material is None or material.is_wood,
        sawn_up=row.state == "gone",
    )
    return readiness_of(found, cast(StockRule, read_shop(session).rules["stock"]))


def stock_answer(session: Session, row: StockRow, change_id: int | None = None) -> StockAnswer:
    """A piece of stock as it is shown."""
    material = material_table(session).get(row.material)
    parent = session.get(StockRow, row.parent_id) if row.parent_id else None
    return StockAnswer(
        id=row.id,
        **{n: getattr(row, n) for n in PLAIN},
        price=None if row.price_minor is None else row.price_minor / MINOR,
        material_name=material.name if material else row.material,
        parent_id=row.parent_id,
        parent_label=parent.label if parent else None,
        state=row.state,
        volume_m3=volume_m3(
            row.length_mm,
            thickness_mm=row.thickness_mm or 0.0,
            height_mm=row.height_mm or 0.0,
            round_mm=row.small_end_mm if row.kind == "log" else None,
        ),
        readiness=readiness(session, row, material),
        photo_id=latest(session, row.id),
        version=row.version,
        change_id=change_id,
    )


def list_stock(session: Session) -> list[StockAnswer]:
    """What lies on the rack, the latest first."""
    query = (
        select(StockRow)
        .where(StockRow.deleted_at.is_(None), StockRow.state == "in")
        .order_by(StockRow.id.desc())
    )
    return [stock_answer(session, row) for row in session.scalars(query)]


def one_stock(session: Session, stock_id: int) -> StockAnswer:
    """One billet or log. NotFoundError."""
    return stock_answer(session, get(session, "stock", stock_id))


@must_hold("stock")
def one_label_one_piece(session: Session, row: StockRow) -> None:
    """A label names one piece on the rack, however it is written."""
    if row.deleted_at is not None or row.state != "in":
        return
    query = select(StockRow).where(
        StockRow.id != row.id, StockRow.deleted_at.is_(None), StockRow.state == "in"
    )
    same = row.label.strip().casefold()
    if any(other.label.strip().casefold() == same for other in session.scalars(query)):
        raise ConflictError(f"{row.label} is on the rack already: give this one another label.")


def _apply(session: Session, row: StockRow, given: StockInput) -> None:
    table = material_table(session)
    if given.material not in table:
        words = f"{given.material!r} is not known; accepted: a material of the list"
        raise InputError([Fault("material", words, given.material)])
    if given.moisture_at is not None and given.moisture_at > now():
        raise refuse("moisture_at", "is still to come; accepted: when it was measured", None)
    measured = given.moisture_pct != row.moisture_pct
    for name in PLAIN:
        setattr(row, name, getattr(given, name))
    row.label = given.label.strip()
    row.price_minor = None if given.price is None else round(given.price * MINOR)
    if given.moisture_pct is None:
        row.moisture_at = None
    elif measured and given.moisture_at is None:
        row.moisture_at = now()


def add_stock(session: Session, given: StockInput, *, at: datetime | None = None) -> StockAnswer:
    """Put a billet or a log on the rack. InputError; ConflictError for a label twice."""
    row = StockRow(version=1, state="in", arrived_at=at or now())
    _apply(session, row, given)
    session.add(row)
    return stock_answer(session, row, log_change(session, row, "add", None).id)


def save_stock(session: Session, stock_id: int, edit: Edit) -> StockAnswer:
    """Save what was changed. StaleError when it was saved by somebody else since."""
    row: StockRow = get(session, "stock", stock_id)
    current: dict[str, Any] = {n: getattr(row, n) for n in PLAIN}
    current["price"] = None if row.price_minor is None else row.price_minor / MINOR
    given = edit.onto(StockInput, current, row.version)
    if "moisture_pct" in edit.sent() and "moisture_at" not in edit.sent():
        given = given.model_copy(update={"moisture_at": None})
    before = as_record(row)
    _apply(session, row, given)
    return stock_answer(session, row, log_change(session, row, "edit", before).id)


def delete_stock(session: Session, stock_id: int) -> ChangeId:
    """Take a piece off the rack; the id of the change. ConflictError while a job is cut from it."""
    row: StockRow = get(session, "stock", stock_id)
    job = session.scalars(
        select(JobRow).where(
            JobRow.stock_id == stock_id, JobRow.deleted_at.is_(None), JobRow.state != "done"
        )
    ).first()
    if job is not None:
        raise ConflictError(f"{job.name or 'a job'} is cut from {row.label}: free it first.")
    before = as_record(row)
    row.deleted_at = now()
    return log_change(session, row, "delete", before).id


def use_stock(session: Session, stock_id: int) -> ChangeId:
    """A piece that was sawn up leaves the rack; the id of the change. ConflictError once gone."""
    row: StockRow = get(session, "stock", stock_id)
    if row.state != "in":
        raise ConflictError(f"{row.label} is not on the rack any more.")
    before = as_record(row)
    row.state = "gone"
    return log_change(session, row, "used", before).id


def _part(row: StockRow, given: OpenInput, *, first: bool) -> StockRow:
    """One of the two parts that a cut leaves; money and moisture go with it."""
    thick = row.thickness_mm or 0.0
    part = given.from_face_mm if first else thick - given.from_face_mm - given.kerf_mm
    plain = {n: getattr(row, n) for n in PLAIN}
    plain |= {
        "label": f"{row.label}/{1 if first else 2}",
        "thickness_mm": part,
        "bow_mm": given.first_bow_mm if first else given.second_bow_mm,
        "trued": "none",
        "reactive": True,
    }
    price = None if row.price_minor is None else round(row.price_minor * part / thick)
    return StockRow(
        **plain, price_minor=price, parent_id=row.id, state="in", arrived_at=now(), version=1
    )


def _carry(session: Session, row: StockRow, parts: tuple[StockRow, StockRow], kerf: float) -> None:
    """Metal goes with the part it is in; what crosses the cut is in both."""
    first, second = parts
    for mark in fasteners(session, row.id):
        if mark.state == "dug_out":
            continue
        near, far = (first, second) if mark.face == "face" else (second, first)
        near_mm = near.thickness_mm or 0.0
        depth = mark.depth_mm
        rest = None if depth is None else depth - near_mm - kerf
        for part, deep in ((near, depth if depth is None else min(depth, near_mm)), (far, rest)):
            if deep is not None and deep <= 0.0 and part is far:
                continue
            copy = FastenerRow(
                stock_id=part.id,
                along_mm=mark.along_mm,
                face=mark.face,
                depth_mm=deep,
                kind=mark.kind,
                state="in",
                at=now(),
                who=mark.who,
                version=1,
            )
            session.add(copy)
            log_change(session, copy, "add", None)


def open_stock(session: Session, stock_id: int, given: OpenInput) -> Opened:
    """Two parts instead of one billet, each with its own bow. InputError, ConflictError."""
    row: StockRow = get(session, "stock", stock_id)
    if row.kind != "billet" or row.state != "in":
        raise ConflictError(f"{row.label} is no billet on the rack: it cannot be opened.")
    most = (row.thickness_mm or 0.0) - given.kerf_mm
    if not given.from_face_mm < most:
        words = f"{given.from_face_mm:g} leaves no second part; accepted: under {most:g}"
        raise refuse("from_face_mm", words, given.from_face_mm)
    before = as_record(row)
    row.state = "opened"
    change = log_change(session, row, "open", before)
    parts = (_part(row, given, first=True), _part(row, given, first=False))
    for part in parts:
        session.add(part)
        log_change(session, part, "add", None)
    _carry(session, row, parts, given.kerf_mm)
    return Opened(stock_answer(session, parts[0]), stock_answer(session, parts[1]), change.id)


def siblings(session: Session, row: StockRow) -> list[StockRow]:
    """The parts of the cut a piece comes from, itself among them; none of one never opened."""
    if row.parent_id is None:
        return []
    return list(
        session.scalars(
            select(StockRow)
            .where(StockRow.parent_id == row.parent_id, StockRow.deleted_at.is_(None))
            .order_by(StockRow.id)
        )
    )


def _told(row: FastenerRow) -> FastenerAnswer:
    mark = core_fastener(row)
    return FastenerAnswer(
        row.id, mark.along_mm, mark.face, mark.depth_mm, mark.kind, mark.state, row.version
    )


def mapped(session: Session, stock_id: int) -> list[FastenerAnswer]:
    """The metal of a piece of stock as it is shown."""
    return [_told(row) for row in fasteners(session, stock_id)]


def _mark(stock: StockRow, row: FastenerRow, given: FastenerInput) -> None:
    if given.along_mm > stock.length_mm:
        words = f"{given.along_mm:g} is past its end; accepted: 0 to {stock.length_mm:g}"
        raise refuse("along_mm", words, given.along_mm)
    thick = stock.thickness_mm or stock.small_end_mm or 0.0
    if given.depth_mm is not None and given.depth_mm > thick:
        words = f"{given.depth_mm:g} is through it; accepted: 0 to {thick:g}"
        raise refuse("depth_mm", words, given.depth_mm)
    for name in FASTENER_PLAIN:
        setattr(row, name, getattr(given, name))


def add_fastener(session: Session, stock_id: int, given: FastenerInput) -> FastenerAnswer:
    """Map a piece of metal. InputError past the end or through the board."""
    stock: StockRow = get(session, "stock", stock_id)
    row = FastenerRow(stock_id=stock_id, at=now(), version=1)
    _mark(stock, row, given)
    session.add(row)
    log_change(session, row, "add", None)
    return _told(row)


def save_fastener(session: Session, fastener_id: int, edit: Edit) -> FastenerAnswer:
    """Save what was changed of a mark: dug out, sawn through, elsewhere."""
    row: FastenerRow = get(session, "fastener", fastener_id)
    current = {n: getattr(row, n) for n in FASTENER_PLAIN}
    given = edit.onto(FastenerInput, current, row.version)
    before = as_record(row)
    _mark(get(session, "stock", row.stock_id), row, given)
    log_change(session, row, "edit", before)
    return _told(row)


def delete_fastener(session: Session, fastener_id: int) -> ChangeId:
    """Take a mark off the map; the id of the change."""
    row: FastenerRow = get(session, "fastener", fastener_id)
    before = as_record(row)
    row.deleted_at = now()
    return log_change(session, row, "delete", before).id
