"""A trial on cheap wood before the dear one: which wood, and what its face says of the other."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from jade_ribbon.core.inspection.evidence import EIGHT_IN_TEN
from jade_ribbon.core.inspection.face import NEEDED_FOR, Face, FacePart, verdict_of
from jade_ribbon.reference.tables import Material

FAR = 0.5
"""A wood farther than this, in logarithms of pressure and hardness, is no stand-in for the push."""
SAME = 1e-9


@dataclass(frozen=True)
class TrialProposal:
    """The cheap wood nearest to the dear one: pressure and hardness as shares of its own."""

    material: str
    name: str
    pressure_share: float
    hardness_share: float | None
    near: bool
    words: str


def _apart(a: Material, b: Material) -> float:
    pressure = math.log(a.specific_cutting_pressure_MPa / b.specific_cutting_pressure_MPa)
    if a.janka_N is None or b.janka_N is None:
        return abs(pressure)
    return math.hypot(pressure, math.log(a.janka_N / b.janka_N))


def propose_trial(dear: Material, cheap: Sequence[Material]) -> TrialProposal | None:
    """The nearest of some cheap woods by cutting pressure and hardness; None among none.

    Source: docs/model "Trial cut".
    """
    others = [m for m in cheap if m.key != dear.key]
    if not others or dear.is_metal:
        return None
    best = min(others, key=lambda m: (_apart(m, dear), m.key))
    share = best.specific_cutting_pressure_MPa / dear.specific_cutting_pressure_MPa
    hard = best.janka_N / dear.janka_N if best.janka_N and dear.janka_N else None
    near = _apart(best, dear) <= FAR
    words = f"Try it on {best.name} first: it takes {100 * share:.0f} % of the push"
    words += f" and is {100 * hard:.0f} % as hard." if hard is not None else "."
    if not near:
        words += " That is not near: it tells fence and table, of the barrel only roughly."
    return TrialProposal(best.key, best.name, share, hard, near, words)


@dataclass(frozen=True)
class TrialJudgement:
    """What a trial's face says of the dear wood: each part as it would be there."""

    parts: tuple[FacePart, ...]
    push_ratio: float
    ready: bool
    words: str


def judge_trial(
    face: Face, *, push_ratio: float, ratio_sd_ln: float, tolerance_mm: float
) -> TrialJudgement:
    """Taper, lean and waves carry over; a barrel goes as the push, known no surer than the ratio.

    Ready only where every part would surely be within, barrel and waves looked for.

    Source: `straightness`, barrel in proportion to the push; docs/model "Trial cut".
    """
    parts = []
    for part in face.parts:
        amount, se = part.amount_mm, part.se_mm
        if part.key == "barrel":
            amount = part.amount_mm * push_ratio
            se = math.hypot(part.se_mm * push_ratio, abs(amount) * ratio_sd_ln)
        parts.append(
            FacePart(
                part.key,
                amount,
                se,
                EIGHT_IN_TEN * se,
                abs(amount) / tolerance_mm,
                verdict_of(amount, se, tolerance_mm),
            )
        )
    parts.sort(key=lambda p: -p.tolerance_share)
    seen = all(face.part(key) is not None for key, _ in NEEDED_FOR)
    over = [p.key for p in parts if p.verdict == "over"]
    ready = seen and all(p.verdict == "within" for p in parts)
    if ready:
        words = "Cut the dear one: all of it would be within its tolerance."
    elif over:
        words = f"Not yet: {' and '.join(over)} would be over its tolerance."
    elif not seen:
        words = "Cannot tell: read nine points, so that barrel and waves show."
    else:
        words = "Cannot tell: read more points, or try again."
    return TrialJudgement(tuple(parts), push_ratio, ready, words)


def cheap_woods(table: Mapping[str, Material], keys: Sequence[str]) -> list[Material]:
    """The materials of some keys that a table has."""
    return [table[key] for key in keys if key in table]
