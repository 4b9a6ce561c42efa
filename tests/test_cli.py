"""The command line."""

import json
import shlex
import shutil
import subprocess
import sys
import time
from pathlib import Path
from typing import Any

import pytest
import soundfile
from click.testing import CliRunner

from jade_ribbon.cli import main
from jade_ribbon.core.simulation.sounds import RATE_HZ, sound_of
from jade_ribbon.store.database import Store
from jade_ribbon.store.migrate import migrate

BITE = {"feed_m_min": 29.432, "speed_m_s": 18.09, "pitch_mm": 22.087}


def invoke(*arguments: str, stdin: str = "") -> tuple[int, Any]:
    result = CliRunner().invoke(main, list(arguments), input=stdin)
    try:
        return result.exit_code, json.loads(result.output)
    except ValueError:
        return result.exit_code, result.output


def test_calc_prints_outputs_in_order() -> None:
    code, out = invoke("calc", "bite", stdin=json.dumps([BITE, {**BITE, "pitch_mm": 12.7}]))
    assert code == 0
    assert [round(o["bite_mm"], 6) for o in out] == [0.598917, 0.344377]


def test_calc_refuses_with_paths_and_exit_2() -> None:
    code, out = invoke("calc", "bite", stdin=json.dumps([{**BITE, "pitch_mm": -1}]))
    assert code == 2
    assert out == {
        "errors": [
            {
                "path": "0.pitch_mm",
                "message": "-1 is out of range; accepted: more than 0 and at most 200",
            }
        ]
    }


@pytest.mark.parametrize("text", ["", "{", "[NaN]", "[1]", "7", "[" * 100_000])
def test_calc_survives_broken_input(text: str) -> None:
    code, out = invoke("calc", "bite", stdin=text)
    assert code == 2 and out["errors"]


def test_recommend_reads_a_file_or_standard_input(job_file: dict[str, Any], tmp_path: Path) -> None:
    file = tmp_path / "job.json"
    file.write_text(json.dumps(job_file))
    by_file, by_pipe = (
        invoke("recommend", str(file)),
        invoke("recommend", "-", stdin=file.read_text()),
    )
    assert by_file == by_pipe
    assert by_file[1]["recommended"]["band"]["width_mm"] == 19
    job_file["cut"]["height_mm"] = 500
    code, out = invoke("recommend", "-", stdin=json.dumps(job_file))
    assert code == 2
    assert out["errors"][0]["path"] == "cut.height_mm"


def test_all_round_reads_jobs_of_one_saw(job_file: dict[str, Any], tmp_path: Path) -> None:
    curve = {**job_file["cut"], "operation": "curve", "height_mm": 40, "min_radius_mm": 90}
    jobs = [job_file, {**job_file, "cut": curve, "name": "Brackets"}]
    week = {"format": "jade-ribbon/allround", "version": 1, "jobs": jobs, "bands": None}
    file = tmp_path / "week.json"
    file.write_text(json.dumps(week))
    code, told = invoke("allround", str(file))
    assert code == 0 and [j["name"] for j in told["changing"]["jobs"]][1] == "Brackets"
    assert set(told) == {"ranked", "changing", "pair"} and len(told["pair"]["bands"]) == 2
    week["jobs"] = []
    file.write_text(json.dumps(week))
    code, refused = invoke("allround", str(file))
    assert code == 2 and refused["errors"][0]["path"] == "jobs"


def test_backup_and_restore(tmp_path: Path) -> None:
    live = tmp_path / "live.sqlite"
    migrate(Store(live))
    copy, back = str(tmp_path / "copy.sqlite"), str(tmp_path / "back.sqlite")
    assert invoke("backup", copy, "--from", str(live))[0] == 0
    assert invoke("backup", copy, "--from", str(live))[0] == 1
    assert invoke("restore", copy, "--to", back)[0] == 0
    code, words = invoke("restore", copy, "--to", back)
    assert code == 1 and "ask with --over" in words


def test_help_has_examples() -> None:
    code, words = invoke("--help")
    assert code == 0 and "Examples:" in words and "jade-ribbon recommend job.json" in words


def test_calc_starts_within_a_second() -> None:
    """Heavy packages must not be imported by `calc`; the clock is only a wide bound."""
    probe = (
        "import sys; from jade_ribbon.cli import main; from jade_ribbon.core import calc; "
        "heavy = {'flask', 'sqlalchemy', 'pydantic', 'uvicorn'} & set(sys.modules); "
        "sys.exit(f'imported: {heavy}' if heavy else 0)"
    )
    assert subprocess.run([sys.executable, "-c", probe], check=False).returncode == 0
    start = time.perf_counter()
    subprocess.run(
        [sys.executable, "-m", "jade_ribbon", "calc", "bite"],
        input=b"[]",
        check=True,
        stdout=subprocess.DEVNULL,
    )
    assert time.perf_counter() - start < 10


TROUBLE = {
    "format": "jade-ribbon/faults",
    "version": 1,
    "symptoms": {"tick": 1.0, "fine_marks": 0.75},
    "reads": {"runs_since_welding": 3, "gap_last_alignment_mm": 1.2},
    "answers": {"when_began": "change"},
    "instruments": ["light", "rule"],
}


def test_diagnose_prints_all_causes_and_the_checks_the_shop_can_make() -> None:
    done = CliRunner().invoke(main, ["diagnose", "-"], input=json.dumps(TROUBLE))
    assert done.exit_code == 0
    found = json.loads(done.output)
    assert len(found["causes"]) == 55 and found["causes"][0]["key"] == "weld_proud"
    assert found["causes"][0]["for"][0] == "Tick each turn, clear"
    assert "The band has made 3 runs since it was welded." in found["causes"][0]["for"]
    assert found["running_withheld"] is True
    rates = [n["bits_per_min"] for n in found["next"]]
    assert rates == sorted(rates, reverse=True)
    assert "band_straight" not in [n["check"] for n in found["next"]], "needs a caliper"


@pytest.mark.parametrize(
    ("change", "path"),
    [
        ({"symptoms": {"tock": 1}}, "symptoms.tock"),
        ({"reads": {"dullness": -1}}, "reads.dullness"),
        ({"answers": {"pluck": "loud"}}, "answers.pluck"),
        ({"instruments": ["crystal ball"]}, "instruments"),
        ({"more": 1}, "more"),
    ],
)
def test_diagnose_names_what_is_wrong(change: dict[str, Any], path: str) -> None:
    done = CliRunner().invoke(main, ["diagnose", "-"], input=json.dumps({**TROUBLE, **change}))
    assert done.exit_code == 2
    assert json.loads(done.output)["errors"][0]["path"] == path


def test_sound_names_what_grew_louder(tmp_path: Path) -> None:
    for key in ("tick", "good"):
        soundfile.write(tmp_path / f"{key}.wav", sound_of(key, seed=3), RATE_HZ, subtype="PCM_16")
    asked = ["--speed", "14.5", "--length", "4000", "--pitch", "8.5", "--wheels", "400,400"]
    against = ["--against", str(tmp_path / "good.wav")]
    done = CliRunner().invoke(main, ["sound", str(tmp_path / "tick.wav"), *asked, *against])
    assert done.exit_code == 0, done.output
    found = json.loads(done.output)
    assert found["changed"]["named"] == "weld"
    assert {o["source"] for o in found["orders"]} == {"weld", "wheel_1", "tooth", "mains"}
    alone = CliRunner().invoke(main, ["sound", str(tmp_path / "tick.wav"), *asked])
    assert "changed" not in json.loads(alone.output)
    wrong = [*asked[:-1], "400,x"]
    refused = CliRunner().invoke(main, ["sound", str(tmp_path / "tick.wav"), *wrong])
    assert refused.exit_code == 2
    assert json.loads(refused.output)["errors"][0]["path"] == "wheels.1"


def test_the_demo_opens_on_the_yard_the_first_time_and_as_it_was_left_later(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, empty_file: Path
) -> None:
    """The file is held, and so is there, before anybody looks whether it is new."""
    made: list[Path] = []

    def make(file: Path, **_: object) -> None:
        made.append(file)
        file.unlink(missing_ok=True)
        shutil.copy(empty_file, file)

    served: list[Path] = []
    monkeypatch.setattr("jade_ribbon.demo.world.make_world", make)
    monkeypatch.setattr("jade_ribbon.cli._serve", lambda file, *_: served.append(file))
    file = tmp_path / "new folder" / "demo.sqlite"
    for _ in range(2):
        ended = CliRunner().invoke(main, ["demo", "--file", str(file)])
        assert ended.exit_code == 0, ended.output
    assert (made, served) == ([file], [file, file]) and file.stat().st_size > 0
    assert CliRunner().invoke(main, ["demo", "--file", str(file), "--fresh"]).exit_code == 0
    assert made == [file, file]


def test_a_terminal_is_answered_in_words_and_a_pipe_in_json(tmp_path: Path) -> None:
    """`script` gives the command a terminal of its own."""
    job = Path(__file__).parent / "data" / "job.json"
    command = shlex.join([sys.executable, "-m", "jade_ribbon", "recommend", str(job)])
    out = subprocess.run(
        ["script", "-qec", command, "/dev/null"], capture_output=True, text=True, check=True
    ).stdout
    assert "speed: 14.5 m/s" in out and "- Widest the frame brings to 85 %" in out
    assert "{" not in out
    as_json = subprocess.run(
        ["script", "-qec", f"{command} --json", "/dev/null"],
        capture_output=True,
        text=True,
        check=True,
    ).stdout
    assert json.loads(as_json)["recommended"]["speed_m_s"] == 14.5


def test_figures_as_data_have_six_digits_and_a_calculation_s_all(job_file: dict[str, Any]) -> None:
    _, found = invoke("recommend", "-", stdin=json.dumps(job_file))
    best = found["recommended"]
    assert best["feed_m_min"] == float(f"{best['feed_m_min']:.6g}")
    _, (bite,) = invoke("calc", "bite", stdin=json.dumps([BITE]))
    assert bite["bite_mm"] != float(f"{bite['bite_mm']:.6g}")
