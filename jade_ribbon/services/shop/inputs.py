"""What the shop takes: settings, saws, materials, what is mounted."""

from dataclasses import fields
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from jade_ribbon.core.money.regrind_or_replace import SharpenTerms
from jade_ribbon.core.money.reorder import SpareTerms
from jade_ribbon.core.saw_defaults.kinds import NAMES as ASSUMABLE
from jade_ribbon.formats.job import MaterialChanges, Minutes, Money, RatesFile, SawFile
from jade_ribbon.formats.validation import Strict, entry
from jade_ribbon.reference.tables import house_rules
from jade_ribbon.services.field_types import Id, Person, Words


class SawInput(SawFile):
    """A saw as saved: the job file's saw, with what was assumed for lack of knowledge."""

    name: Annotated[str, Field(min_length=1, max_length=80, pattern=r"\S")]
    assumed: Annotated[list[Annotated[str, Field(max_length=40)]], Field(max_length=24)] = Field(
        default_factory=list
    )
    note: Words = ""
    considered: bool = False

    @model_validator(mode="after")
    def _assumed_known(self) -> Self:
        for name in self.assumed:
            if name not in ASSUMABLE:
                raise ValueError(f"{name!r} cannot be assumed; accepted: {', '.join(ASSUMABLE)}")
        return self


class WorkOutInput(Strict):
    """What is known of a saw, for what follows from it."""

    wheels_mm: Annotated[
        list[Annotated[float, entry("wheel_diameter_mm")]], Field(min_length=2, max_length=3)
    ]
    wheel_rpm: Annotated[float, entry("wheel_rpm")] | None = None
    motor_rpm: Annotated[float, entry("motor_rpm")] | None = None
    motor_pulley_mm: Annotated[float, entry("pulley_mm")] | None = None
    wheel_pulley_mm: Annotated[float, entry("pulley_mm")] | None = None
    gear_ratio: Annotated[float, entry("gear_ratio")] = 1.0
    centres_mm: Annotated[float, entry("centres_mm")] | None = None
    string_mm: Annotated[float, entry("band_length_mm")] | None = None


class MaterialInput(Strict):
    """The shop's own copy of a material."""

    name: Annotated[str, Field(min_length=1, max_length=80, pattern=r"\S")]
    changes: MaterialChanges
    note: Words = ""


class NewMaterialInput(MaterialInput):
    """A new material, from the nearest one."""

    nearest: Annotated[str, Field(max_length=80)]


class MountInput(Strict):
    """What is put on a saw; None takes the band off."""

    band_id: Id | None
    who: Person = ""


class TensionInput(Strict):
    """Tension state of a saw as it stands."""

    state: Literal["on", "slack"]
    stress_MPa: Annotated[float, entry("stress_MPa")] | None = None


class RackTermsInput(Strict):
    """What sharpening takes in this shop, how surely spares are wanted, how long they take."""

    in_house_min: Minutes = SharpenTerms.in_house_min
    in_house_money: Money = SharpenTerms.in_house_money
    on_saw_min: Minutes = SharpenTerms.on_saw_min
    on_saw_money: Money = SharpenTerms.on_saw_money
    out_money: Money = SharpenTerms.out_money
    out_days: Annotated[float, entry("days")] = SharpenTerms.out_days
    handling_min: Minutes = SharpenTerms.handling_min
    service: Annotated[float, entry("service")] = SpareTerms.service
    lead_weeks: Annotated[float, entry("lead_weeks")] = SpareTerms.lead_weeks

    def sharpening(self) -> SharpenTerms:
        return SharpenTerms(**{f.name: getattr(self, f.name) for f in fields(SharpenTerms)})

    def spares(self) -> SpareTerms:
        return SpareTerms(self.service, self.lead_weeks)


class ShopInput(Strict):
    """The shop's settings."""

    name: Annotated[str, Field(min_length=1, max_length=80)]
    units: Literal["metric", "inch"]
    paper: Literal["a4", "letter"] = "a4"
    currency: Annotated[str, Field(min_length=1, max_length=8)]
    gauge_length_mm: Annotated[float, entry("gauge_length_mm")]
    rules: dict[str, str]
    rates: RatesFile
    rack: RackTermsInput = Field(default_factory=RackTermsInput)
    guard_gap_mm: Annotated[float, entry("guard_gap_mm")] = 10.0
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
