"""Which steps a saw, band and cut get, in which order, and what they say."""

import dataclasses
import re
from typing import Any

import pytest

from jade_ribbon.core.choosing.choose import choose
from jade_ribbon.core.job import Candidate, Job
from jade_ribbon.core.quantities.words import Quantity, join, metric
from jade_ribbon.core.setup.calibration import CalibrationPoint, fit_scale
from jade_ribbon.core.setup.card import SetupCard, applies, setup_card
from jade_ribbon.core.setup.fittings import Fittings
from jade_ribbon.core.setup.tension_reading import Calibrated
from jade_ribbon.core.setup.words import ShopHabits
from jade_ribbon.reference.tables import setup_step_texts
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


def test_a_mill_has_no_table_pin_nor_drift_and_speaks_of_its_bed(job: Job) -> None:
    mill = with_saw(
        job, orientation="horizontal", feed="carriage", hand_force_N=80.0, guides="rolling"
    )
    found = card(with_cut(mill, operation="mill"))
    assert "table_pin" not in keys(found) and "drift" not in keys(found)
    assert "Bed square to the band" in said(found, "table")
    assert "driven wheel first" in said(found, "mount")


def test_a_saw_lying_down_has_its_guides_on_two_arms(job: Job) -> None:
    mill = with_saw(
        job, orientation="horizontal", feed="carriage", hand_force_N=80.0, guides="rolling"
    )
    lying, upright = card(with_cut(mill, operation="mill")), card(job)
    for key in ("guides_back", "guides_upper", "guides_lower", "guard"):
        assert not re.search("upper|lower|table", said(lying, key).lower()), key
        assert keys(lying).count(key) == keys(upright).count(key) == 1
    assert said(lying, "guides_upper").startswith("Movable arm guides 0.10 mm ")
    assert said(lying, "guides_lower").startswith("Fixed arm guides 0.10 mm ")
    assert said(lying, "guard").startswith("Guide arm in 10 mm ")
    assert said(upright, "guard").startswith("Lower the guard 195 mm ")


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
        (Fittings(tyre_width_mm=28.0), "centred", "wider than half the tyre"),
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
    assert [applies(t, {"vertical"}) for t in mounts] == [True, False]
    assert [applies(t, {"horizontal"}) for t in mounts] == [False, True]


def test_the_speed_is_set_as_the_drive_lets_it(job: Job) -> None:
    one = with_saw(job, drive=dataclasses.replace(job.saw.drive, speeds_m_s=(14.5,)))
    assert "This saw has the one speed, 14.5 m/s" in said(card(one), "speed")
    step = next(s for s in card(job).steps if s.key == "speed")
    assert step.doors_open and step.reserve == "wiring"


def test_quantities_are_left_open_for_the_reader_s_units(job: Job) -> None:
    step = next(s for s in card(job).steps if s.key == "guard")
    assert step.figure.parts == (Quantity(195.0, "length"),)
    assert metric(step.figure) == "195 mm"
