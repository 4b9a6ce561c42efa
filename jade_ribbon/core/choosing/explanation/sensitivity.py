"""What the choice leans on: the price of each house rule, and what would change it."""

import dataclasses
from collections.abc import Callable
from dataclasses import dataclass

from jade_ribbon.core.choosing.choose import Choice, Ranked, choose
from jade_ribbon.core.choosing.conflicts import Reason
from jade_ribbon.core.choosing.explanation.alike import kind_of, thinned
from jade_ribbon.core.choosing.explanation.rules_at_work import AT_WORK, other_schools
from jade_ribbon.core.job import Job
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import Said, Words, figure, quantity, sentence
from jade_ribbon.reference.tables import house_rules

STEPS = (0.01, 0.03, 0.1, 0.25)
"""How far an input is moved, as a share, to see the choice change: a hair first."""
SAME_MONEY = 0.005


@dataclass(frozen=True)
class RulePrice:
    """What the best other school of one house rule would choose, and cost a piece."""

    rule: str
    choice: str
    other: str
    band: str
    extra: float
    words: str


@dataclass(frozen=True)
class Sway:
    """The smallest tried change of an input that changes the band."""

    field: str
    value: float
    band: str
    words: Said


def band_key(ranked: Ranked) -> tuple[object, ...]:
    """What makes two choices the same band."""
    band = ranked.evaluation.facts.band
    return (band.label, *kind_of(band))


def why_not(was: Ranked, choice: Choice) -> Reason:
    """Which rule keeps a band from being the choice now: the first it fails, in order."""
    key = band_key(was)
    for evaluation in choice.excluded:
        if evaluation.facts.band == was.evaluation.facts.band:
            return evaluation.conflicts[0]
    now = next((r for r in choice.ranked if band_key(r) == key), None)
    best = choice.best
    if now is None or best is None:
        return Reason("gone", "it is not among the bands")
    label = was.evaluation.facts.band.label
    if now.band_class != best.band_class:
        return Reason("class", f"{label} falls to: {now.class_words}")
    if not now.in_width:
        return Reason("width", f"{label} is outside the widths that count as equal")
    if not now.in_pitch:
        return Reason("pitch", f"{label}'s pitch is not near the wanted one")
    return Reason("cost", f"{label} costs {now.total:.2f} a piece against {best.total:.2f}")


def _price(best: Ranked, job: Job, rule: str) -> RulePrice | None:
    """Against the cheapest other school; None when none finds a band, or it is all the same."""
    found: list[tuple[str, Ranked]] = []
    for school, changed in other_schools(job, rule):
        its_best = choose(changed, brief=True).best
        if its_best is not None:
            found.append((school, its_best))
    if not found:
        return None
    choice, other = min(found, key=lambda f: f[1].total)
    extra = best.total - other.total
    label = other.evaluation.facts.band.label
    name = house_rules()[rule].name_of(choice)
    if abs(extra) <= SAME_MONEY and band_key(best) == band_key(other):
        return None
    more = "costs" if extra > SAME_MONEY else "saves" if extra < -SAME_MONEY else ""
    money = f"{more} {abs(extra):.2f} a piece" if more else "costs nothing"
    words = f"{money} against “{name}” ({label})"
    return RulePrice(rule, str(getattr(job.rules, rule)), choice, label, extra, words)


def rule_prices(job: Job) -> tuple[RulePrice, ...]:
    """What following each house rule costs or saves a piece; those that move nothing left out."""
    job = thinned(job)
    best = choose(job, brief=True).best
    if best is None:
        return ()
    priced = (_price(best, job, rule) for rule in AT_WORK)
    return tuple(p for p in priced if p is not None)


def _with_height(job: Job, share: float) -> Job:
    height = job.cut.height_mm * share
    return dataclasses.replace(job, cut=dataclasses.replace(job.cut, height_mm=height))


def _with_radius(job: Job, share: float) -> Job:
    radius = (job.cut.min_radius_mm or 0.0) * share
    return dataclasses.replace(job, cut=dataclasses.replace(job.cut, min_radius_mm=radius))


def _with_frame(job: Job, share: float) -> Job:
    force = (job.saw.wheel_force_max_N or 0.0) * share
    return dataclasses.replace(job, saw=dataclasses.replace(job.saw, wheel_force_max_N=force))


def _with_power(job: Job, share: float) -> Job:
    return dataclasses.replace(
        job, saw=dataclasses.replace(job.saw, motor_kW=job.saw.motor_kW * share)
    )


def _length(value: float) -> Words:
    return quantity(value, "length")


def _force(value: float) -> Words:
    return quantity(value, "force")


def _power(value: float) -> Words:
    return f"{figure(value, 3)} kW"


@dataclass(frozen=True)
class _Lever:
    field: str
    name: str
    said: Callable[[float], Words]
    read: Callable[[Job], float | None]
    move: Callable[[Job, float], Job]


LEVERS = (
    _Lever("height_mm", "height", _length, lambda j: j.cut.height_mm, _with_height),
    _Lever("min_radius_mm", "radius", _length, lambda j: j.cut.min_radius_mm, _with_radius),
    _Lever(
        "wheel_force_max_N", "frame force", _force, lambda j: j.saw.wheel_force_max_N, _with_frame
    ),
    _Lever("motor_kW", "motor", _power, lambda j: j.saw.motor_kW, _with_power),
)


def _changed(job: Job, best: Ranked, lever: _Lever, direction: int) -> Sway | None:
    """The first step in one direction at which another band, or none, is chosen."""
    for step in STEPS:
        moved = lever.move(job, 1.0 + direction * step)
        value = lever.read(moved) or 0.0
        try:
            choice = choose(moved, brief=True)
            if choice.best is None or band_key(choice.best) != band_key(best):
                choice = choose(moved)  # with the account of what keeps each band from it
        except InputError:
            return None
        at = sentence(f"At a {lever.name} of ", lever.said(value))
        if choice.best is None:
            found = why_not(best, choice)
            return Sway(lever.field, value, "", sentence(at, " nothing can: ", found.text, "."))
        if band_key(choice.best) != band_key(best):
            label = choice.best.evaluation.facts.band.label
            why = why_not(best, choice).text
            return Sway(lever.field, value, label, sentence(at, f" it is {label}: ", why, "."))
    return None


def sways(job: Job) -> tuple[Sway, ...]:
    """What would change the choice: the nearest change each way of height, radius, frame, motor.

    Steps of 1, 3, 10 and 25 %; an input that changes nothing within a quarter is left out.
    """
    job = thinned(job)
    best = choose(job, brief=True).best
    if best is None:
        return ()
    found = (
        _changed(job, best, lever, direction)
        for lever in LEVERS
        if lever.read(job) is not None
        for direction in (-1, 1)
    )
    return tuple(s for s in found if s is not None)
