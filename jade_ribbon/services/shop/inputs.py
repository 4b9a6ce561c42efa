"""What the shop takes: settings, saws, materials, what is mounted."""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from jade_ribbon.formats.job import MaterialChanges, RatesFile, SawFile
from jade_ribbon.formats.validation import Strict, entry
from jade_ribbon.reference.tables import house_rules
from jade_ribbon.services.bodies import Id, Person, Words


class SawInput(SawFile):
    """A saw as saved: the job file's saw, with what was assumed for lack of knowledge."""

    name: Annotated[str, Field(min_length=1, max_length=80, pattern=r"\S")]
    assumed: Annotated[list[Annotated[str, Field(max_length=40)]], Field(max_length=20)] = Field(
        default_factory=list
    )
    note: Words = ""


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


class ShopInput(Strict):
    """The shop's settings."""

    name: Annotated[str, Field(min_length=1, max_length=80)]
    units: Literal["metric", "inch"]
    currency: Annotated[str, Field(min_length=1, max_length=8)]
    gauge_length_mm: Annotated[float, entry("gauge_length_mm")]
    rules: dict[str, str]
    rates: RatesFile
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
