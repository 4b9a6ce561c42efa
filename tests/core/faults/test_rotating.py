"""A tick named by its rate."""

import pytest

from jade_ribbon.core.faults.rotating import name_tick, turners
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import metric


def test_a_tick_is_named_by_its_rate() -> None:
    known = turners(
        speed_m_s=14.5,
        band_length_mm=3360.0,
        wheel_diameters_mm=(400.0, 400.0),
        belt_length_mm=900.0,
        pulley_mm=200.0,
    )
    assert [t.key for t in known] == ["weld", "wheel", "belt"]
    weld = name_tick(ticks=43, seconds=10, known=known)
    assert weld.key == "weld" and "never while it moves" in metric(weld.words)
    wheel = name_tick(ticks=115, seconds=10, known=known)
    assert wheel.key == "wheel"
    belt = name_tick(ticks=81, seconds=10, known=known)
    assert belt.key == "belt"
    none = name_tick(ticks=60, seconds=10, known=known)
    assert none.key == "" and "Count again" in metric(none.words)
    with pytest.raises(InputError, match="count at least one tick"):
        name_tick(ticks=0, seconds=10, known=known)
