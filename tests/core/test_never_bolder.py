"""Across the stations: a worse reading makes no verdict bolder, no advice what it mends worse."""

import dataclasses

from hypothesis import assume, given
from hypothesis import strategies as st

from jade_ribbon.core.inspection.advice import advise_on, eased_feed_m_min
from jade_ribbon.core.inspection.face import Face, read_face, verdict_of
from jade_ribbon.core.mechanics.slicing import slicing
from jade_ribbon.core.quantities.chances import chance_percent, chance_words
from jade_ribbon.core.setup.drift_verdict import drift_verdict
from jade_ribbon.core.setup.tension.tension_reading import TensionReading, stands
from jade_ribbon.core.setup.tracking import SETTLES_TURNS, track_advice
from jade_ribbon.core.stock.condition import Condition, readiness_of
from tests.support.faces import SAW as SET

BOLD = {"within": 2, "over": 2, "cannot_tell": 0}
READY = {"ready": 2, "cannot_tell": 1, "not_ready": 0}
SAW = dataclasses.replace(SET, push_barrel_mm=0.5, asked_mm=None, guided="")


@given(st.floats(-2, 2), st.floats(0, 0.5), st.floats(0, 0.5), st.floats(0.1, 1.0))
def test_a_part_less_surely_read_is_told_no_more_boldly(
    amount: float, se: float, more: float, tolerance: float
) -> None:
    sure, unsure = (verdict_of(amount, s, tolerance) for s in (se, se + more))
    assert BOLD[unsure] <= BOLD[sure]
    assert not (sure == "over" and unsure == "within")


@given(st.floats(0, 0.4), st.floats(0, 0.3), st.floats(0.1, 1.0))
def test_a_part_farther_off_is_never_rather_within(
    amount: float, more: float, tolerance: float
) -> None:
    if verdict_of(amount + more, 0.05, tolerance) == "within":
        assert verdict_of(amount, 0.05, tolerance) == "within"


@given(st.floats(60, 200), st.floats(1, 15), st.floats(0, 20))
def test_a_rougher_means_never_makes_a_tension_right(
    stress: float, spread: float, more: float
) -> None:
    fine = TensionReading("gauge", stress, spread, 1000.0, None, ())
    rough = dataclasses.replace(fine, uncertainty_MPa=spread + more)
    told = [
        stands(r, target=120.0, low=100.0, high=140.0, shares={}).verdict for r in (fine, rough)
    ]
    assert told[1] in (told[0], "cannot_tell")


@given(st.floats(-30, 30), st.floats(60, 1500), st.floats(0.1, 1.0))
def test_a_shorter_line_never_sets_a_fence_that_a_longer_would_not(
    offset: float, run: float, share: float
) -> None:
    def found(length: float) -> float | None:
        angle_as = offset * length / run
        return drift_verdict(
            offset_mm=angle_as, run_mm=length, fence_bolt_spacing_mm=300.0, method="fence"
        ).fence_shift_mm

    assume(run * share >= 20.0)
    if found(run) is None:
        assert found(run * share) is None


@given(
    st.sampled_from(("none", "face", "face_edge", "four")),
    st.floats(0, 30),
    st.one_of(st.none(), st.floats(5, 60)),
    st.floats(0, 400),
    st.sampled_from(("none", "nails", "paint", "grit")),
)
def test_more_wrong_with_stock_never_makes_it_readier(
    trued: str, twist: float, moisture: float | None, days: float, suspect: str
) -> None:
    as_noted = Condition(trued, twist, moisture, days, suspect, 0)  # type: ignore[arg-type]
    best = Condition("face_edge", 0.0, 12.0, 1.0, "none", 0)
    worse = dataclasses.replace(as_noted, twist_mm=twist + 10.0)
    unread = dataclasses.replace(as_noted, moisture_pct=None)
    told = readiness_of(as_noted, "face_edge").verdict
    assert READY[told] <= READY[readiness_of(best, "face_edge").verdict]
    assert READY[readiness_of(worse, "face_edge").verdict] <= READY[told]
    if moisture is not None and moisture < 28.0:
        assert readiness_of(unread, "face_edge").verdict != "ready"


def board(barrel: float) -> Face:
    readings = [
        [x, y, 6.0 + barrel * (1 / 3 - y * y)] for x in (0.0, 0.5, 1.0) for y in (-1.0, 0.0, 1.0)
    ]
    return read_face(readings, tolerance_mm=SAW.tolerance_mm)


@given(st.floats(0.6, 1.9), st.floats(0.3, 3.0), st.floats(0.2, 0.45))
def test_the_feed_that_is_advised_brings_a_barrel_within(
    barrel: float, feed: float, m: float
) -> None:
    """A barrel goes as feed^(1 - m): at the eased feed it is within, and never faster than now."""
    given_ = dataclasses.replace(SAW, feed_m_min=feed, size_exponent_m=m)
    eased = eased_feed_m_min(barrel, given_)
    assert eased <= feed
    assert barrel * (eased / feed) ** (1.0 - m) <= SAW.tolerance_mm + 1e-9
    advice = advise_on(board(barrel), given_)
    if advice is not None and advice.feed_m_min is not None:
        assert SAW.floor_m_min <= advice.feed_m_min <= feed


@given(st.floats(-12, 12), st.floats(-9, 9), st.floats(5, 40))
def test_the_knob_is_never_turned_the_way_it_creeps(
    position: float, creep: float, turns: float
) -> None:
    found = track_advice(
        position_mm=position, creep_mm=creep, turns=turns, knob="clockwise_forward"
    )
    if found.direction:
        heading = position + SETTLES_TURNS * creep / turns
        assert (found.direction == "clockwise") == (heading < 0)


@given(st.floats(0, 1), st.floats(0, 1))
def test_a_greater_chance_is_never_said_as_a_smaller_one(a: float, b: float) -> None:
    low, high = sorted((a, b))
    order = (
        "hardly ever",
        "1 in 10",
        "1 in 4",
        "1 in 3",
        "even chance",
        "2 in 3",
        "3 in 4",
        "9 in 10",
    )
    place = [
        next((i for i, w in enumerate(order) if w in chance_words(p)), len(order))
        for p in (low, high)
    ]
    assert place[0] <= place[1]
    assert chance_percent(high) not in ("100 %", "0 %")


@given(st.floats(20, 200), st.floats(1, 20), st.floats(0.5, 3), st.floats(0.1, 2))
def test_a_wider_kerf_never_gives_more_slices(
    billet: float, piece: float, kerf: float, more: float
) -> None:
    def slices(width: float) -> int:
        return slicing(
            billet_mm=billet,
            slice_mm=piece,
            kerf_mm=width,
            clean_up_per_face_mm=0.0,
            prepare_loss_mm=0.0,
        ).slices

    assume(piece + kerf + more < billet)
    assert slices(kerf + more) <= slices(kerf)
