"""The job file (docs/formats): JSON in, the core's frozen job out, and back."""

import dataclasses
from collections.abc import Mapping
from typing import Annotated, Any, Literal, Self

from pydantic import Field, create_model, model_validator

from jade_ribbon.core.choosing.catalogue import catalogue_candidates
from jade_ribbon.core.choosing.reclaim import stock_of
from jade_ribbon.core.choosing.sentences import emptied
from jade_ribbon.core.job import (
    DEFAULT_HAND_FORCE_N,
    Candidate,
    Cut,
    Drive,
    Finish,
    Job,
    Rates,
    Rules,
    Saw,
)
from jade_ribbon.core.mechanics.outline import Stretch
from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.formats.validation import Strict, entry, fields_of, read_json
from jade_ribbon.reference.tables import Material, materials

Length = Annotated[float, entry("any_length_mm")]
Speed = Annotated[float, entry("speed_m_s")]
MAX_BANDS = 5000


class DriveFile(Strict):
    """Fixed speeds, or an inverter."""

    kind: Literal["fixed", "inverter"]
    speeds_m_s: Annotated[list[Speed], Field(max_length=40)] = Field(default_factory=list)
    base_hz: Annotated[float, entry("drive_hz")] | None = None
    min_hz: Annotated[float, entry("drive_hz")] | None = None
    max_hz: Annotated[float, entry("drive_hz")] | None = None
    base_speed_m_s: Speed | None = None

    @model_validator(mode="after")
    def _complete(self) -> Self:
        if self.kind == "fixed":
            if not self.speeds_m_s:
                raise ValueError("a fixed drive needs speeds_m_s: at least one, over 0 m/s")
            return self
        if None in (self.base_hz, self.min_hz, self.max_hz, self.base_speed_m_s):
            raise ValueError("an inverter needs base_hz, min_hz, max_hz and base_speed_m_s")
        if (self.min_hz or 0) > (self.max_hz or 0):
            raise ValueError(f"min_hz {self.min_hz} is over max_hz {self.max_hz}")
        return self

    def to_core(self) -> Drive:
        return Drive(
            kind=self.kind,
            speeds_m_s=tuple(self.speeds_m_s),
            base_hz=self.base_hz or 0.0,
            min_hz=self.min_hz or 0.0,
            max_hz=self.max_hz or 0.0,
            base_speed_m_s=self.base_speed_m_s or 0.0,
        )


Pair = Annotated[list[Length], Field(min_length=2, max_length=2)]


class SawFile(Strict):
    """A saw in the job file."""

    name: Annotated[str, Field(max_length=80)] = ""
    orientation: Literal["vertical", "horizontal"]
    wheel_diameters_mm: Annotated[
        list[Annotated[float, entry("wheel_diameter_mm")]], Field(min_length=2, max_length=3)
    ]
    tyre: Literal["crowned", "flat", "none", "worn"]
    band_length_mm: Pair
    band_width_mm: Pair
    band_thickness_max_mm: Annotated[float, entry("band_thickness_max_mm")]
    wheel_force_max_N: Annotated[float, entry("wheel_force_max_N")] | None
    height_mm: Annotated[float, entry("saw_height_mm")]
    throat_mm: Annotated[float, entry("throat_mm")]
    guides: Literal["rolling", "ceramic", "steel_block", "soft_block", "thrust_only", "none"]
    guide_span_base_mm: Annotated[float, entry("guide_span_base_mm")]
    guide_span_per_height: Annotated[float, entry("guide_span_per_height")]
    motor_kW: Annotated[float, entry("motor_kW")]
    drive_efficiency: Annotated[float, entry("drive_efficiency")]
    feed: Literal["hand", "power", "table", "carriage"] = "hand"
    feed_max_m_min: Annotated[float, entry("feed_m_min")] | None = None
    tensioner: Literal["spring", "weight", "air", "fixed"] = "spring"
    hand_force_N: Annotated[float, entry("hand_force_N")] = DEFAULT_HAND_FORCE_N
    drive: DriveFile

    @model_validator(mode="after")
    def _ordered(self) -> Self:
        for name in ("band_length_mm", "band_width_mm"):
            low, high = getattr(self, name)
            if low > high:
                raise ValueError(f"{name}: the least {low:g} is over the greatest {high:g}")
        return self

    def to_core(self) -> Saw:
        plain = {n: getattr(self, n) for n in SawFile.model_fields if n != "drive"}
        return Saw(
            **plain
            | {
                "wheel_diameters_mm": tuple(self.wheel_diameters_mm),
                "band_length_mm": (self.band_length_mm[0], self.band_length_mm[1]),
                "band_width_mm": (self.band_width_mm[0], self.band_width_mm[1]),
                "drive": self.drive.to_core(),
            }
        )


class StretchFile(Strict):
    """So much of a path at one radius; null where it is straight."""

    length_mm: Annotated[float, entry("any_length_mm")]
    radius_mm: Annotated[float, entry("min_radius_mm")] | None = None


MOST_STRETCHES = 60
NEAR_LEAST = 0.999
"""The tightest radius is rounded where it is shown."""


CUT_FIELDS = fields_of(Cut) | {
    "material": (Annotated[str, Field(max_length=80)], ...),
    "finish": (Finish, ...),
    "stretches": (
        Annotated[list[StretchFile], Field(max_length=MOST_STRETCHES)],
        Field(default_factory=list),
    ),
}


class CutFile(create_model("CutFields", __base__=Strict, **CUT_FIELDS)):  # type: ignore[misc]
    """The cut in the job file: the core's own fields, its material by key."""

    @model_validator(mode="after")
    def _only_what_is_used(self) -> Self:
        """What the operation has no use for is emptied, so that it is not at work unsaid."""
        given = {name: getattr(self, name) for name in type(self).model_fields}
        for name, empty in emptied(self.operation, given).items():
            setattr(self, name, empty)
        return self

    @model_validator(mode="after")
    def _path_is_its_own(self) -> Self:
        """An outline's stretches are those of its radius: none of them is tighter."""
        if not self.stretches:
            return self
        least = self.min_radius_mm
        if least is None:
            raise ValueError("stretches need min_radius_mm; accepted: none without it")
        for i, stretch in enumerate(self.stretches):
            if stretch.radius_mm is not None and stretch.radius_mm < least * NEAR_LEAST:
                words = f"{stretch.radius_mm:g} is under the tightest; accepted: from {least:g}"
                raise ValueError(f"stretches.{i}.radius_mm {words}")
        return self

    def to_core(self, table: Mapping[str, Material] | None = None) -> Cut:
        known = table if table is not None else materials()
        if self.material not in known:
            raise InputError(
                [
                    Fault(
                        "cut.material",
                        f"{self.material!r} is not a known material; accepted: {', '.join(known)}",
                        self.material,
                    )
                ]
            )
        own = ("material", "stretches")
        plain = {n: getattr(self, n) for n in CutFile.model_fields if n not in own}
        plain["stretches"] = tuple(Stretch(s.length_mm, s.radius_mm) for s in self.stretches)
        material = stock_of(self.operation, known[self.material], known)
        return Cut(material=material, **plain)


class RulesFile(create_model("RuleFields", __base__=Strict, **fields_of(Rules))):  # type: ignore[misc]
    """House rules that bear on the choice; each left out takes its default."""

    def to_core(self) -> Rules:
        return Rules(**self.model_dump())


class RatesFile(create_model("RateFields", __base__=Strict, **fields_of(Rates))):  # type: ignore[misc]
    """Prices and numeric settings; each left out takes its default."""

    def to_core(self) -> Rates:
        return Rates(**self.model_dump())


Money = Annotated[float, entry("money")]
Minutes = Annotated[float, entry("minutes")]
Pressure = Annotated[float, entry("specific_cutting_pressure_MPa")]
Tpi = Annotated[float, entry("tpi")]


class BandFile(Strict):
    """A band to choose among."""

    label: Annotated[str, Field(max_length=120)] = ""
    width_mm: Annotated[float, entry("width_mm")]
    thickness_mm: Annotated[float, entry("thickness_mm")]
    tpi: Tpi | None = None
    tpi_range: Annotated[list[Tpi], Field(min_length=2, max_length=2)] | None = None
    form: Annotated[str, Field(max_length=40)]
    steel: Annotated[str, Field(max_length=40)]
    set_per_side_mm: Annotated[float, entry("set_per_side_mm")] | None = None
    length_mm: Annotated[float, entry("band_length_mm")] | None = None
    dullness: Annotated[float, entry("dullness")] = 0.0
    price: Money | None = None

    @model_validator(mode="after")
    def _one_pitch(self) -> Self:
        if self.tpi is not None and self.tpi_range is not None:
            raise ValueError("give tpi or tpi_range, not both")
        if self.tpi_range is not None and self.tpi_range[0] > self.tpi_range[1]:
            raise ValueError("tpi_range: write the coarser (lower tpi) first")
        return self

    def to_core(self) -> Candidate:
        low, high = self.tpi_range if self.tpi_range is not None else (self.tpi, self.tpi)
        return Candidate(
            label=self.label,
            width_mm=self.width_mm,
            thickness_mm=self.thickness_mm,
            tpi_lo=low,
            tpi_hi=high,
            form=self.form,
            steel=self.steel,
            set_per_side_mm=self.set_per_side_mm,
            length_mm=self.length_mm,
            dullness=self.dullness,
            price=self.price,
        )


class MaterialChanges(Strict):
    """Figures of a material that a shop may correct; each left out stays the table's."""

    specific_cutting_pressure_MPa: Pressure | None = None
    size_exponent_m: Annotated[float, entry("size_exponent_m")] | None = None
    feed_force_ratio_sharp: Annotated[float, entry("feed_force_ratio_sharp")] | None = None
    feed_force_ratio_dull: Annotated[float, entry("feed_force_ratio_dull")] | None = None
    bite_min_mm: Annotated[float, entry("bite_min_mm")] | None = None
    bite_target_mm: Annotated[float, entry("bite_target_mm")] | None = None
    bite_max_mm: Annotated[float, entry("bite_max_mm")] | None = None
    gullet_fill_limit: Annotated[float, entry("gullet_fill_limit")] | None = None
    speed_min_m_s: Annotated[float, entry("material_speed_m_s")] | None = None
    speed_target_m_s: Annotated[float, entry("material_speed_m_s")] | None = None
    speed_max_m_s: Annotated[float, entry("material_speed_m_s")] | None = None
    abrasiveness: Annotated[float, entry("abrasiveness")] | None = None
    gum_factor: Annotated[float, entry("gum_factor")] | None = None
    grit_rate_max_mm2_s: Annotated[float, entry("grit_rate_mm2_s")] | None = None


class MaterialFile(Strict):
    """A shop's own copy of a material, carried with the job: what it changes in the table's."""

    base: Annotated[str, Field(max_length=80)]
    name: Annotated[str, Field(min_length=1, max_length=80, pattern=r"\S")]
    changes: MaterialChanges = Field(default_factory=MaterialChanges)

    def to_core(self, key: str) -> Material:
        known = materials()
        if self.base not in known:
            path = f"materials.{key}.base"
            words = f"{self.base!r} is not a known material; accepted: {', '.join(known)}"
            raise InputError([Fault(path, words, self.base)])
        changes = self.changes.model_dump(exclude_none=True)
        found = dataclasses.replace(known[self.base], key=key, name=self.name, **changes)
        if faults := order_faults(found):
            raise InputError([f.under(f"materials.{key}.changes") for f in faults])
        return found


FIGURE_ORDERS = (
    ("speed_min_m_s", "speed_target_m_s", "speed_max_m_s"),
    ("bite_min_mm", "bite_target_mm", "bite_max_mm"),
    ("feed_force_ratio_sharp", "feed_force_ratio_dull"),
)


def order_faults(material: Material) -> list[Fault]:
    """The table's own order of figures holds for a correction too."""
    faults = []
    for names in FIGURE_ORDERS:
        values = [getattr(material, n) for n in names]
        for name, low, high in zip(names[1:], values, values[1:], strict=False):
            if low >= high:
                words = f"{high:g} is out of range; accepted: more than {low:g}"
                faults.append(Fault(name, words, high))
    return faults


class JobFile(Strict):
    """A whole job file."""

    format: Literal["jade-ribbon/job"]
    version: Literal[1]
    saw: SawFile
    cut: CutFile
    rules: RulesFile = Field(default_factory=RulesFile)
    rates: RatesFile = Field(default_factory=RatesFile)
    bands: Annotated[list[BandFile], Field(max_length=MAX_BANDS)] | None = None
    materials: Annotated[dict[str, MaterialFile], Field(max_length=50)] = Field(
        default_factory=dict
    )

    def material_table(self) -> Mapping[str, Material]:
        """The built-in materials with those the file brings along."""
        return {**materials(), **{k: m.to_core(k) for k, m in self.materials.items()}}

    def to_core(self) -> Job:
        """The job the core computes with; None for bands means the built-in catalogue."""
        bands = (
            catalogue_candidates()
            if self.bands is None
            else tuple(band.to_core() for band in self.bands)
        )
        return Job(
            saw=self.saw.to_core(),
            cut=self.cut.to_core(self.material_table()),
            rules=self.rules.to_core(),
            rates=self.rates.to_core(),
            bands=bands,
        )


def read_job(text: str | bytes) -> Job:
    """Read a job file. InputError lists every fault with its path."""
    document: JobFile = read_json(JobFile, text)
    return document.to_core()


def saw_file(saw: Saw) -> SawFile:
    """A saw as it is answered: the job file's own model, not checked again."""
    plain = saw_record(saw)
    drive = DriveFile.model_construct(**plain.pop("drive"))
    return SawFile.model_construct(**plain, drive=drive)


def saw_record(saw: Saw) -> dict[str, Any]:
    """A saw as the job file writes it."""
    record = dataclasses.asdict(saw)
    drive = record.pop("drive")
    for noted in ("wheels_out", "force_assumed", "down", "shakes"):
        del record[noted]  # what is noted of a saw is no figure of it
    keys = (
        ("kind", "speeds_m_s")
        if saw.drive.kind == "fixed"
        else ("kind", "base_hz", "min_hz", "max_hz", "base_speed_m_s")
    )
    return {k: list(v) if isinstance(v, tuple) else v for k, v in record.items()} | {
        "drive": {k: list(drive[k]) if isinstance(drive[k], tuple) else drive[k] for k in keys}
    }
