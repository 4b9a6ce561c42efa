"""What Stock takes: billets, logs, the metal in them, and what is asked of them."""

from typing import Annotated, Literal, Self

from pydantic import AwareDatetime, Field, model_validator

from jade_ribbon.core.stock.condition import Suspect, Trued
from jade_ribbon.core.stock.fasteners import FastenerFace, FastenerKind, FastenerState
from jade_ribbon.core.stock.losses import LEAST_BOARD_MM, USUAL_LOSSES
from jade_ribbon.formats.validation import Strict, entry
from jade_ribbon.services.field_types import Id, Label, Person, Words

Mm = Annotated[float, entry("stock_mm")]
Loss = Annotated[float, entry("loss_mm")]


class StockInput(Strict):
    """A billet (thickness and height) or a log (small end and bark), as saved."""

    kind: Literal["billet", "log"] = "billet"
    label: Label
    material: Annotated[str, Field(max_length=80)]
    thickness_mm: Mm | None = None
    height_mm: Mm | None = None
    length_mm: Annotated[float, entry("stock_length_mm")]
    small_end_mm: Mm | None = None
    bark_mm: Annotated[float, entry("bark_mm")] | None = None
    bow_mm: Annotated[float, entry("stock_bow_mm")] = 0.0
    twist_mm: Annotated[float, entry("twist_mm")] = 0.0
    moisture_pct: Annotated[float, entry("moisture_pct")] | None = None
    moisture_at: AwareDatetime | None = None
    trued: Trued = "none"
    reactive: bool = False
    suspect: Suspect = "none"
    price: Annotated[float, entry("money")] | None = None
    place: Annotated[str, Field(max_length=80)] = ""
    note: Words = ""

    @model_validator(mode="after")
    def _sized(self) -> Self:
        if self.kind == "billet" and (self.thickness_mm is None or self.height_mm is None):
            raise ValueError("a billet needs thickness_mm and height_mm")
        if self.kind == "log" and self.small_end_mm is None:
            raise ValueError("a log needs small_end_mm, the diameter of its small end")
        small = self.small_end_mm
        if self.kind == "log" and small is not None and 2.0 * (self.bark_mm or 0.0) >= small:
            raise ValueError(f"bark_mm takes the whole log; accepted: under {small / 2.0:g}")
        thick = self.thickness_mm
        if self.kind == "billet" and thick is not None and abs(self.bow_mm) >= self.length_mm / 4.0:
            raise ValueError(f"bow_mm is no bow; accepted: under {self.length_mm / 4.0:g}")
        return self


class FastenerInput(Strict):
    """Metal or stone found in a piece of stock."""

    along_mm: Annotated[float, entry("along_mm")]
    face: FastenerFace = "face"
    depth_mm: Annotated[float, entry("depth_mm")] | None = None
    kind: FastenerKind = "nail"
    state: FastenerState = "in"
    who: Person = ""


class OpenInput(Strict):
    """A cut that opened a billet: where it lay, its kerf, and how both parts lie now."""

    from_face_mm: Mm
    kerf_mm: Loss
    first_bow_mm: Annotated[float, entry("stock_bow_mm")]
    second_bow_mm: Annotated[float, entry("stock_bow_mm")]


class StockQuestion(Strict):
    """What a piece of stock gives for a job; cuts laid by hand where some are given."""

    job_id: Id | None = None
    band_id: Id | None = None
    """A band to reckon with where the job has none yet: the one Plan would take."""
    clean_up_per_face_mm: Loss = 0.0
    trim_mm: Loss = USUAL_LOSSES.trim_mm
    crosscut_kerf_mm: Loss = USUAL_LOSSES.crosscut_kerf_mm
    joint_loss_mm: Loss = USUAL_LOSSES.joint_loss_mm
    bought_mm: Mm | None = None
    board_mm: Mm | None = None
    least_width_mm: Mm = LEAST_BOARD_MM
    cant_mm: Mm | None = None
    cuts_mm: Annotated[list[Annotated[float, entry("depth_mm")]], Field(max_length=200)] | None = (
        None
    )


class RingInput(Strict):
    """A ring of segments."""

    segments: Annotated[int, entry("segments")]
    radius_mm: Mm
    joint_width_mm: Mm
    gap_allowed_mm: Loss
    face_error_deg: Annotated[float, entry("small_angle_deg")]
    error_doubt_deg: Annotated[float, entry("small_angle_deg")] = 0.05
    kerf_mm: Loss


class CircleInput(Strict):
    """A circle about a pin, on a saw."""

    saw_id: Id
    radius_mm: Mm
    drift_deg: Annotated[float, entry("small_angle_deg")]
    pivot_behind_tooth_line_mm: Annotated[float, entry("from_pin_mm")]
    blank_mm: Annotated[float, entry("any_length_mm")]
    table_reach_mm: Annotated[float, entry("stock_mm")]
