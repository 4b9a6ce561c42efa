"""Where a band stands and what to do with it next, with what that is worth."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from jade_ribbon.core.edge.sharpness import Keenness
from jade_ribbon.core.job import Finish
from jade_ribbon.core.mechanics.wear import FOULING_DULLNESS
from jade_ribbon.core.money.regrind_or_replace import Bounds, SharpenWay
from jade_ribbon.core.quantities.chances import chance_words
from jade_ribbon.core.quantities.words import Said

Do = Literal[
    "nothing", "mend", "look", "ask", "clean", "sharpen", "demote", "scrap", "use", "cannot_tell"
]
GUMMED = 0.5
"""Gum that is worth stopping for."""
BENT = 0.8
"""From this share of its bending life a band is looked at for cracks at the gullets."""
LIKELY, UNSURE = 0.75, 0.25
"""Past its limit by such a chance it is; under it is not; between nobody can tell."""
OAK_M, OAK_GAIN, OAK_SHARP, OAK_DULL = 0.35, 0.5, 0.35, 0.95
"""Dry hardwood, in which what gum costs is told."""
FACES: tuple[tuple[Finish, str], ...] = (
    ("show", "show faces"),
    ("sand", "faces to be sanded"),
    ("plane", "work to be planed"),
    ("rough", "rough work"),
)
DEFECT_WORDS = {"kink": "kinked", "weld_stepped": "its weld stepped"}


@dataclass(frozen=True)
class Standing:
    """What decides about a band. Money in the shop's currency, lives in equivalent metres."""

    keen: Keenness
    limits: Mapping[Finish, float]
    rule: str
    """The house rule for changing bands: first_sign, limit, demote."""
    kept_for: str
    fouling: float
    bending_share: float
    defects: tuple[str, ...]
    """Those that keep it off the saw; teeth only where more are gone than the house allows."""
    teeth_lost: int
    teeth_allowed: int
    look_first: bool
    still_good_asked: bool
    gone: str
    """'' on the rack; else why it is not."""
    sharpenings: int
    bounds: Bounds
    way: SharpenWay | None
    """The way of sharpening that this shop uses; None where it does not."""
    price_new: float
    life_new_m: float
    life_now_m: float
    life_next_m: float
    hour_rate: float


@dataclass(frozen=True)
class Next:
    """One line: what to do, in words, and what that is worth; None where money says nothing."""

    do: Do
    words: Said
    worth: float | None
    worth_words: str


def due_limit(standing: Standing) -> float:
    """How dull an edge may be before something is done about it, by its use and the house rule."""
    limits = standing.limits
    if standing.kept_for == "show":
        return limits["sand"]
    if standing.kept_for != "all" or standing.rule == "limit":
        return limits["rough"]
    return limits["show"] if standing.rule == "first_sign" else limits["plane"]


def edge_money(standing: Standing) -> float:
    """What an edge as new on this band is worth: its share of a new band's metres."""
    return standing.price_new * standing.life_now_m / standing.life_new_m


def sharpening_gain(standing: Standing) -> float | None:
    """What one more sharpening saves against as many metres of a new band; None where none is."""
    if standing.way is None or standing.sharpenings >= standing.bounds.times:
        return None
    regained = standing.price_new * standing.life_next_m / standing.life_new_m
    return regained - standing.way.each


def gum_money_per_hour(fouling: float, dullness: float, hour_rate: float) -> float:
    """What gum costs an hour of sawing by hand, in dry hardwood: the feed that it takes away."""

    def push(d: float) -> float:
        return (1.0 + OAK_GAIN * d) * (OAK_SHARP + (OAK_DULL - OAK_SHARP) * d)

    slower = push(dullness) / push(dullness + FOULING_DULLNESS * fouling)
    return hour_rate * (1.0 - float(slower ** (1.0 / (1.0 - OAK_M))))


def _sure(standing: Standing, limit: float) -> Literal["past", "within", "unsure"]:
    chance = standing.keen.chance_past(limit)
    if chance >= LIKELY:
        return "past"
    return "within" if chance <= UNSURE else "unsure"


def usable_for(standing: Standing) -> list[str]:
    """Faces that its edge is surely good for, finest first."""
    return [words for key, words in FACES if _sure(standing, standing.limits[key]) == "within"]


def what_next(standing: Standing) -> Next:
    """What to do with a band: the first that holds, danger before money.

    Source: decision by least expected cost; judgement what an hour waits; docs/model "What next".
    """
    return _safety(standing) or _asked(standing) or _by_money(standing)


def _safety(standing: Standing) -> Next | None:
    """What keeps it off the saw, or asks for a look before it goes on."""
    if standing.gone:
        return Next("nothing", standing.gone, None, "")
    if standing.defects:
        return _damaged(standing)
    if standing.look_first:
        return Next(
            "look",
            "It was hit or came off: look along teeth, gullets and weld before it runs, and note "
            "what you see.",
            None,
            "",
        )
    if standing.bending_share >= BENT:
        share = f"{100.0 * min(standing.bending_share, 9.99):.0f}"
        return Next(
            "look",
            f"Look for cracks at the gullets: {share} % of its bending life is used.",
            None,
            "",
        )
    return None


def _damaged(standing: Standing) -> Next:
    """A band off the saw: mended where a hand can, else scrap."""
    if "crack" in standing.defects:
        return Next("scrap", "Scrap it: a cracked band is never mended.", None, "")
    if "teeth_lost" in standing.defects:
        allowed = f"{standing.teeth_allowed or 'none'}"
        teeth = "tooth is" if standing.teeth_lost == 1 else "teeth are"
        words = f"Scrap it: {standing.teeth_lost} {teeth} missing, this shop allows {allowed}."
        return Next("scrap", words, None, "")
    found = " and ".join(DEFECT_WORDS[d] for d in dict.fromkeys(standing.defects))
    left = max(0.0, 1.0 - standing.keen.dullness) * edge_money(standing)
    words = f"Off the saw: {found}. Have it mended and say so, or scrap it."
    return Next("mend", words, left, "what is left of its edge")


def _asked(standing: Standing) -> Next | None:
    if standing.still_good_asked:
        return Next("ask", "Past what such edges last: is it still good?", None, "")
    if standing.fouling >= GUMMED:
        money = gum_money_per_hour(standing.fouling, standing.keen.dullness, standing.hour_rate)
        return Next("clean", "Clean it: gum slows it.", money, "an hour of sawing by hand")
    return None


def _by_money(standing: Standing) -> Next:
    limit = due_limit(standing)
    sure = _sure(standing, limit)
    if sure == "unsure":
        chance = standing.keen.chance_past(limit)
        return Next(
            "cannot_tell",
            f"Cannot tell whether it is due: {chance_words(chance)} that it is. "
            "A look at its edge settles it.",
            None,
            "",
        )
    if sure == "within":
        words = usable_for(standing)
        left = max(0.0, 1.0 - standing.keen.dullness)
        return Next(
            "use",
            f"Use it for {words[0]}." if words else "Use it for rough work.",
            left * edge_money(standing),
            "what is left of its edge",
        )
    return _due(standing)


def _due(standing: Standing) -> Next:
    """An edge past its limit: sharpened where that pays, used for rougher work, or replaced."""
    gain = sharpening_gain(standing)
    way = standing.way
    if gain is not None and gain > 0.0 and way is not None:
        left = standing.bounds.times - standing.sharpenings
        more = f"{left} of {standing.bounds.times} times left"
        return Next("sharpen", f"Sharpen it, {way.name}: {more}.", gain, "against a new one")
    rough = standing.limits["rough"]
    if (
        standing.rule == "demote"
        and standing.kept_for == "all"
        and _sure(standing, rough) != "past"
    ):
        last = max(0.0, rough - standing.keen.dullness)
        return Next(
            "demote", "Keep it for rough work only.", last * edge_money(standing), "its last metres"
        )
    why = (
        f"sharpened {standing.sharpenings} times, {standing.bounds.by} allows no more"
        if standing.way is not None and standing.sharpenings >= standing.bounds.times
        else "sharpening it costs more than its metres are worth"
        if gain is not None
        else "this shop does not sharpen such bands"
    )
    return Next(
        "scrap",
        f"Replace it: {why}.",
        None if gain is None else -gain,
        "saved against sharpening" if gain is not None else "",
    )
