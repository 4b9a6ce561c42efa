"""Whether a saw as it stands is ready: what is against it, and what nobody has looked at."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from jade_ribbon.core.quantities.words import Said, figure, quantity, sentence
from jade_ribbon.core.setup.readiness import READING_SLACK, TensionState
from jade_ribbon.core.setup.reading_limits import ReadingLimit, judged_reading

State = Literal["ready", "cannot_tell", "not_ready"]
STOOD_H = 16.0
"""Under tension for so long, a saw has stood a night so."""
SPEED_SLACK = 0.05


@dataclass(frozen=True)
class TensionFacts:
    """The tension a band was left at, MPa, against its steel (`low` to `high`) and the frame.

    `share` is the relative uncertainty of its means, `reach_MPa` None for a frame nobody knows.
    """

    state: TensionState
    stress_MPa: float | None
    share: float
    low_MPa: float
    high_MPa: float
    reach_MPa: float | None
    hours_on: float | None
    idle_rule: str


@dataclass(frozen=True)
class SetUpFacts:
    """What is known of the set-up of the band that is on: steps out of limits, stale, skipped."""

    out: Sequence[Said] = ()
    to_check: Sequence[str] = ()
    not_done: Sequence[str] = ()
    tension_allowed: bool = False
    """Whether somebody said by name why so little tension may stay."""
    stress_share: float = 0.0
    """Relative uncertainty of the means its tension was read by."""
    stress_MPa: tuple[float, float] | None = None
    """Low and high of the steel in what its job cuts; None where its job is not known any more."""


@dataclass(frozen=True)
class SawFacts:
    """Everything read or recorded of a saw and the band on it.

    `band` is '' with none on; `set_up` None where no card was begun with it since it went on;
    `speeds_m_s` are the slowest and fastest of the drive.
    """

    band: str
    damage: str
    look_first: bool
    misfits: Sequence[Said]
    tension: TensionFacts
    speed_set_m_s: float | None
    speeds_m_s: tuple[float, float]
    set_up: SetUpFacts | None
    troubles: Sequence[str]
    stopping_defects: Sequence[str]
    wheels_out: bool
    not_tested: Sequence[str]
    """Tests without which a saw should not run, past their time or never recorded."""


@dataclass(frozen=True)
class SawVerdict:
    """One verdict on a saw; everyone asks this one. `words` say the gravest, large on the page."""

    state: State
    words: Said
    against: tuple[Said, ...]
    not_looked_at: tuple[str, ...]


def _of_band(facts: SawFacts) -> Iterator[Said]:
    if not facts.band:
        yield "No band is on it."
    if facts.damage:
        yield f"Of the band on it: {facts.damage}."
    if facts.look_first:
        yield f"{facts.band} was hit or came off: look over teeth, gullets and weld before it runs."
    for wrong in facts.misfits:
        yield sentence(f"{facts.band} does not go on it: ", wrong, ".")


def _of_tension(tension: TensionFacts, *, allowed: bool) -> Iterator[Said]:
    if tension.state != "on":
        state = "slack" if tension.state == "slack" else "not known to be under tension"
        yield f"It is {state}: tension it before it is started."
        return
    stress = tension.stress_MPa
    if stress is not None:
        most = tension.high_MPa
        if tension.reach_MPa is not None:
            most = min(most, READING_SLACK * tension.reach_MPa)
        limit = ReadingLimit(0.0 if allowed else min(tension.low_MPa, most), most)
        said = judged_reading(stress, tension.share, "tension", "stress", limit)
        if said is not None:
            yield sentence(said, ".")
    if tension.idle_rule == "release" and (tension.hours_on or 0.0) >= STOOD_H:
        hours = tension.hours_on or 0.0
        long = f"{figure(hours / 24.0, 2)} days" if hours >= 48.0 else f"{figure(hours, 2)} h"
        yield (
            f"Under tension for {long}, against the house rule to release it: slacken it, look "
            "over band and tyres, tension and track it again."
        )


def _of_speed(facts: SawFacts) -> Iterator[Said]:
    speed, (slowest, fastest) = facts.speed_set_m_s, facts.speeds_m_s
    if speed is None:
        return
    if not slowest * (1.0 - SPEED_SLACK) <= speed <= fastest * (1.0 + SPEED_SLACK):
        yield sentence(
            "Its speed is recorded as ",
            quantity(speed, "speed"),
            ", which its drive does not run at: count the wheel's turns again.",
        )


def _of_saw(facts: SawFacts) -> Iterator[Said]:
    for text in facts.stopping_defects:
        yield f"A defect stops it: {text}"
    for text in facts.troubles:
        yield f"A trouble is open on it: {text}. Find the cause first."
    if facts.wheels_out:
        yield "Its wheels were out of plane when last read: true them."


def against_ready(facts: SawFacts, *, with_set_up: bool = True) -> tuple[Said, ...]:
    """All that keeps a saw from ready, the gravest first; without what its card asks if wished."""
    found = [*_of_band(facts)]
    if facts.band and with_set_up:
        allowed = facts.set_up is not None and facts.set_up.tension_allowed
        found += _of_tension(facts.tension, allowed=allowed)
    found += [*_of_speed(facts), *_of_saw(facts)]
    if with_set_up and facts.set_up is not None:
        found += [sentence(words, ". Set it again.") for words in facts.set_up.out]
        if facts.set_up.to_check:
            found.append(f"Check again: {', '.join(facts.set_up.to_check)}.")
    return tuple(found)


def _not_looked_at(facts: SawFacts) -> Iterator[str]:
    if facts.tension.state == "on" and facts.tension.stress_MPa is None:
        yield "tension read"
    if facts.set_up is None:
        yield f"set-up with {facts.band}"
    else:
        yield from (title.lower() for title in facts.set_up.not_done)
    yield from (task.lower() for task in facts.not_tested)


def saw_verdict(facts: SawFacts) -> SawVerdict:
    """Whether a saw is ready: everything read or recorded within limits, nothing left unlooked at.

    Source: checklists of machine safety: nothing unread is ready; docs/model "Ready".
    """
    found = against_ready(facts)
    if found:
        return SawVerdict("not_ready", found[0], found, tuple(_not_looked_at(facts)))
    unknown = tuple(_not_looked_at(facts))
    if unknown:
        words = f"Nothing is against it, but nobody has looked lately at: {', '.join(unknown)}."
        return SawVerdict("cannot_tell", words, (), unknown)
    return SawVerdict("ready", "Under tension, looked at all over, nothing against it.", (), ())
