"""What Run takes: a run as logged."""

from datetime import UTC, datetime
from typing import Annotated, Literal, Self

from pydantic import AfterValidator, AwareDatetime, Field, model_validator

from jade_ribbon.core.edge.chips import Chips
from jade_ribbon.core.edge.signs import SYMPTOMS, Symptom
from jade_ribbon.core.mechanics.motor import (
    POWER_FACTOR_IDLE,
    POWER_FACTOR_LOADED,
    watts_of_amps,
)
from jade_ribbon.formats.validation import Strict, entry
from jade_ribbon.services.field_types import Id, Person, Words


def _in_utc(value: datetime) -> datetime:
    """A device's time in UTC; the ends of the calendar have none."""
    try:
        return value.astimezone(UTC)
    except OverflowError:
        raise ValueError("accepted: a time within the calendar") from None


RunsTime = Annotated[AwareDatetime, AfterValidator(_in_utc)]


PreflightKey = Literal["hands", "extraction", "support", "isolator"]
StopWhy = Literal["hands", "knot", "jam", "metal", "other"]


class StopMark(Strict):
    """Where along the piece the feed stopped, mm, and why."""

    along_mm: Annotated[float, entry("along_mm")]
    why: StopWhy = "other"


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
    amps_A: Annotated[float, entry("amps_A")] | None = None
    """Or its current, with what it draws idling, the volts and phases of its plate."""
    idle_A: Annotated[float, entry("amps_A")] | None = None
    volts_V: Annotated[float, entry("volts_V")] | None = None
    phases: Literal[1, 3] = 1
    preflight: Annotated[list[PreflightKey], Field(max_length=4)] = Field(default_factory=list)
    """What was tapped before the start."""
    chips: Chips | None = None
    stops: Annotated[list[StopMark], Field(max_length=60)] = Field(default_factory=list)
    strikes: Annotated[int, Field(ge=0, le=50)] = 0
    """Times metal was struck."""
    teeth_lost: Annotated[int, Field(ge=0, le=500)] = 0
    """Teeth gone when they were looked at after a strike."""
    symptoms: Annotated[list[Symptom], Field(max_length=len(SYMPTOMS))] = Field(
        default_factory=list
    )
    note: Words = ""
    who: Person = ""
    confirmed: bool = False
    replaces: Id | None = None
    """A run logged before that this one puts right: it is taken back with it."""

    @model_validator(mode="after")
    def _pace(self) -> Self:
        if self.time_s is None and self.feed_m_min is None:
            raise ValueError("give time_s or feed_m_min: one of them")
        if self.power_W is not None and self.idle_W is None:
            raise ValueError("power_W tells nothing without idle_W: what the motor takes idling")
        if self.power_W is not None and self.power_W <= (self.idle_W or 0.0):
            words = f"power_W {self.power_W:g} is no more than idling"
            raise ValueError(f"{words}; accepted: more than {self.idle_W:g}")
        self._current()
        if self.teeth_lost and not self.strikes:
            raise ValueError("teeth_lost needs the strike it came of: strikes is 0")
        return self

    def _current(self) -> None:
        """Amps tell something only whole, and never beside watts."""
        if self.amps_A is None:
            return
        if self.power_W is not None:
            raise ValueError("give power_W or amps_A, not both")
        if self.idle_A is None or self.volts_V is None:
            raise ValueError("amps_A tells nothing without idle_A and volts_V")
        if self.amps_A <= self.idle_A:
            words = f"amps_A {self.amps_A:g} is no more than idling"
            raise ValueError(f"{words}; accepted: more than {self.idle_A:g}")

    def watts(self) -> tuple[float, float] | None:
        """The motor's power cutting and idling, W; None where neither watts nor amps tell it."""
        if self.power_W is not None and self.idle_W is not None:
            return self.power_W, self.idle_W
        if self.amps_A is None or self.idle_A is None or self.volts_V is None:
            return None

        def of(amps: float, factor: float) -> float:
            return watts_of_amps(
                amps_A=amps,
                volts_V=self.volts_V or 0.0,
                phases=self.phases,
                power_factor=factor,
            )

        return of(self.amps_A, POWER_FACTOR_LOADED), of(self.idle_A, POWER_FACTOR_IDLE)
