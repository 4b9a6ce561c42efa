"""Run: log what was cut, see the band's wear move."""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any, cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.bands.facts import band_facts
from jade_ribbon.core.bands.speed_choice import choose_speed
from jade_ribbon.core.choosing.conflicts import barring, damage_words
from jade_ribbon.core.edge.run_pace import feed_and_time
from jade_ribbon.core.edge.run_time import run_time
from jade_ribbon.core.job import Candidate, Finish, Job
from jade_ribbon.core.money.lot_stand import LotUnderWay
from jade_ribbon.core.quantities.chances import chance_percent
from jade_ribbon.core.quantities.words import Said, metric
from jade_ribbon.core.setup.kinds_of_saw import preflight_for
from jade_ribbon.core.setup.readiness import when_done
from jade_ribbon.reference.tables import PreflightRow
from jade_ribbon.services.clock import now
from jade_ribbon.services.errors import ConflictError, KnownError
from jade_ribbon.services.planning.jobs import cut_file, rules_file, set_state
from jade_ribbon.services.rack.bands import BandAnswer, one_band
from jade_ribbon.services.rack.breaking_in import cut_when_new
from jade_ribbon.services.rack.edges import candidate, chance, dullness_of, shop_lives
from jade_ribbon.services.rack.replay import asked_words
from jade_ribbon.services.records import ChangeId, as_record, get, log_change
from jade_ribbon.services.running.at_the_saw import AtTheSaw, at_the_saw
from jade_ribbon.services.running.inputs import RunInput
from jade_ribbon.services.running.lots import lot_under_way
from jade_ribbon.services.running.watts import pressure_of
from jade_ribbon.services.running.worn import wear_in
from jade_ribbon.services.setup.verdicts import verdict_of
from jade_ribbon.services.shop.materials import material_table
from jade_ribbon.services.shop.saws import core_saw
from jade_ribbon.services.shop.settings import read_shop, rules_for
from jade_ribbon.store.models import BandRow, JobRow, RunRow, SawRow, SetupRow


@dataclass(frozen=True)
class RunAnswer:
    """A logged run, what it did to the band, and the odds of the next such job."""

    id: int
    at: datetime
    pieces: int
    length_mm: float
    feed_m_min: float
    time_s: float
    minutes_per_m2: float
    contact_m: float
    equivalent_m: float
    dullness_before: float
    band: BandAnswer
    lasts_next: float
    next_words: str
    to_confirm: Said
    without_card: str
    not_tapped: str
    """What nobody tapped before the start; empty where all was."""


@dataclass(frozen=True)
class Waiting:
    """A run of this job that was asked about and not confirmed yet."""

    id: int
    at: datetime
    words: Said


@dataclass(frozen=True)
class RunCard:
    """What Run opens with for a job: may it run, and what stands in the way."""

    job_id: int
    saw_id: int | None
    band_id: int | None
    open: bool
    words: Said
    when_done: str
    waiting: list[Waiting]
    lot: LotUnderWay | None
    at_the_saw: AtTheSaw | None
    preflight: list[PreflightRow]
    """What is tapped before this saw starts."""


def _run_job(session: Session, job: JobRow, saw: SawRow, given: RunInput) -> Job:
    """The core's job of a run: its own length and pieces."""
    cut = cut_file(job).model_copy(update={"length_mm": given.length_mm, "count": given.pieces})
    return Job(
        saw=core_saw(saw),
        cut=cut.to_core(material_table(session)),
        rules=rules_file(session, job).to_core(),
        rates=read_shop(session).rates,
    )


def _as_told(given: RunInput) -> dict[str, Any]:
    """What was tapped and read at the saw, as it is kept with a run."""
    watts = given.watts()
    return {
        "pieces": given.pieces,
        "symptoms": list(given.symptoms),
        "note": given.note,
        "who": given.who,
        "power_W": watts[0] if watts else None,
        "idle_W": watts[1] if watts else None,
        "amps_A": given.amps_A,
        "preflight": list(given.preflight),
        "chips": given.chips or "",
        "stops": [mark.model_dump() for mark in given.stops],
        "strikes": given.strikes,
        "teeth_lost": given.teeth_lost,
    }


CALLED: Mapping[str, str] = {
    "pieces": "pieces",
    "length_mm": "length",
    "time_s": "minutes",
    "feed_m_min": "feed",
    "symptoms": "signs",
    "note": "note",
    "who": "who",
    "band_id": "band",
    "saw_id": "saw",
    "job_id": "job",
    "chips": "chips",
    "stops": "stop marks",
    "strikes": "strikes",
    "teeth_lost": "teeth lost",
    "power_W": "watts",
    "amps_A": "amps",
}
"""What a person calls the parts of a run."""


def _check_same(known: RunRow, given: RunInput) -> None:
    """KnownError where a run of this key was logged with other figures: they are not dropped."""
    feed, time = feed_and_time(
        length_m=given.length_mm * given.pieces / 1000.0,
        feed_m_min=given.feed_m_min,
        time_s=given.time_s,
    )
    told = _as_told(given) | {
        "job_id": given.job_id,
        "saw_id": given.saw_id,
        "band_id": given.band_id,
        "length_mm": given.length_mm,
        "feed_m_min": feed,
        "time_s": time,
    }
    other = [name for name, value in told.items() if not _alike(getattr(known, name), value)]
    if other:
        told_other = ", ".join(dict.fromkeys(CALLED.get(n, "the rest") for n in other))
        words = f"This run is logged already. What was sent now differs in: {told_other}."
        kept = ("id", "pieces", "length_mm", "feed_m_min", "time_s")
        current = {n: getattr(known, n) for n in kept} | {"at": known.at.isoformat()}
        raise KnownError(words, current)


def _alike(kept: Any, sent: Any) -> bool:
    """Whether a value is the one kept; figures to what a file's number holds."""
    if isinstance(kept, float) and isinstance(sent, float):
        return math.isclose(kept, sent, rel_tol=1e-12)
    return bool(kept == sent)


def _usual_speed(band: Candidate, job: Job) -> float:
    """The band speed (m/s) that a job would be set to."""
    choice = choose_speed(band_facts(band, job), job)
    return choice.speed_m_s if choice else job.saw.drive.slowest_m_s


def log_run(session: Session, given: RunInput, *, at: datetime | None = None) -> RunAnswer:
    """Log a run once (a resent `client_key` returns the first), and replay its band."""
    known = session.scalars(select(RunRow).where(RunRow.client_key == given.client_key)).first()
    if known is not None:
        _check_same(known, given)
        return _answer(session, known, None)
    if given.replaces is not None:
        delete_run(session, given.replaces)
    job_row: JobRow = get(session, "job", given.job_id)
    saw: SawRow = get(session, "saw", given.saw_id)
    band: BandRow = get(session, "band", given.band_id)
    if band.state == "scrapped":
        raise ConflictError(f"Band {band.label} is scrapped; it cannot have cut.")
    feed, time = feed_and_time(
        length_m=given.length_mm * given.pieces / 1000.0,
        feed_m_min=given.feed_m_min,
        time_s=given.time_s,
    )
    job = _run_job(session, job_row, saw, given)
    lives = shop_lives(session)
    cand = candidate(band, lives, saw.id, saw.id)
    speed = given.speed_m_s or _usual_speed(cand, job)
    timed = run_time(
        now=now(), device_at=given.at, waited_s=given.waited_s, band_came=band.arrived_at
    )
    row = RunRow(
        client_key=given.client_key,
        job_id=job_row.id,
        saw_id=saw.id,
        band_id=band.id,
        at=at or timed.at,
        device_at=given.at,
        time_doubt="" if at else timed.doubt,
        operation=job_row.operation,
        material=job_row.material,
        height_mm=job_row.height_mm,
        length_mm=given.length_mm,
        feed_m_min=feed,
        time_s=time,
        speed_m_s=speed,
        finish=job_row.finish,
        without_card=metric(_not_open(session, job_row, band.id)),
        **_as_told(given),
        k_ref_MPa=pressure_of(given, cand, job, feed_m_min=feed, speed_m_s=speed),
    )
    wear_in(
        row,
        cand,
        job,
        planned_length_mm=job_row.length_mm,
        confirmed=given.confirmed,
        cut_when_new=cut_when_new(session, band),
    )
    before = lives.of(band.steel, band.sharpenings)
    dull_before = dullness_of(band, before)
    session.add(row)
    log_change(session, row, "add", None)
    set_state(session, job_row, "running")
    return _answer(session, row, dull_before)


def _answer(session: Session, row: RunRow, dull_before: float | None) -> RunAnswer:
    band: BandAnswer = one_band(session, row.band_id)
    band_row: BandRow = get(session, "band", row.band_id)
    known = read_shop(session)
    job: JobRow | None = None if row.job_id is None else get(session, "job", row.job_id)
    rules = rules_for(known, job.rules if job else {})
    limit = known.rates.dullness_limit(cast(Finish, row.finish), rules)
    lasts = chance(band_row, shop_lives(session), row.equivalent_m, limit=limit)
    before = dull_before
    if before is None:
        before = max(0.0, band.dullness - row.equivalent_m / band.life_m)
    area = row.height_mm * row.length_mm * row.pieces * 1e-6
    taps = preflight_for(core_saw(get(session, "saw", row.saw_id)))
    return RunAnswer(
        id=row.id,
        at=row.at,
        pieces=row.pieces,
        length_mm=row.length_mm,
        feed_m_min=row.feed_m_min,
        time_s=row.time_s,
        minutes_per_m2=row.time_s / 60.0 / area,
        contact_m=row.contact_m,
        equivalent_m=row.equivalent_m,
        dullness_before=before,
        band=band,
        lasts_next=lasts,
        next_words=f"{band.label} also lasts the next such job: {chance_percent(lasts)}.",
        to_confirm=asked_words(session, row),
        without_card=row.without_card,
        not_tapped=", ".join(c.name for c in taps if c.key not in row.preflight),
    )


def confirm_run(session: Session, run_id: int) -> RunAnswer:
    """Believe a run that was asked about: its wear counts from now on."""
    row: RunRow = get(session, "run", run_id)
    before = as_record(row)
    row.to_confirm = False
    log_change(session, row, "edit", before)
    return _answer(session, row, None)


def delete_run(session: Session, run_id: int) -> ChangeId:
    """Take a run back; the id of the change, for undo."""
    row = get(session, "run", run_id)
    before = as_record(row)
    row.deleted_at = now()
    return log_change(session, row, "delete", before).id


def run_card(session: Session, job_id: int) -> RunCard:
    """May a job run: a finished card for its saw and band, the band on and under tension."""
    job: JobRow = get(session, "job", job_id)
    words = _not_open(session, job, job.band_id)
    done = when_done(read_shop(session).rules["idle_tension"])
    asked = session.scalars(
        select(RunRow).where(
            RunRow.job_id == job_id, RunRow.to_confirm, RunRow.deleted_at.is_(None)
        )
    )
    waiting = [Waiting(row.id, row.at, asked_words(session, row)) for row in asked]
    lot = lot_under_way(session, job)
    return RunCard(
        job.id,
        job.saw_id,
        job.band_id,
        not words,
        words,
        done,
        waiting,
        lot,
        at_the_saw(session, job),
        _taps(session, job),
    )


def _taps(session: Session, job: JobRow) -> list[PreflightRow]:
    saw: SawRow | None = None if job.saw_id is None else session.get(SawRow, job.saw_id)
    return [] if saw is None else list(preflight_for(core_saw(saw)))


def _not_open(session: Session, job: JobRow, band_id: int | None) -> Said:
    """Why a job is not ready to run with a band; '' when it is."""
    if job.saw_id is None or job.band_id is None:
        return "Plan it first: no saw and band are chosen."
    band: BandRow = get(session, "band", band_id or job.band_id)
    allowed = read_shop(session).rates.teeth_missing_allowed
    if damage := damage_words(barring(band.defects, teeth_lost=band.teeth_lost, allowed=allowed)):
        return f"{band.label}: {damage}."
    done = session.scalars(
        select(SetupRow).where(
            SetupRow.job_id == job.id,
            SetupRow.saw_id == job.saw_id,
            SetupRow.band_id == band_id,
            SetupRow.finished_at.is_not(None),
            SetupRow.deleted_at.is_(None),
        )
    ).first()
    if done is None:
        return "The set-up card is not finished."
    saw: SawRow = get(session, "saw", job.saw_id)
    if saw.mounted_band_id != band_id:
        return f"{saw.name} has another band on it now: set up again."
    found = verdict_of(session, saw.id).against
    return found[0] if found else ""
