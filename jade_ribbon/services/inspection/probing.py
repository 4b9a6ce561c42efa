"""The caliper's stand-in on a board that the simulated saw has cut."""

from dataclasses import dataclass

from sqlalchemy.orm import Session

from jade_ribbon.core.simulation.senses import SawnBoard, sawn_thickness_mm
from jade_ribbon.devices.instrument import DropoutError, OutOfRangeError
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.inspection.faces import cut_of, has_caliper, push_of, usual_side_share
from jade_ribbon.services.inspection.inputs import ProbeInput
from jade_ribbon.services.records import get
from jade_ribbon.services.setup.instruments import Instruments
from jade_ribbon.store.models import JobRow

NO_SLICE_MM = 20.0
"""A job that names no slice is probed as a board so thick."""


@dataclass(frozen=True)
class Probed:
    """One reading, mm, and that a stand-in made it."""

    value_mm: float
    simulated: bool
    instrument: str


def probe(session: Session, instruments: Instruments, job_id: int, given: ProbeInput) -> Probed:
    """The thickness at a place. ConflictError without a caliper, for a dropout, or out of range."""
    if not has_caliper(session):
        raise ConflictError("No caliper is connected: type it, or choose the simulated one.")
    row: JobRow = get(session, "job", job_id)
    cut = cut_of(session, row, None)
    board = SawnBoard(
        thickness_mm=row.slice_mm or NO_SLICE_MM,
        height_mm=cut.job.cut.standing_height_mm,
        strand_force_N=cut.band.strand_force_N,
        side_force_N=usual_side_share(cut) * (push_of(cut) or 0.0),
        saw=row.saw_id or 0,
        board=given.board,
    )
    caliper = instruments.driver("caliper")
    instruments.floor.hold(
        "caliper", lambda: sawn_thickness_mm(board, along=given.along, up=given.up)
    )
    caliper.zero()
    try:
        reading = caliper.read()
    except (DropoutError, OutOfRangeError) as problem:
        raise ConflictError(str(problem)) from problem
    return Probed(reading.value, reading.simulated, reading.instrument)
