"""What may be entered of each quantity: inside what formulas stand, around what is usual."""

import pytest

from jade_ribbon.core.quantities.formula_limits import RANGES
from jade_ribbon.core.quantities.input_limits import ENTRIES
from jade_ribbon.core.quantities.typical import USUAL
from jade_ribbon.core.setup.card import READING_RANGES
from jade_ribbon.reference.tables import steels


def test_no_entry_says_a_stress_that_a_steel_does_not_stand() -> None:
    """Every steel's highest tension may be entered; nothing over any steel's yield may."""
    entered = ENTRIES["stress_MPa"]
    for steel in steels().values():
        highs = (steel.tension_wood_high_MPa, steel.tension_metal_high_MPa or 0.0)
        assert max(highs) <= entered.high < steel.yield_MPa < steel.uts_MPa, steel.key
    assert READING_RANGES["stress"] is entered


@pytest.mark.parametrize("name", sorted(set(ENTRIES) & set(RANGES)))
def test_a_formula_stands_what_may_be_entered(name: str) -> None:
    formula, entry = RANGES[name], ENTRIES[name]
    if name in ("gap_mm", "hand_turns"):
        return
    assert formula.low <= entry.low and entry.high <= formula.high, name


@pytest.mark.parametrize("name", sorted(set(ENTRIES) & set(USUAL)))
def test_what_is_usual_may_be_entered(name: str) -> None:
    assert ENTRIES[name].holds(USUAL[name].low) and ENTRIES[name].holds(USUAL[name].high)
