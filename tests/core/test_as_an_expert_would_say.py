"""Verdicts of the stations by cases of our own, each held to what an experienced hand would say."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest

from jade_ribbon.core.edge.chips import chips_say
from jade_ribbon.core.edge.sharpness import EdgeRecord, Judged, how_keen
from jade_ribbon.core.inspection.advice import SetFigures, advise_on
from jade_ribbon.core.inspection.face import read_face
from jade_ribbon.core.inspection.trend import taper_trend
from jade_ribbon.core.money.payback import payback
from jade_ribbon.core.money.prices import Priced, look_at_price
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import metric
from jade_ribbon.core.setup.drift_verdict import drift_verdict
from jade_ribbon.core.setup.drive_settings import counting_uncertainty, speed_verdict
from jade_ribbon.core.setup.shims import shims_for
from jade_ribbon.core.setup.tension.tension_reading import TensionBand, stands, tension_reading
from jade_ribbon.core.setup.tracking import track_advice
from jade_ribbon.core.setup.tyres import tyre_verdict
from jade_ribbon.core.setup.upkeep import Done, task_due
from jade_ribbon.core.stock.condition import Condition, readiness_of
from jade_ribbon.core.stock.opening import next_cut
from jade_ribbon.core.stock.worth import BilletSize, Money, PieceWanted, billet_worth
from jade_ribbon.reference.care import upkeep_tasks
from tests.support.faces import SAW

NOW = datetime(2026, 5, 4, tzinfo=UTC)
BAND = TensionBand(
    width_mm=19.0,
    body_width_mm=14.9,
    gullet_depth_mm=4.1,
    thickness_mm=0.8,
    band_length_mm=3380.0,
    free_span_mm=650.0,
    force_per_strand=2.0,
    wheel_force_max_N=3200.0,
    yield_MPa=1000.0,
)
SHARES = {"gauge": 0.05, "pluck": 0.05, "push": 0.2, "scale": 0.15}
TARGET: dict[str, Any] = {"target": 100.0, "low": 85.0, "high": 115.0, "shares": SHARES}
BILLET = BilletSize(50.0, 150.0, 1000.0, 6.0, 0.0, 1.0)
PIECE = PieceWanted(8.0, 150.0, 980.0, 3, 0.5, 1.4, 1.4, 0.0, 1.0)
MONEY = Money(None, 2000.0, 40.0)


def nine(mean: float, taper: float = 0.0, lean: float = 0.0, barrel: float = 0.0) -> list[Any]:
    """Nine readings of a board, to the hundredth."""
    return [
        [x, y, round(mean + taper * (x - 0.5) + lean / 2 * y + barrel * (1 / 3 - y * y), 2)]
        for x in (0.0, 0.5, 1.0)
        for y in (-1.0, 0.0, 1.0)
    ]


def inspected(readings: list[Any], **saw: Any) -> str:
    given = SetFigures(**{**SAW.__dict__, **saw})
    face = read_face(readings, tolerance_mm=given.tolerance_mm, asked_mm=given.asked_mm)
    advice = advise_on(face, given)
    return face.words if advice is None else f"{metric(advice.change)} {advice.cause}"


def trend(tapers: list[float]) -> str:
    found = taper_trend(tapers, [1000.0] * len(tapers))
    return "" if found is None else found.words


def read(means: Any, value: float, **more: Any) -> str:
    try:
        found = tension_reading(BAND, means=means, value=value, gauge_length_mm=200.0, **more)
    except InputError as error:
        return str(error)
    return metric(stands(found, **TARGET).words)


def opened(thickness: float, grew: float | None) -> str:
    found = next_cut(
        thickness_mm=thickness,
        bow_mm=2.0,
        slice_mm=6.0,
        kerf_mm=1.4,
        prepare_loss_mm=1.0,
        grew_mm=grew,
        rule="halves",
    )
    return f"{found.way}, {metric(found.words)}"


def ready(**noted: Any) -> str:
    usual = {"trued": "face_edge", "twist_mm": 0.0, "moisture_pct": 12.0, "moisture_days": 3.0}
    given: dict[str, Any] = {**usual, "suspect": "none", "mapped": 0, **noted}
    found = readiness_of(Condition(**given), "face_edge")
    return f"{found.verdict}: {' '.join(metric(w) for w in found.reasons)}"


def worth(rule: Any = "yield", **changed: Any) -> str:
    billet = BilletSize(**{**BILLET.__dict__, **{k: v for k, v in changed.items() if k != "count"}})
    piece = PieceWanted(**{**PIECE.__dict__, "count": changed.get("count", PIECE.count)})
    return metric(billet_worth(billet, piece, MONEY, rule=rule).words)


def drifted(offset: float, run: float) -> str:
    found = drift_verdict(offset_mm=offset, run_mm=run, fence_bolt_spacing_mm=300.0, method="fence")
    return f"{metric(found.words)} shift {found.fence_shift_mm}"


def tyre(front: float, middle: float, back: float) -> str:
    found = tyre_verdict(
        front_gap_mm=front,
        middle_gap_mm=middle,
        back_gap_mm=back,
        width_mm=30.0,
        recorded="crowned",
    )
    return f"{found.state}: {metric(found.words)}"


def due(key: str, last: Done | None, hours: float = 100.0) -> str:
    task = next(t for t in upkeep_tasks().values() if t.key == key)
    return task_due(task, last, hours_now=hours, now=NOW).due


def chips(kind: Any, feed: float, floor: float = 1.0, ceiling: float = 3.0) -> str:
    found = chips_say(kind, feed_m_min=feed, floor_m_min=floor, ceiling_m_min=ceiling, metal=False)
    return metric(found.words)


def tracked(position: float, creep: float) -> str:
    found = track_advice(position_mm=position, creep_mm=creep, turns=10.0, knob="clockwise_forward")
    return metric(found.words)


@dataclass(frozen=True)
class Case:
    what: str
    asked: Callable[[], str]
    says: str
    never: str = ""


BRAKE = next(t.key for t in upkeep_tasks().values() if t.stops)
CASES = (
    Case(
        "a face 0.8 thick: the fence moves by it", lambda: inspected(nine(6.8)), "fence in by 0.8"
    ),
    Case(
        "thin by 0.8, led at a point", lambda: inspected(nine(5.2), guided="point"), "point out by"
    ),
    Case(
        "14 mm where 6 is asked is another board", lambda: inspected(nine(14.0)), "a piece of this"
    ),
    Case(
        "four corners tell no barrel",
        lambda: inspected([[x, y, 6.0] for x in (0, 1) for y in (-1, 1)]),
        "not looked for",
        "change nothing",
    ),
    Case("nine good points", lambda: inspected(nine(6.0)), "change nothing"),
    Case(
        "taper turns the fence the way it thickens",
        lambda: inspected(nine(6.0, taper=1.0)),
        "away from the band",
    ),
    Case(
        "taper along a line has no fence",
        lambda: inspected(nine(6.0, taper=1.0), guided="line"),
        "no fence to turn",
        "minutes of arc",
    ),
    Case(
        "lean is table or fence face", lambda: inspected(nine(6.0, lean=1.2)), "square on the table"
    ),
    Case(
        "a barrel of four times the push's is not eased away",
        lambda: inspected(nine(6.0, barrel=2.0)),
        "not mend it",
        "Ease the feed",
    ),
    Case(
        "a barrel the push explains, keen, feed to spare",
        lambda: inspected(nine(6.0, barrel=0.6)),
        "Ease the feed",
    ),
    Case(
        "the same, already at the least feed, dull",
        lambda: inspected(nine(6.0, barrel=0.6), floor_m_min=1.9, dullness=0.8),
        "sharpen or change",
    ),
    Case(
        "no taper in four faces",
        lambda: trend([0.02, -0.02, 0.02, -0.02]),
        "No taper",
    ),
    Case("a scale's word for target", lambda: read("gauge", 97.0), "On target"),
    Case("a gauge a third over the target", lambda: read("gauge", 135.0), "Too tight"),
    Case(
        "a gauge at twice the target was misread",
        lambda: read("gauge", 190.0),
        "Read again",
        "Too tight",
    ),
    Case(
        "a push test is too rough for it",
        lambda: read("push", 20.0, deflection_mm=2.2),
        "Cannot tell",
    ),
    Case(
        "a push so far that it tightens the band itself",
        lambda: read("push", 50.0, deflection_mm=5.6),
        "push again",
    ),
    Case("a gauge turned back to nought", lambda: read("gauge", 0.0), "Read again", "On target"),
    Case(
        "a third of a turn a second off the wheel",
        lambda: tracked(2.0, 20.0),
        "Stop turning",
        "turn, then",
    ),
    Case("creeping home slowly", lambda: tracked(-3.0, 1.0), "wait"),
    Case("in place and still", lambda: tracked(0.3, 0.05), "go on"),
    Case("creeping back: forward", lambda: tracked(0.0, -2.0), "forward"),
    Case(
        "a drift read over too short a line", lambda: drifted(0.5, 60.0), "Cannot tell", "Far end"
    ),
    Case(
        "no drift over too short a line is not no drift",
        lambda: drifted(0.0, 60.0),
        "Cannot tell",
        "Too little",
    ),
    Case("a clear drift", lambda: drifted(5.0, 400.0), "Far end of the fence"),
    Case("three degrees are a fault", lambda: drifted(20.0, 400.0), "stop and look"),
    Case(
        "a crown of one side only",
        lambda: tyre(0.8, 0.0, 0.0),
        "slopes to one side",
        "holds a band",
    ),
    Case(
        "a crown of five on thirty",
        lambda: tyre(5.0, 0.0, 5.0),
        "read the three gaps again",
        "holds",
    ),
    Case("a hollow tyre", lambda: tyre(0.0, 0.5, 0.0), "Dress or replace"),
    Case(
        "seven and a half turns in six seconds cannot correct 4 %",
        lambda: metric(
            speed_verdict(15.08, nominal_m_s=14.5, share=counting_uncertainty(7.5, 6.0))
        ),
        "the record is right",
    ),
    Case("a brake never tested", lambda: due(BRAKE, None), "due"),
    Case(
        "found wrong is never later",
        lambda: due(BRAKE, Done(NOW - timedelta(days=1), 99.0, False)),
        "wrong",
    ),
    Case(
        "an hour meter put back does not hide the days",
        lambda: due(BRAKE, Done(NOW - timedelta(days=4000), 900.0, True)),
        "due",
    ),
    Case("dust at a slow feed", lambda: chips("dust", 0.5), "feed faster"),
    Case(
        "dust where the window is shut",
        lambda: chips("dust", 0.5, floor=3.0, ceiling=1.0),
        "coarser",
        "feed faster",
    ),
    Case("dust at a good feed is the edge", lambda: chips("dust", 2.0), "dull"),
    Case("thick chips at a crawl", lambda: chips("flakes", 0.5), "outside its window"),
    Case(
        "a stick still moving, too thin to halve",
        lambda: opened(18.0, 2.5),
        "slice, It still moves",
        "halve it",
    ),
    Case("one still moving, thick", lambda: opened(60.0, 2.5), "halve"),
    Case("one that lay still", lambda: opened(60.0, 0.2), "settled"),
    Case("no moisture read", lambda: ready(moisture_pct=None), "cannot_tell"),
    Case("4 % is over-dry", lambda: ready(moisture_pct=4.0), "cannot_tell: At 4 %"),
    Case("30 % shrinks", lambda: ready(moisture_pct=30.0), "not_ready"),
    Case("nails suspected, none mapped", lambda: ready(suspect="nails"), "not_ready"),
    Case("nails mapped", lambda: ready(suspect="nails", mapped=3), "ready: 3 marks"),
    Case("four-square, yet bowed", lambda: ready(trued="four", bow_mm=4.0), "cannot_tell"),
    Case("all dry, true and clean", lambda: ready(), "ready:"),
    Case(
        "three are enough either way: flat faces",
        lambda: worth(count=3),
        "True it first",
        "along its curve:",
    ),
    Case(
        "more are wanted: the curve gives one more",
        lambda: worth(count=9, thickness_mm=53.0),
        "Saw it along its curve: 5 pieces",
    ),
    Case("not high enough", lambda: worth(height_mm=100.0), "not high enough"),
    Case(
        "a band priced as ever",
        lambda: look_at_price(Priced(4.0, 4.0), [Priced(4.0, 4.0)] * 3).words,
        "About what you pay",
    ),
    Case(
        "one price paid is no measure",
        lambda: look_at_price(Priced(9.0, 9.0), [Priced(4.0, 4.0)]).words,
        "Nothing to hold it",
    ),
    Case(
        "a slip of ten in shims",
        lambda: metric(shims_for(gap_mm=9.0, stack_mm=0.5).words),
        "thicker",
    ),
)


@pytest.mark.parametrize("case", CASES, ids=[c.what for c in CASES])
def test_the_verdict_is_an_experienced_hand_s(case: Case) -> None:
    said = case.asked()
    assert case.says in said
    assert not case.never or case.never not in said


def test_an_edge_just_judged_done_is_not_called_keen_by_few_metres() -> None:
    """Looked at and called done, at a tenth of its metres: a dull edge by any later answer."""
    judged = EdgeRecord(metres=100.0, judged=Judged(1.0, 90.0, since=2))
    found = how_keen(judged, life_m=1000.0, retired=5)
    assert found.chance_past(0.6) > 0.9
    assert how_keen(EdgeRecord(metres=100.0), life_m=1000.0, retired=5).chance_past(0.6) < 0.1


def test_what_saves_nothing_never_pays() -> None:
    assert payback(price=300.0, saved_per_year=0.0, costs_per_year=0.0).verdict == "never"
