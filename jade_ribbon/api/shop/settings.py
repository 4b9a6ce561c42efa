"""Settings, reference tables, search, history and undo."""

from dataclasses import dataclass
from typing import Annotated

from pydantic import BaseModel, Field
from sqlalchemy.orm import Session

from jade_ribbon.api.operations import operation
from jade_ribbon.core.quantities.plausible import meant
from jade_ribbon.formats.validation import Strict
from jade_ribbon.services import search as finding
from jade_ribbon.services import undo as undoing
from jade_ribbon.services.shop import reference as tables
from jade_ribbon.services.shop import settings as settings
from jade_ribbon.services.shop.inputs import ShopInput


class SearchQuery(BaseModel):
    """What was typed."""

    q: Annotated[str, Field(max_length=100)] = ""


class HistoryQuery(BaseModel):
    """Whose history."""

    noun: Annotated[str, Field(max_length=20)]
    noun_id: Annotated[int, Field(ge=1, le=2**53)]


@operation("GET", "/api/shop", answer=settings.Shop)
def read_shop(session: Session) -> settings.Shop:
    """The shop's settings."""
    return settings.read_shop(session)


@operation("PUT", "/api/shop", answer=settings.Shop, body=ShopInput)
def write_shop(session: Session, body: ShopInput) -> settings.Shop:
    """Save the shop's settings."""
    return settings.write_shop(session, body)


@operation("GET", "/api/reference", answer=tables.Reference)
def reference(session: Session) -> tables.Reference:
    """Materials, steels, tooth forms, house rules and words."""
    return tables.reference(session)


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


@operation("GET", "/api/changes", answer=list[undoing.Change], query=HistoryQuery)
def history(session: Session, query: HistoryQuery) -> list[undoing.Change]:
    """The history of a record, newest first."""
    return undoing.history(session, query.noun, query.noun_id)


@operation("POST", "/api/changes/<int:change_id>/undo", answer=undoing.Change)
def undo(session: Session, change_id: int) -> undoing.Change:
    """Undo a change."""
    return undoing.undo(session, change_id)
