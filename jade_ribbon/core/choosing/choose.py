"""Ranking the bands of a job: classes, width, pitch, cost (docs/model, "Choosing")."""

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace

from jade_ribbon.core.bands.speed_choice import too_fast_for_any_steel
from jade_ribbon.core.choosing.conflicts import Reason, is_dirty
from jade_ribbon.core.choosing.cost import Cost
from jade_ribbon.core.choosing.evaluate import evaluate_bands
from jade_ribbon.core.choosing.lot import Lot, lots
from jade_ribbon.core.choosing.operating_point import Evaluation, RunFigures
from jade_ribbon.core.job import DEEP_RESAW_OPERATIONS, ROUNDED, STRAIGHT_OPERATIONS, Cut, Job
from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.quantities.words import quantity, sentence

STRESS_SHARE_WANTED = 0.85
HOURS_WANTED = 20.0
HOURS_LEAST = 2.0
WIDTH_EQUAL_SHARE = 0.75
"""Widths within a quarter of the widest count as equal."""
PITCH_FACTOR = 1.4
CLOSE_SHARE = 0.10
"""Costs within a tenth are too close to call; a less preferred form must beat by as much."""
WOOD_PITCH, PLASTIC_PITCH = (1.3, 0.45), (0.8, 0.6)
CROSSCUT_PITCH, METAL_PITCH = (0.38, 0.6), (0.32, 0.7)
"""Pitch wanted: a mm x (height/1 mm)^b; customary charts within one step, 6 to 600 mm."""
FINEST_WANTED_MM = 1.4
BY_IDEAL_TEETH = ("carbon", "foam", "rubber", "leather", "cork")
"""Groups whose pitch is height over the low end of their ideal teeth, as in milling."""
TIPPED_PITCH_SHARE = 0.5
"""A ground tip leaves at twice the pitch the face of a set tooth: tipped bands count at half."""
FINE_PITCH_AT_50_MM = 2.5
FINE_HEIGHT_EXPONENT = 0.4
GLUE_COARSER = 1.6
"""Glue lines clog and notch fine teeth: the fine ladder goes this much coarser."""

HOT_CLASS, RUBS_CLASS, HOURS_CLASS, REST_CLASS, USED_UP_CLASS = 2, 3, 4, 5, 6
"""Classes from the first of these on are slow and hot, or give something up."""

CLASS_WORDS = (
    "within every limit",
    "within every limit, but with few bending hours",
    "slow and hot: the feed is under the clean bite",
    "slow, and the teeth rub: it cuts hot, stop at smoke",
    "with bending hours ignored",
    "with something given up: tension, or the comfortable radius",
    "with an edge that one piece would use up",
)


@dataclass(frozen=True)
class Ranked:
    """A feasible band and where it stands."""

    evaluation: Evaluation
    run: RunFigures
    band_class: int
    in_width: bool
    in_pitch: bool
    lot: Lot | None = None
    """The whole job on this band; only looked at for those in the running and those shown."""

    @property
    def cost(self) -> Cost:
        """Money a piece: over the whole lot where that was looked at, else as the edge is now."""
        return self.lot.cost if self.lot is not None else self.run.cost

    @property
    def total(self) -> float:
        return self.cost.total

    @property
    def class_words(self) -> str:
        return CLASS_WORDS[self.band_class]


@dataclass(frozen=True)
class Choice:
    """The answer: ranked bands best first, excluded ones, or the stop that forbids it."""

    ranked: tuple[Ranked, ...]
    excluded: tuple[Evaluation, ...]
    stop: Reason | None
    wanted_pitch_mm: float
    pitch_rule: str

    @property
    def best(self) -> Ranked | None:
        return self.ranked[0] if self.ranked and self.stop is None else None

    @property
    def cheapest(self) -> Ranked | None:
        return min(self.ranked, key=lambda r: r.total, default=None)


def used_up_by_a_piece(e: Evaluation, job: Job) -> bool:
    """Whether one piece takes the edge past the limit of its finish."""
    if e.run is None:
        return False
    after = e.facts.band.dullness + e.run.equivalent_m / e.facts.life_m
    return after > job.rates.dullness_limit(job.cut.finish, job.rules)


def class_of(e: Evaluation, job: Job) -> int:
    """0..6, the lowest class a feasible band meets."""
    assert e.window is not None and e.fatigue is not None
    if used_up_by_a_piece(e, job):
        return USED_UP_CLASS
    widest = job.rules.resaw_width == "widest"
    tense = widest or e.stress_share >= STRESS_SHARE_WANTED - 1e-9
    radius = job.cut.min_radius_mm
    roomy = radius is None or e.comfortable_radius_mm <= radius
    if not (tense and roomy):
        return REST_CLASS
    hours = e.fatigue.running_hours
    if hours < HOURS_LEAST:
        return HOURS_CLASS
    if e.window.state == "rubs":
        return RUBS_CLASS
    if e.window.state == "hot":
        return HOT_CLASS
    return 0 if hours >= HOURS_WANTED else 1


def pitch_rule(job: Job) -> str:
    """Coarse or fine: the house rule for deep straight cuts; thin slices go fine."""
    if job.cut.operation == "veneer" and job.cut.finish != "rough":
        return "fine"
    return job.rules.resaw_pitch if job.cut.operation in DEEP_RESAW_OPERATIONS else "coarse"


def wanted_pitch_mm(job: Job) -> float:
    """Pitch aimed at, mm: by the height and the material, or the fine ladder.

    The fine ladder is 2.5 mm x (height/50 mm)^0.4, coarser in glue-laden stock. Milling,
    composites, foam and rubber want height over the low end of their ideal teeth.

    Source: customary width and pitch charts; docs/model "Choosing".
    """
    cut = job.cut
    height = cut.pitch_height_mm
    if pitch_rule(job) == "fine":
        ladder = FINE_PITCH_AT_50_MM * float((height / 50.0) ** FINE_HEIGHT_EXPONENT)
        return ladder * (GLUE_COARSER if "glue" in cut.material.cautions else 1.0)
    material = cut.material
    if cut.is_tube or material.is_metal:
        at_one, exponent = METAL_PITCH
    elif cut.operation == "mill" or material.group in BY_IDEAL_TEETH:
        return max(height / material.teeth_in_cut_ideal_lo, FINEST_WANTED_MM)
    elif material.group == "plastic":
        at_one, exponent = PLASTIC_PITCH
    elif cut.operation == "crosscut" and material.is_wood:
        at_one, exponent = CROSSCUT_PITCH
    else:
        at_one, exponent = WOOD_PITCH
    return max(at_one * float(height**exponent), FINEST_WANTED_MM)


def counted_pitch_mm(e: Evaluation, job: Job) -> float:
    """Pitch a band counts at: under the fine rule a tipped one at half its own."""
    tipped = e.facts.steel.token in ("carbide_tipped", "cobalt_tipped")
    half = tipped and pitch_rule(job) == "fine"
    return e.facts.pitch_mm * (TIPPED_PITCH_SHARE if half else 1.0)


def _pitch_off(e: Evaluation, wanted: float, job: Job) -> float:
    """How far off the wanted pitch, as a logarithm; a knife has none to be off by."""
    if e.facts.form.is_knife:
        return 0.0
    return abs(math.log(counted_pitch_mm(e, job) / wanted))


def _near_pitch(pool: Sequence[Evaluation], wanted: float, job: Job) -> list[Evaluation]:
    """Pitches within a factor 1.4 of the wanted, else those nearest it."""
    limit = math.log(PITCH_FACTOR) + 1e-9
    near = [e for e in pool if _pitch_off(e, wanted, job) <= limit]
    if near or not pool:
        return near
    least = min(_pitch_off(e, wanted, job) for e in pool)
    return [e for e in pool if _pitch_off(e, wanted, job) <= least + 1e-9]


LAST_RESORT = {"crosscut": "hook"}
"""A form that an operation in wood takes only where nothing else is."""


def _not_last_form(pool: Sequence[Evaluation], job: Job) -> Sequence[Evaluation]:
    """Without the form that stays a last resort here, where there is any other.

    Across the grain of wood that is hook; a thick wall or bar is no reason for the form its
    material lists last.
    """
    material, operation = job.cut.material, job.cut.operation
    last = LAST_RESORT.get(operation) if material.is_wood else None
    if material.is_metal and operation in ("tube", "bar", "block"):
        last = material.tooth_forms_preferred[-1]
    others = [e for e in pool if e.facts.form.materials_csv_token != last]
    return others or pool


def _width_group(pool: Sequence[Evaluation], job: Job, wanted: float) -> list[Evaluation]:
    """Widths that count as equal under the house rule; in metals width does not decide.

    Under the fine rule it goes narrower until the wanted pitch exists.
    """
    widths = sorted({e.facts.band.width_mm for e in pool}, reverse=True)
    if not widths or job.cut.material.is_metal:
        return list(pool)
    if job.rules.resaw_width == "narrow":
        return [e for e in pool if e.facts.band.width_mm == widths[-1]]

    def group(widest: float) -> list[Evaluation]:
        least = WIDTH_EQUAL_SHARE * widest - 1e-9
        return [e for e in pool if least <= e.facts.band.width_mm <= widest]

    if pitch_rule(job) == "fine":
        limit = math.log(PITCH_FACTOR) + 1e-9
        for width in widths:
            if any(_pitch_off(e, wanted, job) <= limit for e in group(width)):
                return group(width)
    return group(widths[0])


def _form_rank(e: Evaluation, job: Job) -> int:
    return job.cut.material.tooth_forms_preferred.index(e.facts.form.materials_csv_token)


def _steel_key(job: Job) -> Callable[[Ranked], float]:
    """What the steel rule minimises: cost, the reverse of life, or the band's price."""
    if job.rules.steel == "long_life":
        return lambda r: -r.evaluation.facts.life_m
    if job.rules.steel == "cheap":
        return lambda r: r.evaluation.facts.price
    return lambda r: r.total


def _of_dirty_steel(
    feasible: Sequence[Evaluation], classes: Mapping[int, int], job: Job
) -> list[Evaluation]:
    """In dirty stock the bands of the steel that the house rule names, in a class that cuts."""
    if not is_dirty(job.cut.material):
        return []
    token = {"carbon": "carbon", "silicon": "silicon_steel"}[job.rules.dirty_steel]
    return [e for e in feasible if e.facts.steel.token == token and classes[id(e)] < HOURS_CLASS]


def pick(pool: list[Ranked], job: Job) -> Ranked:
    """The winner of the last group: cheapest, forms in order, then the larger margin."""
    key = _steel_key(job)
    left = pool
    winner: Ranked | None = None
    for rank in sorted({_form_rank(r.evaluation, job) for r in left}):
        best = min((r for r in left if _form_rank(r.evaluation, job) == rank), key=key)
        if winner is None or best.total < (1.0 - CLOSE_SHARE) * winner.total:
            winner = best
    assert winner is not None
    if job.rules.steel != "cost":
        return winner
    token = winner.evaluation.facts.form.materials_csv_token
    close = [
        r
        for r in left
        if r.evaluation.facts.form.materials_csv_token == token
        and r.total <= (1.0 + CLOSE_SHARE) * winner.total
    ]
    return max(close, key=lambda r: (r.run.margin, -r.total))


def _left_on(ranked: Sequence[Ranked], job: Job) -> Ranked | None:
    """Under the rule of one all-round band: the one on the saw, where it can do the job."""
    if job.rules.how_many_bands == "as_needed":
        return None
    return next((r for r in ranked if r.evaluation.facts.band.mounted), None)


def _saw_faults(job: Job) -> list[Fault]:
    """Faults between the cut and this saw."""
    cut, saw = job.cut, job.saw
    faults = []
    if cut.standing_height_mm > saw.height_mm:
        faults.append(
            Fault(
                "cut.height_mm",
                sentence(
                    quantity(cut.standing_height_mm, "length"),
                    " does not go under the guides; accepted: up to the saw's ",
                    quantity(saw.height_mm, "length"),
                ),
                cut.height_mm,
            )
        )
    span = saw.guide_span_mm(cut.standing_height_mm, job.rules.guard_gap_mm)
    if cut.standing_height_mm > span:
        faults.append(
            Fault(
                "saw.guide_span_per_height",
                sentence(
                    "the guide span ",
                    quantity(span, "length"),
                    " is less than the cut height; accepted: a span of at least ",
                    quantity(cut.height_mm, "length"),
                ),
                saw.guide_span_per_height,
            )
        )
    return faults


def _stock_faults(cut: Cut) -> list[Fault]:
    """Faults within the cut: wall, log and grain against the rest of it."""
    faults = []
    if cut.operation in ROUNDED and cut.min_radius_mm is None:
        faults.append(
            Fault("cut.min_radius_mm", "is missing; a curve or blank has one, more than 0 mm")
        )
    if cut.is_tube and cut.wall_mm is None:
        faults.append(Fault("cut.wall_mm", "is missing; a tube needs its wall, more than 0 mm"))
    if cut.is_tube and cut.wall_mm is not None and 2 * cut.wall_mm > cut.height_mm:
        faults.append(
            Fault(
                "cut.wall_mm",
                sentence(
                    quantity(cut.wall_mm, "length"),
                    " twice is more than the height; accepted: up to ",
                    quantity(cut.height_mm / 2, "length"),
                ),
                cut.wall_mm,
            )
        )
    log = cut.log_diameter_mm
    if cut.operation == "mill" and log is not None and cut.height_mm > log * (1 + 1e-9):
        faults.append(
            Fault(
                "cut.height_mm",
                sentence(
                    quantity(cut.height_mm, "length"),
                    " is more than the log is through; accepted: up to the log's ",
                    quantity(log, "length"),
                ),
                cut.height_mm,
            )
        )
    if cut.stood_on_end and not cut.material.is_wood:
        faults.append(
            Fault(
                "cut.stood_on_end",
                f"{cut.material.name} has no grain to run along; accepted: false",
                True,
            )
        )
    return faults


def check_job(job: Job) -> None:
    """Faults that make the job itself senseless on this saw."""
    if faults := [*_saw_faults(job), *_stock_faults(job.cut)]:
        raise InputError(faults)


def stop_of(job: Job) -> Reason | None:
    """The stop that no step in the shop can lift."""
    material = job.cut.material
    if material.group == "ferrous" and too_fast_for_any_steel(job.saw.drive, material):
        return Reason(
            "ferrous_wood_speed",
            sentence(
                "The slowest speed, ",
                quantity(job.saw.drive.slowest_m_s, "speed"),
                f", is over what any band steel stands in {material.name}",
            ),
        )
    return None


LOOKED_AT = 40
"""Bands of the last group whose whole lot is looked at, the cheapest of them now."""


def _with_lots(
    ranked: Sequence[Ranked], job: Job, beside: int, left_on: Ranked | None
) -> list[Ranked]:
    """The ranked bands, those in the last group and some beside with the whole lot looked at.

    Of a last group of very many, those that cost least as their edges are now.
    """
    group = sum(r.in_pitch for r in ranked)
    wanted = ranked[: max(min(group, LOOKED_AT), beside)]
    if group > LOOKED_AT:
        by_rule = min(ranked[:group], key=_steel_key(job))
        wanted = wanted if by_rule in wanted else [*wanted, by_rule]
    if left_on is not None and all(r is not left_on for r in wanted):
        wanted = [*wanted, left_on]
    found = lots([r.evaluation for r in wanted], job)
    seen = [replace(r, lot=lot) for r, lot in zip(wanted, found, strict=True)]
    last = sorted((r for r in seen if r.in_pitch), key=lambda r: r.total)
    looked_at = {id(r) for r in wanted}
    rest = [r for r in ranked if id(r) not in looked_at]
    return [*last, *(r for r in seen if not r.in_pitch), *rest]


def choose(job: Job, *, brief: bool = False, beside: int = 0) -> Choice:
    """Rank all bands of a job. Raises InputError with every fault of job and bands.

    The last group is ranked by the cost over the whole lot; so many `beside` it have it too.
    `brief` does not keep account of bands excluded: for types to buy, which are many.
    """
    check_job(job)
    evaluations = evaluate_bands(job.bands, job, brief=brief)
    feasible = [e for e in evaluations if not e.conflicts]
    excluded = tuple(e for e in evaluations if e.conflicts)
    wanted = wanted_pitch_mm(job)
    classes = {id(e): class_of(e, job) for e in feasible}
    dirty = _of_dirty_steel(feasible, classes, job)
    first = min((classes[id(e)] for e in dirty or feasible), default=0)
    pool = [e for e in dirty or feasible if classes[id(e)] == first]
    in_width = _width_group(pool, job, wanted)
    in_pitch = _near_pitch(_not_last_form(in_width, job), wanted, job)
    width_ids, pitch_ids = {id(e) for e in in_width}, {id(e) for e in in_pitch}
    ranked = [
        Ranked(e, e.run, classes[id(e)], id(e) in width_ids, id(e) in pitch_ids)
        for e in feasible
        if e.run is not None
    ]
    if job.rules.narrow_straight == "impossible" and job.cut.operation in STRAIGHT_OPERATIONS:
        ranked = [r for r in ranked if r.band_class == first or r.band_class < HOT_CLASS]
    ranked.sort(key=lambda r: (not r.in_pitch, r.band_class, not r.in_width, r.total))
    ranked = _with_lots(ranked, job, beside, _left_on(ranked, job))
    final = [r for r in ranked if r.in_pitch and r.lot is not None]
    if final:
        winner = _left_on(ranked, job) or pick(final, job)
        ranked = [winner, *(r for r in ranked if r is not winner)]
    return Choice(tuple(ranked), excluded, stop_of(job), wanted, pitch_rule(job))
