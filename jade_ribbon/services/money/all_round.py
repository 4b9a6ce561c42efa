"""What choices cost: one band for many jobs, house rules, accessories that spare bands."""

from collections import defaultdict
from dataclasses import dataclass
from datetime import timedelta

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from jade_ribbon.core.choosing.explanation.sensitivity import rule_prices
from jade_ribbon.core.job import BandType, Candidate, type_of
from jade_ribbon.core.money.all_round import all_round
from jade_ribbon.core.money.payback import (
    UNSURE,
    PaybackFound,
    payback,
    saved_by,
    words_of,
    yearly,
)
from jade_ribbon.core.quantities.errors import InputError, refuse
from jade_ribbon.reference.care import accessories
from jade_ribbon.services.clock import now
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.money.inputs import AllRoundInput, MoneyQuery, PaybackInput
from jade_ribbon.services.money.ledger import money_view
from jade_ribbon.services.planning.jobs import plan_input
from jade_ribbon.services.planning.shopping import OPEN_STATES
from jade_ribbon.services.planning.snapshot import (
    job_for,
    rack_candidates,
    read_snapshot,
    type_candidates,
)
from jade_ribbon.services.records import get
from jade_ribbon.services.shop.settings import read_shop
from jade_ribbon.store.models import JobRow, RunRow, SawRow

SHOWN = 12
JOBS_LOOKED_AT = 8
YEAR = timedelta(days=365)


@dataclass(frozen=True)
class BandNamed(BandType):
    """A band by what it is; `band_id` where it is on the rack."""

    band_id: int | None


@dataclass(frozen=True)
class CostOfJob:
    """A job's cost with a band; None where it cannot do it."""

    job_id: int
    name: str
    cost: float | None
    band: BandNamed | None


@dataclass(frozen=True)
class AllRoundLine:
    """One band over all the jobs."""

    band: BandNamed
    jobs: list[CostOfJob]
    total: float
    impossible: int


@dataclass(frozen=True)
class AllRoundAnswer:
    """One band, changing for each, or two between them."""

    ranked: list[AllRoundLine]
    changing: list[CostOfJob]
    changes: int
    changing_total: float
    compromise: float | None
    close: bool
    """One band and changing are too close to call."""
    second_saves: float | None
    """What a second band saves of the one; None where it would save nothing."""
    pair: list[BandNamed]
    pair_total: float | None
    pair_impossible: int


def _named(band: Candidate) -> BandNamed:
    return BandNamed(**type_of(band), band_id=band.band_id)


def all_round_band(session: Session, given: AllRoundInput) -> AllRoundAnswer:
    """The all-round band of jobs on one saw. ConflictError where the rack has none."""
    saw: SawRow = get(session, "saw", given.saw_id)
    snapshot = read_snapshot(session)
    rows: list[JobRow] = [get(session, "job", key) for key in given.job_ids]
    jobs = []
    for row in rows:
        asked = plan_input(row, saw.id)
        bands = (
            rack_candidates(snapshot, saw.id, asked)
            if given.among == "rack"
            else type_candidates(snapshot)
        )
        if not bands:
            raise ConflictError("No band is on the rack: look among the types to buy.")
        jobs.append((row.name or f"Job {row.id}", job_for(snapshot, saw, asked, bands)))
    found = all_round(jobs)
    pair = found.pair
    return AllRoundAnswer(
        ranked=[
            AllRoundLine(
                _named(one.band),
                [
                    CostOfJob(row.id, job.name, job.cost, None)
                    for row, job in zip(rows, one.jobs, strict=True)
                ],
                one.total,
                one.impossible,
            )
            for one in found.ranked[:SHOWN]
        ],
        changing=[
            CostOfJob(row.id, job.name, job.cost, None if job.band is None else _named(job.band))
            for row, job in zip(rows, found.changing.jobs, strict=True)
        ],
        changes=found.changing.changes,
        changing_total=found.changing.total,
        compromise=found.compromise,
        close=found.close,
        second_saves=found.second_saves,
        pair=[] if pair is None else [_named(b) for b in pair.bands],
        pair_total=None if pair is None else pair.total,
        pair_impossible=0 if pair is None else pair.impossible,
    )


@dataclass(frozen=True)
class RuleCost:
    """What a house rule costs over the open jobs: positive, the other school would be cheaper."""

    rule: str
    choice: str
    other: str
    cost: float
    jobs: list[str]


def rule_costs(session: Session) -> list[RuleCost]:
    """Each house rule of the open jobs, chosen the other way; the dearest first."""
    snapshot = read_snapshot(session)
    saws = {s.id: s for s in snapshot.saws}
    rows = session.scalars(
        select(JobRow)
        .where(JobRow.deleted_at.is_(None), JobRow.state.in_(OPEN_STATES))
        .order_by(JobRow.updated_at.desc())
        .limit(JOBS_LOOKED_AT)
    ).all()
    sums: dict[tuple[str, str, str], list[tuple[float, str]]] = defaultdict(list)
    for row in rows:
        saw = saws.get(row.saw_id or 0)
        if saw is None:
            continue
        asked = plan_input(row, saw.id)
        try:
            job = job_for(snapshot, saw, asked, rack_candidates(snapshot, saw.id, asked))
            prices = rule_prices(job)
        except InputError:
            continue
        for price in prices:
            cost = -price.extra * job.cut.count
            sums[(price.rule, price.choice, price.other)].append(
                (cost, row.name or f"Job {row.id}")
            )
    found = [
        RuleCost(rule, choice, other, sum(c for c, _ in costs), [name for _, name in costs])
        for (rule, choice, other), costs in sums.items()
    ]
    return sorted(found, key=lambda r: -abs(r.cost))


@dataclass(frozen=True)
class Payback:
    """An accessory against the bands it would have saved in a year."""

    accessory: str
    title: str
    saves: str
    price: float
    found: PaybackFound | None
    """None where the record is too short to tell."""
    edge_money: float
    strikes: int
    unsure: float
    """What it saves is a guess: so many times more or less."""
    words: str


def payback_of_accessory(session: Session, given: PaybackInput) -> Payback:
    """How soon an accessory pays, by the last year's record. InputError for an unknown one."""
    known = accessories().get(given.accessory)
    if known is None:
        words = f"{given.accessory!r} is unknown; accepted: {', '.join(accessories())}"
        raise refuse("accessory", words, given.accessory)
    since = now() - YEAR
    view = money_view(session, MoneyQuery(by="month", since=since.strftime("%Y-%m")))
    first, strikes = session.execute(
        select(func.min(RunRow.at), func.coalesce(func.sum(RunRow.strikes), 0)).where(
            RunRow.deleted_at.is_(None), RunRow.at >= since
        )
    ).one()
    weeks = 0.0 if first is None else (now() - first).total_seconds() / 604_800.0
    whole = view.whole
    year = yearly(
        weeks=weeks,
        edge_money=whole.edge,
        area_m2=whole.area_m2,
        equivalent_m=whole.equivalent_m,
        strikes=strikes,
    )
    price = known.price if given.price is None else given.price
    found = None
    if year is not None:
        hour = read_shop(session).rates.hour
        costs = known.minutes_m2 * year.area_m2 / 60.0 * hour
        saved = saved_by(known, year)
        found = payback(price=price, saved_per_year=saved, costs_per_year=costs)
    return Payback(
        known.key,
        known.title,
        known.saves,
        price,
        found,
        0.0 if year is None else year.edge_money,
        strikes,
        UNSURE,
        words_of(found, weeks),
    )
