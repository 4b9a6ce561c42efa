"""Breaking in: by hand, at its ends, and what is cut too fast meanwhile."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.bands.break_in import BreakIn, is_new, left_share, unbroken_factor
from jade_ribbon.core.bands.break_in import break_in as broken_in
from jade_ribbon.core.job import Cut
from jade_ribbon.core.quantities.words import metric, said
from jade_ribbon.reference.tables import materials

BAR = Cut("bar", materials()["mild_steel"], 50.0, 50.0, 20, round_stock=True)
BOARD = Cut("resaw", materials()["white_oak_dry"], 150.0, 2000.0, 4)


def break_in(token: str, cut: Cut = BAR, **told: float) -> BreakIn | None:
    return broken_in(token, cut, **told)


def test_half_the_bite_for_300_cm2_or_half_an_hour() -> None:
    new = break_in("bimetal", cut_mm2=0.0, cut_s=0.0, planned_m_min=0.16, floor_m_min=0.05)
    assert new is not None and new.feed_m_min == pytest.approx(0.08)
    assert "for 300 cm² or 30 min, whichever is first: about 15 cuts" in metric(new.words)
    # pi 25^2 = 19.6 cm2 a cut: 15 in 300; at 0.08 m/min of 39 mm each 29 s: time comes later.
    # 100 cm2 in five minutes: a third by area, a sixth by time.
    later = break_in("bimetal", cut_mm2=1e4, cut_s=300.0, planned_m_min=0.16, floor_m_min=0.05)
    assert later is not None and "for 200 cm² or 25 min" in metric(later.words)
    assert left_share("bimetal", cut_mm2=1e4, cut_s=300.0) == pytest.approx(2 / 3)


def test_it_ends_by_whichever_comes_first_and_soft_edges_need_none() -> None:
    def asked(token: str, mm2: float, s: float) -> bool:
        return break_in(token, cut_mm2=mm2, cut_s=s, planned_m_min=0.2, floor_m_min=0.0) is not None

    assert asked("carbide_tipped", 29_999.0, 0.0) and not asked("carbide_tipped", 30_000.0, 0.0)
    assert not asked("bimetal", 0.0, 1800.0)
    assert not asked("carbon", 0.0, 0.0)


def test_it_never_rubs() -> None:
    slow = break_in("bimetal", cut_mm2=0.0, cut_s=0.0, planned_m_min=0.06, floor_m_min=0.05)
    assert slow is not None and slow.feed_m_min == 0.05
    hot = break_in("bimetal", cut_mm2=0.0, cut_s=0.0, planned_m_min=0.04, floor_m_min=0.05)
    assert hot is not None and hot.feed_m_min == 0.04


def test_what_is_cut_at_the_full_bite_meanwhile_counts_twice() -> None:
    def factor(feed: float, mm2: float, before: float = 0.0) -> float:
        return unbroken_factor(
            "bimetal",
            cut_mm2=before,
            cut_s=0.0,
            run_mm2=mm2,
            run_s=0.0,
            feed_m_min=feed,
            planned_m_min=0.16,
        )

    assert factor(0.16, 30_000.0) == 2.0
    assert factor(0.16, 60_000.0) == 1.5  # half of it fell within
    assert factor(0.08, 30_000.0) == 1.0
    assert factor(0.16, 30_000.0, before=30_000.0) == 1.0


@given(st.floats(0, 6e4), st.floats(0, 6e4), st.floats(0.01, 1), st.floats(0, 4000))
def test_a_slower_first_cut_never_wears_more(mm2: float, run: float, feed: float, s: float) -> None:
    def factor(at: float) -> float:
        return unbroken_factor(
            "bimetal",
            cut_mm2=mm2,
            cut_s=s,
            run_mm2=run,
            run_s=run / 100.0,
            feed_m_min=at,
            planned_m_min=0.5,
        )

    assert 1.0 <= factor(feed / 2.0) <= factor(feed) <= 2.0


def test_of_a_board_it_is_the_first_hand_s_breadths() -> None:
    """150 mm high: 300 cm2 are 200 mm of the cut."""
    new = break_in("bimetal", BOARD, cut_mm2=0.0, cut_s=0.0, planned_m_min=2.0, floor_m_min=0.4)
    assert new is not None and new.whole_cuts == 0
    assert "the first 200 mm of a cut" in metric(new.words)
    assert "47 in²" in said(new.words, "inch")


def test_a_used_or_sharpened_edge_is_not_new() -> None:
    assert is_new(sharpenings=0, judged=None) and is_new(sharpenings=0, judged=0.05)
    assert not is_new(sharpenings=1, judged=None) and not is_new(sharpenings=0, judged=0.5)
