"""The trouble book: what came of troubles, what came back, and what to mind before a job."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from jade_ribbon.reference.faults import causes

CAME_BACK = timedelta(days=90)
"""The same cause on the same saw within so long came back."""
MINDED = timedelta(days=730)


@dataclass(frozen=True)
class BookEntry:
    """A trouble as the book counts it: minutes, money, and its true causes ('' not found)."""

    id: int
    saw_id: int
    band_id: int | None
    opened_at: datetime
    causes: tuple[str, ...]
    minutes: float
    money: float
    operation: str = ""
    material: str = ""


@dataclass(frozen=True)
class CauseSum:
    """What a cause came to: how often, minutes, money, and how often it came back."""

    cause: str
    name: str
    times: int
    minutes: float
    money: float
    came_back: int


def came_back(entries: Sequence[BookEntry]) -> dict[int, int]:
    """For each trouble whose cause stood before on that saw (a band's cause: with that band)
    within 90 days: the trouble that it came back from.
    """
    found: dict[int, int] = {}
    last: dict[tuple[int, str, int | None], tuple[int, BookEntry]] = {}
    for place, entry in enumerate(sorted(entries, key=lambda e: e.opened_at)):
        keys = [(entry.saw_id, c, _with(entry, c)) for c in entry.causes]
        before = max((last[k] for k in keys if k in last), default=None, key=lambda x: x[0])
        if before is not None and entry.opened_at - before[1].opened_at <= CAME_BACK:
            found[entry.id] = before[1].id
        last |= dict.fromkeys(keys, (place, entry))
    return found


def _with(entry: BookEntry, cause: str) -> int | None:
    """The band that a cause goes with; None for one that is not a band's."""
    return entry.band_id if causes()[cause].where == "band" else None


def sums(entries: Sequence[BookEntry]) -> tuple[CauseSum, ...]:
    """What each cause came to, the most minutes first. Of two causes each has half of it."""
    back = came_back(entries)
    times: dict[str, list[BookEntry]] = {}
    for entry in entries:
        for cause in entry.causes:
            times.setdefault(cause, []).append(entry)
    found = [
        CauseSum(
            cause,
            causes()[cause].name,
            len(of),
            sum(e.minutes / len(e.causes) for e in of),
            sum(e.money / len(e.causes) for e in of),
            sum(e.id in back for e in of),
        )
        for cause, of in times.items()
    ]
    return tuple(sorted(found, key=lambda s: (-s.minutes, s.cause)))


def _times(count: int) -> str:
    return {1: "once", 2: "twice"}.get(count, f"{count} times")


def before_a_job(
    entries: Sequence[BookEntry], *, now: datetime, operation: str, material: str, said: str
) -> str:
    """What has gone wrong on this saw with such work, as one line; '' where nothing has.

    Such work: the same operation, or the same material. `said`: the work in words.
    """
    like = [
        e
        for e in entries
        if e.causes
        and now - e.opened_at <= MINDED
        and (e.operation == operation or e.material == material)
    ]
    if not like:
        return ""
    counted: dict[str, int] = {}
    for entry in like:
        for cause in entry.causes:
            counted[cause] = counted.get(cause, 0) + 1
    most = sorted(counted.items(), key=lambda c: (-c[1], c[0]))[:2]
    # Names have commas of their own.
    listed = "; ".join(f"{causes()[c].name.lower()} {_times(n)}" for c, n in most)
    more = f"; and {len(counted) - len(most)} more" if len(counted) > len(most) else ""
    return f"Gone wrong on this saw with {said}, in two years: {listed}{more}."
