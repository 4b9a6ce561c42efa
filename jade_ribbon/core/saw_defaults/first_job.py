"""What a new job and a new band start with: what the saw in hand is made for."""

from dataclasses import dataclass

from jade_ribbon.core.job import Finish, Operation, Saw

FASTEST_METAL_M_S = 3.0
"""A saw that runs no faster than this is made for metal: wood wants several times as much."""
DEEP_MM = 185.0
DEEP_SAW_MM = 350.0
SHALLOW_SHARE = 0.2


@dataclass(frozen=True)
class FirstJob:
    """What a new job's sentence starts with; lengths in mm."""

    operation: Operation
    material: str
    height_mm: float
    length_mm: float
    count: int
    finish: Finish
    tolerance_mm: float
    slice_mm: float | None = None
    log_diameter_mm: float | None = None
    round_stock: bool = False


def first_job(saw: Saw) -> FirstJob:
    """A job that fits a saw: bar on a slow one, a log on a mill, planks on a deep one, else a rip.

    >>> from jade_ribbon.core.saw_defaults.kinds import starting_kinds
    >>> [first_job(kind.saw).operation for kind in starting_kinds()]
    ['rip', 'rip', 'resaw', 'mill', 'bar']
    """
    if saw.drive.fastest_m_s <= FASTEST_METAL_M_S:
        side = min(40.0, saw.height_mm / 2.0)
        return FirstJob("bar", "mild_steel", side, side, 10, "rough", 0.8, round_stock=True)
    if saw.orientation == "horizontal":
        log = min(400.0, 0.8 * saw.height_mm)
        return FirstJob(
            "mill", "scots_pine_green", 0.75 * log, 3000, 6, "rough", 2.0, log_diameter_mm=log
        )
    if saw.height_mm >= DEEP_SAW_MM:
        return FirstJob("resaw", "european_larch_dry", DEEP_MM, 3600, 7, "plane", 0.8, slice_mm=14)
    height = round(SHALLOW_SHARE * saw.height_mm / 5.0) * 5.0
    return FirstJob("rip", "white_oak_dry", max(height, 10.0), 1000, 4, "plane", 0.8)


@dataclass(frozen=True)
class FirstBand:
    """What a form for a band starts with, by the saw it is for."""

    form: str
    steel: str


def first_band(saw: Saw) -> FirstBand:
    """The tooth form and steel that most bands of such a saw have. Practice of each trade.

    >>> from jade_ribbon.core.saw_defaults.kinds import starting_kinds
    >>> [first_band(kind.saw).steel for kind in starting_kinds()]
    ['carbon_flexback', 'carbon_flexback', 'silicon_steel', 'silicon_steel', 'bimetal_m42']
    """
    if saw.drive.fastest_m_s <= FASTEST_METAL_M_S:
        return FirstBand("variable", "bimetal_m42")
    if saw.orientation == "horizontal":
        return FirstBand("mill_mid", "silicon_steel")
    return FirstBand("hook", "silicon_steel" if saw.height_mm >= DEEP_SAW_MM else "carbon_flexback")
