"""The note of a plucked band: worked recordings, synthetic ones, and what is no pluck."""

import json
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from click.testing import CliRunner
from hypothesis import given
from hypothesis import strategies as st
from numpy.typing import NDArray

from jade_ribbon.cli import main
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.setup.tension.listening import listen, several
from jade_ribbon.formats.recording import read_recording_file
from tests.support.plucks import RATE, pluck
from tests.support.shop import VECTORS

AUDIO = VECTORS / "audio"
CASES = json.loads((AUDIO / "pluck_audio.json").read_text())


@pytest.mark.parametrize("case", CASES, ids=lambda c: Path(c["file"]).stem)
def test_worked_recording(case: dict[str, Any]) -> None:
    recording = read_recording_file(AUDIO / Path(case["file"]).name)
    if case["frequency_Hz"] is None:
        with pytest.raises(InputError, match="no pluck in it"):
            listen(recording.samples, recording.rate_Hz)
        return
    heard = listen(recording.samples, recording.rate_Hz)
    wanted = case["frequency_Hz"]
    assert abs(heard.frequency_Hz / wanted - 1) <= case["tolerance_percent"] / 100
    assert heard.confidence >= 0.5


@given(
    note=st.floats(20, 250),
    seed=st.integers(0, 1000),
    weak=st.sampled_from([1.0, 0.3, 0.15]),
    hum=st.sampled_from([0.0, 0.1]),
    noise=st.sampled_from([0.003, 0.03]),
    onset=st.sampled_from([0.0, 0.3]),
)
def test_any_clear_pluck_is_heard_within_one_per_cent(
    note: float, seed: int, weak: float, hum: float, noise: float, onset: float
) -> None:
    sound = pluck(note, seed=seed, weak=weak, hum=hum, noise=noise, onset_s=onset)
    heard = listen(sound, RATE)
    assert abs(heard.frequency_Hz / note - 1) < 0.01
    assert 0.3 <= heard.confidence <= 1


@pytest.mark.parametrize("seed", range(6))
@pytest.mark.parametrize("note", [24.0, 26.3, 48.5, 51.8, 97.0, 103.5])
def test_hum_beside_a_partial_does_not_pull_the_note(note: float, seed: int) -> None:
    """A partial near 50 or 100 Hz is dragged by mains hum; the others know better."""
    sound = pluck(note, seed=seed, weak=0.15, hum=0.1, noise=0.03)
    assert listen(sound, RATE).frequency_Hz == pytest.approx(note, rel=0.006)


def test_channels_in_antiphase_do_not_cancel() -> None:
    sound = pluck(80.0)
    heard = listen(np.stack([sound, -sound], axis=1), RATE)
    assert heard.frequency_Hz == pytest.approx(80.0, rel=0.005)


def test_level_does_not_change_the_note() -> None:
    sound = pluck(61.0)
    loud, soft = (listen(sound * k, RATE).frequency_Hz for k in (1.0, 0.01))
    assert loud == pytest.approx(soft, rel=1e-6)


def test_the_spectrum_peaks_at_the_partials() -> None:
    heard = listen(pluck(100.0, stiff=0), RATE)
    top = heard.spectrum_Hz[int(np.argmax(heard.spectrum))]
    assert abs(top - 100.0) < 3
    assert max(heard.spectrum) == 1
    assert list(heard.partials_Hz[:2]) == pytest.approx([100, 200], rel=0.01)
    assert heard.onset_s == pytest.approx(0.3, abs=0.08)


def _hum(t: NDArray[np.float64]) -> NDArray[np.float64]:
    return np.asarray(0.2 * np.sin(2 * np.pi * 50 * t) + 0.1 * np.sin(2 * np.pi * 100 * t))


@pytest.mark.parametrize("kind", ["hiss", "hum", "knock", "swelling"])
def test_what_is_no_pluck_is_refused_with_what_to_do(kind: str) -> None:
    t = np.arange(2 * RATE) / RATE
    hiss = 0.02 * np.random.default_rng(3).standard_normal(t.size)
    after = np.where(t > 0.5, np.exp(-(t - 0.5) / 0.2), 0.0)
    sound = {
        "hiss": hiss,
        "hum": hiss + _hum(t),
        "knock": hiss + 15 * hiss * after,
        "swelling": hiss * (1 + 0.3 * np.sin(2 * np.pi * 1.5 * t)),
    }[kind]
    with pytest.raises(InputError, match="pluck"):
        listen(sound, RATE)


@pytest.mark.parametrize(
    ("samples", "words"),
    [
        (np.zeros(RATE), "is silent; check that the microphone is on"),
        (np.array([]), "holds no sound"),
        (np.full(RATE, np.nan), "holds no sound"),
        (pluck(80.0)[: round(0.45 * RATE)], "too short after the pluck"),
    ],
)
def test_nothing_to_hear_says_so(samples: NDArray[np.float64], words: str) -> None:
    with pytest.raises(InputError, match=words):
        listen(samples, RATE)


def test_several_plucks_give_their_median_and_half_their_spread() -> None:
    found = several([60.0, 66.0, 61.0])
    assert (found.median_Hz, found.count) == (61.0, 3)
    assert found.spread_share == pytest.approx(3 / 61)
    with pytest.raises(InputError, match="at least one note"):
        several([])


def test_the_command_line_prints_note_and_confidence() -> None:
    said = CliRunner().invoke(main, ["pluck", str(AUDIO / "clean-92.wav")])
    assert said.exit_code == 0
    assert set(json.loads(said.output)) == {"frequency_Hz", "confidence"}
    assert json.loads(said.output)["frequency_Hz"] == pytest.approx(92, rel=0.01)
    none = CliRunner().invoke(main, ["pluck", str(AUDIO / "no-pluck.wav")])
    assert none.exit_code == 2
    assert json.loads(none.output)["errors"][0]["path"] == "recording"
