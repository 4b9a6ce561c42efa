"""What the record of a shop's edges teaches, and what it must not."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.edge.shop_life import LifeRecord, ShopLives, asks_still_good, own_life_m
from jade_ribbon.core.mechanics.life import life_posterior

KEY = ("carbon_flexback", 0)
PRIOR_M = 8000.0
LIVES: list[LifeRecord] = [LifeRecord(*KEY, m, True) for m in (6000.0, 9000.0, 7500.0)]
GOING: list[LifeRecord] = [LifeRecord(*KEY, m, False) for m in (1200.0, 3000.0)]
records = st.sampled_from(([], LIVES, [*LIVES, *GOING], GOING))


@given(records, st.floats(4.5, 1e6), st.booleans())
def test_one_absurd_life_makes_no_other_band_keener(
    known: list[LifeRecord], times: float, ended: bool
) -> None:
    """Of any size and any record: an edge half worn stays so, within five per cent."""
    before = ShopLives(known).of(*KEY)
    absurd = LifeRecord(*KEY, times * before.median_m, ended)
    after = ShopLives([*known, absurd]).of(*KEY)
    for used in (0.0, *(life.metres for life in known if not life.ended)):
        assert own_life_m(after, used_m=used) == pytest.approx(
            own_life_m(before, used_m=used), rel=0.05
        )
    assert absurd[2] in after.doubted


@given(records, st.floats(0.0, 0.2))
def test_nor_does_one_absurdly_short_one_make_it_duller(
    known: list[LifeRecord], share: float
) -> None:
    before = ShopLives(known).of(*KEY)
    after = ShopLives([*known, LifeRecord(*KEY, share * before.median_m, True)]).of(*KEY)
    assert after.posterior == before.posterior


def test_a_running_edge_past_the_median_counts_no_further() -> None:
    table = ShopLives([]).of(*KEY).median_m
    at = ShopLives([LifeRecord(*KEY, table, False)]).of(*KEY)
    past = ShopLives([LifeRecord(*KEY, 2.5 * table, False)]).of(*KEY)
    assert past.posterior == at.posterior and past.counted == {2.5 * table: pytest.approx(table)}
    mine = own_life_m(past, used_m=2.5 * table)
    assert mine == pytest.approx(table)


def test_lives_that_agree_move_what_is_believed_beyond_the_table() -> None:
    """Three at twice the table's life carry a fourth at six times it, which alone is doubted."""
    far = 6.0 * ShopLives([]).of(*KEY).median_m
    alone = ShopLives([LifeRecord(*KEY, far, True)]).of(*KEY)
    assert alone.doubted == (far,) and alone.retired == 0
    long: list[LifeRecord] = [LifeRecord(*KEY, far / 3.0, True)] * 3
    assert ShopLives([*long, LifeRecord(*KEY, far, True)]).of(*KEY).doubted == ()


def test_plain_records_are_the_plain_posterior() -> None:
    found = ShopLives([*LIVES, *GOING]).of(*KEY)
    plain = life_posterior(
        prior_life_m=PRIOR_M,
        prior_weight=2.0,
        shape=2.5,
        retired_m=[6000.0, 9000.0, 7500.0],
        running_m=[1200.0, 3000.0],
    )
    assert found.posterior == plain and found.doubted == ()
    assert math.isclose(found.prior_life_m, PRIOR_M)


def test_what_somebody_confirms_counts_as_it_is() -> None:
    """A doubted life teaches once it is said to be true; an edge still good counts as far."""
    far = 6.0 * ShopLives([]).of(*KEY).median_m
    sure = ShopLives([LifeRecord(*KEY, far, True, far)]).of(*KEY)
    assert sure.retired == 1 and sure.doubted == ()
    table = ShopLives([]).of(*KEY).median_m
    going = ShopLives([LifeRecord(*KEY, 3.0 * table, False, 2.0 * table)]).of(*KEY)
    assert going.counted == {3.0 * table: pytest.approx(2.0 * table)}


def test_an_edge_past_its_life_is_asked_about_until_answered() -> None:
    asked = {"life_m": 8000.0, "dullness": 0.9}
    assert not asks_still_good(used_m=7900.0, confirmed_m=0.0, **asked)
    assert asks_still_good(used_m=8100.0, confirmed_m=0.0, **asked)
    assert not asks_still_good(used_m=8100.0, confirmed_m=8050.0, **asked)
    assert asks_still_good(used_m=1.3 * 8050.0, confirmed_m=8050.0, **asked)
    assert asks_still_good(used_m=1000.0, confirmed_m=0.0, life_m=8000.0, dullness=1.0)
