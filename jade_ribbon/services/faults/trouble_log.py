"""A trouble's record as the core reads it: signs, readings, answers; and the shop's learning."""

from collections.abc import Mapping
from functools import lru_cache
from typing import Any

from sqlalchemy import String, case, cast, func, select
from sqlalchemy.orm import Session

from jade_ribbon.core.faults.diagnosis import ON_A_MILL, SLIGHT, Diagnosis, Told, infer
from jade_ribbon.core.faults.knowledge import listed
from jade_ribbon.core.faults.learned import ClosedTrouble, LearnedFaults, learn
from jade_ribbon.services.faults.inputs import SKIP
from jade_ribbon.services.memo import remembered
from jade_ribbon.services.shop.saws import core_saw
from jade_ribbon.services.shop.settings import shop_row
from jade_ribbon.store.models import SawRow, TroubleRow

DEGREES: Mapping[str, float] = {"clear": 1.0, "slight": SLIGHT, "absent": 0.0}
ANSWER, TOLD, REMEDY, STILL, STOPPED = "answer", "told", "remedy", "still", "stop"
"""Kinds of steps of a trouble's path."""

Step = dict[str, Any]


def answers_of(path: list[Step]) -> dict[str, str]:
    """What each check came to, the last answer of each; what was skipped is not among them."""
    found = {s["check"]: s["outcome"] for s in path if s["kind"] == ANSWER}
    return {check: outcome for check, outcome in found.items() if outcome != SKIP}


def skipped_of(path: list[Step]) -> set[str]:
    """Checks that were passed over."""
    found = {s["check"]: s["outcome"] for s in path if s["kind"] == ANSWER}
    return {check for check, outcome in found.items() if outcome == SKIP}


def stopped_of(path: list[Step]) -> dict[str, str]:
    """Stops that somebody acknowledged, with the name."""
    return {s["stop"]: s["who"] for s in path if s["kind"] == STOPPED}


def symptoms_of(row: TroubleRow, path: list[Step]) -> dict[str, str]:
    """Signs by degree: those first told, and those told on the way."""
    return _signs(row.symptoms, path)


def _signs(first: Mapping[str, str], path: list[Step] | None) -> dict[str, str]:
    found = dict(first)
    for step in path or ():
        if step["kind"] == TOLD:
            found |= step["symptoms"]
    return found


def reads_of(row: TroubleRow) -> dict[str, float]:
    """Readings that are not set aside."""
    return {k: float(v["value"]) for k, v in row.reads.items() if k not in row.aside}


def told_of(session: Session, row: TroubleRow, path: list[Step]) -> Told:
    """A trouble of its saw up to a place of its path, as the core reads it."""
    saw = core_saw(session.get_one(SawRow, row.saw_id))
    return Told(
        {k: DEGREES[d] for k, d in symptoms_of(row, path).items()},
        reads_of(row),
        answers_of(path),
        tuple(dict.fromkeys(s["cause"] for s in path if s["kind"] == STILL)),
        ON_A_MILL if saw.is_mill else (),
    )


LEARNED = "learned of troubles"
"""Kept until another one is closed."""


def learned_faults(session: Session) -> LearnedFaults:
    """What this shop's closed troubles teach: those that were found, and went."""
    closed = (TroubleRow.state == "closed", TroubleRow.deleted_at.is_(None))
    so_far = tuple(
        session.execute(
            select(func.count(), func.max(TroubleRow.closed_at), func.max(TroubleRow.version))
            .select_from(TroubleRow)
            .where(*closed)
        ).one()
    )
    return remembered(session, LEARNED, lambda: _learn(session), mark=so_far)


def _learn(session: Session) -> LearnedFaults:
    """Causes and signs of every closed trouble; a path is read only where signs were told on it."""
    told_on_the_way = func.instr(cast(TroubleRow.path, String), f'"{TOLD}"') > 0
    rows = session.execute(
        select(
            TroubleRow.causes,
            TroubleRow.symptoms,
            case((told_on_the_way, TroubleRow.path), else_=None),
        )
        .where(TroubleRow.state == "closed", TroubleRow.deleted_at.is_(None))
        .order_by(TroubleRow.id)
    )
    return _learned_of(
        tuple(
            (tuple(causes), tuple((k, DEGREES[d]) for k, d in _signs(signs, path).items()))
            for causes, signs, path in rows
            if causes
        )
    )


Closed = tuple[tuple[str, ...], tuple[tuple[str, float], ...]]
"""Causes of a closed trouble, and its signs with their degrees."""


@lru_cache(maxsize=4)
def _learned_of(troubles: tuple[Closed, ...]) -> LearnedFaults:
    """What these teach; kept by what they are, also while they are not committed."""
    return learn(listed(), [ClosedTrouble(causes, dict(signs)) for causes, signs in troubles])


def diagnosis_of(session: Session, row: TroubleRow, path: list[Step] | None = None) -> Diagnosis:
    """Where a trouble stands, or stood at a place of its path."""
    told = told_of(session, row, row.path if path is None else path)
    return infer(told, learned_faults(session).knowledge)


def instruments_of(session: Session) -> list[str] | None:
    """What the shop has to check with; None where it never said: all of it."""
    kept = (shop_row(session).faults or {}).get("has")
    return None if kept is None else list(kept)
