"""What this shop's ended lives teach: how long edges last, and how hard materials wear them."""

import math
from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from jade_ribbon.core.edge.abrasion import MOSTLY, Abrasion, learned_abrasion
from jade_ribbon.core.edge.shop_life import ShopLives, median_without
from jade_ribbon.core.mechanics.life import life_sd_ln
from jade_ribbon.reference.tables import materials, steels
from jade_ribbon.services.memo import remembered
from jade_ribbon.services.rack.edges import shop_lives
from jade_ribbon.services.rack.replay import around, refresh, wear_factors
from jade_ribbon.services.records import projected
from jade_ribbon.services.shop.materials import material_table
from jade_ribbon.services.shop.settings import read_shop, shop_row
from jade_ribbon.store.models import BandEventRow, BandRow, EdgeLifeRow, RunRow, RunSumRow

WORTH_FOLLOWING = 0.02
"""A factor that moved by less leaves edges as they are counted."""
TENTH = 1.2815516


@dataclass(frozen=True)
class EndedLife:
    """A life that ended, what it was spent on, and what the others would have said of it."""

    band_id: int
    label: str
    steel: str
    sharpenings: int
    metres: float
    dull: bool
    doubted: bool
    predicted_m: float
    material: str


@dataclass(frozen=True)
class LearnedSteel:
    """One steel at one sharpening: its lives, what the table says, what they say together."""

    steel: str
    steel_name: str
    sharpenings: int
    table_m: float
    median_m: float
    low_m: float
    high_m: float
    retired: int
    running: int
    doubted: int
    one_more: float
    """How much narrower one more ended life would make the median's range, as a share."""


@dataclass(frozen=True)
class LearnedMaterial:
    """How hard a material wears edges here, against the table; eight in ten are within."""

    material: str
    name: str
    factor: float
    low: float
    high: float
    lives: int


@dataclass(frozen=True)
class Learned:
    """All that the shop's lives teach."""

    steels: list[LearnedSteel]
    lives: list[EndedLife]
    materials: list[LearnedMaterial]


@dataclass(frozen=True)
class _Spent:
    """A life's metres by material, as the table counts them, and what took most of them."""

    by_material: Mapping[str, float]
    material: str

    @property
    def by_table_m(self) -> float:
        return sum(self.by_material.values())

    def as_counted_m(self, wear: Mapping[str, float]) -> float:
        """The metres as wear by material counts them."""
        return sum(m * wear.get(key, 1.0) for key, m in self.by_material.items())


def _spent(session: Session) -> dict[tuple[int, int], _Spent]:
    """Of each band and edge: metres by the table, and what took most of them; one statement."""
    rows = session.execute(
        select(
            RunSumRow.band_id,
            RunSumRow.edge_number,
            RunSumRow.material,
            func.sum(RunSumRow.table_m),
        ).group_by(RunSumRow.band_id, RunSumRow.edge_number, RunSumRow.material)
    )
    by_edge: dict[tuple[int, int], dict[str, float]] = defaultdict(dict)
    for band, edge, material, metres in rows:
        by_edge[(band, edge)][material] = metres
    found = {}
    for key, shares in by_edge.items():
        whole = sum(shares.values())
        most = max(shares, key=lambda m: shares[m])
        found[key] = _Spent(shares, most if whole and shares[most] >= MOSTLY * whole else "")
    return found


Row = tuple[int, str, str, int, float, str | None, float]


def _lives(session: Session) -> Sequence[Row]:
    return [
        tuple(row)  # type: ignore[misc]
        for row in session.execute(
            select(
                BandRow.id,
                BandRow.label,
                BandRow.steel,
                EdgeLifeRow.number,
                EdgeLifeRow.equivalent_m,
                EdgeLifeRow.ending,
                EdgeLifeRow.confirmed_m,
            )
            .join(BandRow, EdgeLifeRow.band_id == BandRow.id)
            .where(BandRow.deleted_at.is_(None))
            .order_by(BandRow.label, EdgeLifeRow.number)
        )
    ]


def learned_wear(session: Session) -> dict[str, Abrasion]:
    """How hard each material wears edges here, from the lives that ended dull in it.

    Against what lives in all other materials say, every life as the table counts it: what all
    have in common is the steel's.
    """
    spent, kept = _spent(session), wear_factors(session)
    table = ShopLives([])
    ended: list[tuple[str, tuple[float, float]]] = []
    for band, _, steel, number, counted, ending, _ in _lives(session):
        of = spent.get((band, number))
        if ending != "dull" or counted <= 0.0:
            continue
        metres, material = counted, ""
        if of is not None:
            metres, material = counted + of.by_table_m - of.as_counted_m(kept), of.material
        ended.append((material, (max(metres, 1.0), table.of(steel, number).median_m)))
    found = {}
    for material in {m for m, _ in ended if m}:
        inside = [life for m, life in ended if m == material]
        abrasion = learned_abrasion(inside, [life for m, life in ended if m != material])
        if abrasion is not None:
            found[material] = abrasion
    return found


@projected("event")
def learn_wear(session: Session, row: BandEventRow) -> None:
    """What materials do to edges follows every end of a life; edges are counted anew by it."""
    if row.kind not in ("sharpened", "scrapped", "life_confirmed", "edge_judged"):
        return
    shop = shop_row(session)
    kept: Mapping[str, dict[str, float]] = (shop.learned or {}).get("wear", {})
    now = {key: asdict(found) for key, found in learned_wear(session).items()}
    moved = {
        key
        for key in {*kept, *now}
        if abs(now.get(key, {}).get("factor", 1.0) / kept.get(key, {}).get("factor", 1.0) - 1.0)
        > WORTH_FOLLOWING
    }
    if not moved:
        return
    session.add(shop)
    # Only what moved is written: edges must be as they would be counted from what is kept.
    wear = {key: own for key, own in kept.items() if key not in moved}
    wear |= {key: now[key] for key in moved if key in now}
    shop.learned = {**(shop.learned or {}), "wear": wear}
    session.flush()
    known = around(session)
    touched = session.scalars(
        select(BandRow)
        .where(BandRow.id.in_(select(RunRow.band_id).where(RunRow.material.in_(moved))))
        .where(BandRow.deleted_at.is_(None))
    )
    for band in touched:
        refresh(session, band, known)


SHOWN_LIVES = 24
"""Lives drawn of one steel and number of sharpenings: more hide each other."""


def _shown(rows: Sequence[Row]) -> Sequence[Row]:
    """As many lives as can be told apart, evenly from the shortest to the longest."""
    if len(rows) <= SHOWN_LIVES:
        return rows
    ordered = sorted(rows, key=lambda row: row[4])
    last = len(ordered) - 1
    return [ordered[round(n * last / (SHOWN_LIVES - 1))] for n in range(SHOWN_LIVES)]


def learned(session: Session) -> Learned:
    """Lives by steel and what they settle, predicted against observed, wear by material."""
    lives = _lives(session)
    spent = remembered(session, "metres by edge", lambda: _spent(session))
    all_of = shop_lives(session)
    groups: dict[tuple[str, int], list[Row]] = defaultdict(list)
    for row in lives:
        groups[(row[2], row[3])].append(row)
    by_steel, ended = [], []
    for (steel, number), rows in sorted(groups.items()):
        if all(row[4] == 0.0 and row[5] is None for row in rows):
            continue
        life = all_of.of(steel, number)
        alpha = life.posterior.alpha
        wide = math.exp(TENTH * life_sd_ln(alpha))
        by_steel.append(
            LearnedSteel(
                steel=steel,
                steel_name=steels()[steel].name,
                sharpenings=number,
                table_m=ShopLives([]).of(steel, number).median_m,
                median_m=life.median_m,
                low_m=life.median_m / wide,
                high_m=life.median_m * wide,
                retired=life.retired,
                running=life.running,
                doubted=len(life.doubted),
                one_more=1.0 - life_sd_ln(alpha + 1.0) / life_sd_ln(alpha),
            )
        )
        for row in _shown([r for r in rows if r[5] is not None]):
            of = spent.get((row[0], row[3]))
            ended.append(
                EndedLife(
                    band_id=row[0],
                    label=row[1],
                    steel=steel,
                    sharpenings=number,
                    metres=row[4],
                    dull=row[5] == "dull",
                    doubted=row[4] in life.doubted,
                    predicted_m=median_without(life, row[4], dull=row[5] == "dull"),
                    material=of.material if of is not None else "",
                )
            )
    return Learned(by_steel, ended, _materials(session))


def _materials(session: Session) -> list[LearnedMaterial]:
    names = {**materials(), **material_table(session)}
    found = []
    for key, own in read_shop(session).wear.items():
        told = Abrasion(own.factor, own.sd_ln, own.lives)
        name = names[key].name if key in names else key
        found.append(LearnedMaterial(key, name, told.factor, told.low, told.high, told.lives))
    return sorted(found, key=lambda m: -m.lives)
