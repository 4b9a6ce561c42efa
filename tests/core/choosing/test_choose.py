"""The choice of a band: sane to an experienced operator, and by the rules."""

import dataclasses
from typing import Any

import pytest

from jade_ribbon.core.choosing.catalogue import catalogue_candidates
from jade_ribbon.core.choosing.choose import Choice, choose, wanted_pitch_mm
from jade_ribbon.core.choosing.cost import later_minutes_per_m2
from jade_ribbon.core.choosing.evaluate import evaluate
from jade_ribbon.core.job import Candidate, Job, Rates, Rules
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import metric
from jade_ribbon.formats.recommendation import recommend
from tests.support.jobs import K07, with_cut, with_rules, with_saw


def band(choice: Choice) -> Candidate:
    assert choice.best is not None
    return choice.best.evaluation.facts.band


def reasons_against(job: Job, candidate: Candidate) -> dict[str, str]:
    return {r.key: metric(r.text) for r in evaluate(candidate, job).conflicts}


def test_the_worked_example_comes_out_as_by_hand(job: Job) -> None:
    """19 x 0.81, 2 tpi: 3200 N / 2 / (14.68 x 0.81) = 134.5 MPa; 14.6 teeth; motor at 2.54."""
    choice = choose(job)
    best = choice.best
    assert best is not None
    assert band(choice).label == "19 × 0.81 2 tpi hook silicon"
    e = best.evaluation
    depth = 0.34 * 12.7
    assert e.stress_MPa == pytest.approx(3200 / 2 / ((19 - depth) * 0.81))
    assert e.teeth_in_cut == pytest.approx(185 / 12.7)
    assert e.window is not None and e.window.binding == "power"
    kerf = 0.81 * (1 + 2 * 0.38)
    bite = best.run.feed_m_min / 60 * 12.7 / 14.5
    power = 76 * (bite / 0.1) ** -0.35 * kerf * 185 * best.run.feed_m_min / 60
    assert best.run.cut.cutting_power_W == pytest.approx(power)
    assert best.run.feed_m_min == pytest.approx(0.8 * e.window.limits_m_min["power"])


def test_cost_adds_up_by_hand(job: Job) -> None:
    best = choose(job).best
    assert best is not None
    run, facts = best.run, best.evaluation.facts
    area = 0.185 * 3.6
    price = 1.3 * (2 + 0.2 * 19) * 3.36
    assert run.cost.edge == pytest.approx(price * run.equivalent_m / (8000 * 1.3))
    assert run.cost.time == pytest.approx(run.contact.cutting_time_s / 3600 * 40)
    assert run.cost.kerf == pytest.approx(area * facts.kerf_mm / 1000 * 900)
    assert run.cost.change == pytest.approx(12 / 60 * 40 / 7)
    assert run.cost.total == pytest.approx(
        run.cost.edge + run.cost.time + run.cost.kerf + run.cost.change
    )
    assert best.lot is not None and best.total == best.lot.cost.total
    changes = best.lot.forecast.changes_mean
    assert best.lot.cost.change == pytest.approx((1.0 + changes) * 12 / 60 * 40 / 7)
    assert run.cost.total < best.total < 1.02 * run.cost.total


def test_deep_resaw_is_coarse_and_big_saws_take_wide_bands(job: Job) -> None:
    small = with_saw(
        job,
        wheel_diameters_mm=(300.0, 300.0),
        wheel_force_max_N=900.0,
        band_width_mm=(3.0, 16.0),
        motor_kW=0.75,
    )
    big = with_saw(
        job,
        wheel_diameters_mm=(900.0, 900.0),
        wheel_force_max_N=20_000.0,
        band_width_mm=(10.0, 60.0),
        band_thickness_max_mm=1.3,
        motor_kW=7.5,
        height_mm=500.0,
    )
    narrow, wide = band(choose(with_cut(small, height_mm=140.0))), band(choose(big))
    assert narrow.width_mm <= 13 < 25 <= wide.width_mm
    assert (narrow.tpi_hi or 99) <= 4
    assert (wide.tpi_hi or 99) <= 4


def test_thin_slices_off_the_saw_go_fine_and_glue_coarser(job: Job) -> None:
    slices = with_cut(job, operation="veneer", finish="sand", height_mm=120.0)
    glued = with_cut(slices, material="epoxy_laminated_block")
    assert (band(choose(slices)).tpi_lo or 0) > (band(choose(job)).tpi_lo or 0)
    assert wanted_pitch_mm(glued) > wanted_pitch_mm(slices)


def test_tight_curves_take_narrow_bands_and_wide_ones_wide(job: Job) -> None:
    widths = [
        band(choose(with_cut(job, operation="curve", height_mm=40.0, min_radius_mm=r))).width_mm
        for r in (20.0, 60.0, 150.0, 600.0)
    ]
    assert widths == sorted(widths)
    assert widths[0] < 8 < 16 < widths[-1]


def test_metals_keep_three_teeth_and_run_slow(job: Job) -> None:
    maud = with_saw(
        job,
        wheel_force_max_N=6000.0,
        band_width_mm=(6.0, 27.0),
        band_thickness_max_mm=1.0,
        feed="power",
        drive=dataclasses.replace(job.saw.drive, speeds_m_s=(0.4, 0.8, 1.2)),
    )
    steel = with_cut(maud, operation="bar", material="mild_steel", height_mm=20.0, finish="rough")
    best = choose(steel).best
    assert best is not None and best.evaluation.speed is not None
    assert best.evaluation.teeth_in_cut_least >= 3
    assert best.evaluation.speed.speed_m_s <= 1.5 * 1.9
    tube = with_cut(steel, operation="tube", height_mm=40.0, wall_mm=3.0)
    pipe = choose(tube).best
    assert pipe is not None and pipe.evaluation.teeth_in_cut_least >= 2


def test_steel_on_a_wood_speed_saw_is_a_stop(job: Job) -> None:
    steel = with_cut(job, operation="bar", material="mild_steel", height_mm=20.0)
    result = recommend(steel)
    assert result["recommended"] is None
    assert ("ferrous_wood_speed", "stop") in {(c["key"], c["level"]) for c in result["cautions"]}


def test_foam_is_fast_and_graphite_takes_grit(job: Job) -> None:
    foam = choose(
        with_cut(job, operation="block", material="eps_xps_foam", height_mm=150.0, finish="rough")
    ).best
    assert foam is not None and foam.run.feed_m_min > 3
    slow = with_saw(job, drive=dataclasses.replace(job.saw.drive, speeds_m_s=(3.0,)))
    graphite = with_cut(slow, operation="block", material="graphite", height_mm=60.0)
    assert band(choose(graphite)).steel in ("carbide_grit", "diamond_grit")


@pytest.mark.parametrize(
    ("changed", "key", "words"),
    [
        ({"length_mm": 3000.0}, "length", "3000 mm long; the saw takes 3340 to 3380 mm"),
        ({"width_mm": 27.0}, "width", "27 mm wide; the saw takes 3 to 25 mm"),
        ({"thickness_mm": 1.0}, "thickness", "1.00 mm thick; the saw takes up to 0.90 mm"),
        ({"tpi_lo": 1.0, "tpi_hi": 1.0}, "gullet_depth", "at most 30 %"),
        ({"dullness": 0.85}, "dull", "Too dull: 0.85; at most 0.8 for this finish"),
        ({"dullness": 0.7, "fouling": 0.9}, "dull", "with the gum on it: clean it first"),
        ({"form": "mill_high"}, "form", "are for milling logs"),
        (
            {"form": "grit_continuous", "steel": "carbide_grit"},
            "steel",
            "grinds, and burns",
        ),
    ],
)
def test_unfit_bands_say_why(job: Job, changed: dict[str, Any], key: str, words: str) -> None:
    told = reasons_against(job, dataclasses.replace(K07, **changed))
    assert words in metric(told[key])


def test_a_light_frame_excludes_a_band_it_cannot_tension(job: Job) -> None:
    told = reasons_against(with_saw(job, wheel_force_max_N=1000.0), K07)
    assert "under 66.0 MPa its edge goes slack" in metric(told["frame_force"])


def test_small_wheels_exclude_a_thick_band(job: Job) -> None:
    told = reasons_against(with_saw(job, wheel_diameters_mm=(400.0, 240.0)), K07)
    assert told["wheel_ratio"].startswith("Too thick for the wheels: 240/0.81 = 296, under 315")


def test_few_teeth_and_tight_radii_exclude(job: Job) -> None:
    assert "teeth" in reasons_against(with_cut(job, height_mm=30.0), K07)
    assert "radius" in reasons_against(with_cut(job, min_radius_mm=50.0), K07)


def test_never_hard_tips_in_nails_or_grit(job: Job) -> None:
    tipped = dataclasses.replace(K07, steel="carbide_tipped")
    assert "nails" in reasons_against(with_cut(job, operation="reclaim"), tipped)
    assert "dirt" in reasons_against(with_cut(job, material="dirty_bark_log"), tipped)
    assert "hard_tips" in reasons_against(with_rules(job, hard_tips="avoid"), tipped)


def test_unknown_frame_force_is_said(job: Job) -> None:
    result = recommend(with_saw(job, wheel_force_max_N=None))
    assert result["recommended"] is not None
    assert "unknown_frame" in {c["key"] for c in result["cautions"]}
    force = 1400 * (400 / 356) ** 2.5
    assert result["recommended"]["wheel_force_N"] <= force + 1e-6
    heavy = recommend(with_saw(job, wheel_force_max_N=9000.0))
    assert heavy["recommended"]["wheel_force_N"] > force


def test_house_rules_move_the_choice(job: Job) -> None:
    usual = choose(job).best
    narrow = choose(with_rules(job, resaw_width="narrow")).best
    fine = choose(with_rules(job, resaw_pitch="fine")).best
    light = choose(with_rules(job, tension="light")).best
    assert usual and narrow and fine and light
    assert narrow.evaluation.facts.band.width_mm < usual.evaluation.facts.band.width_mm
    assert fine.evaluation.facts.pitch_mm < usual.evaluation.facts.pitch_mm
    assert light.evaluation.stress_MPa < 150 * 0.86
    slight = evaluate(
        dataclasses.replace(K07, tpi_lo=4.0, tpi_hi=4.0, to_buy=True),
        with_rules(job, kerf="slight"),
    ).facts.kerf_mm
    assert slight == pytest.approx(0.81 + 2 * 0.38 * 0.81 * 0.85)


def test_dullness_limits_follow_the_rule_for_changing(job: Job) -> None:
    rates = Rates()
    assert rates.dullness_limit("plane", Rules()) == 0.8
    assert rates.dullness_limit("plane", Rules(change="first_sign")) == 0.35
    assert rates.dullness_limit("show", Rules(change="limit")) == 1.0


def test_a_dear_edge_that_saves_sanding_shows_it() -> None:
    assert later_minutes_per_m2(1, "show", Rates()) == Rates().sand_min_m2 + Rates().show_min_m2
    assert later_minutes_per_m2(3, "plane", Rates()) == 0


def test_a_mill_matches_its_speed_to_its_engine(job: Job) -> None:
    inverter = dataclasses.replace(
        job.saw.drive,
        kind="inverter",
        base_hz=50.0,
        min_hz=10.0,
        max_hz=60.0,
        base_speed_m_s=28.0,
    )
    mill = with_saw(
        job,
        wheel_diameters_mm=(500.0, 500.0),
        band_width_mm=(25.0, 38.0),
        band_thickness_max_mm=1.1,
        band_length_mm=(4000.0, 4030.0),
        wheel_force_max_N=9500.0,
        feed="carriage",
        height_mm=500.0,
        drive=inverter,
    )
    log = with_cut(mill, operation="mill", material="scots_pine_green", height_mm=300.0)
    speeds = []
    for power in (3.0, 7.0, 15.0):
        best = choose(with_saw(log, motor_kW=power)).best
        assert best is not None and best.evaluation.speed is not None
        speeds.append(best.evaluation.speed.speed_m_s)
    assert speeds == sorted(speeds)
    assert speeds[0] < speeds[-1] <= 30


def test_too_high_for_the_saw_is_told(job: Job) -> None:
    with pytest.raises(InputError, match=r"accepted: up to the saw's 300 mm"):
        choose(with_cut(job, height_mm=301.0))


def test_metric_and_inch_bands_agree(job: Job) -> None:
    """The same band written in fractions of an inch gives the same figures."""
    inch = dataclasses.replace(K07, width_mm=25.4 * 0.75, thickness_mm=25.4 * 0.032)
    metric = dataclasses.replace(K07, width_mm=19.05, thickness_mm=0.8128)
    a, b = evaluate(inch, job), evaluate(metric, job)
    assert a.run is not None and b.run is not None
    assert a.run.feed_m_min == pytest.approx(b.run.feed_m_min)
    assert a.stress_MPa == pytest.approx(b.stress_MPa)


def test_raising_the_work_never_makes_the_pitch_finer(job: Job) -> None:
    pitches = []
    for height in range(40, 300, 20):
        choice = choose(with_cut(job, height_mm=float(height)))
        if choice.best is not None:
            pitches.append(choice.best.evaluation.facts.pitch_mm)
    assert len(pitches) > 8
    assert pitches == sorted(pitches)


def test_a_tighter_radius_never_lets_more_bands_turn(job: Job) -> None:
    bands = catalogue_candidates()
    turning = [
        sum(
            "radius" not in reasons_against(with_cut(job, min_radius_mm=r, height_mm=40.0), c)
            for c in bands
        )
        for r in (400.0, 150.0, 60.0, 25.0, 10.0)
    ]
    assert turning == sorted(turning, reverse=True)


def test_a_mounted_band_saves_the_change_over(job: Job) -> None:
    off = evaluate(K07, job).run
    on = evaluate(dataclasses.replace(K07, mounted=True), job).run
    assert off is not None and on is not None
    assert off.cost.total - on.cost.total == pytest.approx(8 / 7)


def test_show_faces_get_two_thirds_of_the_feed(job: Job) -> None:
    show = evaluate(K07, with_cut(job, finish="show", height_mm=100.0))
    assert show.run is not None and show.window is not None
    assert show.window.recommended_m_min is not None
    assert show.run.feed_m_min == pytest.approx(show.window.recommended_m_min * 2 / 3)


@pytest.mark.parametrize("changed", [{"motor_kW": 3.0}, {"wheel_force_max_N": 5000.0}])
def test_more_power_or_tension_never_narrows_a_band_s_window(
    job: Job, changed: dict[str, float]
) -> None:
    own, more = evaluate(K07, job).window, evaluate(K07, with_saw(job, **changed)).window
    assert own is not None and more is not None
    assert more.ceiling_m_min >= own.ceiling_m_min
    assert more.floor_m_min == own.floor_m_min


def test_an_angled_cut_asks_for_a_stiffer_band_and_says_why(job: Job) -> None:
    straight = evaluate(K07, job).window
    angled = evaluate(K07, with_cut(job, angle_deg=10.0)).window
    assert straight is not None and angled is not None
    assert angled.limits_m_min["stability"] < straight.limits_m_min["stability"]
    result = recommend(with_cut(job, angle_deg=10.0))
    assert "stiffness" in {r["key"] for r in result["recommended"]["reasons"]}


def test_a_tube_takes_three_teeth_where_a_band_has_them(job: Job) -> None:
    maud = with_saw(
        job,
        wheel_force_max_N=9000.0,
        band_width_mm=(13.0, 34.0),
        band_thickness_max_mm=1.1,
        feed="power",
        drive=dataclasses.replace(job.saw.drive, speeds_m_s=(0.6, 1.2)),
    )
    for wall in (3.0, 5.0, 8.0):
        tube = with_cut(
            maud,
            operation="tube",
            material="mild_steel",
            height_mm=60.0,
            wall_mm=wall,
            finish="rough",
        )
        best = choose(tube).best
        assert best is not None
        assert best.evaluation.teeth_in_cut_least >= 3


def test_a_shop_may_refuse_slow_and_hot_straight_cuts(job: Job) -> None:
    weak = with_saw(job, motor_kW=0.5)
    offered = {r.band_class for r in choose(weak).ranked}
    strict = {r.band_class for r in choose(with_rules(weak, narrow_straight="impossible")).ranked}
    assert any(c >= 2 for c in offered)
    assert strict < offered
