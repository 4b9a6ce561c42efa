"""Stock that moves, metal in it, leaves, cuts laid by hand, what a billet is worth."""

import dataclasses
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import metric
from jade_ribbon.core.stock.condition import Condition, oversize_share, readiness_of
from jade_ribbon.core.stock.fasteners import (
    DigOrSaw,
    Fastener,
    MetalPrices,
    MetalRule,
    dig_or_saw,
    slow_zones,
    strikes_expected,
)
from jade_ribbon.core.stock.joinery import circle_jig, ring
from jade_ribbon.core.stock.laying import even_cuts, lay_cuts
from jade_ribbon.core.stock.leaves import matched_set
from jade_ribbon.core.stock.logs import cant_boards, log_boards
from jade_ribbon.core.stock.opening import growth_mm, next_cut
from jade_ribbon.core.stock.worth import BilletSize, Money, PieceWanted, billet_worth, planed_from

DRY = Condition("face_edge", 0.0, 11.0, 5.0, "none", 0)
WANTED = PieceWanted(14.0, 180.0, 3500.0, 3, 0.5, 1.4, 3.0, 20.0, 2.0)
SIZE = BilletSize(60.0, 185.0, 3600.0, 0.0, 0.0, 1.0)
PRICES = Money(None, 900.0, 40.0)


def condition(**changed: object) -> Condition:
    return dataclasses.replace(DRY, **changed)  # type: ignore[arg-type]


@pytest.mark.parametrize(
    ("found", "rule", "verdict"),
    [
        (DRY, "face_edge", "ready"),
        (DRY, "four_square", "not_ready"),
        (condition(trued="none"), "as_it_is", "ready"),
        (condition(trued="face"), "face_edge", "not_ready"),
        (condition(moisture_pct=None), "face_edge", "cannot_tell"),
        (condition(moisture_days=90.0), "face_edge", "cannot_tell"),
        (condition(moisture_pct=30.0), "face_edge", "not_ready"),
        (condition(suspect="nails"), "face_edge", "not_ready"),
        (condition(suspect="nails", mapped=2), "face_edge", "ready"),
        (condition(suspect="grit", mapped=2), "face_edge", "not_ready"),
        (condition(trued="none", twist_mm=4.0), "as_it_is", "not_ready"),
        (condition(trued="four", bow_mm=4.0), "face_edge", "cannot_tell"),
        (condition(trued="four", twist_mm=2.0), "four_square", "cannot_tell"),
        (condition(twist_mm=2.0), "face_edge", "ready"),
        (condition(moisture_pct=4.0), "face_edge", "cannot_tell"),
        (condition(moisture_pct=None, is_wood=False), "face_edge", "ready"),
        (condition(moisture_pct=None, log=True, trued="four"), "face_edge", "ready"),
        (condition(sawn_up=True, moisture_pct=None), "face_edge", "not_ready"),
    ],
)
def test_stock_is_ready_only_by_what_was_noted(found: Condition, rule: str, verdict: str) -> None:
    assert readiness_of(found, rule).verdict == verdict  # type: ignore[arg-type]


@given(st.floats(0, 200), st.floats(0, 50))
def test_wetter_wood_is_never_cut_less_oversize(moisture: float, more: float) -> None:
    assert oversize_share(moisture) <= oversize_share(moisture + more)


def test_stock_that_moves_is_halved_until_it_settles() -> None:
    def cut(grew: float | None, rule: str = "halves") -> tuple[str, bool]:
        found = next_cut(
            thickness_mm=100.0,
            bow_mm=2.0,
            slice_mm=15.0,
            kerf_mm=1.4,
            prepare_loss_mm=1.0,
            grew_mm=grew,
            rule=rule,  # type: ignore[arg-type]
        )
        return found.way, found.sure

    assert cut(None) == ("halve", True)
    assert cut(3.0) == ("halve", True)
    assert cut(1.2) == ("halve", False)  # a straightedge reads no nearer
    assert cut(0.3) == ("slice", True)
    assert cut(3.0, "one_face") == ("slice", True)
    assert growth_mm(1.0, -1.5, 1.2) == 2.5


NAILS = [
    Fastener(500.0, "face", 20.0, "nail"),
    Fastener(1500.0, "back", 10.0, "screw"),
    Fastener(1600.0, "face", None, "nail"),
    Fastener(2500.0, "face", 60.0, "nail", "dug_out"),
]


def test_a_cut_meets_only_what_reaches_it() -> None:
    def strikes(*cuts: float, share: float = 1.0) -> float:
        return strikes_expected(NAILS, cuts, thickness_mm=60.0, height_share=share)

    assert strikes(15.0) == pytest.approx(1.0 + 0.75)  # the unknown one: 1 - 15/60
    assert strikes(55.0) == pytest.approx(1.0 + 5.0 / 60.0)
    assert strikes(15.0, share=0.5) == pytest.approx(0.875)
    assert [z.marks for z in slow_zones(NAILS, 3000.0)] == [1, 2]
    assert slow_zones([Fastener(10.0, "face", 5.0, "nail")], 3000.0)[0].from_mm == 0.0


PRICES_OF_METAL = MetalPrices(10.0, 3000.0, "carbon", 20.0, 12.0, 3.0, 40.0)


def choice(rule: MetalRule = "compare", **changed: Any) -> DigOrSaw:
    prices = dataclasses.replace(PRICES_OF_METAL, **changed)
    return dig_or_saw(NAILS, [15.0], prices, thickness_mm=60.0, rule=rule)


def test_digging_or_sawing_is_called_only_where_the_ranges_part() -> None:
    cheap, dear = choice(edge_value=0.0, change_min=0.0), choice(edge_value=300.0)
    assert cheap.better == "saw" or cheap.better == "cannot_tell"
    assert dear.better == "dig"
    assert dear.saw_low < dear.saw < dear.saw_high
    ruled = choice(rule="saw_through", edge_value=300.0)
    assert ruled.better == "saw" and ruled.rule == "old_metal"
    # By hand, carbon, edge 20, change 12 min at 40 an hour: 2/3 a minute.
    usual = choice()
    nail = 3 * 2 / 3 + 0.4 * (20 + 8)
    assert usual.saw == pytest.approx(3 * 2 / 3 + 1.75 * nail)


def test_leaves_open_like_a_book() -> None:
    found = matched_set(5, height_mm=100.0, joint_loss_mm=1.0)
    assert [(leaf.pair, leaf.shows) for leaf in found.leaves[:3]] == [
        (1, "back"),
        (1, "face"),
        (2, "back"),
    ]
    assert found.leaves[-1].single and not found.leaves[3].single
    assert found.panel_width_mm == 5 * 100 - 4 * 2
    with pytest.raises(InputError, match="takes the whole leaf"):
        matched_set(2, height_mm=100.0, joint_loss_mm=50.0)


@given(st.integers(1, 12), st.floats(2, 40), st.floats(0.5, 4))
def test_cuts_laid_evenly_give_what_was_laid(count: int, thick: float, kerf: float) -> None:
    cuts = even_cuts(count, slice_mm=thick, kerf_mm=kerf)
    whole = cuts[-1] + kerf + 0.5 * thick
    found = lay_cuts(cuts, thickness_mm=whole, kerf_mm=kerf, slice_mm=thick, finished_mm=thick)
    assert found.pieces == count
    assert found.piece_share + found.kerf_share + found.rest_share == pytest.approx(1.0)


def test_a_cut_moved_makes_one_slice_thin() -> None:
    laid = lay_cuts([14.0, 31.4], thickness_mm=60.0, kerf_mm=1.4, slice_mm=15.0, finished_mm=14.0)
    assert [s.piece for s in laid.slices] == [False, True, True]
    assert laid.slices[0].over_mm == pytest.approx(-1.0)
    with pytest.raises(InputError, match="after the cut before"):
        lay_cuts([20.0, 20.5], thickness_mm=60.0, kerf_mm=1.4, slice_mm=15.0, finished_mm=14.0)


def test_a_bowed_billet_gives_more_along_its_curve_and_the_house_may_say_otherwise() -> None:
    bowed = dataclasses.replace(SIZE, thickness_mm=50.0, bow_mm=3.0)
    found = billet_worth(bowed, WANTED, PRICES, rule="yield")
    # 50 - 1 - 2.84 of bow at 3500 = 46.2: two slices of 15; along the curve 49: three.
    assert [w.slices for w in found.ways] == [2, 3]
    assert (found.best, found.rule) == ("along_curve", "")
    ruled = billet_worth(bowed, WANTED, PRICES, rule="flatten")
    assert (ruled.best, ruled.rule) == ("true_first", "billet")
    same = billet_worth(SIZE, WANTED, PRICES, rule="yield")
    assert same.best == "true_first"
    twisted = billet_worth(
        dataclasses.replace(SIZE, twist_mm=15.0), WANTED, PRICES, rule="yield", bought_mm=20.0
    )
    assert [w.slices for w in twisted.ways] == [2, 2]
    low = billet_worth(dataclasses.replace(SIZE, height_mm=170.0), WANTED, PRICES, rule="yield")
    assert "not high enough" in str(low.words)


def test_planing_from_thicker_stock_by_hand() -> None:
    # 0.63 m2, 20 mm: 0.0126 m3 at 900 = 11.34; three passes of 1.5 min/m2 at 40 an hour.
    assert planed_from(20.0, WANTED, PRICES) == pytest.approx(11.34 + 3 * 1.5 * 0.63 * 40 / 60)
    with pytest.raises(InputError, match="thinner than the piece"):
        planed_from(10.0, WANTED, PRICES)


@given(
    st.floats(200, 700), st.floats(15, 60), st.floats(1, 5), st.floats(0, 20), st.floats(0.3, 0.95)
)
def test_boards_of_a_cant_lie_in_the_log(
    small: float, board: float, kerf: float, bark: float, share: float
) -> None:
    clear = small - 2 * bark
    found = cant_boards(
        small_end_mm=small,
        bark_mm=bark,
        board_mm=board,
        kerf_mm=kerf,
        least_width_mm=60.0,
        cant_mm=share * clear,
    )
    assert 0.0 <= found.recovery < 1.0
    assert found.square_boards <= found.boards
    assert len(found.laid) == found.boards + found.side_boards
    for laid in found.laid:
        far = max(abs(laid.x_mm), abs(laid.x_mm + laid.width_mm))
        high = max(abs(laid.y_mm), abs(laid.y_mm + laid.height_mm))
        assert far**2 + high**2 <= (clear / 2) ** 2 * (1 + 1e-9)
    whole = log_boards(
        small_end_mm=small, bark_mm=bark, board_mm=board, kerf_mm=kerf, least_width_mm=60.0
    )
    # A cant as thick as the log is the log: what is cut off can only be less in its own boards.
    assert found.boards <= whole.boards or share < 1.0


def test_rings_and_circles_say_whether_they_can_be() -> None:
    def closes(error: float, doubt: float) -> str:
        return ring(
            segments=8,
            radius_mm=200.0,
            joint_width_mm=40.0,
            gap_allowed_mm=0.2,
            face_error_deg=error,
            error_doubt_deg=doubt,
            kerf_mm=1.4,
        ).closes

    # 0.2 / (2 x 8 x 40) is 0.0179 degrees.
    assert (closes(0.0, 0.01), closes(0.0, 0.05), closes(0.1, 0.05)) == (
        "yes",
        "cannot_tell",
        "no",
    )
    tight = circle_jig(
        radius_mm=300.0,
        drift_deg=1.0,
        pivot_behind_tooth_line_mm=0.0,
        blank_mm=1000.0,
        throat_mm=390.0,
        table_reach_mm=250.0,
    )
    assert not tight.clears and tight.throat_needed_mm == pytest.approx(407.1, abs=0.1)
    with pytest.raises(InputError, match="less than the circle"):
        circle_jig(
            radius_mm=300.0,
            drift_deg=0.0,
            pivot_behind_tooth_line_mm=0.0,
            blank_mm=500.0,
            throat_mm=390.0,
            table_reach_mm=250.0,
        )


def test_twist_is_said_of_what_is_trued_on_one_side() -> None:
    said = readiness_of(condition(twist_mm=2.0), "face_edge").reasons
    assert any("mm of twist" in metric(words) for words in said)
    assert readiness_of(condition(sawn_up=True, moisture_pct=None), "face_edge").reasons == (
        "It is sawn up.",
    )


def test_a_last_slice_with_a_tenth_to_spare_is_too_close_to_call() -> None:
    """Four slices of 15 with three kerfs of 1.4 take 64.2; 1 goes for truing: 65.33 leave 0.13."""
    close = dataclasses.replace(SIZE, thickness_mm=65.33)
    said = metric(billet_worth(close, WANTED, PRICES, rule="yield").words)
    assert "0.13 mm to spare: too close to call" in said and "Count on 3" in said
    roomy = dataclasses.replace(SIZE, thickness_mm=67.0)
    assert "too close" not in metric(billet_worth(roomy, WANTED, PRICES, rule="yield").words)


def test_planing_and_sawing_reckon_with_one_price_of_wood() -> None:
    """A billet at twice the timber price makes planed wood of it twice as dear too."""
    volume = SIZE.thickness_mm * SIZE.height_mm * SIZE.length_mm * 1e-9
    dear = dataclasses.replace(PRICES, billet_price=2.0 * PRICES.timber_m3 * volume)
    found = billet_worth(SIZE, WANTED, dear, rule="yield", bought_mm=20.0)
    twice = dataclasses.replace(PRICES, timber_m3=2.0 * PRICES.timber_m3)
    assert found.planed_a_piece == pytest.approx(planed_from(20.0, WANTED, twice))
