"""The shop's own band types, searched beside the built-in catalogue."""

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.choosing.catalogue import type_label
from jade_ribbon.core.job import BandType, Candidate
from jade_ribbon.core.mechanics.wear import nominal_life_m
from jade_ribbon.services.clock import now
from jade_ribbon.services.edits import Edit, edit_of
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.rack.bands import check_type
from jade_ribbon.services.rack.edges import MINOR, SHAPE_KEYS
from jade_ribbon.services.rack.inputs import OwnTypeInput
from jade_ribbon.services.records import ChangeId, as_record, get, log_change, must_hold
from jade_ribbon.store.models import BandTypeRow

PLAIN = (*SHAPE_KEYS, "told_life", "note")


@dataclass(frozen=True)
class OwnType(BandType):
    """A band type of this shop."""

    id: int
    set_per_side_mm: float | None
    price_per_m: float | None
    told_life: float | None
    """Life as told, in lives of a plain carbon edge; None: the table's for its steel."""
    note: str
    change_id: int | None
    version: int


OwnTypeEdit = edit_of(OwnTypeInput)


def label_of(row: BandTypeRow) -> str:
    """A type named by what it is."""
    return type_label(row.width_mm, row.thickness_mm, row.tpi_lo, row.tpi_hi, row.form, row.steel)


def _money(row: BandTypeRow) -> float | None:
    return None if row.price_per_m_minor is None else row.price_per_m_minor / MINOR


def own_type(row: BandTypeRow) -> Candidate:
    """A type as a candidate to buy."""
    plain = {n: getattr(row, n) for n in PLAIN if n not in ("note", "told_life")}
    told = row.told_life
    life = None if told is None else nominal_life_m(rel_edge_life=told)
    return Candidate(
        label=label_of(row), price_per_m=_money(row), life_m=life, to_buy=True, **plain
    )


def _answer(row: BandTypeRow, change_id: int | None = None) -> OwnType:
    plain = {n: getattr(row, n) for n in PLAIN}
    return OwnType(
        id=row.id,
        label=label_of(row),
        price_per_m=_money(row),
        change_id=change_id,
        version=row.version,
        **plain,
    )


def list_band_types(session: Session) -> list[OwnType]:
    """The shop's own types."""
    query = select(BandTypeRow).where(BandTypeRow.deleted_at.is_(None)).order_by(BandTypeRow.id)
    return [_answer(row) for row in session.scalars(query)]


def _apply(row: BandTypeRow, given: OwnTypeInput) -> None:
    check_type(given)
    for name in PLAIN:
        setattr(row, name, getattr(given, name))
    row.price_per_m_minor = None if given.price_per_m is None else round(given.price_per_m * MINOR)


@must_hold("band_type")
def no_type_twice(session: Session, row: BandTypeRow) -> None:
    """A type is among the shop's own once."""
    found = (t for t in list_band_types(session) if t.id != row.id)
    if row.deleted_at is None and any(t.label == label_of(row) for t in found):
        raise ConflictError(f"{label_of(row)} is among your types already.")


def add_band_type(session: Session, given: OwnTypeInput) -> OwnType:
    """A new type. ConflictError when the same one is there already."""
    row = BandTypeRow(version=1)
    _apply(row, given)
    session.add(row)
    return _answer(row, log_change(session, row, "add", None).id)


def edit_type(session: Session, type_id: int, given: OwnTypeInput) -> OwnType:
    row: BandTypeRow = get(session, "band_type", type_id)
    before = as_record(row)
    _apply(row, given)
    return _answer(row, log_change(session, row, "edit", before).id)


def save_band_type(session: Session, type_id: int, edit: Edit) -> OwnType:
    """Save what was changed of a type. StaleError when it was saved by somebody else since."""
    row: BandTypeRow = get(session, "band_type", type_id)
    current = {n: getattr(row, n) for n in PLAIN} | {"price_per_m": _money(row)}
    return edit_type(session, type_id, edit.onto(OwnTypeInput, current, row.version))


def delete_band_type(session: Session, type_id: int) -> ChangeId:
    """Delete a type; the id of the change, for undo."""
    row: BandTypeRow = get(session, "band_type", type_id)
    before = as_record(row)
    row.deleted_at = now()
    return log_change(session, row, "delete", before).id
