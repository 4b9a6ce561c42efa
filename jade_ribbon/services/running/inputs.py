"""What Run takes: a run as logged."""

from datetime import datetime
from typing import Annotated, Self

from pydantic import AwareDatetime, Field, model_validator

from jade_ribbon.core.edge.signs import Symptom
from jade_ribbon.formats.validation import Strict
from jade_ribbon.services.bodies import Id, Person, Words


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
