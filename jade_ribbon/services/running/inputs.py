"""What Run takes: a run as logged."""

from datetime import UTC, datetime
from typing import Annotated, Self

from pydantic import AfterValidator, AwareDatetime, Field, model_validator

from jade_ribbon.core.edge.signs import Symptom
from jade_ribbon.formats.validation import Strict, entry
from jade_ribbon.services.bodies import Id, Person, Words


def _in_utc(value: datetime) -> datetime:
    """A device's time in UTC; the ends of the calendar have none."""
    try:
        return value.astimezone(UTC)
    except OverflowError:
        raise ValueError("accepted: a time within the calendar") from None


RunsTime = Annotated[AwareDatetime, AfterValidator(_in_utc)]


class RunInput(Strict):
    """A run as logged. Give time or feed; the other follows. `client_key` makes resending safe."""

    client_key: Annotated[str, Field(min_length=8, max_length=64, pattern=r"^[A-Za-z0-9_-]+$")]
    job_id: Id
    saw_id: Id
    band_id: Id
    at: RunsTime | None = None
    """When it was, by the clock of the device it was written down on."""
    waited_s: Annotated[float, entry("waited_s")] | None = None
    """How long ago that was when it is sent, by the same device."""
    pieces: Annotated[int, entry("count")]
    length_mm: Annotated[float, entry("length_mm")]
    time_s: Annotated[float, entry("time_s")] | None = None
    feed_m_min: Annotated[float, entry("feed_m_min")] | None = None
    speed_m_s: Annotated[float, entry("speed_m_s")] | None = None
    power_W: Annotated[float, entry("power_W")] | None = None
    """The motor's electrical power while it cut; with what it takes idling."""
    idle_W: Annotated[float, entry("idle_W")] | None = None
    symptoms: Annotated[list[Symptom], Field(max_length=13)] = Field(default_factory=list)
    note: Words = ""
    who: Person = ""
    confirmed: bool = False

    @model_validator(mode="after")
    def _pace(self) -> Self:
        if self.time_s is None and self.feed_m_min is None:
            raise ValueError("give time_s or feed_m_min: one of them")
        if self.power_W is not None and self.idle_W is None:
            raise ValueError("power_W tells nothing without idle_W: what the motor takes idling")
        if self.power_W is not None and self.power_W <= (self.idle_W or 0.0):
            words = f"power_W {self.power_W:g} is no more than idling"
            raise ValueError(f"{words}; accepted: more than {self.idle_W:g}")
        return self
