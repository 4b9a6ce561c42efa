"""Sharpening a band here, in the vice or on the saw, as a card of steps with its own figures."""

from collections.abc import Set
from dataclasses import dataclass

from jade_ribbon.core.bands.facts import HARD_TIPS, pitches_mm
from jade_ribbon.core.job import Candidate
from jade_ribbon.core.quantities.words import Said, Words, fill, percent, quantity
from jade_ribbon.reference.care import sharpening_steps
from jade_ribbon.reference.rows import applies
from jade_ribbon.reference.tables import Steel, ToothForm

STROKES, KNIFE_PASSES = 3, 4
"""Strokes of a fine file that renew a tip worn by a tenth of a millimetre: practice of hand filing,
known to a stroke either way."""
TRIAL_SHARE = 0.8


@dataclass(frozen=True)
class SharpenStep:
    """A step: what to do, how it is right, what can hurt."""

    key: str
    title: str
    do: Said
    check: Said
    caution: str


@dataclass(frozen=True)
class SharpenCard:
    """The steps, or in words why this edge is not sharpened here; teeth 0 of a knife."""

    steps: tuple[SharpenStep, ...]
    refused: str
    teeth: int


def not_here(steel: Steel) -> str:
    """Why an edge is not sharpened by hand; '' where it is."""
    if steel.is_grit:
        return "A grit edge is not sharpened."
    if steel.token in HARD_TIPS or steel.token == "cobalt_tipped":
        return "Hard tips want a grinder with a diamond wheel: send it out."
    return ""


def _tags(form: ToothForm, way: str, set_mm: float) -> Set[str]:
    kind = {"knife"} if form.is_knife else {"teeth"}
    return {way, *kind, *({"set"} if set_mm > 0.0 and not form.is_knife else set())}


def sharpen_card(
    band: Candidate, steel: Steel, form: ToothForm, *, way: str, length_mm: float, set_mm: float
) -> SharpenCard:
    """The card of a band for one way, in the vice (`in_house`) or on the saw (`on_saw`).

    Teeth are the length over the mean pitch; the face goes to the form's hook; set in mm a side.

    Source: saw filing practice; hook and set from the forms table.
    """
    pitch = pitches_mm(band, form)[0]
    teeth = 0 if form.is_knife else round(length_mm / pitch)
    if words := not_here(steel):
        return SharpenCard((), words, teeth)
    known: dict[str, Words] = {
        "teeth": f"{teeth}" if teeth else "no",
        "set": quantity(set_mm, "thin"),
        "hook": f"{form.hook_deg:g}° of hook",
        "strokes": f"{KNIFE_PASSES if form.is_knife else STROKES}",
        "hand": percent(TRIAL_SHARE),
    }
    tags = _tags(form, way, set_mm)
    steps = tuple(
        SharpenStep(row.key, row.title, fill(row.do, known), fill(row.check, known), row.caution)
        for row in sharpening_steps().values()
        if applies(row.when, tags)
    )
    return SharpenCard(steps, "", teeth)
