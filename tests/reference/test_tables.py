"""Invariants of the reference tables: order, sense, no duplicates."""

import math

import pytest

from jade_ribbon.core.bands.facts import band_facts, pitches_mm
from jade_ribbon.core.choosing.catalogue import catalogue_candidates
from jade_ribbon.core.choosing.explanation.cautions import LEVEL_ORDER, RULES
from jade_ribbon.core.choosing.explanation.figures import TERMS
from jade_ribbon.core.setup.card import step_readings
from jade_ribbon.formats.job import JobFile, RulesFile
from jade_ribbon.reference.tables import (
    BandType,
    Material,
    Steel,
    catalogue,
    caution_texts,
    help_terms,
    house_rules,
    materials,
    pages,
    setup_step_texts,
    steels,
    tooth_forms,
)

MATERIALS = list(materials().values())
STEELS = list(steels().values())


@pytest.mark.parametrize("m", MATERIALS, ids=lambda m: m.key)
def test_material_figures_are_in_order(m: Material) -> None:
    assert m.speed_min_m_s < m.speed_target_m_s < m.speed_max_m_s
    assert 0 < m.bite_min_mm < m.bite_target_mm < m.bite_max_mm
    assert m.feed_force_ratio_sharp < m.feed_force_ratio_dull
    least, low, high, most = (
        m.teeth_in_cut_min,
        m.teeth_in_cut_ideal_lo,
        m.teeth_in_cut_ideal_hi,
        m.teeth_in_cut_max,
    )
    assert least < low < high < most
    assert 0.2 <= m.size_exponent_m <= 0.4
    assert 1 < m.kc_dull_multiplier < 2
    assert 10 <= m.kc_uncertainty_pct <= 50
    assert 0 < m.gullet_fill_limit <= (3 if m.group in ("foam", "cork") else 0.7)


@pytest.mark.parametrize("m", MATERIALS, ids=lambda m: m.key)
def test_material_tokens_exist(m: Material) -> None:
    assert set(m.steels_ok) <= {s.token for s in STEELS}
    assert set(m.tooth_forms_preferred) <= {f.materials_csv_token for f in tooth_forms().values()}
    assert len(set(m.tooth_forms_preferred)) == len(m.tooth_forms_preferred)


def test_heavier_dry_wood_is_harder_to_cut() -> None:
    """Cutting pressure follows density in dry woods: no row strays far from the line."""
    dry = [m for m in MATERIALS if m.is_wood and m.moisture_state == "dry" and m.janka_N]
    for m in dry:
        assert 0.08 < m.specific_cutting_pressure_MPa / m.density_kg_m3 < 0.17, m.key


@pytest.mark.parametrize("s", STEELS, ids=lambda s: s.key)
def test_steel_figures_are_in_order(s: Steel) -> None:
    assert s.yield_MPa < s.uts_MPa
    assert s.fatigue_amp_1e7_MPa < 0.3 * s.uts_MPa
    assert s.tension_wood_low_MPa < s.tension_wood_target_MPa < s.tension_wood_high_MPa
    assert s.tension_wood_high_MPa < 0.25 * s.yield_MPa
    if s.tension_metal_low_MPa is not None:
        assert s.tension_metal_target_MPa is not None and s.tension_metal_high_MPa is not None
        assert s.tension_metal_low_MPa < s.tension_metal_target_MPa < s.tension_metal_high_MPa
    assert 8 <= s.basquin_k <= 12
    assert s.rel_price_per_m >= 1 or s.key == "carbon_flexback"


def test_plain_carbon_is_the_reference() -> None:
    plain = steels()["carbon_flexback"]
    assert (plain.rel_edge_life_wood, plain.rel_price_per_m) == (1.0, 1.0)


def test_forms_are_in_order() -> None:
    for form in tooth_forms().values():
        assert form.hook_lo_deg <= form.hook_deg <= form.hook_hi_deg
        assert 1 <= form.finish_1_5 <= 5
        share = form.set_alternate_frac_t
        if share is not None:
            assert form.set_lo_frac_t <= share <= form.set_hi_frac_t
        if form.pitch_lo_mm is not None and form.pitch_hi_mm is not None:
            assert form.pitch_lo_mm < form.pitch_hi_mm


def test_the_catalogue_has_its_types_once() -> None:
    assert len(catalogue()) == 228
    assert len(set(catalogue())) == 228


@pytest.mark.parametrize("t", catalogue(), ids=lambda t: f"{t.width_mm}-{t.tpi_lo}-{t.steel}")
def test_each_type_is_physically_sensible(t: BandType) -> None:
    form, steel = tooth_forms()[t.tooth_form], steels()[t.steel]
    candidate = next(
        c
        for c in catalogue_candidates()
        if (c.width_mm, c.thickness_mm, c.tpi_lo, c.tpi_hi, c.form, c.steel)
        == (t.width_mm, t.thickness_mm, t.tpi_lo, t.tpi_hi, t.tooth_form, t.steel)
    )
    mean, fine, coarse = pitches_mm(candidate, form)
    assert fine <= mean <= coarse
    assert form.gullet_depth_frac_pitch * mean < 0.45 * t.width_mm
    wide = t.steel == "cobalt_tipped_wide"
    assert 0.3 <= t.thickness_mm <= (1.7 if wide else 1.3)
    assert 8 <= t.width_mm / t.thickness_mm <= (160 if wide else 55) or t.width_mm < 7
    if form.pitch_lo_mm is not None and form.pitch_hi_mm is not None:
        assert form.pitch_lo_mm * 0.55 <= mean
        assert mean <= form.pitch_hi_mm * 1.35
    assert steel.is_grit == form.key.startswith("grit")


def test_every_type_resolves_in_the_example_job(job_file: dict[str, object]) -> None:
    job = JobFile.model_validate(job_file).to_core()
    for candidate in job.bands:
        facts = band_facts(candidate, job)
        assert facts.kerf_mm > candidate.thickness_mm
        assert math.isfinite(facts.price) and facts.price > 0
        assert facts.body_width_mm > 0


def test_cautions_have_words_and_a_rule() -> None:
    assert set(RULES) <= set(caution_texts())
    assert set(caution_texts()) == set(RULES)
    assert {c.level for c in caution_texts().values()} == set(LEVEL_ORDER)


def test_house_rules_have_names_defaults_and_agree_with_the_job_file() -> None:
    for rule in house_rules().values():
        assert len(rule.choices) == len(rule.choice_names)
        assert rule.default in rule.choices
    defaults = RulesFile().model_dump()
    for key in set(defaults) & set(house_rules()):
        assert str(defaults[key]) == house_rules()[key].default


def test_isolation_comes_before_any_step_with_doors_open() -> None:
    steps = setup_step_texts()
    assert steps[0].key == "isolate" and not steps[0].doors_open
    keys = [s.key for s in steps]
    order = ["isolate", "inspect", "guides_back", "mount", "rough_track", "tension", "fine_track"]
    order += ["guard", "guides_upper", "guides_lower", "table", "table_pin", "speed"]
    order += ["coolant", "chip_brush", "down_feed", "start"]
    assert list(dict.fromkeys(keys)) == [*order, "drift", "trial"]


def test_steps_say_what_keeps_them_good_and_read_in_known_units() -> None:
    for step in setup_step_texts():
        assert step.holds in ("never", "job", "band", "saw")
        assert (step.good_for_h > 0) == (step.holds in ("band", "saw"))
        for reading in step_readings(step):
            assert reading.kind in ("thin", "length", "stress", "speed", "plain")


def test_every_term_says_what_why_and_how_and_is_of_one_name() -> None:
    titles = [t.title for t in help_terms().values()]
    assert len(titles) == len(set(titles))
    for term in help_terms().values():
        for words in (term.what, term.why, term.measure):
            assert words.endswith(".") and len(words) > 5, term.key
    assert set(TERMS.values()) <= set(help_terms())


def test_every_page_has_its_own_place_and_words() -> None:
    places = [p.place for p in pages().values()]
    assert len(places) == len(set(places)) and all(p.startswith("/") for p in places)
    assert all(p.help.endswith(".") for p in pages().values())
