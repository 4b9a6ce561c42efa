"""Tables of looking after saws and bands: upkeep, commissioning, accessories, making a band."""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from jade_ribbon.reference.tables import keyed


@dataclass(frozen=True)
class UpkeepTask:
    """A task of upkeep: after so many hours run or days, whichever comes first.

    `when` tells by tags which saws have it, as a step of the set-up does.
    """

    key: str
    when: str
    title: str
    hours: float
    days: float
    do: str
    look: str
    stops: bool
    """Found wrong, the saw stands until it is mended."""


@dataclass(frozen=True)
class Accessory:
    """Something fitted to a saw that spares its bands or its people."""

    key: str
    title: str
    saves: str
    down_wear: float
    """Wear of an edge while it is down, against while it works."""
    price: float
    wear_saved: float
    """Share of the wear that having one saves."""
    strikes_saved: float
    minutes_m2: float
    """Minutes a square metre of cut that using it takes."""


@dataclass(frozen=True)
class CommissioningStep:
    """A step of bringing a saw to life: for new ones, old ones or both."""

    key: str
    title: str
    kind: Literal["new", "old", "both"]
    do: str
    look: str
    licensed: bool


@dataclass(frozen=True)
class MakingStep:
    """A step of making a band from a coil, with its caution."""

    key: str
    title: str
    do: str
    check: str
    caution: str


@dataclass(frozen=True)
class SharpeningStep:
    """A step of sharpening by hand; `when` by tags: in_house, on_saw, teeth, set, knife."""

    key: str
    when: str
    title: str
    do: str
    check: str
    caution: str


@dataclass(frozen=True)
class Holding:
    """What a shop has to hold the work, or to meet a danger with: which stops it answers."""

    key: str
    title: str
    stops: tuple[str, ...]


@lru_cache
def holding() -> Mapping[str, Holding]:
    """Clamps, cradles and the like by key."""
    return keyed("holding", Holding)


@lru_cache
def upkeep_tasks() -> Mapping[str, UpkeepTask]:
    """Tasks of upkeep by key, in working order."""
    return keyed("upkeep", UpkeepTask)


@lru_cache
def accessories() -> Mapping[str, Accessory]:
    """Accessories by key."""
    return keyed("accessories", Accessory)


@lru_cache
def commissioning_steps() -> Mapping[str, CommissioningStep]:
    """Steps of commissioning by key, in working order."""
    return keyed("commissioning", CommissioningStep)


@lru_cache
def making_steps() -> Mapping[str, MakingStep]:
    """Steps of making a band by key, in working order."""
    return keyed("making_steps", MakingStep)


@lru_cache
def sharpening_steps() -> Mapping[str, SharpeningStep]:
    """Steps of sharpening a band by hand, by key, in working order."""
    return keyed("sharpening_steps", SharpeningStep)
