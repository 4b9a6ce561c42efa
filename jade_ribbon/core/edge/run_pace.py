"""A run's feed and time: one from the other, whether they can be, and against the plan."""

from dataclasses import dataclass

from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.quantities.words import Sentence, between, figure, quantity, sentence

LEAST_FEED_M_MIN, MOST_FEED_M_MIN = 0.001, 200.0
"""Nobody cut slower or faster than this: a typed time is wrong before."""
HURRY_SHARE = 3.0
"""Time logged includes handling, so it may be longer than the cut, not so much shorter."""


@dataclass(frozen=True)
class PaceBand:
    """What a feed is called up to a share of the planned one; None: beyond the last."""

    upto_share: float | None
    words: str


PACES = (
    PaceBand(0.6, "slower than planned"),
    PaceBand(1.3, "as planned"),
    PaceBand(None, "faster than planned"),
)
"""How a run's feed stands to the planned one, slowest first."""


ASKED_TIMES = 3.0
"""A feed or a length so many times the job's own, or its inverse, is asked about."""


MISFIT_ASKED = "This band does not go on this saw; really?"


def doubt(
    *, feed_m_min: float, planned_m_min: float | None, length_mm: float, planned_length_mm: float
) -> Sentence | None:
    """What to ask before a run is believed; None when it is like its job.

    The planned feed is None where the job has none for this band.
    """
    if planned_m_min is not None:
        share = feed_m_min / planned_m_min
        if not 1.0 / ASKED_TIMES <= share <= ASKED_TIMES:
            return sentence(
                quantity(feed_m_min, "feed"),
                f": {_share_words(share)} the plan's ",
                quantity(planned_m_min, "feed"),
                "; really?",
            )
    share = length_mm / planned_length_mm
    if not 1.0 / ASKED_TIMES <= share <= ASKED_TIMES:
        return sentence(
            quantity(length_mm, "length"),
            f" each: {_share_words(share)} the job's ",
            quantity(planned_length_mm, "length"),
            "; really?",
        )
    return None


def _share_words(share: float) -> str:
    return f"{figure(share, 2)} times" if share > 1.0 else f"1/{figure(1.0 / share, 2)} of"


def feed_and_time(
    *, length_m: float, feed_m_min: float | None, time_s: float | None
) -> tuple[float, float]:
    """Feed (m/min) from time (s) or time from feed; both given must agree within a factor of three.

    One of the two must be given. Raises InputError for a pace nobody cut at.
    """
    if feed_m_min is None:
        assert time_s is not None
        feed = length_m / (time_s / 60.0)
        if not LEAST_FEED_M_MIN <= feed <= MOST_FEED_M_MIN:
            accepted = between(LEAST_FEED_M_MIN, MOST_FEED_M_MIN, "feed")
            words = sentence(
                f"{time_s:g} s for {length_m:.3g} m is a feed of ",
                quantity(feed, "feed"),
                "; accepted: a feed of ",
                accepted,
            )
            raise refuse("time_s", words, time_s)
        return feed, time_s
    cutting = length_m / feed_m_min * 60.0
    if time_s is None:
        return feed_m_min, cutting
    if time_s < cutting / HURRY_SHARE:
        words = sentence(
            f"{time_s:g} s is too short for {length_m:.3g} m at ",
            quantity(feed_m_min, "feed"),
            f"; accepted: about {cutting:.0f} s or more (did you mean minutes?)",
        )
        raise refuse("time_s", words, time_s)
    return feed_m_min, time_s
