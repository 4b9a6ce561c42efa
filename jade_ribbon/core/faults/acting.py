"""Which check is to be made now, and when it is good enough to act."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass

from jade_ribbon.core.faults.diagnosis import HALF, Diagnosis, Told
from jade_ribbon.core.faults.next_check import Offer
from jade_ribbon.core.quantities.words import figure, percent
from jade_ribbon.reference.faults import Cause, causes, checks, sign_texts

LOOK_FIRST = (
    "crack",
    "fatigue",
    "tooth_missing",
    "weld_proud",
    "wheel_bearing",
    "extraction_blocked",
)
"""Dangerous if true: what comes apart, or smoulders."""
LOOK_OVER = 0.03
"""Likelier than this, it is looked at before the saw runs again."""
CHEAP_SHARE = 0.9
"""Within a tenth of the most bits a minute."""
PLAIN = ("nothing", "light")
WHEELS = ("saw.tyre", "saw.alignment", "setup.fine_track", "setup.rough_track", "setup.tension")
"""Wheels, crown and tension: looked at before guides are blamed, by house rule."""
GUIDES = ("setup.guides_upper", "setup.guides_lower")

ALREADY: Mapping[str, tuple[str, ...]] = {
    "bending_card": ("bending_life_share",),
    "teeth_count": ("teeth_in_cut",),
    "pluck": ("stress_share_of_target",),
    "feed_time": ("feed_over_ceiling", "feed_under_floor"),
    "speed_read": ("speed_over_target",),
}
"""Checks whose answer the records gave already, measured for this job: a fact counts once."""


def known_already(reads: Collection[str]) -> dict[str, str]:
    """Checks not offered since the records say as much, with the reading that says it."""
    found = {}
    for check, readings in ALREADY.items():
        told = next((r for r in readings if r in reads), None)
        if told is not None:
            found[check] = told
    return found


@dataclass(frozen=True, eq=False)
class Now:
    """The check to make now, and why this one; none where nothing is left to ask."""

    offer: Offer | None
    why: tuple[str, ...]
    watched: tuple[str, ...]
    """Dangerous causes that must be looked at before the saw runs again."""


def _looked_at(diagnosis: Diagnosis, cause: str) -> bool:
    """Whether somebody has looked, the saw isolated, where a cause would show."""
    known, place = diagnosis.knowledge, diagnosis.knowledge.place[cause]
    return any(
        piece.kind == "answer" and _a_look(piece.key) and place in known.check_of[piece.key].speaks
        for piece in diagnosis.pieces
    )


def _a_look(check: str) -> bool:
    """Made isolated and at rest: a look at the thing itself, not a question or a run."""
    row = checks()[check]
    return row.isolate and not row.runs


def to_look_at(diagnosis: Diagnosis) -> tuple[str, ...]:
    """Dangerous causes likelier than 3 % that nobody has looked at yet, likeliest first."""
    found = [
        (diagnosis.chance(cause), cause)
        for cause in LOOK_FIRST
        if cause in diagnosis.knowledge.place
        and diagnosis.chance(cause) > LOOK_OVER
        and not _looked_at(diagnosis, cause)
    ]
    return tuple(cause for _, cause in sorted(found, reverse=True))


def _at_rest(diagnosis: Diagnosis, offers: tuple[Offer, ...], cause: str) -> Offer | None:
    """The best look that speaks of a cause; without one, the best check that runs nothing."""
    known = diagnosis.knowledge
    still = [o for o in offers if not known.check_of[o.check].runs]
    place = known.place[cause]
    looks = [o for o in still if _a_look(o.check) and place in known.check_of[o.check].speaks]
    return next(iter(looks or still), None)


def _cheaper(best: Offer, near: list[Offer], wheels_first: bool) -> tuple[Offer, tuple[str, ...]]:
    """Among checks as good within a tenth: wheels before guides by house rule, a cheap look."""
    listed = checks()
    why: tuple[str, ...] = ()
    if wheels_first and listed[best.check].opens in GUIDES:
        wheels = [o for o in near if listed[o.check].opens in WHEELS]
        if wheels:
            best = wheels[0]
            why = ("House rule: wheels and crown before guides; this one tells as much.",)
    looks = [o for o in near if o.minutes < best.minutes and listed[o.check].needs in PLAIN]
    if looks and not why:
        best = min(looks, key=lambda o: o.minutes)
        why = ("As good as the best within a tenth, and a quick look.",)
    return best, why


def check_now(diagnosis: Diagnosis, offers: tuple[Offer, ...], *, wheels_first: bool = True) -> Now:
    """The check that tells most per minute, unless danger, a cheap look or a house rule says
    another: danger before the saw runs again, the others only within a tenth.
    """
    watched = to_look_at(diagnosis)
    if not offers:
        return Now(None, (), watched)
    best = offers[0]
    near = [o for o in offers if o.bits_per_min >= CHEAP_SHARE * best.bits_per_min]
    best, why = _cheaper(best, near, wheels_first)
    if watched and diagnosis.knowledge.check_of[best.check].runs:
        name = causes()[watched[0]].name.lower()
        chance = percent(diagnosis.chance(watched[0]))
        why = (f"Before the saw runs again: {name} stands at {chance}.",)
        return Now(_at_rest(diagnosis, offers, watched[0]), why, watched)
    if not why:
        why = ("It tells most for its minutes.",)
    return Now(best, why, watched)


def chosen(diagnosis: Diagnosis, offers: tuple[Offer, ...], check: str) -> Now | None:
    """A check that somebody chooses instead; None for one that may not be made now.

    Nothing that runs the saw while something dangerous is still to be looked at.
    """
    watched = to_look_at(diagnosis)
    offer = next((o for o in offers if o.check == check), None)
    if offer is None or (watched and diagnosis.knowledge.check_of[check].runs):
        return None
    return Now(offer, ("Your choice.",), watched)


@dataclass(frozen=True)
class Acting:
    """Whether it is good enough to act on the likeliest cause, and what speaks for it."""

    cause: str
    chance: float
    remedy: str
    minutes: float
    opens: str
    wrong_costs_min: float
    act: bool
    words: str


def _rest_costs(cause: Cause, chance: float) -> float:
    return cause.remedy_minutes * (1.0 - chance)


def acting(diagnosis: Diagnosis, now: Now) -> Acting:
    """Act when the likeliest cause's remedy, should it be wrong, costs less than the next check.

    Never while something dangerous is still to be looked at; always on a likely cause that stops.
    """
    cause = causes()[diagnosis.first]
    chance = diagnosis.chance(cause.key)
    wrong = _rest_costs(cause, chance)
    asked = now.offer.minutes if now.offer is not None else None
    act, words = False, ""
    if cause.harm == "stop" and chance >= HALF:
        act, words = True, "A stop at more than a half: its remedy comes first."
    elif now.watched:
        name = causes()[now.watched[0]].name.lower()
        words = f"Not yet: {name} is looked at before the saw runs again."
    elif asked is None:
        words = (
            "No check is left that could tell more."
            if chance < HALF
            else "No check is left; it is the likeliest."
        )
        act = chance >= HALF
    elif wrong < asked and chance > diagnosis.none_listed:
        act = True
        said = "Good enough to act" if chance >= HALF else "Not sure, but cheap to try"
        words = f"{said}: a wrong guess costs {_minutes(wrong)}, the next check {_minutes(asked)}."
    elif wrong < asked:
        words = "Cannot tell: none of the listed causes is as likely as the best of them."
    else:
        words = (
            f"One more check: a wrong guess would cost {_minutes(wrong)}, "
            f"the check {_minutes(asked)}."
        )
    return Acting(
        cause.key,
        chance,
        cause.remedy,
        cause.remedy_minutes,
        cause.remedy_opens,
        wrong,
        act,
        words,
    )


def _minutes(value: float) -> str:
    """Minutes known to a factor of 1.5, as they are said."""
    return "under a minute" if value < 1.0 else f"{figure(value, 1 if value < 10 else 2)} min"


COMPLAINT = (
    "when_began",
    "steady_cut",
    "other_stock",
    "half_height",
    "two_feeds",
    "shift_speed",
    "flip_fence",
    "clean_wax",
    "swap_band",
)
"""Checks that speak of the complaint itself: asked of one sign at a time."""
RUN_CAUTIONS = ("doors_guard", "hands", "before_start")
"""Cautions of a run card that a check which runs the saw carries."""


def asked_of(diagnosis: Diagnosis, check: str) -> str:
    """The one sign that a check of the complaint is answered for; '' where it matters not."""
    told = [s for s, d in diagnosis.told.symptoms.items() if d >= HALF]
    if check not in COMPLAINT or len(told) < 2:
        return ""
    return sign_texts()[complaint_of(diagnosis.told)].name


def complaint_of(told: Told) -> str:
    """The sign that was told first; '' where none is there."""
    return next((s for s, d in told.symptoms.items() if d >= HALF), "")


def clears(diagnosis: Diagnosis, cause: str) -> tuple[str, ...]:
    """Names of the signs told that a cause shows, and so should go with it."""
    known = diagnosis.knowledge
    shows = known.shows[known.place[cause]]
    return tuple(
        sign_texts()[sign].name
        for sign, degree in diagnosis.told.symptoms.items()
        if degree >= HALF and shows[known.sign_place[sign]] > 0.0
    )


@dataclass(frozen=True)
class Stop:
    """What takes over the screen: why, and what is done before anything else."""

    key: str
    title: str
    do: str


SMOULDER = (
    "Stop the saw and the extraction, isolate, and look for smouldering dust in the boxes, the "
    "hose and the collector before leaving it."
)
BROKEN = (
    "Stop button, stand clear, wait for the wheels, isolate. Expect the band sprung behind the "
    "door; look over tyres, guides and guard before fitting another."
)
OUT = "Stop, isolate, and take the band out of service: it does not run again like this."
CAME_OFF = (
    "Stop, stand clear, wait for the wheels, isolate. Look over band, tyres and guides before it "
    "is tracked again; if it came off, expect it sprung behind the door."
)
SIGN_STOPS: Mapping[str, str] = {
    "smoke": SMOULDER,
    "sparks": "Stop and isolate. Look for metal in the stock and smouldering dust in the boxes.",
    "snaps_weld": BROKEN,
    "snaps_body": BROKEN,
    "gullet_cracks": OUT,
    "teeth_stripped": OUT,
    "climbs_forward": CAME_OFF,
    "climbs_backward": CAME_OFF,
}


def stops(diagnosis: Diagnosis) -> tuple[Stop, ...]:
    """Signs that stop work, and causes likelier than not that do: shown before anything else."""
    signs, known = sign_texts(), causes()
    found = [
        Stop(sign, signs[sign].name, SIGN_STOPS[sign])
        for sign in SIGN_STOPS
        if diagnosis.told.symptoms.get(sign, 0.0) >= HALF
    ]
    for place in diagnosis.order:
        cause = known[diagnosis.knowledge.causes[int(place)]]
        if diagnosis.chance(cause.key) < HALF:
            break
        if cause.harm == "stop":
            found.append(Stop(cause.key, cause.name, cause.remedy))
    return tuple(found)
