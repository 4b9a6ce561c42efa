"""What each shown figure rests on: formula, inputs, source, uncertainty, house rule."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from jade_ribbon.core.bands.reach import guessed_frame
from jade_ribbon.core.choosing.choose import Ranked
from jade_ribbon.core.choosing.conflicts import LIMIT_WORDS
from jade_ribbon.core.choosing.operating_point import dullness_now, stability_factor
from jade_ribbon.core.job import Job

TABLE_SOURCE = "Reference table: {}; typical value, corrected on the shop's own copy"


@dataclass(frozen=True)
class Input:
    """One input of a figure: its name, value and unit."""

    name: str
    value: float
    unit: str


@dataclass(frozen=True)
class Explained:
    """The reasons of one figure."""

    title: str
    value: float
    unit: str
    formula: str
    inputs: tuple[Input, ...]
    source: str
    uncertainty: str
    rule: str
    term: str = ""
    """The word of the glossary that it is a figure of."""


TERMS: Mapping[str, str] = {
    "tension": "tension",
    "speed": "speed",
    "feed": "feed",
    "teeth": "tpi",
    "fill": "gullet",
    "power": "power",
    "push": "push",
    "hours": "bending",
    "cost": "life",
    "radius": "radius",
}
"""The word of the glossary that each figure is of."""


def _tension(best: Ranked, job: Job) -> Explained:
    e = best.evaluation
    known = job.saw.force_known
    reach = Input(
        "frame gives" if known else f"{guessed_frame(job.saw)} gives", e.reachable_MPa, "MPa"
    )
    return Explained(
        "Tension",
        e.stress_MPa,
        "MPa",
        "least of the steel's target and frame force / (2 × body width × thickness)",
        (
            Input("target", e.facts.stress_target_MPa or 0.0, "MPa"),
            reach,
            Input("body width", e.facts.body_width_mm, "mm"),
            Input("thickness", e.facts.band.thickness_mm, "mm"),
        ),
        TABLE_SOURCE.format(f"steels, {e.facts.steel.name}"),
        "Target about 10 %; how close you set it, by the means: a few per cent by gauge or note.",
        f"Tension target: {job.rules.tension}",
    )


def _speed(best: Ranked, job: Job) -> Explained:
    s = best.evaluation.speed
    assert s is not None
    return Explained(
        "Band speed",
        s.speed_m_s,
        "m/s",
        "the drive's speed nearest the target on a ratio scale, not over the greatest",
        (
            Input("least", s.accepted.least_m_s, "m/s"),
            Input("target", s.accepted.target_m_s, "m/s"),
            Input("greatest", s.accepted.most_m_s, "m/s"),
        ),
        TABLE_SOURCE.format(f"materials, {job.cut.material.name}"),
        "A tenth either way changes little.",
        f"Mill band speed: {job.rules.mill_speed}" if job.cut.operation == "mill" else "",
    )


def _feed(best: Ranked, job: Job) -> Explained:
    w = best.evaluation.window
    assert w is not None
    limits = tuple(Input(LIMIT_WORDS[k], v, "m/min") for k, v in w.limits_m_min.items())
    return Explained(
        "Feed",
        best.run.feed_m_min,
        "m/min",
        "0.8 × the least limit, not under the feed at which teeth rub; two thirds for show faces",
        (*limits, Input("rubs below", w.floor_m_min, "m/min")),
        "Feed window: gullet room, size law of cutting pressure, stiffness between the guides",
        f"Cutting pressure ±{job.cut.material.kc_uncertainty_pct:g} %, largest bite ±35 %, "
        "least bite a factor of two.",
        f"Feed pace: {job.rules.feed_pace}",
    )


def _teeth(best: Ranked, job: Job) -> Explained:
    e = best.evaluation
    return Explained(
        "Teeth in the work",
        e.teeth_in_cut,
        "",
        "height in the cut / pitch" if not job.cut.is_tube else "2 × wall / pitch",
        (
            Input("height", job.cut.loaded_height_mm, "mm"),
            Input("pitch", e.facts.pitch_mm, "mm"),
        ),
        "Geometry of the band",
        "Exact.",
        f"Least teeth: {job.rules.least_teeth}; pitch: {job.rules.resaw_pitch}",
    )


def _fill(best: Ranked, job: Job) -> Explained:
    e = best.evaluation
    return Explained(
        "Gullet filled at the exit",
        best.run.gullet_fill,
        "share",
        "bite × height / gullet area",
        (
            Input("bite", best.run.cut.bite_mm, "mm"),
            Input("height", job.cut.loaded_height_mm, "mm"),
            Input("gullet area", e.facts.gullet_area_mm2, "mm²"),
            Input("fill limit", job.cut.material.gullet_fill_limit, "share"),
        ),
        TABLE_SOURCE.format(f"tooth forms, {e.facts.form.name}"),
        "Gullet fill ±0.1.",
        "",
    )


def _power(best: Ranked, job: Job) -> Explained:
    material = job.cut.material
    return Explained(
        "Cutting power",
        best.run.cut.cutting_power_W,
        "W",
        "K × kerf × height × feed, K = K₀ (bite/0.1)^−m (1 + g × dullness)",
        (
            Input("K₀", material.specific_cutting_pressure_MPa, "MPa"),
            Input("m", material.size_exponent_m, ""),
            Input("bite", best.run.cut.bite_mm, "mm"),
            Input("kerf", best.evaluation.facts.kerf_mm, "mm"),
            Input("dullness", dullness_now(best.evaluation.facts), ""),
            Input("motor after losses", job.saw.motor_kW * job.saw.drive_efficiency, "kW"),
        ),
        TABLE_SOURCE.format(f"materials, {material.name}"),
        f"±{material.kc_uncertainty_pct:g} %.",
        "",
    )


def _push(best: Ranked, job: Job) -> Explained:
    e = best.evaluation
    assert e.stability is not None and e.edge_slack_N is not None
    return Explained(
        "Push",
        best.run.cut.feed_force_N,
        "N",
        "tangential force × feed-force ratio (grows with dullness)",
        (
            Input("tangential force", best.run.cut.tangential_force_N, "N"),
            Input("edge goes slack at", e.edge_slack_N, "N"),
            Input("band twists at", e.stability.critical_feed_force_N, "N"),
            Input("factor on twisting", stability_factor(job), ""),
        ),
        "Strain energy of the tensioned strip between the guides",
        "Twisting force 10–25 %; the factor of two covers it.",
        "",
    )


def _hours(best: Ranked, job: Job) -> Explained:
    f = best.evaluation.fatigue
    assert f is not None
    facts = best.evaluation.facts
    return Explained(
        "Hours in bending",
        f.running_hours,
        "h",
        "N = 10⁷ (σe/σa)^k, σa = amplitude / (1 − mean/ultimate); bends a second = wheels × V / L",
        (
            Input("wheel", job.saw.smallest_wheel_mm, "mm"),
            Input("thickness", facts.band.thickness_mm, "mm"),
            Input("amplitude", f.amplitude_MPa, "MPa"),
            Input("mean", f.mean_MPa, "MPa"),
            Input("fatigue strength at 10⁷", facts.steel.fatigue_amp_1e7_MPa, "MPa"),
            Input("k", facts.steel.basquin_k, ""),
        ),
        TABLE_SOURCE.format(f"steels, {facts.steel.name}"),
        "Within a factor of ten.",
        "",
    )


def _cost(best: Ranked, job: Job) -> Explained:
    c = best.cost
    return Explained(
        "Cost of a piece, over the lot",
        c.total,
        "money",
        "edge + time + kerf + later operation + change-over + power",
        (
            Input("edge", c.edge, "money"),
            Input("time", c.time, "money"),
            Input("kerf", c.kerf, "money"),
            Input("later operation", c.later, "money"),
            Input("share of change-over", c.change, "money"),
            Input("power", c.power, "money"),
        ),
        "Shop rates and prices",
        "The range beside it: eight draws in ten of all that is not sure.",
        f"Steel: {job.rules.steel}",
    )


def _radius(best: Ranked, _: Job) -> Explained:
    e = best.evaluation
    return Explained(
        "Tightest radius",
        e.tight_radius_mm,
        "mm",
        "width² / ((3 + 2√2) (kerf − thickness))",
        (
            Input("width", e.facts.band.width_mm, "mm"),
            Input("kerf", e.facts.kerf_mm, "mm"),
            Input("thickness", e.facts.band.thickness_mm, "mm"),
            Input("comfortable", e.comfortable_radius_mm, "mm"),
        ),
        f"A straight body leaning in its own kerf; {e.facts.set_source}",
        "Set ±15 %, and the radius with it.",
        "",
    )


def explain_figures(best: Ranked, job: Job) -> Mapping[str, Explained]:
    """Reasons of every figure shown for the chosen band."""
    found = {
        "tension": _tension(best, job),
        "speed": _speed(best, job),
        "feed": _feed(best, job),
        "teeth": _teeth(best, job),
        "fill": _fill(best, job),
        "power": _power(best, job),
        "push": _push(best, job),
        "hours": _hours(best, job),
        "cost": _cost(best, job),
        "radius": _radius(best, job),
    }
    return {key: replace(told, term=TERMS[key]) for key, told in found.items()}
