"""Bands coming onto the rack: one, several alike, or a whole sheet of them."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime, time
from typing import Any

from pydantic import ValidationError
from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.choosing.catalogue import type_label
from jade_ribbon.core.edge.visual_grade import DULLNESS_BY_LOOKS
from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.quantities.words import Said, quantity, sentence
from jade_ribbon.core.saw_defaults.first_job import FirstBand, first_band
from jade_ribbon.core.saw_defaults.worked_out import usual_thickness_mm
from jade_ribbon.formats.bands_csv import SheetRow, read_bands
from jade_ribbon.formats.validation import checked, faults_of
from jade_ribbon.reference.tables import band_columns
from jade_ribbon.services.clock import now
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.rack.bands import (
    BandAnswer,
    add_band,
    check_type,
    one_band,
    plain_label,
)
from jade_ribbon.services.rack.events import add_event
from jade_ribbon.services.rack.inputs import (
    BandEventInput,
    BandInput,
    BandSheetInput,
    NewBandInput,
)
from jade_ribbon.services.shop.saws import core_saw, owned_saws
from jade_ribbon.services.shop.settings import read_shop
from jade_ribbon.store.models import BandRow

THICKNESS_NOTE = "Thickness taken from its width."
LOOKED = "how it looked when it came into the record"
USUAL_STEEL, USUAL_FORM = "carbon_flexback", "hook"


def _settled(given: NewBandInput) -> BandInput:
    """The band with what was left out filled in, and that said in its note."""
    known = given.model_dump(exclude={"also", "looks", "since"})
    if known["thickness_mm"] is None:
        known["thickness_mm"] = usual_thickness_mm(given.width_mm, given.steel)
        known["note"] = f"{given.note} {THICKNESS_NOTE}".strip()
    found: BandInput = checked(BandInput, known)
    return found


def _came_at(given: NewBandInput) -> datetime | None:
    """When it came: at noon of the day it is the shop's since, or now."""
    if given.since is None or given.since == now().date():
        return None
    return datetime.combine(given.since, time(12), tzinfo=UTC)


def add_band_and_twins(session: Session, given: NewBandInput) -> BandAnswer:
    """Add a band and those bought with it: all of them, or none. The first of them."""
    alike, at = _settled(given), _came_at(given)
    first = 0
    for label in (given.label, *given.also):
        added = add_band(session, alike.model_copy(update={"label": label}), at=at)
        first = first or added.id
        dullness = DULLNESS_BY_LOOKS[given.looks]
        if dullness > 0:
            judged = BandEventInput(
                kind="edge_judged", value=dullness, detail=f"{given.looks}: {LOOKED}"
            )
            add_event(session, added.id, judged)
    return one_band(session, first)


@dataclass(frozen=True)
class ColumnName:
    """A column that a sheet may have."""

    key: str
    name: str


@dataclass(frozen=True)
class RowLook:
    """One line of a sheet: the band it would bring, what was taken for it, what is wrong."""

    line: int
    label: str
    words: Said
    taken: Said
    faults: tuple[Fault, ...]


@dataclass(frozen=True)
class SheetLook:
    """A sheet as it would be brought in: nothing is written yet."""

    headings: list[str]
    columns: dict[str, int]
    known: list[ColumnName]
    rows: list[RowLook]
    good: int
    bad: int


@dataclass(frozen=True)
class CameIn:
    """How many bands came in."""

    added: int


@dataclass(frozen=True)
class _Shop:
    inch: bool
    saw_name: str
    length_mm: float | None


def _shop(session: Session) -> _Shop:
    saw = session.scalars(owned_saws()).first()
    middle = None if saw is None else (saw.band_length_min_mm + saw.band_length_max_mm) / 2.0
    return _Shop(read_shop(session).units == "inch", saw.name if saw else "", middle)


def _free_labels(taken: set[str]) -> Iterator[str]:
    """B-01, B-02 … that no band has."""
    n = 0
    while True:
        n += 1
        label = f"B-{n:02d}"
        if plain_label(label) not in taken:
            yield label


def next_label(labels: list[str]) -> str:
    """A label for the next band, after the manner of the last one: K-07 gives K-08.

    >>> next_label(["K-07", "K-06"]), next_label([]), next_label(["long one"])
    ('K-08', 'B-01', 'B-01')
    """
    taken = {plain_label(label) for label in labels}
    for label in labels:
        match = re.fullmatch(r"(.*?)(\d+)", label)
        if match is None:
            continue
        stem, digits = match.groups()
        n = int(digits)
        while True:
            n += 1
            found = f"{stem}{n:0{len(digits)}d}"
            if plain_label(found) not in taken:
                return found
    return next(_free_labels(taken))


@dataclass(frozen=True)
class NextBand:
    """What a form for one more band starts with."""

    label: str
    length_mm: float | None
    form: str
    steel: str


def next_band(session: Session) -> NextBand:
    """A label after the manner of the last, and its length, form and steel, or the saw's usual."""
    rows = session.execute(
        select(BandRow.label, BandRow.length_mm, BandRow.form, BandRow.steel)
        .where(BandRow.deleted_at.is_(None))
        .order_by(BandRow.id.desc())
    ).all()
    label = next_label([row.label for row in rows])
    if rows:
        return NextBand(label, rows[0].length_mm, rows[0].form, rows[0].steel)
    saw = session.scalars(owned_saws()).first()
    usual = FirstBand(USUAL_FORM, USUAL_STEEL) if saw is None else first_band(core_saw(saw))
    return NextBand(label, _shop(session).length_mm, usual.form, usual.steel)


def _completed(row: SheetRow, shop: _Shop, labels: Iterator[str]) -> tuple[dict[str, Any], Said]:
    """A row's values with what is usual for what it leaves out, and that in words."""
    values = dict(row.values)
    teeth = values.pop("tpi", None)
    if teeth is not None:
        values["tpi_lo"], values["tpi_hi"] = teeth
    taken: list[Said] = []
    if "label" not in values:
        values["label"] = next(labels)
        taken.append(f"label {values['label']}")
    for key, usual in (("steel", USUAL_STEEL), ("form", USUAL_FORM)):
        if key not in values:
            values[key] = usual
            taken.append(f"{key} {usual.replace('_', ' ')}")
    if "thickness_mm" not in values and "width_mm" in values:
        usual_mm = usual_thickness_mm(values["width_mm"], values["steel"])
        taken.append(sentence("thickness ", quantity(usual_mm, "thin"), " from its width"))
    if "length_mm" not in values and shop.length_mm is not None:
        values["length_mm"] = shop.length_mm
        taken.append(
            sentence("length ", quantity(shop.length_mm, "length"), f" of {shop.saw_name}")
        )
    parts: list[Any] = []
    for n, said in enumerate(taken):
        parts += [", " if n else "taken: ", said]
    return values, sentence(*parts) if parts else ""


def _band_of(values: dict[str, Any]) -> NewBandInput:
    """The band of a row. InputError with everything wrong in it."""
    try:
        band = NewBandInput.model_validate(values)
    except ValidationError as error:
        raise InputError(faults_of(error, NewBandInput)) from None
    check_type(_settled(band))
    return band


def _words(band: NewBandInput) -> Said:
    settled = _settled(band)
    named = type_label(
        settled.width_mm,
        settled.thickness_mm,
        settled.tpi_lo,
        settled.tpi_hi,
        settled.form,
        settled.steel,
    )
    return sentence(named, ", ", quantity(settled.length_mm, "length"), f" long, {band.looks}")


def _looked(session: Session, given: BandSheetInput) -> tuple[SheetLook, list[NewBandInput]]:
    shop = _shop(session)
    sheet = read_bands(given.text, inch=shop.inch, columns=given.columns)
    kept = session.scalars(select(BandRow.label).where(BandRow.deleted_at.is_(None)))
    taken = {plain_label(label) for label in kept}
    written = {plain_label(str(r.values["label"])) for r in sheet.rows if "label" in r.values}
    labels = _free_labels(taken | written)
    rows, bands = [], []
    for row in sheet.rows:
        values, said = _completed(row, shop, labels)
        faults = list(row.faults)
        words: Said = ""
        unread = {f.path for f in faults}
        try:
            band = _band_of(values)
            words = _words(band)
            if plain_label(band.label) in taken:
                faults.append(Fault("label", f"{band.label} is on the rack already, or twice here"))
            taken.add(plain_label(band.label))
            bands.append(band)
        except InputError as error:
            faults += [f for f in error.faults if f.path not in unread]
        rows.append(RowLook(row.line, str(values.get("label", "")), words, said, tuple(faults)))
    bad = sum(bool(r.faults) for r in rows)
    look_ = SheetLook(
        headings=list(sheet.headings),
        columns=sheet.columns,
        known=[ColumnName(c.key, c.name) for c in band_columns().values()],
        rows=rows,
        good=len(rows) - bad,
        bad=bad,
    )
    return look_, bands


def look_at_sheet(session: Session, given: BandSheetInput) -> SheetLook:
    """What a sheet would bring in, and what is wrong with it. InputError for what is no sheet."""
    return _looked(session, given)[0]


def bring_sheet(session: Session, given: BandSheetInput) -> CameIn:
    """Bring in all bands of a sheet, or none: InputError with the faults of every row."""
    found, bands = _looked(session, given)
    faults = [f.under(f"line {row.line}") for row in found.rows for f in row.faults]
    if faults:
        raise InputError(faults)
    if not bands:
        raise ConflictError("There is no band in this sheet: only its headings.")
    for band in bands:
        add_band_and_twins(session, band)
    return CameIn(len(bands))
