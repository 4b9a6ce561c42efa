"""Which pieces from which billets: sections crosscut, each sawn into slices."""

import contextlib
import itertools
import math
from collections import Counter
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import TypeVar

Way = TypeVar("Way")

SLACK_MM = 1e-6
"""Sums of decimals may be over by so much and still fit."""
MOST_PATTERNS = 8_000
"""Of sections, and of slices: of more of them the best is not found in time."""
MOST_PART_FILLED = 3_000
"""With more ways to leave something of a section, only ends are looked at for what is left."""


@dataclass(frozen=True)
class StockBillet:
    """A billet to saw from, mm; `bow_mm` over its whole length."""

    label: str
    thickness_mm: float
    height_mm: float
    length_mm: float
    bow_mm: float = 0.0


@dataclass(frozen=True)
class WantedPiece:
    """A kind of piece, at most so many of it, each worth so much."""

    label: str
    thickness_mm: float
    height_mm: float
    length_mm: float
    count: int
    value: float


@dataclass(frozen=True)
class YieldJob:
    """Billets, the pieces wanted of them, and what sawing takes, mm.

    With a rip kerf a slice may be ripped into pieces side by side; without one never.
    `along_curve`: billets are sawn along their bow, which then takes nothing of them.
    """

    kerf_mm: float
    clean_up_per_face_mm: float
    prepare_loss_mm: float
    crosscut_kerf_mm: float
    trim_mm: float
    billets: tuple[StockBillet, ...]
    pieces: tuple[WantedPiece, ...]
    rip_kerf_mm: float | None = None
    along_curve: bool = False

    @property
    def thicknesses_mm(self) -> tuple[float, ...]:
        """Of the pieces, each once, thick before thin."""
        return tuple(sorted({p.thickness_mm for p in self.pieces}, reverse=True))


@dataclass(frozen=True)
class SectionPattern:
    """A section of one billet and how many slices of each thickness its own gives."""

    billet: int
    length_mm: float
    slices: tuple[int, ...]


@dataclass(frozen=True)
class SlicePattern:
    """A slice of billets so high: of which thickness, how long, how many of each piece it gives."""

    height_mm: float
    thickness: int
    length_mm: float
    counts: tuple[int, ...]


@dataclass(frozen=True)
class Ways:
    """Every way that is looked at to fill sections with slices and slices with pieces."""

    sections: list[SectionPattern]
    slices: list[SlicePattern]
    all_of_them: bool


Slice = tuple[int, ...]
"""The pieces of a slice by their places in the job, side by side from its lower edge."""


@dataclass(frozen=True)
class Section:
    """A section as sawn: its slices in sawing order."""

    length_mm: float
    slices: tuple[Slice, ...]

    @property
    def pieces(self) -> tuple[int, ...]:
        return tuple(piece for each in self.slices for piece in each)


@dataclass(frozen=True)
class LeftOver:
    """A piece of a billet that is left whole, mm."""

    billet: int
    thickness_mm: float
    height_mm: float
    length_mm: float

    @property
    def volume_m3(self) -> float:
        return self.thickness_mm * self.height_mm * self.length_mm * 1e-9


@dataclass(frozen=True)
class CutPlan:
    """Sections by billet, what is made, and what is left, sawn to dust and lost."""

    sections: tuple[tuple[Section, ...], ...]
    made: tuple[int, ...]
    value: float
    left_over: tuple[LeftOver, ...]
    kerf_m3: float
    waste_m3: float


def usable_length_mm(job: YieldJob, billet: StockBillet) -> float:
    """Length of a billet between its trimmed ends."""
    return billet.length_mm - 2.0 * job.trim_mm


def section_thickness_mm(job: YieldJob, billet: StockBillet, length_mm: float) -> float:
    """Thickness left of a section once it is prepared, its own share of the bow gone."""
    bow = 0.0 if job.along_curve else section_bow_mm(billet, length_mm)
    return billet.thickness_mm - job.prepare_loss_mm - bow


def section_bow_mm(billet: StockBillet, length_mm: float) -> float:
    """A section's own share of its billet's bow: it goes with the square of the length."""
    return billet.bow_mm * (length_mm / billet.length_mm) ** 2


def as_sawn_mm(job: YieldJob, thickness_mm: float) -> float:
    """Thickness as sawn of a piece so thick once it is cleaned up."""
    return thickness_mm + 2.0 * job.clean_up_per_face_mm


def slice_mm(job: YieldJob, piece: WantedPiece) -> float:
    """Thickness of a piece as sawn."""
    return as_sawn_mm(job, piece.thickness_mm)


def _fitting(job: YieldJob, height_mm: float, length_mm: float) -> list[int]:
    """Pieces that a section so high and so long can give."""
    return [
        i
        for i, piece in enumerate(job.pieces)
        if piece.length_mm <= length_mm + SLACK_MM and piece.height_mm <= height_mm + SLACK_MM
    ]


class _TooManyError(Exception):
    """More ways to fill than anyone looks at."""


class _Tries:
    """How many ways may still be tried, full ones or not."""

    def __init__(self, most: float) -> None:
        self._left = most

    def one_more(self) -> None:
        """Raises _TooManyError once they are all used."""
        self._left -= 1
        if self._left < 0:
            raise _TooManyError


def _fillings(
    room_mm: float,
    takes_mm: Sequence[float],
    most: Sequence[int],
    most_kinds: int,
    tries: _Tries,
    *,
    full: bool,
) -> Iterator[list[int]]:
    """Every way to fill a room, by so many kinds; `full`: to which nothing can be added."""
    counts = [0] * len(takes_mm)

    def is_full(room: float, kinds: int) -> bool:
        return all(
            n >= m or room + SLACK_MM < t or (n == 0 and kinds >= most_kinds)
            for n, m, t in zip(counts, most, takes_mm, strict=True)
        )

    def fill(first: int, room: float, kinds: int) -> Iterator[list[int]]:
        tries.one_more()
        if kinds < most_kinds:
            for kind in range(first, len(takes_mm)):
                take = takes_mm[kind]
                for n in range(min(most[kind], int((room + SLACK_MM) / take)), 0, -1):
                    counts[kind] = n
                    yield from fill(kind + 1, room - n * take, kinds + 1)
                counts[kind] = 0
        if not full or is_full(room, kinds):
            yield list(counts)

    yield from fill(0, room_mm, 0)


TRIES_A_PATTERN = 4
"""So many ways are tried for each that is kept, before they are too many to look at."""
FEWER_KINDS = (4, 3, 2, 1)
"""Where there are too many ways to look at, only those of so few kinds in one are."""


def _fewer_where_many(ways: Callable[[int], list[Way]], kinds: int) -> tuple[list[Way], bool]:
    """The ways of as many kinds as are not too many; whether that was all of them.

    Of one kind they are never too many: as many as billets, times kinds of piece.
    """
    for most_kinds in (kinds, *(k for k in FEWER_KINDS if k < kinds)):
        with contextlib.suppress(_TooManyError):
            return ways(most_kinds), most_kinds >= kinds
    return [], False


def patterns(job: YieldJob) -> Ways:
    """Full sections of every billet, and full slices of every height they have.

    A section is one for each way its thickness can be filled with slices, a slice one for each way
    its height can be filled with pieces of its thickness; each as long as the longest piece.
    Where there are too many ways, those of a few kinds each.
    """
    sections, all_sections = _fewer_where_many(
        lambda kinds: _sections(job, kinds, full=True, most=MOST_PATTERNS),
        len(job.thicknesses_mm),
    )
    slices, all_slices = _fewer_where_many(lambda kinds: _slices(job, kinds), len(job.pieces))
    return Ways(sections, slices, all_sections and all_slices)


def _slices(job: YieldJob, most_kinds: int) -> list[SlicePattern]:
    """The ways of at most so many kinds to fill a slice. Raises _TooManyError."""
    found: list[SlicePattern] = []
    tries = _Tries(math.inf if most_kinds == 1 else TRIES_A_PATTERN * MOST_PATTERNS)
    of: dict[float, list[int]] = {t: [] for t in job.thicknesses_mm}
    for i, piece in enumerate(job.pieces):
        of[piece.thickness_mm].append(i)
    for height in sorted({b.height_mm for b in job.billets}):
        for (place, kinds), length in _lengths_of(job, of):
            fits = [
                i
                for i in kinds
                if job.pieces[i].length_mm <= length + SLACK_MM
                and job.pieces[i].height_mm <= height + SLACK_MM
            ]
            for counts in _side_by_side(job, height, fits, most_kinds, tries):
                whole = [0] * len(job.pieces)
                for i, n in zip(fits, counts, strict=True):
                    whole[i] = n
                if any(n and job.pieces[i].length_mm >= length for i, n in enumerate(whole)):
                    found.append(SlicePattern(height, place, length, tuple(whole)))
                if len(found) > MOST_PATTERNS:
                    raise _TooManyError
    return found


def _lengths_of(
    job: YieldJob, of: Mapping[float, list[int]]
) -> Iterator[tuple[tuple[int, list[int]], float]]:
    """Each thickness, by its place, with the pieces of it, and each length that one of them has."""
    for place, kinds in enumerate(of.values()):
        for length in sorted({job.pieces[i].length_mm for i in kinds}):
            yield (place, kinds), length


def _side_by_side(
    job: YieldJob, height_mm: float, fits: Sequence[int], most_kinds: int, tries: _Tries
) -> Iterator[list[int]]:
    """The ways to fill a slice so high: one piece, or where it is ripped as many as it takes."""
    if job.rip_kerf_mm is None:
        for k in range(len(fits)):
            yield [int(i == k) for i in range(len(fits))]
        return
    takes = [job.pieces[i].height_mm + job.rip_kerf_mm for i in fits]
    counted = [job.pieces[i].count for i in fits]
    yield from _fillings(height_mm + job.rip_kerf_mm, takes, counted, most_kinds, tries, full=True)


def _sections(job: YieldJob, most_kinds: int, *, full: bool, most: int) -> list[SectionPattern]:
    """The ways of at most so many kinds a section. Raises _TooManyError over `most`."""
    found: list[SectionPattern] = []
    tries = _Tries(math.inf if most_kinds == 1 else TRIES_A_PATTERN * most)
    thicknesses = job.thicknesses_mm
    takes = [as_sawn_mm(job, t) + job.kerf_mm for t in thicknesses]
    for place, billet in enumerate(job.billets):
        for length in sorted({p.length_mm for p in job.pieces}):
            if length > usable_length_mm(job, billet) + SLACK_MM:
                continue
            fits = [job.pieces[i] for i in _fitting(job, billet.height_mm, length)]
            counted = Counter[float]()
            for piece in fits:
                counted[piece.thickness_mm] += piece.count
            of_each = [counted[t] for t in thicknesses]
            longest = {p.thickness_mm for p in fits if p.length_mm >= length}
            room = section_thickness_mm(job, billet, length) + job.kerf_mm
            for counts in _fillings(room, takes, of_each, most_kinds, tries, full=full):
                filled = zip(counts, thicknesses, strict=True)
                if any(n and thickness in longest for n, thickness in filled):
                    found.append(SectionPattern(place, length, tuple(counts)))
                if len(found) > most:
                    raise _TooManyError
    return found


def part_filled(job: YieldJob) -> list[SectionPattern]:
    """Sections that something is left of, full or not; none where there are too many to look at."""
    try:
        return _sections(job, len(job.thicknesses_mm), full=False, most=MOST_PART_FILLED)
    except _TooManyError:
        return []


def rest_mm(job: YieldJob, pattern: SectionPattern) -> float:
    """Thickness left of a section once its slices are sawn, and it is sawn free of them."""
    thickness = section_thickness_mm(job, job.billets[pattern.billet], pattern.length_mm)
    each = zip(pattern.slices, job.thicknesses_mm, strict=True)
    return _rest_mm(job, thickness, [as_sawn_mm(job, t) for n, t in each for _ in range(n)])


def _rest_mm(job: YieldJob, thickness_mm: float, slices_mm: Sequence[float]) -> float:
    rest = thickness_mm - sum(slices_mm)
    return max(0.0, rest - _cuts(job, rest, len(slices_mm)) * job.kerf_mm)


def _cuts(job: YieldJob, rest_mm: float, slices: int) -> int:
    """Cuts that part so many slices: one more where something is left to be freed of them."""
    return slices if rest_mm > slices * job.kerf_mm else slices - 1


def plan_of(
    job: YieldJob, sections: Sequence[SectionPattern], slices: Sequence[SlicePattern]
) -> CutPlan:
    """The plan of some sections and what their slices are cut into.

    The longest slices go into the longest sections. Pieces over the number wanted are not sawn.
    Sections with the longest pieces come first, thick slices before thin ones.
    """
    left = [piece.count for piece in job.pieces]
    waiting = sorted(slices, key=lambda s: (-s.length_mm, s.counts))
    by_billet: list[list[Section]] = [[] for _ in job.billets]
    for pattern in sorted(sections, key=lambda p: (-p.length_mm, p.billet, p.slices)):
        height = job.billets[pattern.billet].height_mm
        sawn: list[Slice] = []
        for thickness, count in enumerate(pattern.slices):
            mine = [
                s
                for s in waiting
                if s.height_mm == height
                and s.thickness == thickness
                and s.length_mm <= pattern.length_mm + SLACK_MM
            ][:count]
            for each in mine:
                waiting.remove(each)
                if pieces := _taken(each.counts, left):
                    sawn.append(pieces)
        if sawn:
            sawn.sort(key=lambda each: (-job.pieces[each[0]].thickness_mm, each))
            length = max(job.pieces[i].length_mm for each in sawn for i in each)
            by_billet[pattern.billet].append(Section(length, tuple(sawn)))
    made = tuple(piece.count - rest for piece, rest in zip(job.pieces, left, strict=True))
    value = sum(n * piece.value for n, piece in zip(made, job.pieces, strict=True))
    laid = tuple(tuple(each) for each in by_billet)
    used = [_of_billet(job, i, each) for i, each in enumerate(laid)]
    return CutPlan(
        laid,
        made,
        value,
        tuple(left for _, lefts, _ in used for left in lefts),
        sum(kerf for kerf, _, _ in used),
        sum(waste for _, _, waste in used),
    )


def _taken(counts: Sequence[int], left: list[int]) -> Slice:
    """The pieces of a slice that are still wanted; they are no longer."""
    pieces: list[int] = []
    for i, n in enumerate(counts):
        taken = min(n, left[i])
        left[i] -= taken
        pieces += [i] * taken
    return tuple(pieces)


def _of_billet(
    job: YieldJob, place: int, sections: Sequence[Section]
) -> tuple[float, list[LeftOver], float]:
    """Kerf (m3), what is left whole, and what is lost (m3) of one billet."""
    billet = job.billets[place]
    if not sections:
        return 0.0, [], 0.0
    face = billet.thickness_mm * billet.height_mm
    end = usable_length_mm(job, billet) - sum(s.length_mm for s in sections)
    cuts = len(sections) if end > job.crosscut_kerf_mm else len(sections) - 1
    end = max(0.0, end - cuts * job.crosscut_kerf_mm)
    kerf = cuts * job.crosscut_kerf_mm * face
    left: list[LeftOver] = []
    if end > SLACK_MM:
        left.append(LeftOver(place, billet.thickness_mm, billet.height_mm, end))
    made = 0.0
    for section in sections:
        pieces = [job.pieces[i] for i in section.pieces]
        made += sum(p.thickness_mm * p.height_mm * p.length_mm for p in pieces)
        slices = [slice_mm(job, job.pieces[each[0]]) for each in section.slices]
        thickness = section_thickness_mm(job, billet, section.length_mm)
        sides = _cuts(job, thickness - sum(slices), len(slices))
        rest = _rest_mm(job, thickness, slices)
        kerf += sides * job.kerf_mm * billet.height_mm * section.length_mm
        for thick, each in zip(slices, section.slices, strict=True):
            kerf += (len(each) - 1) * (job.rip_kerf_mm or 0.0) * thick * section.length_mm
        if rest > SLACK_MM:
            left.append(LeftOver(place, rest, billet.height_mm, section.length_mm))
    whole = face * billet.length_mm
    waste = whole - kerf - made - sum(x.volume_m3 for x in left) * 1e9
    return kerf * 1e-9, left, max(0.0, waste) * 1e-9


def nothing_made_because(job: YieldJob) -> str:
    """Why no piece comes of any billet; nothing where one does."""
    short = Counter[str]()
    for billet in job.billets:
        for piece in job.pieces:
            length = piece.length_mm
            if length > usable_length_mm(job, billet) + SLACK_MM:
                short["long"] += 1
            elif piece.height_mm > billet.height_mm + SLACK_MM:
                short["high"] += 1
            elif slice_mm(job, piece) > section_thickness_mm(job, billet, length) + SLACK_MM:
                short["thick"] += 1
            else:
                return ""
    if not short:
        return "There is nothing to saw."
    worst, _ = short.most_common(1)[0]
    return f"No billet is {worst} enough for any piece."


@dataclass(frozen=True)
class LaidSlice:
    """A piece in its section, numbered as sawn: where across its thickness and height, mm."""

    piece: int
    number: int
    from_mm: float
    to_mm: float
    low_mm: float
    high_mm: float


@dataclass(frozen=True)
class LaidSection:
    """A section in its billet, mm from the untrimmed end, with its slices across the thickness."""

    from_mm: float
    to_mm: float
    thickness_mm: float
    slices: tuple[LaidSlice, ...]
    bow_mm: float
    """What its slices keep of the billet's bow, sawn along its curve."""


def laid_out(job: YieldJob, plan: CutPlan) -> tuple[tuple[LaidSection, ...], ...]:
    """Where every cut of a plan lies: sections along each billet, slices across each section."""
    numbers = itertools.count(1)
    found = []
    for billet, sections in zip(job.billets, plan.sections, strict=True):
        at, laid = job.trim_mm, []
        for section in sections:
            thickness = section_thickness_mm(job, billet, section.length_mm)
            slices = tuple(_laid(job, section, numbers))
            kept = section_bow_mm(billet, section.length_mm) if job.along_curve else 0.0
            laid.append(LaidSection(at, at + section.length_mm, thickness, slices, kept))
            at += section.length_mm + job.crosscut_kerf_mm
        found.append(tuple(laid))
    return tuple(found)


def _laid(job: YieldJob, section: Section, numbers: Iterator[int]) -> Iterator[LaidSlice]:
    """The pieces of a section, slice after slice, each slice from its lower edge."""
    across = 0.0
    for each in section.slices:
        thick = slice_mm(job, job.pieces[each[0]])
        low = 0.0
        for piece in each:
            high = low + job.pieces[piece].height_mm
            yield LaidSlice(piece, next(numbers), across, across + thick, low, high)
            low = high + (job.rip_kerf_mm or 0.0)
        across += thick + job.kerf_mm
