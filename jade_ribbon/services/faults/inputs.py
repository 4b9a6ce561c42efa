"""What Faults takes: a trouble, its signs, answers, remedy and true causes."""

from typing import Annotated, Literal, Self

from pydantic import AfterValidator, Field, model_validator

from jade_ribbon.core.faults.diagnosis import COULD_NOT_TELL
from jade_ribbon.core.faults.readings import RANGES
from jade_ribbon.formats.validation import Strict, entry
from jade_ribbon.reference.faults import causes, checks, instruments, sign_texts
from jade_ribbon.services.field_types import Id, Person, Query, Words

Key = Annotated[str, Field(max_length=40)]
Degree = Literal["clear", "slight", "absent"]
Began = Literal["signs", "run", "inspect", "setup", "ear"]
SKIP = "skip"
MOST_SIGNS = 12


def _known(key: str, accepted: list[str], field: str) -> None:
    if key not in accepted:
        raise ValueError(f"{field}: {key!r} is not known; accepted: {', '.join(accepted)}")


class SignsInput(Strict):
    """Signs of a trouble by degree: clear, slight, or looked for and not there."""

    symptoms: Annotated[dict[Key, Degree], Field(min_length=1, max_length=MOST_SIGNS)]

    @model_validator(mode="after")
    def _signs(self) -> Self:
        for key in self.symptoms:
            _known(key, list(sign_texts()), "symptoms")
        return self


class TroubleInput(SignsInput):
    """A trouble as it is first told: on which saw, with which band and job, from where."""

    saw_id: Id
    band_id: Id | None = None
    job_id: Id | None = None
    run_id: Id | None = None
    began: Began = "signs"
    note: Words = ""
    who: Person = ""

    @model_validator(mode="after")
    def _seen(self) -> Self:
        if all(degree == "absent" for degree in self.symptoms.values()):
            raise ValueError("symptoms: tell at least one that is there")
        return self


class AnswerInput(Strict):
    """An answer to a check; could_not_tell and skip are answers too."""

    check: Key
    outcome: Key
    who: Person = ""

    @model_validator(mode="after")
    def _answer(self) -> Self:
        _known(self.check, list(checks()), "check")
        accepted = [*checks()[self.check].outcomes, COULD_NOT_TELL, SKIP]
        _known(self.outcome, accepted, "outcome")
        return self


class AsideInput(Strict):
    """Readings of the records that are not so here: they are set aside, with all others back."""

    reads: Annotated[list[Key], Field(max_length=40)]

    @model_validator(mode="after")
    def _readings(self) -> Self:
        for key in self.reads:
            _known(key, list(RANGES), "reads")
        return self


class MeasureInput(Strict):
    """Figures of a measured check."""

    check: Key
    figures: Annotated[dict[Key, float], Field(max_length=8)]


class StopInput(Strict):
    """A stop acknowledged by name: the saw stands, and is isolated."""

    stop: Key
    who: Annotated[str, Field(min_length=1, max_length=40, pattern=r"\S")]


class RemedyInput(Strict):
    """A remedy done: for which cause, in how many minutes."""

    cause: Key
    minutes: Annotated[float, entry("minutes")] | None = None
    who: Person = ""

    @model_validator(mode="after")
    def _cause(self) -> Self:
        _known(self.cause, list(causes()), "cause")
        return self


class CloseTroubleInput(Strict):
    """A trouble closed: with its true causes, or without where nobody found them."""

    causes: Annotated[list[Key], Field(max_length=3)]
    gone: bool = True
    """False: it is still there, and is given up or lived with."""
    spoiled: Annotated[float, entry("money")] | None = None
    note: Words = ""
    who: Person = ""

    @model_validator(mode="after")
    def _causes(self) -> Self:
        for key in self.causes:
            _known(key, list(causes()), "causes")
        if len(set(self.causes)) < len(self.causes):
            raise ValueError("causes: name each once")
        return self


class InstrumentsInput(Strict):
    """What the shop has to check with; None for all of it."""

    has: Annotated[list[Key], Field(max_length=20)] | None

    @model_validator(mode="after")
    def _instruments(self) -> Self:
        for key in self.has or []:
            _known(key, list(instruments()), "has")
        return self


class TappedInput(Strict):
    """A tick tapped along with, at a saw: seconds from the first tap."""

    saw_id: Id
    band_id: Id
    times_s: Annotated[
        list[Annotated[float, Field(ge=0, le=600)]], Field(min_length=1, max_length=200)
    ]
    speed_m_s: Annotated[float, entry("speed_m_s")] | None = None


def _known_check(key: str) -> str:
    if key:
        _known(key, list(checks()), "check")
    return key


AnyCheck = Annotated[Key, AfterValidator(_known_check)]
"""A check that somebody would make instead of the one proposed; empty for that one."""


class EarQuery(Query):
    """Whose sound it is: a saw, its band, at a speed; and whether to keep it as a good run's."""

    saw_id: Id
    band_id: Id
    speed_m_s: Annotated[float, Field(gt=0, le=150)] | None = None
