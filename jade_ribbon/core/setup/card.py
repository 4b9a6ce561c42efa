"""The set-up card: this saw, this band, this cut, step by step with figures."""

from collections.abc import Mapping, Set
from dataclasses import dataclass, replace
from typing import cast

from jade_ribbon.core.bands.break_in import BreakIn
from jade_ribbon.core.choosing.choose import Ranked
from jade_ribbon.core.job import STRAIGHT_OPERATIONS, Job
from jade_ribbon.core.quantities.input_limits import ENTRIES
from jade_ribbon.core.quantities.words import Said, Sentence, Words, fill, quantity
from jade_ribbon.core.setup.band_position import BandPosition, band_position
from jade_ribbon.core.setup.figures import GuideCard, TensionCard, guide_card, tension_card
from jade_ribbon.core.setup.fittings import Fittings
from jade_ribbon.core.setup.kinds_of_saw import saw_tags
from jade_ribbon.core.setup.readiness import MOVES_SAW
from jade_ribbon.core.setup.reading_limits import (
    Limits,
    ReadingLimit,
    out_of_limits,
    reading_limits,
)
from jade_ribbon.core.setup.tension.tension_reading import Calibrated
from jade_ribbon.core.setup.words import ShopHabits, runs_on_thrust_alone, step_words
from jade_ribbon.reference.quantities import Kind, Range
from jade_ribbon.reference.rows import applies
from jade_ribbon.reference.tables import Holds, Reserve, SetupStepText, setup_step_texts

READING_RANGES: Mapping[Kind, Range] = {
    "stress": ENTRIES["stress_MPa"],
    "thin": ENTRIES["small_reading_mm"],
    "length": ENTRIES["long_reading_mm"],
    "speed": ENTRIES["speed_m_s"],
    "plain": ENTRIES["plain_reading"],
}
"""Accepted range of a reading by its kind: MPa, mm, mm, m/s, turns."""

STEPS_IN_OTHER_ORDER = {"lower_first": ("guides_lower", "guides_upper")}


@dataclass(frozen=True)
class StepReading:
    """A figure read at a step, as found and as left.

    `kind` is its unit's kind, `instrument` what reads it, '' for a rule or the eye.
    """

    key: str
    kind: Kind
    label: str
    instrument: str = ""
    limit: ReadingLimit | None = None


@dataclass(frozen=True)
class SetupStep:
    """One step of the card. `figure` is what to set, largest on the page.

    `holds` tells what keeps it good, `good_for_h` for how long; `reserve` the group of steps a
    shop may reserve for named people; `moves_saw` that the saw itself is changed by it.
    """

    key: str
    title: str
    doors_open: bool
    do: Sentence
    check: Sentence
    wrong: Sentence
    figure: Sentence
    readings: tuple[StepReading, ...]
    holds: Holds
    good_for_h: float
    reserve: Reserve
    moves_saw: bool


@dataclass(frozen=True)
class SetupCard:
    """Everything the card shows for this saw, band and cut."""

    tension: TensionCard
    guides: GuideCard
    band_position: BandPosition
    speed_m_s: float
    speed_setting: str
    feed_m_min: float
    break_in: BreakIn | None
    """A new edge is tried at its own feed."""
    steps: tuple[SetupStep, ...]


def left_out(
    step: SetupStep, left: Mapping[str, float], *, stress_share: float = 0.0
) -> tuple[Said, ...]:
    """What is said of the readings of a step that were left outside their limits.

    `stress_share` is the relative uncertainty of the means a stress was read by.
    """
    limits = {r.key: (r.label, r.kind, r.limit) for r in step.readings if r.limit is not None}
    return out_of_limits(left, limits, {"stress_MPa": stress_share})


def step_readings(text: SetupStepText) -> tuple[StepReading, ...]:
    """Readings of a row: key:kind:label:instrument, parted by |."""
    found = []
    for row in (r for r in text.readings.split("|") if r):
        key, kind, label, instrument = (*row.split(":", 3), "")[:4]
        found.append(StepReading(key, cast(Kind, kind), label, instrument))
    return tuple(found)


WETTED = ("flood", "mist")
"""What the materials' column of coolant calls for on a saw that has it."""


def step_tags(best: Ranked, job: Job) -> Set[str]:
    """What holds of this saw, band and cut, as the steps ask for it."""
    tags = set(saw_tags(job.saw))
    if job.cut.material.coolant in WETTED:
        tags.add("wetted")
    if job.saw.guides != "none" and job.saw.is_mill:
        tags.add("rollers")
    elif job.saw.guides != "none":
        tags.add("guides")
        alone = runs_on_thrust_alone(best, job)
        tags.add("thrust_alone" if alone else "side_guides")
    if job.saw.drive.kind == "inverter":
        tags.add("inverter")
    else:
        tags.add("step_drive" if len(job.saw.drive.speeds_m_s) > 1 else "one_speed")
    if job.cut.min_radius_mm is not None:
        tags.add("curved")
    steered = job.saw.feed != "carriage" and job.cut.operation in STRAIGHT_OPERATIONS
    if steered and job.saw.orientation == "vertical":
        tags.add("drift")
    return tags


def chosen_steps(tags: Set[str], guide_order: str) -> list[SetupStepText]:
    """The steps of this saw, band and cut, in the shop's order."""
    found = [t for t in setup_step_texts() if applies(t.when, tags)]
    order = STEPS_IN_OTHER_ORDER.get(guide_order)
    if order is None:
        return found
    places = [i for i, t in enumerate(found) if t.key in order]
    swapped = sorted((found[i] for i in places), key=lambda t: order.index(t.key))
    for place, text in zip(places, swapped, strict=True):
        found[place] = text
    return found


def _step(text: SetupStepText, words: Mapping[str, Words], limits: Limits) -> SetupStep:
    of_step = limits.get(text.key, {})
    return SetupStep(
        key=text.key,
        title=text.title,
        doors_open=text.doors_open,
        do=fill(text.do, words),
        check=fill(text.check, words),
        wrong=fill(text.wrong, words),
        figure=fill(text.figure, words),
        readings=tuple(replace(r, limit=of_step.get(r.key)) for r in step_readings(text)),
        holds=text.holds,
        good_for_h=text.good_for_h,
        reserve=text.reserve,
        moves_saw=text.key in MOVES_SAW,
    )


def setup_card(
    best: Ranked,
    job: Job,
    *,
    gauge_length_mm: float,
    habits: ShopHabits,
    fittings: Fittings | None = None,
    calibrated: Calibrated | None = None,
    break_in: BreakIn | None = None,
) -> SetupCard:
    """The card for the chosen band. Gauge length (mm) is the shop's own gauge's."""
    speed = best.evaluation.speed
    assert speed is not None
    known = fittings or Fittings()
    card = tension_card(best, job, gauge_length_mm, calibrated or Calibrated())
    guides = guide_card(best, job, habits.side_gap, habits.thrust_gap, known)
    width = best.evaluation.facts.band.width_mm
    is_set = best.evaluation.facts.set_per_side_mm > 0.0
    position = band_position(job, habits.band_position, width, known.tyre_width_mm, is_set=is_set)
    words = step_words(
        best, job, habits=habits, fittings=known, card=card, guides=guides, position=position
    )
    if break_in is not None:
        words = {**words, "feed": quantity(break_in.feed_m_min, "feed")}
    steps = chosen_steps(step_tags(best, job), habits.guide_order)
    limits = reading_limits(card, guides, speed.speed_m_s, job)
    return SetupCard(
        tension=card,
        guides=guides,
        band_position=position,
        speed_m_s=speed.speed_m_s,
        speed_setting=speed.setting,
        feed_m_min=best.run.feed_m_min,
        break_in=break_in,
        steps=tuple(_step(t, words, limits) for t in steps),
    )
