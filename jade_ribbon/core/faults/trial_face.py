"""A trial cut's board read with the caliper: whether what was complained of is gone."""

from collections.abc import Callable, Mapping, Sequence

from jade_ribbon.core.faults.measured import (
    CANNOT,
    FigureAsked,
    Figures,
    Measured,
    SawContext,
    missing,
    unsure,
)
from jade_ribbon.core.inspection.thickness import thickness_map
from jade_ribbon.core.quantities.words import quantity, sentence

FACE_SIGNS = ("taper", "lean", "barrel")
"""Signs that a board's thickness shows."""
TRIALS: Mapping[str, str] = {
    "steady_cut": "gone",
    "other_stock": "gone",
    "swap_band": "gone",
    "clean_wax": "better",
    "half_height": "better",
}
"""Trial cuts that may be read with the caliper, and what they say when it is less."""
PLACES: Mapping[str, tuple[str, float, float]] = {
    "start_top_mm": ("Start, top", 0.0, 1.0),
    "start_middle_mm": ("start, middle", 0.0, 0.0),
    "start_bottom_mm": ("start, bottom", 0.0, -1.0),
    "end_top_mm": ("End, top", 1.0, 1.0),
    "end_middle_mm": ("end, middle", 1.0, 0.0),
    "end_bottom_mm": ("end, bottom", 1.0, -1.0),
}
"""Where a board is read: along 0 to 1, up -1 to 1."""
FACE_FIGURES = tuple(
    FigureAsked(key, label, "thin", 0.2, 1000.0) for key, (label, _, _) in PLACES.items()
)
LESS, STILL = 0.4, 0.75
"""Under so much of what it was it is gone, over so much it is the same."""
CALIPER_MM = 0.08
"""Two boards' parts are told apart from so much: a caliper's own 0.03 mm, twice, doubled."""


def part_mm(readings: Sequence[Sequence[float]], sign: str) -> float:
    """How much of a sign a board's readings [x 0..1, y -1..1, mm] show, mm."""
    found = thickness_map(readings=readings)
    parts = {
        "taper": found.taper_along_mm,
        "lean": found.lean_mm,
        "barrel": found.barrel_mm or 0.0,
    }
    return abs(parts[sign])


def _trial(given: Figures, at: SawContext, less: str) -> Measured:
    if at.complaint_mm is None:
        raise missing("a face of the job read in Inspect before, to be held against")
    readings = [(x, y, given[key]) for key, (_, x, y) in PLACES.items()]
    now = part_mm(readings, at.complaint)
    was = abs(at.complaint_mm)
    words = sentence(f"{at.complaint.capitalize()} ", quantity(now, "thin"), "; it was ")
    words = words + sentence(quantity(was, "thin"), ".")
    if was <= CALIPER_MM or LESS * was < now < STILL * was:
        return unsure(words)
    if now >= STILL * was:
        return Measured("same", words)
    return Measured(less if was - now > CALIPER_MM else CANNOT, words)


def trial_rule(check: str) -> Callable[[Figures, SawContext], Measured]:
    """The rule of a trial cut that is read by its face."""
    return lambda given, at: _trial(given, at, TRIALS[check])
