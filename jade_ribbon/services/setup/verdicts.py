"""The one verdict on a saw as it stands: what its records and its last card say of it."""

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.quantities.words import Said
from jade_ribbon.core.setup.readiness import still_holds
from jade_ribbon.core.setup.saw_verdict import SawVerdict, SetUpFacts, saw_verdict
from jade_ribbon.services.errors import ConflictError, NotFoundError
from jade_ribbon.services.records import get
from jade_ribbon.services.setup.cards import Open, open_card, step_state
from jade_ribbon.services.setup.past_setups import since_step, steps_of
from jade_ribbon.services.setup.saw_facts import saw_facts
from jade_ribbon.store.models import BandEventRow, BandRow, SawRow, SetupRow


def _last_card(session: Session, row: SawRow, band: BandRow) -> SetupRow | None:
    """The last card begun with a band on its saw, if the band has been on since a step of it."""
    card = session.scalars(
        select(SetupRow)
        .where(
            SetupRow.saw_id == row.id, SetupRow.band_id == band.id, SetupRow.deleted_at.is_(None)
        )
        .order_by(SetupRow.id.desc())
    ).first()
    if card is None:
        return None
    off = session.scalar(
        select(BandEventRow.at)
        .where(
            BandEventRow.band_id == band.id,
            BandEventRow.kind == "dismounted",
            BandEventRow.deleted_at.is_(None),
        )
        .order_by(BandEventRow.at.desc())
        .limit(1)
    )
    done = [s.at for s in steps_of(session, card.id).values() if s.done]
    return card if done and (off is None or max(done) > off) else None


def _set_up(session: Session, row: SawRow, band: BandRow) -> SetUpFacts | None:
    """What the band's card left; None where none was begun since it went on."""
    card = _last_card(session, row, band)
    if card is None:
        return None
    try:
        found = open_card(session, card.id)
    except (ConflictError, NotFoundError):
        return SetUpFacts(not_done=["its set-up, since the job was changed or deleted"])
    return _steps(session, found, row)


def _steps(session: Session, found: Open, row: SawRow) -> SetUpFacts:
    """Steps out of limits, to be checked again, and not done or no longer good."""
    kept = steps_of(session, found.row.id)
    out: list[Said] = []
    to_check, not_done = [], []
    for step in found.card.steps:
        record = kept.get(step.key)
        if step.holds == "never" and found.row.finished_at is not None:
            continue
        if record is None or not record.done:
            not_done.append(step.title)
            continue
        state = step_state(record, found.card, tuple(found.band.defects))
        after = since_step(session, found.row, row, record.at)
        lasts = step.holds in ("never", "job") or still_holds(step.key, step.holds, after)
        if state.check_again:
            to_check.append(step.title)
        elif not lasts:
            not_done.append(step.title)
        elif not state.allowed_by and step.key != "tension":
            out += state.out
    if found.row.finished_at is None and not_done:
        steps = "one step" if len(not_done) == 1 else f"{len(not_done)} steps"
        not_done = [f"{steps} of its set-up card"]
    tension = kept.get("tension")
    allowed = tension is not None and bool(tension.allowed_by)
    means = tension.means if tension is not None and tension.done else None
    card = found.card.tension
    return SetUpFacts(
        out,
        to_check,
        not_done,
        allowed,
        stress_share=card.uncertainty.get(means or "", 0.0),
        stress_MPa=(card.low_MPa, card.high_MPa),
    )


def verdict_of(session: Session, saw_id: int) -> SawVerdict:
    """The one verdict on a saw as it stands."""
    row: SawRow = get(session, "saw", saw_id)
    band = session.get(BandRow, row.mounted_band_id) if row.mounted_band_id else None
    set_up = None if band is None else _set_up(session, row, band)
    return saw_verdict(saw_facts(session, row, set_up))
