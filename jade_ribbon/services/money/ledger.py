"""What sawing cost by steel, type, material, saw, month or person; every total opens its runs."""

import math
from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Literal

import numpy as np
from numpy.typing import NDArray
from sqlalchemy import ColumnElement, func, literal, select
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
from jade_ribbon.services.money.summing import FIGURES, SumTable, grouped, sum_table
from jade_ribbon.services.rack.edges import MINOR, shop_lives
from jade_ribbon.services.rack.replay import wear_factors
from jade_ribbon.services.rack.standing import Terms, new_price, terms
from jade_ribbon.services.rack.sums import STEP_M
from jade_ribbon.services.shop.materials import material_table
from jade_ribbon.store.models import BandRow, RunRow, SawRow

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


def _key(by: By) -> ColumnElement[Any]:
    """What runs are grouped by."""
    if by == "type":
        teeth = func.coalesce(func.printf("%g", BandRow.tpi_lo), literal("-"))
        size = func.printf("%g", BandRow.width_mm)
        return size + literal("|") + teeth + literal("|") + BandRow.form
    columns: Mapping[str, Any] = {
        "month": func.strftime("%Y-%m", RunRow.at),
        "steel": BandRow.steel,
        "material": RunRow.material,
        "saw": RunRow.saw_id,
        "person": RunRow.who,
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


OF_A_LINE: Mapping[str, str] = {
    "month": "month",
    "material": "material",
    "saw": "saw_id",
    "person": "who",
}
"""Ways of looking that a line of sums tells itself; the others are the band's."""


@dataclass(frozen=True)
class _Bands:
    """What bands are, by their place in the table: what their sums are grouped and priced by."""

    steel: NDArray[np.str_]
    sharpened: NDArray[np.int64]
    type: NDArray[np.str_]
    price: NDArray[np.float64]
    """What one cost; nan where nobody gave a price."""
    usual: NDArray[np.float64]
    """What one of its size in plain carbon costs usually."""


def _bands(session: Session, ids: NDArray[np.int64], rates: Rates) -> _Bands:
    """The bands of a table of sums, in the order of their ids."""
    b = BandRow
    usual = (rates.price_per_m_base + rates.price_per_m_per_mm * b.width_mm) * b.length_mm / 1000.0
    query = select(
        b.id, b.steel, func.coalesce(SHARPENED, False), _key("type"), b.price_minor, usual
    )
    known = {row[0]: row[1:] for row in session.execute(query)}
    rows = [known[int(i)] for i in ids]
    return _Bands(
        steel=np.array([r[0] for r in rows], dtype=np.str_),
        sharpened=np.array([int(r[1]) for r in rows], dtype=np.int64),
        type=np.array([r[2] for r in rows], dtype=np.str_),
        price=np.array([math.nan if r[3] is None else r[3] / MINOR for r in rows]),
        usual=np.array([r[4] for r in rows], dtype=np.float64),
    )


def _hours(session: Session, table: SumTable, rates: Rates) -> NDArray[np.float64]:
    """What an hour of cutting costs, of each line, by its saw."""
    ids, saw = table.column("saw_id")
    feeds = {s.id: s.feed for s in session.scalars(select(SawRow))}
    costs = np.array([rates.cutting_hour(feeds.get(int(i), "")) for i in ids])
    found: NDArray[np.float64] = costs[saw] if len(costs) else np.zeros(0)
    return found


def _sums(session: Session, given: MoneyQuery, rates: Rates) -> dict[str, list[Summed]]:
    """Sums of every group by steel and whether it is sharpened."""
    table = sum_table(session)
    ids, band = table.column("band_id")
    of = _bands(session, ids, rates)
    steels_of, steel = np.unique(of.steel, return_inverse=True)
    if given.by in OF_A_LINE:
        names, key = table.column(OF_A_LINE[given.by])
    else:
        names, coded = np.unique(of.type if given.by == "type" else of.steel, return_inverse=True)
        key = coded[band]
    worn = table.figures[:, -1]
    price, usual = of.price[band], of.usual[band]
    priced = np.where(np.isnan(price), 0.0, worn)
    costs = (
        table.figures[:, FIGURES.index("seconds")] / 3600.0 * _hours(session, table, rates),
        priced * np.nan_to_num(price),
        worn - priced,
        (worn - priced) * usual,
    )
    figures = np.column_stack([table.figures, *costs])
    here = np.flatnonzero(table.months(given.since, given.until))
    by = [key[here], steel[band][here], of.sharpened[band][here]]
    first, sums = grouped(by, figures[here])
    found: dict[str, list[Summed]] = defaultdict(list)
    for line, row in zip(here[first], sums, strict=True):
        runs, *rest = row.tolist()
        where = band[line]
        name = str(steels_of[steel[where]])
        found[str(names[key[line]])].append(
            Summed(name, bool(of.sharpened[where]), round(runs), *rest)
        )
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
    """Totals of every group, the whole, and what dull edges cost."""
    known = terms(session, shop_lives(session))
    sums = _sums(session, given, known.shop.rates)
    every = [s for mine in sums.values() for s in mine]
    per_m, dearer = _prices(known, ((s.steel, s.sharpened) for s in every))

    def cost(mine: Sequence[Summed]) -> GroupCost:
        return group_cost(mine, per_m=per_m, dearer=dearer)

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
        dull_money=dull.lost_min / 60.0 * known.shop.rates.hour,
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
    """Minutes and areas of each kind of cut by hand, by steps of the edge's metres."""
    table = sum_table(session)
    by_hand = list(session.scalars(select(SawRow.id).where(SawRow.feed == "hand")))
    within = table.months(given.since, given.until) & np.isin(table.keys["saw_id"], by_hand)
    here = np.flatnonzero(within)
    ids, band = table.column("band_id")
    bands = session.execute(select(BandRow.id, BandRow.steel))
    steel_of = {row[0]: row[1] for row in bands}
    names, steel = np.unique([steel_of[int(i)] for i in ids] or [""], return_inverse=True)
    kinds = ("saw_id", "material", "operation", "height_step", "edge_number", "edge_step")
    columns = {name: table.column(name) for name in kinds}
    by = [codes[here] for _, codes in columns.values()]
    if here.size:
        by.append(steel[band][here])
    runs, seconds, area = (
        table.figures[:, FIGURES.index(n)] for n in ("runs", "seconds", "area_m2")
    )
    first, sums = grouped(by, np.column_stack([runs, seconds, area])[here])
    parts = []
    for line, (count, spent, sawn) in zip(here[first], sums.tolist(), strict=True):
        told = {name: of[codes[line]] for name, (of, codes) in columns.items()}
        kind = [str(told[name]) for name in kinds[:4]]
        life = known.lives.of(str(names[steel[band[line]]]), int(told["edge_number"]))
        parts.append(
            DullPart(
                kind=" ".join(kind),
                dullness=(int(told["edge_step"]) + 0.5) * STEP_M / life.median_m,
                runs=round(count),
                minutes=spent / 60.0,
                area_m2=sawn,
            )
        )
    return lost_to_dullness(parts)


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
        .where(_key(given.by) == wanted)
    )
    query = _within(query, func.strftime("%Y-%m", RunRow.at), view)
    rows = session.execute(query.order_by(RunRow.time_s.desc()).limit(RUNS_SHOWN)).all()
    saws = {s.id: s for s in session.scalars(select(SawRow))}
    per_m, _ = _prices(known, ((band.steel, bool(sharp)) for _, band, sharp in rows))
    wear, rates = wear_factors(session), known.shop.rates
    return MoneyRuns(
        [
            MoneyRun(
                id=run.id,
                at=run.at,
                band_id=band.id,
                label=band.label,
                saw=saws[run.saw_id].name,
                material=run.material,
                height_mm=run.height_mm,
                length_mm=run.length_mm,
                pieces=run.pieces,
                minutes=run.time_s / 60.0,
                area_m2=run.height_mm * run.length_mm * run.pieces * 1e-6,
                time=run.time_s / 3600.0 * rates.cutting_hour(saws[run.saw_id].feed),
                edge=run.equivalent_m
                * wear.get(run.material, 1.0)
                * per_m[(band.steel, bool(sharp))]
                * new_price(band, rates),
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
    return group_cost(mine, per_m=per_m, dearer=dearer)


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
