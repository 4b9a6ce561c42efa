"""What a reading of the card may be left at, and what is said of one that is out of it."""

import math
from collections.abc import Mapping
from dataclasses import dataclass

from jade_ribbon.core.job import Job
from jade_ribbon.core.quantities.words import Kind, Said, Sentence, between, quantity, sentence
from jade_ribbon.core.setup.figures import GuideCard, TensionCard
from jade_ribbon.core.setup.tension_reading import SURE_90

GAP_TIMES, GAP_MORE_MM = 2.0, 0.1
"""A guide's gap may be twice its figure, or a tenth more, whichever is larger."""
THRUST_MOST_MM = 0.8
GUARD_MORE_MM = 5.0
GUARD_LEAST_MM = 2.0
SPEED_SHARE = 0.05
DRIFT_MOST_DEG = 2.0


@dataclass(frozen=True)
class ReadingLimit:
    """Least and most a reading may be left at, SI."""

    low: float | None = None
    high: float | None = None

    def holds(self, value: float) -> bool:
        over = self.high is not None and value > self.high * (1.0 + 1e-9)
        return not over and (self.low is None or value >= self.low * (1.0 - 1e-9))


Limits = Mapping[str, Mapping[str, ReadingLimit]]


def _guides(guides: GuideCard) -> dict[str, ReadingLimit]:
    gap = guides.side_gap_mm
    found = {"thrust_mm": ReadingLimit(0.0, max(THRUST_MOST_MM, GAP_TIMES * guides.thrust_gap_mm))}
    if gap is not None:
        found["side_mm"] = ReadingLimit(0.0, max(GAP_TIMES * gap, gap + GAP_MORE_MM))
    return found


def reading_limits(card: TensionCard, guides: GuideCard, speed_m_s: float, job: Job) -> Limits:
    """Limits of the card's readings, by step and reading: steel, frame, guides, guard, speed."""
    height = job.cut.standing_height_mm
    gap = guides.guard_gap_mm + GUARD_MORE_MM
    limits = {
        "tension": {"stress_MPa": ReadingLimit(card.low_MPa, card.high_MPa)},
        "guides_upper": _guides(guides),
        "guides_lower": _guides(guides),
        "guard": {
            "height_mm": ReadingLimit(height + GUARD_LEAST_MM, height + gap),
            "clear_mm": ReadingLimit(GUARD_LEAST_MM, gap),
        },
        "speed": {
            "speed_m_s": ReadingLimit(
                speed_m_s * (1.0 - SPEED_SHARE), speed_m_s * (1.0 + SPEED_SHARE)
            )
        },
    }
    if job.cut.tolerance_mm is not None:
        within = ReadingLimit(0.0, job.cut.tolerance_mm)
        limits["trial"] = {"spread_mm": within, "off_line_mm": within}
    return limits


def _said(limit: ReadingLimit, kind: Kind) -> Said:
    if limit.low is None or limit.low == 0.0:
        return sentence("up to ", quantity(limit.high or 0.0, kind))
    return sentence(quantity(limit.low, kind), " to ", quantity(limit.high or 0.0, kind))


def _judged(
    value: float, share: float, label: str, kind: Kind, limit: ReadingLimit
) -> Sentence | None:
    """What is said of one reading, `share` its relative uncertainty; None when it holds."""
    half = SURE_90 * share * value
    sure = limit.holds(value - half) and limit.holds(value + half)
    if limit.holds(value) and sure:
        return None
    spread = between(value - half, value + half, kind)
    unsure = sentence(", which may be ", spread, " by this means") if share else ""
    return sentence(
        f"{label[0].upper()}{label[1:]}: ",
        quantity(value, kind),
        " left",
        unsure,
        ", ",
        _said(limit, kind),
        " wanted",
    )


def out_of_limits(
    left: Mapping[str, float],
    limits: Mapping[str, tuple[str, Kind, ReadingLimit]],
    shares: Mapping[str, float],
) -> tuple[Said, ...]:
    """A sentence for each reading left outside its limits, or that may well be.

    `limits` gives each reading's label, kind and limit, `shares` its relative uncertainty where
    the means is known. Drift is judged as an angle of its run.
    """
    found: list[Said] = []
    for key, (label, kind, limit) in limits.items():
        value = left.get(key)
        if value is not None and (said := _judged(value, shares.get(key, 0.0), label, kind, limit)):
            found.append(said)
    offset, run = left.get("offset_mm"), left.get("run_mm")
    if offset is not None and run:
        drift = math.degrees(math.atan2(abs(offset), run))
        if drift > DRIFT_MOST_DEG:
            found.append(
                f"Drift: {drift:.1f} degrees left, up to {DRIFT_MOST_DEG:g} can be set; "
                "past that find the cause"
            )
    return tuple(found)
