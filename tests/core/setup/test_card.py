"""Which steps a saw, band and cut get, in which order, and what they say."""

import dataclasses
import re
from typing import Any

import pytest

from jade_ribbon.core.choosing.choose import choose
from jade_ribbon.core.job import Candidate, Job
from jade_ribbon.core.quantities.words import Quantity, join, metric
from jade_ribbon.core.setup.card import SetupCard, left_out, setup_card
from jade_ribbon.core.setup.figures import RollerPress
from jade_ribbon.core.setup.fittings import Fittings
from jade_ribbon.core.setup.kinds_of_saw import preflight_for
from jade_ribbon.core.setup.tension.calibration import CalibrationPoint, fit_scale
from jade_ribbon.core.setup.tension.tension_reading import Calibrated
from jade_ribbon.core.setup.words import ShopHabits
from jade_ribbon.reference.rows import applies
from jade_ribbon.reference.tables import materials, setup_step_texts
from tests.support.jobs import K07, with_cut, with_saw

NARROW = Candidate("K-01", 1.8, 0.4, 20.0, 20.0, "regular", "carbon_flexback", length_mm=3360.0)


def card(
    job: Job,
    band: Candidate = K07,
    fittings: Fittings | None = None,
    calibrated: Calibrated | None = None,
    **habits: Any,
) -> SetupCard:
    best = choose(dataclasses.replace(job, bands=(band,))).best
    assert best is not None
    return setup_card(
        best,
        job,
        gauge_length_mm=100.0,
        habits=ShopHabits(**habits),
        fittings=fittings,
        calibrated=calibrated,
    )


def keys(found: SetupCard) -> list[str]:
    return [s.key for s in found.steps]


def said(found: SetupCard, key: str) -> str:
    step = next(s for s in found.steps if s.key == key)
    return metric(join(" ", (step.title, step.figure, step.do, step.check, step.wrong)))


def test_an_upright_saw_has_every_step_in_working_order(job: Job) -> None:
    assert keys(card(job)) == [
        "isolate",
        "inspect",
        "guides_back",
        "mount",
        "rough_track",
        "tension",
        "fine_track",
        "guard",
        "guides_upper",
        "guides_lower",
        "table",
        "table_pin",
        "speed",
        "start",
        "drift",
        "trial",
    ]


def test_every_step_with_doors_open_comes_after_isolating_and_before_the_bump(job: Job) -> None:
    steps = card(job).steps
    open_ = [i for i, s in enumerate(steps) if s.doors_open]
    assert steps[0].key == "isolate"
    assert min(open_) > 0 and max(open_) < keys(card(job)).index("start")


def test_no_sentence_leaves_a_brace_or_a_double_space(job: Job) -> None:
    for step in card(job).steps:
        for text in (step.do, step.check, step.wrong, step.figure):
            assert not re.search(r"[{}]|  | \.", metric(text)), (step.key, text)


def a_mill(job: Job) -> Job:
    lying = {"orientation": "horizontal", "feed": "carriage", "guides": "rolling"}
    return with_cut(with_saw(job, **lying), operation="mill")


def test_a_mill_s_card_is_a_mill_s(job: Job) -> None:
    found = card(a_mill(job))
    assert not {"table_pin", "drift", "coolant", "down_feed"} & set(keys(found))
    assert "toward the oncoming log" in said(found, "inspect")
    assert "toward the oncoming log" in said(found, "mount")
    assert said(found, "table").startswith("Band parallel to the bed")
    for key in ("guides_upper", "guides_lower"):
        assert "6 to 8 mm" in said(found, key) and "3 mm behind" in said(found, key)
        assert keys(found).count(key) == 1
    whole = " ".join(said(found, key) for key in keys(found))
    assert not re.search("side gap|sides 0|push stick|square to the table|table", whole.lower())
    assert found.guides.side_gap_mm is None
    own = card(a_mill(job), fittings=Fittings(manual_roller_press_mm=5.0))
    assert own.guides.roller_press_mm == RollerPress(4.0, 6.0)


def test_a_mill_s_readings_are_held_against_its_own_limits(job: Job) -> None:
    found = card(a_mill(job))
    rollers = next(s for s in found.steps if s.key == "guides_lower")
    assert left_out(rollers, {"press_mm": 7.0, "flange_mm": 3.0}) == ()
    assert len(left_out(rollers, {"press_mm": 3.0, "flange_mm": 0.0})) == 2
    bed = next(s for s in found.steps if s.key == "table")
    assert left_out(bed, {"near_mm": 300.0, "far_mm": 300.5}) == ()
    assert "apart from end to end" in metric(left_out(bed, {"near_mm": 300.0, "far_mm": 303.0})[0])


METAL_BAND = dataclasses.replace(
    K07, tpi_lo=6.0, tpi_hi=10.0, form="variable", steel="bimetal_m42", set_per_side_mm=None
)


def a_metal_saw(job: Job, material: str = "mild_steel") -> Job:
    slow = dataclasses.replace(job.saw.drive, speeds_m_s=(0.35, 0.65, 1.1, 1.5))
    lying = {"orientation": "horizontal", "feed": "power", "feed_max_m_min": 0.3, "drive": slow}
    bar = {"operation": "bar", "material": materials()[material], "height_mm": 40.0}
    return with_cut(with_saw(job, **lying), **bar, tolerance_mm=None)


def test_a_metal_saw_has_its_vice_coolant_down_feed_and_brush(job: Job) -> None:
    found = card(a_metal_saw(job), METAL_BAND)
    assert {"coolant", "down_feed", "chip_brush"} < set(keys(found))
    assert "Vice jaws clean" in said(found, "table")
    assert "strength 5 to 10 %" in said(found, "coolant")
    assert "coolant running" in said(found, "start")
    whole = " ".join(said(found, key) for key in keys(found))
    assert not re.search("push stick|extraction|oncoming log", whole)
    dry = keys(card(a_metal_saw(job, "grey_cast_iron"), METAL_BAND))
    assert "coolant" not in dry and "chip_brush" in dry


def test_the_taps_before_the_start_are_those_of_the_saw(job: Job) -> None:
    for one, words in (
        (job, "Push stick"),
        (a_mill(job), "band's plane"),
        (a_metal_saw(job), "Work clamped"),
    ):
        taps = preflight_for(one.saw)
        assert [t.key for t in taps] == ["hands", "extraction", "support", "isolator"]
        assert words in taps[0].name


def test_no_guides_no_guide_steps(job: Job) -> None:
    bare = keys(card(with_saw(job, guides="none")))
    assert not {"guides_back", "guides_upper", "guides_lower"} & set(bare)


def test_a_very_narrow_band_runs_on_the_thrust_alone(job: Job) -> None:
    curve = with_cut(
        with_saw(job, band_width_mm=(1.5, 25.0), guide_span_base_mm=20.0),
        operation="curve",
        height_mm=5.0,
        min_radius_mm=130.0,
        finish="rough",
    )
    found = card(curve, NARROW)
    assert "runs on the thrust alone" in said(found, "guides_upper")
    assert found.guides.side_gap_mm is None
    assert "drift" not in keys(found)


def test_guides_go_lower_first_and_thrust_first_where_the_shop_does(job: Job) -> None:
    found = card(job, guide_order="lower_first", guide_first="thrust_first")
    order = keys(found)
    assert order.index("guides_lower") < order.index("guides_upper")
    assert order.index("guides_upper") == order.index("guides_lower") + 1
    assert "thrust first, then sides" in said(found, "guides_upper")


def test_three_wheels_are_named(job: Job) -> None:
    three = with_saw(job, wheel_diameters_mm=(400.0, 400.0, 400.0))
    assert "over the third wheel" in said(card(three), "mount")
    assert "third wheel" not in said(card(job), "mount")


@pytest.mark.parametrize(
    ("fittings", "rule", "words"),
    [
        (None, "centred", "centred on the crown"),
        (Fittings(tyre_width_mm=22.0), "centred", "wider than four fifths of the tyre"),
        (Fittings(tyre_width_mm=28.0), "centred", "centred on the crown"),
        (Fittings(tyre_width_mm=60.0), "centred", "centred on the crown"),
        (None, "forward", "slightly forward of centre"),
        (None, "front_edge", "teeth at or just over the front edge"),
    ],
)
def test_the_band_rides_by_rule_tyre_and_width(
    job: Job, fittings: Fittings | None, rule: str, words: str
) -> None:
    assert words in said(card(job, fittings=fittings, band_position=rule), "rough_track")


def test_the_saw_s_manual_wins_over_the_house_rule_for_gaps(job: Job) -> None:
    manual = Fittings(manual_side_gap_mm=0.25, manual_thrust_gap_mm=0.5)
    found = card(job, fittings=manual, side_gap="wide")
    assert (found.guides.side_gap_mm, found.guides.thrust_gap_mm) == (0.25, 0.5)
    assert "sides 0.25 mm, thrust 0.50 mm" in said(found, "guides_upper")
    soft = card(with_saw(job, guides="soft_block"))
    assert "sides just touching" in said(soft, "guides_upper")


def test_the_knob_is_told_as_this_saw_has_it(job: Job) -> None:
    assert "Try which way" in said(card(job), "rough_track")
    known = card(job, fittings=Fittings(knob="clockwise_forward"))
    assert "clockwise moves it forward" in said(known, "rough_track")


@pytest.mark.parametrize(
    ("means", "words"),
    [
        ("gauge", "fixed jaw first, shows 65 µm over 100 mm"),
        ("pluck", "it sounds"),
        ("push", "pushes the middle of the span"),
        ("travel", "Wheel travel is no reading until calibrated here. The gauge"),
    ],
)
def test_tension_is_checked_by_the_means_the_shop_owns(job: Job, means: str, words: str) -> None:
    assert words in said(card(job, tension_means=means), "tension")


def test_a_calibrated_scale_and_travel_are_told_as_calibrated(job: Job) -> None:
    points = [CalibrationPoint(s, 20.0 * s, 14.68, 0.81) for s in (3, 6, 9)]
    known = Calibrated(scale=fit_scale(points, force_per_strand=2.0), travel_give=0.25)
    found = card(job, tension_means="scale", calibrated=known)
    assert found.tension.scale is not None
    assert found.tension.scale.reading == pytest.approx(134.5 / 20, rel=0.01)
    assert "as calibrated here, stands at 6.7" in said(found, "tension")
    plain = card(job).tension
    assert plain.wheel_travel_mm is None and found.tension.wheel_travel_mm is not None
    assert found.tension.wheel_travel_mm == pytest.approx(plain.forms.wheel_travel_mm / 0.75)
    by_travel = card(job, tension_means="travel", calibrated=known)
    assert "From snug the wheel has moved" in said(by_travel, "tension")


def test_a_wedge_tilts_the_table_and_puts_the_fence_on_the_low_side(job: Job) -> None:
    wedge = with_cut(job, operation="wedge", angle_deg=5.0)
    assert "tilted 5 degrees, fence on its low side" in said(card(wedge), "table")
    assert "tilted" not in said(card(job), "table")


def test_rows_apply_by_tags_that_hold_and_do_not() -> None:
    mounts = [t for t in setup_step_texts() if t.key == "mount"]
    assert [applies(t.when, {"vertical"}) for t in mounts] == [True, False, False]
    assert [applies(t.when, {"horizontal"}) for t in mounts] == [False, False, True]
    assert [applies(t.when, {"horizontal", "mill"}) for t in mounts] == [False, True, False]


def test_the_speed_is_set_as_the_drive_lets_it(job: Job) -> None:
    one = with_saw(job, drive=dataclasses.replace(job.saw.drive, speeds_m_s=(14.5,)))
    assert "This saw has the one speed, 14.5 m/s" in said(card(one), "speed")
    step = next(s for s in card(job).steps if s.key == "speed")
    assert step.doors_open and step.reserve == "wiring"


def test_quantities_are_left_open_for_the_reader_s_units(job: Job) -> None:
    step = next(s for s in card(job).steps if s.key == "guard")
    assert step.figure.parts == (Quantity(195.0, "length"),)
    assert metric(step.figure) == "195 mm"
