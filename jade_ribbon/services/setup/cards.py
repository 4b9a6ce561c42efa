"""Set up: the card of a job, ticked step by step, kept as a record."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated

from pydantic import PlainSerializer
from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.bands.break_in import BreakIn
from jade_ribbon.core.choosing.choose import Choice, Ranked, choose
from jade_ribbon.core.choosing.explanation.cautions import DISCLAIMER, Caution, cautions_for
from jade_ribbon.core.choosing.explanation.figures import Explained
from jade_ribbon.core.choosing.uncertainty.chances import at_feed
from jade_ribbon.core.edge.notes import defect_spoken_of
from jade_ribbon.core.job import Job
from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.quantities.words import Said, metric, sentence
from jade_ribbon.core.setup.card import SetupCard, left_out, setup_card
from jade_ribbon.core.setup.readiness import TensionState, not_ready, ready_words
from jade_ribbon.core.setup.reasons import explain_steps
from jade_ribbon.core.setup.saw_verdict import against_ready
from jade_ribbon.core.setup.tension.tension_reading import Means
from jade_ribbon.reference.care import holding
from jade_ribbon.services.clock import now
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.planning.answers import Option, option
from jade_ribbon.services.planning.jobs import job_with_band, set_state
from jade_ribbon.services.planning.snapshot import Snapshot
from jade_ribbon.services.rack.breaking_in import break_in_of
from jade_ribbon.services.records import as_record, get, log_change
from jade_ribbon.services.setup.inputs import AcknowledgeInput, FittingsInput, SetupStart
from jade_ribbon.services.setup.past_setups import (
    ComparedReading,
    LastTime,
    StillGood,
    last_time,
    left_then_and_now,
    steps_of,
    still_good,
)
from jade_ribbon.services.setup.roles import (
    calibrated,
    core_fittings,
    fittings_record,
    read_setting_up,
    remember_holding,
)
from jade_ribbon.services.setup.saw_facts import saw_facts
from jade_ribbon.services.shop.defects import OpenDefect, told_defects
from jade_ribbon.services.shop.settings import habits
from jade_ribbon.store.models import BandRow, JobRow, SawRow, SetupRow, SetupStepRow


@dataclass(frozen=True)
class StepState:
    """What was recorded at a step; figures by the step's readings, SI."""

    done: bool
    found: dict[str, float]
    left: dict[str, float]
    means: Means | None
    note: str
    skipped: str
    who: str
    authorised_by: str
    allowed_by: str
    allowed_why: str
    asks_defect: str
    """Damage its note speaks of, not recorded with the band."""
    check_again: str
    """The step that disturbed it since."""
    out: tuple[Said, ...]
    """What was left outside its limits."""
    still_good: bool
    at: datetime


def step_state(row: SetupStepRow, card: SetupCard, defects: tuple[str, ...]) -> StepState:
    """A step as kept, its readings held against the card's limits, its note against the band."""
    spoken = defect_spoken_of(row.note)
    share = card.tension.uncertainty.get(row.means or "", 0.0)
    step = next((s for s in card.steps if s.key == row.key), None)
    return StepState(
        done=row.done,
        found=row.found,
        left=row.left,
        means=row.means,
        note=row.note,
        skipped=row.skipped,
        who=row.who,
        authorised_by=row.authorised_by,
        allowed_by=row.allowed_by,
        allowed_why=row.allowed_why,
        asks_defect=spoken.replace("_", " ") if spoken not in defects else "",
        check_again=row.check_again if row.done else "",
        out=left_out(step, row.left, stress_share=share) if step and row.done else (),
        still_good=row.still_good,
        at=row.at,
    )


@dataclass(frozen=True)
class Acknowledged:
    """A stop acknowledged: by whom, with what."""

    key: str
    name: str
    at: str
    means: str = ""


@dataclass(frozen=True)
class StopMeans:
    """What answers a stop, and whether this shop has it."""

    stop: str
    key: str
    title: str
    owned: bool


@dataclass(frozen=True)
class SetupAnswer:
    """The card with what has been ticked, what was last time, and what is still good."""

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
    means: list[StopMeans]
    tension_state: TensionState
    ready: bool
    ready_words: Said
    last: LastTime | None
    compared: list[ComparedReading]
    still_good: dict[str, StillGood]
    reserved: list[str]
    authorised: list[str]
    instruments: dict[str, str]
    fittings: FittingsInput
    explained: Mapping[str, Explained]
    defects: list[OpenDefect]


def _choice_of(session: Session, job_row: JobRow, band_id: int) -> tuple[Job, Choice, Snapshot]:
    """The job with this one band as the only candidate."""
    if job_row.saw_id is None:
        raise ConflictError("Choose a saw in Plan first.")
    job, snapshot = job_with_band(session, job_row, get(session, "saw", job_row.saw_id), band_id)
    return job, choose(job), snapshot


def _option(best: Ranked, job: Job, snapshot: Snapshot) -> Option:
    """The card's band as Plan shows it, at its recommended feed."""
    assert best.lot is not None
    spread = at_feed(best.evaluation, best.lot, job, best.run.feed_m_min)
    return option(best, best, spread, job, snapshot)


@dataclass(frozen=True)
class Started:
    """The id of what was opened."""

    id: int


StartedId = Annotated[int, PlainSerializer(Started, return_type=Started)]


def start_setup(session: Session, given: SetupStart, *, at: datetime | None = None) -> StartedId:
    """Open a card for a job with a band, or go on with the one that is open."""
    job_row: JobRow = get(session, "job", given.job_id)
    band: BandRow = get(session, "band", given.band_id)
    if job_row.what_if:
        raise ConflictError("This job tries out other figures: reset them before setting up.")
    _, choice, _ = _choice_of(session, job_row, given.band_id)
    if choice.best is None:
        found = choice.excluded[0].conflicts[0].text if choice.excluded else f"it is {band.state}"
        cannot = sentence(f"Band {band.label} cannot do this: ", found)
        words = choice.stop.text if choice.stop else cannot
        raise InputError([Fault("band_id", words, given.band_id)])
    open_card = session.scalars(
        select(SetupRow).where(
            SetupRow.job_id == job_row.id,
            SetupRow.band_id == band.id,
            SetupRow.saw_id == job_row.saw_id,
            SetupRow.finished_at.is_(None),
            SetupRow.deleted_at.is_(None),
        )
    ).first()
    if open_card is not None:
        return open_card.id
    before = as_record(job_row)
    job_row.band_id = band.id
    log_change(session, job_row, "edit", before)
    best = choice.best
    row = SetupRow(
        job_id=job_row.id,
        saw_id=job_row.saw_id,
        band_id=band.id,
        started_at=at or now(),
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


@dataclass(frozen=True)
class Open:
    """A card with what it rests on."""

    row: SetupRow
    saw: SawRow
    band: BandRow
    job: Job
    best: Ranked
    snapshot: Snapshot
    card: SetupCard


def open_card(session: Session, setup_id: int) -> Open:
    """A card's figures, computed from the job, band and saw as they are."""
    row: SetupRow = get(session, "setup", setup_id)
    job_row: JobRow = get(session, "job", row.job_id)
    saw: SawRow = get(session, "saw", row.saw_id)
    band: BandRow = get(session, "band", row.band_id)
    job, choice, snapshot = _choice_of(session, job_row, row.band_id)
    best = choice.best
    if best is None:
        why = metric(choice.excluded[0].conflicts[0].text) if choice.excluded else "it is away"
        raise ConflictError(
            f"Band {band.label} can no longer do this job: {why}. Plan it again, with what changed."
        )
    card = setup_card(
        best,
        job,
        gauge_length_mm=snapshot.shop.gauge_length_mm,
        habits=habits(snapshot.shop),
        fittings=core_fittings(saw),
        calibrated=calibrated(session, saw),
        break_in=_break_in(session, band, job, best),
    )
    return Open(row, saw, band, job, best, snapshot, card)


def _break_in(session: Session, band: BandRow, job: Job, best: Ranked) -> BreakIn | None:
    window = best.evaluation.window
    floor = window.floor_m_min if window is not None else 0.0
    return break_in_of(session, band, job.cut, planned_m_min=best.run.feed_m_min, floor_m_min=floor)


def one_setup(session: Session, setup_id: int) -> SetupAnswer:
    """A card as it stands."""
    found = open_card(session, setup_id)
    row, saw, band = found.row, found.saw, found.band
    job_row: JobRow = get(session, "job", row.job_id)
    cautions = cautions_for(found.job, found.best)
    acknowledged = [Acknowledged(**a) for a in row.acknowledged]
    named = {a.key for a in acknowledged}
    stops = [c.key for c in cautions if c.level == "stop" and c.key not in named]
    kept = steps_of(session, row.id)
    of_band = tuple(band.defects)
    steps = {k: step_state(v, found.card, of_band) for k, v in kept.items()}
    words = _not_ready(session, found, steps, stops)
    settings = read_setting_up(session)
    last = last_time(session, row)
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
        card=found.card,
        option=_option(found.best, found.job, found.snapshot),
        cautions=cautions,
        disclaimer=DISCLAIMER,
        steps=steps,
        acknowledged=acknowledged,
        open_stops=stops,
        means=stop_means([c.key for c in cautions if c.level == "stop"], settings.holding),
        tension_state=saw.tension_state if saw.mounted_band_id == band.id else "slack",
        ready=not words,
        ready_words=words or ready_words(unmeasured(found.card, steps)),
        last=last,
        compared=left_then_and_now(found.card, kept, last),
        still_good=still_good(session, found.card, row, saw),
        reserved=settings.reserved,
        authorised=settings.authorised,
        instruments=settings.instruments,
        fittings=fittings_record(saw),
        explained=explain_steps(found.card, found.best, found.job),
        defects=told_defects(session, saw.id),
    )


def unmeasured(card: SetupCard, steps: Mapping[str, StepState]) -> list[str]:
    """Titles of steps that are done by eye: they have readings, and none was written down."""
    return [
        s.title
        for s in card.steps
        if s.readings and s.key in steps and steps[s.key].done and not steps[s.key].left
    ]


def _not_ready(
    session: Session, found: Open, steps: dict[str, StepState], stops: list[str]
) -> Said:
    """What still stands between this card and a ready saw; '' when nothing does."""
    return not_ready(
        open_stops=bool(stops),
        open_steps=[
            s.title
            for s in found.card.steps
            if s.key not in steps or not (steps[s.key].done or steps[s.key].skipped)
        ],
        asked=[s.asks_defect for s in steps.values() if s.asks_defect],
        to_check=[
            f"{s.title} (since {steps[s.key].check_again.lower()})"
            for s in found.card.steps
            if s.key in steps and steps[s.key].check_again
        ],
        out_of_limits=[
            words for s in steps.values() if s.out and not s.allowed_by for words in s.out
        ],
        band_on=found.saw.mounted_band_id == found.row.band_id,
        tension=found.saw.tension_state,
        against=against_ready(saw_facts(session, found.saw), with_set_up=False),
    )


def stop_means(stops: Sequence[str], owned: Sequence[str]) -> list[StopMeans]:
    """What answers each stop of a card."""
    return [
        StopMeans(stop, row.key, row.title, row.key in owned)
        for stop in stops
        for row in holding().values()
        if stop in row.stops
    ]


def acknowledge(session: Session, setup_id: int, given: AcknowledgeInput) -> SetupAnswer:
    """A stop acknowledged, written into the record.

    By name; by the means alone where somebody said before, by name, that this shop has it.
    """
    row: SetupRow = get(session, "setup", setup_id)
    answer = one_setup(session, setup_id)
    if given.key not in answer.open_stops:
        words = f"{given.key!r} is not an open stop of this card; accepted: "
        words += ", ".join(answer.open_stops) or "none is open"
        raise InputError([Fault("key", words, given.key)])
    able = {m.key: m for m in answer.means if m.stop == given.key}
    if given.means and given.means not in able:
        words = f"{given.means!r} does not answer this stop; accepted: "
        raise InputError([Fault("means", words + (", ".join(able) or "none"), given.means)])
    name = given.name.strip()
    if not name and not (given.means and able[given.means].owned):
        words = "is missing: the first time, somebody says by name that it was seen to"
        raise InputError([Fault("name", words, given.name)])
    before = as_record(row)
    entry = {"key": given.key, "name": name, "means": given.means, "at": now().isoformat()}
    row.acknowledged = [*row.acknowledged, entry]
    log_change(session, row, "acknowledge", before)
    if given.means:
        remember_holding(session, given.means)
    return one_setup(session, setup_id)


def finish_setup(session: Session, setup_id: int, *, at: datetime | None = None) -> SetupAnswer:
    """Close a complete card: the job is ready to run. ConflictError when it is not."""
    row: SetupRow = get(session, "setup", setup_id)
    answer = one_setup(session, setup_id)
    if not answer.ready:
        raise ConflictError(metric(answer.ready_words))
    before = as_record(row)
    row.finished_at = at or now()
    log_change(session, row, "finish", before)
    set_state(session, get(session, "job", row.job_id), "ready")
    return one_setup(session, setup_id)
