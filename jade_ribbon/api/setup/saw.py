"""A saw's fittings: scale, speeds, alignment, defects, and how it stands."""

from typing import Annotated

from pydantic import BaseModel, Field
from pydantic.json_schema import SkipJsonSchema
from sqlalchemy.orm import Session

from jade_ribbon.api.answers import Changed
from jade_ribbon.api.operations import operation
from jade_ribbon.core.setup.tyres import TyreVerdict
from jade_ribbon.services.edits import Edit
from jade_ribbon.services.setup import alignments, kept, readings, roles, scale, stands
from jade_ribbon.services.setup.inputs import (
    AlignmentMove,
    AlignmentStart,
    CloseInput,
    DefectInput,
    ScalePointInput,
    SpeedMeasured,
    TyreInput,
)


class StandQuery(BaseModel):
    """Which job is asked about."""

    job_id: Annotated[int, Field(ge=1, le=2**53)] | SkipJsonSchema[None] = None


class SpeedQuery(BaseModel):
    """Which speed is wanted."""

    target_m_s: Annotated[float, Field(ge=0.05, le=150, allow_inf_nan=False)]


@operation("GET", "/api/saws/<int:saw_id>/stand", answer=stands.Stand, query=StandQuery)
def saw_stands(session: Session, saw_id: int, query: StandQuery) -> stands.Stand:
    """The saw as it stands, and what it can do as it is."""
    return stands.stand(session, saw_id, query.job_id)


@operation(
    "PATCH",
    "/api/saws/<int:saw_id>/fittings",
    answer=Changed,
    body=roles.FittingsEdit,
    role="authorised",
)
def write_fittings(session: Session, saw_id: int, body: Edit) -> Changed:
    """Save what was changed of a saw's fittings; it can be undone."""
    return Changed(roles.save_fittings(session, saw_id, body))


@operation("GET", "/api/saws/<int:saw_id>/scale", answer=scale.ScaleAnswer)
def saw_scale_page(session: Session, saw_id: int) -> scale.ScaleAnswer:
    """The calibration of a saw's own tension scale."""
    return scale.scale(session, saw_id)


@operation(
    "POST",
    "/api/saws/<int:saw_id>/scale",
    answer=scale.ScaleAnswer,
    body=ScalePointInput,
    status=201,
)
def add_scale_point(session: Session, saw_id: int, body: ScalePointInput) -> scale.ScaleAnswer:
    """Keep a point: the scale's reading and the stress measured at it."""
    return scale.add_point(session, saw_id, body)


@operation("DELETE", "/api/scale-points/<int:point_id>", answer=Changed, role="authorised")
def delete_scale_point(session: Session, point_id: int) -> Changed:
    """Delete a point; it can be undone."""
    return Changed(scale.delete_point(session, point_id))


@operation("GET", "/api/saws/<int:saw_id>/speeds", answer=scale.SpeedsAnswer, query=SpeedQuery)
def saw_speeds(session: Session, saw_id: int, query: SpeedQuery) -> scale.SpeedsAnswer:
    """The settings of a saw's drive for a speed."""
    return scale.speeds(session, saw_id, query.target_m_s)


@operation(
    "POST",
    "/api/saws/<int:saw_id>/speeds",
    answer=scale.MeasuredSpeed,
    body=SpeedMeasured,
)
def measure_speed(session: Session, saw_id: int, body: SpeedMeasured) -> scale.MeasuredSpeed:
    """A speed as measured; corrects the record when asked."""
    return scale.measure_speed(session, saw_id, body)


@operation("GET", "/api/saws/<int:saw_id>/alignments", answer=alignments.CoachAnswer)
def alignment_coach(session: Session, saw_id: int) -> alignments.CoachAnswer:
    """What there is to true on a saw, and the latest truings of its wheels."""
    return alignments.coach(session, saw_id)


@operation(
    "POST",
    "/api/saws/<int:saw_id>/alignments",
    answer=alignments.AlignmentAnswer,
    body=AlignmentStart,
    status=201,
)
def start_alignment(
    session: Session, saw_id: int, body: AlignmentStart
) -> alignments.AlignmentAnswer:
    """Begin a truing from a gap read at tension."""
    return alignments.start(session, saw_id, body)


@operation(
    "POST",
    "/api/alignments/<int:alignment_id>/moves",
    answer=alignments.AlignmentAnswer,
    body=AlignmentMove,
)
def move_wheel(
    session: Session, alignment_id: int, body: AlignmentMove
) -> alignments.AlignmentAnswer:
    """A turn made and the gap after it: the next turn out."""
    return alignments.move(session, alignment_id, body)


@operation("DELETE", "/api/alignments/<int:alignment_id>/moves", answer=alignments.AlignmentAnswer)
def undo_move(session: Session, alignment_id: int) -> alignments.AlignmentAnswer:
    """Take the last turn back."""
    return alignments.undo_move(session, alignment_id)


@operation("POST", "/api/saws/<int:saw_id>/tyre", answer=TyreVerdict, body=TyreInput, asks=True)
def check_tyre(session: Session, saw_id: int, body: TyreInput) -> TyreVerdict:
    """What a straightedge across a tyre says."""
    return alignments.check_tyre(session, saw_id, body)


@operation(
    "POST", "/api/saws/<int:saw_id>/defects", answer=stands.Defect, body=DefectInput, status=201
)
def add_defect(session: Session, saw_id: int, body: DefectInput) -> stands.Defect:
    """Note something wrong with a saw."""
    return stands.add_defect(session, saw_id, body)


@operation(
    "POST", "/api/defects/<int:defect_id>/close", answer=Changed, body=CloseInput, role="authorised"
)
def close_defect(session: Session, defect_id: int, body: CloseInput) -> Changed:
    """Close a defect by name; it can be undone."""
    return Changed(stands.close_defect(session, defect_id, body))


@operation("GET", "/api/bands/<int:band_id>/setups", answer=list[kept.KeptSetup])
def setups_of_band(session: Session, band_id: int) -> list[kept.KeptSetup]:
    """The latest set-ups of a band."""
    return kept.kept_setups(session, band_id=band_id)


@operation("GET", "/api/bands/<int:band_id>/drift", answer=list[readings.DriftTrial])
def drift_of_band(session: Session, band_id: int) -> list[readings.DriftTrial]:
    """The last drift trials of a band, oldest first."""
    return readings.drift_trials(session, band_id)


@operation("GET", "/api/setting-up", answer=roles.SettingUp)
def read_setting_up(session: Session) -> roles.SettingUp:
    """Reserved steps, authorised people, instruments in use."""
    return roles.read_setting_up(session)


@operation(
    "PATCH", "/api/setting-up", answer=roles.SettingUp, body=roles.SettingUpEdit, role="owner"
)
def write_setting_up(session: Session, body: Edit) -> roles.SettingUp:
    """Save what was changed of them; it can be undone."""
    return roles.save_setting_up(session, body)
