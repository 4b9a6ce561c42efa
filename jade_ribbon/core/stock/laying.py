"""Cuts laid across a billet by hand: what each slice is, and what the whole gives."""

from collections.abc import Sequence
from dataclasses import dataclass

from jade_ribbon.core.quantities.errors import Fault, InputError

SLACK_MM = 1e-6


@dataclass(frozen=True)
class CutSlice:
    """What lies between two cuts, mm from the face; `piece` where it is thick enough for one."""

    number: int
    from_mm: float
    to_mm: float
    piece: bool
    over_mm: float
    """Thicker than a piece needs; negative where it is too thin by so much."""

    @property
    def thickness_mm(self) -> float:
        return self.to_mm - self.from_mm


@dataclass(frozen=True)
class LaidCuts:
    """Slices in order, how many are pieces, and the shares of the billet: pieces, kerf, rest."""

    slices: tuple[CutSlice, ...]
    pieces: int
    piece_share: float
    kerf_share: float
    rest_share: float


def even_cuts(count: int, *, slice_mm: float, kerf_mm: float) -> tuple[float, ...]:
    """Where the cuts start, mm from the face, that part so many slices from it."""
    return tuple(slice_mm + i * (slice_mm + kerf_mm) for i in range(count))


def lay_cuts(
    cuts_mm: Sequence[float],
    *,
    thickness_mm: float,
    kerf_mm: float,
    slice_mm: float,
    finished_mm: float,
) -> LaidCuts:
    """Slices between cuts at some distances from the face (mm, where each kerf starts).

    A slice is a piece when it is at least `slice_mm`, as sawn, thick; what it finishes to counts
    as piece. InputError for cuts out of order, over one another, or outside the billet.

    Source: arithmetic; docs/model "Slicing".

    >>> found = lay_cuts([15.0, 31.4], thickness_mm=46.4, kerf_mm=1.4, slice_mm=15.0,
    ...     finished_mm=14.0)
    >>> found.pieces, [round(s.thickness_mm, 1) for s in found.slices]
    (2, [15.0, 15.0, 13.6])
    """
    faults: list[Fault] = []
    at = 0.0
    for i, cut in enumerate(cuts_mm):
        most = thickness_mm - kerf_mm
        if not at - SLACK_MM <= cut <= most + SLACK_MM:
            words = f"{cut:g} is out of range; accepted: {at:g} to {most:g}, after the cut before"
            faults.append(Fault(f"cuts_mm.{i}", words, cut))
        at = cut + kerf_mm
    if faults:
        raise InputError(faults)
    slices: list[CutSlice] = []
    start = 0.0
    for i, end in enumerate((*cuts_mm, thickness_mm)):
        over = end - start - slice_mm
        slices.append(CutSlice(i + 1, start, end, over >= -SLACK_MM, over))
        start = end + kerf_mm
    slices = [s for s in slices if s.thickness_mm > SLACK_MM]
    pieces = sum(s.piece for s in slices)
    kerf = len(cuts_mm) * kerf_mm / thickness_mm
    whole = pieces * finished_mm / thickness_mm
    return LaidCuts(tuple(slices), pieces, whole, kerf, max(0.0, 1.0 - whole - kerf))
