"""The saw as it stands: what is on it, how set, what is wrong, and what it can do as it is."""

import dataclasses
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy.orm import Session

from jade_ribbon.core.choosing.choose import Choice, Ranked, choose
from jade_ribbon.core.job import Drive, Job
from jade_ribbon.core.quantities.words import figure
from jade_ribbon.services.planning.answers import prevented
from jade_ribbon.services.planning.jobs import plan_input
from jade_ribbon.services.planning.snapshot import World, job_for, rack_candidates, read_world
from jade_ribbon.services.records import get, log_change, now, snapshot
from jade_ribbon.services.setup.guide_life import GuideLife, guide_lives
from jade_ribbon.services.setup.inputs import BenchInput, CloseInput, DefectInput
from jade_ribbon.services.setup.kept import KeptSetup, kept_setups, open_defects
from jade_ribbon.services.setup.roles import bench_record
from jade_ribbon.services.shop.saws import SawAnswer, core_saw, one_saw
from jade_ribbon.store.models import DefectRow, JobRow, SawRow

RESET_MIN = 6.0
"""Minutes to change a speed or reset the guard, without changing the band."""


@dataclass(frozen=True)
class Defect:
    """Something wrong with a saw."""

    id: int
    text: str
    stops: bool
    at: datetime
    who: str


@dataclass(frozen=True)
class Way:
    """One way to do the next job: with what is on, or changed."""

    band_label: str
    able: bool
    words: str
    minutes: float
    change_minutes: float
    money: float
    finish: str
    edge_after: float | None


@dataclass(frozen=True)
class NextJob:
    """Can it do the next job as it is, and what would changing gain."""

    job_id: int
    job_name: str
    as_it_is: Way
    changed: Way | None
    words: str


@dataclass(frozen=True)
class Stand:
    """A saw as it stands."""

    saw: SawAnswer
    speed_set_m_s: float | None
    last: KeptSetup | None
    setups: list[KeptSetup]
    guides: list[GuideLife]
    defects: list[Defect]
    ready: bool
    ready_words: str
    bench: BenchInput
    next_job: NextJob | None


def _ready(row: SawRow, defects: list[Defect]) -> str:
    """Why the saw cannot be shown as ready; '' when it can."""
    if row.mounted_band_id is None:
        return "No band is on it."
    if row.tension_state != "on":
        state = "slack" if row.tension_state == "slack" else "not known to be under tension"
        return f"It is {state}: tension it before it is started."
    stopping = [d.text for d in defects if d.stops]
    return f"A defect stops it: {stopping[0]}" if stopping else ""


def _minutes(ranked: Ranked, job: Job) -> float:
    return ranked.run.contact.cutting_time_s * job.cut.count / 60.0


def _money(ranked: Ranked, job: Job, change_min: float) -> float:
    """Money for the whole job: pieces without their share of change, and the change itself."""
    piece = ranked.run.cost.total - ranked.run.cost.change
    return piece * job.cut.count + change_min / 60.0 * job.rates.hour


def _way(ranked: Ranked, job: Job, change_min: float, words: str) -> Way:
    facts = ranked.evaluation.facts
    used = ranked.run.equivalent_m * job.cut.count / facts.life_m
    return Way(
        band_label=facts.band.label,
        able=True,
        words=words,
        minutes=_minutes(ranked, job) + change_min,
        change_minutes=change_min,
        money=_money(ranked, job, change_min),
        finish=ranked.run.delivered,
        edge_after=facts.band.dullness + used,
    )


def _cannot(label: str, words: str) -> Way:
    return Way(label, False, words, 0.0, 0.0, 0.0, "", None)


def _speed_held(job: Job, speed: float | None) -> Job:
    """The job on the saw's speed as set, where it is known."""
    if speed is None:
        return job
    drive = Drive("fixed", speeds_m_s=(speed,))
    return dataclasses.replace(job, saw=dataclasses.replace(job.saw, drive=drive))


def _as_it_is(row: SawRow, job: Job, label: str) -> Way:
    """With the band that is on, at the tension and speed it was left at."""
    on = tuple(b for b in job.bands if b.mounted)
    if not on:
        return _cannot(label or "nothing", "No band is on it.")
    held = dataclasses.replace(
        _speed_held(job, row.speed_set_m_s), bands=on, stress_MPa=row.tension_stress_MPa
    )
    choice: Choice = choose(held)
    if choice.best is None:
        words = choice.stop.text if choice.stop else prevented(choice)
        return _cannot(on[0].label, words)
    return _way(choice.best, held, 0.0, choice.best.class_words)


def _gain(now_: Way, then: Way, currency: str) -> str:
    """What changing gains or costs, in a sentence."""
    if then.band_label == now_.band_label:
        return "It can, as it is: nothing on the rack does it better."
    minutes, money = now_.minutes - then.minutes, now_.money - then.money
    more = "saves" if money > 0 else "costs"
    quicker = "quicker" if minutes > 0 else "longer"
    face = "" if then.finish == now_.finish else f", and a {then.finish} face"
    verdict = "Change" if money > 0 else "Leave it"
    return (
        f"{verdict}: {then.band_label} {more} {currency} {figure(abs(money), 2)} over the job, "
        f"{figure(abs(minutes), 2)} min {quicker} with the change{face}."
    )


def next_job(session: Session, row: SawRow, job_row: JobRow, world: World) -> NextJob:
    """What this saw would do with a job as it stands, against changing the band."""
    given = plan_input(job_row, row.id)
    job = job_for(world, core_saw(row), given, rack_candidates(world, row.id, given))
    label = next((b.label for b in job.bands if b.mounted), "")
    as_it_is = _as_it_is(row, job, label)
    best = choose(job).best
    changed = None
    if best is not None:
        same = best.evaluation.facts.band.mounted
        change = RESET_MIN if same else job.rates.change_min
        changed = _way(best, job, change, best.class_words)
        if same and as_it_is.able and changed.money >= as_it_is.money:
            changed = None
    name = job_row.name or f"Job {job_row.id}"
    if not as_it_is.able:
        words = f"Not as it is: {as_it_is.words}"
        if changed is not None:
            words += f" {changed.band_label} can, after {changed.change_minutes:.0f} min of change."
        return NextJob(job_row.id, name, as_it_is, changed, words)
    if changed is None:
        words = "It can, as it is: nothing on the rack does it better."
        return NextJob(job_row.id, name, as_it_is, None, words)
    words = _gain(as_it_is, changed, world.shop.currency)
    return NextJob(job_row.id, name, as_it_is, changed, words)


def _defects(session: Session, saw_id: int) -> list[Defect]:
    return [Defect(d.id, d.text, d.stops, d.at, d.who) for d in open_defects(session, saw_id)]


def stand(session: Session, saw_id: int, job_id: int | None) -> Stand:
    """A saw as it stands, and the job asked about."""
    row: SawRow = get(session, "saw", saw_id)
    kept = kept_setups(session, saw_id=saw_id)
    defects = _defects(session, saw_id)
    asked = None
    if job_id is not None:
        asked = next_job(session, row, get(session, "job", job_id), read_world(session))
    why = _ready(row, defects)
    return Stand(
        saw=one_saw(session, saw_id),
        speed_set_m_s=row.speed_set_m_s,
        last=next((s for s in kept if s.finished_at is not None), None),
        setups=kept,
        guides=guide_lives(session, row),
        defects=defects,
        ready=not why,
        ready_words=why or "Under tension, nothing known against it.",
        bench=bench_record(row),
        next_job=asked,
    )


def add_defect(session: Session, saw_id: int, given: DefectInput) -> Defect:
    """Note something wrong with a saw."""
    get(session, "saw", saw_id)
    row = DefectRow(saw_id=saw_id, at=now(), **given.model_dump())
    session.add(row)
    log_change(session, row, "add", None)
    return Defect(row.id, row.text, row.stops, row.at, row.who)


def close_defect(session: Session, defect_id: int, given: CloseInput) -> int:
    """Close a defect by name; the id of the change, for undo."""
    row: DefectRow = get(session, "defect", defect_id)
    before = snapshot(row)
    row.closed_at, row.closed_by = now(), given.who
    return log_change(session, row, "close", before).id
