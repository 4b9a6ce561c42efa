"""Set-ups kept: what was last time, how this one differs, what of it is still good."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from jade_ribbon.core.quantities.words import figure
from jade_ribbon.core.setup.card import SetupCard
from jade_ribbon.core.setup.readiness import Since, still_holds
from jade_ribbon.core.setup.tension.tension_reading import Means
from jade_ribbon.reference.quantities import Kind
from jade_ribbon.services.clock import now
from jade_ribbon.services.setup.roles import core_fittings
from jade_ribbon.store.models import (
    BandEventRow,
    BandRow,
    JobRow,
    SawRow,
    SetupRow,
    SetupStepRow,
)

SHOWN = 12


@dataclass(frozen=True)
class LastTime:
    """The last finished set-up of the same saw and band: figures as left, by step."""

    setup_id: int
    at: datetime
    left: dict[str, dict[str, float]]
    notes: dict[str, str]
    means: Means | None


@dataclass(frozen=True)
class ComparedReading:
    """One reading now against last time."""

    step: str
    reading: str
    label: str
    kind: Kind
    last: float
    now: float
    difference: float


@dataclass(frozen=True)
class StillGood:
    """A step of an earlier card that still holds: since when, for how long, and why."""

    setup_id: int
    at: datetime
    hours_left: float
    left: dict[str, float]
    means: Means | None
    who: str
    words: str


@dataclass(frozen=True)
class KeptSetup:
    """A set-up as listed on the pages of its saw and band."""

    id: int
    saw_id: int
    saw_name: str
    band_id: int
    band_label: str
    job_name: str
    started_at: datetime
    finished_at: datetime | None
    stress_MPa: float | None
    means: Means | None
    skipped: list[str]
    allowed: list[str]
    """Steps left out of their limits: who let them stay, and why."""
    who: list[str]


def last_time(session: Session, row: SetupRow) -> LastTime | None:
    """The last finished set-up of the same saw and band before this one."""
    before = session.scalars(
        select(SetupRow)
        .where(
            SetupRow.saw_id == row.saw_id,
            SetupRow.band_id == row.band_id,
            SetupRow.id != row.id,
            SetupRow.started_at <= row.started_at,
            SetupRow.finished_at.is_not(None),
            SetupRow.deleted_at.is_(None),
        )
        .order_by(SetupRow.id.desc())
    ).first()
    if before is None:
        return None
    steps = steps_of(session, before.id)
    left = {k: s.left for k, s in steps.items() if s.left}
    notes = {k: s.note for k, s in steps.items() if s.note}
    tension = steps.get("tension")
    at = before.finished_at or before.started_at
    return LastTime(before.id, at, left, notes, tension.means if tension else None)


def left_then_and_now(
    card: SetupCard, steps: Mapping[str, SetupStepRow], last: LastTime | None
) -> list[ComparedReading]:
    """Every reading left now that was left last time too."""
    if last is None:
        return []
    found = []
    for step in card.steps:
        left = steps[step.key].left if step.key in steps else {}
        before = last.left.get(step.key, {})
        for r in step.readings:
            if r.key in left and r.key in before:
                now_, then = left[r.key], before[r.key]
                found.append(
                    ComparedReading(step.key, r.key, r.label, r.kind, then, now_, now_ - then)
                )
    return found


def _gone_since(session: Session, row: SetupRow, since: datetime) -> bool:
    """Whether the band was taken off after a time."""
    query = select(BandEventRow.id).where(
        BandEventRow.band_id == row.band_id,
        BandEventRow.kind == "dismounted",
        BandEventRow.at > since,
        BandEventRow.deleted_at.is_(None),
    )
    return session.scalars(query).first() is not None


def since_step(session: Session, row: SetupRow, saw: SawRow, at: datetime) -> Since:
    """What became of saw and band since a time."""
    return Since(
        same_band_on=saw.mounted_band_id == row.band_id,
        taken_off=_gone_since(session, row, at),
        slackened=saw.tension_since is not None and saw.tension_since > at,
        tension=saw.tension_state,
    )


def _last_done(session: Session, row: SetupRow, *, with_band: bool) -> dict[str, SetupStepRow]:
    """By step, the last time another card of this saw did it; of this band only where asked."""
    newest = (
        select(SetupStepRow.key, func.max(SetupStepRow.setup_id).label("setup_id"))
        .join(SetupRow, SetupStepRow.setup_id == SetupRow.id)
        .where(
            SetupRow.saw_id == row.saw_id,
            SetupRow.id != row.id,
            SetupRow.deleted_at.is_(None),
            SetupStepRow.done.is_(True),
            SetupStepRow.deleted_at.is_(None),
        )
        .group_by(SetupStepRow.key)
    )
    if with_band:
        newest = newest.where(SetupRow.band_id == row.band_id)
    last = newest.subquery()
    query = select(SetupStepRow).join(
        last, (SetupStepRow.key == last.c.key) & (SetupStepRow.setup_id == last.c.setup_id)
    )
    return {step.key: step for step in session.scalars(query)}


def still_good(
    session: Session, card: SetupCard, row: SetupRow, saw: SawRow
) -> dict[str, StillGood]:
    """Steps of the saw's last cards that need not be done again, each until it expires."""
    by_saw = _last_done(session, row, with_band=False)
    by_band = _last_done(session, row, with_band=True)
    hours = core_fittings(saw).good_for_h
    found: dict[str, StillGood] = {}
    for step in card.steps:
        record = (by_band if step.holds == "band" else by_saw).get(step.key)
        if record is None:
            continue
        left = timedelta(hours=hours.get(step.key, step.good_for_h)) - (now() - record.at)
        since = since_step(session, row, saw, record.at)
        if left > timedelta(0) and still_holds(step.key, step.holds, since):
            found[step.key] = _good(record, left)
    return found


def _good(record: SetupStepRow, left: timedelta) -> StillGood:
    hours = left / timedelta(hours=1)
    by = f" by {record.who}" if record.who else ""
    more = f"{figure(hours, 2)} h" if hours < 48 else f"{figure(hours / 24, 2)} days"
    words = f"Done {record.at:%Y-%m-%d %H:%M} UTC{by}; good for {more} more."
    return StillGood(
        setup_id=record.setup_id,
        at=record.at,
        hours_left=hours,
        left=record.left,
        means=record.means,
        who=record.who,
        words=words,
    )


def steps_of(session: Session, setup_id: int) -> dict[str, SetupStepRow]:
    """What was recorded on a card, by step."""
    return steps_of_all(session, [setup_id]).get(setup_id, {})


def steps_of_all(session: Session, setup_ids: Sequence[int]) -> dict[int, dict[str, SetupStepRow]]:
    """The same for several cards; one statement."""
    query = (
        select(SetupStepRow)
        .where(SetupStepRow.setup_id.in_(setup_ids), SetupStepRow.deleted_at.is_(None))
        .order_by(SetupStepRow.id)
    )
    found: dict[int, dict[str, SetupStepRow]] = {}
    for step in session.scalars(query):
        found.setdefault(step.setup_id, {})[step.key] = step
    return found


def kept_setups(
    session: Session, *, saw_id: int | None = None, band_id: int | None = None
) -> list[KeptSetup]:
    """The latest set-ups of a saw or a band, newest first; two statements."""
    query = (
        select(SetupRow, SawRow.name, BandRow.label, JobRow.name, JobRow.id)
        .join(SawRow, SetupRow.saw_id == SawRow.id)
        .join(BandRow, SetupRow.band_id == BandRow.id)
        .join(JobRow, SetupRow.job_id == JobRow.id)
        .where(SetupRow.deleted_at.is_(None))
        .order_by(SetupRow.id.desc())
        .limit(SHOWN)
    )
    if saw_id is not None:
        query = query.where(SetupRow.saw_id == saw_id)
    if band_id is not None:
        query = query.where(SetupRow.band_id == band_id)
    rows = session.execute(query).all()
    steps = steps_of_all(session, [row.id for row, *_ in rows])
    return [
        _kept(row, saw, band, job or f"Job {job_id}", steps.get(row.id, {}))
        for row, saw, band, job, job_id in rows
    ]


def _kept(
    row: SetupRow, saw: str, band: str, job: str, steps: Mapping[str, SetupStepRow]
) -> KeptSetup:
    tension = steps.get("tension")
    left = tension.left if tension else {}
    stress = left.get("stress_MPa", row.figures.get("stress_MPa"))
    return KeptSetup(
        id=row.id,
        saw_id=row.saw_id,
        saw_name=saw,
        band_id=row.band_id,
        band_label=band,
        job_name=job,
        started_at=row.started_at,
        finished_at=row.finished_at,
        stress_MPa=stress if tension is not None and tension.done else None,
        means=tension.means if tension else None,
        skipped=[k for k, s in steps.items() if s.skipped],
        allowed=[
            f"{k.replace('_', ' ')}: left so by {s.allowed_by}, {s.allowed_why}"
            for k, s in steps.items()
            if s.allowed_by
        ],
        who=sorted({s.who for s in steps.values() if s.who}),
    )


def setups_of_band(session: Session, band_id: int) -> list[KeptSetup]:
    """The latest set-ups of a band."""
    return kept_setups(session, band_id=band_id)
