"""What a reading of the card may be left at, and what is said of one that is out of it."""

import math
from collections.abc import Mapping
from dataclasses import dataclass

from jade_ribbon.core.job import Job
from jade_ribbon.core.quantities.words import Said, Sentence, between, quantity, sentence
from jade_ribbon.core.setup.figures import GuideCard, RollerPress, TensionCard
from jade_ribbon.core.setup.tension.tension_reading import SURE_90
from jade_ribbon.reference.quantities import Kind

GAP_TIMES, GAP_MORE_MM = 2.0, 0.1
"""A guide's gap may be twice its figure, or a tenth more, whichever is larger."""
THRUST_MOST_MM = 0.8
GUARD_MORE_MM = 5.0
GUARD_LEAST_MM = 2.0
SPEED_SHARE = 0.05
DRIFT_MOST_DEG = 2.0
BEHIND_MOST_MM = 3.0
"""Side guides stand behind the gullets, by no more than this."""
TRACK_OFF_MM, TRACK_OFF_ROUGH_MM = 2.0, 5.0
CREEP_MOST_MM = 0.5
"""In ten turns by hand."""
LEAN_MOST_DEG, SQUARE_MM = 0.2, 150.0
"""A table's lean, also felt as a gap over a square so long."""
FLANGE_MM = (2.0, 4.0)
PARALLEL_MM = 1.0
"""A mill's band above its bed, at one end of the travel against the other."""
COOLANT_STRENGTH_PCT = (5.0, 10.0)
"""By the refractometer; the coolant's maker wins."""


@dataclass(frozen=True)
class ReadingLimit:
    """Least and most a reading may be left at, SI."""

    low: float | None = None
    high: float | None = None

    def holds(self, value: float) -> bool:
        over = self.high is not None and value > self.high * (1.0 + 1e-9)
        return not over and (self.low is None or value >= self.low * (1.0 - 1e-9))


Limits = Mapping[str, Mapping[str, ReadingLimit]]


def _within(most: float) -> ReadingLimit:
    return ReadingLimit(-most, most)


def _rollers(press: RollerPress) -> dict[str, ReadingLimit]:
    return {
        "press_mm": ReadingLimit(press.least_mm, press.most_mm),
        "flange_mm": ReadingLimit(*FLANGE_MM),
    }


def _table(job: Job) -> dict[str, ReadingLimit]:
    """Square to the band; of a tilted table only that it stands at its angle."""
    lean, height = LEAN_MOST_DEG, job.cut.standing_height_mm
    if job.cut.tolerance_mm is not None:
        allowed = math.degrees(math.atan2(job.cut.tolerance_mm / 2.0, height))
        lean = min(lean, max(allowed, LEAN_MOST_DEG / 4.0))
    tilt = abs(job.cut.angle_deg) if job.cut.operation == "wedge" else 0.0
    found = {"lean_deg": ReadingLimit(tilt - lean, tilt + lean)}
    if not tilt:
        found["out_mm"] = _within(SQUARE_MM * math.tan(math.radians(lean)))
    return found


def _guides(guides: GuideCard) -> dict[str, ReadingLimit]:
    if guides.roller_press_mm is not None:
        return _rollers(guides.roller_press_mm)
    gap = guides.side_gap_mm
    found = {"thrust_mm": ReadingLimit(0.0, max(THRUST_MOST_MM, GAP_TIMES * guides.thrust_gap_mm))}
    if gap is not None:
        found["fore_aft_mm"] = ReadingLimit(0.0, BEHIND_MOST_MM)
        found["side_mm"] = ReadingLimit(0.0, max(GAP_TIMES * gap, gap + GAP_MORE_MM))
    return found


def reading_limits(card: TensionCard, guides: GuideCard, speed_m_s: float, job: Job) -> Limits:
    """Limits of the card's readings, by step and reading: steel, frame, guides, guard, speed."""
    height = job.cut.standing_height_mm
    gap = guides.guard_gap_mm + GUARD_MORE_MM
    limits = {
        "tension": {"stress_MPa": ReadingLimit(card.low_MPa, card.high_MPa)},
        "rough_track": {"position_mm": _within(TRACK_OFF_ROUGH_MM)},
        "fine_track": {
            "position_mm": _within(TRACK_OFF_MM),
            "creep_mm": _within(CREEP_MOST_MM),
        },
        "table": _table(job),
        "coolant": {"strength_pct": ReadingLimit(*COOLANT_STRENGTH_PCT)},
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
    if limit.low is not None and limit.high is not None and limit.low == -limit.high:
        return sentence("within ", quantity(limit.high, kind))
    if limit.low is None or limit.low == 0.0:
        return sentence("up to ", quantity(limit.high or 0.0, kind))
    return sentence(quantity(limit.low, kind), " to ", quantity(limit.high or 0.0, kind))


def judged_reading(
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
        if value is not None and (
            said := judged_reading(value, shares.get(key, 0.0), label, kind, limit)
        ):
            found.append(said)
    near, far = left.get("near_mm"), left.get("far_mm")
    if near is not None and far is not None and abs(near - far) > PARALLEL_MM:
        apart = quantity(abs(near - far), "thin")
        found.append(sentence("Band and bed: ", apart, " apart from end to end, up to 1 mm wanted"))
    offset, run = left.get("offset_mm"), left.get("run_mm")
    if offset is not None and run:
        drift = math.degrees(math.atan2(abs(offset), run))
        if drift > DRIFT_MOST_DEG:
            found.append(
                f"Drift: {drift:.1f} degrees left, up to {DRIFT_MOST_DEG:g} can be set; "
                "past that find the cause"
            )
    return tuple(found)
