"""A band's facts from the tables."""

import dataclasses

import pytest

from jade_ribbon.core.bands.facts import (
    band_facts,
    look_up,
    pitches_mm,
    price_per_m,
    relative_edge_life,
    set_per_side,
    tension_columns,
)
from jade_ribbon.core.job import Candidate, Job, Rates
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.reference.tables import materials, steels, tooth_forms
from tests.support.jobs import K07

VARIABLE = Candidate("V", 19.0, 0.9, 6.0, 10.0, "variable", "bimetal_m42", length_mm=3360.0)


GRIT = Candidate("G", 12.7, 0.64, None, None, "grit_continuous", "carbide_grit")


def test_pitch_is_by_mean_teeth_and_both_ends_are_kept() -> None:
    mean, fine, coarse = pitches_mm(VARIABLE, tooth_forms()["variable"])
    assert (mean, fine, coarse) == (25.4 / 8, 25.4 / 10, 25.4 / 6)
    assert pitches_mm(GRIT, tooth_forms()["grit_continuous"]) == (2.0, 2.0, 2.0)
    with pytest.raises(InputError, match="needs teeth per inch"):
        pitches_mm(dataclasses.replace(VARIABLE, tpi_lo=None, tpi_hi=None), tooth_forms()["hook"])


def test_a_variable_pitch_counts_four_fifths_of_its_gullet(job: Job) -> None:
    facts = band_facts(VARIABLE, job)
    assert facts.gullet_area_mm2 == pytest.approx(0.8 * 0.195 * (25.4 / 8) ** 2)


def test_set_is_measured_or_layer_or_alternate_or_raker() -> None:
    hook, variable = tooth_forms()["hook"], tooth_forms()["variable"]
    oak, steel = materials()["red_oak_dry"], materials()["mild_steel"]
    measured = dataclasses.replace(K07, set_per_side_mm=0.4)
    assert set_per_side(measured, hook, oak, "generous") == (0.4, "measured")
    assert set_per_side(K07, hook, oak, "material") == (0.38 * 0.81, "alternate set")
    assert set_per_side(VARIABLE, variable, steel, "material")[1] == "raker set"
    assert set_per_side(GRIT, tooth_forms()["grit_continuous"], oak, "slight") == (
        0.15,
        "grit layer",
    )
    to_buy = dataclasses.replace(K07, to_buy=True)
    generous, _ = set_per_side(to_buy, hook, oak, "generous")
    assert generous == pytest.approx(1.15 * 0.38 * 0.81)
    assert set_per_side(K07, hook, oak, "generous")[0] == 0.38 * 0.81


def test_set_in_wood_is_never_under_its_share_of_the_pitch() -> None:
    """0.022 of a 25 mm pitch is 0.55 mm, more than 0.38 of a 0.81 mm body; metals have none."""
    hook = tooth_forms()["hook"]
    side, source = set_per_side(K07, hook, materials()["red_oak_dry"], "material", 25.0)
    assert side == pytest.approx(0.55) and "least for its pitch" in source
    steel = materials()["mild_steel"]
    assert set_per_side(K07, hook, steel, "material", 25.0)[0] < 0.55


def test_price_life_and_tension_come_from_the_tables() -> None:
    silicon, grit = steels()["silicon_steel"], steels()["diamond_grit"]
    assert price_per_m(silicon, 19.0, Rates()) == pytest.approx(1.3 * 5.8)
    assert price_per_m(silicon, 19.0, Rates(price_factor=2)) == pytest.approx(2 * 1.3 * 5.8)
    assert relative_edge_life(grit, materials()["grp"]) == 300
    assert relative_edge_life(grit, materials()["red_oak_dry"]) == 60
    bimetal = steels()["bimetal_m42"]
    assert relative_edge_life(bimetal, materials()["mild_steel"]) == 9
    assert tension_columns(bimetal, materials()["mild_steel"]) == (180, 240, 300)
    assert tension_columns(silicon, materials()["mild_steel"]) == (None, None, None)


def test_unknown_steel_and_form_are_both_told() -> None:
    with pytest.raises(InputError) as caught:
        look_up(dataclasses.replace(K07, steel="tin", form="wave"))
    assert [f.path for f in caught.value.faults] == ["steel", "form"]
