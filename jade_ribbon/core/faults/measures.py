"""Checks that are measured: figures in, and which answer they are, or that nobody can tell."""

import math
from collections.abc import Callable, Mapping

from jade_ribbon.core.faults.measured import (
    CANNOT,
    FigureAsked,
    Figures,
    Measured,
    SawContext,
    missing,
    unsure,
)
from jade_ribbon.core.faults.ridges import RidgeSource, ridge_source, ridge_words
from jade_ribbon.core.faults.trial_face import FACE_FIGURES, FACE_SIGNS, TRIALS, trial_rule
from jade_ribbon.core.job import USUAL_GUARD_GAP_MM
from jade_ribbon.core.mechanics.tension import stress_from_pluck
from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.quantities.words import Said, figure, percent, quantity, sentence
from jade_ribbon.reference.quantities import Kind


def _side(value: float, low: float, high: float, doubt: float) -> str:
    """'low', 'on', 'high' against limits, or '' within the doubt of one."""
    if min(abs(value - low), abs(value - high)) <= doubt:
        return CANNOT
    return "low" if value < low else "high" if value > high else "on"


PLUCK_LOW, PLUCK_HIGH, PLUCK_DOUBT = 0.85, 1.15, 0.05
"""A note tells stress to a twentieth; under 85 % of the target or over 115 it is off."""


def pluck(given: Figures, at: SawContext) -> Measured:
    """Stress by the note of the free span, against the target."""
    if at.free_span_mm is None or at.stress_target_MPa is None or at.thickness_mm is None:
        raise missing("a band in hand, and one free span between two wheels")
    stress = stress_from_pluck(
        frequency_Hz=given["note_Hz"],
        width_mm=at.width_mm or 0.0,
        gullet_depth_mm=at.gullet_depth_mm or 0.0,
        thickness_mm=at.thickness_mm,
        span_mm=at.free_span_mm,
    ).stress_MPa
    share = stress / at.stress_target_MPa
    words = sentence(quantity(stress, "stress"), f": {percent(share)} of the target.")
    found = _side(share, PLUCK_LOW, PLUCK_HIGH, PLUCK_DOUBT)
    return Measured(found, words) if found else unsure(words)


DRIFT_NONE_DEG, DRIFT_LARGE_DEG, DRIFT_READ_MM = 0.15, 2.0, 0.5


def drift_line(given: Figures, at: SawContext) -> Measured:
    """A steady angle from a pencil line; a line that could not be held has none."""
    angle = math.degrees(math.atan2(abs(given["offset_mm"]), given["run_mm"]))
    doubt = math.degrees(DRIFT_READ_MM / given["run_mm"])
    words: Said = f"{figure(angle, 2)}°, to about {figure(doubt, 1)}°."
    if abs(angle - DRIFT_LARGE_DEG) <= doubt:
        return unsure(words)
    if angle <= max(DRIFT_NONE_DEG, doubt):
        return Measured("straight", words)
    return Measured("large" if angle > DRIFT_LARGE_DEG else "small", words)


THRUST_TOUCH_MM, THRUST_WIDE_MM = 0.05, 0.8
SLIP_MM = 0.03


def thrust_slip(given: Figures, at: SawContext) -> Measured:
    """The wider of the two thrust gaps, or a touch at either."""
    least, most = (
        min(given["above_mm"], given["below_mm"]),
        max(given["above_mm"], given["below_mm"]),
    )
    words = sentence("Between ", quantity(least, "thin"), " and ", quantity(most, "thin"), ".")
    if least <= THRUST_TOUCH_MM:
        return Measured("touching", words)
    if abs(most - THRUST_WIDE_MM) <= SLIP_MM:
        return unsure(words)
    return Measured("wide" if most > THRUST_WIDE_MM else "hair", words)


SPEED_LOW, SPEED_HIGH, SPEED_DOUBT = 0.9, 1.1, 0.02


def speed_read(given: Figures, at: SawContext) -> Measured:
    """The band's speed against the material's target."""
    if at.speed_target_m_s is None:
        raise missing("a job with a material")
    share = given["speed_m_s"] / at.speed_target_m_s
    words = sentence(
        f"{percent(share)} of the target, ", quantity(at.speed_target_m_s, "speed"), "."
    )
    found = _side(share, SPEED_LOW, SPEED_HIGH, SPEED_DOUBT)
    names = {"low": "under", "high": "over", "on": "on"}
    return Measured(names[found], words) if found else unsure(words)


FEED_DOUBT = 0.08
"""A stopwatch and a marked length tell a feed to so much."""


def feed_time(given: Figures, at: SawContext) -> Measured:
    """The feed over a marked length, against its window."""
    if at.floor_m_min is None or at.ceiling_m_min is None:
        raise missing("a job and a band with a feed window")
    feed = given["length_mm"] / 1000.0 / (given["time_s"] / 60.0)
    words = sentence(quantity(feed, "feed"), ": window ", quantity(at.floor_m_min, "feed"), " to ")
    words = words + sentence(quantity(at.ceiling_m_min, "feed"), ".")
    doubt = FEED_DOUBT * feed
    found = _side(feed, at.floor_m_min, at.ceiling_m_min, doubt)
    if not found:
        return unsure(words)
    if found == "high" and at.gullet_limit_m_min is not None and feed > at.gullet_limit_m_min:
        return Measured("gullets", words)
    return Measured({"low": "under", "on": "inside", "high": "over"}[found], words)


def marks_rate(given: Figures, at: SawContext) -> Measured:
    """What turns at the rate of even marks: their spacing and the feed."""
    if not (at.speed_m_s and at.band_length_mm and at.pitch_mm and at.wheel_diameters_mm):
        raise missing("a saw, its speed and a band")
    found = ridge_source(
        spacing_mm=given["spacing_mm"],
        feed_m_min=given["feed_m_min"],
        speed_m_s=at.speed_m_s,
        band_length_mm=at.band_length_mm,
        pitch_mm=at.pitch_mm,
        wheel_diameters_mm=at.wheel_diameters_mm,
        motor_rpm=at.motor_rpm,
    )
    return _of_ridges(found)


def _of_ridges(found: RidgeSource) -> Measured:
    words = ridge_words(found)
    groups = {"tooth" if c.source == "tooth" else "turn" for c in found.matching}
    if len(groups) > 1:
        return unsure(words)
    return Measured(next(iter(groups), "none"), words)


def wheel_plane(given: Figures, at: SawContext) -> Measured:
    """Gaps under a straightedge at the top and the bottom rim of the wheel that stands back."""
    limit = at.plane_limit_mm or 1.0
    top, bottom = given["top_mm"], given["bottom_mm"]
    tilt, offset = abs(top - bottom), max(top, bottom)
    words = sentence("Gaps of ", quantity(top, "thin"), " and ", quantity(bottom, "thin"))
    words = words + sentence("; acts over ", quantity(limit, "thin"), ".")
    if abs(offset - limit) <= 0.1:
        return unsure(words)
    if offset < limit:
        return Measured("plane", words)
    return Measured("tilted" if tilt > offset / 2.0 else "offset", words)


SET_LEAST, SET_EVEN = 0.6, 0.25
SET_READ_MM = 0.03


def set_sides(given: Figures, at: SawContext) -> Measured:
    """How far teeth stand out left and right, against each other and what the band had."""
    left, right = given["left_mm"], given["right_mm"]
    mean, apart = (left + right) / 2.0, abs(left - right)
    words = sentence("Left ", quantity(left, "thin"), ", right ", quantity(right, "thin"))
    if at.set_per_side_mm:
        words = words + sentence("; it had ", quantity(at.set_per_side_mm, "thin"))
    words = words + "."
    if apart > SET_EVEN * max(mean, SET_READ_MM) + SET_READ_MM:
        return Measured("one_side", words)
    if at.set_per_side_mm and mean < SET_LEAST * at.set_per_side_mm:
        return Measured("small", words)
    if at.set_per_side_mm is None:
        return unsure(words)
    return Measured("even", words)


WELD_PROUD_MM = 0.06


def band_straight(given: Figures, at: SawContext) -> Measured:
    """Thickness at the weld against beside it; flush, the back is still to be looked along."""
    over = given["weld_mm"] - given["beside_mm"]
    words = sentence(
        "The weld stands ", quantity(abs(over), "thin"), " over." if over > 0 else " under."
    )
    if over > WELD_PROUD_MM:
        return Measured("thick", words)
    return Measured(CANNOT, sentence(words, " Flush: now lay the rule along back and body."))


USUAL_MOST_TEETH = 24.0


def teeth_count(given: Figures, at: SawContext) -> Measured:
    """Teeth in a height, against three and the most; which way they face is seen, not counted."""
    count = given["height_mm"] / (given["over_mm"] / given["teeth"])
    words: Said = f"{figure(count, 2)} teeth stand in the height."
    if count < 3.0:
        return Measured("few", words)
    return Measured("right" if count <= (at.teeth_most or USUAL_MOST_TEETH) else "many", words)


GUARD_TIMES = 2.0


def walk_round(given: Figures, at: SawContext) -> Measured:
    """The guard over twice its house setting is an answer; the rest is looked at."""
    gap = at.guard_gap_mm or USUAL_GUARD_GAP_MM
    clear = given["clear_mm"]
    words = sentence(
        "Guard ", quantity(clear, "length"), ", house setting ", quantity(gap, "length"), "."
    )
    if clear > GUARD_TIMES * gap:
        return Measured("guard", words)
    return Measured(CANNOT, sentence(words, " Now the frame and the extraction's port."))


SQUARE_MM, SQUARE_READ_MM = 0.3, 0.1


def square_table(given: Figures, at: SawContext) -> Measured:
    """Light under a square at the band and at a fresh cut, over the length of its blade."""
    band, cut = given["band_mm"], given["cut_mm"]
    words = sentence("At the band ", quantity(band, "thin"), ", at the cut ", quantity(cut, "thin"))
    words = words + "."
    if min(abs(band - SQUARE_MM), abs(cut - SQUARE_MM)) <= SQUARE_READ_MM:
        return unsure(words)
    if band > SQUARE_MM:
        return Measured("both_open" if cut > SQUARE_MM else CANNOT, words)
    return Measured("cut_open" if cut > SQUARE_MM else "both_true", words)


SCALE_ZERO, SCALE_BACK = 0.05, 0.05
"""Of the mark: a scale that is further off nothing, or comes back elsewhere, is off."""


def scale_zero(given: Figures, at: SawContext) -> Measured:
    """The scale slack, at the gauge's mark, and at the same again after slackening."""
    mark, again = given["mark"], given["again"]
    off = max(given["slack"] / mark, abs(again / mark - 1.0))
    words: Said = f"Off by {percent(off, 2)} of its mark."
    if abs(off - SCALE_BACK) <= SCALE_BACK / 5.0:
        return unsure(words)
    return Measured("off" if off > SCALE_ZERO else "fine", words)


LIMP = ("stability", "edge", "straight")
"""Limits of the feed that a deep cut meets in a limp band."""


def plan_fit(given: Figures, at: SawContext) -> Measured:
    """Which rule of Plan the band breaks at this job: radius, steel, or too limp for the height."""
    if at.plan_breaks is None:
        raise missing("a job and its band")
    if "radius" in at.plan_breaks:
        return Measured("radius", "Plan: it does not turn the tightest radius.")
    if "steel" in at.plan_breaks:
        return Measured("steel", "Plan: its steel is not on the stock’s list.")
    if at.window_shut_by in LIMP:
        return Measured("depth", "Plan: no feed is slow enough for it at this height.")
    others = [k for k in at.plan_breaks if k not in ("radius", "steel", "window_shut")]
    if others:
        listed = ", ".join(k.replace("_", " ") for k in others)
        return Measured(CANNOT, f"Plan: another rule stands against it ({listed}): look there.")
    return Measured("fits", "Plan: it breaks no rule of this job.")


OLD_FROM, OLD_SURE = 0.8, 2.0
"""Of the bending life; good to a factor of ten, so that only well past it is old for sure."""


def bending_card(given: Figures, at: SawContext) -> Measured:
    """Bending life used, and the smallest wheel against the thickness."""
    if at.thickness_mm is None or not at.wheel_diameters_mm or at.least_wheel_ratio is None:
        raise missing("a band in hand")
    ratio = min(at.wheel_diameters_mm) / at.thickness_mm
    if ratio < at.least_wheel_ratio:
        words = f"The smallest wheel is {figure(ratio, 3)} times its thickness"
        return Measured("thick", f"{words}; its steel wants {figure(at.least_wheel_ratio, 3)}.")
    if at.bending_share is None:
        return Measured(CANNOT, "Not too thick; nobody knows how much of its bending life is used.")
    words = f"{percent(at.bending_share)} of its bending life is used, good to a factor of ten."
    if at.bending_share >= OLD_SURE:
        return Measured("old", words)
    return unsure(words) if at.bending_share >= OLD_FROM else Measured("fine", words)


def _length(key: str, label: str, high: float, kind: Kind = "thin") -> FigureAsked:
    return FigureAsked(key, label, kind, 0.0, high)


Rule = Callable[[Figures, SawContext], Measured]
MEASURES: Mapping[str, tuple[Rule, tuple[FigureAsked, ...]]] = {
    "pluck": (pluck, (FigureAsked("note_Hz", "Note heard, Hz", "plain", 5.0, 600.0),)),
    "drift_line": (
        drift_line,
        (
            _length("offset_mm", "Off the line", 100.0),
            FigureAsked("run_mm", "over a run of", "length", 50.0, 3000.0),
        ),
    ),
    "thrust_slip": (
        thrust_slip,
        (_length("above_mm", "Gap above", 20.0), _length("below_mm", "Gap below", 20.0)),
    ),
    "speed_read": (
        speed_read,
        (FigureAsked("speed_m_s", "Band speed", "speed", 0.05, 150.0),),
    ),
    "feed_time": (
        feed_time,
        (
            FigureAsked("length_mm", "Marked length", "length", 20.0, 20_000.0),
            FigureAsked("time_s", "Seconds", "plain", 0.2, 36_000.0),
        ),
    ),
    "marks_rate": (
        marks_rate,
        (
            FigureAsked("spacing_mm", "Spacing of the marks", "thin", 0.02, 500.0),
            FigureAsked("feed_m_min", "Feed", "feed", 0.005, 200.0),
        ),
    ),
    "wheel_plane": (
        wheel_plane,
        (_length("top_mm", "Gap at the top", 50.0), _length("bottom_mm", "at the bottom", 50.0)),
    ),
    "set_sides": (
        set_sides,
        (_length("left_mm", "Set on the left", 5.0), _length("right_mm", "on the right", 5.0)),
    ),
    "band_straight": (
        band_straight,
        (_length("weld_mm", "Thickness at the weld", 6.0), _length("beside_mm", "beside it", 6.0)),
    ),
    "teeth_count": (
        teeth_count,
        (
            FigureAsked("teeth", "Teeth counted", "plain", 2.0, 400.0),
            FigureAsked("over_mm", "over", "length", 5.0, 3000.0),
            FigureAsked("height_mm", "Height in the cut", "length", 0.5, 3000.0),
        ),
    ),
    "plan_fit": (plan_fit, ()),
    "bending_card": (bending_card, ()),
    "square_table": (
        square_table,
        (
            _length("band_mm", "Light at the band", 50.0),
            _length("cut_mm", "Light at a fresh cut", 50.0),
        ),
    ),
    "scale_zero": (
        scale_zero,
        (
            FigureAsked("slack", "Scale when slack", "plain", 0.0, 1e6),
            FigureAsked("mark", "at the gauge’s mark", "plain", 0.01, 1e6),
            FigureAsked("again", "at that mark again", "plain", 0.0, 1e6),
        ),
    ),
    "walk_round": (walk_round, (_length("clear_mm", "Guard above the work", 2000.0, "length"),)),
}
"""What is measured, or told by the records, instead of looked at: its rule and figures."""


def rule_of(check: str, complaint: str) -> tuple[Rule, tuple[FigureAsked, ...]] | None:
    """How a check is measured: by its own rule, or a trial cut by the face of its board."""
    if check in TRIALS and complaint in FACE_SIGNS:
        return trial_rule(check), FACE_FIGURES
    return MEASURES.get(check)


def measure(check: str, given: Figures, at: SawContext) -> Measured:
    """Which answer a check's figures are. InputError for figures missing or out of range, or
    where the saw, band and job in hand do not say what is needed.
    """
    found = rule_of(check, at.complaint)
    if found is None:
        raise InputError([Fault("check", f"{check!r} is not measured: look and answer", check)])
    rule, asked = found
    faults = []
    for one in asked:
        value = given.get(one.key)
        if value is None:
            faults.append(Fault(f"figures.{one.key}", "is missing"))
        elif not one.low <= value <= one.high:
            words = f"{value:g} is out of range; accepted: {one.low:g} to {one.high:g}"
            faults.append(Fault(f"figures.{one.key}", words, value))
    unknown = [k for k in given if k not in {a.key for a in asked}]
    faults += [Fault(f"figures.{k}", "is not asked for", given[k]) for k in unknown]
    if faults:
        raise InputError(faults)
    return rule(given, at)
