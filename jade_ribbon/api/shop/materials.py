"""Materials: the shop's own copies."""

from typing import Annotated

from pydantic import BaseModel, Field
from sqlalchemy.orm import Session

from jade_ribbon.api.answers import Changed
from jade_ribbon.api.operations import operation
from jade_ribbon.services.edits import Edit
from jade_ribbon.services.shop import materials
from jade_ribbon.services.shop.inputs import MaterialInput, NewMaterialInput


class MaterialQuery(BaseModel):
    """Which material."""

    key: Annotated[str, Field(max_length=80)]


@operation("GET", "/api/material", answer=materials.MaterialPage, query=MaterialQuery)
def one_material(session: Session, query: MaterialQuery) -> materials.MaterialPage:
    """A material, the table's figures and the shop's own."""
    return materials.page(session, query.key)


@operation(
    "PATCH",
    "/api/material",
    answer=materials.MaterialPage,
    query=MaterialQuery,
    body=materials.MaterialEdit,
    role="authorised",
)
def correct_material(session: Session, query: MaterialQuery, body: Edit) -> materials.MaterialPage:
    """Save the shop's own figures of a material."""
    return materials.save(session, query.key, body)


@operation("DELETE", "/api/material", answer=Changed, query=MaterialQuery, role="authorised")
def reset_material(session: Session, query: MaterialQuery) -> Changed:
    """Go back to the table's figures; it can be undone."""
    return Changed(materials.reset(session, query.key))


@operation(
    "POST",
    "/api/materials",
    answer=materials.MaterialPage,
    body=NewMaterialInput,
    status=201,
    role="authorised",
)
def add_material(session: Session, body: NewMaterialInput) -> materials.MaterialPage:
    """A new material from the nearest one."""
    given = MaterialInput(**body.model_dump(exclude={"nearest", "changes"}), changes=body.changes)
    return materials.add(session, body.nearest, given)
