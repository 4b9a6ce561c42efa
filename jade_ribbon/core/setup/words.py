"""What the steps of a set-up say: figures, and the shop's own ways."""

from dataclasses import dataclass

from jade_ribbon.core.choosing.choose import Ranked
from jade_ribbon.core.job import Job, Saw
from jade_ribbon.core.quantities.words import Said, Words, between, quantity, sentence
from jade_ribbon.core.setup.band_position import BandPosition, Place
from jade_ribbon.core.setup.drift_verdict import STOP_DEG
from jade_ribbon.core.setup.figures import NARROW_ON_THRUST_MM, GuideCard, TensionCard
from jade_ribbon.core.setup.fittings import Fittings
from jade_ribbon.core.setup.reading_limits import COOLANT_STRENGTH_PCT
from jade_ribbon.reference.tables import house_rules


@dataclass(frozen=True)
class ShopHabits:
    """House rules that shape the card but not the choice."""

    band_position: Place = "centred"
    side_gap: str = "by_guide"
    thrust_gap: str = "spacer"
    guide_order: str = "upper_first"
    guide_first: str = "sides_first"
    tension_means: str = "gauge"
    guides_role: str = "backup"
    coplanar: str = "when_it_shows"
    factory_alignment: str = "leave"
    drift: str = "fence"
    guiding: str = "fence"
    stock: str = "face_edge"
    reactive: str = "halves"
    weld: str = "by_hand"
    guide_kind: str = "soft"
    billet: str = "yield"


def _tension_check(card: TensionCard, means: str) -> Said:
    if means == "pluck" and card.note_Hz is not None:
        return f"Plucked with guides off it sounds {card.note_Hz:.1f} Hz, about {card.note_name}."
    if means == "push" and card.side_push is not None:
        p = card.side_push
        return sentence(
            quantity(p.force_N, "force"),
            " pushes the middle of the span ",
            quantity(p.deflection_mm, "length"),
            " aside.",
        )
    if means == "scale" and card.scale is not None:
        return f"The saw's own scale, as calibrated here, stands at {card.scale.reading:.3g}."
    if means == "travel" and card.wheel_travel_mm is not None:
        travel = quantity(card.wheel_travel_mm, "thin")
        return sentence("From snug the wheel has moved ", travel, ", as calibrated here.")
    blind = {"scale": "The saw's own scale", "travel": "Wheel travel"}
    first = f"{blind[means]} is no reading until calibrated here. " if means in blind else ""
    return sentence(
        first,
        "The gauge, zeroed slack, fixed jaw first, shows ",
        quantity(card.forms.gauge_stretch_um, "stretch"),
        " over ",
        quantity(card.gauge_length_mm, "length"),
        ".",
    )


def _gap_words(gap: float | None) -> Words:
    if gap is None:
        return "none"
    return "just touching" if gap == 0 else quantity(gap, "thin")


BIG_WHEEL_MM = 500.0
SOFT_GUIDE_BELOW_MM = 6.0
REACTIVE_WORDS = ("spring", "bows", "case-hardened", "stress", "pinch")
"""What the table's remarks say of stock that moves when it is opened."""


def coplanar_limit_of(saw: Saw) -> float:
    """How far wheels may stand out of plane before acting: 1 mm flat or big, else 3 mm."""
    flat = saw.tyre in ("flat", "none")
    return 1.0 if flat or max(saw.wheel_diameters_mm) > BIG_WHEEL_MM else 3.0


def _habit_words(best: Ranked, job: Job, habits: ShopHabits) -> dict[str, Words]:
    """The shop's own ways, as the steps say them."""
    limit = quantity(coplanar_limit_of(job.saw), "length")
    narrow = best.evaluation.facts.band.width_mm < SOFT_GUIDE_BELOW_MM
    hard = job.saw.guides not in ("soft_block", "thrust_only", "none")
    moves = any(word in job.cut.material.cautions for word in REACTIVE_WORDS)
    resaw = job.cut.operation in ("resaw", "veneer", "rip")
    billet = {
        "yield": " A bowed billet: count the pieces flattened first and along its curve.",
        "flatten": " Flatten a bowed billet first.",
        "curve": " Saw a bowed billet along its curve, to a scribed line.",
    }[habits.billet]
    stock = {
        "face_edge": "Stock with one face and an edge square.",
        "four_square": "Stock four-square.",
        "as_it_is": "Stock as it is, to a scribed line.",
    }[habits.stock]
    reactive = {
        "halves": " It moves when opened: halve from the middle outwards.",
        "one_face": " It moves when opened: slice from one face and true it between.",
    }[habits.reactive]
    return {
        "coplanar": sentence("Wheels in one plane within ", limit, ": true them if not.")
        if habits.coplanar == "always"
        else sentence(
            "Look at the wheels' plane only if it will not sit on both, or over ", limit, "."
        ),
        "alignment": {
            "leave": "A fault in alignment shows with a second band too: try one first.",
            "true": "True the wheels before chasing it with the knob.",
        }[habits.factory_alignment],
        "guides_role": {
            "backup": "If it wanders, look at crown, alignment and tension before the guides.",
            "straight": "The guides make this cut straight: take care over each gap.",
        }[habits.guides_role],
        "guide_kind": "Under 6 mm, soft blocks save the teeth at a touch."
        if narrow and hard and habits.guide_kind == "soft"
        else "",
        "guiding": {
            "fence": "Guide by the fence.",
            "single_point": "Guide by a single point at the tooth line; it needs no drift shift.",
            "scribed": "Freehand to a scribed line.",
        }[habits.guiding]
        if resaw
        else "",
        "stock": (stock + billet + (reactive if moves else "")) if resaw else "",
        "weld": {
            "by_hand": "Dress it turning by hand.",
            "running": "Dress the back edge only, running, doors shut; never faces or teeth.",
        }[habits.weld],
        "drift": {
            "fence": f"Up to {STOP_DEG:g}°: set the fence to it. Over that is a fault to find.",
            "single_point": "A single-point fence follows it and needs no shift; "
            f"over {STOP_DEG:g}° seek the fault.",
            "tracking": "Steer a small drift out by tracking; "
            f"over {STOP_DEG:g}° is a fault to find.",
        }[habits.drift],
    }


def runs_on_thrust_alone(best: Ranked, job: Job) -> bool:
    """Very narrow bands, and saws without side guides."""
    narrow = best.evaluation.facts.band.width_mm <= NARROW_ON_THRUST_MM
    return narrow or job.saw.guides == "thrust_only"


def _machine_words(job: Job, habits: ShopHabits, fittings: Fittings) -> dict[str, str]:
    """What depends on the kind of saw."""
    upright = job.saw.orientation == "vertical"
    teeth_to = "table" if upright else "oncoming log" if job.saw.is_mill else "work"
    back_off = "sides apart, thrust back"
    if job.saw.guides == "thrust_only":
        back_off = "thrust back"
    tilt = ""
    if job.cut.operation == "wedge" and job.cut.angle_deg:
        tilt = f", then the table tilted {abs(job.cut.angle_deg):g} degrees, fence on its low side"
    return {
        "work_side": "table" if upright else "bed",
        "teeth_to": teeth_to,
        "teeth_run": "down into the work" if upright else f"into the {teeth_to}",
        "clearing": "coolant running" if job.saw.is_metal_saw else "extraction on",
        "back_off": back_off,
        "third_wheel": "over the third wheel, " if job.saw.wheels == 3 else "",
        "knob": KNOB_WORDS[fittings.knob],
        "tilt": tilt,
        "order_within": habits_name("guide_first", habits.guide_first),
    }


KNOB_WORDS = {
    "unknown": "Try which way the knob moves it, an eighth of a turn at a time, and note it.",
    "clockwise_back": "On this saw the knob clockwise moves it back.",
    "clockwise_forward": "On this saw the knob clockwise moves it forward.",
}


def habits_name(rule: str, choice: str) -> str:
    """A house rule's choice as said."""
    return house_rules()[rule].name_of(choice)


INSERT_SHARE = 0.25
"""Inserts serve bands within so much of the width that they are for."""


def insert_words(insert_mm: float | None, band_mm: float) -> Words:
    """What is said of guide inserts that are for another width; '' where they fit or are not known.

    >>> insert_words(12.7, 12.7), insert_words(None, 25.4)
    ('', '')
    """
    if insert_mm is None or abs(insert_mm / band_mm - 1.0) <= INSERT_SHARE:
        return ""
    return sentence(
        "The inserts in are for ",
        quantity(insert_mm, "length"),
        ", this band is ",
        quantity(band_mm, "length"),
        ": put its set in first, and note it. ",
    )


DRIFT_RUN_MM = 300.0


def step_words(
    best: Ranked,
    job: Job,
    *,
    habits: ShopHabits,
    fittings: Fittings,
    card: TensionCard,
    guides: GuideCard,
    position: BandPosition,
) -> dict[str, Words]:
    """Every word and figure that the texts of the steps leave in braces."""
    speed = best.evaluation.speed
    assert speed is not None
    leaning = "Top thicker: table or band out of square."
    if job.saw.is_mill:
        leaning = "One edge thicker: the band is not parallel to the bed."
    elif job.saw.is_metal_saw:
        leaning = "Out of square: vice or band."
    return {
        **_habit_words(best, job, habits),
        **_machine_words(job, habits, fittings),
        "insert_set": insert_words(fittings.insert_width_mm, best.evaluation.facts.band.width_mm),
        "position": position.words,
        "position_again": f"Again {position.words}, now under tension",
        "stress": quantity(card.stress_MPa, "stress"),
        "tension_check": _tension_check(card, habits.tension_means),
        "gullet": sentence("gullets are ", quantity(guides.behind_gullet_mm, "thin"), " deep"),
        "side_gap": _gap_words(guides.side_gap_mm),
        "thrust_gap": _gap_words(guides.thrust_gap_mm),
        "at_rest": "the soft blocks just touch, without pressing"
        if guides.side_gap_mm == 0.0
        else "nothing touches at rest",
        "roller_press": ""
        if guides.roller_press_mm is None
        else between(guides.roller_press_mm.least_mm, guides.roller_press_mm.most_mm, "length"),
        "flange_gap": quantity(guides.flange_gap_mm, "length"),
        "strength": between(*COOLANT_STRENGTH_PCT, "plain"),
        "guard_gap": quantity(guides.guard_gap_mm, "length"),
        "guard_height": quantity(guides.guard_height_mm, "length"),
        "speed_setting": speed.setting,
        "speed": quantity(speed.speed_m_s, "speed"),
        "feed": quantity(best.run.feed_m_min, "feed"),
        "drift_run": quantity(DRIFT_RUN_MM, "length"),
        "tolerance": quantity(job.cut.tolerance_mm, "thin")
        if job.cut.tolerance_mm
        else "your tolerance",
        "trial_wrong": "Thick in the middle: too hard a feed, a dull band or too little tension. "
        f"One end thicker: drift. {leaning}",
        "trial_off": "Off to one side all along: drift, or a guide on the teeth. Inside in the "
        "bend: the band is too wide for it, or pushed.",
        "radius": quantity(job.cut.min_radius_mm or 0.0, "length"),
    }
