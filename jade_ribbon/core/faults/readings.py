"""Readings that the records of a saw, a band and a job give to fault finding."""

import re
from collections.abc import Mapping

from jade_ribbon.core.quantities.words import Said, figure, quantity, sentence
from jade_ribbon.reference.faults import RecordEvidence

RANGES: Mapping[str, tuple[float, float]] = {
    "dullness": (0.0, 2.0),
    "fouling": (0.0, 1.0),
    "feed_over_ceiling": (0.0, 100.0),
    "feed_under_floor": (0.0, 100.0),
    "gullet_fill": (0.0, 100.0),
    "stress_share_of_target": (0.0, 10.0),
    "days_since_tension": (0.0, 36_500.0),
    "tension_released": (0.0, 1.0),
    "teeth_in_cut": (0.0, 10_000.0),
    "speed_over_target": (0.0, 100.0),
    "hours_since_alignment": (0.0, 1_000_000.0),
    "gap_last_alignment_mm": (0.0, 100.0),
    "days_since_tyre": (0.0, 36_500.0),
    "crown_mm": (0.0, 20.0),
    "drift_deg_trend": (0.0, 45.0),
    "guard_above_work_mm": (0.0, 2_000.0),
    "hits_since_sharpening": (0.0, 1_000.0),
    "bending_life_share": (0.0, 1_000.0),
    "runs_since_welding": (0.0, 1_000_000.0),
    "fence_matched_to_drift": (0.0, 1.0),
    "stock_moisture": (0.0, 300.0),
    "stock_reactive": (0.0, 1.0),
    "knots_noted": (0.0, 1.0),
    "material_gum": (0.0, 1.0),
}
"""Every reading of the table, with the least and the most that it can be."""

YES = 0.5
ONE = re.compile(r"(?<![\d.])1 (runs|hits|days|hours)\b")
VALUE, MM = "{value}", "{value} mm"


YES_OR_NO: Mapping[str, tuple[str, str]] = {
    "tension_released": ("By the record it is under tension.", "By the record it ran slack."),
    "fence_matched_to_drift": (
        "By the card the fence was not set to the drift.",
        "By the card the fence was set to the drift.",
    ),
    "stock_reactive": ("The stock is noted as quiet.", "The stock is noted as one that moves."),
    "knots_noted": ("No knots are noted.", "The feed stopped at a knot, by the run’s record."),
}
"""Readings that are yes or no, in words: no, yes."""


def record_words(row: RecordEvidence, value: float) -> Said:
    """A line of the records with its figure, in the reader's units where it has one.

    >>> from jade_ribbon.reference.faults import record_evidence
    >>> record_words(record_evidence()[0], 0.62)
    'The rack card puts the dullness at 0.62 (1 = due for sharpening).'
    """
    if row.reads in YES_OR_NO:
        return YES_OR_NO[row.reads][value >= YES]
    if MM in row.words:
        before, after = row.words.split(MM)
        return sentence(before, quantity(value, "length"), after)
    return ONE.sub(lambda m: f"1 {m[1][:-1]}", row.words.replace(VALUE, _plain(value)))


def _plain(value: float) -> str:
    """Two digits, without the zeros that say nothing."""
    text = figure(value, 2)
    return text.rstrip("0").rstrip(".") if "." in text else text
