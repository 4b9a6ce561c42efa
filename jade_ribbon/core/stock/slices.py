"""Whether a billet gives the slices asked for, with the kerf of the band that cuts them."""

from dataclasses import dataclass

from jade_ribbon.core.job import Cut
from jade_ribbon.core.mechanics.slicing import EXACT_FIT_SLACK, slicing
from jade_ribbon.core.quantities.words import Said, quantity, sentence


@dataclass(frozen=True)
class Slices:
    """Cuts that part the slices, what they take of a billet, and whether this one gives them."""

    cuts: int
    needed_mm: float
    given: int | None
    enough: bool
    words: Said


def slices_for(cut: Cut, *, slice_mm: float, billet_mm: float | None, kerf_mm: float) -> Slices:
    """N slices take N - 1 kerfs, or N where the last face is sawn too.

    Lengths in mm; slices as they leave the saw, a billet as it is laid against the fence.
    Source: docs/model "Slicing".
    """
    needed = cut.count * slice_mm + cut.cuts * kerf_mm
    said = sentence(
        f"{cut.cuts} cuts with ",
        quantity(kerf_mm, "length"),
        f" of kerf: {cut.count} pieces take ",
        quantity(needed, "length"),
    )
    if billet_mm is None:
        return Slices(cut.cuts, needed, None, True, sentence(said, " of a billet."))
    given = slicing(
        billet_mm=billet_mm,
        slice_mm=slice_mm,
        kerf_mm=kerf_mm,
        clean_up_per_face_mm=0.0,
        prepare_loss_mm=min(kerf_mm, billet_mm / 2.0) if cut.last_face_sawn else 0.0,
    ).slices
    left = billet_mm - needed
    enough = left >= -EXACT_FIT_SLACK
    if enough:
        rest = sentence(", and leave ", quantity(max(left, 0.0), "length"), " of this billet.")
    else:
        rest = sentence(
            ", ", quantity(-left, "length"), f" more than this billet has: it gives {given}."
        )
    return Slices(cut.cuts, needed, given, enough, sentence(said, rest))
