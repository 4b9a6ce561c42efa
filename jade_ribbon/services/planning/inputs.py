"""What Plan takes: jobs, questions, drawings."""

from typing import Annotated, Self

from pydantic import Field, ValidationError, model_validator

from jade_ribbon.core.quantities.words import metric
from jade_ribbon.formats.job import BandFile, CutFile, RulesFile
from jade_ribbon.formats.validation import Strict, entry, faults_of
from jade_ribbon.services.field_types import Id, Words


class WhatIf(Strict):
    """Figures tried out instead of the shop's own; each left out stays as it is."""

    motor_kW: Annotated[float, entry("motor_kW")] | None = None
    stress_MPa: Annotated[float, entry("stress_MPa")] | None = None
    guard_gap_mm: Annotated[float, entry("guard_gap_mm")] | None = None
    dullness: Annotated[float, entry("dullness")] | None = None


class CutInput(CutFile):
    """A cut with what the sentence says beside it, and house rules overridden for this job."""

    slice_mm: Annotated[float, entry("slice_mm")] | None = None
    billet_mm: Annotated[float, entry("billet_mm")] | None = None
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
            raise ValueError(
                "; ".join(f"rules.{f.path} {metric(f.message)}" for f in faults)
            ) from None
        return self


class JobInput(CutInput):
    """A job as saved: the cut, what it is called, and the saw it is for."""

    name: Annotated[str, Field(max_length=120)] = ""
    note: Words = ""
    saw_id: Id | None = None
    band_id: Id | None = None


class PlanInput(CutInput):
    """A question to Plan: a cut on a saw, with figures tried out."""

    saw_id: Id


class FeedInput(PlanInput):
    """What happens at a feed with one band (of the rack, or of the catalogue)."""

    feed_m_min: Annotated[float, entry("feed_m_min")]
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
