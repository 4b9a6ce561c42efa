"""What is wrong with a saw, until it is closed."""

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.store.models import DefectRow, SawRow

WHEELS_OUT = (
    "The wheels were out of plane when last read: true them; until then the band is pushed "
    "aside twice as far."
)


@dataclass(frozen=True)
class OpenDefect:
    """A defect as Plan and the card show it; one that stops keeps the saw from ready."""

    text: str
    stops: bool


def told_defects(session: Session, saw_id: int) -> list[OpenDefect]:
    """Open defects of a saw in words, oldest first."""
    told = [OpenDefect(row.text, row.stops) for row in open_defects(session, saw_id)]
    saw = session.get(SawRow, saw_id)
    return [*told, OpenDefect(WHEELS_OUT, False)] if saw is not None and saw.wheels_out else told


def open_defects(session: Session, saw_id: int) -> list[DefectRow]:
    """What is wrong with a saw and not closed, oldest first."""
    query = (
        select(DefectRow)
        .where(
            DefectRow.saw_id == saw_id,
            DefectRow.closed_at.is_(None),
            DefectRow.deleted_at.is_(None),
        )
        .order_by(DefectRow.id)
    )
    return list(session.scalars(query))
