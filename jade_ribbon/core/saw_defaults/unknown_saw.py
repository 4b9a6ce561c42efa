"""What is taken of a saw where nobody knows: cautious, and said so in every answer."""

from collections.abc import Mapping
from dataclasses import dataclass

from jade_ribbon.core.job import DEFAULT_HAND_FORCE_N
from jade_ribbon.core.quantities.words import Said, quantity, sentence


@dataclass(frozen=True)
class Assumed:
    """The value taken for a figure that is not known (None: none), and what that means."""

    value: float | None
    words: Said


LEAST_WIDTH_MM = 3.0
THICKNESS_MM = 0.9
THROAT_MM = 300.0
GUIDE_SPAN_BASE_MM = 90.0
EFFICIENCY = 0.75

ASSUMED: Mapping[str, Assumed] = {
    "band_width_mm.0": Assumed(
        LEAST_WIDTH_MM, sentence(quantity(LEAST_WIDTH_MM, "length"), " is assumed.")
    ),
    "band_thickness_max_mm": Assumed(
        THICKNESS_MM,
        sentence(
            quantity(THICKNESS_MM, "thin"),
            " is assumed; bending over the wheels is computed in any case.",
        ),
    ),
    "wheel_force_max_N": Assumed(
        None, "Then no answer can promise that the frame reaches its tension; each says so."
    ),
    "throat_mm": Assumed(
        THROAT_MM,
        sentence(quantity(THROAT_MM, "length"), " is assumed; no figure leans on it yet."),
    ),
    "guide_span_base_mm": Assumed(
        GUIDE_SPAN_BASE_MM,
        sentence(
            quantity(GUIDE_SPAN_BASE_MM, "length"),
            " is assumed, a little more than usual: stiffness comes out cautious.",
        ),
    ),
    "drive_efficiency": Assumed(EFFICIENCY, f"{EFFICIENCY:g} is assumed, usual for one belt."),
    "feed_max_m_min": Assumed(None, "No limit is taken."),
    "hand_force_N": Assumed(
        DEFAULT_HAND_FORCE_N,
        sentence(quantity(DEFAULT_HAND_FORCE_N, "force"), " is assumed."),
    ),
}
"""By the field, and for a pair the place in it."""
