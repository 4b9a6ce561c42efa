"""The choice in words: why this band, which house rule chose what, what it costs."""

from collections.abc import Mapping

from jade_ribbon.core.bands.reach import ASSUMED_FACTOR, frame_force_N, guessed_frame
from jade_ribbon.core.choosing.choose import STRESS_SHARE_WANTED, Choice, Ranked
from jade_ribbon.core.choosing.conflicts import LIMIT_WORDS, Reason
from jade_ribbon.core.choosing.operating_point import ANGLED_STABILITY_FACTOR
from jade_ribbon.core.job import Job
from jade_ribbon.core.mechanics.feed import FeedWindow, slow_wear
from jade_ribbon.core.mechanics.wear import HOT_WEAR
from jade_ribbon.core.quantities.constants import MM_PER_INCH
from jade_ribbon.core.quantities.words import Said, between, figure, percent, quantity, sentence

SAME_MONEY = 0.005
MANY_BENDING_HOURS = 10_000.0
"""Hours in bending are good to a factor of ten: more than these says nothing more."""


def _width(best: Ranked, job: Job) -> Reason:
    e, band = best.evaluation, best.evaluation.facts.band
    text: Said
    gist = "Widest band this saw can tension"
    target = e.facts.stress_target_MPa or 0.0
    if job.rules.resaw_width == "narrow":
        text = sentence(
            "Narrowest by house rule whose feed window is open: ",
            quantity(band.width_mm, "length"),
            ".",
        )
        gist = "Narrowest your rules allow"
    elif job.cut.min_radius_mm is not None:
        text = sentence(
            "Widest that turns ",
            quantity(job.cut.min_radius_mm, "length"),
            ": tightest ",
            quantity(e.tight_radius_mm, "length"),
            ", comfortable ",
            quantity(e.comfortable_radius_mm, "length"),
            ".",
        )
        gist = "Widest that turns the curve"
    elif job.cut.material.is_metal:
        text = sentence(
            "In metal the width does not decide; it stands at ",
            quantity(e.stress_MPa, "stress"),
            " of ",
            quantity(target, "stress"),
            "."
            if job.saw.force_known
            else f", the frame taken for a {guessed_frame(job.saw)}: find out its force.",
        )
        gist = "Chosen by its teeth: in metal the width does not decide"
    elif not job.saw.force_known:
        text = sentence(
            f"Widest brought to {percent(e.stress_share)} of its tension, the frame's force "
            f"unknown and taken for a {guessed_frame(job.saw)}: ",
            quantity(frame_force_N(job.saw), "force"),
            " at the wheel. To find it out, tension a wide band by the gauge until the spring's "
            "travel is used up, and record the wheel force that makes.",
        )
    elif job.rules.resaw_width == "widest":
        text = f"Widest that fits by house rule; the frame brings it to {percent(e.stress_share)}."
        gist = "Widest that fits, by house rule"
    else:
        force = job.saw.wheel_force_max_N or 0.0
        text = sentence(
            f"Widest the frame brings to {percent(STRESS_SHARE_WANTED)} of its tension: ",
            quantity(e.stress_MPa, "stress"),
            " of ",
            quantity(target, "stress"),
            " with ",
            quantity(force, "force"),
            " at the wheel.",
        )
    return Reason("width", text, gist)


def _pitch(best: Ranked, choice: Choice, job: Job) -> Reason:
    e = best.evaluation
    if not e.facts.has_teeth:
        edge = "A knife edge" if e.facts.form.is_knife else "A continuous grit edge"
        return Reason("pitch", f"{edge}: no teeth to count.", edge.lower())
    how = {
        "fine": "Fine, for a clean face",
        "coarse": "Coarse, so that gullets do not fill",
    }[choice.pitch_rule]
    if job.cut.is_tube:
        how = "By the walls of the tube"
    near = "" if e.facts.pitch_mm < choice.wanted_pitch_mm * 1.4 else ", the finest left"
    if e.facts.pitch_mm * 1.4 < choice.wanted_pitch_mm:
        near = ", the coarsest left"
    return Reason(
        "pitch",
        f"{how}: {e.teeth_in_cut:.1f} teeth in the work{near}; "
        f"ideal about {figure(MM_PER_INCH / choice.wanted_pitch_mm, 2)} TPI.",
        how[0].lower() + how[1:],
    )


def _steel(best: Ranked, choice: Choice, job: Job) -> Reason:
    """What decided among those left by width and pitch, and by how much."""
    final = [r for r in choice.ranked if r.in_pitch] or [best]
    cheapest = min(final, key=lambda r: r.total)
    others = [
        r
        for r in final
        if r.evaluation.facts.steel.key != best.evaluation.facts.steel.key and r is not best
    ]
    if job.rules.steel != "cost":
        rule = {"long_life": "Longest life", "cheap": "Cheapest band"}[job.rules.steel]
        return Reason("steel", f"{rule} by house rule.")
    if best.total > cheapest.total + SAME_MONEY:
        return Reason("steel", _why_dearer(best, cheapest))
    least = choice.cheapest is None or choice.cheapest.total >= best.total - SAME_MONEY
    words = f"Cheapest{'' if least else ' your rules allow'}, {best.total:.2f} a piece"
    if not others:
        return Reason("steel", f"{words}.")
    other = min(others, key=lambda r: r.total)
    name = other.evaluation.facts.steel.name
    return Reason("steel", f"{words}; next steel {name}, {other.total:.2f}.")


def _why_dearer(best: Ranked, cheapest: Ranked) -> str:
    """Why a band is taken that is not the cheapest of its group."""
    label = cheapest.evaluation.facts.band.label
    money = f"{best.total:.2f} a piece, {best.total - cheapest.total:.2f} more than {label}"
    if best.evaluation.facts.band.mounted and best.run.margin <= cheapest.run.margin:
        return f"{money}: it is on the saw."
    if best.run.margin > cheapest.run.margin:
        return (
            f"{money}, for its margin: it holds {figure(best.run.margin, 2)} times its push, "
            f"that one {figure(cheapest.run.margin, 2)}."
        )
    return f"{money}, by the order of tooth forms for this stock."


def _tension(best: Ranked, job: Job) -> Reason:
    e = best.evaluation
    low, high = e.facts.stress_low_MPa or 0.0, e.facts.stress_high_MPa or 0.0
    reach: Said = "the frame reaches more than that"
    if not job.saw.force_known:
        reach = sentence(
            f"a {guessed_frame(job.saw)} reaches ",
            quantity(e.reachable_MPa, "stress"),
            f" in it, which may be out by as much as {ASSUMED_FACTOR:g} times",
        )
    elif e.reachable_MPa <= high:
        reach = sentence("the frame reaches ", quantity(e.reachable_MPa, "stress"), " in it")
    return Reason(
        "tension",
        sentence(
            quantity(e.stress_MPa, "stress"),
            "; this steel wants ",
            between(low, high, "stress"),
            ", and ",
            reach,
            ".",
        ),
    )


def _speed(best: Ranked, job: Job) -> Reason:
    speed = best.evaluation.speed
    assert speed is not None
    off, accepted = speed.off_target_share, speed.accepted
    side = "over" if off > 0 else "under"
    where = "on target" if abs(off) < 0.02 else f"{percent(abs(off))} {side}"
    return Reason(
        "speed",
        sentence(
            f"{speed.setting}: ",
            quantity(speed.speed_m_s, "speed"),
            f", {where} the ",
            quantity(accepted.target_m_s, "speed"),
            " wanted (",
            between(accepted.least_m_s, accepted.most_m_s, "speed"),
            ").",
        ),
    )


SLOW_WORDS: Mapping[str, str] = {
    "hot": "Slow and hot",
    "rubs": "The teeth rub: it cuts hot, stop at smoke, wear counts four times",
}


def _feed(best: Ranked) -> Reason:
    window = best.evaluation.window
    assert window is not None
    if window.state != "open":
        return Reason(
            "feed",
            sentence(
                f"{SLOW_WORDS[window.state]}: teeth bite cleanly from ",
                quantity(window.floor_m_min, "feed"),
                f", but {LIMIT_WORDS[window.binding]} at ",
                quantity(window.ceiling_m_min, "feed"),
                ".",
            ),
        )
    return Reason(
        "feed",
        sentence(
            f"Window {window.state}, ",
            between(window.floor_m_min, window.ceiling_m_min, "feed"),
            f"; limited by {LIMIT_WORDS[window.binding]}.",
        ),
    )


def held_words(window: FeedWindow, *, feed_m_min: float) -> str:
    """What to know of a feed: that teeth rub at it, or what holds it back."""
    worn = slow_wear(feed_m_min=feed_m_min, floor_m_min=window.floor_m_min, hot_wear=HOT_WEAR)
    if worn > 1.0:
        times = "double" if worn == 2.0 else f"{worn:g} times"
        return f"Teeth rub here: hot, wear counts {times}."
    return f"Limited by {LIMIT_WORDS[window.binding]}."


def _hours(best: Ranked) -> Reason:
    fatigue = best.evaluation.fatigue
    assert fatigue is not None
    hours = fatigue.running_hours
    if hours > MANY_BENDING_HOURS:
        return Reason("bending", "Bending does not limit it: its edges are used up long before.")
    return Reason(
        "bending", f"About {figure(hours)} running hours in bending, good to a factor of ten."
    )


def _angled(job: Job) -> tuple[Reason, ...]:
    if job.cut.operation != "wedge" and job.cut.angle_deg == 0:
        return ()
    text = (
        f"The cut loads the band from one side, so it must hold {ANGLED_STABILITY_FACTOR:g} times "
        "its push against twisting, not twice: a wider, tighter band or a lower guard pays here."
    )
    return (Reason("stiffness", text),)


def reasons(best: Ranked, choice: Choice, job: Job) -> tuple[Reason, ...]:
    """Why this band, in the order an operator asks."""
    return (
        Reason("class", f"Chosen {best.class_words}."),
        _width(best, job),
        _pitch(best, choice, job),
        _steel(best, choice, job),
        _tension(best, job),
        _speed(best, job),
        _feed(best),
        _hours(best),
        *_angled(job),
    )


SAME_COST = 0.02
"""Nobody knows what a piece costs nearer than this."""


def difference(best: Ranked, other: Ranked) -> str:
    """How another band differs, in a sentence for the runner-up line."""
    share = other.total / best.total - 1.0
    money = f"{percent(abs(share))} {'dearer' if share > 0 else 'cheaper'}"
    if share >= 1.0:
        money = f"{figure(share + 1.0)} times the cost"
    if abs(share) < SAME_COST:
        money = "costs the same"
    parts = [money]
    kerf = other.evaluation.facts.kerf_mm / best.evaluation.facts.kerf_mm - 1.0
    if abs(kerf) > 0.03:
        parts.append("less kerf" if kerf < 0 else "more kerf")
    time = other.run.contact.cutting_time_s / best.run.contact.cutting_time_s - 1.0
    if abs(time) > 0.05:
        parts.append(f"{percent(abs(time))} {'slower' if time > 0 else 'faster'}")
    if other.band_class != best.band_class:
        parts.append(other.class_words)
    return ", ".join(parts)


WORTH_BUYING = 0.9
"""A type not on the rack is worth naming when it costs under this share of the rack's best."""


def worth_buying(type_best: Ranked, rack_best: Ranked | None) -> str:
    """Why a type is worth buying: clearly better than the rack's best, or the only one able."""
    if rack_best is None:
        return "Nothing on the rack can do it; this would."
    worse = type_best.band_class > rack_best.band_class
    same = type_best.band_class == rack_best.band_class
    if worse or (same and type_best.total >= WORTH_BUYING * rack_best.total):
        return ""
    this = f"this {difference(rack_best, type_best)}"
    if same:
        return f"The rack's best will do meanwhile; {this}."
    return f"The rack's best will do meanwhile, {rack_best.class_words}; {this}."
