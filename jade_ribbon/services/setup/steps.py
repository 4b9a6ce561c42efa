"""A step of a set-up recorded: what it needs first, what its figures may be, what it moves."""

import contextlib
from datetime import datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.setup.card import READING_RANGES, SetupStep
from jade_ribbon.core.setup.readiness import DISTURBS, check_frame, check_steel, refused
from jade_ribbon.services.clock import now
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.field_types import Waited
from jade_ribbon.services.records import as_record, log_change
from jade_ribbon.services.setup.cards import Open, SetupAnswer, one_setup, open_card
from jade_ribbon.services.setup.inputs import CarryInput, KeyedStep, StepInput
from jade_ribbon.services.setup.past_setups import steps_of, still_good
from jade_ribbon.services.setup.roles import check_authorised
from jade_ribbon.services.shop.inputs import MountInput
from jade_ribbon.services.shop.saws import mount
from jade_ribbon.store.models import SetupStepRow


def record_step(
    session: Session, setup_id: int, given: KeyedStep, at: Waited = None
) -> SetupAnswer:
    """Tick, untick or skip a step named by its key."""
    return do_step(session, setup_id, given.key, given.step(), at)


def carry_steps(session: Session, setup_id: int, given: CarryInput) -> SetupAnswer:
    """Take over every step that still holds from earlier cards and is not recorded on this one."""
    found = open_card(session, setup_id)
    recorded = steps_of(session, setup_id)
    good = still_good(session, found.card, found.row, found.saw)
    for step in found.card.steps:
        if step.key in good and step.key not in recorded:
            kept = StepInput(done=True, still_good=True, who=given.who)
            # What only a named person may do waits for that name.
            with contextlib.suppress(ConflictError):
                do_step(session, setup_id, step.key, kept)
    return one_setup(session, setup_id)


def do_step(
    session: Session, setup_id: int, key: str, given: StepInput, at: datetime | None = None
) -> SetupAnswer:
    """Tick, untick or skip a step; mounting and tensioning move the saw's state too."""
    found = open_card(session, setup_id)
    step = next((s for s in found.card.steps if s.key == key), None)
    if step is None:
        known = ", ".join(s.key for s in found.card.steps)
        raise InputError([Fault("key", f"{key!r} is not a step; accepted: {known}", key)])
    _check_figures(step, given)
    _check_frame(found, key, given)
    if given.skipped and key == "isolate":
        raise ConflictError("Isolating cannot be skipped.")
    if given.done:
        _check_needs(session, found, step, given)
        check_authorised(session, step.reserve, given.authorised_by)
    record = given.model_dump()
    if given.still_good:
        record |= _carried(session, found, key)
    when = at or now()
    if _moved(session, setup_id, key, given):
        _disturb(session, setup_id, step)
    _keep(session, setup_id, key, record | {"at": when, "check_again": ""})
    _move_saw(session, found, key, given, when)
    return one_setup(session, setup_id)


def _moved(session: Session, setup_id: int, key: str, given: StepInput) -> bool:
    """Whether a step is done now otherwise than it stood: undone, or left at other figures."""
    kept = steps_of(session, setup_id).get(key)
    if kept is None or given.still_good:
        return False
    return bool(kept.done) != given.done or (given.done and kept.left != given.left)


def _disturb(session: Session, setup_id: int, step: SetupStep) -> None:
    """Mark what was done before and is moved by a step done anew."""
    kept = steps_of(session, setup_id)
    for key in DISTURBS.get(step.key, ()):
        row = kept.get(key)
        if row is not None and row.done and not row.check_again:
            before = as_record(row)
            row.check_again = step.title
            log_change(session, row, "edit", before)


def _check_needs(session: Session, found: Open, step: SetupStep, given: StepInput) -> None:
    """ConflictError while something must be done first: isolation, a band to tension."""
    isolate = steps_of(session, found.row.id).get("isolate")
    words = refused(
        step.key,
        doors_open=step.doors_open and not given.still_good,
        isolated=isolate is not None and isolate.done,
        band_on=found.saw.mounted_band_id == found.row.band_id,
        tension=found.saw.tension_state,
    )
    if words:
        raise ConflictError(words)


def _keep(session: Session, setup_id: int, key: str, record: dict[str, Any]) -> None:
    """Write a step of a card, the first time or again."""
    kept = session.scalars(
        select(SetupStepRow).where(SetupStepRow.setup_id == setup_id, SetupStepRow.key == key)
    ).first()
    before = None if kept is None or kept.deleted_at is not None else as_record(kept)
    row = kept or SetupStepRow(setup_id=setup_id, key=key)
    for name, value in record.items():
        setattr(row, name, value)
    row.deleted_at = None
    session.add(row)
    log_change(session, row, "add" if before is None else "edit", before)


def _carried(session: Session, found: Open, key: str) -> dict[str, Any]:
    """The figures of an earlier card that still hold. ConflictError when they do not."""
    good = still_good(session, found.card, found.row, found.saw).get(key)
    if good is None:
        raise ConflictError("This step is no longer good from last time: do it again.")
    return {"left": good.left, "means": good.means, "note": good.words}


def _check_figures(step: SetupStep, given: StepInput) -> None:
    """Readings the step has, in the range of sense of their kind."""
    known = {r.key: r for r in step.readings}
    faults = []
    for name, figures in (("found", given.found), ("left", given.left)):
        for key, value in figures.items():
            path = f"{name}.{key}"
            if key not in known:
                accepted = ", ".join(known) or "none"
                faults.append(Fault(path, f"is no reading of this step; accepted: {accepted}"))
                continue
            within = READING_RANGES[known[key].kind]
            if not within.holds(value):
                words = f"{value:g} is out of range; accepted: {within.words()}"
                faults.append(Fault(path, words, value))
    if faults:
        raise InputError(faults)


def _check_frame(found: Open, key: str, given: StepInput) -> None:
    """A tension left over what the frame holds is not recorded as done: slacken first."""
    reach = found.best.evaluation.reachable_MPa
    known = found.job.saw.force_known
    left = given.left.get("stress_MPa")
    if key != "tension" or not given.done or left is None:
        return
    if known:
        check_frame(left, reach_MPa=reach)
    check_steel(left, high_MPa=found.card.tension.high_MPa)


def _move_saw(session: Session, found: Open, key: str, given: StepInput, at: datetime) -> None:
    """What a step changes on the saw itself: band, tension, speed."""
    row = found.row
    if key == "mount" and given.done:
        mount(session, row.saw_id, MountInput(band_id=row.band_id, who=given.who), at=at)
    if given.still_good:
        return
    saw = found.saw
    before = as_record(saw)
    if key == "speed":
        target = found.card.speed_m_s
        saw.speed_set_m_s = given.left.get("speed_m_s", target) if given.done else None
        log_change(session, saw, "speed", before)
    if key == "tension":
        target = found.card.tension.stress_MPa
        saw.tension_state = "on" if given.done else "slack"
        saw.tension_since = at
        saw.tension_stress_MPa = given.left.get("stress_MPa", target) if given.done else None
        log_change(session, saw, "tension", before)
