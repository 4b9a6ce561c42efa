"""Bodies of setting up: steps, readings, a saw's fittings, alignment, roles and instruments."""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from jade_ribbon.core.setup.alignment import MOST_TURNS
from jade_ribbon.core.setup.tension.tension_reading import Means
from jade_ribbon.core.setup.wheel_places import Axis, Wheel
from jade_ribbon.formats.validation import Strict, entry
from jade_ribbon.services.field_types import Id, Person

Figure = Annotated[float, Field(ge=-100_000, le=100_000)]
ReadingKey = Annotated[str, Field(max_length=24)]
Figures = Annotated[dict[ReadingKey, Figure], Field(max_length=6)]


class SetupStart(Strict):
    """Start the set-up card of a job on its saw with a band."""

    job_id: Id
    band_id: Id


class AcknowledgeInput(Strict):
    """A stop acknowledged: by name, or with a means this shop was once said to have."""

    key: Annotated[str, Field(max_length=40)]
    name: Person = ""
    means: Annotated[str, Field(max_length=40)] = ""


class StepInput(Strict):
    """One step of a card: ticked, skipped with a reason, or still good from an earlier card.

    `found` and `left` are figures by the step's own readings, in SI with the unit in the key.
    """

    done: bool
    found: Figures = Field(default_factory=dict)
    left: Figures = Field(default_factory=dict)
    means: Means | None = None
    skipped: Annotated[str, Field(max_length=200)] = ""
    note: Annotated[str, Field(max_length=400)] = ""
    who: Person = ""
    authorised_by: Person = ""
    allowed_by: Person = ""
    allowed_why: Annotated[str, Field(max_length=200)] = ""
    still_good: bool = False

    @model_validator(mode="after")
    def _named(self) -> Self:
        if bool(self.allowed_by.strip()) != bool(self.allowed_why.strip()):
            raise ValueError("give both allowed_by and allowed_why: a name and its reason")
        return self


class CarryInput(Strict):
    """Who says that what held last time still holds."""

    who: Person = ""


class KeyedStep(StepInput):
    """A step by its key."""

    key: Annotated[str, Field(max_length=20)]

    def step(self) -> StepInput:
        """The same without its key."""
        return StepInput(**self.model_dump(exclude={"key"}))


class OneReadingInput(Strict):
    """A reading of tension; several notes of a plucked band give their median."""

    means: Means
    values: Annotated[list[Annotated[float, entry("reading")]], Field(min_length=1, max_length=20)]
    deflection_mm: Annotated[float, entry("deflection_mm")] | None = None


class TensionReadingInput(OneReadingInput):
    """A reading, and one taken of the same band by another means to hold it against."""

    against: OneReadingInput | None = None


class ShimsInput(Strict):
    """A gap, and the thickness of a stack of ten of what is at hand."""

    gap_mm: Annotated[float, entry("gap_mm")]
    stack_mm: Annotated[float, entry("stack_mm")]


class DriftInput(Strict):
    """A freehand trial: how far right of the line (left is negative) over a run."""

    offset_mm: Annotated[float, entry("drift_offset_mm")]
    run_mm: Annotated[float, entry("drift_run_mm")]
    keep: bool = False
    who: Person = ""


class TrackInput(Strict):
    """Where the band stands off its place (forward positive), and its creep over turns by hand."""

    position_mm: Annotated[float, entry("place_mm")]
    creep_mm: Annotated[float, entry("place_mm")]
    turns: Annotated[float, entry("hand_turns")] = 10.0


class TickInput(Strict):
    """Ticks counted over a time at the running speed."""

    ticks: Annotated[float, entry("ticks")]
    seconds: Annotated[float, entry("seconds")]


class ReadInput(Strict):
    """Ask an instrument for one reading of a step."""

    kind: Annotated[str, Field(max_length=20)]
    step: Annotated[str, Field(max_length=20)]
    reading: ReadingKey


class ZeroInput(Strict):
    """Zero an instrument."""

    kind: Annotated[str, Field(max_length=20)]


FittingLength = Annotated[float, entry("fitting_mm")]
ManualGap = Annotated[float, entry("manual_gap_mm")]


class MarkInput(Strict):
    """A mark printed on a saw's tension scale."""

    width_mm: Annotated[float, entry("width_mm")]
    reading: Annotated[float, entry("scale_reading")]


class FittingsInput(Strict):
    """What is known of a saw for setting it up; left out: not known."""

    fence: Literal["fence", "single_point", "none"] = "fence"
    fence_bolt_spacing_mm: FittingLength | None = None
    tyre_width_mm: Annotated[float, entry("tyre_width_mm")] | None = None
    knob: Literal["unknown", "clockwise_back", "clockwise_forward"] = "unknown"
    tilt_bolt_oclock: Annotated[int, entry("bolt_oclock")] | None = None
    toe_bolt_oclock: Annotated[int, entry("bolt_oclock")] | None = None
    manual_side_gap_mm: ManualGap | None = None
    manual_roller_press_mm: Annotated[float, entry("roller_press_mm")] | None = None
    manual_thrust_gap_mm: ManualGap | None = None
    insert_width_mm: Annotated[float, entry("width_mm")] | None = None
    motor_pulley_mm: FittingLength | None = None
    wheel_pulley_mm: FittingLength | None = None
    belt_length_mm: FittingLength | None = None
    printed_marks: Annotated[list[MarkInput], Field(max_length=20)] = Field(default_factory=list)
    good_for_h: Annotated[
        dict[Annotated[str, Field(max_length=20)], Annotated[float, entry("good_for_h")]],
        Field(max_length=20),
    ] = Field(default_factory=dict)


class ScalePointInput(Strict):
    """The scale's reading with the stress measured at it by another means."""

    reading: Annotated[float, entry("scale_reading")]
    stress_MPa: Annotated[float, entry("stress_MPa")]
    travel_mm: Annotated[float, entry("travel_mm")] | None = None
    note_Hz: Annotated[float, entry("reading")] | None = None
    means: Literal["gauge", "pluck", "push"]
    who: Person = ""


class AlignmentStart(Strict):
    """A gap read with the straightedge, at working tension and tracked."""

    axis: Axis
    wheel: Wheel
    gap_mm: Annotated[float, entry("wheel_gap_mm")]
    sits_on_both: bool = True
    who: Person = ""
    authorised_by: Person = ""


class AlignmentMove(Strict):
    """A turn made, clockwise positive, and the gap read after it."""

    turns: Annotated[float, Field(ge=-MOST_TURNS, le=MOST_TURNS)]
    gap_mm: Annotated[float, entry("wheel_gap_mm")]


class TyreInput(Strict):
    """Light under a straightedge across the tyre: at front, middle and back."""

    front_gap_mm: Annotated[float, entry("light_gap_mm")]
    middle_gap_mm: Annotated[float, entry("light_gap_mm")]
    back_gap_mm: Annotated[float, entry("light_gap_mm")]


class SpeedMeasured(Strict):
    """A speed as measured: wheel turns over a time, or the wheel's rpm."""

    nominal_m_s: Annotated[float, entry("speed_m_s")]
    turns: Annotated[float, entry("counted_turns")] | None = None
    seconds: Annotated[float, entry("seconds")] | None = None
    wheel_rpm: Annotated[float, entry("wheel_rpm")] | None = None
    keep: bool = False

    @model_validator(mode="after")
    def _one_way(self) -> Self:
        counted = self.turns is not None and self.seconds is not None
        if counted == (self.wheel_rpm is not None):
            raise ValueError("give turns with seconds, or wheel_rpm: one of the two")
        return self


class DefectInput(Strict):
    """Something wrong with a saw; one that stops it is never shown as ready."""

    text: Annotated[str, Field(min_length=1, max_length=400, pattern=r"\S")]
    stops: bool = False
    who: Person = ""


class CloseDefectInput(Strict):
    """Who closed it."""

    who: Annotated[str, Field(min_length=1, max_length=40, pattern=r"\S")]


ReservedStep = Literal["band_change", "wheel_alignment", "wiring"]


class SettingUpInput(Strict):
    """Reserved steps, who may do them, instruments in use, and what holds the work here."""

    reserved: Annotated[list[ReservedStep], Field(max_length=3)] = Field(default_factory=list)
    authorised: Annotated[list[Person], Field(max_length=50)] = Field(default_factory=list)
    instruments: Annotated[
        dict[Annotated[str, Field(max_length=20)], Literal["by_hand", "simulated"]],
        Field(max_length=10),
    ] = Field(default_factory=dict)
    holding: Annotated[list[Annotated[str, Field(max_length=40)]], Field(max_length=20)] = Field(
        default_factory=list
    )
