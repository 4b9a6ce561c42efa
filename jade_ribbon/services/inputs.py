"""What the use cases take: bodies checked for shape and range before any work."""

from datetime import datetime
from typing import Annotated, Literal, Self, get_args

from pydantic import AwareDatetime, Field, ValidationError, model_validator

from jade_ribbon.core.band_history import SCRAP_REASONS
from jade_ribbon.core.job import Finish, Operation
from jade_ribbon.formats.job import (
    BandFile,
    CutFile,
    MaterialChanges,
    RatesFile,
    RulesFile,
    SawFile,
    Tpi,
)
from jade_ribbon.formats.validation import Strict, faults_of
from jade_ribbon.reference.tables import house_rules

Label = Annotated[str, Field(min_length=1, max_length=40, pattern=r"\S")]
Words = Annotated[str, Field(max_length=2000)]
Person = Annotated[str, Field(max_length=40)]
Id = Annotated[int, Field(ge=1, le=2**53)]


class SawInput(SawFile):
    """A saw as saved: the job file's saw, with what was assumed for lack of knowledge."""

    name: Annotated[str, Field(min_length=1, max_length=80, pattern=r"\S")]
    assumed: Annotated[list[Annotated[str, Field(max_length=40)]], Field(max_length=20)] = Field(
        default_factory=list
    )
    note: Words = ""


class BandTypeInput(Strict):
    """A band type: what its maker could be asked for."""

    width_mm: Annotated[float, Field(gt=0, le=400)]
    thickness_mm: Annotated[float, Field(gt=0, le=5)]
    tpi_lo: Tpi | None = None
    tpi_hi: Tpi | None = None
    form: Annotated[str, Field(max_length=40)]
    steel: Annotated[str, Field(max_length=40)]
    set_per_side_mm: Annotated[float, Field(gt=0, le=5)] | None = None
    note: Words = ""

    @model_validator(mode="after")
    def _pitch(self) -> Self:
        if (self.tpi_lo is None) != (self.tpi_hi is None):
            raise ValueError("give both tpi_lo and tpi_hi, or neither for a continuous edge")
        if self.tpi_lo is not None and self.tpi_hi is not None and self.tpi_lo > self.tpi_hi:
            raise ValueError("tpi_lo is over tpi_hi: write the coarser first")
        return self


class OwnTypeInput(BandTypeInput):
    """A band type of the shop's own, with its price a metre if known."""

    price_per_m: Annotated[float, Field(ge=0, le=100_000)] | None = None


class BandInput(BandTypeInput):
    """A band on the rack as saved."""

    label: Label
    length_mm: Annotated[float, Field(ge=200, le=50_000)]
    price: Annotated[float, Field(ge=0, le=1_000_000)] | None = None
    place: Annotated[str, Field(max_length=80)] = ""


EventKind = Literal[
    "sharpened",
    "cleaned",
    "sent_out",
    "returned",
    "hit",
    "measured_set",
    "edge_judged",
    "scrapped",
    "note",
]


class BandEventInput(Strict):
    """Something that happened to a band. Scrapping needs its reason in `detail`."""

    kind: EventKind
    detail: Words = ""
    value: Annotated[float, Field(ge=0, le=10)] | None = None
    who: Person = ""

    @model_validator(mode="after")
    def _complete(self) -> Self:
        if self.kind == "scrapped" and self.detail not in SCRAP_REASONS:
            raise ValueError(f"scrapping needs a reason in detail: {', '.join(SCRAP_REASONS)}")
        if self.kind == "edge_judged" and (self.value is None or not self.detail.strip()):
            raise ValueError("judging an edge needs a dullness 0 to 2 in value and why in detail")
        if self.kind == "edge_judged" and self.value is not None and self.value > 2:
            raise ValueError(f"dullness {self.value:g} is out of range; accepted: 0 to 2")
        if self.kind == "measured_set" and not self.value:
            raise ValueError("measured set needs the set per side in value, more than 0 mm")
        return self


class WhatIf(Strict):
    """Figures tried out instead of the shop's own; each left out stays as it is."""

    motor_kW: Annotated[float, Field(gt=0, le=100)] | None = None
    stress_MPa: Annotated[float, Field(ge=20, le=400)] | None = None
    guard_gap_mm: Annotated[float, Field(ge=2, le=300)] | None = None
    dullness: Annotated[float, Field(ge=0, le=1)] | None = None


class CutInput(CutFile):
    """A cut with what the sentence says beside it, and house rules overridden for this job."""

    slice_mm: Annotated[float, Field(gt=0, le=3000)] | None = None
    what_if: WhatIf | None = None
    rules: Annotated[dict[str, str | int | float], Field(max_length=20)] = Field(
        default_factory=dict
    )

    @model_validator(mode="after")
    def _rules_known(self) -> Self:
        try:
            RulesFile.model_validate(self.rules, strict=True)
        except ValidationError as error:
            faults = faults_of(error, RulesFile)
            raise ValueError("; ".join(f"rules.{f.path} {f.message}" for f in faults)) from None
        return self


class JobInput(CutInput):
    """A job as saved: the cut, what it is called, and the saw it is for."""

    name: Annotated[str, Field(max_length=120)] = ""
    saw_id: Id | None = None
    band_id: Id | None = None


class MaterialInput(Strict):
    """The shop's own copy of a material."""

    name: Annotated[str, Field(min_length=1, max_length=80, pattern=r"\S")]
    changes: MaterialChanges
    note: Words = ""


class NewMaterialInput(MaterialInput):
    """A new material, from the nearest one."""

    nearest: Annotated[str, Field(max_length=80)]


class PlanInput(CutInput):
    """A question to Plan: a cut on a saw, with figures tried out."""

    saw_id: Id


class FeedInput(PlanInput):
    """What happens at a feed with one band (of the rack, or of the catalogue)."""

    feed_m_min: Annotated[float, Field(gt=0, le=200)]
    band_id: Id | None = None
    band: BandFile | None = None

    @model_validator(mode="after")
    def _one_band(self) -> Self:
        if (self.band_id is None) == (self.band is None):
            raise ValueError("give band_id or band, one of them")
        return self


class OutlineInput(Strict):
    """A drawing dropped on the page: its text, its name with the ending, a unit if it has none."""

    name: Annotated[str, Field(min_length=1, max_length=200)]
    text: Annotated[str, Field(max_length=1_500_000)]
    unit: Annotated[str, Field(max_length=4)] | None = None


class CompareInput(PlanInput):
    """Up to four bands of the rack beside each other in one cut."""

    band_ids: Annotated[list[Id], Field(min_length=1, max_length=4)]


class MountInput(Strict):
    """What is put on a saw; None takes the band off."""

    band_id: Id | None
    who: Person = ""


class TensionInput(Strict):
    """Tension state of a saw as it stands."""

    state: Literal["on", "slack"]
    stress_MPa: Annotated[float, Field(gt=0, le=600)] | None = None


class SetupStart(Strict):
    """Start the set-up card of a job on its saw with a band."""

    job_id: Id
    band_id: Id


class AcknowledgeInput(Strict):
    """A stop acknowledged by name."""

    key: Annotated[str, Field(max_length=40)]
    name: Annotated[str, Field(min_length=1, max_length=40, pattern=r"\S")]


Symptom = Literal[
    "wander",
    "drift",
    "barrel",
    "waves",
    "washboard",
    "burn",
    "smoke",
    "fuzz",
    "tick",
    "vibration",
    "squeal",
    "hard_push",
    "gummed",
]
SYMPTOMS: tuple[str, ...] = get_args(Symptom)


class RunInput(Strict):
    """A run as logged. Give time or feed; the other follows. `client_key` makes resending safe."""

    client_key: Annotated[str, Field(min_length=8, max_length=64, pattern=r"^[A-Za-z0-9_-]+$")]
    job_id: Id
    saw_id: Id
    band_id: Id
    at: AwareDatetime | None = None
    pieces: Annotated[int, Field(ge=1, le=100_000)]
    length_mm: Annotated[float, Field(gt=0, le=100_000)]
    time_s: Annotated[float, Field(gt=0, le=1_000_000)] | None = None
    feed_m_min: Annotated[float, Field(gt=0, le=200)] | None = None
    speed_m_s: Annotated[float, Field(gt=0, le=150)] | None = None
    symptoms: Annotated[list[Symptom], Field(max_length=13)] = Field(default_factory=list)
    note: Words = ""
    who: Person = ""

    @model_validator(mode="after")
    def _pace(self) -> Self:
        if self.time_s is None and self.feed_m_min is None:
            raise ValueError("give time_s or feed_m_min: one of them")
        return self

    def when(self, now: datetime) -> datetime:
        """The run's own time, never later than now."""
        return now if self.at is None else min(self.at, now)


class ShopInput(Strict):
    """The shop's settings."""

    name: Annotated[str, Field(min_length=1, max_length=80)]
    units: Literal["metric", "inch"]
    currency: Annotated[str, Field(min_length=1, max_length=8)]
    gauge_length_mm: Annotated[float, Field(ge=10, le=2000)]
    rules: dict[str, str]
    rates: RatesFile
    guard_gap_mm: Annotated[float, Field(ge=2, le=50)] = 10.0
    people: Annotated[list[Person], Field(max_length=50)] = Field(default_factory=list)

    @model_validator(mode="after")
    def _rules_known(self) -> Self:
        table = house_rules()
        for key, choice in self.rules.items():
            if key not in table:
                raise ValueError(f"rules.{key} is not a house rule; accepted: {', '.join(table)}")
            if choice not in table[key].choices:
                raise ValueError(
                    f"rules.{key}: {choice!r} is not accepted; accepted: "
                    f"{', '.join(table[key].choices)}"
                )
        return self


__all__ = ["Finish", "Operation"]
