"""Kinds of saw to start from: figures usual for each, every one of them assumed until confirmed."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import cache

from jade_ribbon.core.job import Drive, Saw
from jade_ribbon.reference.tables import SawKind, saw_kinds

EASE_MM = 20.0
"""A saw takes bands this much shorter or longer than the one that fits."""
GUIDES_FOLLOW = 1.0
"""The guides stand apart by this much more for each mm of height: one guide goes with the guard."""

NAMES: Mapping[str, str] = {
    "wheel_diameters_mm.0": "wheels",
    "wheel_diameters_mm.1": "wheels",
    "wheel_diameters_mm.2": "wheels",
    "tyre": "tyres",
    "band_length_mm.0": "length of its bands",
    "band_length_mm.1": "length of its bands",
    "band_width_mm.0": "narrowest band",
    "band_width_mm.1": "widest band",
    "band_thickness_max_mm": "thickest band",
    "wheel_force_max_N": "force of its frame",
    "height_mm": "height under the guides",
    "throat_mm": "throat",
    "guides": "guides",
    "guide_span_base_mm": "guides apart",
    "motor_kW": "motor",
    "drive_efficiency": "share of it that reaches the band",
    "drive": "band speeds",
    "feed": "feed",
    "feed_max_m_min": "fastest feed",
    "hand_force_N": "push of a person",
    "tensioner": "what holds the tension",
}
"""What may be assumed of a saw, and what it is called; of a pair by the place in it."""


@dataclass(frozen=True)
class StartingKind:
    """A kind of saw: its figures, and which of them are assumed."""

    key: str
    name: str
    says: str
    saw: Saw
    assumed: tuple[str, ...]


def _saw_of(kind: SawKind) -> Saw:
    return Saw(
        name="",
        orientation=kind.orientation,
        wheel_diameters_mm=tuple(float(d) for d in kind.wheels_mm),
        tyre=kind.tyre,
        band_length_mm=(kind.length_mm - EASE_MM, kind.length_mm + EASE_MM),
        band_width_mm=(kind.narrowest_mm, kind.widest_mm),
        band_thickness_max_mm=kind.thickest_mm,
        wheel_force_max_N=kind.wheel_force_N,
        height_mm=kind.height_mm,
        throat_mm=kind.throat_mm,
        guides=kind.guides,
        guide_span_base_mm=kind.span_base_mm,
        guide_span_per_height=GUIDES_FOLLOW,
        motor_kW=kind.motor_kW,
        drive_efficiency=kind.efficiency,
        drive=Drive("fixed", speeds_m_s=tuple(float(v) for v in kind.speeds_m_s)),
        feed=kind.feed,
        feed_max_m_min=kind.feed_max_m_min,
        tensioner=kind.tensioner,
    )


def _assumed_of(saw: Saw) -> tuple[str, ...]:
    """Every figure a kind gives, and the frame's force, which no kind can give."""
    beyond = {f"wheel_diameters_mm.{i}" for i in range(saw.wheels, 3)}
    if saw.feed_max_m_min is None:
        beyond.add("feed_max_m_min")
    return tuple(name for name in NAMES if name not in beyond)


@cache
def starting_kinds() -> tuple[StartingKind, ...]:
    """The kinds of saw, smallest first."""
    return tuple(
        StartingKind(kind.key, kind.name, kind.says, saw, _assumed_of(saw))
        for kind, saw in ((kind, _saw_of(kind)) for kind in saw_kinds())
    )


def assumed_names(assumed: Iterable[str]) -> list[str]:
    """What is assumed of a saw, in words, each once.

    >>> assumed_names(["band_length_mm.0", "band_length_mm.1", "motor_kW"])
    ['length of its bands', 'motor']
    """
    return list(dict.fromkeys(NAMES[name] for name in assumed if name in NAMES))
