"""Every school of every house rule does something, and every input of a cut moves an answer."""

import dataclasses
import json
from typing import Any

import pytest

from jade_ribbon.core.choosing.choose import choose
from jade_ribbon.core.choosing.explanation.rules_at_work import (
    AT_WORK,
    SAID_ANYHOW,
    offered,
    other_schools,
    rules_applied,
)
from jade_ribbon.core.job import Job, Rules
from jade_ribbon.formats.job import JobFile, RulesFile
from jade_ribbon.formats.recommendation import recommend
from jade_ribbon.reference.tables import house_rules
from tests.support.jobs import K07, in_material, with_cut, with_saw
from tests.support.shop import JOB_FILE

LARCH = JobFile.model_validate_json(JOB_FILE.read_text()).to_core()
OTHERS = tuple(c for c in LARCH.bands if c.width_mm in (19.0, 25.4, 38.0, 31.75))


def _rack(job: Job) -> Job:
    """With bands of the rack: one on the saw, one half dull, one narrow."""
    mounted = dataclasses.replace(K07, mounted=True, band_id=1)
    tired = dataclasses.replace(K07, label="tired", band_id=2, dullness=0.7)
    narrow = dataclasses.replace(
        K07, label="narrow", band_id=3, width_mm=6.35, thickness_mm=0.64, tpi_lo=3.0, tpi_hi=3.0
    )
    return dataclasses.replace(job, bands=(*OTHERS, mounted, tired, narrow))


def _mill() -> Job:
    job = in_material(
        LARCH,
        "scots_pine_green",
        operation="mill",
        height_mm=260.0,
        log_diameter_mm=300.0,
        length_mm=3000.0,
    )
    drive = dataclasses.replace(
        job.saw.drive, kind="inverter", base_hz=50.0, min_hz=10.0, max_hz=60.0, base_speed_m_s=28.0
    )
    return with_saw(
        job,
        wheel_diameters_mm=(500.0, 500.0),
        band_width_mm=(25.0, 38.0),
        band_thickness_max_mm=1.1,
        band_length_mm=(4000.0, 4030.0),
        wheel_force_max_N=9500.0,
        motor_kW=7.5,
        feed="carriage",
        height_mm=500.0,
        drive=drive,
    )


JOBS = (
    LARCH,
    _rack(LARCH),
    _mill(),
    with_cut(LARCH, finish="show"),
    with_cut(LARCH, operation="veneer", finish="show", height_mm=90.0),
    with_cut(LARCH, height_mm=12.0, operation="rip"),
    with_cut(LARCH, operation="curve", min_radius_mm=120.0, height_mm=40.0),
    with_cut(LARCH, operation="reclaim"),
    dataclasses.replace(_rack(LARCH), bands=_rack(LARCH).bands[-1:]),
    with_cut(dataclasses.replace(LARCH, bands=_rack(LARCH).bands[-2:-1]), finish="sand"),
    dataclasses.replace(
        LARCH,
        bands=(*OTHERS, dataclasses.replace(K07, label="on", tpi_lo=3.0, tpi_hi=3.0, mounted=True)),
    ),
    in_material(_mill(), "dirty_bark_log"),
)
CHOOSING = [
    (key, choice)
    for key in RulesFile.model_fields
    if key in house_rules()
    for choice in house_rules()[key].choices
    if choice != house_rules()[key].default
]


def _answer(job: Job) -> str:
    """The answer without the rules it names: a school must do more than be named."""
    found = recommend(job)
    return json.dumps({k: v for k, v in found.items() if k != "rules_applied"})


@pytest.fixture(scope="module")
def usual() -> list[str]:
    return [_answer(job) for job in JOBS]


@pytest.mark.parametrize(("rule", "choice"), CHOOSING)
def test_every_school_changes_the_answer_of_a_job(rule: str, choice: str, usual: list[str]) -> None:
    value = type(getattr(Rules(), rule))(choice)
    rules = dataclasses.replace(Rules(), **{rule: value})
    assert any(
        _answer(dataclasses.replace(job, rules=rules)) != before
        for job, before in zip(JOBS, usual, strict=True)
    )


def _run(job: Job) -> tuple[object, ...]:
    """Which kind of band a job is run with, and how."""
    best = choose(job).best
    if best is None or best.evaluation.speed is None:
        return ()
    e, band = best.evaluation, best.evaluation.facts.band
    kind = (band.width_mm, band.thickness_mm, band.tpi_lo, band.form, band.steel)
    figures = (best.evaluation.speed.speed_m_s, best.run.feed_m_min, e.stress_MPa)
    return (*kind, *(f"{x:.6g}" for x in figures))


@pytest.mark.parametrize("job", JOBS)
def test_a_rule_is_named_where_another_school_runs_another_band_and_offered_there(
    job: Job,
) -> None:
    choice, usual = choose(job), _run(job)
    named = {r.rule for r in rules_applied(choice.best, choice, job)}
    for rule in AT_WORK:
        moved = any(_run(other) != usual for _, other in other_schools(job, rule))
        assert not moved or rule in offered(job), f"{rule} is not offered and moves the choice"
        if rule not in SAID_ANYHOW:
            assert moved or rule not in named, f"{rule} is named and moves nothing"


def test_a_mill_as_fast_as_it_goes_goes_as_fast_as_its_steel_stands() -> None:
    mill = _mill()
    fast = dataclasses.replace(mill, rules=dataclasses.replace(mill.rules, mill_speed="fast"))
    speeds = []
    for job in (mill, fast):
        best = choose(job).best
        assert best is not None and best.evaluation.speed is not None
        speeds.append(best.evaluation.speed)
    most = min(speeds[1].accepted.most_m_s * 1.02, mill.saw.drive.fastest_m_s)
    assert speeds[0].speed_m_s < speeds[1].speed_m_s <= most


@pytest.mark.parametrize(
    ("name", "changed"),
    [
        ("tolerance_mm", {"tolerance_mm": 0.2}),
        ("throat_need_mm", {"throat_need_mm": 391.0}),
        ("stack", {"stack": 2, "height_mm": 60.0}),
        ("backing_mm", {"backing_mm": 12.0}),
        ("angle_deg", {"angle_deg": 20.0}),
    ],
)
def test_every_input_of_a_cut_moves_an_answer(name: str, changed: dict[str, Any]) -> None:
    before = with_cut(LARCH, **{k: v for k, v in changed.items() if k == "height_mm"})
    assert _answer(with_cut(before, **changed)) != _answer(before), name


def test_the_guard_higher_above_the_work_moves_an_answer() -> None:
    high = dataclasses.replace(LARCH, rules=dataclasses.replace(LARCH.rules, guard_gap_mm=50.0))
    low = dataclasses.replace(LARCH, rules=dataclasses.replace(LARCH.rules, guard_gap_mm=6.0))
    held = []
    for job in (low, LARCH, high):
        best = choose(job).best
        assert best is not None and best.evaluation.window is not None
        held.append(best.evaluation.window.limits_m_min["straight"])
    assert held[0] > held[1] > held[2]


def test_a_piece_that_does_not_pass_the_throat_is_refused_with_both_figures() -> None:
    choice = choose(with_cut(LARCH, throat_need_mm=LARCH.saw.throat_mm + 1.0))
    assert choice.best is None
    assert {"throat"} <= {r.key for e in choice.excluded for r in e.conflicts}
    assert choose(with_cut(LARCH, throat_need_mm=LARCH.saw.throat_mm)).best is not None


def test_a_tighter_tolerance_never_lets_the_band_be_fed_faster() -> None:
    limits = []
    for tolerance in (0.1, 0.4, 0.8, 3.0):
        ranked = choose(with_cut(LARCH, tolerance_mm=tolerance)).ranked
        label = "19 × 0.81 3 tpi hook flexible-back carbon steel"
        limits += [
            r.evaluation.window.limits_m_min["straight"]
            for r in ranked
            if r.evaluation.facts.band.label == label and r.evaluation.window is not None
        ]
    assert len(limits) == 4 and limits == sorted(limits)


@pytest.mark.parametrize("material", ["grp", "cfrp"])
def test_a_composite_is_ground_by_a_grit_edge_at_the_rate_it_takes_off(material: str) -> None:
    best = choose(
        in_material(LARCH, material, operation="sheet", height_mm=8.0, length_mm=400.0)
    ).best
    assert best is not None and best.evaluation.facts.steel.is_grit
    window = best.evaluation.window
    assert window is not None and window.state == "open"
    assert best.run.feed_m_min <= window.limits_m_min["grit"] * (1 + 1e-9)
