"""When a step still holds, what a step needs first, and what stands before a ready saw."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.words import Said, quantity, sentence
from jade_ribbon.reference.tables import Holds

TensionState = Literal["on", "slack", "unknown"]
ON_TENSION = ("tension", "fine_track", "guides_upper", "guides_lower", "drift")
"""Steps that hold only while the band stays under the tension they were done at."""
MOVES_SAW = ("mount", "tension", "speed")
"""Steps that change the saw itself: its band, its tension, its speed."""
DISTURBS: Mapping[str, tuple[str, ...]] = {
    "mount": ("rough_track", "tension", "fine_track", "guides_upper", "guides_lower", "drift"),
    "tension": ("fine_track", "guides_upper", "guides_lower", "drift"),
    "fine_track": ("guides_upper", "guides_lower", "drift"),
    "guard": ("guides_upper",),
    "table": ("drift",),
}
"""What a step done anew moves of what was done before: it is checked again."""
READING_SLACK = 1.05
"""What a reading may be off, before a frame or a steel counts as overloaded."""
IDLE_WORDS = {
    "leave_on": "House rule: the tension may stay on.",
    "release": "House rule: release the tension if the saw stands overnight.",
}


@dataclass(frozen=True)
class Since:
    """What became of saw and band since a step was done."""

    same_band_on: bool
    taken_off: bool
    slackened: bool
    tension: TensionState


def still_holds(step: str, holds: Holds, since: Since) -> bool:
    """Whether what keeps a step good is still as it was."""
    if holds == "saw":
        return True
    if holds != "band" or not since.same_band_on or since.taken_off:
        return False
    return step not in ON_TENSION or (since.tension == "on" and not since.slackened)


def check_frame(left_MPa: float, *, reach_MPa: float) -> None:
    """A stress left at a step against what the frame reaches in this band.

    Raises InputError when it is over it: slacken first.
    """
    if left_MPa > READING_SLACK * reach_MPa:
        words = sentence(
            quantity(left_MPa, "stress"),
            " puts more on the frame than it holds: slacken it; accepted: up to ",
            quantity(reach_MPa, "stress"),
            " in this band",
        )
        raise refuse("left.stress_MPa", words, left_MPa)


def check_steel(left_MPa: float, *, high_MPa: float) -> None:
    """A stress left at a step against the steel's highest.

    Raises InputError when it is over it: no reason lets it stay.
    """
    if left_MPa > READING_SLACK * high_MPa:
        words = sentence(
            quantity(left_MPa, "stress"),
            " is over what this steel stands: slacken it; accepted: up to ",
            quantity(high_MPa, "stress"),
        )
        raise refuse("left.stress_MPa", words, left_MPa)


RUNS_THE_SAW = ("start", "drift", "trial")


def refused(
    step: str, *, doors_open: bool, isolated: bool, band_on: bool, tension: TensionState
) -> str:
    """Why a step cannot be done yet; '' when it can."""
    if doors_open and not isolated:
        return "Isolate the saw first: this step has the doors open."
    if step == "tension" and not band_on:
        return "Mount the band first."
    if step in RUNS_THE_SAW and not band_on:
        return "Another band is recorded on this saw, or none: mount this one first."
    if step in RUNS_THE_SAW and tension != "on":
        return "No power on a slack saw: tension it first."
    return ""


def not_ready(
    *,
    open_stops: bool,
    open_steps: Sequence[str],
    asked: Sequence[str] = (),
    to_check: Sequence[str] = (),
    out_of_limits: Sequence[Said] = (),
    band_on: bool,
    tension: TensionState,
    against: Sequence[Said],
) -> Said:
    """What still stands between a card and a ready saw; '' when nothing does.

    `against` is what the saw's own verdict has against it besides the card.
    """
    if open_stops:
        return "A stop must be acknowledged by name first."
    if open_steps:
        return f"Still to do: {', '.join(open_steps)}."
    if asked:
        return (
            f"A note speaks of damage ({asked[0]}): record it with the band, or write the note "
            "otherwise."
        )
    if to_check:
        return f"Check again: {', '.join(to_check)}."
    if out_of_limits:
        return sentence(out_of_limits[0], ". Set it again, or a named person says why it may stay.")
    if not band_on:
        return "Another band is recorded on this saw: tick Mount again."
    if tension != "on":
        return "The saw is recorded as slack: tick Tension again."
    return against[0] if against else ""


READY = "Every step is done: the saw is ready."
MOST_NAMED = 4


def ready_words(unmeasured: Sequence[str]) -> str:
    """What is said of a saw with nothing against it: by what it is known, if not by readings.

    >>> ready_words(["Tension", "Drift"])
    'Ready by what you looked at. Not measured: tension, drift.'
    """
    if not unmeasured:
        return READY
    named = ", ".join(title.lower() for title in unmeasured[:MOST_NAMED])
    more = len(unmeasured) - MOST_NAMED
    rest = f" and {more} more" if more > 0 else ""
    return f"Ready by what you looked at. Not measured: {named}{rest}."


def when_done(idle_rule: str) -> str:
    """What to do with the saw when all pieces are cut."""
    return f"{IDLE_WORDS[idle_rule]} Isolate the saw; dust out of the wheel boxes."
