"""A shop's own findings beside the table's word."""

import numpy as np
import pytest

from jade_ribbon.core.faults.knowledge import listed
from jade_ribbon.core.faults.learned import ClosedTrouble, learn


def test_no_troubles_are_the_tables_word() -> None:
    assert learn(listed(), []).knowledge is listed()


def test_own_counts_stand_beside_a_prior_worth_twenty() -> None:
    known = listed()
    found = learn(known, [ClosedTrouble(("dull",), {"burn": 1.0})] * 5).knowledge
    place = known.place["dull"]
    assert found.priors[place] == pytest.approx((20 * known.priors[place] + 5) / 25)
    other = known.place["knots"]
    assert found.priors[other] == pytest.approx(20 * known.priors[other] / 25)


def test_a_shop_that_agrees_with_the_table_learns_nothing_of_signs() -> None:
    """People mention a share of what they see: silence is not absence."""
    known, random = listed(), np.random.default_rng(5)
    place = known.place["dull"]
    troubles = []
    for _ in range(600):
        shown = random.random(len(known.signs)) < known.shows[place] * 0.5
        signs = {known.signs[i]: 1.0 for i in np.flatnonzero(shown)}
        troubles.append(ClosedTrouble(("dull",), signs))
    learned = learn(known, troubles).knowledge
    assert learned.shows[place] == pytest.approx(known.shows[place], abs=0.12)


def test_looked_for_and_not_there_counts_against() -> None:
    known = listed()
    place, sign = known.place["dull"], known.sign_place["burn"]
    seen = learn(known, [ClosedTrouble(("dull",), {"burn": 0.0})] * 10).knowledge
    assert seen.shows[place, sign] == pytest.approx(20 * known.shows[place, sign] / 30)
    told = learn(known, [ClosedTrouble(("dull",), {"burn": 1.0})] * 10).knowledge
    assert told.shows[place, sign] > known.shows[place, sign]


def test_of_two_causes_nobody_knows_which_showed_it() -> None:
    known = listed()
    found = learn(known, [ClosedTrouble(("dull", "knots"), {"burn": 1.0})] * 4)
    assert found.knowledge.shows[:-1] == pytest.approx(known.shows[:-1])
    assert found.found == {"dull": 4, "knots": 4}


def test_nothing_is_learned_to_be_certain() -> None:
    found = learn(listed(), [ClosedTrouble(("dull",), {"burn": 1.0})] * 5000).knowledge
    assert float(found.priors.max()) <= 0.98 and float(found.shows.max()) <= 0.98
    assert float(found.priors.min()) > 0
