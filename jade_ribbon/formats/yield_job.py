"""The yield file: billets and pieces in, a cutting plan out."""

from typing import Annotated, Any, Literal

from pydantic import Field

from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.core.stock.cut_list import CutPlan, Slice, StockBillet, WantedPiece, YieldJob
from jade_ribbon.formats.validation import Strict, entry, read_json

Length = Annotated[float, entry("any_length_mm")]
Loss = Annotated[float, Field(ge=0, le=1000)]
Name = Annotated[str, Field(min_length=1, max_length=40)]


class YieldBillet(Strict):
    """A billet of a yield file."""

    label: Name
    thickness_mm: Length
    height_mm: Length
    length_mm: Length
    bow_mm: Loss = 0.0


class YieldPiece(Strict):
    """A kind of piece of a yield file: at most so many, each worth so much."""

    label: Name
    thickness_mm: Length
    height_mm: Length
    length_mm: Length
    count: Annotated[int, entry("count")]
    value: Annotated[float, entry("money")]


class CutListInput(Strict):
    """Which pieces from which billets."""

    kerf_mm: Annotated[float, Field(ge=0, le=50)]
    clean_up_per_face_mm: Loss
    prepare_loss_mm: Loss
    crosscut_kerf_mm: Annotated[float, Field(ge=0, le=100)]
    trim_mm: Loss
    rip_kerf_mm: Annotated[float, Field(ge=0, le=50)] | None = None
    """Kerf of the rip that parts pieces side by side in a slice; null: slices are not ripped."""
    billets: Annotated[list[YieldBillet], Field(min_length=1, max_length=50)]
    pieces: Annotated[list[YieldPiece], Field(min_length=1, max_length=50)]

    def to_core(self) -> YieldJob:
        """The core's job. InputError for two of a name."""
        for field, names in (
            ("billets", [b.label for b in self.billets]),
            ("pieces", [p.label for p in self.pieces]),
        ):
            for i, name in enumerate(names):
                if name in names[:i]:
                    words = f"{name!r} is there twice; accepted: a name of its own"
                    raise refuse(f"{field}.{i}.label", words, name)
        return YieldJob(
            self.kerf_mm,
            self.clean_up_per_face_mm,
            self.prepare_loss_mm,
            self.crosscut_kerf_mm,
            self.trim_mm,
            tuple(StockBillet(**b.model_dump()) for b in self.billets),
            tuple(WantedPiece(**p.model_dump()) for p in self.pieces),
            self.rip_kerf_mm,
        )


class YieldFile(CutListInput):
    """A cut list as a file."""

    format: Literal["jade-ribbon/yield"]
    version: Literal[1]


def _labels(job: YieldJob, pieces: Slice) -> str | list[str]:
    """What a slice becomes: one piece, or a list of those it is ripped into."""
    labels = [job.pieces[i].label for i in pieces]
    return labels[0] if len(labels) == 1 else labels


def plan_record(job: YieldJob, plan: CutPlan) -> dict[str, Any]:
    """A plan as the command line prints it."""
    return {
        "plan": [
            {
                "billet": billet.label,
                "sections": [
                    {"length_mm": s.length_mm, "pieces": [_labels(job, each) for each in s.slices]}
                    for s in sections
                ],
            }
            for billet, sections in zip(job.billets, plan.sections, strict=True)
            if sections
        ],
        "made": {p.label: n for p, n in zip(job.pieces, plan.made, strict=True)},
        "value": plan.value,
        "left_over": [
            {
                "billet": job.billets[x.billet].label,
                "thickness_mm": x.thickness_mm,
                "height_mm": x.height_mm,
                "length_mm": x.length_mm,
            }
            for x in sorted(plan.left_over, key=lambda x: -x.volume_m3)
        ],
        "kerf_m3": plan.kerf_m3,
        "waste_m3": plan.waste_m3,
    }


def read_yield(text: bytes) -> YieldJob:
    """The job of a yield file. InputError with every fault."""
    file: YieldFile = read_json(YieldFile, text)
    return file.to_core()
