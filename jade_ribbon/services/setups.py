"""Set up: the card of a job, ticked step by step, kept as a record."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.cautions import DISCLAIMER, Caution, cautions_for
from jade_ribbon.core.choose import Choice, choose
from jade_ribbon.core.errors import Fault, InputError
from jade_ribbon.core.job import Job
from jade_ribbon.core.setup_card import SetupCard, setup_card
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.inputs import AcknowledgeInput, MountInput, SetupStart, StepInput
from jade_ribbon.services.jobs import plan_input, set_state
from jade_ribbon.services.plan_answers import Option, option
from jade_ribbon.services.records import get, log_change, now, snapshot
from jade_ribbon.services.saws import core_saw, mount
from jade_ribbon.services.shop import habits
from jade_ribbon.services.world import World, job_for, rack_candidates, read_world
from jade_ribbon.store.models import BandRow, JobRow, SawRow, SetupRow


@dataclass(frozen=True)
class StepState:
    """What was recorded at a step."""

    done: bool
    as_found: str
    as_left: str
    skipped: str
    who: str
    at: str


@dataclass(frozen=True)
class Acknowledged:
    """A stop acknowledged by name."""

    key: str
    name: str
    at: str


@dataclass(frozen=True)
class SetupAnswer:
    """The card with what has been ticked."""

    id: int
    job_id: int
    job_name: str
    saw_id: int
    saw_name: str
    band_id: int
    band_label: str
    started_at: datetime
    finished_at: datetime | None
    card: SetupCard
    option: Option
    cautions: tuple[Caution, ...]
    disclaimer: str
    steps: dict[str, StepState]
    acknowledged: list[Acknowledged]
    open_stops: list[str]
    tension_state: str
    ready: bool
    ready_words: str


def _choice_of(session: Session, job_row: JobRow, band_id: int) -> tuple[Job, Choice, World]:
    """The job with this one band as the only candidate."""
    if job_row.saw_id is None:
        raise ConflictError("Choose a saw in Plan first.")
    saw: SawRow = get(session, "saw", job_row.saw_id)
    given = plan_input(job_row, saw.id)
    world = read_world(session)
    bands = tuple(b for b in rack_candidates(world, saw.id, given) if b.band_id == band_id)
    job = job_for(world, core_saw(saw), given, bands)
    return job, choose(job), world


def start(session: Session, given: SetupStart) -> int:
    """Open a card for a job with a band, or go on with the one that is open."""
    job_row: JobRow = get(session, "job", given.job_id)
    band: BandRow = get(session, "band", given.band_id)
    if job_row.what_if:
        raise ConflictError("This job tries out other figures: reset them before setting up.")
    _, choice, _ = _choice_of(session, job_row, given.band_id)
    if choice.best is None:
        found = choice.excluded[0].conflicts[0].text if choice.excluded else f"it is {band.state}"
        words = choice.stop.text if choice.stop else f"Band {band.label} cannot do this: {found}"
        raise InputError([Fault("band_id", words, given.band_id)])
    open_card = session.scalars(
        select(SetupRow).where(
            SetupRow.job_id == job_row.id,
            SetupRow.band_id == band.id,
            SetupRow.saw_id == job_row.saw_id,
            SetupRow.finished_at.is_(None),
        )
    ).first()
    if open_card is not None:
        return open_card.id
    before = snapshot(job_row)
    job_row.band_id = band.id
    log_change(session, job_row, "edit", before)
    best = choice.best
    row = SetupRow(
        job_id=job_row.id,
        saw_id=job_row.saw_id,
        band_id=band.id,
        started_at=now(),
        steps={},
        acknowledged=[],
        figures={
            "stress_MPa": best.evaluation.stress_MPa,
            "speed_m_s": best.evaluation.speed.speed_m_s if best.evaluation.speed else 0.0,
            "feed_m_min": best.run.feed_m_min,
        },
    )
    session.add(row)
    log_change(session, row, "add", None)
    return row.id


def one_setup(session: Session, setup_id: int) -> SetupAnswer:
    """A card as it stands. Its figures are computed from the job, band and saw as they are."""
    row: SetupRow = get(session, "setup", setup_id)
    job_row: JobRow = get(session, "job", row.job_id)
    saw: SawRow = get(session, "saw", row.saw_id)
    band: BandRow = get(session, "band", row.band_id)
    job, choice, world = _choice_of(session, job_row, row.band_id)
    best = choice.best
    if best is None:
        raise ConflictError(
            f"Band {band.label} can no longer do this job: plan it again, with what has changed."
        )
    card = setup_card(
        best, job, gauge_length_mm=world.shop.gauge_length_mm, habits=habits(world.shop)
    )
    cautions = cautions_for(job, best)
    acknowledged = [Acknowledged(**a) for a in row.acknowledged]
    named = {a.key for a in acknowledged}
    stops = [c.key for c in cautions if c.level == "stop" and c.key not in named]
    steps = {k: StepState(**v) for k, v in row.steps.items()}
    words = _not_ready(card, steps, stops, saw, row)
    return SetupAnswer(
        id=row.id,
        job_id=job_row.id,
        job_name=job_row.name or f"Job {job_row.id}",
        saw_id=saw.id,
        saw_name=saw.name,
        band_id=band.id,
        band_label=band.label,
        started_at=row.started_at,
        finished_at=row.finished_at,
        card=card,
        option=option(best, best, job, world),
        cautions=cautions,
        disclaimer=DISCLAIMER,
        steps=steps,
        acknowledged=acknowledged,
        open_stops=stops,
        tension_state=saw.tension_state if saw.mounted_band_id == band.id else "slack",
        ready=not words,
        ready_words=words or "Every step is done: the saw is ready.",
    )


def _not_ready(
    card: SetupCard, steps: dict[str, StepState], stops: list[str], saw: SawRow, row: SetupRow
) -> str:
    """What still stands between this card and a ready saw; '' when nothing does."""
    if stops:
        return "A stop must be acknowledged by name first."
    open_steps = [
        s.title
        for s in card.steps
        if s.key not in steps or not (steps[s.key].done or steps[s.key].skipped)
    ]
    if open_steps:
        return f"Still to do: {', '.join(open_steps)}."
    if saw.mounted_band_id != row.band_id:
        return "Another band is recorded on this saw: tick Mount again."
    if saw.tension_state != "on":
        return "The saw is recorded as slack: tick Tension again."
    return ""


def _needs(key: str, steps: dict[str, Any], doors_open: bool) -> None:
    """Isolation before any step with doors open."""
    isolated = steps.get("isolate", {})
    if doors_open and not isolated.get("done"):
        raise ConflictError("Isolate the saw first: this step has the doors open.")
    if key == "tension" and not steps.get("mount", {}).get("done"):
        raise ConflictError("Mount the band first.")


def record_step(session: Session, setup_id: int, key: str, given: StepInput) -> SetupAnswer:
    """Tick, untick or skip a step; mounting and tensioning move the saw's state too."""
    row: SetupRow = get(session, "setup", setup_id)
    answer = one_setup(session, setup_id)
    step = next((s for s in answer.card.steps if s.key == key), None)
    if step is None:
        known = ", ".join(s.key for s in answer.card.steps)
        raise InputError([Fault("key", f"{key!r} is not a step; accepted: {known}", key)])
    if given.skipped and key == "isolate":
        raise ConflictError("Isolating cannot be skipped.")
    if given.done:
        _needs(key, row.steps, step.doors_open)
    before = snapshot(row)
    row.steps = row.steps | {
        key: {
            "done": given.done,
            "as_found": given.as_found,
            "as_left": given.as_left,
            "skipped": given.skipped,
            "who": given.who,
            "at": now().isoformat(),
        }
    }
    _move_saw(session, row, key, given, answer.card.tension.stress_MPa)
    log_change(session, row, key, before)
    return one_setup(session, setup_id)


def _move_saw(
    session: Session, row: SetupRow, key: str, given: StepInput, stress_MPa: float
) -> None:
    if key == "mount" and given.done:
        mount(session, row.saw_id, MountInput(band_id=row.band_id, who=given.who))
    if key != "tension":
        return
    saw: SawRow = get(session, "saw", row.saw_id)
    before = snapshot(saw)
    saw.tension_state = "on" if given.done else "slack"
    saw.tension_since = now()
    saw.tension_stress_MPa = _read_stress(given.as_left, stress_MPa) if given.done else None
    log_change(session, saw, "tension", before)


def _read_stress(as_left: str, target: float) -> float:
    """The stress noted as left, or the target when nothing readable was noted."""
    try:
        value = float(as_left.replace(",", ".").split()[0])
    except (ValueError, IndexError):
        return target
    if not 1.0 <= value <= 600.0:
        raise InputError(
            [Fault("as_left", f"{value:g} MPa is out of range; accepted: 1 to 600 MPa", as_left)]
        )
    return value


def acknowledge(session: Session, setup_id: int, given: AcknowledgeInput) -> SetupAnswer:
    """A stop acknowledged by name, written into the record."""
    row: SetupRow = get(session, "setup", setup_id)
    answer = one_setup(session, setup_id)
    if given.key not in answer.open_stops:
        raise InputError(
            [
                Fault(
                    "key",
                    f"{given.key!r} is not an open stop of this card; accepted: "
                    f"{', '.join(answer.open_stops) or 'none is open'}",
                    given.key,
                )
            ]
        )
    before = snapshot(row)
    entry = {"key": given.key, "name": given.name, "at": now().isoformat()}
    row.acknowledged = [*row.acknowledged, entry]
    log_change(session, row, "acknowledge", before)
    return one_setup(session, setup_id)


def finish(session: Session, setup_id: int) -> SetupAnswer:
    """Close a complete card: the job is ready to run. ConflictError when it is not."""
    row: SetupRow = get(session, "setup", setup_id)
    answer = one_setup(session, setup_id)
    if not answer.ready:
        raise ConflictError(answer.ready_words)
    before = snapshot(row)
    row.finished_at = now()
    log_change(session, row, "finish", before)
    set_state(session, get(session, "job", row.job_id), "ready")
    return one_setup(session, setup_id)
