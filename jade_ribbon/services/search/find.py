"""Find anything by what was typed: best first, slips of the keys forgiven."""

from dataclasses import dataclass

from sqlalchemy.orm import Session

from jade_ribbon.services.search.known import known_index
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


def search(session: Session, query: str) -> list[Hit]:
    """The best matches for what was typed, best first."""
    if not query.strip():
        return []
    found = [*records_of(session).index(session).find(query), *known_index().find(query)]
    ranked = sorted(found, key=lambda f: -f[0])[:MOST]
    return [Hit(e.noun, e.key, e.title, e.detail, e.place) for _, e in ranked]
