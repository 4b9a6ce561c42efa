"""All band types that can be bought, to look through and compare: built in, and the shop's own."""

from collections import Counter
from dataclasses import dataclass

from sqlalchemy.orm import Session

from jade_ribbon.core.bands.facts import FINISH_ORDER, band_facts
from jade_ribbon.core.job import BandType, Candidate, Finish, Job, type_of
from jade_ribbon.core.mechanics.geometry import min_radius
from jade_ribbon.core.saw_defaults.kinds import starting_kinds
from jade_ribbon.services.planning.outlines import probe_job
from jade_ribbon.services.planning.snapshot import Snapshot, read_snapshot, type_candidates
from jade_ribbon.services.shop.saws import core_saw

SAME_WIDTH_MM = 0.5
"""A band this near a type's width is of it, whatever inches or millimetres it is sold in."""


@dataclass(frozen=True)
class TypeLine(BandType):
    """A band type: what it is, what follows in dry hardwood, and how many are on the rack."""

    number: int
    kerf_mm: float
    tightest_mm: float
    smallest_wheel_mm: float
    finest: Finish
    price_per_m: float
    own: bool
    on_rack: int


def _line(number: int, band: Candidate, job: Job, on_rack: int, built_in: int) -> TypeLine:
    facts = band_facts(band, job)
    turns = min_radius(
        width_mm=band.width_mm, thickness_mm=band.thickness_mm, kerf_mm=facts.kerf_mm
    )
    return TypeLine(
        number=number,
        **type_of(band),
        kerf_mm=facts.kerf_mm,
        tightest_mm=turns.min_radius_mm,
        smallest_wheel_mm=facts.steel.min_D_over_t * band.thickness_mm,
        finest=FINISH_ORDER[facts.finish_place],
        price_per_m=facts.price / facts.length_mm * 1000.0,
        own=number >= built_in,
        on_rack=on_rack,
    )


def _kind(band: Candidate) -> tuple[object, ...]:
    width = round(band.width_mm / SAME_WIDTH_MM)
    return (width, band.tpi_lo, band.tpi_hi, band.form, band.steel)


def _on_rack(snapshot: Snapshot) -> Counter[tuple[object, ...]]:
    live = (row for row in snapshot.bands if row.state != "scrapped")
    return Counter(
        (round(r.width_mm / SAME_WIDTH_MM), r.tpi_lo, r.tpi_hi, r.form, r.steel) for r in live
    )


def type_table(session: Session) -> list[TypeLine]:
    """The types in the tables' order, the shop's own after them."""
    snapshot = read_snapshot(session)
    saw = core_saw(snapshot.saws[0]) if snapshot.saws else starting_kinds()[1].saw
    job, kept = probe_job(snapshot, saw), _on_rack(snapshot)
    types = type_candidates(snapshot)
    built_in = len(types) - len(snapshot.types)
    return [_line(n, band, job, kept[_kind(band)], built_in) for n, band in enumerate(types)]
