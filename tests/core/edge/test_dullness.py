"""Four kinds of evidence on one scale: by hand, in their limits, and never bolder than they are."""

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.edge.abrasion import LIFE_SD_LN, PRIOR_SD_LN, learned_abrasion
from jade_ribbon.core.edge.dullness import dullness_combined, dullness_from_feed
from jade_ribbon.core.edge.feed_force import PushFact, slowed
from jade_ribbon.core.edge.history import RunFact, replay
from jade_ribbon.core.edge.sharpness import (
    SIGN_ODDS,
    EdgeRecord,
    Judged,
    Slowed,
    how_keen,
    moved_by_signs,
)
from jade_ribbon.core.mechanics.life import metres_sd
from tests.support.histories import run

OAK = {"m": 0.35, "dull_energy_gain": 0.5, "feed_ratio_sharp": 0.35, "feed_ratio_dull": 0.95}
dull = st.floats(0, 1.5)


def fed(growth: float, *, pairs: int = 3, from_m: float = 0.0, at_m: float = 0.0) -> Slowed:
    return Slowed(growth, from_m, at_m, pairs, 0.5, 0.35, 0.95)


@given(dull, st.floats(0.05, 20), st.floats(0, 0.9))
def test_the_feed_that_a_dullness_gives_tells_that_dullness(
    d: float, feed: float, m: float
) -> None:
    """There and back: the feed at the same push falls as f(d)^(-1/(1 - m))."""
    here = {**OAK, "m": m}

    def push(x: float) -> float:
        return (1 + 0.5 * x) * (0.35 + 0.6 * x)

    now = feed * (push(0.0) / push(d)) ** (1 / (1 - m))
    if now <= 0.0:
        return
    found = dullness_from_feed(
        feed_keen_m_min=feed, dullness_keen=0.0, feed_now_m_min=now, **here
    ).dullness
    assert found == pytest.approx(d, abs=1e-6)


def test_a_feed_by_hand_and_in_its_limits() -> None:
    """f(1) = 1.5 x 0.95 = 1.425 of 0.35: at m = 0 the feed falls to 0.2456 of what it was."""
    told = dullness_from_feed(
        feed_keen_m_min=1.0, dullness_keen=0.0, feed_now_m_min=0.35 / 1.425, **{**OAK, "m": 0.0}
    )
    assert told.dullness == pytest.approx(1.0)
    faster = dullness_from_feed(feed_keen_m_min=1.0, dullness_keen=0.0, feed_now_m_min=1.5, **OAK)
    assert faster.dullness == 0.0
    stuck = dullness_from_feed(feed_keen_m_min=1.0, dullness_keen=0.0, feed_now_m_min=0.01, **OAK)
    assert stuck.dullness is None


@given(dull, st.floats(0.01, 1), dull, st.floats(0.01, 1))
def test_two_tellings_lie_between_and_are_surer_than_either(
    a: float, sd_a: float, b: float, sd_b: float
) -> None:
    both = dullness_combined(from_metres=a, from_metres_sd=sd_a, from_feed=b, from_feed_sd=sd_b)
    assert min(a, b) - 1e-12 <= both.dullness <= max(a, b) + 1e-12
    assert both.sd < min(sd_a, sd_b)


records = st.builds(
    EdgeRecord,
    metres=st.floats(0, 15_000),
    odds=st.floats(0.3, 50),
    left_factor=st.sampled_from([1.0, 0.5, 0.25]),
    judged=st.none() | st.builds(Judged, st.floats(0, 2), st.floats(0, 5000), st.integers(1, 9)),
    fed=st.none() | st.builds(fed, st.floats(0.3, 4), pairs=st.integers(1, 3)),
    weighed=st.none() | st.builds(fed, st.floats(0.3, 4)),
)


@given(records, st.sampled_from(sorted(SIGN_ODDS)), st.integers(0, 30))
def test_a_sign_never_makes_an_edge_keener(record: EdgeRecord, sign: str, retired: int) -> None:
    before = how_keen(record, life_m=8000, retired=retired)
    after = how_keen(
        replace(record, odds=record.odds * SIGN_ODDS[sign]), life_m=8000, retired=retired
    )
    assert after.dullness >= before.dullness - 1e-9
    smoked = replace(record, left_factor=record.left_factor * 0.5)
    assert how_keen(smoked, life_m=8000, retired=retired).dullness >= before.dullness - 1e-9


@given(records)
def test_what_is_taken_is_told_step_by_step(record: EdgeRecord) -> None:
    keen = how_keen(record, life_m=8000, retired=4)
    assert keen.evidence[-1].taken == pytest.approx(keen.dullness) or keen.dullness == 0.0
    assert math.isfinite(keen.sd) and keen.sd > 0.0
    for one in keen.evidence:
        assert one.counted or one.why


def test_a_judgement_wins_until_the_next_run_and_is_weighed_with_the_metres_after_it() -> None:
    said = EdgeRecord(metres=6000, judged=Judged(0.2, 6000), fed=fed(3.0), odds=24.0)
    assert how_keen(said, life_m=8000, retired=5).dullness == 0.2
    since = replace(said, metres=6800, judged=Judged(0.2, 6000, since=1), fed=None, odds=1.0)
    sd = math.hypot(0.15, metres_sd(0.1, retired=5))
    both = dullness_combined(
        from_metres=0.85, from_metres_sd=metres_sd(0.85, retired=5), from_feed=0.3, from_feed_sd=sd
    )
    found = how_keen(since, life_m=8000, retired=5)
    assert found.dullness == pytest.approx(both.dullness)
    assert found.sd == pytest.approx(both.sd)
    assert 0.3 < found.dullness < 0.85


def test_a_direct_test_far_off_its_metres_stands_alone_and_asks_what_happened() -> None:
    """Nearly new by its metres, and three times slower by the weight: it is not keen."""
    hurt = EdgeRecord(metres=400, weighed=fed(1.9))
    found = how_keen(hurt, life_m=8000, retired=9)
    alone = found.evidence[-1]
    assert alone.says is not None and found.dullness == alone.says > 0.4
    assert "what happened?" in alone.why
    later = how_keen(replace(hurt, metres=1200), life_m=8000, retired=9)
    assert later.dullness == pytest.approx(found.dullness + 0.1)
    near = how_keen(EdgeRecord(metres=400, weighed=fed(1.2)), life_m=8000, retired=9)
    assert not near.evidence[-1].why and 0.05 < near.dullness < (near.evidence[-1].says or 0.0)


def test_one_faster_cut_is_no_proof_of_a_keen_edge() -> None:
    worn = EdgeRecord(metres=6000)
    plain = how_keen(worn, life_m=8000, retired=5).dullness
    once = how_keen(replace(worn, fed=fed(0.9, pairs=1, at_m=6000)), life_m=8000, retired=5)
    assert once.dullness == plain and not once.evidence[-1].counted
    often = how_keen(replace(worn, fed=fed(0.9, pairs=2, at_m=6000)), life_m=8000, retired=5)
    assert often.dullness < plain
    slower = how_keen(
        replace(EdgeRecord(metres=800), fed=fed(2.5, pairs=1)), life_m=8000, retired=5
    )
    assert slower.dullness > 0.14


def test_what_no_wear_explains_stands_aside() -> None:
    found = how_keen(EdgeRecord(metres=800, weighed=fed(9.0)), life_m=8000, retired=5)
    assert found.dullness == pytest.approx(0.1)
    assert "gum, tension or guides" in found.evidence[-1].why


@given(st.floats(0, 1.5), st.floats(0.05, 0.5), st.floats(0.2, 30))
def test_the_spread_after_signs_is_that_of_the_weighted_normal(
    mean: float, sd: float, odds: float
) -> None:
    """Against the sums over a fine grid of the normal itself."""
    moved, spread = moved_by_signs(mean, sd=sd, odds=odds)
    steps = [mean + sd * (i / 200.0) for i in range(-1400, 1401)]
    weights = [math.exp(-0.5 * ((x - mean) / sd) ** 2) * (odds if x > 0.8 else 1.0) for x in steps]
    whole = sum(weights)
    centre = sum(w * x for w, x in zip(weights, steps, strict=True)) / whole
    wide = math.sqrt(
        sum(w * (x - centre) ** 2 for w, x in zip(weights, steps, strict=True)) / whole
    )
    assert moved == pytest.approx(centre, abs=0.01)
    assert spread == pytest.approx(max(wide, 0.03), abs=0.01)


def pushed(day: int, feed: float, key: str = "oak") -> RunFact:
    return replace(run(day), push=PushFact(key, feed, 0.35, 0.5, 0.35, 0.95))


def test_feeds_are_compared_within_one_kind_of_cut_and_one_edge() -> None:
    told = replay([pushed(1, 2.0), pushed(2, 9.0, "pine"), pushed(3, 1.0)], []).fed
    assert told is not None
    assert told.growth == pytest.approx(2.0**0.65)
    assert told.pairs == 1
    assert (told.from_m, told.at_m) == (50.0, 250.0)
    assert slowed([]) is None
    waits = replace(pushed(3, 0.1), counts=False)
    assert replay([pushed(1, 2.0), waits], []).fed is None


def test_wear_by_material_by_hand() -> None:
    """Two lives at half the table's, two at it: ln 2 of what the others are known to be.

    The others' level: 2/s^2 of (2/s^2 + 1/0.7^2) of the bias; the bias leaves with the difference.
    """
    found = learned_abrasion([(4000, 8000)] * 2, [(8000, 8000)] * 2)
    assert found is not None
    one, prior = LIFE_SD_LN**-2, PRIOR_SD_LN**-2
    bias = (math.log(math.log(2)) + 0.57722) / 2.5
    level = bias * 2 * one / (2 * one + prior)
    said = level - (bias - math.log(2))
    doubt = 1 / (2 * one) + 1 / (2 * one + prior)
    assert math.log(found.factor) == pytest.approx(said / doubt / (prior + 1 / doubt), abs=1e-5)
    assert found.low < found.factor < found.high


def test_what_all_materials_have_in_common_is_no_material_s() -> None:
    """A shop whose edges all last twice as long: after many lives no factor is told."""
    found = learned_abrasion([(16_000, 8000)] * 40, [(16_000, 8000)] * 400)
    assert found is not None and abs(math.log(found.factor)) < 0.02
