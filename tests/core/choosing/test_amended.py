"""Rules of the choice that shops corrected: each with a case whose answer moves with it."""

import dataclasses

import pytest

from jade_ribbon.core.bands.reach import assumed_frame_force_N, frame_force_N
from jade_ribbon.core.choosing.choose import (
    HOURS_CLASS,
    RUBS_CLASS,
    choose,
    class_of,
    wanted_pitch_mm,
)
from jade_ribbon.core.choosing.conflicts import least_teeth
from jade_ribbon.core.choosing.evaluate import evaluate
from jade_ribbon.core.choosing.limits import hand_pace_m_min, rubbing, steering_m_min
from jade_ribbon.core.choosing.uncertainty.chances import chances, cost_range
from jade_ribbon.core.job import Job
from jade_ribbon.core.mechanics.feed import Limit, slow_wear, window_from_limits
from tests.support.jobs import with_cut, with_rules, with_saw


@pytest.mark.parametrize(
    ("cut", "pitch"),
    [
        ({"height_mm": 185.0}, 1.3 * 185**0.45),
        ({"operation": "crosscut", "height_mm": 100.0}, 0.38 * 100**0.6),
        ({"operation": "sheet", "material": "hdpe", "height_mm": 40.0}, 0.8 * 40**0.6),
        ({"operation": "block", "material": "mild_steel", "height_mm": 60.0}, 0.32 * 60**0.7),
        (
            {
                "operation": "bar",
                "material": "mild_steel",
                "height_mm": 60.0,
                "round_stock": True,
            },
            0.32 * (0.85 * 60) ** 0.7,
        ),
        (
            {"operation": "tube", "material": "mild_steel", "height_mm": 40.0, "wall_mm": 4.0},
            0.32 * (1.4 * (4 * 36) ** 0.5) ** 0.7,
        ),
        ({"operation": "sheet", "material": "mild_steel", "height_mm": 3.0}, 1.4),
    ],
)
def test_pitch_is_wanted_by_height_and_material(
    job: Job, cut: dict[str, object], pitch: float
) -> None:
    given = {"material": "european_larch_dry", "min_radius_mm": None, **cut}
    assert wanted_pitch_mm(with_cut(job, **given)) == pytest.approx(pitch)


def test_tube_counts_its_teeth_as_it_wants_its_pitch(job: Job) -> None:
    tube = with_cut(job, operation="tube", material="mild_steel", height_mm=40.0, wall_mm=4.0)
    assert tube.cut.teeth_height_mm == pytest.approx(16.8)
    assert least_teeth(tube) == 5


@pytest.mark.parametrize(
    ("cut", "pace"),
    [
        ({}, 8.0),
        ({"material": "hdpe", "operation": "sheet"}, 3.0),
        ({"material": "mild_steel", "operation": "bar"}, 1.5),
        ({"operation": "curve", "min_radius_mm": 90.0}, 5.0),
        ({"height_mm": 9.0}, 4.0),
        ({"material": "hdpe", "operation": "sheet", "height_mm": 5.0}, 3.0),
    ],
)
def test_a_hand_goes_as_slow_as_the_least_that_applies(
    job: Job, cut: dict[str, object], pace: float
) -> None:
    assert hand_pace_m_min(with_cut(job, **cut)) == pace


def test_steering_by_hand(job: Job) -> None:
    """0.7 rad/s about a point 15 mm inside R 85: 70 mm/s, 4.2 m/min."""
    curve = with_cut(job, operation="curve", min_radius_mm=85.0)
    assert steering_m_min(curve) == pytest.approx(4.2)


SHUT: dict[Limit, float] = {"gullet": 9.0, "power": 8.0, "edge": 7.0, "pace": 1.0}


@pytest.mark.parametrize(
    ("material", "operation", "limits", "assumed", "state"),
    [
        ("european_larch_dry", "rip", SHUT, False, "rubs"),
        ("european_larch_dry", "rip", SHUT | {"power": 1.5}, False, "shut"),
        ("european_larch_dry", "rip", SHUT | {"edge": 0.5, "pace": 9.0}, False, "shut"),
        ("european_larch_dry", "rip", SHUT | {"edge": 0.5, "pace": 9.0}, True, "rubs"),
        ("european_larch_dry", "circle", SHUT | {"power": 1.5}, False, "rubs"),
        ("stainless_304", "bar", SHUT, False, "shut"),
        ("pvc", "sheet", SHUT, False, "shut"),
    ],
)
def test_what_may_be_rubbed_through(
    job: Job, material: str, operation: str, limits: dict[Limit, float], assumed: bool, state: str
) -> None:
    from jade_ribbon.reference.tables import materials

    key = next(k for k in materials() if k.startswith(material))
    radius = 90.0 if operation == "circle" else None
    cut = with_cut(job, material=key, operation=operation, min_radius_mm=radius)
    cut = with_saw(cut, force_assumed=assumed)
    window = rubbing(window_from_limits(limits, 4.0), cut)
    assert window.state == state
    ceiling = min(limits.values())
    assert window.recommended_m_min == (pytest.approx(0.8 * ceiling) if state == "rubs" else None)


def test_wear_of_a_slow_cut_is_doubled_and_doubled_again() -> None:
    worn = [slow_wear(feed_m_min=f, floor_m_min=2.0, hot_wear=2.0) for f in (2.0, 1.5, 1.0, 0.9)]
    assert worn == [1.0, 2.0, 2.0, 4.0]


def test_an_assumed_force_excludes_nothing(job: Job) -> None:
    weak = with_saw(job, wheel_force_max_N=300.0)
    assert not choose(weak).ranked
    guessed = choose(with_saw(weak, force_assumed=True))
    reasons = {c.key for e in guessed.excluded for c in e.conflicts}
    assert guessed.ranked and "frame_force" not in reasons


def test_a_metal_saw_holds_the_widest_band_it_takes(job: Job) -> None:
    slow = dataclasses.replace(job.saw.drive, speeds_m_s=(0.5, 1.0))
    saw = with_saw(job, wheel_force_max_N=None, drive=slow, wheel_diameters_mm=(250.0, 250.0)).saw
    width, thickness = saw.band_width_mm[1], saw.band_thickness_max_mm
    assert frame_force_N(saw) == pytest.approx(270.0 * width * thickness)
    assert frame_force_N(saw) > assumed_frame_force_N(250.0)


def test_in_metals_width_does_not_decide(job: Job) -> None:
    slow = dataclasses.replace(job.saw.drive, speeds_m_s=(0.5, 1.0))
    metal = with_saw(
        with_cut(job, material="mild_steel", operation="bar", height_mm=40.0), drive=slow
    )
    ranked = choose(metal).ranked
    first = [r for r in ranked if r.band_class == ranked[0].band_class]
    assert len({r.evaluation.facts.band.width_mm for r in first if r.in_width}) > 1


def test_dirt_names_a_steel_before_the_classes(job: Job) -> None:
    def best_steel(rule: str) -> str:
        log = with_cut(job, material="dirty_bark_log", operation="rip", height_mm=60.0)
        best = choose(with_rules(log, dirty_steel=rule)).best
        assert best is not None and best.band_class < HOURS_CLASS
        return best.evaluation.facts.steel.token

    assert best_steel("carbon") == "carbon"


def test_rubbing_stands_after_hot_and_before_hours_ignored(job: Job) -> None:
    tight = with_cut(job, operation="circle", min_radius_mm=45.0, height_mm=180.0)
    rubs = [
        e
        for e in (evaluate(b, tight) for b in tight.bands)
        if not e.conflicts and e.window and e.window.state == "rubs"
    ]
    assert all(class_of(e, tight) >= RUBS_CLASS for e in rubs)


@pytest.mark.parametrize("rule", ["all_round", "saw_each"])
def test_a_band_left_on_by_house_rule_is_looked_at_like_the_others(job: Job, rule: str) -> None:
    """The one on the saw need not be of the last group: it has its lot, its range, its chance."""
    bands = [dataclasses.replace(b, length_mm=3360.0) for b in job.bands]
    ranked = choose(dataclasses.replace(job, bands=tuple(bands))).ranked
    last = ranked[-1].evaluation.facts.band
    on = [dataclasses.replace(b, mounted=b.label == last.label) for b in bands]
    mine = with_rules(dataclasses.replace(job, bands=tuple(on)), how_many_bands=rule)
    choice = choose(mine)
    assert choice.best is not None and choice.best.evaluation.facts.band.label == last.label
    assert cost_range(choice.best, mine).low > 0.0
    told = chances(choice, mine)
    assert told is not None and told.group >= 1
