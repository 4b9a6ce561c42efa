"""Reasons and provenance: each figure shown is the one the formula gives from its inputs."""

import dataclasses
import math
from typing import Any

import pytest

from jade_ribbon.core.choosing.choose import Choice, Ranked, choose
from jade_ribbon.core.choosing.explanation.explain import difference, reasons
from jade_ribbon.core.choosing.explanation.figures import Explained, explain_figures
from jade_ribbon.core.choosing.explanation.rules_at_work import rules_applied
from jade_ribbon.core.choosing.uncertainty.chances import chances
from jade_ribbon.core.choosing.uncertainty.spreads import wear_uncertainty
from jade_ribbon.core.choosing.uncertainty.steel_costs import steel_costs
from jade_ribbon.core.job import Candidate, Job, Rules
from jade_ribbon.core.quantities.words import figure, metric, percent
from jade_ribbon.core.setup.tension.note_names import note_name
from jade_ribbon.formats.job import JobFile
from jade_ribbon.reference.tables import materials

RACK = (
    Candidate("K-07", 19.0, 0.81, 2.0, 2.0, "hook", "silicon_steel", length_mm=3360.0),
    Candidate("K-05", 19.0, 0.81, 3.0, 3.0, "hook", "carbon_flexback", length_mm=3360.0),
    Candidate("K-04", 12.7, 0.5, 4.0, 4.0, "skip", "carbon_flexback", length_mm=3360.0),
)


@pytest.fixture
def job(job_file: dict[str, Any]) -> Job:
    return dataclasses.replace(JobFile.model_validate(job_file).to_core(), bands=RACK)


def answer(job: Job) -> tuple[Ranked, Choice]:
    choice = choose(job)
    assert choice.best is not None
    return choice.best, choice


@pytest.fixture
def found(job: Job) -> dict[str, Explained]:
    return dict(explain_figures(answer(job)[0], job))


def inputs(explained: Explained) -> dict[str, float]:
    return {i.name: i.value for i in explained.inputs}


def test_tension_from_its_inputs(found: dict[str, Explained]) -> None:
    given = inputs(found["tension"])
    assert found["tension"].value == min(given["target"], given["frame gives"])
    area = given["body width"] * given["thickness"]
    assert given["frame gives"] == pytest.approx(3200 / 2 / area)


def test_teeth_from_their_inputs(found: dict[str, Explained]) -> None:
    given = inputs(found["teeth"])
    assert found["teeth"].value == pytest.approx(given["height"] / given["pitch"])


def test_gullet_fill_from_its_inputs(found: dict[str, Explained]) -> None:
    given = inputs(found["fill"])
    by_hand = given["bite"] * given["height"] / given["gullet area"]
    assert found["fill"].value == pytest.approx(by_hand)
    assert found["fill"].value < given["fill limit"]


def test_power_from_its_inputs(job: Job, found: dict[str, Explained]) -> None:
    given = inputs(found["power"])
    energy = given["K₀"] * (given["bite"] / 0.1) ** -given["m"]
    by_hand = energy * given["kerf"] * 185 * found["feed"].value / 60
    assert found["power"].value == pytest.approx(by_hand)
    assert found["power"].value < 1000 * given["motor after losses"]


def test_feed_is_eight_tenths_of_the_least_limit(found: dict[str, Explained]) -> None:
    limits = {k: v for k, v in inputs(found["feed"]).items() if k != "rubs below"}
    assert found["feed"].value == pytest.approx(0.8 * min(limits.values()))


def test_cost_is_the_sum_of_its_parts(found: dict[str, Explained]) -> None:
    assert found["cost"].value == pytest.approx(sum(inputs(found["cost"]).values()))


def test_radius_from_its_inputs(found: dict[str, Explained]) -> None:
    given = inputs(found["radius"])
    clear = given["kerf"] - given["thickness"]
    by_hand = given["width"] ** 2 / ((3 + 2 * math.sqrt(2)) * clear)
    assert found["radius"].value == pytest.approx(by_hand)


def test_hours_from_their_inputs(found: dict[str, Explained]) -> None:
    given = inputs(found["hours"])
    bend = 206_000 * given["thickness"] / (given["wheel"] + given["thickness"])
    assert given["amplitude"] == pytest.approx(bend / 2)
    equivalent = given["amplitude"] / (1 - given["mean"] / 1550)
    cycles = 1e7 * (given["fatigue strength at 10⁷"] / equivalent) ** given["k"]
    per_hour = 2 * 14.5 / 3.36 * 3600
    assert found["hours"].value == pytest.approx(cycles / per_hour, rel=1e-6)


def test_every_figure_has_source_and_uncertainty(found: dict[str, Explained]) -> None:
    assert len(found) == 10
    for explained in found.values():
        assert explained.title and explained.formula and explained.source
        assert explained.uncertainty.endswith(".")
        assert all(math.isfinite(i.value) for i in explained.inputs)


def test_reasons_say_what_bound_each_choice(job: Job) -> None:
    best, choice = answer(job)
    said = {r.key: metric(r.text) for r in reasons(best, choice, job)}
    assert "85 % of its tension: 135 MPa of 150 MPa with 3200 N" in metric(said["width"])
    assert "14.6 teeth" in said["pitch"]
    assert "fastest of 2 steps: 14.5 m/s, 19 % under the 18.0 m/s wanted" in said["speed"]
    assert "the motor" in said["feed"]
    assert said["class"] == "Chosen within every limit."


@pytest.mark.parametrize(
    ("rules", "words"),
    [
        ({"resaw_width": "narrow"}, "Narrowest by house rule"),
        ({"resaw_width": "widest"}, "Widest that fits by house rule"),
        ({"steel": "long_life"}, "Longest life by house rule"),
        ({"steel": "cheap"}, "Cheapest band by house rule"),
        ({"resaw_pitch": "fine"}, "Fine, for a clean face"),
    ],
)
def test_reasons_name_the_house_rule(job: Job, rules: dict[str, Any], words: str) -> None:
    own = dataclasses.replace(job, rules=Rules(**rules))
    best, choice = answer(own)
    assert any(words in metric(r.text) for r in reasons(best, choice, own))
    applied = {r.rule: r.choice for r in rules_applied(best, choice, own)}
    assert set(rules) & {"steel"} or applied.items() >= rules.items()


def test_an_unknown_frame_is_said_in_the_width(job: Job) -> None:
    blind = dataclasses.replace(job, saw=dataclasses.replace(job.saw, wheel_force_max_N=None))
    best, choice = answer(blind)
    said = {r.key: r.text for r in reasons(best, choice, blind)}
    assert "taken for a light frame: 1870 N" in metric(said["width"])
    assert "To find it out" in metric(said["width"])
    assert "by as much as 1.6 times" in metric(said["tension"])


def test_what_the_width_rule_costs_is_told(job: Job) -> None:
    best, choice = answer(job)
    line = next(r for r in rules_applied(best, choice, job) if r.rule == "resaw_width")
    cheapest = choice.cheapest
    assert cheapest is not None
    assert f"Costs {best.total - cheapest.total:.2f} a piece more" in line.why
    assert cheapest.evaluation.facts.band.label in line.why


def test_a_runner_up_is_told_by_its_differences(job: Job) -> None:
    best, choice = answer(job)
    other = next(r for r in choice.ranked if r.evaluation.facts.band.label == "K-04")
    words = difference(best, other)
    assert "cheaper" in words and "less kerf" in words and "faster" in words
    assert difference(best, best) == "costs the same"


def test_the_spread_follows_what_wear_is_known_to(job: Job) -> None:
    assert wear_uncertainty(materials()["red_oak_dry"]) == 1.5
    assert wear_uncertainty(materials()["teak_dry"]) == 5.0
    _, choice = answer(job)
    lines = steel_costs(choice, chances(choice, job))
    assert lines[0].close is False and all(x.low <= x.total <= x.high for x in lines)
    assert [x.total for x in lines] == sorted(x.total for x in lines)


def test_no_band_has_no_steels(job: Job) -> None:
    nothing = dataclasses.replace(job, bands=())
    assert steel_costs(choose(nothing), chances(choose(nothing), nothing)) == ()


@pytest.mark.parametrize(
    ("value", "digits", "text"),
    [
        (4612.0, 2, "4\u202f600"),
        (134.54, 3, "135"),
        (0.02987, 2, "0.030"),
        (14.5, 3, "14.5"),
        (0.0, 2, "0"),
        (-12.34, 2, "-12"),
        (math.inf, 2, "–"),
        (9.99, 2, "10.0"),
    ],
)
def test_figures_are_written_as_people_write_them(value: float, digits: int, text: str) -> None:
    assert figure(value, digits) == text


def test_per_cent_keeps_its_space() -> None:
    assert (percent(0.85), percent(0.067)) == ("85 %", "6.7 %")


@pytest.mark.parametrize(
    ("hertz", "name"),
    [(440.0, "A4"), (27.5, "A0"), (261.63, "C4"), (92.0, "F♯2 −9"), (466.16, "A♯4")],
)
def test_notes_have_names(hertz: float, name: str) -> None:
    assert note_name(hertz) == name
