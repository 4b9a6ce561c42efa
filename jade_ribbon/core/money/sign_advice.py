"""A sign at the saw: what it does to the edge's odds, and what to do now."""

from dataclasses import dataclass, replace
from typing import Literal

from jade_ribbon.core.edge.sharpness import LEFT_AFTER_SMOKE, SIGN_ODDS, EdgeRecord, how_keen
from jade_ribbon.core.edge.signs import STOPS, SYMPTOMS, Symptom
from jade_ribbon.core.quantities.words import Said, quantity, sentence

DoNow = Literal["nothing", "ease", "ask", "clean", "change", "stop"]
"""From least to gravest: of two verdicts on a sign the graver stands."""

GUMMED = 0.45
"""From here on gum explains heat and a hard push."""
GUM_EXPLAINS = frozenset(("burn", "smoke", "hard_push", "gummed"))
EASED = frozenset(("barrel", "wander", "waves", "washboard", "vibration", "hard_push", "squeal"))
"""What less push mends at once, whatever else it comes of."""
EASED_TO = 0.7


@dataclass(frozen=True)
class EdgeNow:
    """An edge as it is known: its record, the life to expect (m), gum."""

    record: EdgeRecord
    life_m: float
    retired: int
    fouling: float

    def dullness(self, odds: float = 1.0, left: float = 1.0) -> float:
        """How dull it is, or would be by a run with odds and smoke of its own."""
        record = self.record
        judged = record.judged
        if (odds, left) != (1.0, 1.0):
            # The run has been made: a judgement before it no longer wins by itself.
            since = None if judged is None else replace(judged, since=judged.since + 1)
            record = replace(
                record,
                judged=since,
                odds=record.odds * odds,
                left_factor=record.left_factor * left,
            )
        return how_keen(record, life_m=self.life_m, retired=self.retired).dullness


@dataclass(frozen=True)
class SignEffect:
    """What one sign moves: dullness before and after, 0 as new; and what to do now."""

    sign: Symptom
    dullness_before: float
    dullness_after: float
    do: DoNow
    words: Said


def _do(sign: Symptom, edge: EdgeNow, after: float, limit: float, *, at_first_sign: bool) -> DoNow:
    if sign in STOPS:
        return "stop"
    if at_first_sign and sign in SIGN_ODDS:
        return "change"
    if sign in GUM_EXPLAINS and (sign == "gummed" or edge.fouling >= GUMMED):
        return "clean"
    if sign in SIGN_ODDS and after >= limit:
        return "change"
    if sign == "burn":
        return "ask"
    return "ease" if sign in EASED else "nothing"


def sign_effect(
    sign: Symptom,
    edge: EdgeNow,
    *,
    limit: float,
    feed_m_min: float | None,
    floor_m_min: float,
    size_exponent_m: float,
    at_first_sign: bool = False,
) -> SignEffect:
    """One sign more on an edge, against the dullest this finish allows.

    `at_first_sign`: a show face under the house rule that changes a band at the first sign.

    Gum is cleaned before an edge is called dull. Easing goes to seven tenths of the feed, never
    under the least at which teeth cut; the push goes as feed^(1 - m).

    Source: keenness, "Signs"; docs/model "What to do on a sign".
    """
    before = edge.dullness()
    after = edge.dullness(SIGN_ODDS.get(sign, 1.0), LEFT_AFTER_SMOKE if sign == "smoke" else 1.0)
    do = _do(sign, edge, after, limit, at_first_sign=at_first_sign)
    past = "with this sign its edge is past what this finish takes"
    if at_first_sign and after < limit:
        past = "at the first sign, by house rule, on a show face"
    words: Said = {
        "nothing": "Note it and go on; three such in a row are no chance.",
        "ease": "Ease the feed.",
        "clean": "Clean the band: gum alone does that. Then look again.",
        "change": f"Change the band: {past}.",
        "ask": (
            "Before the next board find out why: too slow a feed, gum, a dull edge, fine teeth. "
            "Look into the dust box before leaving it."
        ),
        "stop": STOPS.get(sign, ""),
    }[do]
    if do == "ease" and feed_m_min is not None:
        eased = max(EASED_TO * feed_m_min, floor_m_min)
        if eased < 0.97 * feed_m_min:
            less = 100.0 * (1.0 - (eased / feed_m_min) ** (1.0 - size_exponent_m))
            to = quantity(eased, "feed")
            words = sentence("Ease the feed to ", to, f": the push falls by {less:.0f} %.")
        else:
            do = "nothing"
            words = "The feed is at its least already: go on to the checks of Set up."
    return SignEffect(sign, before, after, do, words)


def sign_effects(
    edge: EdgeNow,
    *,
    limit: float,
    feed_m_min: float | None,
    floor_m_min: float,
    size_exponent_m: float,
    at_first_sign: bool = False,
) -> tuple[SignEffect, ...]:
    """What each sign would do, so that the run card tells it with the network down."""
    return tuple(
        sign_effect(
            sign,
            edge,
            limit=limit,
            feed_m_min=feed_m_min,
            floor_m_min=floor_m_min,
            size_exponent_m=size_exponent_m,
            at_first_sign=at_first_sign,
        )
        for sign in SYMPTOMS
    )
