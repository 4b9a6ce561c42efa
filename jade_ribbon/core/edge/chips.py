"""What the chips say of the bite, beside what the feed says."""

from dataclasses import dataclass
from typing import Literal, get_args

from jade_ribbon.core.quantities.words import Said, quantity, sentence

Chips = Literal["dust", "grit", "flakes", "strings"]
CHIPS: tuple[Chips, ...] = get_args(Chips)
BiteSaid = Literal["small", "right", "large"]

IN_WOOD: dict[Chips, BiteSaid] = {
    "dust": "small",
    "grit": "right",
    "flakes": "right",
    "strings": "large",
}
IN_METAL: dict[Chips, BiteSaid] = {
    "dust": "small",
    "grit": "small",
    "flakes": "large",
    "strings": "right",
}
"""Curls are right in metal; thick blue flakes are too large a bite."""


@dataclass(frozen=True)
class ChipsSay:
    """What a kind of chip says of the bite, and what to do by it and by the feed together."""

    chips: Chips
    by_feed: BiteSaid
    bite: BiteSaid
    agrees: bool
    words: Said


def bite_said(chips: Chips, *, metal: bool) -> BiteSaid:
    """What chips say by themselves.

    >>> bite_said("dust", metal=False), bite_said("strings", metal=True)
    ('small', 'right')
    """
    return (IN_METAL if metal else IN_WOOD)[chips]


def chips_say(
    chips: Chips, *, feed_m_min: float, floor_m_min: float, ceiling_m_min: float, metal: bool
) -> ChipsSay:
    """Chips against the feed's place in its window (m/min).

    Where both say the same, the feed is to change; where the chips say too small and the feed is
    within the window, it is the edge or the gullets; too large at a low feed: some teeth carry it
    all. Where the window is shut (ceiling under floor) nobody is told to feed past the ceiling.

    Source: sawyers' practice of reading dust, give or take a class; docs/model "Chips".
    """
    said = bite_said(chips, metal=metal)
    by_feed: BiteSaid = "right"
    if feed_m_min < floor_m_min:
        by_feed = "small"
    if feed_m_min > ceiling_m_min:
        by_feed = "large"
    aim = quantity(min((floor_m_min * ceiling_m_min) ** 0.5, ceiling_m_min), "feed")
    words: Said
    if said == "small" and ceiling_m_min < floor_m_min:
        words = sentence(
            "The teeth rub, and ",
            aim,
            " is the most this band stands here: a keener or coarser band, not more feed.",
        )
    elif said == by_feed == "right":
        words = "The bite is right: keep to this feed."
    elif said == by_feed:
        way = "feed faster" if said == "small" else "ease the feed"
        words = sentence(f"The bite is too {said}: {way}, toward ", aim, ".")
    elif said == "small":
        words = (
            "The feed is enough for a chip, yet it is dust: the edge is dull or its gullets pack."
        )
    elif said == "large" and by_feed == "small":
        words = "The feed is low, yet chips are thick: teeth are missing, or some stand out."
    elif said == "large":
        words = sentence("Chips are thick for this feed: ease it toward ", aim, " and look again.")
    else:
        words = "The chips are right, the feed is outside its window: time it again."
    return ChipsSay(chips, by_feed, said, said == by_feed, words)


def is_dusty(chips: str, *, feed_m_min: float, floor_m_min: float | None, metal: bool) -> bool:
    """Whether chips speak of a dull edge: too small at a feed that should cut them.

    >>> is_dusty("dust", feed_m_min=2.0, floor_m_min=0.5, metal=False)
    True
    >>> is_dusty("dust", feed_m_min=0.4, floor_m_min=0.5, metal=False)
    False
    """
    known = next((c for c in CHIPS if c == chips), None)
    if known is None or floor_m_min is None or feed_m_min < floor_m_min:
        return False
    return bite_said(known, metal=metal) == "small"


def chips_table(*, floor_m_min: float, ceiling_m_min: float, metal: bool) -> tuple[ChipsSay, ...]:
    """What each kind of chip says at a feed under, within and over its window.

    So that the run card tells it with the network down.
    """
    places = (0.5 * floor_m_min, (floor_m_min * ceiling_m_min) ** 0.5, 2.0 * ceiling_m_min)
    return tuple(
        chips_say(
            chips,
            feed_m_min=feed,
            floor_m_min=floor_m_min,
            ceiling_m_min=ceiling_m_min,
            metal=metal,
        )
        for chips in CHIPS
        for feed in places
    )
