"""Many bands as one: their figures in columns, so that a formula is asked once for all of them."""

import dataclasses
import math
from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np

from jade_ribbon.core.bands.facts import BandFacts
from jade_ribbon.core.bands.speed_choice import SpeedChoice, SpeedRange
from jade_ribbon.core.choosing.operating_point import Evaluation
from jade_ribbon.core.job import Candidate
from jade_ribbon.core.mechanics.feed import FeedWindow

FACTS = tuple(
    field.name for field in dataclasses.fields(BandFacts) if field.type in (float, int, bool)
)
BAND = ("width_mm", "thickness_mm", "dullness", "fouling", "mounted")
OWN = ("stress_MPa", "reachable_MPa", "tight_radius_mm", "comfortable_radius_mm")
STRESSES = ("stress_low_MPa", "stress_target_MPa", "stress_high_MPa")


def _column(things: Sequence[Any], name: str, *, wide: bool) -> Any:
    """One figure of many things: an array of numbers, on end where draws are to stand beside it."""
    values = np.array([getattr(thing, name) for thing in things])
    return values[:, None] if wide else values


def _columns(things: Sequence[Any], names: Sequence[str], *, wide: bool) -> dict[str, Any]:
    return {name: _column(things, name, wide=wide) for name in names}


def _speeds(chosen: Sequence[SpeedChoice], *, wide: bool) -> SpeedChoice:
    accepted = [choice.accepted for choice in chosen]
    names = [field.name for field in dataclasses.fields(SpeedRange)]
    return dataclasses.replace(
        chosen[0],
        accepted=SpeedRange(**_columns(accepted, names, wide=wide)),
        **_columns(chosen, ("speed_m_s", "over_most"), wide=wide),
    )


def stack(found: Sequence[Evaluation], *, wide: bool = False) -> Evaluation:
    """Evaluations as one whose figures are columns; each must have its stress and speed.

    What is no figure (labels, table rows) is the first band's and not to be read. `wide` leaves
    room for draws: bands down, draws across.
    """
    facts = [e.facts for e in found]
    bands: list[Candidate] = [f.band for f in facts]
    speeds = [e.speed for e in found if e.speed is not None]
    band = dataclasses.replace(bands[0], **_columns(bands, BAND, wide=wide))
    names = (*FACTS, *STRESSES)
    together = dataclasses.replace(facts[0], band=band, **_columns(facts, names, wide=wide))
    return dataclasses.replace(
        found[0],
        facts=together,
        speed=_speeds(speeds, wide=wide),
        **_columns(found, OWN, wide=wide),
    )


def rows(value: Any, count: int) -> list[Any]:
    """A thing of columns as many single things, in order."""
    if isinstance(value, np.ndarray):
        if value.shape == (count,):
            return list(value.tolist())
        return list(np.broadcast_to(value, (count,)).tolist())
    if isinstance(value, Mapping):
        columns = [rows(v, count) for v in value.values()]
        return [dict(zip(value, line, strict=True)) for line in zip(*columns, strict=True)]
    if dataclasses.is_dataclass(value) and not isinstance(value, type):
        columns = [rows(getattr(value, f.name), count) for f in dataclasses.fields(value)]
        return [type(value)(*line) for line in zip(*columns, strict=True)]
    return [value] * count


def windows(many: FeedWindow, count: int) -> list[FeedWindow]:
    """Single feed windows: a limit that is no limit is absent, a shut one recommends nothing."""
    found = []
    for window in rows(many, count):
        feed = window.recommended_m_min
        if feed is not None and not math.isnan(feed) and "grit" not in window.limits_m_min:
            found.append(window)
            continue
        limits = {key: value for key, value in window.limits_m_min.items() if value < math.inf}
        found.append(
            dataclasses.replace(
                window,
                limits_m_min=limits,
                recommended_m_min=None if feed is None or math.isnan(feed) else feed,
            )
        )
    return found
