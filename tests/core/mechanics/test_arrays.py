"""The formulas take arrays as well as numbers, and give the same figures."""

import dataclasses
import json
from collections import defaultdict
from collections.abc import Callable, Mapping
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.calc import CALCULATIONS
from jade_ribbon.core.mechanics.feed import window_from_limits
from jade_ribbon.core.mechanics.stiffness import stability_limit
from jade_ribbon.core.quantities.arrays import as_array, as_figure
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.formula_limits import columns_checked
from tests.support.shop import VECTORS

BY_THEMSELVES = {"life_posterior", "thickness_map", "slicing", "lot_forecast"}
"""Calculations over lists, or with whole numbers for an answer."""
FORMULAS = {
    name: f
    for name, f in CALCULATIONS.items()
    if name not in BY_THEMSELVES and f.__module__.startswith("jade_ribbon.core.mechanics")
}
Case = Mapping[str, Any]
IN_GUIDES: dict[str, Any] = {
    "width_mm": 16.0,
    "gullet_depth_mm": 2.8,
    "thickness_mm": 0.8,
    "guide_span_mm": 284.0,
    "cut_height_mm": 118.0,
    "speed_m_s": 20.0,
}


def _alike(cases: list[Case]) -> list[list[Case]]:
    """Cases with the same inputs given, and the same words among them."""
    groups: dict[object, list[Case]] = defaultdict(list)
    for case in cases:
        words = tuple(sorted((k, v) for k, v in case.items() if not _plain(k, v)))
        groups[(tuple(sorted(case)), str(words))].append(case)
    return list(groups.values())


def _plain(key: str, value: object) -> bool:
    return isinstance(value, float | int) and not isinstance(value, bool) and key != "wheels"


def _compare(many: Any, single: Any, place: int, where: str) -> None:
    if isinstance(single, Mapping):
        for key in single:
            _compare(many[key], single[key], place, f"{where}.{key}")
    elif isinstance(single, float):
        got = float(
            np.broadcast_to(many, (place + 1,) if np.ndim(many) == 0 else many.shape)[place]
        )
        assert got == pytest.approx(single, rel=1e-12, abs=1e-300), where
    elif isinstance(single, str) and isinstance(many, np.ndarray):
        assert many[place] == single, where


@pytest.mark.parametrize("name", sorted(FORMULAS))
def test_an_array_of_cases_is_each_of_them(name: str) -> None:
    """To a part in a million million, in every worked case."""
    formula: Callable[..., Any] = FORMULAS[name]
    cases = [c["in"] for c in json.loads((VECTORS / f"{name}.json").read_text())["cases"]]
    for group in _alike(cases):
        first = group[0]
        stacked = {
            key: as_figure(np.array([float(c[key]) for c in group]))
            if _plain(key, value)
            else value
            for key, value in first.items()
        }
        many = dataclasses.asdict(formula(**stacked))
        for place, case in enumerate(group):
            _compare(many, dataclasses.asdict(formula(**case)), place, name)


def test_a_range_is_checked_once_for_all_of_an_array() -> None:
    with pytest.raises(InputError, match="stress_MPa: -3 is out of range"):
        stability_limit(stress_MPa=as_figure(np.array([80.0, -3.0])), **IN_GUIDES)
    tall = IN_GUIDES | {"cut_height_mm": as_figure(np.array([118.0, 300.0]))}
    with pytest.raises(InputError, match="does not fit between the guides"):
        stability_limit(stress_MPa=80.0, **tall)
    with pytest.raises(InputError, match="is out of range"):
        stability_limit(stress_MPa=as_figure(np.array([80.0, np.nan])), **IN_GUIDES)


@given(st.lists(st.tuples(st.floats(0.05, 20), st.floats(0.05, 20)), min_size=1, max_size=8))
def test_windows_of_many_limits_are_each_window(limits: list[tuple[float, float]]) -> None:
    floor = 1.0
    gullet, hand = (as_figure(np.array(side)) for side in zip(*limits, strict=True))
    many = window_from_limits({"gullet": gullet, "hand": hand}, floor)
    for place, (one, other) in enumerate(limits):
        single = window_from_limits({"gullet": one, "hand": other}, floor)
        assert as_array(many.ceiling_m_min)[place] == single.ceiling_m_min
        assert (many.state[place], many.binding[place]) == (single.state, single.binding)
        feed = np.asarray(many.recommended_m_min)[place]
        wanted = single.recommended_m_min
        assert np.isnan(feed) if wanted is None else feed == wanted


def test_columns_checked_before_are_not_checked_again_but_numbers_are() -> None:
    far = as_figure(np.array([80.0, 2e6]))
    with columns_checked():
        assert as_array(
            stability_limit(stress_MPa=far, **IN_GUIDES).critical_feed_force_N
        ).shape == (2,)
        with pytest.raises(InputError, match="stress_MPa"):
            stability_limit(stress_MPa=-3.0, **IN_GUIDES)
    with pytest.raises(InputError, match="stress_MPa"):
        stability_limit(stress_MPa=far, **IN_GUIDES)
