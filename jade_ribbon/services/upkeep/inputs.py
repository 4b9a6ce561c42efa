"""What upkeep takes: a task done, own intervals, accessories, steps of commissioning."""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from jade_ribbon.formats.validation import Strict, entry
from jade_ribbon.reference.care import accessories, commissioning_steps, upkeep_tasks
from jade_ribbon.services.field_types import Person, Words
from jade_ribbon.services.shop.tasks import OWN_KEY

Key = Annotated[str, Field(max_length=20)]


def _may_be_a_task(key: str) -> bool:
    """Whether a key is one of the tables', or such as a saw's own task has."""
    return key in upkeep_tasks() or OWN_KEY.fullmatch(key) is not None


class OwnTaskInput(Strict):
    """A task of upkeep of one's own: what to do, when it is right, how often."""

    title: Annotated[str, Field(min_length=1, max_length=60)]
    do: Words = ""
    look: Words = ""
    hours: Annotated[float, entry("upkeep_hours")]
    days: Annotated[float, entry("upkeep_days")]
    stops: bool = False
    """Found wrong, or never done, the saw does not run."""


class UpkeepDoneInput(Strict):
    """A task of upkeep, done: in order, or wrong and how."""

    key: Key
    found: Literal["right", "wrong"] = "right"
    note: Words = ""
    who: Person = ""

    @model_validator(mode="after")
    def _known(self) -> Self:
        if not _may_be_a_task(self.key):
            raise ValueError(f"{self.key!r} is no task; accepted: {', '.join(upkeep_tasks())}")
        if self.found == "wrong" and not self.note.strip():
            raise ValueError("found wrong needs what is wrong in note")
        return self


class IntervalInput(Strict):
    """How often a saw's task is due: hours run and days; left out, as usual."""

    hours: Annotated[float, entry("upkeep_hours")] | None = None
    days: Annotated[float, entry("upkeep_days")] | None = None


class IntervalsInput(Strict):
    """Own intervals of a saw, by task."""

    intervals: Annotated[dict[Key, IntervalInput], Field(max_length=40)]

    @model_validator(mode="after")
    def _known(self) -> Self:
        for key in self.intervals:
            if not _may_be_a_task(key):
                raise ValueError(f"{key!r} is no task; accepted: {', '.join(upkeep_tasks())}")
        return self


class AccessoryInput(Strict):
    """Whether an accessory is on a saw, and works."""

    key: Key
    state: Literal["none", "works", "down"]

    @model_validator(mode="after")
    def _known(self) -> Self:
        if self.key not in accessories():
            raise ValueError(f"{self.key!r} is unknown; accepted: {', '.join(accessories())}")
        return self


class BeginCommissioningInput(Strict):
    """A saw to bring to life."""

    kind: Literal["new", "old"]


class CommissioningStepInput(Strict):
    """A step of commissioning, done: right or wrong, by whom."""

    key: Key
    found: Literal["right", "wrong"]
    note: Words = ""
    who: Person = ""

    @model_validator(mode="after")
    def _known(self) -> Self:
        step = commissioning_steps().get(self.key)
        if step is None:
            accepted = ", ".join(commissioning_steps())
            raise ValueError(f"{self.key!r} is no step; accepted: {accepted}")
        if step.licensed and not self.who.strip():
            raise ValueError("who: the licensed person who did it must be named")
        return self
