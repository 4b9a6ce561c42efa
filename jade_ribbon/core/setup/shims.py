"""Gaps by slips of card or foil: how many of these make the gap."""

from dataclasses import dataclass

from jade_ribbon.core.quantities.formula_limits import within_limits
from jade_ribbon.core.quantities.words import Said, quantity, sentence

STACK = 10
MOST_SLIPS = 12
CLOSE_MM = 0.03
"""A gap this near is made; nobody feels less."""


@dataclass(frozen=True)
class Shims:
    """Layers that make a gap, each so thick, and how far off they leave it (mm)."""

    layers: int
    each_mm: float
    makes_mm: float
    off_mm: float
    words: Said


@within_limits
def shims_for(*, gap_mm: float, stack_mm: float) -> Shims:
    """How many slips make a gap (mm), from the thickness of a stack of ten (mm).

    Never more than leave the gap at nothing: at least one slip, except for a gap of none.

    >>> shims_for(gap_mm=0.3, stack_mm=1.0).layers
    3
    """
    each = stack_mm / STACK
    layers = round(gap_mm / each) if gap_mm else 0
    if gap_mm and layers == 0:
        layers = 1
    makes = layers * each
    off = makes - gap_mm
    if gap_mm == 0:
        words: Said = "No slip: just touching."
    elif layers > MOST_SLIPS:
        words = f"{layers} of these: take something thicker."
    elif abs(off) <= CLOSE_MM:
        words = sentence(f"{layers} of these, ", quantity(makes, "thin"), ".")
    else:
        side = "wider" if off > 0 else "tighter"
        words = sentence(
            f"{layers} of these make ",
            quantity(makes, "thin"),
            ", ",
            quantity(abs(off), "thin"),
            f" {side}.",
        )
    return Shims(layers, each, makes, off, words)
