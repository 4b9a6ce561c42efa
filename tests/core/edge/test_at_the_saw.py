"""Chips and signs: what they say, and what to do now."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.edge.chips import Chips, bite_said, chips_say, chips_table
from jade_ribbon.core.edge.sharpness import EdgeRecord
from jade_ribbon.core.edge.signs import SYMPTOMS, signs
from jade_ribbon.core.money.sign_advice import EdgeNow, SignEffect, sign_effect, sign_effects

KEEN = EdgeNow(EdgeRecord(0.2), 1.0, 6, 0.1)
TIRED = EdgeNow(EdgeRecord(0.75), 1.0, 6, 0.1)
GUMMED = EdgeNow(EdgeRecord(0.3), 1.0, 6, 0.6)


def effect(sign: str, edge: EdgeNow, **changed: float | None) -> SignEffect:
    figures: dict[str, float | None] = {
        "limit": 0.8,
        "feed_m_min": 2.0,
        "floor_m_min": 0.5,
        "size_exponent_m": 0.35,
    }
    return sign_effect(sign, edge, **(figures | changed))  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("sign", "edge", "do"),
    [
        ("burn", KEEN, "ask"),
        ("burn", TIRED, "change"),
        ("burn", GUMMED, "clean"),
        ("gummed", KEEN, "clean"),
        ("barrel", KEEN, "ease"),
        ("hard_push", KEEN, "ease"),
        ("hard_push", GUMMED, "clean"),
        ("tick", TIRED, "stop"),
        ("smoke", KEEN, "stop"),
        ("smoke", GUMMED, "stop"),
    ],
)
def test_a_sign_is_answered_by_what_explains_it(sign: str, edge: EdgeNow, do: str) -> None:
    assert effect(sign, edge).do == do


def test_one_verdict_a_sign_and_over_a_stop_nobody_goes_on() -> None:
    for sign in ("smoke", "tick"):
        found = effect(sign, KEEN)
        assert str(found.words).startswith("Stop the saw") and "go on" not in str(found.words)
        assert next(s.stop for s in signs() if s.key == sign) == found.words
    assert "dust box" in str(effect("smoke", KEEN).words)
    assert "dust box" in str(effect("burn", KEEN).words)
    assert "weld" in str(effect("tick", KEEN).words)


def test_at_the_first_sign_a_show_face_changes_its_band() -> None:
    found = effect("burn", KEEN, at_first_sign=True)
    assert found.do == "change" and "house rule" in str(found.words)
    assert effect("wander", KEEN, at_first_sign=True).do == "ease", "no sign of the edge"
    assert effect("smoke", KEEN, at_first_sign=True).do == "stop", "the graver stands"


def test_easing_is_told_with_what_it_brings_and_never_under_the_floor() -> None:
    eased = effect("barrel", KEEN)
    # 2 to 1.4 m/min; the push goes as feed^0.65: 1 - 0.7^0.65 = 21 %.
    assert str(eased.words) == "Ease the feed to 1.4 m/min: the push falls by 21 %."
    held = effect("barrel", KEEN, floor_m_min=1.99)
    assert held.do == "nothing" and "at its least already" in str(held.words)
    assert effect("barrel", KEEN, feed_m_min=None).do == "ease"


@given(st.floats(0.05, 1.2), st.floats(0.3, 5.0))
def test_no_sign_makes_an_edge_keener(dull: float, odds: float) -> None:
    edge = EdgeNow(EdgeRecord(dull, odds), 1.0, 6, 0.2)
    for found in sign_effects(
        edge, limit=0.8, feed_m_min=2.0, floor_m_min=0.5, size_exponent_m=0.35
    ):
        assert found.dullness_after >= found.dullness_before - 1e-9
        assert found.sign in SYMPTOMS


@pytest.mark.parametrize(
    ("chips", "feed", "metal", "words"),
    [
        ("dust", 0.2, False, "too small: feed faster"),
        ("dust", 1.5, False, "the edge is dull or its gullets pack"),
        ("flakes", 1.5, False, "keep to this feed"),
        ("flakes", 5.0, False, "outside its window"),
        ("strings", 5.0, False, "too large: ease the feed"),
        ("strings", 1.5, False, "thick for this feed"),
        ("strings", 0.2, False, "teeth are missing"),
        ("strings", 1.5, True, "keep to this feed"),
        ("flakes", 5.0, True, "too large"),
    ],
)
def test_chips_are_read_beside_the_feed(chips: Chips, feed: float, metal: bool, words: str) -> None:
    found = chips_say(chips, feed_m_min=feed, floor_m_min=0.5, ceiling_m_min=3.0, metal=metal)
    assert words in str(found.words)
    assert found.bite == bite_said(chips, metal=metal)


def test_the_table_of_chips_holds_every_kind_at_every_place() -> None:
    table = chips_table(floor_m_min=0.5, ceiling_m_min=3.0, metal=False)
    assert len({(t.chips, t.by_feed) for t in table}) == 12
