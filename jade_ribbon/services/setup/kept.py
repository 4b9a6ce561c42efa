"""Set-ups kept: what was last time, how this one differs, what of it is still good."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.quantities.words import figure
from jade_ribbon.core.setup.card import SetupCard, SetupStep
from jade_ribbon.services.records import now
from jade_ribbon.services.setup.roles import core_bench
from jade_ribbon.services.shop.saws import core_saw
from jade_ribbon.store.models import BandEventRow, BandRow, DefectRow, JobRow, SawRow, SetupRow

SHOWN = 12


@dataclass(frozen=True)
class LastTime:
    """The last finished set-up of the same saw and band: figures as left, by step."""

    setup_id: int
    at: datetime
    left: dict[str, dict[str, float]]
    notes: dict[str, str]
    means: str | None


@dataclass(frozen=True)
class ComparedReading:
    """One reading now against last time."""

    step: str
    reading: str
    label: str
    kind: str
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
    means: str | None
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
    means: str | None
    skipped: list[str]
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
        )
        .order_by(SetupRow.id.desc())
    ).first()
    if before is None:
        return None
    left = {k: v["left"] for k, v in before.steps.items() if v.get("left")}
    means = before.steps.get("tension", {}).get("means")
    notes = {k: v["note"] for k, v in before.steps.items() if v.get("note")}
    at = before.finished_at or before.started_at
    return LastTime(before.id, at, left, notes, means)


def compare(card: SetupCard, steps: dict[str, Any], last: LastTime | None) -> list[ComparedReading]:
    """Every reading left now that was left last time too."""
    if last is None:
        return []
    found = []
    for step in card.steps:
        left = steps.get(step.key, {}).get("left", {})
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


def _holds(session: Session, step: SetupStep, row: SetupRow, saw: SawRow, at: datetime) -> bool:
    """Whether what keeps the step good is still as it was."""
    if step.holds == "saw":
        return True
    if step.holds != "band" or saw.mounted_band_id != row.band_id:
        return False
    if _gone_since(session, row, at):
        return False
    slackened = saw.tension_since is not None and saw.tension_since > at
    on_tension = ("tension", "fine_track", "guides_upper", "guides_lower", "drift")
    return step.key not in on_tension or (saw.tension_state == "on" and not slackened)


def still_good(
    session: Session, card: SetupCard, row: SetupRow, saw: SawRow
) -> dict[str, StillGood]:
    """Steps of the saw's last cards that need not be done again, each until it expires."""
    earlier = session.scalars(
        select(SetupRow)
        .where(SetupRow.saw_id == row.saw_id, SetupRow.id != row.id)
        .order_by(SetupRow.id.desc())
        .limit(SHOWN)
    ).all()
    hours = core_bench(saw).good_for_h
    found: dict[str, StillGood] = {}
    for step in card.steps:
        limit = timedelta(hours=hours.get(step.key, step.good_for_h))
        for card_row in earlier:
            record = card_row.steps.get(step.key)
            same_band = card_row.band_id == row.band_id
            if not record or not record["done"] or (step.holds == "band" and not same_band):
                continue
            at = datetime.fromisoformat(record["at"])
            left = limit - (now() - at)
            if left > timedelta(0) and _holds(session, step, row, saw, at):
                found[step.key] = _good(card_row, record, at, left)
            break
    return found


def _good(row: SetupRow, record: dict[str, Any], at: datetime, left: timedelta) -> StillGood:
    hours = left / timedelta(hours=1)
    by = f" by {record['who']}" if record["who"] else ""
    more = f"{figure(hours, 2)} h" if hours < 48 else f"{figure(hours / 24, 2)} days"
    words = f"Done {at:%Y-%m-%d %H:%M} UTC{by}; good for {more} more."
    return StillGood(
        setup_id=row.id,
        at=at,
        hours_left=hours,
        left=record.get("left", {}),
        means=record.get("means"),
        who=record["who"],
        words=words,
    )


def kept_setups(
    session: Session, *, saw_id: int | None = None, band_id: int | None = None
) -> list[KeptSetup]:
    """The latest set-ups of a saw or a band, newest first; one statement."""
    query = (
        select(SetupRow, SawRow.name, BandRow.label, JobRow.name, JobRow.id)
        .join(SawRow, SetupRow.saw_id == SawRow.id)
        .join(BandRow, SetupRow.band_id == BandRow.id)
        .join(JobRow, SetupRow.job_id == JobRow.id)
        .order_by(SetupRow.id.desc())
        .limit(SHOWN)
    )
    if saw_id is not None:
        query = query.where(SetupRow.saw_id == saw_id)
    if band_id is not None:
        query = query.where(SetupRow.band_id == band_id)
    return [
        _kept(row, saw, band, job or f"Job {job_id}")
        for row, saw, band, job, job_id in session.execute(query)
    ]


def _kept(row: SetupRow, saw: str, band: str, job: str) -> KeptSetup:
    tension = row.steps.get("tension", {})
    stress = tension.get("left", {}).get("stress_MPa", row.figures.get("stress_MPa"))
    return KeptSetup(
        id=row.id,
        saw_id=row.saw_id,
        saw_name=saw,
        band_id=row.band_id,
        band_label=band,
        job_name=job,
        started_at=row.started_at,
        finished_at=row.finished_at,
        stress_MPa=stress if tension.get("done") else None,
        means=tension.get("means"),
        skipped=[k for k, v in row.steps.items() if v["skipped"]],
        who=sorted({v["who"] for v in row.steps.values() if v["who"]}),
    )


def open_defects(session: Session, saw_id: int) -> list[DefectRow]:
    """What is wrong with a saw and not closed, oldest first."""
    query = (
        select(DefectRow)
        .where(
            DefectRow.saw_id == saw_id,
            DefectRow.closed_at.is_(None),
            DefectRow.deleted_at.is_(None),
        )
        .order_by(DefectRow.id)
    )
    return list(session.scalars(query))


def wheel_words(saw: SawRow) -> str:
    """What the wheels of a saw are called, first the one that is trued."""
    return "upper" if core_saw(saw).orientation == "vertical" else "left"
