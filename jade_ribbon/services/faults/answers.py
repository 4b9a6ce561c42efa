"""A trouble as its page shows it: the likeliest causes, why, and the one check to make now."""

import math
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.faults.acting import (
    RUN_CAUTIONS,
    Acting,
    Now,
    Stop,
    acting,
    asked_of,
    check_now,
    chosen,
    clears,
    complaint_of,
    known_already,
    stops,
)
from jade_ribbon.core.faults.diagnosis import COULD_NOT_TELL, Diagnosis, evidence_odds
from jade_ribbon.core.faults.measured import FigureAsked
from jade_ribbon.core.faults.measures import rule_of
from jade_ribbon.core.faults.next_check import Offer, offers
from jade_ribbon.core.faults.telling import (
    HARDLY,
    Spoke,
    answer_words,
    for_and_against,
    reading_words,
)
from jade_ribbon.core.quantities.chances import chance_words
from jade_ribbon.core.quantities.words import Said
from jade_ribbon.reference.faults import Harm, Where, causes, checks, sign_texts
from jade_ribbon.reference.tables import caution_texts
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.faults.inputs import SKIP
from jade_ribbon.services.faults.trouble_log import (
    ANSWER,
    REMEDY,
    STILL,
    STOPPED,
    TOLD,
    Step,
    diagnosis_of,
    instruments_of,
    learned_faults,
    skipped_of,
    stopped_of,
    symptoms_of,
)
from jade_ribbon.services.shop.settings import Shop, read_shop
from jade_ribbon.store.models import BandRow, JobRow, RunRow, SawRow, TroubleRow

SHOWN = 3
OFFERED = 5
MINOR = 100
WHEELS_FIRST = "backup"
"""The house rule *what guides are for*: wheels and crown are looked at before guides."""


@dataclass(frozen=True)
class CauseNow:
    """One of the likeliest causes: its chance now and before the last answer, and why."""

    key: str
    name: str
    where: Where
    harm: Harm
    chance: float
    before: float
    words: str
    remedy: str
    remedy_minutes: float
    opens: str
    found_here: int
    """How often this shop found it."""
    spoke_for: list[Spoke]
    against: list[Spoke]


@dataclass(frozen=True)
class OtherCause:
    """A cause that is less likely."""

    key: str
    name: str
    chance: float
    words: str


@dataclass(frozen=True)
class OutcomeChoice:
    """An answer that a check may come to."""

    key: str
    words: str
    chance: float


@dataclass(frozen=True)
class CheckNow:
    """A check: what to do, minutes, what it needs, its answers and what may be measured."""

    key: str
    do: str
    minutes: float
    needs: str
    isolate: bool
    runs: bool
    opens: str
    outcomes: list[OutcomeChoice]
    figures: list[FigureAsked]
    looked_up: bool
    """The records can tell it: it need only be asked for."""
    why: list[str]
    asked_of: str
    """The one sign it is answered for, where several are told."""
    cautions: list[str]


@dataclass(frozen=True)
class OtherCheck:
    """Another check, and why it is not offered where it is not."""

    key: str
    do: str
    minutes: float
    why_not: str
    may: bool
    """Whether it may be chosen instead."""


@dataclass(frozen=True)
class SignNow:
    """A sign as told."""

    key: str
    name: str
    degree: str


@dataclass(frozen=True)
class ReadingNow:
    """A reading of the records: its words, where it was read, and the cause it moved most."""

    reads: str
    words: Said
    source: str
    at: str
    aside: bool
    cause: str
    times: float
    moves: bool
    """Whether it moved that cause at all, as far as is worth telling."""


@dataclass(frozen=True)
class PathStep:
    """A step of the way: what was asked and what came, and what stood first after it."""

    kind: str
    asked: str
    words: str
    at: str
    who: str
    first: str
    chance: float


@dataclass(frozen=True)
class TroubleAnswer:
    """A trouble as it stands."""

    id: int
    saw_id: int
    saw: str
    band_id: int | None
    band: str
    job_id: int | None
    job: str
    began: str
    opened_at: datetime
    state: str
    symptoms: list[SignNow]
    stops: list[Stop]
    acknowledged: dict[str, str]
    """Stops that somebody acknowledged, with the name."""
    causes: list[CauseNow]
    others: list[OtherCause]
    none_listed: float
    acting: Acting
    clears: list[str]
    """Signs told that should go with the likeliest cause."""
    check: CheckNow | None
    other_checks: list[OtherCheck]
    withheld: bool
    readings: list[ReadingNow]
    path: list[PathStep]
    remedy: str
    remedied_at: datetime | None
    ran_since: bool
    found: list[str]
    closed_at: datetime | None
    minutes: float
    money: float
    note: str
    who: str
    version: int
    change_id: int | None = None


def minutes_of(row: TroubleRow) -> float:
    """Minutes a trouble took: its checks, and the remedies done."""
    known = checks()
    asked = sum(
        known[s["check"]].minutes for s in row.path if s["kind"] == ANSWER and s["outcome"] != SKIP
    )
    mended = sum(float(s["minutes"]) for s in row.path if s["kind"] == REMEDY)
    return asked + mended


def money_of(row: TroubleRow, hour: float) -> float:
    """What a trouble cost: its minutes at the hour's rate, and what was spoiled."""
    return minutes_of(row) / 60.0 * hour + row.spoiled_minor / MINOR


def _cause_now(found: Diagnosis, before: Diagnosis, place: int, found_here: int) -> CauseNow:
    key = found.knowledge.causes[place]
    cause, spoke = causes()[key], for_and_against(found, key)
    return CauseNow(
        key=key,
        name=cause.name,
        where=cause.where,
        harm=cause.harm,
        chance=found.chance(key),
        before=before.chance(key),
        words=chance_words(found.chance(key)),
        remedy=cause.remedy,
        remedy_minutes=cause.remedy_minutes,
        opens=cause.remedy_opens,
        found_here=found_here,
        spoke_for=list(spoke.spoke_for),
        against=list(spoke.against),
    )


def _other_causes(found: Diagnosis) -> list[OtherCause]:
    """Those less likely than the first, and those that nothing speaks for."""
    first = found.likeliest(SHOWN)
    rest = (found.knowledge.causes[int(i)] for i in found.order if int(i) not in first)
    chances = ((key, found.chance(key)) for key in rest)
    return [OtherCause(key, causes()[key].name, m, chance_words(m)) for key, m in chances]


def _check_now(found: Diagnosis, now: Now) -> CheckNow | None:
    if now.offer is None:
        return None
    row, chances = checks()[now.offer.check], dict(now.offer.outcomes)
    asked = rule_of(row.key, complaint_of(found.told))
    return CheckNow(
        key=row.key,
        do=row.do,
        minutes=row.minutes,
        needs=row.needs,
        isolate=row.isolate,
        runs=row.runs,
        opens=row.opens,
        outcomes=[
            OutcomeChoice(o, w, chances[o])
            for o, w in zip(row.outcomes, row.outcome_words, strict=True)
        ],
        figures=list(asked[1]) if asked else [],
        looked_up=asked is not None and not asked[1],
        why=list(now.why),
        asked_of=asked_of(found, row.key),
        cautions=[caution_texts()[k].text for k in RUN_CAUTIONS] if row.runs else [],
    )


def _readings(row: TroubleRow, found: Diagnosis) -> list[ReadingNow]:
    lines = []
    for reads, kept in row.reads.items():
        rows = [e for e in found.knowledge.evidence if e.reads == reads]
        value = float(kept["value"])
        odds = {e.cause: evidence_odds(e, value) for e in rows}
        cause = max(odds, key=lambda c: abs(math.log(odds[c])))
        lines.append(
            ReadingNow(
                reads,
                reading_words(reads, value, cause),
                kept["source"],
                kept["at"],
                reads in row.aside,
                causes()[cause].name,
                odds[cause],
                abs(odds[cause] - 1.0) > HARDLY,
            )
        )
    return sorted(lines, key=lambda r: (r.aside, -abs(r.times - 1.0)))


def _step(step: Step) -> PathStep:
    first = (step.get("first") or [["", 0.0]])[0]
    name = causes()[first[0]].name if first[0] else ""
    asked, words = "", ""
    if step["kind"] == ANSWER:
        asked = checks()[step["check"]].do
        plain = {COULD_NOT_TELL: "could not tell", SKIP: "skipped"}
        words = plain.get(step["outcome"]) or answer_words(step["check"], step["outcome"])
    elif step["kind"] == TOLD:
        words = ", ".join(f"{sign_texts()[k].name} ({d})" for k, d in step["symptoms"].items())
    elif step["kind"] == REMEDY:
        asked, words = causes()[step["cause"]].name, causes()[step["cause"]].remedy
    elif step["kind"] == STOPPED:
        names = {
            **{k: s.name for k, s in sign_texts().items()},
            **{k: c.name for k, c in causes().items()},
        }
        words = f"Stop acknowledged: {names[step['stop']]}."
    elif step["kind"] == STILL:
        words = "Still there after it."
    return PathStep(
        step["kind"], asked, words, step["at"], step.get("who", ""), name, float(first[1])
    )


def _others(
    found: Diagnosis,
    all_offers: tuple[Offer, ...],
    now: Now,
    has: list[str] | None,
    row: TroubleRow,
) -> list[OtherCheck]:
    """Checks worth asking instead, and those that something stands against, with what."""
    known, everything = checks(), offers(found)
    asked = now.offer.check if now.offer else ""

    def line(key: str, why: str, *, here: bool = True) -> OtherCheck:
        may = here and chosen(found, everything, key) is not None
        return OtherCheck(key, known[key].do, known[key].minutes, why, may)

    lines = [line(o.check, "") for o in all_offers if o.check != asked][:OFFERED]
    skipped = skipped_of(row.path)
    lines += [line(key, "skipped") for key in sorted(skipped)]
    for key, reads in known_already(found.told.reads).items():
        if key not in found.told.answers and key not in skipped:
            lines.append(line(key, f"the records say: {reads.replace('_', ' ')}"))
    if has is not None:
        best = all_offers[0].bits_per_min if all_offers else 0.0
        for o in everything:
            needs = known[o.check].needs
            if needs not in (*has, "nothing") and o.bits_per_min > best:
                lines.append(line(o.check, f"needs the {needs}", here=False))
    return lines


def offered_checks(session: Session, row: TroubleRow, found: Diagnosis) -> tuple[Offer, ...]:
    """Checks that may be made here: with what the shop has, not skipped, not known already."""
    left_out = skipped_of(row.path) | set(known_already(found.told.reads))
    has = instruments_of(session)
    return tuple(o for o in offers(found, has) if o.check not in left_out)


def _ran_since(session: Session, row: TroubleRow) -> bool:
    """Whether the saw has cut since the remedy."""
    if row.remedied_at is None:
        return False
    run = session.scalars(
        select(RunRow.id).where(
            RunRow.saw_id == row.saw_id, RunRow.at > row.remedied_at, RunRow.deleted_at.is_(None)
        )
    ).first()
    return run is not None


def _now(found: Diagnosis, may: tuple[Offer, ...], shop: Shop, check: str) -> Now:
    """The check to make now: the one somebody chose, else the one that tells most."""
    if not check:
        return check_now(found, may, wheels_first=shop.rules["guides_role"] == WHEELS_FIRST)
    other = chosen(found, offers(found), check)
    if other is None:
        raise ConflictError("Not now: it is answered, or would run the saw before a look.")
    return other


def trouble_answer(
    session: Session, row: TroubleRow, change_id: int | None = None, check: str = ""
) -> TroubleAnswer:
    """A trouble as its page shows it; with a check that somebody chose, where it may be made.

    ConflictError for one that may not: it would run the saw before a danger is looked at, or is
    answered already.
    """
    found = diagnosis_of(session, row)
    steps = [i for i, s in enumerate(row.path) if s["kind"] in (ANSWER, TOLD, STILL)]
    before = diagnosis_of(session, row, row.path[: steps[-1]]) if steps else found
    may = offered_checks(session, row, found)
    shop = read_shop(session)
    now = _now(found, may, shop, check)
    own = learned_faults(session).found
    saw = session.get_one(SawRow, row.saw_id)
    band = session.get(BandRow, row.band_id) if row.band_id else None
    job = session.get(JobRow, row.job_id) if row.job_id else None
    keys, top = found.knowledge.causes, found.likeliest(SHOWN)
    return TroubleAnswer(
        id=row.id,
        saw_id=saw.id,
        saw=saw.name,
        band_id=row.band_id,
        band=band.label if band else "",
        job_id=row.job_id,
        job=(job.name or f"Job {job.id}") if job else "",
        began=row.began,
        opened_at=row.opened_at,
        state=row.state,
        symptoms=[
            SignNow(k, sign_texts()[k].name, d) for k, d in symptoms_of(row, row.path).items()
        ],
        stops=list(stops(found)) if row.state == "open" else [],
        acknowledged=stopped_of(row.path),
        causes=[_cause_now(found, before, i, own.get(keys[i], 0)) for i in top],
        others=_other_causes(found),
        none_listed=found.none_listed,
        acting=acting(found, now),
        clears=list(clears(found, found.first)),
        check=_check_now(found, now),
        other_checks=_others(found, may, now, instruments_of(session), row),
        withheld=found.running_withheld,
        readings=_readings(row, found),
        path=[_step(s) for s in row.path],
        remedy=row.remedy,
        remedied_at=row.remedied_at,
        ran_since=_ran_since(session, row),
        found=list(row.causes),
        closed_at=row.closed_at,
        minutes=minutes_of(row),
        money=money_of(row, shop.rates.hour),
        note=row.note,
        who=row.who,
        version=row.version,
        change_id=change_id,
    )


def first_causes(found: Diagnosis) -> list[list[Any]]:
    """The likeliest causes with their chances, as a step keeps them."""
    return [
        [found.knowledge.causes[int(i)], round(float(found.chances[i]), 4)]
        for i in found.likeliest(SHOWN)
    ]
