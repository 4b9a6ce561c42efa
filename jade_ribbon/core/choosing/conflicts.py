"""Hard conflicts: what excludes a band from a job, in words and figures."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

from jade_ribbon.core.bands.facts import HARD_TIPS, BandFacts, tension_columns
from jade_ribbon.core.bands.reach import frame_force_N
from jade_ribbon.core.bands.speed_choice import SpeedChoice, speed_range
from jade_ribbon.core.job import Candidate, Job, Saw
from jade_ribbon.core.mechanics.feed import FeedWindow, Limit
from jade_ribbon.core.mechanics.wear import effective_dullness
from jade_ribbon.core.quantities.words import Said, between, percent, quantity, sentence
from jade_ribbon.reference.tables import Material, Steel, ToothForm

WHEEL_RATIO_SHARE = 0.7
"""Share of the steel's own least D/t below which a band is excluded."""
LEAST_TEETH_METAL = 3
LEAST_TEETH_TUBE = 5
LEAST_TEETH_SHEET = 2
LEAST_TEETH_COARSEST = 2
"""A variable pitch never stands with fewer than these at its coarsest end."""
WIDTH_OVER_SHARE = 0.02
"""Nominal inch sizes: a band of 25.4 mm fits a saw for 25."""
LEAST_STRESS_SHARE, LEAST_STRESS_MPA = 0.6, 60.0
"""Under this share of a steel's low, or this stress, a band is not used: its edge is too soft."""
VERY_HARD_JANKA_N = 8000.0

LIMIT_WORDS: dict[Limit, str] = {
    "gullet": "full gullets",
    "power": "the motor",
    "stability": "the band twisting aside",
    "edge": "the front edge going slack",
    "hand": "your push",
    "bite": "the finish",
    "pace": "how fast it can be fed",
    "steering": "steering round the curve",
    "straight": "the accuracy asked",
    "grit": "what a grit edge can take off",
}
"""Each limit of the feed window as said to a person."""

LIMIT_MARKS: dict[Limit, str] = {
    "gullet": "full gullets",
    "power": "motor",
    "stability": "twists",
    "edge": "edge slack",
    "hand": "your push",
    "bite": "finish",
    "pace": "pace",
    "steering": "steering",
    "straight": "straight",
    "grit": "grit",
}
"""The same as a mark on a scale."""


@dataclass(frozen=True)
class Reason:
    """A conflict, choice or remark: stable key, and the sentence."""

    key: str
    text: Said
    gist: str = ""
    """The same in a few words; '' for what is only said on asking."""


def window_conflict(window: FeedWindow) -> Reason:
    """The reason of a shut window."""
    return Reason(
        "window_shut",
        sentence(
            f"No feed works: {LIMIT_WORDS[window.binding]} at ",
            quantity(window.ceiling_m_min, "feed"),
            ", but the teeth only rub below ",
            quantity(window.floor_m_min, "feed"),
        ),
    )


def least_teeth(job: Job) -> int:
    """Least teeth in the cut: 5 in tube and profile, 2 in sheet, 3 in metals, else the rule."""
    if job.cut.is_tube:
        return LEAST_TEETH_TUBE
    if job.cut.operation == "sheet":
        return LEAST_TEETH_SHEET
    if job.cut.material.is_metal:
        return LEAST_TEETH_METAL
    return job.rules.least_teeth


def is_dirty(material: Material) -> bool:
    """Sand or mud in the bark."""
    return "sand" in material.dust_hazard


def has_nails(job: Job) -> bool:
    """Metal may stand in the wood."""
    return job.cut.operation == "reclaim" or "nail" in job.cut.material.name.lower()


def mill_stock(material: Material) -> set[str]:
    """The words of tooth_forms `stock` that fit a material being milled."""
    words = set()
    if "frozen" in material.key:
        words.add("frozen")
    if (material.janka_N or 0.0) >= VERY_HARD_JANKA_N:
        words.add("very hard")
    if is_dirty(material):
        words.add("dirty")
    if "knot" in material.key:
        words.add("knotty")
    if material.group == "hardwood" and material.is_green:
        words.add("green hardwood")
    if material.group == "softwood" and material.is_green:
        words.add("clean green softwood")
    return words or {"mixed"}


def misfits(band: Candidate, saw: Saw) -> Iterator[Reason]:
    """Sizes in which a band does not go on a saw."""
    if band.length_mm is not None and not (
        saw.band_length_mm[0] <= band.length_mm <= saw.band_length_mm[1]
    ):
        yield Reason(
            "length",
            sentence(
                quantity(band.length_mm, "length"),
                " long; the saw takes ",
                between(*saw.band_length_mm, "length"),
            ),
        )
    narrowest, widest = saw.band_width_mm
    over = 1.0 + WIDTH_OVER_SHARE
    if not narrowest / over <= band.width_mm <= widest * over:
        yield Reason(
            "width",
            sentence(
                quantity(band.width_mm, "length"),
                " wide; the saw takes ",
                between(*saw.band_width_mm, "length"),
            ),
        )
    if band.thickness_mm > saw.band_thickness_max_mm * over:
        yield Reason(
            "thickness",
            sentence(
                quantity(band.thickness_mm, "thin"),
                " thick; the saw takes up to ",
                quantity(saw.band_thickness_max_mm, "thin"),
            ),
        )


def _fits_saw(band: Candidate, steel: Steel, job: Job) -> Iterator[Reason]:
    saw = job.saw
    yield from misfits(band, saw)
    ratio = saw.smallest_wheel_mm / band.thickness_mm
    least = WHEEL_RATIO_SHARE * steel.min_D_over_t
    if ratio < least:
        yield Reason(
            "wheel_ratio",
            f"Too thick for the wheels: {saw.smallest_wheel_mm:g}/{band.thickness_mm:g} = "
            f"{ratio:.0f}, under {least:.0f} it cracks early",
        )


def _fits_material(steel: Steel, form: ToothForm, job: Job) -> Iterator[Reason]:
    material = job.cut.material
    if steel.token not in material.steels_ok:
        yield Reason("steel", _steel_not_for(steel, job))
    elif tension_columns(steel, material)[1] is None:
        yield Reason("steel", f"{steel.name} has no tension for metal")
    hard = steel.token in HARD_TIPS
    if hard and has_nails(job):
        yield Reason("nails", "Hard tips shatter on nails: never in reclaimed timber")
    elif steel.token == "carbide_tipped" and is_dirty(material):
        yield Reason("dirt", "Carbide tips are wasted on sand and stones in bark")
    elif steel.token == "carbide_tipped" and material.is_wood and job.rules.hard_tips == "avoid":
        yield Reason("hard_tips", "House rule: no hard tips in wood")
    if form.materials_csv_token not in material.tooth_forms_preferred:
        yield Reason("form", _not_for(form, material))
    if form.operations != ("any",):
        yield from _mill_form(form, job)


def _steel_not_for(steel: Steel, job: Job) -> str:
    """Why a steel is left out: of old timber it is the nails, not the wood."""
    material = job.cut.material
    if has_nails(job):
        return f"{steel.name} is not for nails: old timber takes carbon or bi-metal"
    if steel.is_grit and material.is_wood:
        return f"{steel.name} grinds, and burns in wood"
    return f"{steel.name} is not for {material.name}"


def _not_for(form: ToothForm, material: Material) -> str:
    if form.is_knife:
        return f"A knife edge is not for {material.name}"
    return f"{form.name} teeth are not for {material.name}"


def _mill_form(form: ToothForm, job: Job) -> Iterator[Reason]:
    if job.cut.operation not in form.operations:
        yield Reason("form", f"{form.name} teeth are for milling logs")
    elif job.cut.operation == "mill":
        wanted = {part.strip() for part in form.stock.split(",")}
        if not wanted & mill_stock(job.cut.material):
            yield Reason("form", f"{form.name} teeth are for {form.stock} stock")


def _too_few_teeth(facts: BandFacts, job: Job, teeth: tuple[float, float]) -> Iterator[Reason]:
    """Mean teeth under the least; a variable pitch under two at its coarsest end."""
    mean, coarsest = teeth
    wanted = least_teeth(job)
    if not facts.has_teeth:
        return
    if mean < wanted - 1e-9:
        words = f"Too coarse: {mean:.1f} teeth stand in the cut, at least {wanted} wanted"
        yield Reason("teeth", words)
    elif coarsest < LEAST_TEETH_COARSEST - 1e-9:
        words = f"Too coarse: {coarsest:.1f} teeth stand in the cut at its coarsest pitch"
        yield Reason("teeth", f"{words}, never under {LEAST_TEETH_COARSEST}")


def _fits_throat(job: Job) -> Iterator[Reason]:
    need = job.cut.throat_need_mm
    if need is not None and need > job.saw.throat_mm:
        yield Reason(
            "throat",
            sentence(
                quantity(need, "length"),
                " must pass between band and column; the throat is ",
                quantity(job.saw.throat_mm, "length"),
            ),
        )


def _fits_cut(
    facts: BandFacts, job: Job, tight_radius_mm: float, teeth: tuple[float, float]
) -> Iterator[Reason]:
    cut, rates, band = job.cut, job.rates, facts.band
    share = facts.gullet_depth_mm / band.width_mm
    if share > rates.gullet_share_of_width:
        yield Reason(
            "gullet_depth",
            sentence(
                "Gullets ",
                quantity(facts.gullet_depth_mm, "thin"),
                f" deep take {percent(share)} of the width; at most ",
                percent(rates.gullet_share_of_width),
            ),
        )
    yield from _too_few_teeth(facts, job, teeth)
    if cut.min_radius_mm is not None and tight_radius_mm > cut.min_radius_mm:
        yield Reason(
            "radius",
            sentence(
                "Turns ",
                quantity(tight_radius_mm, "length"),
                " at the tightest; the job asks ",
                quantity(cut.min_radius_mm, "length"),
            ),
        )
    limit = rates.dullness_limit(cut.finish, job.rules)
    felt = effective_dullness(edge_dullness=band.dullness, fouled=band.fouling)
    if felt > limit:
        gum = " with the gum on it: clean it first" if band.dullness <= limit else ""
        yield Reason("dull", f"Too dull: {felt:.2f}{gum}; at most {limit:g} for this finish")


def _fits_force(facts: BandFacts, reachable_MPa: float, job: Job) -> Iterator[Reason]:
    high = facts.stress_high_MPa
    if job.stress_MPa is not None and high is not None and job.stress_MPa > high:
        yield Reason(
            "stress",
            sentence(
                quantity(job.stress_MPa, "stress"),
                " is over the ",
                quantity(high, "stress"),
                f" that {facts.steel.name} is tensioned to",
            ),
        )
    low = facts.stress_low_MPa
    if low is None or not job.saw.force_known:
        return  # an assumption excludes nothing: it lowers the class, and is told
    least = max(LEAST_STRESS_SHARE * low, LEAST_STRESS_MPA)
    if reachable_MPa < least:
        yield Reason(
            "frame_force",
            sentence(
                "The frame's ",
                quantity(frame_force_N(job.saw), "force"),
                " reaches ",
                quantity(reachable_MPa, "stress"),
                " in it; under ",
                quantity(least, "stress"),
                " its edge goes slack at a touch",
            ),
        )


def hot_conflict(window: FeedWindow, job: Job) -> Reason | None:
    """A hot cut of a metal that work-hardens is no cut: rubbing hardens it at once."""
    if window.state == "open" or not job.cut.material.work_hardens:
        return None
    return Reason(
        "work_hardens",
        sentence(
            f"{job.cut.material.name} hardens where it is rubbed: ",
            f"{LIMIT_WORDS[window.binding]} at ",
            quantity(window.ceiling_m_min, "feed"),
            ", but the teeth bite from ",
            quantity(window.floor_m_min, "feed"),
        ),
    )


DEFECT_WORDS = {
    "crack": "It has a crack: scrap it",
    "kink": "It is kinked: off the saw until mended",
    "weld_stepped": "Its weld is stepped: off the saw until mended",
    "teeth_lost": "It has lost more teeth than this shop allows: off the saw",
}
"""Damage, the gravest first."""


def barring(defects: Sequence[str], *, teeth_lost: int, allowed: int) -> tuple[str, ...]:
    """Defects that keep a band off the saw: all but as many lost teeth as the shop allows.

    >>> barring(("teeth_lost",), teeth_lost=1, allowed=1)
    ()
    """
    return tuple(d for d in defects if d != "teeth_lost" or teeth_lost > allowed)


def damage_words(defects: Sequence[str]) -> str:
    """What keeps a damaged band off the saw; '' for a sound one."""
    return next((words for key, words in DEFECT_WORDS.items() if key in defects), "")


KEPT_FOR: dict[str, tuple[str, Callable[[Job], bool]]] = {
    "rough": ("rough work only", lambda job: job.cut.finish == "rough"),
    "old_timber": ("old timber only", lambda job: has_nails(job)),
    "firewood": (
        "firewood only",
        lambda job: job.cut.operation == "crosscut" and job.cut.finish == "rough",
    ),
    "show": ("show faces only", lambda job: job.cut.finish == "show"),
}
"""A use a band is kept for, and which jobs are of it."""


def _fit_for_use(facts: BandFacts, job: Job) -> Iterator[Reason]:
    """Damage not mended, and a use it is kept for that is not this job."""
    band, allowed = facts.band, job.rates.teeth_missing_allowed
    for defect in barring(band.defects, teeth_lost=band.teeth_lost, allowed=allowed):
        yield Reason("defect", damage_words((defect,)))
    if facts.band.kept_for in KEPT_FOR:
        words, suits = KEPT_FOR[facts.band.kept_for]
        if not suits(job):
            yield Reason("kept_for", f"Kept for {words}")


def conflicts_by_kind(band: Candidate, steel: Steel, form: ToothForm, job: Job) -> Iterator[Reason]:
    """What a band's size, steel and teeth alone have against it."""
    yield from _fits_saw(band, steel, job)
    yield from _fits_material(steel, form, job)


def conflicts_before_speed(
    facts: BandFacts,
    job: Job,
    *,
    reachable_MPa: float,
    tight_radius_mm: float,
    teeth: tuple[float, float],
    speed: SpeedChoice | None,
    kind_fits: bool = False,
) -> Iterator[Reason]:
    """All conflicts that need no feed window, one by one.

    `kind_fits`: size, steel and teeth were looked at before, and nothing is against them.
    """
    if not kind_fits:
        yield from conflicts_by_kind(facts.band, facts.steel, facts.form, job)
    yield from _fits_throat(job)
    yield from _fits_cut(facts, job, tight_radius_mm, teeth)
    yield from _fits_force(facts, reachable_MPa, job)
    yield from _fit_for_use(facts, job)
    if speed is None:
        most = speed_range(facts.steel, job.cut.material).most_m_s
        yield Reason(
            "speed",
            sentence(
                "The saw's slowest ",
                quantity(job.saw.drive.slowest_m_s, "speed"),
                " is over the ",
                quantity(most, "speed"),
                f" this steel stands in {job.cut.material.name}",
            ),
        )
