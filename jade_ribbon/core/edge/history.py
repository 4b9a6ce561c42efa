"""A band's history replayed: edges, gum and bending, from its runs and events.

The counters a shop sees are always the result of this replay, so that undoing a run or
an event cannot leave them behind.
"""

import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime

from jade_ribbon.core.edge.feed_force import PushFact, slowed
from jade_ribbon.core.edge.sharpness import (
    DULL_SIGNS,
    LEFT_AFTER_SMOKE,
    EdgeRecord,
    Judged,
    Slowed,
    odds_of,
)
from jade_ribbon.core.edge.signs import BAND_LOOKED_AT
from jade_ribbon.core.mechanics.wear import fouling_added

ENDS_LIFE = ("sharpened", "scrapped")
WORN = "dull"
EARLY = "early"
"""Sharpened before it was dull, or nobody said that it was: still good at that length."""
JUDGED_DULL = 0.7
LATE_RUNS = 3
"""Signs of so many last runs of an edge are heard."""
DEFECT_KINDS = ("crack", "kink", "weld_stepped", "teeth_lost")
"""Defects of a band that keep it off the saw."""
MENDABLE = ("kink", "weld_stepped")
"""What a hand can put right; a crack is scrap, and teeth do not grow again."""
SCRAP_REASONS = ("worn", "crack", "kink", "nail", "teeth", "other")


LOOKED_AT = ("hit", "looked_at", "mended", "inspected", *DEFECT_KINDS)
"""A hit asks for a look; any of the others is one."""


@dataclass(frozen=True)
class RunFact:
    """What a run did to its band. Metres of contact; shares 0..1."""

    at: datetime
    contact_m: float
    equivalent_m: float
    fouling_gain: float
    bending_share: float
    signs: tuple[str, ...] = ()
    counts: bool = True
    """False for an entry that waits to be confirmed: it moves no wear."""
    teeth_lost: int = 0
    """Teeth gone after a strike: it is off the saw, confirmed or not."""
    strikes: int = 0
    """Metal struck: it asks for the same look as a hit that was noted."""
    push: PushFact | None = None
    """How fast the same push fed it, where a hand pushed."""


@dataclass(frozen=True)
class EventFact:
    """Something else that happened.

    `value` is metres for a judged edge (`said` its dullness, 0..2), how dull it was (0..2) when
    sharpened, teeth for teeth lost, which of the lives (from 0) when one is confirmed; `detail` of
    a mending names the defect, or is empty for all; `push` is of a weighed cut.
    """

    at: datetime
    kind: str
    detail: str = ""
    value: float | None = None
    said: float | None = None
    push: PushFact | None = None


@dataclass(frozen=True)
class EdgeLife:
    """One life of the edge; `ending` None while it runs, 'dull' when worn, else a cause.

    `confirmed_m` is what somebody said was true of it: an edge still good, a life that was so.
    """

    number: int
    equivalent_m: float
    ending: str | None
    confirmed_m: float = 0.0


@dataclass(frozen=True)
class BandHistory:
    """Where a band stands after all its runs and events."""

    sharpenings: int = 0
    edge_equivalent_m: float = 0.0
    edge_contact_m: float = 0.0
    total_contact_m: float = 0.0
    fouling: float = 0.0
    bending_share: float = 0.0
    runs: int = 0
    last_run_at: datetime | None = None
    scrapped: bool = False
    out: bool = False
    late_signs: tuple[tuple[str, ...], ...] = ()
    left_factor: float = 1.0
    defects: tuple[str, ...] = ()
    teeth_lost: int = 0
    look_first: bool = False
    """Hit or come off, and nobody has looked at it since."""
    confirmed_m: float = 0.0
    judged: Judged | None = None
    fed: Slowed | None = None
    weighed: Slowed | None = None
    ended: tuple[EdgeLife, ...] = field(default=())

    @property
    def edge(self) -> EdgeRecord:
        """What the record of its edge holds."""
        return EdgeRecord(
            metres=self.edge_equivalent_m,
            odds=self.sign_odds,
            left_factor=self.left_factor,
            judged=self.judged,
            fed=self.fed,
            weighed=self.weighed,
        )

    @property
    def sign_odds(self) -> float:
        """What the signs of the last runs do to the odds that the edge is dull."""
        return math.prod(odds_of(s) for s in self.late_signs)

    @property
    def lives(self) -> tuple[EdgeLife, ...]:
        """All lives, the running one last."""
        if self.scrapped:
            return self.ended
        now = EdgeLife(self.sharpenings, self.edge_equivalent_m, None, self.confirmed_m)
        return (*self.ended, now)


def after_run(state: BandHistory, run: RunFact) -> BandHistory:
    """The band after a run."""
    if run.teeth_lost:
        hurt = EventFact(run.at, "teeth_lost", value=run.teeth_lost)
        state = _damaged(state, hurt)
    if run.strikes or set(BAND_LOOKED_AT) & set(run.signs):
        state = replace(state, look_first=True)
    if not run.counts:
        return replace(state, runs=state.runs + 1, last_run_at=run.at)
    smoked = LEFT_AFTER_SMOKE if "smoke" in run.signs else 1.0
    judged = state.judged
    return replace(
        state,
        edge_equivalent_m=state.edge_equivalent_m + run.equivalent_m,
        edge_contact_m=state.edge_contact_m + run.contact_m,
        total_contact_m=state.total_contact_m + run.contact_m,
        fouling=fouling_added(state.fouling, run.fouling_gain),
        bending_share=state.bending_share + run.bending_share,
        runs=state.runs + 1,
        last_run_at=run.at,
        late_signs=(*state.late_signs, run.signs)[-LATE_RUNS:],
        left_factor=state.left_factor * smoked,
        judged=None if judged is None else replace(judged, since=judged.since + 1),
    )


def _end_life(state: BandHistory, ending: str) -> BandHistory:
    life = EdgeLife(state.sharpenings, state.edge_equivalent_m, ending, state.confirmed_m)
    return replace(
        state,
        ended=(*state.ended, life),
        edge_equivalent_m=0.0,
        edge_contact_m=0.0,
        confirmed_m=0.0,
        late_signs=(),
        left_factor=1.0,
        judged=None,
    )


def _was_dull(state: BandHistory, event: EventFact) -> bool:
    """Whether an edge was dull when sharpened, by evidence other than its metres."""
    if event.value is not None:
        return event.value >= JUDGED_DULL
    if state.judged is not None and state.judged.dullness >= JUDGED_DULL:
        return True
    return any(DULL_SIGNS & set(signs) for signs in state.late_signs)


def _mended(defects: tuple[str, ...], named: str) -> tuple[str, ...]:
    """Defects left after a mending: of the one it names, or of all that can be mended."""
    gone = MENDABLE if named not in DEFECT_KINDS else (named,)
    return tuple(d for d in defects if d not in MENDABLE or d not in gone)


def _damaged(state: BandHistory, event: EventFact) -> BandHistory:
    """The band with one more defect, or without those mended."""
    if event.kind == "mended":
        return replace(state, defects=_mended(state.defects, event.detail))
    lost = int(event.value or 1) if event.kind == "teeth_lost" else 0
    defects = (*state.defects, event.kind)
    return replace(state, defects=defects, teeth_lost=state.teeth_lost + lost)


def _confirmed(state: BandHistory, event: EventFact) -> BandHistory:
    """What somebody says of a life that was asked about."""
    if event.kind == "still_good":
        return replace(state, confirmed_m=state.edge_equivalent_m)
    ended = tuple(
        replace(life, confirmed_m=life.equivalent_m) if n == event.value else life
        for n, life in enumerate(state.ended)
    )
    return replace(state, ended=ended)


STILL_GOOD_UNDER = 0.9
"""An edge judged less dull than this was good at its metres."""


def _judged(state: BandHistory, event: EventFact, metres: float) -> BandHistory:
    """The band after somebody looked at its edge.

    Metres stay what was run: a life is as long as it was, whatever was thought of it. Only an
    edge that came in with none on record is taken to have as many as it looks.
    """
    clean = replace(state, late_signs=(), left_factor=1.0)
    if state.edge_contact_m == 0.0:
        clean = replace(clean, edge_equivalent_m=metres, confirmed_m=0.0)
    if event.said is None:
        return clean
    good = event.said < STILL_GOOD_UNDER and state.edge_contact_m > 0.0
    return replace(
        clean,
        judged=Judged(event.said, clean.edge_equivalent_m),
        confirmed_m=clean.edge_equivalent_m if good else clean.confirmed_m,
    )


def after_event(state: BandHistory, event: EventFact) -> BandHistory:
    """The band after something other than a run."""
    if event.kind == "sharpened":
        ended = _end_life(state, WORN if _was_dull(state, event) else EARLY)
        return replace(ended, sharpenings=state.sharpenings + 1, fouling=0.0, out=False)
    if event.kind == "cleaned":
        return replace(state, fouling=0.0)
    if event.kind == "edge_judged" and event.value is not None:
        return _judged(state, event, event.value)
    if event.kind in LOOKED_AT:
        state = replace(state, look_first=event.kind == "hit")
    if event.kind in (*DEFECT_KINDS, "mended"):
        return _damaged(state, event)
    if event.kind in ("still_good", "life_confirmed"):
        return _confirmed(state, event)
    if event.kind == "face_read" and state.late_signs:
        *before, last = state.late_signs
        return replace(state, late_signs=(*before, (*last, event.detail)))
    if event.kind in ("sent_out", "returned"):
        return replace(state, out=event.kind == "sent_out")
    if event.kind == "scrapped":
        cause = WORN if event.detail == "worn" else event.detail or "other"
        return replace(_end_life(state, cause), scrapped=True)
    return state


def _after_each(
    runs: Iterable[RunFact], events: Iterable[EventFact]
) -> Iterator[tuple[RunFact | EventFact, BandHistory]]:
    """Everything in order of time; at the same moment events come before runs."""
    items: Sequence[RunFact | EventFact] = sorted(
        (*events, *runs), key=lambda item: (item.at, isinstance(item, RunFact))
    )
    state = BandHistory()
    for item in items:
        state = after_run(state, item) if isinstance(item, RunFact) else after_event(state, item)
        yield item, state


@dataclass(frozen=True)
class RunMark:
    """Where a run stands on its band: on which edge (from 0), its metres before and after."""

    edge_number: int
    before_m: float
    after_m: float


@dataclass(frozen=True)
class Replay:
    """A band after everything, and where each run stood, in order of time."""

    history: BandHistory
    marks: tuple[RunMark, ...]


def replayed(runs: Iterable[RunFact], events: Iterable[EventFact]) -> Replay:
    """Where a band stands after everything that happened to it, and each of its runs."""
    state = BandHistory()
    marks: list[RunMark] = []
    fed: list[tuple[float, PushFact]] = []
    weighed: list[tuple[float, PushFact]] = []
    for item, after in _after_each(runs, events):
        if isinstance(item, RunFact):
            before = state.edge_equivalent_m
            marks.append(RunMark(state.sharpenings, before, after.edge_equivalent_m))
            if item.push is not None and item.counts:
                fed.append(((before + after.edge_equivalent_m) / 2.0, item.push))
        elif item.kind in ENDS_LIFE or item.kind == "edge_judged":
            fed, weighed = [], []
        elif item.push is not None:
            weighed.append((state.edge_equivalent_m, item.push))
        state = after
    told = replace(state, fed=slowed(fed), weighed=slowed(weighed))
    return Replay(told, tuple(marks))


def replay(runs: Iterable[RunFact], events: Iterable[EventFact]) -> BandHistory:
    """Where a band stands after everything that happened to it."""
    return replayed(runs, events).history
