"""The shop's settings, and the rules and rates they give the core."""

from dataclasses import dataclass, fields
from typing import Any, Literal

from sqlalchemy.orm import Session

from jade_ribbon.core.job import Rates, Rules
from jade_ribbon.core.setup.words import ShopHabits
from jade_ribbon.formats.job import RatesFile, RulesFile
from jade_ribbon.reference.tables import house_rules
from jade_ribbon.services.clock import CLOCK
from jade_ribbon.services.edits import Edit, edit_of
from jade_ribbon.services.records import as_record, log_change
from jade_ribbon.services.shop.inputs import RackTermsInput, ShopInput
from jade_ribbon.store.models import ShopRow

HABIT_KEYS = tuple(field.name for field in fields(ShopHabits))
DEFAULT_NAME = "My shop"
GAUGE_LENGTH_MM = 100.0


@dataclass(frozen=True)
class OwnPressure:
    """A material's cutting pressure by this shop's watts: MPa, spread, from so many runs."""

    K_ref_MPa: float
    sd_ln: float
    runs: int


@dataclass(frozen=True)
class OwnWear:
    """How hard a material wears this shop's edges against the table: factor, spread, lives."""

    factor: float
    sd_ln: float
    lives: int


@dataclass(frozen=True)
class Shop:
    """Settings of this shop."""

    name: str
    units: Literal["metric", "inch"]
    currency: str
    paper: Literal["a4", "letter"]
    gauge_length_mm: float
    guard_gap_mm: float
    rules: dict[str, str]
    rates: Rates
    rack: RackTermsInput
    people: list[str]
    version: int
    pressures: dict[str, OwnPressure]
    wear: dict[str, OwnWear]
    clock_behind_s: float
    """How far this machine's clock is behind the shop's latest record; 0 where it is not."""
    clock_ahead_s: float
    """How far it jumped past the latest record; 0 where it did not, or is said to be right."""


ShopEdit = edit_of(ShopInput)


def shop_row(session: Session) -> ShopRow:
    """The settings row; made with defaults the first time."""
    row = session.get(ShopRow, 1)
    if row is None:
        row = ShopRow(
            id=1,
            name=DEFAULT_NAME,
            units="metric",
            currency="€",
            gauge_length_mm=GAUGE_LENGTH_MM,
            rules={},
            rates={},
            people=[],
            rack={},
            learned={},
            version=1,
        )
    return row


def read_shop(session: Session) -> Shop:
    """The settings with every house rule filled in."""
    row = shop_row(session)
    rules = {key: str(row.rules.get(key, rule.default)) for key, rule in house_rules().items()}
    return Shop(
        name=row.name,
        units="inch" if row.units == "inch" else "metric",
        currency=row.currency,
        paper="letter" if row.paper == "letter" else "a4",
        gauge_length_mm=row.gauge_length_mm,
        guard_gap_mm=float(row.rules.get("guard_gap_mm", Rules.guard_gap_mm)),
        rules=rules,
        rates=RatesFile.model_validate(row.rates).to_core(),
        rack=RackTermsInput.model_validate(row.rack or {}),
        people=row.people,
        version=row.version,
        pressures={k: OwnPressure(**v) for k, v in row.learned.get("pressures", {}).items()},
        wear={k: OwnWear(**v) for k, v in row.learned.get("wear", {}).items()},
        clock_behind_s=CLOCK.behind().total_seconds(),
        clock_ahead_s=CLOCK.ahead().total_seconds(),
    )


def write_shop(session: Session, given: ShopInput) -> Shop:
    """Save the settings; the change is kept for undo."""
    row = shop_row(session)
    session.add(row)
    session.flush()
    before = as_record(row)
    row.name, row.units, row.currency = given.name, given.units, given.currency
    row.gauge_length_mm, row.paper = given.gauge_length_mm, given.paper
    row.rules = {**given.rules, "guard_gap_mm": given.guard_gap_mm}
    row.rates = given.rates.model_dump()
    row.rack = given.rack.model_dump()
    row.people = given.people
    log_change(session, row, "edit", before)
    return read_shop(session)


def save_shop(session: Session, edit: Edit) -> Shop:
    """Save what was changed of the settings. StaleError when somebody else saved them since."""
    kept = read_shop(session)
    current = {name: getattr(kept, name) for name in ShopInput.model_fields}
    current["rack"] = kept.rack.model_dump()
    current["rates"] = RatesFile.model_validate(shop_row(session).rates).model_dump()
    return write_shop(session, edit.onto(ShopInput, current, kept.version))


def rules_for(shop: Shop, override: dict[str, Any] | None = None) -> Rules:
    """House rules that bear on the choice, with a job's overrides on top."""
    keys = RulesFile.model_fields
    plain: dict[str, Any] = {k: v for k, v in shop.rules.items() if k in keys}
    plain["least_teeth"] = int(plain["least_teeth"])
    plain["guard_gap_mm"] = shop.guard_gap_mm
    rules: RulesFile = RulesFile.model_validate(plain | (override or {}))
    return rules.to_core()


def habits(shop: Shop) -> ShopHabits:
    """House rules that shape the set-up card."""
    chosen: dict[str, Any] = {k: shop.rules[k] for k in HABIT_KEYS}
    return ShopHabits(**chosen)
