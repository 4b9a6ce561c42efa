"""Stock that moves when it is opened: what the last cut did, and where the next one goes."""

from dataclasses import dataclass
from typing import Literal

from jade_ribbon.core.mechanics.slicing import slicing
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import Said, quantity, sentence

GROWING_MM = 1.0
"""Over so much change of bow in one cut the stress has not let go yet."""
BOW_DOUBT_MM = 0.5
"""A bow read with straightedge and feeler is no surer than this, eight times in ten."""

Way = Literal["halve", "slice"]
OpeningRule = Literal["halves", "one_face"]


@dataclass(frozen=True)
class NextCut:
    """The next cut of stock: halving it, or a slice off its face; how far from the face it lies."""

    way: Way
    from_face_mm: float
    pieces: int
    """Slices that the stock still gives, each part trued again where it is halved."""
    sure: bool
    """False where the bow grew by so near to the limit that either may be right."""
    words: Said


def growth_mm(before_mm: float, first_mm: float, second_mm: float) -> float:
    """How much a cut let a piece bow: of its two parts, the one that changed more.

    Bows are positive when the marked face is hollow.

    >>> growth_mm(0.5, 3.0, -1.5)
    2.5
    """
    return max(abs(first_mm - before_mm), abs(second_mm - before_mm))


def _slices(thickness_mm: float, loss_mm: float, slice_mm: float, kerf_mm: float) -> int:
    try:
        return slicing(
            billet_mm=thickness_mm,
            slice_mm=slice_mm,
            kerf_mm=kerf_mm,
            clean_up_per_face_mm=0.0,
            prepare_loss_mm=loss_mm,
        ).slices
    except InputError:
        return 0


def next_cut(
    *,
    thickness_mm: float,
    bow_mm: float,
    slice_mm: float,
    kerf_mm: float,
    prepare_loss_mm: float,
    grew_mm: float | None,
    rule: OpeningRule,
) -> NextCut:
    """Halve from the middle while the bow grows over a millimetre a cut; slice once it settles.

    `slice_mm` as sawn; `grew_mm` None before any cut; bow as it is now, either way. A part halved
    is trued again, which takes what it bowed last time. Faces that must match are sawn in sequence
    whatever the bow does, by the house rule.

    Source: house rules "reactive stock"; release of growth stress; docs/model "Stock".
    """
    whole = _slices(thickness_mm, prepare_loss_mm + abs(bow_mm), slice_mm, kerf_mm)
    half_mm = (thickness_mm - kerf_mm) / 2.0
    moved = abs(bow_mm) if grew_mm is None else grew_mm
    halved = 2 * _slices(half_mm, prepare_loss_mm + moved, slice_mm, kerf_mm)
    near = grew_mm is not None and abs(grew_mm - GROWING_MM) <= BOW_DOUBT_MM
    if rule == "one_face":
        return NextCut(
            "slice",
            slice_mm,
            whole,
            True,
            "Slice from one face: by house rule the faces stay in sequence.",
        )
    if whole <= 1:
        return NextCut("slice", slice_mm, whole, True, "One slice is left in it at most.")
    if halved == 0 and (grew_mm is None or grew_mm > GROWING_MM):
        return NextCut(
            "slice",
            slice_mm,
            whole,
            False,
            "It still moves, or may, but halved it is too thin for a slice: take one from its "
            "face, rest it, measure its bow, and true it again before the next.",
        )
    if grew_mm is None or grew_mm > GROWING_MM:
        why: Said = "Nobody knows yet how it moves: open it in the middle"
        if grew_mm is not None:
            why = sentence("The last cut let it bow by ", quantity(grew_mm, "length"), ": halve it")
        words = sentence(why, ", rest both parts, measure their bow, and true them again.")
        if whole > halved:
            words += f" It gives {halved} so; {whole} from its face, if it stayed still."
        return NextCut("halve", half_mm, halved, not near, words)
    words = sentence(
        "It has settled (", quantity(grew_mm, "length"), " at the last cut): slice from its face."
    )
    return NextCut("slice", slice_mm, whole, not near, words)
