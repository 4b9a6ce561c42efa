"""A tyre checked with a straightedge across its face: crowned, flat, or worn hollow."""

from dataclasses import dataclass

from jade_ribbon.core.quantities.formula_limits import within_limits
from jade_ribbon.core.quantities.words import Said, Sentence, quantity, sentence

SEEN_MM = 0.1
"""Less light than this under a straightedge is none."""
LEAST_CROWN_SHARE = 0.004
"""A crown under this share of the tyre's width hardly holds a band."""
LOPSIDED_SHARE = 0.5
STEEPEST_CROWN_SHARE = 0.08
"""Nobody crowns a tyre by more of its width: the straightedge stood askew, or a gap was misread."""


@dataclass(frozen=True)
class TyreVerdict:
    """What the tyre is, how high its crown stands (mm, hollow negative), and what to do."""

    state: str
    crown_mm: float
    agrees: bool
    words: Said


def _words(state: str, crown: float, lopsided: bool, recorded: str) -> Sentence:
    told: dict[str, Said] = {
        "crowned": sentence("Crowned, ", quantity(crown, "thin"), ": it holds a band."),
        "flat": "Flat: a band rides with its teeth over the edge, and the wheels must stand true.",
        "worn": sentence(
            "Worn hollow, ",
            quantity(abs(crown), "thin"),
            ": a band wanders on it. Dress or replace the tyre before chasing it with knob or "
            "guides.",
        ),
    }
    words = sentence(told[state])
    if lopsided:
        words = sentence(
            "It slopes to one side: worn there, the tyre has shifted, or the straightedge stood "
            "askew. Turn the straightedge end for end and read again before trusting its crown."
        )
    if state != recorded:
        words += f" The saw is recorded as {recorded}: correct it."
    return words


@within_limits
def tyre_verdict(
    *, front_gap_mm: float, middle_gap_mm: float, back_gap_mm: float, width_mm: float, recorded: str
) -> TyreVerdict:
    """The tyre from the light under a straightedge at front, middle and back (mm).

    Resting on a crown the edges show light and the middle none; on a hollow the middle does.

    >>> tyre_verdict(front_gap_mm=0.4, middle_gap_mm=0, back_gap_mm=0.4, width_mm=30,
    ...     recorded="crowned").state
    'crowned'
    """
    edges = (front_gap_mm + back_gap_mm) / 2.0
    crown = edges - middle_gap_mm
    state = "flat"
    if crown < -SEEN_MM:
        state = "worn"
    elif crown > max(SEEN_MM, LEAST_CROWN_SHARE * width_mm):
        state = "crowned"
    lopsided = state == "crowned" and abs(front_gap_mm - back_gap_mm) > LOPSIDED_SHARE * edges
    usual = "flat" if recorded == "none" else recorded
    if abs(crown) > STEEPEST_CROWN_SHARE * width_mm:
        words = sentence(
            quantity(abs(crown), "thin"),
            " over ",
            quantity(width_mm, "length"),
            " of tyre is more than any has: read the three gaps again.",
        )
        return TyreVerdict("cannot_tell", crown, False, words)
    return TyreVerdict(state, crown, state == usual, _words(state, crown, lopsided, usual))
