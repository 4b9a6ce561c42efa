"""Truing wheels: readings and turns in, the coach's next turn out, the response remembered."""

import dataclasses
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.job import Saw
from jade_ribbon.core.quantities.words import Said, quantity, sentence
from jade_ribbon.core.setup.alignment import (
    ENDED,
    SHIM_RESPONSE,
    By,
    Move,
    Response,
    TurnAdvice,
    acts,
    advise,
    cap_words,
    move_words,
    same_fault,
)
from jade_ribbon.core.setup.tyres import TyreVerdict, tyre_verdict
from jade_ribbon.core.setup.wheel_places import (
    AXES,
    Axis,
    Place,
    Wheel,
    axis_words,
    check_wheel,
    place_of,
    wheels_of,
)
from jade_ribbon.core.setup.words import coplanar_limit_of
from jade_ribbon.services.clock import now
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.records import as_record, get, log_change, projected
from jade_ribbon.services.setup.inputs import AlignmentMove, AlignmentStart, TyreInput
from jade_ribbon.services.setup.roles import check_authorised, core_fittings
from jade_ribbon.services.shop.saws import core_saw
from jade_ribbon.services.shop.settings import read_shop
from jade_ribbon.store.models import AlignmentRow, BandRow, SawRow

SHOWN = 8
LEAST_SPREAD_MM = 0.1
"""A remembered response is trusted no closer: bolts are greased, shims change."""


@dataclass(frozen=True)
class AlignmentAnswer:
    """A truing as it stands."""

    id: int
    axis: Axis
    wheel: Wheel
    read: str
    bolt: str
    oclock: int | None
    start_mm: float
    moves: list[Move]
    acts: bool
    acts_words: Said
    advice: TurnAdvice
    turn_words: Said
    known_words: Said
    band_label: str | None
    who: str
    at: datetime
    finished_at: datetime | None
    second_band: str


def _earlier(session: Session, row: AlignmentRow) -> AlignmentRow | None:
    """The saw's last finished truing of the same wheel and axis."""
    return session.scalars(
        select(AlignmentRow)
        .where(
            AlignmentRow.saw_id == row.saw_id,
            AlignmentRow.axis == row.axis,
            AlignmentRow.wheel == row.wheel,
            AlignmentRow.id != row.id,
            AlignmentRow.response_mm.is_not(None),
            AlignmentRow.deleted_at.is_(None),
        )
        .order_by(AlignmentRow.id.desc())
    ).first()


def _known(session: Session, row: AlignmentRow) -> tuple[Response, Said]:
    if row.axis == "offset":
        return SHIM_RESPONSE, "A shim moves the wheel by its own thickness."
    before = _earlier(session, row)
    if before is None or before.response_mm is None:
        return Response(), "This saw's answer to a turn is not known yet: the first move finds it."
    spread = max(before.response_spread_mm or 0.0, LEAST_SPREAD_MM)
    answer = quantity(before.response_mm, "thin")
    return Response(before.response_mm, spread), sentence(
        "This saw answers a turn by ", answer, "."
    )


def _second_band(session: Session, row: AlignmentRow) -> str:
    """Whether another band showed the same fault: then it is the saw's."""
    others = session.execute(
        select(BandRow.label, AlignmentRow.start_mm)
        .join(AlignmentRow, AlignmentRow.band_id == BandRow.id)
        .where(
            AlignmentRow.saw_id == row.saw_id,
            AlignmentRow.axis == row.axis,
            AlignmentRow.wheel == row.wheel,
            AlignmentRow.band_id != row.band_id,
            AlignmentRow.id < row.id,
            AlignmentRow.finished_at.is_(None) | (AlignmentRow.state != "done"),
            AlignmentRow.deleted_at.is_(None),
        )
    )
    label = next((name for name, gap in others if same_fault(gap, row.start_mm)), None)
    if label is None:
        return "One band has shown it so far: a second band tells whether it is the saw's."
    return f"Band {label} showed the same: it is the saw's, not the band's."


def _place(saw: SawRow, axis: Axis, wheel: Wheel) -> Place:
    return place_of(
        axis=axis,
        wheel=wheel,
        saw=core_saw(saw),
        fittings=core_fittings(saw),
    )


def _answer(session: Session, row: AlignmentRow) -> AlignmentAnswer:
    saw_row: SawRow = get(session, "saw", row.saw_id)
    saw: Saw = core_saw(saw_row)
    known, words = _known(session, row)
    moves = [Move(**m) for m in row.moves]
    place = _place(saw_row, row.axis, row.wheel)
    does, why = acts(
        row.start_mm,
        limit_mm=coplanar_limit_of(saw),
        sits_on_both=row.sits_on_both,
        rule=read_shop(session).rules["coplanar"],
    )
    band = session.get(BandRow, row.band_id) if row.band_id else None
    by: By = "shim" if row.axis == "offset" else "bolt"
    advice = advise(
        start_mm=row.start_mm, moves=moves, known=known, by=by, leave="" if does else why
    )
    return AlignmentAnswer(
        id=row.id,
        axis=row.axis,
        wheel=row.wheel,
        read=_capital(place.read),
        bolt=_capital(place.bolt),
        oclock=place.oclock,
        start_mm=row.start_mm,
        moves=moves,
        acts=does,
        acts_words=why,
        advice=advice,
        turn_words=move_words(advice.turns, by),
        known_words=words,
        band_label=band.label if band else None,
        who=row.who,
        at=row.at,
        finished_at=row.finished_at,
        second_band=_second_band(session, row),
    )


def _capital(words: str) -> str:
    return words[:1].upper() + words[1:]


@dataclass(frozen=True)
class AxisChoice:
    """An axis as it is chosen: its key, and what the wheel does about it."""

    key: Axis
    name: str


@dataclass(frozen=True)
class CoachAnswer:
    """The coach of a saw: what there is to true, how, and the latest truings, newest first."""

    wheels: tuple[Wheel, ...]
    axes: list[AxisChoice]
    how: Said
    truings: list[AlignmentAnswer]


def alignment_coach(session: Session, saw_id: int) -> CoachAnswer:
    """What the coach of a saw opens with."""
    saw = core_saw(get(session, "saw", saw_id))
    axes = [AxisChoice(axis, axis_words(axis, saw)) for axis in AXES]
    return CoachAnswer(wheels_of(saw), axes, cap_words(), list_alignments(session, saw_id))


def list_alignments(session: Session, saw_id: int) -> list[AlignmentAnswer]:
    """The latest truings of a saw, newest first."""
    rows = session.scalars(
        select(AlignmentRow)
        .where(AlignmentRow.saw_id == saw_id, AlignmentRow.deleted_at.is_(None))
        .order_by(AlignmentRow.id.desc())
        .limit(SHOWN)
    )
    return [_answer(session, row) for row in rows]


def start_alignment(session: Session, saw_id: int, given: AlignmentStart) -> AlignmentAnswer:
    """Begin a truing from a gap read at working tension. ConflictError on a slack saw."""
    saw: SawRow = get(session, "saw", saw_id)
    check_authorised(session, "wheel_alignment", given.authorised_by)
    if saw.tension_state != "on":
        raise ConflictError(
            f"{saw.name} is slack: read the gap at working tension, with the band tracked."
        )
    check_wheel(given.wheel, core_saw(saw))
    plain = given.model_dump(exclude={"gap_mm", "authorised_by"})
    row = AlignmentRow(
        saw_id=saw_id,
        band_id=saw.mounted_band_id,
        start_mm=given.gap_mm,
        moves=[],
        state="turn",
        at=now(),
        **plain,
    )
    session.add(row)
    log_change(session, row, "add", None)
    return _keep(session, row)


def _keep(session: Session, row: AlignmentRow) -> AlignmentAnswer:
    answer = _answer(session, row)
    advice = answer.advice
    row.state = advice.state
    if row.moves and row.axis != "offset":
        row.response_mm = advice.response.mm_per_turn
        row.response_spread_mm = advice.response.spread_mm
    ended = advice.state in ENDED
    row.finished_at = now() if ended else None
    session.flush()
    return dataclasses.replace(answer, finished_at=row.finished_at)


def move_wheel(session: Session, alignment_id: int, given: AlignmentMove) -> AlignmentAnswer:
    """A turn made and the gap after it. ConflictError when the truing is finished."""
    row: AlignmentRow = get(session, "alignment", alignment_id)
    if row.finished_at is not None:
        raise ConflictError("This truing is finished: read the gap anew to begin another.")
    before = as_record(row)
    row.moves = [*row.moves, given.model_dump()]
    answer = _keep(session, row)
    log_change(session, row, "move", before)
    return answer


def undo_move(session: Session, alignment_id: int) -> AlignmentAnswer:
    """Take the last turn and reading back."""
    row: AlignmentRow = get(session, "alignment", alignment_id)
    if not row.moves:
        raise ConflictError("No turn has been recorded.")
    before = as_record(row)
    row.moves = row.moves[:-1]
    answer = _keep(session, row)
    log_change(session, row, "move", before)
    return answer


@projected("alignment")
def refresh_plane(session: Session, row: AlignmentRow) -> None:
    """A saw's wheels are out of plane while the last gap read of any wheel is over its limit."""
    session.flush()
    saw = session.get(SawRow, row.saw_id)
    if saw is None:
        return
    last = {
        (r.wheel, r.axis): r.moves[-1]["gap_mm"] if r.moves else r.start_mm
        for r in session.scalars(
            select(AlignmentRow)
            .where(AlignmentRow.saw_id == row.saw_id, AlignmentRow.deleted_at.is_(None))
            .order_by(AlignmentRow.id)
        )
    }
    limit = coplanar_limit_of(core_saw(saw))
    saw.wheels_out = any(abs(gap) > limit for gap in last.values())


def check_tyre(session: Session, saw_id: int, given: TyreInput) -> TyreVerdict:
    """What a straightedge across a tyre of this saw says."""
    row: SawRow = get(session, "saw", saw_id)
    return tyre_verdict(
        **given.model_dump(),
        width_mm=core_fittings(row).tyre_width_mm or row.band_width_max_mm,
        recorded=row.tyre,
    )
