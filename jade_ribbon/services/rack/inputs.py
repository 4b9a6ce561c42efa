"""What the rack takes: bands, their types and what happened to them."""

from datetime import date
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from jade_ribbon.core.edge.history import MENDABLE, SCRAP_REASONS
from jade_ribbon.core.edge.visual_grade import Looks
from jade_ribbon.formats.job import Tpi
from jade_ribbon.formats.validation import Strict, entry
from jade_ribbon.reference.care import making_steps
from jade_ribbon.services.clock import now
from jade_ribbon.services.field_types import Id, Label, Person, Words


class BandTypeInput(Strict):
    """A band type: what its maker could be asked for."""

    width_mm: Annotated[float, entry("width_mm")]
    thickness_mm: Annotated[float, entry("thickness_mm")]
    tpi_lo: Tpi | None = None
    tpi_hi: Tpi | None = None
    form: Annotated[str, Field(max_length=40)]
    steel: Annotated[str, Field(max_length=40)]
    set_per_side_mm: Annotated[float, entry("set_per_side_mm")] | None = None
    note: Words = ""

    @model_validator(mode="after")
    def _pitch(self) -> Self:
        if (self.tpi_lo is None) != (self.tpi_hi is None):
            raise ValueError("give both tpi_lo and tpi_hi, or neither for a continuous edge")
        if self.tpi_lo is not None and self.tpi_hi is not None and self.tpi_lo > self.tpi_hi:
            raise ValueError("tpi_lo is over tpi_hi: write the coarser first")
        return self


class OwnTypeInput(BandTypeInput):
    """A band type of the shop's own, with its price a metre and its life as told, if known."""

    price_per_m: Annotated[float, entry("money")] | None = None
    told_life: Annotated[float, entry("told_life")] | None = None


KeptFor = Literal["all", "rough", "old_timber", "firewood", "show"]


class BandInput(BandTypeInput):
    """A band on the rack as saved."""

    label: Label
    length_mm: Annotated[float, entry("band_length_mm")]
    price: Annotated[float, entry("money")] | None = None
    place: Annotated[str, Field(max_length=80)] = ""
    kept_for: KeptFor = "all"


EARLIEST = date(1950, 1, 1)


class NewBandInput(BandInput):
    """A new band, with the labels of further ones bought with it, all alike.

    One that is no longer new says how its edge looks and since when the shop has it. A thickness
    left out is taken from the width.
    """

    thickness_mm: Annotated[float, entry("thickness_mm")] | None = None  # type: ignore[assignment]
    also: Annotated[list[Label], Field(max_length=50)] = Field(default_factory=list)
    looks: Looks = "new"
    since: date | None = None

    @model_validator(mode="after")
    def _since_when(self) -> Self:
        if self.since is not None and not EARLIEST <= self.since <= now().date():
            raise ValueError(
                f"since {self.since} is out of range; accepted: {EARLIEST} to {now().date()}"
            )
        return self


class BandSheetInput(Strict):
    """A sheet of bands as text, and which column is what where the guess was wrong."""

    text: Annotated[str, Field(max_length=1_000_000)]
    columns: Annotated[dict[str, int], Field(max_length=40)] | None = None


HandWay = Literal["in_house", "on_saw"]
Way = HandWay | Literal["send_out"]
Ground = Literal["face", "gullet", "both"]


class SharpenedFacts(Strict):
    """How a band was sharpened: the way, what was ground, at which angle, set after it."""

    way: Way | None = None
    ground: Ground | None = None
    angle_deg: Annotated[float, entry("angle_deg")] | None = None
    set_after_mm: Annotated[float, entry("set_per_side_mm")] | None = None
    teeth_lost: Annotated[int, Field(ge=0, le=1000)] = 0


class WeighedInput(Strict):
    """A standard offcut pulled through by a weight, and how long it took."""

    saw_id: Id
    material: Annotated[str, Field(max_length=80)]
    height_mm: Annotated[float, entry("height_mm")]
    length_mm: Annotated[float, entry("length_mm")]
    weight_kg: Annotated[float, entry("weight_kg")]
    seconds: Annotated[float, entry("seconds")]
    who: Person = ""


Tooth = Annotated[float, entry("tooth_set_mm")]


class LookedOverInput(Strict):
    """A band looked over: what was measured and seen; left out where nobody looked."""

    length_mm: Annotated[float, entry("band_length_mm")] | None = None
    width_mm: Annotated[float, entry("width_mm")] | None = None
    thickness_mm: Annotated[float, entry("thickness_mm")] | None = None
    pitch_mm: Annotated[float, entry("band_pitch_mm")] | None = None
    set_left_mm: Annotated[list[Tooth], Field(max_length=40)] = Field(default_factory=list)
    set_right_mm: Annotated[list[Tooth], Field(max_length=40)] = Field(default_factory=list)
    back_bow_mm: Annotated[float, entry("back_bow_mm")] | None = None
    weld_right: bool | None = None
    direction_right: bool | None = None
    tag_right: bool | None = None
    who: Person = ""


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
    "crack",
    "kink",
    "weld_stepped",
    "teeth_lost",
    "mended",
    "still_good",
    "life_confirmed",
    "looked_at",
]


class BandEventInput(Strict):
    """Something that happened to a band. Scrapping needs its reason in `detail`."""

    kind: EventKind
    detail: Words = ""
    value: Annotated[float, entry("event_value")] | None = None
    minutes: Annotated[float, entry("minutes")] | None = None
    cost: Annotated[float, entry("money")] | None = None
    sharpened: SharpenedFacts | None = None
    who: Person = ""

    @model_validator(mode="after")
    def _complete(self) -> Self:
        if self.kind == "scrapped" and self.detail not in SCRAP_REASONS:
            raise ValueError(f"scrapping needs a reason in detail: {', '.join(SCRAP_REASONS)}")
        if self.kind != "sharpened" and (self.sharpened or self.minutes or self.cost):
            raise ValueError("only a sharpening has minutes, a cost and how it was done")
        if self.kind == "edge_judged" and (self.value is None or not self.detail.strip()):
            raise ValueError("judging an edge needs a dullness 0 to 2 in value and why in detail")
        if self.kind == "edge_judged" and self.value is not None and self.value > 2:
            raise ValueError(f"dullness {self.value:g} is out of range; accepted: 0 to 2")
        if self.kind == "sharpened" and self.value is not None and self.value > 2:
            raise ValueError(f"dullness {self.value:g} is out of range; accepted: 0 to 2")
        if self.kind == "teeth_lost" and (self.value is None or self.value < 1):
            raise ValueError("teeth lost needs how many in value; accepted: 1 or more")
        if self.kind == "life_confirmed" and self.value is None:
            raise ValueError("confirming a life needs which one in value; accepted: 0 or more")
        if self.kind == "mended" and self.detail and self.detail not in MENDABLE:
            raise ValueError(
                f"mended names in detail what was put right: {', '.join(MENDABLE)}. A crack is "
                "scrap, and lost teeth do not grow again"
            )
        if self.kind == "measured_set" and not self.value:
            raise ValueError("measured set needs the set per side in value, more than 0 mm")
        return self


class PriceInput(BandTypeInput):
    """A price asked for a band, to be held against what was paid."""

    length_mm: Annotated[float, entry("band_length_mm")]
    price: Annotated[float, entry("money")]


class CoilInput(BandTypeInput):
    """Band stock on a coil."""

    left_mm: Annotated[float, entry("coil_mm")]
    price_per_m: Annotated[float, entry("money")] | None = None
    place: Annotated[str, Field(max_length=80)] = ""


class MakingInput(Strict):
    """A band to be made from a coil: its label, its length, by which procedure."""

    label: Label
    length_mm: Annotated[float, entry("band_length_mm")]
    procedure: Annotated[str, Field(min_length=1, max_length=80, pattern=r"\S")]
    who: Person = ""


class MakingStepInput(Strict):
    """A step of making, done."""

    key: Annotated[str, Field(max_length=20)]
    note: Words = ""
    who: Person = ""


class MakingEndInput(Strict):
    """How making ended: made, or failed at a step and why."""

    made: bool
    failed_at: Annotated[str, Field(max_length=20)] = ""
    why: Words = ""
    who: Person = ""

    @model_validator(mode="after")
    def _told(self) -> Self:
        if not self.made and self.failed_at not in making_steps():
            accepted = ", ".join(making_steps())
            raise ValueError(f"failed_at {self.failed_at!r} is no step; accepted: {accepted}")
        return self
