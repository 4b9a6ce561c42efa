"""Copies of the shop's file as the shop sees them."""

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated

from pydantic import Field

from jade_ribbon.services.clock import begin, now
from jade_ribbon.services.errors import NotFoundError
from jade_ribbon.store.copies import AGED, DAYS, MONTHS, WEEKS, Copies, Copy


@dataclass(frozen=True)
class CopyLine:
    """One copy: when it was taken and why, and its size in bytes."""

    name: str
    at: datetime
    why: str
    size: int


@dataclass(frozen=True)
class CopiesAnswer:
    """All copies, newest first, where they lie, and what is wrong."""

    folder: str
    copies: list[CopyLine]
    newest_at: datetime | None
    warning: str
    keeping: str
    """How long they are kept, in words."""


@dataclass(frozen=True)
class Restored:
    """A copy was brought back; what was there before is in a copy too."""

    name: str
    before: str


KEEPING_WORDS = (
    f"One a day while the shop is served; kept for {DAYS} days, then one a week for {WEEKS} weeks "
    f"and one a month for {MONTHS} months."
)


def _line(copy: Copy) -> CopyLine:
    return CopyLine(copy.name, copy.at, copy.why, copy.size)


def list_copies(copies: Copies) -> CopiesAnswer:
    """The copies there are; a warning where the last failed or the newest is old."""
    found = copies.all()
    warning = ""
    if copies.failure:
        warning = f"The last copy could not be taken: {copies.failure}."
    elif not found:
        warning = "There is no copy yet."
    elif now() - found[0].at > AGED:
        warning = f"The newest copy is {(now() - found[0].at).days} days old."
    return CopiesAnswer(
        folder=str(copies.folder),
        copies=[_line(c) for c in found],
        newest_at=found[0].at if found else None,
        warning=warning,
        keeping=KEEPING_WORDS,
    )


def take_copy(copies: Copies) -> CopyLine:
    """Take a copy now."""
    return _line(copies.take(now(), "by-hand"))


CopyName = Annotated[str, Field(min_length=1, max_length=80)]


def restore_copy(copies: Copies, name: CopyName) -> Restored:
    """Bring a copy back over the live file; NotFoundError for a name that is none."""
    try:
        source = copies.path(name)
    except FileNotFoundError as problem:
        raise NotFoundError("copy", name) from problem
    kept = copies.restore(source, now())
    with copies.store.read() as session:
        begin(session)
    return Restored(name, kept.name)
