"""The card says the shop's own ways, one stress in every form."""

import dataclasses
from typing import Any

import pytest

from jade_ribbon.core.choosing.choose import choose
from jade_ribbon.core.job import Job
from jade_ribbon.core.quantities.words import join, metric
from jade_ribbon.core.setup.card import setup_card
from jade_ribbon.core.setup.words import ShopHabits, coplanar_limit_of
from tests.support.histories import K07


def card_of(job: Job, **habits: Any) -> Any:
    best = choose(dataclasses.replace(job, bands=(K07,))).best
    assert best is not None
    return setup_card(best, job, gauge_length_mm=50.0, habits=ShopHabits(**habits))


def said(step: Any) -> str:
    """Everything a step says, in metric."""
    return metric(join(" ", (step.figure, step.do, step.check, step.wrong)))


def test_the_card_gives_one_stress_in_every_form(job: Job) -> None:
    tension = card_of(job).tension
    assert tension.wheel_force_N == pytest.approx(3200)
    assert tension.forms.gauge_stretch_um == pytest.approx(tension.stress_MPa / 206_000 * 50_000)
    span = (3360 - 3.14159265 * 400) / 2
    assert tension.free_span_mm == pytest.approx(span)
    assert tension.side_push is not None
    assert 2 * (tension.side_push.deflection_mm / span) ** 2 < 0.05 * tension.stress_MPa / 206_000
    assert tension.note_Hz is not None and 40 < tension.note_Hz < 100


def test_three_wheels_have_no_free_span_to_pluck(job: Job) -> None:
    saw = dataclasses.replace(job.saw, wheel_diameters_mm=(400.0, 400.0, 400.0))
    tension = card_of(dataclasses.replace(job, saw=saw)).tension
    assert (tension.note_Hz, tension.side_push, tension.wheel_travel_mm) == (None, None, None)
    assert tension.wheel_force_N == pytest.approx(
        min(150, 3200 / 3**0.5 / 11.8924) * 11.89242 * 3**0.5, rel=1e-4
    )


def test_the_card_follows_house_rules_and_guides(job: Job) -> None:
    steps = {s.key: s for s in card_of(job).steps}
    assert metric(steps["guard"].figure) == "195 mm"
    assert "sides 0.10 mm, thrust 0.30 mm" in said(steps["guides_upper"])
    assert "centred on the crown" in said(steps["rough_track"])
    assert "gauge" in said(steps["tension"])
    assert "Plucked" in said(
        {s.key: s for s in card_of(job, tension_means="pluck").steps}["tension"]
    )
    wide = {s.key: s for s in card_of(job, side_gap="wide").steps}
    assert "sides 0.80 mm" in said(wide["guides_lower"])
    flat = dataclasses.replace(job, saw=dataclasses.replace(job.saw, tyre="flat"))
    assert "front edge" in said({s.key: s for s in card_of(flat).steps}["rough_track"])


def test_the_card_says_the_shop_s_own_ways(job: Job) -> None:
    usual = {s.key: s for s in card_of(job).steps}
    assert "halve from the middle outwards" in said(usual["table"])
    assert "over 3 mm" in said(usual["fine_track"])
    assert "Up to 2°: set the fence" in said(usual["drift"])
    own = {
        s.key: s
        for s in card_of(
            job, coplanar="always", drift="tracking", reactive="one_face", weld="running"
        ).steps
    }
    assert "true them if not" in said(own["fine_track"])
    assert "slice from one face" in said(own["table"])
    assert "Steer a small drift" in said(own["drift"])
    assert "Dress the back edge only" in said(own["start"])


def test_a_flat_or_big_wheel_is_trued_sooner(job: Job) -> None:
    assert coplanar_limit_of(job.saw) == 3.0
    for changed in ({"tyre": "flat"}, {"wheel_diameters_mm": (600.0, 600.0)}):
        saw = dataclasses.replace(job.saw, **changed)
        assert coplanar_limit_of(saw) == 1.0
