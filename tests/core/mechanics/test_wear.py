"""Wear: the bite term, lives, gum."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.mechanics.wear import bite_term, effective_dullness, nominal_life_m


@given(st.floats(1e-4, 1))
def test_the_bite_term_of_wear_stays_within_its_ends(bite: float) -> None:
    assert 2 / 3 <= bite_term(bite_mm=bite, bite_exponent=0.5) <= 4
    assert bite_term(bite_mm=bite, bite_exponent=0.0) == 1


def test_lives_shorten_and_gum_adds() -> None:
    assert nominal_life_m(rel_edge_life=1.0, sharpenings=1) == pytest.approx(7200)
    assert effective_dullness(edge_dullness=0.3, fouled=1.0) == pytest.approx(0.7)
