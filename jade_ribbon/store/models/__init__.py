"""Tables of a shop: saws, bands, jobs, set-ups, runs, settings and the change log."""

from jade_ribbon.store.models.base import Base, UtcDateTime
from jade_ribbon.store.models.changes import AnsweredRow, ChangeRow
from jade_ribbon.store.models.faults import SoundRow, TroubleRow
from jade_ribbon.store.models.jobs import FaceRow, JobRow, RunRow, RunSumRow
from jade_ribbon.store.models.rack import (
    BandEventRow,
    BandRow,
    BandTypeRow,
    CoilRow,
    EdgeLifeRow,
    MakingRow,
)
from jade_ribbon.store.models.setup import (
    AlignmentRow,
    DriftRow,
    ScalePointRow,
    SetupRow,
    SetupStepRow,
)
from jade_ribbon.store.models.shop import DefectRow, MaterialRow, SawRow, ShopRow
from jade_ribbon.store.models.stock import FastenerRow, PhotoRow, StockRow
from jade_ribbon.store.models.upkeep import CommissioningRow, UpkeepRow

__all__ = [
    "AlignmentRow",
    "AnsweredRow",
    "BandEventRow",
    "BandRow",
    "BandTypeRow",
    "Base",
    "ChangeRow",
    "CoilRow",
    "CommissioningRow",
    "DefectRow",
    "DriftRow",
    "EdgeLifeRow",
    "FaceRow",
    "FastenerRow",
    "JobRow",
    "MakingRow",
    "MaterialRow",
    "PhotoRow",
    "RunRow",
    "RunSumRow",
    "SawRow",
    "ScalePointRow",
    "SetupRow",
    "SetupStepRow",
    "ShopRow",
    "SoundRow",
    "StockRow",
    "TroubleRow",
    "UpkeepRow",
    "UtcDateTime",
]
