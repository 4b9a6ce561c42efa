"""The reference tables as frozen records: materials, steels, tooth forms, band types.

Typical engineering values with stated uncertainty, not citations; a shop corrects them
on its own copy. Blank cells read as None: they do not apply.
"""

import csv
import types
import typing
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, fields
from functools import lru_cache
from importlib import resources
from typing import Any, Literal, TypeVar

T = TypeVar("T")

OperationKey = Literal[
    "resaw",
    "rip",
    "crosscut",
    "curve",
    "circle",
    "veneer",
    "wedge",
    "mill",
    "reclaim",
    "sheet",
    "bar",
    "tube",
    "block",
]
CautionLevel = Literal["stop", "caution", "note"]
Holds = Literal["saw", "band", "job", "never"]
"""What keeps a step good: the saw as it is, the band on it, the job; or nothing does."""
Reserve = Literal["", "band_change", "wheel_alignment", "wiring"]
PartOfSentence = Literal[
    "operation",
    "material",
    "finish",
    "saw",
    "rules",
    "count",
    "quantity",
    "round",
    "grain",
    "last_face",
]


@dataclass(frozen=True)
class Material:
    """A row of materials.csv; units are in the names. Kc holds at a bite of 0.1 mm."""

    key: str
    name: str
    group: str
    density_kg_m3: float
    janka_N: float | None
    moisture_state: str
    specific_cutting_pressure_MPa: float
    size_exponent_m: float
    feed_force_ratio_sharp: float
    feed_force_ratio_dull: float
    bite_min_mm: float
    bite_max_mm: float
    gullet_fill_limit: float
    speed_min_m_s: float
    speed_target_m_s: float
    speed_max_m_s: float
    bimetal_speed_mult: float
    carbide_speed_mult: float
    abrasiveness: float
    gum_factor: float
    tooth_forms_preferred: tuple[str, ...]
    steels_ok: tuple[str, ...]
    teeth_in_cut_min: float
    teeth_in_cut_ideal_lo: float
    teeth_in_cut_ideal_hi: float
    teeth_in_cut_max: float
    coolant: str
    dust_hazard: str
    cautions: str
    bite_target_mm: float
    kc_dull_multiplier: float
    kc_uncertainty_pct: float
    grit_rate_max_mm2_s: float | None

    @property
    def is_metal(self) -> bool:
        return self.group in ("ferrous", "nonferrous")

    @property
    def is_wood(self) -> bool:
        return self.group in ("softwood", "hardwood", "tropical", "troubled_wood")

    @property
    def is_grained(self) -> bool:
        """Drawn with its grain: woods, bamboo and the like."""
        return self.is_wood or self.group == "special"

    @property
    def work_hardens(self) -> bool:
        """Marked so in the table: it must never be rubbed."""
        return "work harden" in self.cautions.replace("-", " ")

    @property
    def is_green(self) -> bool:
        return self.moisture_state == "green"

    @property
    def dull_energy_gain(self) -> float:
        """g in K (1 + g d)."""
        return self.kc_dull_multiplier - 1.0


def short_name(name: str) -> str:
    """A name as it stands in a sentence: without what is in brackets, or said twice.

    >>> short_name("Silicon / alloy spring steel (tips hardened)"), short_name("Hook (positive)")
    ('silicon', 'hook')
    """
    plain = name.split(" (")[0].split(" / ")[0]
    return plain[0].lower() + plain[1:]


@dataclass(frozen=True)
class Steel:
    """A row of steels.csv. Tension columns for metal are None where not for metal."""

    key: str
    token: str
    name: str
    yield_MPa: float
    uts_MPa: float
    fatigue_amp_1e7_MPa: float
    basquin_b: float
    tension_wood_low_MPa: float
    tension_wood_target_MPa: float
    tension_wood_high_MPa: float
    tension_metal_low_MPa: float | None
    tension_metal_target_MPa: float | None
    tension_metal_high_MPa: float | None
    rel_edge_life_wood: float
    rel_edge_life_metal: float | None
    rel_price_per_m: float
    min_D_over_t: float
    resharpen_times: int
    E_GPa: float
    nu: float
    rho_kg_m3: float
    edge_hardness_HRC: float | None
    edge_temp_limit_C: float
    notes: str

    @property
    def basquin_k(self) -> float:
        """Exponent of the fatigue life, k = -1/b."""
        return -1.0 / self.basquin_b

    @property
    def is_grit(self) -> bool:
        return self.token in ("carbide_grit", "diamond_grit")


@dataclass(frozen=True)
class ToothForm:
    """A row of tooth_forms.csv; fractions are of the pitch or of the body thickness."""

    key: str
    name: str
    materials_csv_token: str
    hook_deg: float
    hook_lo_deg: float
    hook_hi_deg: float
    gullet_depth_frac_pitch: float
    gullet_area_coeff_a: float
    finish_1_5: int
    feed_aggressiveness_1_5: int
    set_raker_frac_t: float | None
    set_alternate_frac_t: float | None
    set_wavy_frac_t: float | None
    set_lo_frac_t: float
    set_hi_frac_t: float
    pitch_lo_mm: float | None
    pitch_hi_mm: float | None
    uses: str
    limits: str
    operations: tuple[str, ...]
    stock: str
    nominal_pitch_mm: float | None
    chip_area_per_pitch_mm: float | None
    layer_per_side_mm: float | None

    @property
    def is_knife(self) -> bool:
        """An edge without teeth or grit: it parts the stock and takes nothing away."""
        return self.materials_csv_token in ("knife", "scalloped")


@dataclass(frozen=True)
class BandType:
    """A row of catalogue.csv: a common generic band type. Continuous grit has no tpi."""

    width_mm: float
    thickness_mm: float
    tpi_lo: float | None
    tpi_hi: float | None
    tooth_form: str
    steel: str


@dataclass(frozen=True)
class CautionText:
    """A row of cautions.csv: what to say; when it is said is decided in the core."""

    key: str
    level: CautionLevel
    when: str
    text: str


@dataclass(frozen=True)
class SetupStepText:
    """A row of setup_steps.csv: the words of a step, figures left in braces.

    `when`: tags of saw, band and cut that must hold ("!tag": must not); `holds`: what it is
    still good for (saw, band, job, never) and for how many hours at the most.
    """

    key: str
    when: str
    doors_open: bool
    holds: Holds
    good_for_h: float
    reserve: Reserve
    figure: str
    readings: str
    title: str
    do: str
    check: str
    wrong: str


@dataclass(frozen=True)
class OperationRow:
    """A row of operations.csv: how an operation reads, and what it uses beside its sentence.

    `straight`, `deep`, `curved`: a straight cut, a deep one (resawing), one that may follow a
    curve. `sentence`: live parts in braces, by field or by field:part.
    """

    key: OperationKey
    name: str
    straight: bool
    deep: bool
    curved: bool
    also_uses: tuple[str, ...]
    sentence: str


@dataclass(frozen=True)
class SentencePart:
    """A row of sentence_parts.csv: a live part of a sentence and how it is asked for.

    `field` is the cut's; `absent` what an empty one says; `start` what it is given when it is
    opened; `times` shows it so many times over (a diameter of its radius).
    """

    key: str
    field: str
    part: PartOfSentence
    kind: Literal["", "length", "plain"]
    label: str
    help: str
    absent: str
    start: float | None
    times: float | None


@dataclass(frozen=True)
class OtherNames:
    """A row of material_names.csv: what else people call a material."""

    key: str
    names: tuple[str, ...]


@dataclass(frozen=True)
class HouseRule:
    """A row of house_rules.csv: a point on which practice is divided."""

    key: str
    title: str
    choices: tuple[str, ...]
    choice_names: tuple[str, ...]
    default: str
    why: str

    def name_of(self, choice: str) -> str:
        """The school in words."""
        return self.choice_names[self.choices.index(choice)]


def _convert(cell: str, kind: Any) -> Any:
    optional = isinstance(kind, types.UnionType)
    if optional and cell == "":
        return None
    if optional:
        kind = next(k for k in typing.get_args(kind) if k is not types.NoneType)
    if typing.get_origin(kind) is tuple:
        between = "|" if "|" in cell else ";"
        return tuple(part.strip() for part in cell.split(between) if part.strip())
    if typing.get_origin(kind) is Literal:
        if cell not in typing.get_args(kind):
            raise ValueError(f"{cell!r} is not one of {typing.get_args(kind)}")
        return cell
    return cell == "yes" if kind is bool else kind(cell)


def rows_of(table: str, record: type[T]) -> Iterator[T]:
    source = resources.files("jade_ribbon.reference").joinpath("tables").joinpath(f"{table}.csv")
    kinds = typing.get_type_hints(record)
    names = [f.name for f in fields(record)]  # type: ignore[arg-type]
    with source.open(encoding="utf-8") as handle:
        reader = csv.DictReader(handle)
        if reader.fieldnames is None or sorted(reader.fieldnames) != sorted(names):
            raise ValueError(f"{table}.csv: headings {reader.fieldnames} are not {names}")
        for row in reader:
            yield record(**{n: _convert(row[n], kinds[n]) for n in names})


def keyed(table: str, record: type[T]) -> Mapping[str, T]:
    return types.MappingProxyType({getattr(r, "key"): r for r in rows_of(table, record)})  # noqa: B009


@lru_cache
def materials() -> Mapping[str, Material]:
    """All materials by key."""
    return keyed("materials", Material)


@lru_cache
def steels() -> Mapping[str, Steel]:
    """All band steels by key."""
    return keyed("steels", Steel)


@lru_cache
def tooth_forms() -> Mapping[str, ToothForm]:
    """All tooth forms by key."""
    return keyed("tooth_forms", ToothForm)


@lru_cache
def catalogue() -> tuple[BandType, ...]:
    """The built-in band types."""
    return tuple(rows_of("catalogue", BandType))


@lru_cache
def caution_texts() -> Mapping[str, CautionText]:
    """All cautions by key."""
    return keyed("cautions", CautionText)


@lru_cache
def house_rules() -> Mapping[str, HouseRule]:
    """All house rules by key."""
    return keyed("house_rules", HouseRule)


@lru_cache
def setup_step_texts() -> tuple[SetupStepText, ...]:
    """The steps of a set-up in working order; a key may stand in several rows by `when`."""
    return tuple(rows_of("setup_steps", SetupStepText))


@lru_cache
def operations() -> Mapping[OperationKey, OperationRow]:
    """All operations by key."""
    return types.MappingProxyType({row.key: row for row in rows_of("operations", OperationRow)})


@lru_cache
def sentence_parts() -> Mapping[str, SentencePart]:
    """All live parts of the sentences by key."""
    return keyed("sentence_parts", SentencePart)


@lru_cache
def other_names() -> Mapping[str, OtherNames]:
    """Common other names of materials by key."""
    return keyed("material_names", OtherNames)


@dataclass(frozen=True)
class PreflightRow:
    """What is tapped before the saw starts, and why; `when` by tags as a step of the set-up."""

    key: str
    when: str
    name: str
    why: str


@lru_cache
def preflight() -> tuple[PreflightRow, ...]:
    """The four taps before the start of each kind of saw, in order."""
    return tuple(rows_of("preflight", PreflightRow))


@dataclass(frozen=True)
class TrialWood:
    """A material cheap enough to try a set-up on, and where it is found."""

    key: str
    why: str


@lru_cache
def trial_woods() -> Mapping[str, TrialWood]:
    """Cheap materials by key."""
    return keyed("trial_woods", TrialWood)


@dataclass(frozen=True)
class SawKind:
    """A kind of saw with figures usual for it; invented, to be confirmed on the saw itself."""

    key: str
    name: str
    says: str
    orientation: Literal["vertical", "horizontal"]
    wheels_mm: tuple[str, ...]
    tyre: Literal["crowned", "flat", "none", "worn"]
    length_mm: float
    narrowest_mm: float
    widest_mm: float
    thickest_mm: float
    height_mm: float
    throat_mm: float
    guides: Literal["rolling", "ceramic", "steel_block", "soft_block", "thrust_only", "none"]
    span_base_mm: float
    motor_kW: float
    efficiency: float
    speeds_m_s: tuple[str, ...]
    feed: Literal["hand", "power", "table", "carriage"]
    feed_max_m_min: float | None
    tensioner: Literal["spring", "weight", "air", "fixed"]
    wheel_force_N: float | None
    """Of kinds made for stout frames; of others a light frame's is reckoned with, unsaid here."""


@lru_cache
def saw_kinds() -> tuple[SawKind, ...]:
    """Kinds of saw, smallest first."""
    return tuple(rows_of("saw_kinds", SawKind))


CellKind = Literal["text", "length", "thin", "tpi", "form", "steel", "number", "looks", "date"]


@dataclass(frozen=True)
class BandColumn:
    """A column of a sheet of bands: what it holds, and what people head it."""

    key: str
    name: str
    kind: CellKind
    called: tuple[str, ...]


@dataclass(frozen=True)
class BandWord:
    """What people call a steel, a tooth form or the look of an edge."""

    kind: Literal["steel", "form", "looks"]
    key: str
    called: tuple[str, ...]


@lru_cache
def band_columns() -> Mapping[str, BandColumn]:
    """Columns that a sheet of bands may have, by key."""
    return keyed("band_columns", BandColumn)


@lru_cache
def band_words() -> tuple[BandWord, ...]:
    """Other words for steels, forms and looks."""
    return tuple(rows_of("band_words", BandWord))


@dataclass(frozen=True)
class PageRow:
    """A page of the interface: what it is called, where it is, and what it is for."""

    key: str
    title: str
    called: tuple[str, ...]
    place: str
    help: str


@dataclass(frozen=True)
class HelpTerm:
    """A term of the trade: what it is, why it matters, how it is measured."""

    key: str
    title: str
    called: tuple[str, ...]
    what: str
    why: str
    measure: str


@lru_cache
def pages() -> Mapping[str, PageRow]:
    """Pages of the interface by key, stations first."""
    return keyed("pages", PageRow)


@lru_cache
def help_terms() -> Mapping[str, HelpTerm]:
    """Terms of the glossary by key."""
    return keyed("help_terms", HelpTerm)
