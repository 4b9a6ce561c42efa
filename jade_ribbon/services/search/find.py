"""Find anything by what was typed: best first, slips of the keys forgiven."""

from dataclasses import dataclass
from typing import Annotated

from pydantic import Field
from sqlalchemy.orm import Session

from jade_ribbon.services.search.help_index import known_index
from jade_ribbon.services.search.records import records_of

MOST = 20


@dataclass(frozen=True)
class Hit:
    """One thing found; where it lives, if it is no record with an address by its noun."""

    noun: str
    key: str
    title: str
    detail: str
    place: str


Typed = Annotated[str, Field(max_length=100)]


def search(session: Session, q: Typed = "") -> list[Hit]:
    """The best matches for what was typed, best first."""
    if not q.strip():
        return []
    found = [*records_of(session).index(session).find(q), *known_index().find(q)]
    ranked = sorted(found, key=lambda f: -f[0])[:MOST]
    return [Hit(e.noun, e.key, e.title, e.detail, e.place) for _, e in ranked]
