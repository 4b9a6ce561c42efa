"""Cautions: each applies where it should and only there."""

import dataclasses
from typing import Any

import pytest

from jade_ribbon.core.choosing.choose import choose
from jade_ribbon.core.choosing.explanation.cautions import (
    ALWAYS,
    DISCLAIMER,
    LEVEL_ORDER,
    STANDING,
    Caution,
    cautions_for,
)
from jade_ribbon.core.job import Job, Rules
from jade_ribbon.core.quantities.words import metric
from jade_ribbon.reference.tables import caution_texts, materials


def changed(job: Job, saw: dict[str, Any] | None = None, **cut: Any) -> Job:
    if isinstance(cut.get("material"), str):
        cut["material"] = materials()[cut["material"]]
    return dataclasses.replace(
        job,
        cut=dataclasses.replace(job.cut, **cut),
        saw=dataclasses.replace(job.saw, **(saw or {})),
    )


def told(job: Job) -> dict[str, Caution]:
    return {c.key: c for c in cautions_for(job, choose(job).best)}


def test_the_usual_ones_are_always_there(job: Job) -> None:
    assert set(ALWAYS) <= set(told(job))
    assert DISCLAIMER.startswith("The saw's manual, your local codes")


def test_stops_come_first(job: Job) -> None:
    found = cautions_for(changed(job, round_stock=True), None)
    order = [(c.level != "stop", c.standing, LEVEL_ORDER.index(c.level)) for c in found]
    assert order == sorted(order)
    assert found[0].key == "round_stock"
    standing = {c.key for c in found if c.standing}
    assert standing == STANDING - {"before_start_mill", "before_start_metal"}


@pytest.mark.parametrize(
    ("key", "cut"),
    [
        ("round_stock", {"round_stock": True}),
        ("unsupported", {"operation": "curve", "min_radius_mm": 300.0}),
        ("curves", {"operation": "circle", "min_radius_mm": 300.0}),
        ("metal_in_wood", {"operation": "reclaim"}),
        ("old_timber", {"material": "reclaimed_nails"}),
        ("magnesium", {"material": "magnesium_alloy", "operation": "bar", "height_mm": 30.0}),
        ("light_metal_dust", {"material": "aluminium_6061", "height_mm": 30.0}),
        ("metal_on_wood_saw", {"material": "brass_free_cutting", "height_mm": 30.0}),
        ("conducting_dust", {"material": "graphite", "height_mm": 30.0}),
        ("conducting_dust", {"material": "cfrp", "height_mm": 10.0}),
        ("plastics", {"material": "hdpe", "height_mm": 30.0}),
        ("foam", {"material": "eps_xps_foam"}),
        ("dust", {"material": "iroko_dry"}),
        ("tilted", {"angle_deg": 5.0}),
        ("milling", {"operation": "mill", "material": "scots_pine_green"}),
        ("breakout", {"material": "scots_pine_green"}),
        ("ferrous_wood_speed", {"material": "mild_steel", "height_mm": 30.0}),
        ("long_stock", {"length_mm": 2400.0}),
    ],
)
def test_it_applies_here_and_not_to_plain_work(job: Job, key: str, cut: dict[str, Any]) -> None:
    plain = changed(job, length_mm=600.0)
    assert key not in told(plain)
    assert key in told(changed(plain, **cut))


@pytest.mark.parametrize(
    ("key", "saw"),
    [
        ("power_feed", {"feed": "power"}),
        ("unknown_frame", {"wheel_force_max_N": None}),
        ("hot_cut", {"motor_kW": 0.35}),
    ],
)
def test_it_applies_to_this_saw(job: Job, key: str, saw: dict[str, Any]) -> None:
    assert key not in told(job)
    assert key in told(changed(job, saw))


def test_a_horizontal_saw_has_no_hands_at_its_table(job: Job) -> None:
    assert "hands" in told(job)
    assert "hands" not in told(changed(job, {"orientation": "horizontal"}))


def test_figures_stand_in_the_words(job: Job) -> None:
    fast = dataclasses.replace(job.saw.drive, speeds_m_s=(40.0,))
    over = told(changed(job, {"drive": fast}))["overspeed"].text.said()
    assert "40" in over and "35" in over
    assert "1.3 times" in over
    power = told(changed(job, {"feed": "power"}))
    best = choose(changed(job, {"feed": "power"})).best
    assert best is not None and best.evaluation.stability is not None
    half = best.evaluation.stability.critical_feed_force_N / 2
    assert f"{half:.0f} N" in metric(power["power_feed"].text)


def test_the_dust_is_named(job: Job) -> None:
    assert "sensitiser" in told(changed(job, material="western_red_cedar_dry"))["dust"].text.said()
    assert "nasal carcinogen" in told(changed(job, material="red_oak_dry"))["dust"].text.said()


@pytest.mark.parametrize(
    ("rule", "words"),
    [("dig_out", "dig the metal out"), ("saw_through", "saw through"), ("compare", "by cost")],
)
def test_old_metal_follows_the_house_rule(job: Job, rule: str, words: str) -> None:
    old = dataclasses.replace(
        changed(job, operation="reclaim"),
        rules=Rules(old_metal=rule),  # type: ignore[arg-type]
    )
    assert words in metric(told(old)["metal_in_wood"].text)


def test_no_words_are_left_unfilled(job: Job) -> None:
    for material in materials():
        for operation in ("resaw", "curve", "bar", "reclaim", "mill"):
            cut = changed(
                job, material=material, operation=operation, min_radius_mm=200.0, height_mm=60.0
            )
            for caution in cautions_for(cut, None):
                if caution.key not in ("power_feed", "overspeed", "hot_cut", "fatigue_hours"):
                    assert "{" not in metric(caution.text)


def test_every_level_is_known() -> None:
    assert {c.level for c in caution_texts().values()} <= set(LEVEL_ORDER)
