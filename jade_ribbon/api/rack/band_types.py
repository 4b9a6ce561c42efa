"""The shop's own band types."""

from sqlalchemy.orm import Session

from jade_ribbon.api.answers import Changed
from jade_ribbon.api.operations import operation
from jade_ribbon.services.edits import Edit
from jade_ribbon.services.rack import band_types
from jade_ribbon.services.rack.inputs import OwnTypeInput


@operation("GET", "/api/band-types", answer=list[band_types.OwnType])
def list_band_types(session: Session) -> list[band_types.OwnType]:
    """Types beside the built-in catalogue."""
    return band_types.list_types(session)


@operation("POST", "/api/band-types", answer=band_types.OwnType, body=OwnTypeInput, status=201)
def add_band_type(session: Session, body: OwnTypeInput) -> band_types.OwnType:
    """Add a type by width, thickness, pitch, form and steel."""
    return band_types.add_type(session, body)


@operation(
    "PATCH",
    "/api/band-types/<int:type_id>",
    answer=band_types.OwnType,
    body=band_types.OwnTypeEdit,
)
def edit_band_type(session: Session, type_id: int, body: Edit) -> band_types.OwnType:
    """Save what was changed of a type."""
    return band_types.save_type(session, type_id, body)


@operation("DELETE", "/api/band-types/<int:type_id>", answer=Changed)
def delete_band_type(session: Session, type_id: int) -> Changed:
    """Delete a type; it can be undone."""
    return Changed(band_types.delete_type(session, type_id))
