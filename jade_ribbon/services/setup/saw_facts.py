"""What the records know of a saw and the band on it, for its one verdict."""

from datetime import timedelta

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.bands.facts import body_width_of
from jade_ribbon.core.bands.reach import frame_force_N
from jade_ribbon.core.choosing.conflicts import barring, damage_words, misfits
from jade_ribbon.core.job import Saw
from jade_ribbon.core.setup.saw_verdict import SawFacts, SetUpFacts, TensionFacts
from jade_ribbon.reference.faults import sign_texts
from jade_ribbon.reference.tables import Steel, steels
from jade_ribbon.services.clock import now
from jade_ribbon.services.rack.edges import band_type
from jade_ribbon.services.shop.defects import open_defects
from jade_ribbon.services.shop.saws import core_saw
from jade_ribbon.services.shop.settings import read_shop
from jade_ribbon.services.shop.tasks import not_tested
from jade_ribbon.store.models import BandRow, SawRow, TroubleRow

NONE_KNOWN = TensionFacts("slack", None, 0.0, 0.0, 0.0, None, None, "")


def _stress_range(steel: Steel, saw: Saw) -> tuple[float, float]:
    """Low and high (MPa) a steel is tensioned to in what such a saw is built to cut."""
    low, high = steel.tension_metal_low_MPa, steel.tension_metal_high_MPa
    if saw.is_metal_saw and low is not None and high is not None:
        return low, high
    return steel.tension_wood_low_MPa or 0.0, steel.tension_wood_high_MPa or 0.0


def _tension(
    session: Session, row: SawRow, band: BandRow, set_up: SetUpFacts | None
) -> TensionFacts:
    saw, card = core_saw(row), set_up or SetUpFacts()
    low, high = card.stress_MPa or _stress_range(steels()[band.steel], saw)
    kind = band_type(band)
    area = saw.force_per_strand * body_width_of(kind) * band.thickness_mm
    on = row.tension_since if row.tension_state == "on" else None
    return TensionFacts(
        state=row.tension_state,
        stress_MPa=row.tension_stress_MPa,
        share=card.stress_share,
        low_MPa=low,
        high_MPa=high,
        reach_MPa=frame_force_N(saw) / area if saw.force_known else None,
        hours_on=None if on is None else (now() - on) / timedelta(hours=1),
        idle_rule=read_shop(session).rules["idle_tension"],
    )


def _troubles(session: Session, saw_id: int) -> list[str]:
    """Open troubles of a saw, by their signs."""
    rows = session.scalars(
        select(TroubleRow)
        .where(
            TroubleRow.saw_id == saw_id,
            TroubleRow.state == "open",
            TroubleRow.deleted_at.is_(None),
        )
        .order_by(TroubleRow.id)
    )
    names = sign_texts()
    return [
        ", ".join(
            names[k].name.lower() for k, d in row.symptoms.items() if k in names and d != "absent"
        )
        or "no signs told"
        for row in rows
    ]


def saw_facts(session: Session, row: SawRow, set_up: SetUpFacts | None = None) -> SawFacts:
    """Everything read or recorded of a saw as it stands, with what its card left."""
    band = session.get(BandRow, row.mounted_band_id) if row.mounted_band_id else None
    saw = core_saw(row)
    allowed = read_shop(session).rates.teeth_missing_allowed
    defects = open_defects(session, row.id)
    return SawFacts(
        band="" if band is None else band.label,
        damage=damage_words(
            ()
            if band is None
            else barring(band.defects, teeth_lost=band.teeth_lost, allowed=allowed)
        ),
        look_first=band is not None and band.look_first,
        misfits=() if band is None else [r.text for r in misfits(band_type(band), saw)],
        tension=NONE_KNOWN if band is None else _tension(session, row, band, set_up),
        speed_set_m_s=row.speed_set_m_s,
        speeds_m_s=(saw.drive.slowest_m_s, saw.drive.fastest_m_s),
        set_up=set_up,
        troubles=_troubles(session, row.id),
        stopping_defects=[d.text for d in defects if d.stops],
        wheels_out=row.wheels_out,
        not_tested=not_tested(session, row),
    )
