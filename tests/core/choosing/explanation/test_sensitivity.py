"""What the choice leans on: house rules priced, changes named, flips explained."""

import dataclasses
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from jade_ribbon.core.choosing.catalogue import catalogue_candidates
from jade_ribbon.core.choosing.choose import choose
from jade_ribbon.core.choosing.evaluate import evaluate
from jade_ribbon.core.choosing.explanation.sensitivity import band_key, rule_prices, sways, why_not
from jade_ribbon.core.job import Candidate, Job
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.formats.job import JobFile
from jade_ribbon.formats.recommendation import recommend
from tests.support.jobs import with_cut, with_rules, with_saw
from tests.support.shop import JOB_FILE

LARCH = JobFile.model_validate_json(JOB_FILE.read_text()).to_core()
LADDER = sorted({e.tpi_lo or 0.0 for e in catalogue_candidates()}, reverse=True)


@given(st.floats(20, 250), st.sampled_from([1.001, 0.999, 1.004]))
def test_a_hair_s_change_moves_one_rung_or_says_which_rule_flipped(
    height: float, hair: float
) -> None:
    before = choose(with_cut(LARCH, height_mm=height)).best
    after = choose(with_cut(LARCH, height_mm=height * hair))
    assert before is not None and after.best is not None
    rungs = [LADDER.index(b.evaluation.facts.band.tpi_lo or 0.0) for b in (before, after.best)]
    if abs(rungs[0] - rungs[1]) > 1:
        reason = why_not(before, after)
        assert reason.key not in ("gone", "cost"), reason


def test_a_flip_names_the_rule_that_made_it(job: Job) -> None:
    """Each of the ways a band can lose its place is told apart."""
    best = choose(job).best
    assert best is not None
    label = best.evaluation.facts.band.label
    without = dataclasses.replace(job, bands=tuple(b for b in job.bands if b.label != label))
    assert why_not(best, choose(without)).key == "gone"
    assert why_not(best, choose(with_cut(job, height_mm=20.0))).key == "teeth"
    assert why_not(best, choose(with_rules(job, resaw_width="narrow"))).key == "width"
    assert why_not(best, choose(with_rules(job, resaw_pitch="fine"))).key in ("pitch", "width")
    weak = choose(with_saw(job, wheel_force_max_N=2900.0))
    assert why_not(best, weak).key == "class"


def test_rules_are_priced_against_their_other_schools(job: Job) -> None:
    prices = {p.rule: p for p in rule_prices(job)}
    assert set(prices) >= {"resaw_width", "resaw_pitch", "kerf"}
    best, width = choose(job).best, prices["resaw_width"]
    assert best is not None
    others = []
    for school in ("widest", "narrow"):
        other = choose(with_rules(job, resaw_width=school)).best
        assert other is not None
        others.append(other.total)
    assert width.extra == pytest.approx(best.total - min(others))
    verb = "costs" if width.extra > 0 else "saves"
    assert width.words.startswith(f"{verb} {abs(width.extra):.2f} a piece against")


def test_a_rule_that_changes_nothing_is_not_priced(job: Job) -> None:
    assert "mill_speed" not in {p.rule for p in rule_prices(job)}


def test_each_sway_really_changes_the_band(job: Job) -> None:
    best = choose(job).best
    assert best is not None
    found = sways(job)
    assert found
    for sway in found:
        if sway.field == "height_mm":
            moved = with_cut(job, height_mm=sway.value)
        else:
            moved = with_saw(job, **{sway.field: sway.value})
        there = choose(moved).best
        assert (there.evaluation.facts.band.label if there else "") == sway.band
        assert there is None or band_key(there) != band_key(best)


def test_no_band_no_sway(job: Job) -> None:
    empty = dataclasses.replace(job, bands=())
    assert sways(empty) == () and rule_prices(empty) == ()


def test_a_band_along_the_grain_takes_six_tenths_of_the_energy(job: Job) -> None:
    usual = choose(job).best
    assert usual is not None
    stood = evaluate(usual.evaluation.facts.band, with_cut(job, stood_on_end=True))
    flat, on_end = usual.evaluation.window, stood.window
    assert flat is not None and on_end is not None
    m = job.cut.material.size_exponent_m
    # power = K f^(1-m) at one bite law, so at equal power the feed grows by 0.6^(-1/(1-m))
    ratio = on_end.limits_m_min["power"] / flat.limits_m_min["power"]
    assert ratio == pytest.approx(0.6 ** (-1 / (1 - m)))


def test_grain_is_for_wood_and_a_face_fits_its_log(job: Job) -> None:
    brass = with_cut(job, material="brass_free_cutting", operation="bar", stood_on_end=True)
    with pytest.raises(InputError, match="no grain to run along; accepted: false"):
        choose(brass)
    mill = with_cut(job, operation="mill", height_mm=185.0, log_diameter_mm=180.0)
    with pytest.raises(InputError, match="accepted: up to the log's 180 mm"):
        choose(mill)
    assert choose(with_cut(mill, log_diameter_mm=185.0)).best is not None


def test_the_all_round_rule_keeps_the_band_on_the_saw(job: Job) -> None:
    on = Candidate("ON", 12.7, 0.64, 3.0, 3.0, "hook", "silicon_steel", mounted=True)
    both = dataclasses.replace(job, bands=(*job.bands, on))
    usual, kept = choose(both).best, choose(with_rules(both, how_many_bands="all_round")).best
    assert usual is not None and kept is not None
    assert usual.evaluation.facts.band.label != "ON"
    assert kept.evaluation.facts.band.label == "ON"
    short = dataclasses.replace(on, length_mm=1000.0)
    unfit = dataclasses.replace(job, bands=(*job.bands, short))
    other = choose(with_rules(unfit, how_many_bands="all_round")).best
    assert other is not None and other.evaluation.facts.band.label != "ON"


def test_a_job_file_carries_a_material_of_the_shop(job_file: dict[str, Any]) -> None:
    own = {"base": "european_larch_dry", "name": "Loft larch"}
    own["changes"] = {"specific_cutting_pressure_MPa": 120.0}  # type: ignore[assignment]
    file = job_file | {"materials": {"own_larch": own}}
    file["cut"] = file["cut"] | {"material": "own_larch"}
    harder = recommend(JobFile.model_validate(file).to_core())["recommended"]
    usual = recommend(JobFile.model_validate(job_file).to_core())["recommended"]
    assert harder["feed_m_min"] < usual["feed_m_min"]
    own["base"] = "moon_wood"
    with pytest.raises(InputError) as wrong:
        JobFile.model_validate(file).to_core()
    assert wrong.value.faults[0].path == "materials.own_larch.base"
    own |= {"base": "european_larch_dry", "changes": {"bite_min_mm": 0.9}}  # type: ignore[dict-item]
    with pytest.raises(InputError) as order:
        JobFile.model_validate(file).to_core()
    assert order.value.faults[0].path == "materials.own_larch.changes.bite_target_mm"
