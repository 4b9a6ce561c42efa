"""Which pieces from which billets: sections crosscut, each sawn into slices."""

from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from jade_ribbon.core.quantities.errors import refuse

SLACK_MM = 1e-6
"""Sums of decimals may be over by so much and still fit."""
MOST_PATTERNS = 40_000
MOST_PART_FILLED = 3_000
"""With more ways to leave something of a section, only ends are looked at for what is left."""
TOO_MANY_WAYS = (
    f"there are more than {MOST_PATTERNS} ways to fill them; accepted: fewer kinds of piece"
)


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
    """Billets, the pieces wanted of them, and what sawing takes, mm."""

    kerf_mm: float
    clean_up_per_face_mm: float
    prepare_loss_mm: float
    crosscut_kerf_mm: float
    trim_mm: float
    billets: tuple[StockBillet, ...]
    pieces: tuple[WantedPiece, ...]


@dataclass(frozen=True)
class Pattern:
    """A section of one billet and how many of each kind of piece its thickness gives at most."""

    billet: int
    length_mm: float
    counts: tuple[int, ...]


@dataclass(frozen=True)
class Section:
    """A section as sawn: its pieces by their places in the job, in sawing order."""

    length_mm: float
    pieces: tuple[int, ...]


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
    bow = billet.bow_mm * (length_mm / billet.length_mm) ** 2
    return billet.thickness_mm - job.prepare_loss_mm - bow


def slice_mm(job: YieldJob, piece: WantedPiece) -> float:
    """Thickness of a piece as sawn."""
    return piece.thickness_mm + 2.0 * job.clean_up_per_face_mm


def _fitting(job: YieldJob, billet: StockBillet, length_mm: float) -> list[int]:
    """Pieces that a section of a billet can give."""
    return [
        i
        for i, piece in enumerate(job.pieces)
        if piece.length_mm <= length_mm + SLACK_MM
        and piece.height_mm <= billet.height_mm + SLACK_MM
    ]


def _fillings(
    room_mm: float, takes_mm: Sequence[float], most: Sequence[int], most_kinds: int, *, full: bool
) -> Iterator[list[int]]:
    """Every way to fill a thickness, by so many kinds; `full`: to which nothing can be added."""

    def fill(kind: int, room: float, counts: list[int]) -> Iterator[list[int]]:
        kinds = sum(n > 0 for n in counts)
        if kind == len(takes_mm):
            if not full or all(
                n >= m or room + SLACK_MM < t or (n == 0 and kinds >= most_kinds)
                for n, m, t in zip(counts, most, takes_mm, strict=True)
            ):
                yield list(counts)
            return
        take = takes_mm[kind]
        fits = int((room + SLACK_MM) / take) if kinds < most_kinds else 0
        for n in range(min(most[kind], fits), -1, -1):
            counts.append(n)
            yield from fill(kind + 1, room - n * take, counts)
            counts.pop()

    yield from fill(0, room_mm, [])


FEWER_KINDS = (4, 3, 2, 1)
"""Where there are too many ways to look at, only those of so few kinds in a section are."""


def patterns(job: YieldJob) -> tuple[list[Pattern], bool]:
    """Full sections of every billet, one for each way its thickness can be filled.

    A section is as long as the longest of its pieces. Where there are too many ways, those of a
    few kinds each; the second figure tells whether all were looked at. InputError where even
    sections of one kind are too many.
    """
    for most_kinds in (len(job.pieces), *FEWER_KINDS):
        found = _patterns(job, most_kinds, full=True, most=MOST_PATTERNS)
        if found is not None:
            return found, most_kinds >= len(job.pieces)
    raise refuse("pieces", TOO_MANY_WAYS)


def _patterns(job: YieldJob, most_kinds: int, *, full: bool, most: int) -> list[Pattern] | None:
    """The ways of at most so many kinds a section; None where there are more than `most`."""
    found: list[Pattern] = []
    for place, billet in enumerate(job.billets):
        for length in sorted({p.length_mm for p in job.pieces}):
            if length > usable_length_mm(job, billet) + SLACK_MM:
                continue
            fits = _fitting(job, billet, length)
            room = section_thickness_mm(job, billet, length) + job.kerf_mm
            takes = [slice_mm(job, job.pieces[i]) + job.kerf_mm for i in fits]
            counted = [job.pieces[i].count for i in fits]
            for counts in _fillings(room, takes, counted, most_kinds, full=full):
                whole = [0] * len(job.pieces)
                for i, n in zip(fits, counts, strict=True):
                    whole[i] = n
                if any(n and job.pieces[i].length_mm >= length for i, n in enumerate(whole)):
                    found.append(Pattern(place, length, tuple(whole)))
                if len(found) > most:
                    return None
    return found


def part_filled(job: YieldJob) -> list[Pattern]:
    """Sections that something is left of, full or not; none where there are too many to look at."""
    return _patterns(job, len(job.pieces), full=False, most=MOST_PART_FILLED) or []


def rest_mm(job: YieldJob, pattern: Pattern) -> float:
    """Thickness left of a section once its pieces are sawn, and it is sawn free of them."""
    length = pattern.length_mm
    thickness = section_thickness_mm(job, job.billets[pattern.billet], length)
    return _rest_mm(job, thickness, [i for i, n in enumerate(pattern.counts) for _ in range(n)])


def _rest_mm(job: YieldJob, thickness_mm: float, pieces: Sequence[int]) -> float:
    rest = thickness_mm - sum(slice_mm(job, job.pieces[i]) for i in pieces)
    return max(0.0, rest - _cuts(job, rest, len(pieces)) * job.kerf_mm)


def _cuts(job: YieldJob, rest_mm: float, pieces: int) -> int:
    """Cuts that part so many slices: one more where something is left to be freed of them."""
    return pieces if rest_mm > pieces * job.kerf_mm else pieces - 1


def plan_of(job: YieldJob, chosen: Sequence[Pattern]) -> CutPlan:
    """The plan of some sections: pieces over the number wanted are not sawn.

    Those with the longest pieces come first, thick slices before thin ones.
    """
    left = [piece.count for piece in job.pieces]
    by_billet: list[list[Section]] = [[] for _ in job.billets]
    for pattern in sorted(chosen, key=lambda p: (p.billet, -p.length_mm, p.counts)):
        pieces: list[int] = []
        for i, n in enumerate(pattern.counts):
            taken = min(n, left[i])
            left[i] -= taken
            pieces += [i] * taken
        if pieces:
            pieces.sort(key=lambda i: (-job.pieces[i].thickness_mm, i))
            length = max(job.pieces[i].length_mm for i in pieces)
            by_billet[pattern.billet].append(Section(length, tuple(pieces)))
    made = tuple(piece.count - rest for piece, rest in zip(job.pieces, left, strict=True))
    value = sum(n * piece.value for n, piece in zip(made, job.pieces, strict=True))
    sections = tuple(tuple(each) for each in by_billet)
    used = [_of_billet(job, i, each) for i, each in enumerate(sections)]
    return CutPlan(
        sections,
        made,
        value,
        tuple(left for _, lefts, _ in used for left in lefts),
        sum(kerf for kerf, _, _ in used),
        sum(waste for _, _, waste in used),
    )


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
        sawn = sum(slice_mm(job, p) for p in pieces)
        thickness = section_thickness_mm(job, billet, section.length_mm)
        sides = _cuts(job, thickness - sawn, len(pieces))
        rest = _rest_mm(job, thickness, section.pieces)
        kerf += sides * job.kerf_mm * billet.height_mm * section.length_mm
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
    """A slice in its section: of which piece, numbered as sawn, and from where to where, mm."""

    piece: int
    number: int
    from_mm: float
    to_mm: float


@dataclass(frozen=True)
class LaidSection:
    """A section in its billet, mm from the untrimmed end, with its slices across the thickness."""

    from_mm: float
    to_mm: float
    thickness_mm: float
    slices: tuple[LaidSlice, ...]


def laid_out(job: YieldJob, plan: CutPlan) -> tuple[tuple[LaidSection, ...], ...]:
    """Where every cut of a plan lies: sections along each billet, slices across each section."""
    number = 0
    found = []
    for billet, sections in zip(job.billets, plan.sections, strict=True):
        at, laid = job.trim_mm, []
        for section in sections:
            across, slices = 0.0, []
            for piece in section.pieces:
                number += 1
                thick = slice_mm(job, job.pieces[piece])
                slices.append(LaidSlice(piece, number, across, across + thick))
                across += thick + job.kerf_mm
            thickness = section_thickness_mm(job, billet, section.length_mm)
            laid.append(LaidSection(at, at + section.length_mm, thickness, tuple(slices)))
            at += section.length_mm + job.crosscut_kerf_mm
        found.append(tuple(laid))
    return tuple(found)
