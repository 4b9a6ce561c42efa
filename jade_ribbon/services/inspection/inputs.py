"""What Inspect takes: a face as read."""

from typing import Annotated, Literal

from pydantic import Field

from jade_ribbon.core.inspection.roughness import Grade
from jade_ribbon.formats.validation import Strict, entry
from jade_ribbon.services.field_types import Id, Person

Place = tuple[float, float, float]


class FaceInput(Strict):
    """Readings of one piece: each a place along (0 to 1), up (-1 to 1), and a thickness, mm."""

    job_id: Id
    readings: Annotated[list[Place], Field(min_length=3, max_length=60)]
    feed_m_min: Annotated[float, entry("feed_m_min")] | None = None
    piece: Annotated[str, Field(max_length=40)] = ""
    simulated: bool = False
    roughness: Grade | None = None
    """By look: 1 smooth as planed to 5 torn."""
    ridge_mm: Annotated[float, entry("ridge_mm")] | None = None
    """From ridge to ridge, measured over ten."""
    guided: Literal["", "fence", "point", "line"] = ""
    """What the work was led by: fence, single point, or a scribed line by hand."""
    trial: Annotated[str, Field(max_length=80)] = ""
    """The material of a trial cut made before the job's own; empty for the job's own."""
    who: Person = ""


class ProbeInput(Strict):
    """Where the caliper is put on the piece."""

    along: Annotated[float, Field(ge=0, le=1)]
    up: Annotated[float, Field(ge=-1, le=1)]
    board: Annotated[int, Field(ge=0, le=10_000)] = 0
