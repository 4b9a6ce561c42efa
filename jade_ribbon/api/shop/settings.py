"""Settings, reference tables, search, history and undo."""

from dataclasses import dataclass
from typing import Annotated

from pydantic import BaseModel, Field
from pydantic.json_schema import SkipJsonSchema
from sqlalchemy.orm import Session

from jade_ribbon.api.operations import operation
from jade_ribbon.core.quantities.plausible import meant
from jade_ribbon.formats.validation import Strict
from jade_ribbon.services import undo as undoing
from jade_ribbon.services.edits import Edit
from jade_ribbon.services.search import find as finding
from jade_ribbon.services.shop import reference as tables
from jade_ribbon.services.shop import settings as settings


class SearchQuery(BaseModel):
    """What was typed."""

    q: Annotated[str, Field(max_length=100)] = ""


class ChangesQuery(BaseModel):
    """Of which record, all where none is named; and before which deed, for the next page."""

    noun: Annotated[str, Field(max_length=20)] | SkipJsonSchema[None] = None
    noun_id: Annotated[int, Field(ge=1, le=2**53)] | SkipJsonSchema[None] = None
    before: Annotated[int, Field(ge=1, le=2**53)] | SkipJsonSchema[None] = None


@operation("GET", "/api/shop", answer=settings.Shop)
def read_shop(session: Session) -> settings.Shop:
    """The shop's settings."""
    return settings.read_shop(session)


@operation("PATCH", "/api/shop", answer=settings.Shop, body=settings.ShopEdit, role="owner")
def write_shop(session: Session, body: Edit) -> settings.Shop:
    """Save what was changed of the shop's settings."""
    return settings.save_shop(session, body)


@operation("GET", "/api/reference", answer=tables.Reference)
def reference(session: Session) -> tables.Reference:
    """Materials, steels, tooth forms, house rules and words."""
    return tables.reference(session)


@operation("GET", "/api/help", answer=tables.Help)
def read_help(session: Session) -> tables.Help:
    """A page for each station, and what the words mean."""
    return tables.help_pages()


class MeantInput(Strict):
    """An unusual value typed into a field, in SI."""

    field: Annotated[str, Field(max_length=40)]
    value: float


@dataclass(frozen=True)
class Meant:
    """The value probably meant; None when no usual mistake explains the one given."""

    value: float | None


@operation("POST", "/api/meant", answer=Meant, body=MeantInput, asks=True)
def what_is_meant(session: Session, body: MeantInput) -> Meant:
    """What was probably meant by an unusual value: decimals, inches, minutes, diameters."""
    return Meant(meant(body.field, body.value))


@operation("GET", "/api/search", answer=list[finding.Hit], query=SearchQuery)
def search(session: Session, query: SearchQuery) -> list[finding.Hit]:
    """Find jobs, bands, saws and materials by what was typed."""
    return finding.search(session, query.q)


@operation("GET", "/api/changes", answer=list[undoing.Deed], query=ChangesQuery)
def changes(session: Session, query: ChangesQuery) -> list[undoing.Deed]:
    """What was changed, deleted and undone, newest first."""
    return undoing.changes(session, **query.model_dump())


@operation("POST", "/api/changes/<int:change_id>/undo", answer=undoing.Deed)
def undo(session: Session, change_id: int) -> undoing.Deed:
    """Undo a change with what was changed together with it."""
    return undoing.undo(session, change_id)
