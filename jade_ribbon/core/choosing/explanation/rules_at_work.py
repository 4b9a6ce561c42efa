"""House rules that moved a result; one that changed nothing is not named."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, replace

from jade_ribbon.core.choosing.choose import Choice, Ranked, choose
from jade_ribbon.core.choosing.conflicts import has_nails, is_dirty
from jade_ribbon.core.choosing.explanation.alike import kind_of, thinned
from jade_ribbon.core.choosing.operating_point import comfort_factor
from jade_ribbon.core.job import DEEP_RESAW_OPERATIONS, STRAIGHT_OPERATIONS, Job
from jade_ribbon.reference.tables import house_rules


@dataclass(frozen=True)
class RuleApplied:
    """A house rule that touched the result."""

    rule: str
    choice: str
    why: str


@dataclass(frozen=True)
class _Case:
    """A choice with the bands of its first class, and those left by width and pitch."""

    choice: Choice
    job: Job
    first: tuple[Ranked, ...]
    final: tuple[Ranked, ...]

    def shut_out(self, key: str) -> bool:
        """Whether a conflict alone keeps some band from the job."""
        return any({c.key for c in e.conflicts} == {key} for e in self.choice.excluded)

    def steels(self) -> int:
        return len({r.evaluation.facts.steel.key for r in self.final})


def _radius(case: _Case) -> bool:
    radius = case.job.cut.min_radius_mm
    return radius is not None and any(
        r.evaluation.comfortable_radius_mm > radius for r in case.choice.ranked
    )


def _least_teeth(case: _Case) -> bool:
    cut = case.job.cut
    return case.shut_out("teeth") and not (cut.is_tube or cut.material.is_metal)


def _mill_speed(case: _Case) -> bool:
    speed = case.choice.ranked[0].evaluation.speed
    off = speed is not None and abs(speed.off_target_share) > 1e-9
    return case.job.cut.operation == "mill" and (off or case.job.rules.mill_speed != "matched")


def _narrow(case: _Case) -> bool:
    straight = case.job.cut.operation in STRAIGHT_OPERATIONS
    return straight and case.job.rules.narrow_straight == "impossible"


NO_TEETH_RULE = ("tube", "sheet")
"""Operations whose least teeth are their own."""
CAN_MATTER: Mapping[str, Callable[[Job], bool]] = {
    "resaw_pitch": lambda j: j.cut.operation in DEEP_RESAW_OPERATIONS,
    "least_teeth": lambda j: not (j.cut.operation in NO_TEETH_RULE or j.cut.material.is_metal),
    "radius": lambda j: j.cut.min_radius_mm is not None,
    "hard_tips": lambda j: j.cut.material.is_wood and not is_dirty(j.cut.material),
    "dirty_steel": lambda j: is_dirty(j.cut.material),
    "how_many_bands": lambda j: any(band.mounted for band in j.bands),
    "mill_speed": lambda j: j.cut.operation == "mill",
    "narrow_straight": lambda j: j.cut.operation in STRAIGHT_OPERATIONS,
    "old_metal": has_nails,
}
"""By rule, the jobs that it can bear on; one that is not here bears on any."""


def offered(job: Job) -> tuple[str, ...]:
    """House rules that can matter for a job, in order."""
    return tuple(rule for rule in AT_WORK if rule not in CAN_MATTER or CAN_MATTER[rule](job))


AT_WORK: Mapping[str, Callable[[_Case], bool]] = {
    "resaw_width": lambda c: (
        any(not r.in_width for r in c.first) or c.job.rules.resaw_width == "widest"
    ),
    "resaw_pitch": lambda c: (
        any(r.in_width and not r.in_pitch for r in c.first) or c.choice.pitch_rule == "fine"
    ),
    "least_teeth": _least_teeth,
    "tension": lambda c: c.job.rules.tension == "light",
    "radius": _radius,
    "feed_pace": lambda c: c.job.rules.feed_pace == "finish" or c.job.cut.finish == "show",
    "kerf": lambda c: c.job.rules.kerf != "material",
    "steel": lambda c: c.job.rules.steel != "cost" or c.steels() > 1,
    "change": lambda c: c.job.rules.change != "demote" or c.shut_out("dull"),
    "hard_tips": lambda c: c.shut_out("hard_tips"),
    "dirty_steel": lambda c: is_dirty(c.job.cut.material),
    "mill_speed": _mill_speed,
    "narrow_straight": _narrow,
    "old_metal": lambda c: has_nails(c.job),
    "how_many_bands": lambda c: c.job.rules.how_many_bands != "as_needed",
}
"""By rule, whether it moved this result: without it another band, or other figures."""


SAID_ANYHOW = ("old_metal",)
"""What moves no band, and is done beside the cut."""


def other_schools(job: Job, rule: str) -> Iterator[tuple[str, Job]]:
    """The job under each other choice of a rule."""
    now = getattr(job.rules, rule)
    for choice in house_rules()[rule].choices:
        value = type(now)(choice)
        if value != now:
            rules = replace(job.rules, **{rule: value})
            yield choice, replace(job, rules=rules)


def _as_run(ranked: Ranked | None) -> tuple[object, ...]:
    """What a choice comes to at the saw: which kind of band, how fast, how tight."""
    if ranked is None:
        return ()
    e = ranked.evaluation
    speed = 0.0 if e.speed is None else e.speed.speed_m_s
    figures = (f"{x:.6g}" for x in (speed, ranked.run.feed_m_min, e.stress_MPa))
    return (*kind_of(e.facts.band), *figures)


def _moves(best: Ranked | None, few: Job, rule: str) -> bool:
    """Whether under another school of a rule another band is run, or the same otherwise."""
    others = (choose(other, brief=True).best for _, other in other_schools(few, rule))
    return any(_as_run(other) != _as_run(best) for other in others)


def rules_applied(best: Ranked | None, choice: Choice, job: Job) -> tuple[RuleApplied, ...]:
    """House rules that moved this result, and what following them costs.

    One that changed nothing is not named.
    """
    if not choice.ranked:
        return ()
    table = house_rules()
    more = {
        "resaw_width": _price_of_rules(best, choice),
        "radius": f" Factor {comfort_factor(job):g} on the tightest.",
    }
    chosen = {"resaw_pitch": choice.pitch_rule}

    def line(key: str) -> RuleApplied:
        rule, value = table[key], str(chosen.get(key, getattr(job.rules, key)))
        why = f"{rule.title}: {rule.name_of(value)}.{more.get(key, '')}"
        return RuleApplied(key, value, why)

    first = tuple(r for r in choice.ranked if r.band_class == choice.ranked[0].band_class)
    case = _Case(choice, job, first, tuple(r for r in first if r.in_pitch))
    perhaps = [key for key, moved in AT_WORK.items() if moved(case)]
    few = thinned(job)
    return tuple(line(key) for key in perhaps if key in SAID_ANYHOW or _moves(best, few, key))


def _price_of_rules(best: Ranked | None, choice: Choice) -> str:
    cheapest = choice.cheapest
    if best is None or cheapest is None or cheapest is best:
        return ""
    extra = best.total - cheapest.total
    if extra <= 0.005:
        return ""
    return (
        f" Costs {extra:.2f} a piece more than the cheapest that could do it, "
        f"{cheapest.evaluation.facts.band.label}."
    )
