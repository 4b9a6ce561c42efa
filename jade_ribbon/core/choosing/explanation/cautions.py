"""Which cautions apply to a saw, band and cut; the words are in the reference table."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from jade_ribbon.core.bands.slow_pass import SlowPass, slow_pass
from jade_ribbon.core.choosing.choose import Ranked, stop_of
from jade_ribbon.core.choosing.conflicts import has_nails
from jade_ribbon.core.choosing.operating_point import stability_factor
from jade_ribbon.core.job import Job
from jade_ribbon.core.quantities.words import Sentence, Words, figure, fill, quantity
from jade_ribbon.reference.tables import CautionLevel, caution_texts

LONG_STOCK_MM = 1800.0
MILL_FAST_M_S = 30.0
"""Mills run their bands at 15 to 30 m/s."""
FEW_HOURS = 20.0
LEVEL_ORDER: tuple[CautionLevel, ...] = ("stop", "caution", "note")
DISCLAIMER = (
    "The saw's manual, your local codes and a competent or licensed person come before "
    "anything shown here."
)
RESPIRATORY = ("sensitis", "silica", "respir", "toxic", "carcinogen", "conduct", "isocyan", "glass")


@dataclass(frozen=True)
class Caution:
    """One caution for this job; a stop must be acknowledged by name."""

    key: str
    level: CautionLevel
    text: Sentence
    standing: bool = False
    """It holds at this saw whatever is cut, and says nothing of this job."""


OLD_METAL = {
    "compare": "Weigh digging it out against bands and speed, by cost.",
    "dig_out": "House rule: dig the metal out first.",
    "saw_through": "House rule: saw through, slowly, with a band that may be spent.",
}

COOLANTS = {
    "flood": "Flood coolant on the cut and on both faces of the band, on a saw made for it; "
    "wax or mist on one that is not.",
    "mist": "A mist or a wax stick at the band, little and steady.",
    "air": "An air jet at the cut: it carries off chips and heat, and wets nothing.",
}
"""What the material's column of coolant asks for."""

Rule = Callable[[Job, Ranked | None], bool]


def _hand(job: Job) -> bool:
    return job.saw.feed == "hand"


def _woody(job: Job) -> bool:
    return job.cut.material.is_wood or job.cut.material.group == "panel"


def _light_metal(job: Job) -> bool:
    return any(word in job.cut.material.key for word in ("aluminium", "magnesium"))


def _hazardous(job: Job) -> bool:
    return any(word in job.cut.material.dust_hazard for word in RESPIRATORY)


def _turning(job: Job) -> bool:
    return job.cut.operation in ("curve", "circle")


def _over_target(job: Job, best: Ranked | None) -> bool:
    speed = best.evaluation.speed if best else None
    return job.cut.material.is_metal and speed is not None and speed.off_target_share > 0.02


def _overspeed(_: Job, best: Ranked | None) -> bool:
    return (
        best is not None and best.evaluation.speed is not None and best.evaluation.speed.over_most
    )


def _hard_tips(best: Ranked | None) -> bool:
    return best is not None and best.evaluation.facts.hard_tips


def _tricky_log(job: Job, best: Ranked | None) -> bool:
    """A frozen or knotty log, and an edge that is not fresh."""
    tricky = any(word in job.cut.material.key for word in TRICKY)
    return tricky and best is not None and best.evaluation.facts.band.dullness > FRESH


TRICKY, FRESH = ("frozen", "knotty"), 0.25
"""Logs that a fresh edge is kept for, and how dull an edge still counts as fresh."""


def _hot(_: Job, best: Ranked | None) -> bool:
    return (
        best is not None
        and best.evaluation.window is not None
        and best.evaluation.window.state in ("hot", "rubs")
    )


def _fast_mill(job: Job, best: Ranked | None) -> bool:
    speed = best.evaluation.speed if best else None
    return job.saw.is_mill and speed is not None and speed.speed_m_s > MILL_FAST_M_S


def _past_metal(job: Job, best: Ranked) -> SlowPass:
    return slow_pass(best.evaluation.facts, job, best.run.feed_m_min)


def _nails_fast(job: Job, best: Ranked | None) -> bool:
    """Faster into nails, band or feed, than metal is passed at."""
    if best is None or best.evaluation.speed is None or not has_nails(job):
        return False
    slow = _past_metal(job, best)
    return best.evaluation.speed.speed_m_s > slow.speed_m_s or best.run.feed_m_min > slow.feed_m_min


def _few_hours(_: Job, best: Ranked | None) -> bool:
    fatigue = best.evaluation.fatigue if best else None
    return fatigue is not None and fatigue.running_hours < FEW_HOURS


DOWN = ("detector", "extraction", "lubricant", "scraper")
"""Accessories whose failing is a caution in wood, and not only wear."""


def _down(key: str) -> Callable[[Job, Ranked | None], bool]:
    return lambda job, _: key in job.saw.down and job.cut.material.is_wood


ALWAYS = (
    "isolate",
    "handling",
    "doors_guard",
    "eyes_ears",
    "brake",
    "tensioning",
    "cracked_band",
    "band_off",
    "electric",
)

STARTS = ("before_start", "before_start_mill", "before_start_metal")
STANDING = frozenset((*ALWAYS, *STARTS, "hands"))

RULES: Mapping[str, Rule] = {
    **{key: lambda _j, _b: True for key in ALWAYS},
    "hands": lambda job, _: job.saw.orientation == "vertical",
    "before_start": lambda job, _: not (job.saw.is_mill or job.saw.is_metal_saw),
    "round_stock": lambda job, _: job.cut.round_stock and job.cut.operation != "mill",
    "unsupported": lambda job, _: _turning(job),
    "curves": lambda job, _: _turning(job),
    "metal_in_wood": lambda job, _: has_nails(job),
    "old_timber": lambda job, _: has_nails(job),
    "ferrous_wood_speed": lambda job, _: stop_of(job) is not None,
    "magnesium": lambda job, _: "magnesium" in job.cut.material.key,
    "light_metal_dust": lambda job, _: _light_metal(job),
    "metal_on_wood_saw": lambda job, _: job.cut.material.is_metal and not job.saw.is_metal_saw,
    "metal_chips": lambda job, _: job.cut.material.is_metal and job.saw.is_metal_saw,
    "before_start_mill": lambda job, _: job.saw.is_mill,
    "before_start_metal": lambda job, _: job.saw.is_metal_saw,
    "dust": lambda job, _: _hazardous(job),
    "dust_general": lambda job, _: _woody(job) and not _hazardous(job),
    "conducting_dust": lambda job, _: "conduct" in job.cut.material.dust_hazard,
    "plastics": lambda job, _: job.cut.material.group == "plastic",
    "foam": lambda job, _: job.cut.material.group == "foam",
    "brass_fast": lambda job, best: "brass" in job.cut.material.key and _overspeed(job, best),
    "shakes": lambda job, best: _hard_tips(best) and job.saw.shakes,
    "tricky_log": _tricky_log,
    "knife_edge": lambda _, best: best is not None and best.evaluation.facts.form.is_knife,
    "resaw_end": lambda job, _: job.cut.operation in ("resaw", "veneer", "rip") and _hand(job),
    "smoke": lambda job, _: _woody(job),
    "power_feed": lambda job, best: not _hand(job) and best is not None,
    "breakout": lambda job, _: job.cut.material.is_green and _hand(job),
    "tilted": lambda job, _: job.cut.angle_deg != 0,
    "long_stock": lambda job, _: job.cut.length_mm >= LONG_STOCK_MM,
    "milling": lambda job, _: job.cut.operation == "mill",
    "overspeed": _overspeed,
    "fast_mill": _fast_mill,
    "nails_fast": _nails_fast,
    "coolant": lambda job, _: job.cut.material.coolant in COOLANTS,
    **{f"{key}_down": _down(key) for key in DOWN},
    "unknown_frame": lambda job, _: job.saw.wheel_force_max_N is None,
    "hot_cut": _hot,
    "fatigue_hours": _few_hours,
    "over_target_metal": _over_target,
}


def _figures(job: Job, best: Ranked | None) -> dict[str, Words]:
    """Figures that a caution's words may quote."""
    material = job.cut.material
    words: dict[str, Words] = {
        "hazard": material.dust_hazard,
        "coolant": COOLANTS.get(material.coolant, ""),
    }
    if best is None:
        return words
    e = best.evaluation
    if e.stability is not None:
        force = e.stability.critical_feed_force_N / stability_factor(job)
        words["force"] = quantity(force, "force")
    if e.fatigue is not None:
        words["hours"] = figure(e.fatigue.running_hours)
    if e.speed is not None:
        words["speed"] = quantity(e.speed.speed_m_s, "speed")
        words["most"] = quantity(e.speed.accepted.most_m_s, "speed")
        words["usual"] = quantity(MILL_FAST_M_S, "speed")
        words["wear"] = f"{e.speed.wear_factor:.1f}"
        if has_nails(job):
            slow = _past_metal(job, best)
            words["feed"] = quantity(best.run.feed_m_min, "feed")
            words["slow_speed"] = quantity(slow.speed_m_s, "speed")
            words["slow_feed"] = quantity(slow.feed_m_min, "feed")
            words["nail_steel"] = NAIL_STEEL.get(e.facts.steel.token, "")
    return words


NAIL_STEEL = {
    "carbon": " Carbon teeth turn over at the first nail; bi-metal stands soft ones.",
    "bimetal": " Bi-metal stands soft nails, not screws.",
}


def _urgency(caution: Caution) -> tuple[bool, bool, int]:
    """Stops first, then what this job may hurt by, then what always holds."""
    return (caution.level != "stop", caution.standing, LEVEL_ORDER.index(caution.level))


def cautions_for(job: Job, best: Ranked | None) -> tuple[Caution, ...]:
    """Cautions, those of this job before the standing ones, stops first, with its figures."""
    figures = _figures(job, best) | {"old_metal": OLD_METAL[job.rules.old_metal]}
    texts = caution_texts()
    chosen = [
        Caution(key, texts[key].level, fill(texts[key].text, figures), key in STANDING)
        for key, applies in RULES.items()
        if applies(job, best)
    ]
    return tuple(sorted(chosen, key=_urgency))
