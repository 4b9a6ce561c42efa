"""Senseless input is refused in words that name field, value and range."""

import math
from typing import Any

import pytest

from jade_ribbon.core.calc import CALCULATIONS, calculate, calculate_all
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import metric

GEOMETRY = {"width_mm": 19.0, "thickness_mm": 0.81, "kerf_mm": 1.4}


def faults(name: str, given: Any) -> list[tuple[str, str]]:
    with pytest.raises(InputError) as caught:
        calculate(name, given)
    return [(f.path, metric(f.message)) for f in caught.value.faults]


def test_every_fault_is_told_at_once() -> None:
    told = faults("min_radius", {"width_mm": -1.0, "thickness_mm": math.nan, "kerf_mm": "x"})
    assert told == [
        ("width_mm", "-1 is out of range; accepted: more than 0 and at most 1000"),
        ("thickness_mm", "nan is out of range; accepted: more than 0 and at most 10"),
        ("kerf_mm", "'x' is not a number; give more than 0 and at most 50"),
    ]


def test_missing_and_unknown_inputs_are_named() -> None:
    told = dict(faults("min_radius", {"width_mm": 19.0, "kerf_mm": 1.4, "colour": 1}))
    assert told["thickness_mm"] == "is missing; accepted: more than 0 and at most 10"
    assert told["colour"].startswith("is not an input of this calculation; accepted: width_mm")


@pytest.mark.parametrize(
    ("name", "given", "path", "text"),
    [
        ("min_radius", {**GEOMETRY, "kerf_mm": 0.81}, "kerf_mm", "not wider than the body"),
        (
            "edge_slack",
            {
                "stress_MPa": 100,
                "width_mm": 19,
                "gullet_depth_mm": 3,
                "thickness_mm": 0.8,
                "guide_span_mm": 200,
                "cut_height_mm": 201,
            },
            "cut_height_mm",
            "accepted: at most guide_span_mm 200",
        ),
        (
            "stress_from_pluck",
            {
                "frequency_Hz": 1,
                "width_mm": 19,
                "gullet_depth_mm": 3,
                "thickness_mm": 0.8,
                "span_mm": 200,
            },
            "frequency_Hz",
            "not above the strip's own bending note",
        ),
        (
            "bending_fatigue",
            {
                "tension_stress_MPa": 900,
                "thickness_mm": 1.1,
                "smallest_wheel_diameter_mm": 200,
                "wheels": 2,
                "band_length_mm": 3000,
                "speed_m_s": 15,
                "ultimate_MPa": 1000,
                "endurance_amplitude_MPa": 245,
                "basquin_k": 10,
                "notch_factor": 1,
            },
            "tension_stress_MPa",
            "accepted: a mean under ultimate_MPa 1000",
        ),
        ("thickness_map", {"readings": [[0, 0, 1], [1, 0, 1]]}, "readings", "at least 3"),
        ("thickness_map", {"readings": [[0, 0, 1]] * 5}, "readings", "all readings lie in one"),
        ("thickness_map", {"readings": [[0, 0]]}, "readings.0", "give three numbers"),
        ("survival", {"alpha": 2}, "beta", "is missing"),
        ("nothing", {}, "name", "is not a calculation"),
        ("bite", [], "", "give an object"),
        ("life_posterior", {"retired_m": 3}, "retired_m", "give a list"),
        (
            "drive_speed",
            {
                "motor_rpm": 1425,
                "motor_pulley_mm": 80,
                "wheel_pulley_mm": 200,
                "gear_ratio": 1,
                "wheel_diameter_mm": 400,
                "drive_hz": 50,
            },
            "base_hz",
            "drive_hz is a share of it",
        ),
        (
            "band_geometry",
            {
                "width_mm": 3.2,
                "thickness_mm": 0.6,
                "tpi": 2,
                "gullet_depth_ratio": 0.35,
                "gullet_area_coefficient": 0.2,
                "set_per_side_mm": 0.3,
                "length_mm": 2000,
            },
            "width_mm",
            "leaves no body behind a gullet",
        ),
    ],
)
def test_refusals(name: str, given: Any, path: str, text: str) -> None:
    told = faults(name, given)
    assert any(p == path and text in t for p, t in told), told


RUBBISH: tuple[Any, ...] = (None, "1", True, math.inf, -1e12, [], {})
NO_RUBBISH: list[tuple[str, Any]] = [("diagnose", {})]
"""Nothing told, read or answered is a case of its own: the priors."""


@pytest.mark.parametrize(
    ("name", "value"),
    [(n, v) for n in sorted(CALCULATIONS) for v in RUBBISH if (n, v) not in NO_RUBBISH],
)
def test_no_calculation_answers_rubbish(name: str, value: Any) -> None:
    import inspect

    given = dict.fromkeys(inspect.signature(CALCULATIONS[name]).parameters, value)
    assert faults(name, given)


def test_a_list_of_cases_tells_which_one() -> None:
    good = {"feed_m_min": 2.0, "speed_m_s": 14.5, "pitch_mm": 12.7}
    with pytest.raises(InputError) as caught:
        calculate_all("bite", [good, {**good, "pitch_mm": 0}])
    assert [f.path for f in caught.value.faults] == ["1.pitch_mm"]
    with pytest.raises(InputError, match="give a JSON list"):
        calculate_all("bite", good)
