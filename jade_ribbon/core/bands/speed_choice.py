"""Which speed of the saw's drive a band runs at in a material."""

import math
from dataclasses import dataclass

from jade_ribbon.core.bands.facts import BandFacts
from jade_ribbon.core.job import Drive, Job
from jade_ribbon.core.quantities.arrays import where
from jade_ribbon.reference.tables import Material, Steel

MAX_TOLERANCE = 1.02
"""A drive speed counts as within the maximum up to this share of it."""
WOOD_OVERSPEED = 1.5
"""Wood and panels may run over the maximum to this share, with a caution and more wear."""
BRASS_OVERSPEED = 3.0
"""Brass breaks into needles and is sawn on saws for wood too: to this share of its maximum."""


@dataclass(frozen=True)
class SpeedRange:
    """Least, target and greatest speed (m/s) of a material for one steel."""

    least_m_s: float
    target_m_s: float
    most_m_s: float


@dataclass(frozen=True)
class SpeedChoice:
    """The speed run at, its place against the range, and what it costs in wear."""

    speed_m_s: float
    setting: str
    accepted: SpeedRange
    over_most: bool

    @property
    def off_target_share(self) -> float:
        """Signed share off the target: +0.1 is a tenth fast."""
        return self.speed_m_s / self.accepted.target_m_s - 1.0

    @property
    def wear_factor(self) -> float:
        """Wear from running wood over its maximum: (speed/maximum) squared."""
        return where(self.over_most, (self.speed_m_s / self.accepted.most_m_s) ** 2, 1.0)


def speed_multiplier(steel: Steel, material: Material) -> float:
    """Factor on the table's carbon speeds: bi-metal, carbide (grit too), else 1."""
    if steel.token == "bimetal":
        return material.bimetal_speed_mult
    if steel.token in ("carbide_tipped", "carbide_grit", "diamond_grit"):
        return material.carbide_speed_mult
    return 1.0


def speed_range(steel: Steel, material: Material) -> SpeedRange:
    """The material's speeds for a steel."""
    k = speed_multiplier(steel, material)
    return SpeedRange(
        material.speed_min_m_s * k, material.speed_target_m_s * k, material.speed_max_m_s * k
    )


def overspeed_share(material: Material) -> float:
    """How far over its maximum a material is still sawn, as a share of it: 1 of most metals."""
    if material.is_wood or material.group == "panel":
        return WOOD_OVERSPEED
    return BRASS_OVERSPEED if "brass" in material.key else 1.0


def too_fast_for_any_steel(drive: Drive, material: Material) -> bool:
    """True when even the slowest speed is over the maximum x the largest multiplier."""
    most = material.speed_max_m_s * max(
        1.0, material.bimetal_speed_mult, material.carbide_speed_mult
    )
    return drive.slowest_m_s > MAX_TOLERANCE * most


def nearest_speed(drive: Drive, target: float, most: float) -> float | None:
    """The drive speed at most `most` that is nearest the target on a ratio scale."""
    if drive.kind == "inverter":
        if drive.slowest_m_s > most:
            return None
        return min(max(target, drive.slowest_m_s), drive.fastest_m_s, most)
    within = [s for s in drive.speeds_m_s if s <= most]
    if not within:
        return None
    return min(within, key=lambda s: (abs(math.log(s / target)), s))


def choose_speed(facts: BandFacts, job: Job, target_m_s: float | None = None) -> SpeedChoice | None:
    """The speed to run at, or None when no drive speed suits the material.

    `target_m_s` replaces the table's target (a mill's speed matched to its power).
    """
    material = job.cut.material
    accepted = speed_range(facts.steel, material)
    target = accepted.target_m_s if target_m_s is None else target_m_s
    drive = job.saw.drive
    speed = nearest_speed(drive, target, MAX_TOLERANCE * accepted.most_m_s)
    if speed is not None:
        return SpeedChoice(speed, drive.setting_words(speed), accepted, over_most=False)
    share = overspeed_share(material)
    if share > 1.0 and drive.slowest_m_s <= share * accepted.most_m_s:
        slowest = drive.slowest_m_s
        return SpeedChoice(slowest, drive.setting_words(slowest), accepted, over_most=True)
    return None
