"""How soon an accessory pays: by hand, at its limits, and in words that say what is known."""

import pytest

from jade_ribbon.core.money.payback import (
    LEAST_WEEKS,
    UNSURE,
    Yearly,
    payback,
    saved_by,
    words_of,
    yearly,
)
from jade_ribbon.reference.care import accessories


def test_a_quarter_of_the_edges_by_hand() -> None:
    # 149.77 a year in edges, a quarter of them spared: 37.44, between 23.40 and 59.91.
    found = payback(price=1800.0, saved_per_year=0.25 * 149.77, costs_per_year=0.0)
    assert found.saved_low == pytest.approx(23.40, abs=0.01)
    assert found.saved_high == pytest.approx(59.91, abs=0.01)
    assert found.months_low == pytest.approx(360.5, abs=0.1)
    assert found.months_high == pytest.approx(923.0, abs=0.1)
    assert words_of(found, 52.0) == "It does not pay from bands alone: 30 years at the best."


def test_a_short_time_is_told_in_months() -> None:
    found = payback(price=100.0, saved_per_year=100.0, costs_per_year=0.0)
    assert words_of(found, 52.0) == "In 8 to 19 months, from bands alone."
    wide = payback(price=300.0, saved_per_year=100.0, costs_per_year=40.0)
    assert words_of(wide, 52.0) == (
        "In 30 months at the best; at the worst not before it is worn out."
    )


def test_its_own_work_may_eat_what_it_saves() -> None:
    unsure = payback(price=100.0, saved_per_year=100.0, costs_per_year=100.0 / UNSURE)
    assert unsure.verdict == "cannot_tell" and unsure.months_high is None
    assert words_of(unsure, 52.0) == "In 12 months at the best; at the worst never."
    never = payback(price=100.0, saved_per_year=100.0, costs_per_year=100.0 * UNSURE)
    assert never.verdict == "never" and never.months_low is None
    assert "never pays" in words_of(never, 52.0)


def test_for_nothing_it_pays_at_once() -> None:
    free = payback(price=0.0, saved_per_year=10.0, costs_per_year=0.0)
    assert (free.months_low, free.months_high) == (0.0, 0.0)


def test_a_short_record_is_no_years_worth() -> None:
    def kept(weeks: float) -> Yearly | None:
        return yearly(weeks=weeks, edge_money=10.0, area_m2=4.0, equivalent_m=100.0, strikes=1)

    assert kept(LEAST_WEEKS - 0.1) is None
    year = kept(26.0)
    assert year is not None
    assert year.edge_money == pytest.approx(20.0, rel=0.01)
    assert year.strikes == pytest.approx(2.0, rel=0.01)
    assert words_of(None, 3.0) == "Cannot tell: the record holds 3 weeks; 8 are needed."


def test_a_detector_saves_by_strikes_alone() -> None:
    quiet = Yearly(edge_money=100.0, area_m2=10.0, edges=5.0, strikes=0.0)
    struck = Yearly(edge_money=100.0, area_m2=10.0, edges=5.0, strikes=4.0)
    spares = {key: a.strikes_saved for key, a in accessories().items() if a.strikes_saved > 0.0}
    assert spares
    for key in spares:
        known = accessories()[key]
        assert saved_by(known, quiet) == pytest.approx(known.wear_saved * 100.0)
        assert saved_by(known, struck) > saved_by(known, quiet)
