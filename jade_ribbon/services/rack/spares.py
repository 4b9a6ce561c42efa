"""How many bands of each type to keep, what is on coils, and a price held against those paid."""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from jade_ribbon.core.money.prices import Priced, PriceLook, look_at_price
from jade_ribbon.core.money.regrind_or_replace import sharpen_plan
from jade_ribbon.core.money.reorder import Verdict, chance_short, reorder_point, stand
from jade_ribbon.services.clock import now
from jade_ribbon.services.rack.bands import check_type
from jade_ribbon.services.rack.edges import MINOR, shop_lives
from jade_ribbon.services.rack.inputs import PriceInput
from jade_ribbon.services.rack.standing import Terms, new_price, sharpening_of, terms
from jade_ribbon.services.shop.saws import owned_saws
from jade_ribbon.store.models import BandEventRow, BandRow, CoilRow, SawRow

WINDOW_WEEKS = 104.0
SAME_LENGTH_MM = 10.0
SAME_WIDTH = 0.2
Kind = tuple[float, float, float | None, float | None, str, str]


def spare_kind(row: BandRow | CoilRow) -> Kind:
    """What a band or a coil is, its length aside."""
    return (row.width_mm, row.thickness_mm, row.tpi_lo, row.tpi_hi, row.form, row.steel)


@dataclass(frozen=True)
class SpareLine:
    """One type at one length: what is here, how fast it goes, when to order and how many."""

    width_mm: float
    thickness_mm: float
    tpi_lo: float | None
    tpi_hi: float | None
    form: str
    steel: str
    length_mm: float
    saws: list[str]
    have: int
    out: int
    used_up: int
    weeks: float
    mean_demand: float
    reorder_at: int
    chance_short: float
    verdict: Verdict
    order: int
    price: float
    from_coil: int
    coil_id: int | None


@dataclass(frozen=True)
class Spares:
    """All types on the rack, and the terms they are judged by."""

    lines: list[SpareLine]
    service: float
    lead_weeks: float
    words: str


def _ended(session: Session, since: datetime) -> dict[int, datetime]:
    """When each band was scrapped, of late."""
    rows = session.execute(
        select(BandEventRow.band_id, func.max(BandEventRow.at))
        .where(BandEventRow.kind == "scrapped", BandEventRow.deleted_at.is_(None))
        .where(BandEventRow.at >= since)
        .group_by(BandEventRow.band_id)
    )
    return dict(iter(rows))


def list_spares(session: Session) -> Spares:
    """Reorder points of every type and length on the rack; five statements."""
    known = terms(session, shop_lives(session))
    rows = session.scalars(select(BandRow).where(BandRow.deleted_at.is_(None))).all()
    saws = session.scalars(owned_saws()).all()
    coils = session.scalars(select(CoilRow).where(CoilRow.deleted_at.is_(None))).all()
    groups: dict[tuple[Kind, int], list[BandRow]] = defaultdict(list)
    for row in rows:
        groups[(spare_kind(row), round(row.length_mm / SAME_LENGTH_MM))].append(row)
    first = min((r.arrived_at for r in rows), default=now())
    weeks = min(WINDOW_WEEKS, max(0.0, (now() - first).total_seconds() / 604_800.0))
    gone = _ended(session, first)
    lines = [_line(mine, known, saws, coils, max(weeks, 0.1), gone) for mine in groups.values()]
    rack = known.shop.rack
    words = (
        f"Order early enough to run out in {100 * (1 - rack.service):.0f} of 100 waits of "
        f"{rack.lead_weeks:g} weeks."
    )
    order = {"order": 0, "cannot_tell": 1, "enough": 2}
    lines.sort(key=lambda x: (order[x.verdict], -x.used_up, x.width_mm, x.length_mm))
    return Spares(lines, rack.service, rack.lead_weeks, words)


def _line(
    mine: Sequence[BandRow],
    known: Terms,
    saws: Sequence[SawRow],
    coils: Sequence[CoilRow],
    weeks: float,
    gone: dict[int, datetime],
) -> SpareLine:
    one, rack = mine[0], known.shop.rack
    horizon = weeks * 7.0 * 86_400.0
    used = sum(
        1
        for r in mine
        if r.state == "scrapped"
        and r.id in gone
        and (now() - gone[r.id]).total_seconds() <= horizon + 1.0
    )
    here = [r for r in mine if r.state != "scrapped" and not r.defects]
    point = reorder_point(
        used_up=used, weeks=weeks, lead_weeks=rack.lead_weeks, service=rack.service
    )
    told = stand(point, have=len(here), used_up=used, weeks=weeks)
    coil = max(
        (c for c in coils if spare_kind(c) == spare_kind(one) and c.left_mm >= one.length_mm),
        key=lambda c: c.left_mm,
        default=None,
    )
    return SpareLine(
        *spare_kind(one),
        length_mm=one.length_mm,
        saws=[
            s.name for s in saws if s.band_length_min_mm <= one.length_mm <= s.band_length_max_mm
        ],
        have=len(here),
        out=sum(r.state == "out" for r in here),
        used_up=used,
        weeks=weeks,
        mean_demand=point.mean_demand,
        reorder_at=point.reorder_at,
        chance_short=chance_short(
            used_up=used, weeks=weeks, lead_weeks=rack.lead_weeks, have=len(here)
        ),
        verdict=told.verdict,
        order=told.order,
        price=new_price(one, known.shop.rates),
        from_coil=0 if coil is None else int(coil.left_mm // one.length_mm),
        coil_id=None if coil is None else coil.id,
    )


def look_at_band_price(session: Session, given: PriceInput) -> PriceLook:
    """A price typed in, against what this shop paid for bands about as wide."""
    check_type(given)
    known = terms(session, shop_lives(session))
    rows = session.scalars(
        select(BandRow).where(BandRow.deleted_at.is_(None), BandRow.price_minor.is_not(None))
    )
    paid = [
        _priced(row, row.price_minor / MINOR, known)  # type: ignore[operator]
        for row in rows
        if abs(row.width_mm / given.width_mm - 1.0) <= SAME_WIDTH
    ]
    probe = BandRow(
        label="",
        width_mm=given.width_mm,
        thickness_mm=given.thickness_mm,
        tpi_lo=given.tpi_lo,
        tpi_hi=given.tpi_hi,
        form=given.form,
        steel=given.steel,
        length_mm=given.length_mm,
        price_minor=round(given.price * MINOR),
        set_per_side_mm=None,
        sharpenings=0,
        edge_equivalent_m=0.0,
        bending_share=0.0,
    )
    return look_at_price(_priced(probe, given.price, known), paid)


def _priced(row: BandRow, price: float, known: Terms) -> Priced:
    """A band's price by the metre and by what it is expected to cut, sharpened or not."""
    sharpening = sharpening_of(row, known)
    rule = known.shop.rules["resharpening"]
    way = next((w for w in sharpening.ways if w.key == rule), None)
    change = known.shop.rates.change_min * known.shop.rates.hour / 60.0
    plan = sharpen_plan(
        price_new=price + change,
        life_new_m=known.lives.of(row.steel, 0).median_m,
        sharpen_cost=0.0 if way is None else way.each,
        life_ratio=sharpening.life_ratio,
        times_most=0 if way is None or rule == "never" else sharpening.bounds.times,
    )
    return Priced(price / row.length_mm * 1000.0, plan.cost_per_1000_m[plan.best_times])
