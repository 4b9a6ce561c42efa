"""The job: saw, cut, house rules, rates and the bands to choose among.

Frozen records shared by the choice, the set-up and the drawings. Ranges are checked
where a job comes in (formats/job); the derived quantities live here.
"""

import math
from dataclasses import dataclass, field, fields
from typing import Annotated, Any, Literal

from jade_ribbon.core.mechanics.life import PRIOR_WEIGHT
from jade_ribbon.core.mechanics.outline import Stretch
from jade_ribbon.core.mechanics.straightness import SIDE_SHARE_SPREAD_LN
from jade_ribbon.core.mechanics.tension import wheel_force_per_strand
from jade_ribbon.core.quantities.arrays import least
from jade_ribbon.core.quantities.input_limits import Limit
from jade_ribbon.reference.tables import Material, OperationKey, operations

Operation = OperationKey
Finish = Literal["rough", "plane", "sand", "show"]

STRAIGHT_OPERATIONS = tuple(key for key, row in operations().items() if row.straight)
DEEP_RESAW_OPERATIONS = tuple(key for key, row in operations().items() if row.deep)
ROUNDED = ("curve", "circle")
ARC_SHARE = {"circle": 1.0, "curve": 0.5}
"""Share of the path that is the tightest arc, where no outline tells it."""
DEFAULT_HAND_FORCE_N = 80.0
USUAL_GUARD_GAP_MM = 10.0
TUBE_PITCH_SHARE, ROUND_PITCH_SHARE = 1.4, 0.85
"""Height of tube and of round bar that their pitch is chosen for."""


@dataclass(frozen=True)
class Drive:
    """How the saw gives speeds: fixed ones, or an inverter's continuous range."""

    kind: Literal["fixed", "inverter"]
    speeds_m_s: tuple[float, ...] = ()
    base_hz: float = 0.0
    min_hz: float = 0.0
    max_hz: float = 0.0
    base_speed_m_s: float = 0.0

    @property
    def slowest_m_s(self) -> float:
        if self.kind == "fixed":
            return min(self.speeds_m_s)
        return self.base_speed_m_s * self.min_hz / self.base_hz

    @property
    def fastest_m_s(self) -> float:
        if self.kind == "fixed":
            return max(self.speeds_m_s)
        return self.base_speed_m_s * self.max_hz / self.base_hz

    def speeds_to_try(self, least_m_s: float, most_m_s: float) -> tuple[float, ...]:
        """Its own steps up to a speed; of an inverter, nine over its range and the material's."""
        if self.kind == "fixed":
            return tuple(v for v in self.speeds_m_s if v <= most_m_s)
        low = max(self.slowest_m_s, least_m_s)
        high = min(self.fastest_m_s, most_m_s)
        if high <= low:
            return ()
        return tuple(low * (high / low) ** (i / 8.0) for i in range(9))

    def power_share(self, speed_m_s: float) -> float:
        """Share of the motor's power left: torque is constant below an inverter's base."""
        if self.kind == "fixed":
            return 1.0
        return least(1.0, speed_m_s / self.base_speed_m_s)

    def setting_words(self, speed_m_s: float) -> str:
        """What to set on the machine for a speed it can give."""
        if self.kind == "inverter":
            return f"{self.base_hz * speed_m_s / self.base_speed_m_s:.1f} Hz"
        ordered = sorted(self.speeds_m_s)
        if len(ordered) == 1:
            return "its one speed"
        place = min(range(len(ordered)), key=lambda i: abs(ordered[i] - speed_m_s))
        if place == len(ordered) - 1:
            return f"fastest of {len(ordered)} steps"
        if place == 0:
            return f"slowest of {len(ordered)} steps"
        return f"step {place + 1} of {len(ordered)}, slowest first"


METAL_SAW_UNDER_M_S = 6.0
"""A saw whose fastest speed is under this is built for metal, and never sees wood."""


@dataclass(frozen=True)
class Saw:
    """A saw as far as the choice of band goes; figures as in the job file."""

    name: str
    orientation: Literal["vertical", "horizontal"]
    wheel_diameters_mm: tuple[float, ...]
    tyre: Literal["crowned", "flat", "none", "worn"]
    band_length_mm: tuple[float, float]
    band_width_mm: tuple[float, float]
    band_thickness_max_mm: float
    wheel_force_max_N: float | None
    height_mm: float
    throat_mm: float
    guides: str
    guide_span_base_mm: float
    guide_span_per_height: float
    motor_kW: float
    drive_efficiency: float
    drive: Drive
    feed: Literal["hand", "power", "table", "carriage"] = "hand"
    feed_max_m_min: float | None = None
    tensioner: Literal["spring", "weight", "air", "fixed"] = "spring"
    hand_force_N: float = DEFAULT_HAND_FORCE_N
    wheels_out: bool = False
    """A truing found the wheels out of plane, and has not ended with them true."""
    down: tuple[str, ...] = ()
    """Accessories that are fitted and do not work."""
    shakes: bool = False
    """An open trouble of it says that it vibrates."""
    force_assumed: bool = False
    """The frame's force is one usual for its kind of saw, and nobody has read it off."""

    @property
    def force_known(self) -> bool:
        """Whether the frame's force is this saw's own, and no guess by its size or kind."""
        return self.wheel_force_max_N is not None and not self.force_assumed

    @property
    def is_metal_saw(self) -> bool:
        return self.drive.fastest_m_s < METAL_SAW_UNDER_M_S

    @property
    def is_mill(self) -> bool:
        """A saw that lies down and goes through logs."""
        return self.orientation == "horizontal" and not self.is_metal_saw

    @property
    def wheels(self) -> int:
        return len(self.wheel_diameters_mm)

    @property
    def smallest_wheel_mm(self) -> float:
        return min(self.wheel_diameters_mm)

    @property
    def middle_length_mm(self) -> float:
        """Length a band of unknown length is taken to have on this saw."""
        return sum(self.band_length_mm) / 2.0

    @property
    def force_per_strand(self) -> float:
        return wheel_force_per_strand(self.wheels)

    def guide_span_mm(self, height_mm: float, guard_gap_mm: float = USUAL_GUARD_GAP_MM) -> float:
        """Span between upper and lower guides with the guard so far above the work.

        The saw's own base is with the guard as usual.
        """
        base = self.guide_span_base_mm + guard_gap_mm - USUAL_GUARD_GAP_MM
        return base + self.guide_span_per_height * height_mm


@dataclass(frozen=True)
class Cut:
    """One cut and how often it is made."""

    operation: Operation
    material: Material
    height_mm: float
    length_mm: float
    count: int
    min_radius_mm: float | None = None
    angle_deg: float = 0.0
    finish: Finish = "plane"
    tolerance_mm: float | None = None
    round_stock: bool = False
    wall_mm: float | None = None
    log_diameter_mm: float | None = None
    stood_on_end: bool = False
    """The stock stands on its end, so that the band runs along the grain."""
    backing_mm: float = 0.0
    """A sacrificial board under sheet; it stands in the cut too."""
    stack: int = 1
    """Sheets cut together."""
    throat_need_mm: float | None = None
    """The most that passes between band and column."""
    last_face_sawn: bool = False
    """Slices: the last face is sawn too, so that N pieces take N cuts instead of N - 1."""
    stretches: tuple[Stretch, ...] = ()
    """The path by radius, tightest first, where an outline tells it."""

    @property
    def is_curved(self) -> bool:
        """Whether the work is turned as it is fed: a curve, a circle, a blank with a radius."""
        return self.operation in ROUNDED or self.min_radius_mm is not None

    @property
    def path(self) -> tuple[tuple[float, float | None], ...]:
        """Shares of the path and the radius of each, the tightest first; None: straight.

        Without an outline a circle is all arc, a curve half.
        """
        radius = self.min_radius_mm
        if radius is None:
            return ((1.0, None),)
        if self.stretches:
            whole = sum(s.length_mm for s in self.stretches)
            rest = tuple((s.length_mm / whole, s.radius_mm) for s in self.stretches[1:])
            return ((self.stretches[0].length_mm / whole, radius), *rest)
        arc = ARC_SHARE.get(self.operation, 1.0)
        return ((1.0, radius),) if arc == 1.0 else ((arc, radius), (1.0 - arc, None))

    @property
    def is_tube(self) -> bool:
        return self.operation == "tube"

    @property
    def is_round_bar(self) -> bool:
        """Round stock cut straight through: the band meets chords of a circle."""
        return self.round_stock and self.operation in ("bar", "crosscut")

    @property
    def cuts(self) -> int:
        """Cuts the job takes: N slices are parted by N - 1, unless the last face is sawn too."""
        slices = self.operation in DEEP_RESAW_OPERATIONS and not self.last_face_sawn
        return max(self.count - 1, 1) if slices else self.count

    @property
    def standing_height_mm(self) -> float:
        """What stands under the guides along the band: stack and backing, longer when tilted."""
        upright = self.height_mm * self.stack + self.backing_mm
        return upright / math.cos(math.radians(self.angle_deg))

    @property
    def section_mm2(self) -> float:
        """Area of the cut."""
        if self.is_tube and self.wall_mm is not None:
            return math.pi * self.wall_mm * (self.height_mm - self.wall_mm)
        if self.is_round_bar:
            return math.pi * self.height_mm**2 / 4.0
        return self.standing_height_mm * self.length_mm

    @property
    def loaded_height_mm(self) -> float:
        """Longest chord met along the stroke: it fills gullets, takes power and push.

        Of a tube 2 sqrt(wall (D - wall)), of round bar its diameter, else all that stands in it.
        """
        if self.is_tube and self.wall_mm is not None:
            return 2.0 * math.sqrt(self.wall_mm * (self.height_mm - self.wall_mm))
        return self.height_mm if self.is_round_bar else self.standing_height_mm

    @property
    def stroke_mm(self) -> float:
        """How far the feed travels through the work."""
        return self.height_mm if self.is_tube or self.is_round_bar else self.length_mm

    @property
    def at_full_chord_mm(self) -> float:
        """Length at the longest chord that takes as long as the cut: area at constant removal."""
        return self.section_mm2 / self.loaded_height_mm

    @property
    def mean_height_mm(self) -> float:
        """Height a tooth rubs on the average along the stroke."""
        return self.section_mm2 / self.stroke_mm

    @property
    def teeth_height_mm(self) -> float:
        """Height that counts for teeth in the cut: of tube and profile as for its pitch."""
        return self.pitch_height_mm if self.is_tube else self.standing_height_mm

    @property
    def pitch_height_mm(self) -> float:
        """Height that the pitch is chosen for.

        Of tube and profile 1.4 sqrt(wall (D - wall)), of round bar 0.85 D, else what stands.
        """
        if self.is_tube and self.wall_mm is not None:
            return TUBE_PITCH_SHARE * math.sqrt(self.wall_mm * (self.height_mm - self.wall_mm))
        if self.is_round_bar:
            return ROUND_PITCH_SHARE * self.height_mm
        return self.standing_height_mm


@dataclass(frozen=True)
class Rules:
    """The house rules that bear on the choice, with their defaults (reference: house rules)."""

    resaw_width: Literal["frame", "widest", "narrow"] = "frame"
    resaw_pitch: Literal["coarse", "fine"] = "coarse"
    least_teeth: Literal[2, 3, 4] = 3
    tension: Literal["full", "light"] = "full"
    radius: Literal["comfortable", "tightest"] = "comfortable"
    feed_pace: Literal["full", "finish"] = "full"
    kerf: Literal["material", "generous", "slight"] = "material"
    steel: Literal["cost", "long_life", "cheap"] = "cost"
    hard_tips: Literal["cost", "avoid"] = "cost"
    dirty_steel: Literal["carbon", "silicon"] = "carbon"
    change: Literal["first_sign", "limit", "demote"] = "demote"
    mill_speed: Literal["matched", "fast", "ladder"] = "matched"
    narrow_straight: Literal["both", "impossible"] = "both"
    old_metal: Literal["compare", "dig_out", "saw_through"] = "compare"
    how_many_bands: Literal["as_needed", "all_round", "saw_each"] = "as_needed"
    guard_gap_mm: float = USUAL_GUARD_GAP_MM


Money = Annotated[float, Limit("money")]
Minutes = Annotated[float, Limit("minutes")]
Dullness = Annotated[float, Limit("judged_dullness")]
HandFeed = Annotated[float, Limit("hand_feed_max_m_min")]
Comfort = Annotated[float, Limit("comfortable_factor")]


@dataclass(frozen=True)
class Rates:
    """Prices and the numeric shop settings of the choice, each with its default."""

    hour: Money = 40.0
    machine_hour: Money = 30.0
    """Of a saw that feeds itself: the machine, and whoever loads it between other work."""
    timber_m3: Money = 900.0
    change_min: Minutes = 12.0
    power_kWh: Money = 0.0
    price_per_m_base: Money = 2.0
    price_per_m_per_mm: Money = 0.2
    price_factor: float = 1.0
    gullet_share_of_width: float = 0.30
    dullness_show: Dullness = 0.35
    dullness_sand: Dullness = 0.6
    dullness_plane: Dullness = 0.8
    dullness_rough: Dullness = 1.0
    comfortable_factor: float = 1.25
    comfortable_factor_hard: Comfort = 1.6
    hand_feed_max_m_min: float = 8.0
    hand_feed_plastic_m_min: HandFeed = 3.0
    hand_feed_metal_m_min: HandFeed = 1.5
    hand_feed_foam_m_min: HandFeed = 6.0
    hand_feed_curve_m_min: HandFeed = 5.0
    hand_feed_thin_m_min: HandFeed = 4.0
    """By hand under 10 mm of height: hands come near the band."""
    plane_min_m2: Minutes = 1.5
    sand_min_m2: Minutes = 2.5
    show_min_m2: Minutes = 4.0
    teeth_missing_allowed: Literal[0, 1] = 0
    """Teeth a band may lack and still be sharpened and used."""

    def cutting_hour(self, feed: str) -> float:
        """Money of an hour of cutting: a saw with power feed runs unattended."""
        return self.machine_hour if feed == "power" else self.hour

    def dullness_limit(self, finish: Finish, rules: Rules) -> float:
        """Dullest edge allowed for a finish under the shop's rule for changing bands."""
        if rules.change == "limit":
            return self.dullness_rough
        ladder = {
            "show": self.dullness_show,
            "sand": self.dullness_sand,
            "plane": self.dullness_plane,
            "rough": self.dullness_rough,
        }
        return self.dullness_show if rules.change == "first_sign" else ladder[finish]


@dataclass(frozen=True)
class BandType:
    """What a band is made as: its strip, its teeth and its steel; its label says so."""

    label: str
    width_mm: float
    thickness_mm: float
    tpi_lo: float | None
    tpi_hi: float | None
    form: str
    steel: str


def type_of(band: Any) -> dict[str, Any]:
    """What a row or a choice is made as, by the names of `BandType`."""
    return {field.name: getattr(band, field.name) for field in fields(BandType)}


@dataclass(frozen=True)
class Candidate(BandType):
    """A band to choose: from the catalogue (length None) or from the rack."""

    set_per_side_mm: float | None = None
    length_mm: float | None = None
    dullness: float = 0.0
    dullness_sd: float | None = None
    """How surely the dullness is known; None: as metres alone tell it."""
    fouling: float = 0.0
    price: float | None = None
    price_per_m: float | None = None
    life_m: float | None = None
    life_alpha: float = PRIOR_WEIGHT
    """How much speaks for its life: the table as so many bands, and each retired one."""
    mounted: bool = False
    band_id: int | None = None
    defects: tuple[str, ...] = ()
    """Damage that keeps it off the saw until mended: crack, kink, weld stepped, teeth lost."""
    teeth_lost: int = 0
    kept_for: str = "all"
    """The only work it is kept for."""
    to_buy: bool = False
    """A type, not a band that exists: its set can still be chosen."""

    @property
    def is_variable(self) -> bool:
        return self.tpi_lo != self.tpi_hi


@dataclass(frozen=True)
class Known:
    """What this shop's records say beside the tables, and how surely; None: the table's word."""

    side_factor: float = 1.0
    """Side share over the usual, from inspected faces of this saw and steel."""
    side_sd_ln: float = SIDE_SHARE_SPREAD_LN
    steering_factor: float = 1.0
    """How fast the work is turned round a curve, times the usual."""
    pressure_sd_ln: float | None = None
    """How surely this shop's own cutting pressure is known; it stands in the material itself."""


@dataclass(frozen=True)
class Job:
    """Everything a recommendation rests on."""

    saw: Saw
    cut: Cut
    rules: Rules = field(default_factory=Rules)
    rates: Rates = field(default_factory=Rates)
    bands: tuple[Candidate, ...] = field(default=(), repr=False)
    stress_MPa: float | None = None
    """A tension tried out instead of the steel's target."""
    known: Known = field(default_factory=Known)

    @property
    def cutting_hour(self) -> float:
        """Money of an hour of cutting on this saw."""
        return self.rates.cutting_hour(self.saw.feed)
