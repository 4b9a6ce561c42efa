"""What sawing cost by steel, type, material, saw, month or person; every total opens its runs."""

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Literal

from sqlalchemy import ColumnElement, case, func, literal, select
from sqlalchemy.orm import Session

from jade_ribbon.core.edge.sharpening import WORTH_PITCH_TPI, WORTH_WIDTH_MM
from jade_ribbon.core.job import Rates
from jade_ribbon.core.money.ledger import (
    DullMinutes,
    DullPart,
    GroupCost,
    Summed,
    group_cost,
    lost_to_dullness,
    share_per_m,
)
from jade_ribbon.core.money.regrind_or_replace import learned_ratio
from jade_ribbon.formats.tables_csv import table_csv
from jade_ribbon.reference.tables import materials, steels
from jade_ribbon.services.money.inputs import MoneyQuery, RunsQuery
from jade_ribbon.services.rack.edges import MINOR, shop_lives
from jade_ribbon.services.rack.replay import wear_factors
from jade_ribbon.services.rack.standing import Terms, new_price, terms
from jade_ribbon.services.rack.sums import STEP_M
from jade_ribbon.services.shop.materials import material_table
from jade_ribbon.store.models import BandRow, RunRow, RunSumRow, SawRow

By = Literal["steel", "type", "material", "saw", "month", "person"]
RUNS_SHOWN = 100


@dataclass(frozen=True)
class MoneyLine:
    """One group: what it is, its cost, and the key that opens its runs."""

    key: str
    name: str
    cost: GroupCost


@dataclass(frozen=True)
class MoneyView:
    """All groups by one way of looking, and the whole."""

    by: str
    lines: list[MoneyLine]
    whole: GroupCost
    dull: DullMinutes
    dull_money: float
    waiting: int
    """Runs that wait to be confirmed: not counted."""


@dataclass(frozen=True)
class MoneyRun:
    """A run of a total: what it took and what it came to."""

    id: int
    at: datetime
    band_id: int
    label: str
    saw: str
    material: str
    height_mm: float
    length_mm: float
    pieces: int
    minutes: float
    area_m2: float
    time: float
    edge: float
    who: str


@dataclass(frozen=True)
class MoneyRuns:
    """The runs of a group, the dearest first, and what all of them come to."""

    runs: list[MoneyRun]
    count: int
    total: float


def _key(by: By, of: type[RunSumRow] | type[RunRow]) -> ColumnElement[Any]:
    """What runs, or sums of them, are grouped by."""
    if by == "month":
        month: Any = RunSumRow.month
        return month if of is RunSumRow else func.strftime("%Y-%m", RunRow.at)
    if by == "type":
        teeth = func.coalesce(func.printf("%g", BandRow.tpi_lo), literal("-"))
        size = func.printf("%g", BandRow.width_mm)
        return size + literal("|") + teeth + literal("|") + BandRow.form
    columns: Mapping[str, Any] = {
        "steel": BandRow.steel,
        "material": of.material,
        "saw": of.saw_id,
        "person": of.who,
    }
    found: ColumnElement[Any] = columns[by]
    return found


def _within(query: Any, month: Any, given: MoneyQuery) -> Any:
    """From one month to another, both counted."""
    if given.since is not None:
        query = query.where(month >= given.since)
    return query if given.until is None else query.where(month <= given.until)


SHARPENED = (BandRow.width_mm >= WORTH_WIDTH_MM) & (BandRow.tpi_lo <= WORTH_PITCH_TPI)
"""Bands that are worth sharpening: their price goes over more edges than one."""


def _sums(session: Session, given: MoneyQuery, rates: Rates) -> dict[str, list[Summed]]:
    """Sums of every group by steel and whether it is sharpened; one statement."""
    s = RunSumRow
    per_m = rates.price_per_m_base + rates.price_per_m_per_mm * BandRow.width_mm
    usual = per_m * BandRow.length_mm / 1000.0
    priced = case((BandRow.price_minor.is_not(None), s.equivalent_m), else_=0.0)
    by = (_key(given.by, s), BandRow.steel, func.coalesce(SHARPENED, False))
    plain = (s.runs, s.seconds, s.metres, s.area_m2, s.pieces, s.time_area, s.time2, s.area2)
    query = select(
        *by,
        *(func.sum(column) for column in (*plain, s.equivalent_m)),
        func.sum(priced * func.coalesce(BandRow.price_minor, 0)) / MINOR,
        func.sum(s.equivalent_m - priced),
        func.sum((s.equivalent_m - priced) * usual),
    ).join(BandRow, s.band_id == BandRow.id)
    found: dict[str, list[Summed]] = defaultdict(list)
    for row in session.execute(_within(query, s.month, given).group_by(*by)):
        key, steel, sharpened, *figures = row
        found[str(key)].append(Summed(steel, bool(sharpened), *figures))
    return found


def _share(known: Terms, steel_key: str, sharpened: bool) -> float:
    """The share a metre takes of a band of this steel, sharpened as the house rule says."""
    steel = steels()[steel_key]
    lives = [known.lives.of(steel_key, n) for n in range(steel.resharpen_times + 1)]
    ratio, _ = learned_ratio([(life.median_m, life.retired) for life in lives])
    never = known.shop.rules["resharpening"] == "never" or not sharpened
    times = 0 if never else steel.resharpen_times
    return share_per_m([life.median_m for life in lives], life_ratio=ratio, times=times)


Shares = Mapping[tuple[str, bool], float]


def _prices(known: Terms, used: Iterable[tuple[str, bool]]) -> tuple[Shares, Mapping[str, float]]:
    """The share of its price that a metre takes of a steel, and how dear it is against carbon."""
    kinds = sorted(set(used))
    factor = known.shop.rates.price_factor
    per_m = {kind: _share(known, *kind) for kind in kinds}
    return per_m, {steel: factor * steels()[steel].rel_price_per_m for steel, _ in kinds}


def money_view(session: Session, given: MoneyQuery) -> MoneyView:
    """Totals of every group, the whole, and what dull edges cost; five statements."""
    known = terms(session, shop_lives(session))
    sums = _sums(session, given, known.shop.rates)
    every = [s for mine in sums.values() for s in mine]
    per_m, dearer = _prices(known, ((s.steel, s.sharpened) for s in every))
    hour = known.shop.rates.hour

    def cost(mine: Sequence[Summed]) -> GroupCost:
        return group_cost(mine, hour_rate=hour, per_m=per_m, dearer=dearer)

    names = _names(session, given.by)
    lines = [MoneyLine(key, names(key), cost(mine)) for key, mine in sums.items()]
    order = (lambda x: x.key) if given.by == "month" else (lambda x: -x.cost.total)
    lines.sort(key=order)
    dull = _dull(session, given, known)
    return MoneyView(
        by=given.by,
        lines=lines,
        whole=cost(every),
        dull=dull,
        dull_money=dull.lost_min / 60.0 * hour,
        waiting=session.scalar(
            select(func.count())
            .select_from(RunRow)
            .where(RunRow.deleted_at.is_(None), RunRow.to_confirm.is_(True))
        )
        or 0,
    )


def _names(session: Session, by: By) -> Any:
    """What a key of a group is called."""
    if by == "saw":
        saws = {str(s.id): s.name for s in session.scalars(select(SawRow))}
        return lambda key: saws.get(key, f"saw {key}")
    if by == "material":
        table = {**materials(), **material_table(session)}
        return lambda key: table[key].name if key in table else key
    if by == "steel":
        return lambda key: steels()[key].name
    if by == "person":
        return lambda key: key or "nobody named"
    if by == "type":
        return _type_name
    return lambda key: key


def _type_name(key: str) -> str:
    width, teeth, form = key.split("|")
    pitch = "continuous" if teeth == "-" else f"{teeth} tpi"
    return f"{width} mm, {pitch} {form.replace('_', ' ')}"


def _dull(session: Session, given: MoneyQuery, known: Terms) -> DullMinutes:
    """Minutes and areas of each kind of cut by hand, by steps of the edge's metres; one query."""
    s = RunSumRow
    kind = (s.saw_id, s.material, s.operation, s.height_step)
    by = (*kind, BandRow.steel, s.edge_number, s.edge_step)
    query = (
        select(*by, func.sum(s.runs), func.sum(s.seconds) / 60.0, func.sum(s.area_m2))
        .join(BandRow, s.band_id == BandRow.id)
        .join(SawRow, s.saw_id == SawRow.id)
        .where(SawRow.feed == "hand")
    )
    rows = session.execute(_within(query, s.month, given).group_by(*by))
    return lost_to_dullness(
        [
            DullPart(
                kind=f"{saw} {material} {operation} {high}",
                dullness=(step + 0.5) * STEP_M / known.lives.of(steel, edge).median_m,
                runs=runs,
                minutes=minutes,
                area_m2=area,
            )
            for saw, material, operation, high, steel, edge, step, runs, minutes, area in rows
        ]
    )


def money_runs(session: Session, given: RunsQuery) -> MoneyRuns:
    """The runs of one group, the longest first; their sum is the group's total."""
    known = terms(session, shop_lives(session))
    view = MoneyQuery(by=given.by, since=given.since, until=given.until)
    wanted: Any = int(given.key) if given.by == "saw" and given.key.isdigit() else given.key
    total = group_total(session, view, known, given.key)
    query = (
        select(RunRow, BandRow, func.coalesce(SHARPENED, False))
        .join(BandRow, RunRow.band_id == BandRow.id)
        .where(RunRow.deleted_at.is_(None), RunRow.to_confirm.is_(False))
        .where(_key(given.by, RunRow) == wanted)
    )
    query = _within(query, func.strftime("%Y-%m", RunRow.at), view)
    rows = session.execute(query.order_by(RunRow.time_s.desc()).limit(RUNS_SHOWN)).all()
    saws = {s.id: s.name for s in session.scalars(select(SawRow))}
    per_m, _ = _prices(known, ((band.steel, bool(sharp)) for _, band, sharp in rows))
    wear, hour = wear_factors(session), known.shop.rates.hour
    return MoneyRuns(
        [
            MoneyRun(
                id=run.id,
                at=run.at,
                band_id=band.id,
                label=band.label,
                saw=saws[run.saw_id],
                material=run.material,
                height_mm=run.height_mm,
                length_mm=run.length_mm,
                pieces=run.pieces,
                minutes=run.time_s / 60.0,
                area_m2=run.height_mm * run.length_mm * run.pieces * 1e-6,
                time=run.time_s / 3600.0 * hour,
                edge=run.equivalent_m
                * wear.get(run.material, 1.0)
                * per_m[(band.steel, bool(sharp))]
                * new_price(band, known.shop.rates),
                who=run.who,
            )
            for run, band, sharp in rows
        ],
        total.runs if total else 0,
        total.total if total else 0.0,
    )


def group_total(session: Session, given: MoneyQuery, known: Terms, key: str) -> GroupCost | None:
    """What one group came to; None where it has no runs."""
    mine = _sums(session, given, known.shop.rates).get(key)
    if mine is None:
        return None
    per_m, dearer = _prices(known, ((s.steel, s.sharpened) for s in mine))
    return group_cost(mine, hour_rate=known.shop.rates.hour, per_m=per_m, dearer=dearer)


def money_csv(session: Session, given: MoneyQuery) -> str:
    """The groups as a CSV."""
    view = money_view(session, given)
    names = (
        *("group", "runs", "hours", "metres", "area_m2", "pieces", "time", "edge", "total"),
        *("per_metre", "per_m2", "per_m2_low", "per_m2_high", "per_piece"),
    )
    rows = [
        (
            *(x.name, x.cost.runs, x.cost.hours, x.cost.metres, x.cost.area_m2, x.cost.pieces),
            *(x.cost.time, x.cost.edge, x.cost.total, x.cost.per_metre, x.cost.per_m2),
            *(x.cost.m2_low, x.cost.m2_high, x.cost.per_piece),
        )
        for x in view.lines
    ]
    return table_csv(names, [[round(v, 4) if isinstance(v, float) else v for v in r] for r in rows])
