"""What a plan reads from the store, once, and the core's job made of it."""

import dataclasses
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.choosing.catalogue import catalogue_candidates
from jade_ribbon.core.edge.shop_life import ShopLives, life_in, own_life_m
from jade_ribbon.core.job import Candidate, Job
from jade_ribbon.formats.job import CutFile
from jade_ribbon.reference.tables import Material
from jade_ribbon.services.planning.inputs import PlanInput, WhatIf
from jade_ribbon.services.rack.band_types import own_type
from jade_ribbon.services.rack.edges import candidate, shop_lives
from jade_ribbon.services.shop.learned_factors import with_what_is_known
from jade_ribbon.services.shop.materials import material_table
from jade_ribbon.services.shop.saws import core_saw, owned_saws
from jade_ribbon.services.shop.settings import Shop, read_shop, rules_for
from jade_ribbon.store.models import BandRow, BandTypeRow, SawRow, TroubleRow


@dataclass(frozen=True)
class Snapshot:
    """What a plan reads from the store, once."""

    shop: Shop
    saws: Sequence[SawRow]
    bands: Sequence[BandRow]
    lives: ShopLives
    by_band: Mapping[int, int]
    materials: Mapping[str, Material]
    types: Sequence[BandTypeRow]
    shaking: frozenset[int]
    """Saws with an open trouble that says they vibrate."""


def read_snapshot(session: Session) -> Snapshot:
    """Saws and which of them shake, usable bands, lives, settings, materials, own band types."""
    saws = session.scalars(owned_saws()).all()
    bands = session.scalars(
        select(BandRow).where(BandRow.deleted_at.is_(None), BandRow.state == "rack")
    ).all()
    mounted = {s.mounted_band_id: s.id for s in saws if s.mounted_band_id is not None}
    table = material_table(session)
    types = session.scalars(
        select(BandTypeRow).where(BandTypeRow.deleted_at.is_(None)).order_by(BandTypeRow.id)
    ).all()
    open_troubles = session.execute(
        select(TroubleRow.saw_id, TroubleRow.symptoms).where(
            TroubleRow.state == "open", TroubleRow.deleted_at.is_(None)
        )
    ).all()
    shaking = frozenset(saw for saw, signs in open_troubles if "vibration" in signs)
    lives = shop_lives(session)
    return Snapshot(read_shop(session), saws, bands, lives, mounted, table, types, shaking)


def type_candidates(snapshot: Snapshot) -> tuple[Candidate, ...]:
    """Band types to buy: the built-in catalogue and the shop's own."""
    return (*catalogue_candidates(), *(own_type(row) for row in snapshot.types))


def with_material_life(
    band: Candidate, row: BandRow, snapshot: Snapshot, material: Material
) -> Candidate:
    shop_life = snapshot.lives.of(row.steel, row.sharpenings)
    life = own_life_m(shop_life, used_m=row.edge_equivalent_m)
    return dataclasses.replace(band, life_m=life_in(life, steel_key=row.steel, material=material))


def rack_candidates(snapshot: Snapshot, saw_id: int, cut: CutFile) -> tuple[Candidate, ...]:
    """The whole rack as candidates for a saw, each with its life in this material."""
    material = cut.to_core(snapshot.materials).material
    return tuple(
        with_material_life(
            candidate(row, snapshot.lives, saw_id, snapshot.by_band.get(row.id)),
            row,
            snapshot,
            material,
        )
        for row in snapshot.bands
    )


def on_saw(bands: Sequence[Candidate], snapshot: Snapshot, row: SawRow) -> tuple[Candidate, ...]:
    """Those of the rack that are long enough for another saw, as that saw sees them."""
    low, high = row.band_length_min_mm, row.band_length_max_mm
    return tuple(
        dataclasses.replace(
            band,
            mounted=band.band_id is not None and snapshot.by_band.get(band.band_id) == row.id,
        )
        for band in bands
        if low <= (band.length_mm or 0.0) <= high
    )


def job_for(snapshot: Snapshot, saw: SawRow, given: PlanInput, bands: tuple[Candidate, ...]) -> Job:
    """The core's job of a question, with what is tried out in place of the shop's figures."""
    rules = rules_for(snapshot.shop, given.rules)
    cut, known = with_what_is_known(snapshot.shop, saw, given.to_core(snapshot.materials))
    job = Job(
        saw=dataclasses.replace(core_saw(saw), shakes=saw.id in snapshot.shaking),
        cut=cut,
        rules=rules,
        rates=snapshot.shop.rates,
        bands=bands,
        known=known,
    )
    return job if given.what_if is None else _tried_out(job, given.what_if)


def _tried_out(job: Job, tried: WhatIf) -> Job:
    """The job with other motor, tension, guard or edges."""
    saw, bands, rules = job.saw, job.bands, job.rules
    if tried.motor_kW is not None:
        saw = dataclasses.replace(saw, motor_kW=tried.motor_kW)
    if tried.guard_gap_mm is not None:
        rules = dataclasses.replace(rules, guard_gap_mm=tried.guard_gap_mm)
    if tried.dullness is not None:
        bands = tuple(dataclasses.replace(b, dullness=tried.dullness) for b in bands)
    return dataclasses.replace(job, saw=saw, bands=bands, rules=rules, stress_MPa=tried.stress_MPa)
