"""The job file: read, refused in words, and written back."""

import dataclasses
import json
from typing import Any

import pytest

from jade_ribbon.core.bands.facts import band_facts
from jade_ribbon.core.choosing.limits import grit_m_min
from jade_ribbon.core.job import DEFAULT_HAND_FORCE_N, Candidate
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import metric
from jade_ribbon.formats.job import JobFile, MaterialFile, read_job, saw_record
from jade_ribbon.formats.recommendation import recommend
from jade_ribbon.reference.tables import materials


def refused(document: dict[str, Any]) -> dict[str, str]:
    with pytest.raises(InputError) as caught:
        read_job(json.dumps(document))
    return {f.path: metric(f.message) for f in caught.value.faults}


def test_left_out_parts_take_their_defaults(job_file: dict[str, Any]) -> None:
    for key in ("feed", "feed_max_m_min", "tensioner", "name"):
        job_file["saw"].pop(key)
    job_file.pop("rules")
    job_file["rules"] = {"steel": "cheap"}
    job = read_job(json.dumps(job_file))
    assert (job.saw.feed, job.saw.tensioner, job.saw.name) == ("hand", "spring", "")
    assert job.saw.hand_force_N == DEFAULT_HAND_FORCE_N
    assert (job.rules.steel, job.rules.resaw_width) == ("cheap", "frame")
    assert len(job.bands) == 228


def test_unknown_keys_are_named_with_what_is_known(job_file: dict[str, Any]) -> None:
    job_file["cut"]["hieght_mm"] = 3
    told = refused(job_file)
    assert told["cut.hieght_mm"].startswith("is not a known key; accepted: operation, material")


@pytest.mark.parametrize(
    ("part", "key", "value", "words"),
    [
        ("cut", "height_mm", -5, "-5 is out of range; accepted: more than 0"),
        ("cut", "height_mm", "185", "'185': input should be a valid number"),
        ("cut", "count", 0, "0 is out of range; accepted: at least 1"),
        ("cut", "count", 2.5, "2.5 is not accepted; accepted: a whole number"),
        ("cut", "operation", "saw", "'saw' is not accepted; accepted: 'resaw', 'rip'"),
        ("cut", "material", "oak", "'oak' is not a known material; accepted: eastern_white"),
        ("saw", "motor_kW", 0, "0 is out of range; accepted: more than 0"),
        ("saw", "wheel_diameters_mm", [400], "holds 1; accepted: at least 2"),
        ("rules", "least_teeth", 5, "5 is not accepted; accepted: 2, 3 or 4"),
    ],
)
def test_values_out_of_range_say_field_value_and_range(
    job_file: dict[str, Any], part: str, key: str, value: Any, words: str
) -> None:
    job_file[part][key] = value
    told = refused(job_file)
    assert words in told[f"{part}.{key}"]


def test_a_missing_part_is_named(job_file: dict[str, Any]) -> None:
    del job_file["cut"]["height_mm"]
    assert refused(job_file) == {"cut.height_mm": "is missing"}


@pytest.mark.parametrize("text", ["", "[]", "{", "null", '{"format": NaN}', "\x00"])
def test_broken_documents_are_refused(text: str) -> None:
    with pytest.raises(InputError):
        read_job(text)


@pytest.mark.parametrize(
    ("drive", "words"),
    [
        ({"kind": "fixed", "speeds_m_s": []}, "a fixed drive needs speeds_m_s"),
        ({"kind": "inverter", "base_hz": 50}, "an inverter needs base_hz, min_hz"),
        (
            {
                "kind": "inverter",
                "base_hz": 50,
                "min_hz": 60,
                "max_hz": 50,
                "base_speed_m_s": 20,
            },
            "min_hz 60.0 is over max_hz 50.0",
        ),
    ],
)
def test_an_impossible_drive_says_what_it_needs(
    job_file: dict[str, Any], drive: dict[str, Any], words: str
) -> None:
    job_file["saw"]["drive"] = drive
    assert words in refused(job_file)["saw.drive"]


def test_own_bands_and_their_faults(job_file: dict[str, Any]) -> None:
    band = {
        "width_mm": 19,
        "thickness_mm": 0.81,
        "tpi": 2,
        "form": "hook",
        "steel": "silicon_steel",
    }
    job_file["bands"] = [{**band, "label": "mine", "length_mm": 3360}]
    assert recommend(read_job(json.dumps(job_file)))["recommended"]["band"]["label"] == "mine"
    job_file["bands"] = [{**band, "form": "round"}, {**band, "tpi_range": [2, 3]}]
    assert "give tpi or tpi_range, not both" in refused(job_file)["bands.1"]
    job_file["bands"].pop()
    with pytest.raises(InputError, match=r"bands\.0\.form: 'round' is unknown; accepted: regular"):
        recommend(read_job(json.dumps(job_file)))


def test_a_saw_survives_the_round_trip(job_file: dict[str, Any]) -> None:
    saw = JobFile.model_validate(job_file).saw.to_core()
    again = JobFile.model_validate({**job_file, "saw": saw_record(saw)}).saw.to_core()
    assert again == saw


def test_the_result_has_the_contract_s_keys(job_file: dict[str, Any]) -> None:
    result = recommend(read_job(json.dumps(job_file)))
    assert set(result) == {
        "recommended",
        "alternatives",
        "excluded",
        "cautions",
        "rules_applied",
    }
    assert set(result["recommended"]) == {
        "band",
        "stress_MPa",
        "wheel_force_N",
        "gauge_stretch_um_per_100mm",
        "speed_m_s",
        "drive_setting",
        "feed_m_min",
        "feed_window",
        "teeth_in_cut",
        "min_radius_mm",
        "bending_hours",
        "cut_time_s",
        "equivalent_contact_m",
        "cost_per_piece",
        "lot",
        "chance_best",
        "cost_range",
        "reasons",
    }
    assert len(result["excluded"]) + len(result["alternatives"]) > 100
    json.dumps(result, allow_nan=False)


def test_what_a_grit_edge_takes_off_by_a_trial_is_the_shop_s_to_say(
    job_file: dict[str, Any],
) -> None:
    """Half the table's rate is half the feed that a grit edge is given."""
    material = MaterialFile.model_validate(
        {"base": "grp", "name": "Hull laminate", "changes": {"grit_rate_max_mm2_s": 35.0}}
    ).to_core("own_grp")
    job = JobFile.model_validate(job_file).to_core()
    edge = Candidate("G", 12.7, 0.64, None, None, "grit_continuous", "carbide_grit")
    feeds = []
    for m in (materials()["grp"], material):
        asked = dataclasses.replace(job, cut=dataclasses.replace(job.cut, material=m))
        feeds.append(grit_m_min(band_facts(edge, asked), asked))
    assert feeds[0] is not None and feeds[1] is not None
    assert feeds[1] / feeds[0] == pytest.approx(0.5)
