"""What sawing cost by steel, type, material, saw, month or person; every total opens its runs."""

from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Any, Literal

from sqlalchemy import ColumnElement, Integer, case, cast, func, literal, select
from sqlalchemy.orm import Session

from jade_ribbon.core.bands.facts import price_per_m
from jade_ribbon.core.money.ledger import (
    DullMinutes,
    GroupCost,
    Summed,
    group_cost,
    lost_to_dullness,
)
from jade_ribbon.core.money.regrind_or_replace import learned_ratio
from jade_ribbon.formats.tables_csv import table_csv
from jade_ribbon.reference.tables import materials, steels
from jade_ribbon.services.money.inputs import MoneyQuery, RunsQuery
from jade_ribbon.services.rack.edges import MINOR, shop_lives
from jade_ribbon.services.rack.standing import Terms, terms
from jade_ribbon.services.shop.materials import material_table
from jade_ribbon.store.models import BandRow, RunRow, SawRow

By = Literal["steel", "type", "material", "saw", "month", "person"]
RUNS_SHOWN = 100
BUCKET_M = 500.0
TYPICAL_LENGTH_M = 4.0


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


AREA = RunRow.height_mm * RunRow.length_mm * RunRow.pieces * 1e-6
MINUTES = RunRow.time_s / 60.0


def _key(by: By) -> ColumnElement[Any]:
    """What runs are grouped by."""
    if by == "month":
        return func.strftime("%Y-%m", RunRow.at)
    if by == "type":
        teeth = func.coalesce(func.printf("%g", BandRow.tpi_lo), literal("-"))
        size = func.printf("%g", BandRow.width_mm)
        return size + literal("|") + teeth + literal("|") + BandRow.form
    columns: Mapping[str, Any] = {
        "steel": BandRow.steel,
        "material": RunRow.material,
        "saw": RunRow.saw_id,
        "person": RunRow.who,
    }
    found: ColumnElement[Any] = columns[by]
    return found


def _counted(query: Any, given: MoneyQuery) -> Any:
    """Runs that count, from one day to another."""
    query = query.join(BandRow, RunRow.band_id == BandRow.id).where(
        RunRow.deleted_at.is_(None), RunRow.to_confirm.is_(False)
    )
    if given.since is not None:
        query = query.where(RunRow.at >= datetime.combine(given.since, datetime.min.time(), UTC))
    if given.until is not None:
        day = datetime.combine(given.until, datetime.min.time(), UTC) + timedelta(days=1)
        query = query.where(RunRow.at < day)
    return query


def _sums(session: Session, given: MoneyQuery) -> dict[str, list[Summed]]:
    """Sums of every group by steel and edge; one statement, however many runs."""
    priced = case((BandRow.price_minor.is_not(None), RunRow.equivalent_m), else_=0.0)
    query = _counted(
        select(
            _key(given.by),
            BandRow.steel,
            RunRow.edge_number,
            func.count(),
            func.sum(RunRow.time_s),
            func.sum(RunRow.length_mm * RunRow.pieces) / 1000.0,
            func.sum(AREA),
            func.sum(RunRow.pieces),
            func.sum(MINUTES * AREA),
            func.sum(MINUTES * MINUTES),
            func.sum(AREA * AREA),
            func.sum(RunRow.equivalent_m),
            func.sum(priced * func.coalesce(BandRow.price_minor, 0)) / MINOR,
            func.sum(RunRow.equivalent_m - priced),
        ),
        given,
    )
    found: dict[str, list[Summed]] = defaultdict(list)
    for row in session.execute(query.group_by(_key(given.by), BandRow.steel, RunRow.edge_number)):
        key, steel, edge, *figures = row
        found[str(key)].append(Summed(steel, edge, *figures))
    return found


def share_per_m(known: Terms, steel_key: str) -> float:
    """Share of a new band's price that an equivalent metre takes, sharpened as the shop does."""
    steel = steels()[steel_key]
    lives = [known.lives.of(steel_key, n) for n in range(steel.resharpen_times + 1)]
    ratio, _ = learned_ratio([(life.median_m, life.retired) for life in lives])
    rule = known.shop.rules["resharpening"]
    times = 0 if rule == "never" else steel.resharpen_times
    metres = lives[0].median_m * sum(ratio**n for n in range(times + 1))
    return 1.0 / metres


def _prices(known: Terms, used: Sequence[str]) -> tuple[dict[str, float], dict[str, float]]:
    """By steel: the share of its price a metre takes, and what a band costs unpriced."""
    rates = known.shop.rates
    per_m = {key: share_per_m(known, key) for key in used}
    usual = {key: price_per_m(steels()[key], 20.0, rates) * TYPICAL_LENGTH_M for key in used}
    return per_m, usual


def money_view(session: Session, given: MoneyQuery) -> MoneyView:
    """Totals of every group, the whole, and what dull edges cost; five statements."""
    known = terms(session, shop_lives(session))
    sums = _sums(session, given)
    every = [s for mine in sums.values() for s in mine]
    per_m, usual = _prices(known, sorted({s.steel for s in every}))
    hour = known.shop.rates.hour

    def cost(mine: Sequence[Summed]) -> GroupCost:
        return group_cost(mine, hour_rate=hour, per_m=per_m, usual_price=usual)

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
        dull_money=dull.lost / 60.0 * hour,
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
    """Minutes sawn by hand at each dullness of the edge, by steps of its metres; one statement."""
    bucket = cast(RunRow.edge_before_m / BUCKET_M, Integer)
    query = _counted(
        select(BandRow.steel, RunRow.edge_number, bucket, func.sum(MINUTES)), given
    ).join(SawRow, RunRow.saw_id == SawRow.id)
    rows = session.execute(
        query.where(SawRow.feed == "hand").group_by(BandRow.steel, RunRow.edge_number, bucket)
    )
    return lost_to_dullness(
        [
            (minutes, (step + 0.5) * BUCKET_M / known.lives.of(steel, edge).median_m)
            for steel, edge, step, minutes in rows
        ]
    )


def money_runs(session: Session, given: RunsQuery) -> MoneyRuns:
    """The runs of one group, the dearest first; their sum is the group's total."""
    known = terms(session, shop_lives(session))
    view = MoneyQuery(by=given.by, since=given.since, until=given.until)
    key = _key(given.by)
    wanted: Any = int(given.key) if given.by == "saw" and given.key.isdigit() else given.key
    query = _counted(select(RunRow, BandRow), view).where(key == wanted)
    total = group_total(session, view, known, given.key)
    rows = session.execute(query.order_by(RunRow.time_s.desc()).limit(RUNS_SHOWN)).all()
    saws = {s.id: s.name for s in session.scalars(select(SawRow))}
    per_m, usual = _prices(known, sorted({band.steel for _, band in rows}))
    hour = known.shop.rates.hour
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
                * per_m[band.steel]
                * (usual[band.steel] if band.price_minor is None else band.price_minor / MINOR),
                who=run.who,
            )
            for run, band in rows
        ],
        total.runs if total else 0,
        total.total if total else 0.0,
    )


def group_total(session: Session, given: MoneyQuery, known: Terms, key: str) -> GroupCost | None:
    """What one group came to; None where it has no runs."""
    mine = _sums(session, given).get(key)
    if mine is None:
        return None
    per_m, usual = _prices(known, sorted({s.steel for s in mine}))
    return group_cost(mine, hour_rate=known.shop.rates.hour, per_m=per_m, usual_price=usual)


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
