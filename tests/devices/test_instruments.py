"""One contract over every instrument: noise, zero error, dropouts, range, and its mark."""

import io
import statistics

import pytest
import soundfile

from jade_ribbon.core.listening import listen
from jade_ribbon.devices.instrument import (
    SPECS,
    DropoutError,
    Instrument,
    OutOfRangeError,
    Reading,
)
from jade_ribbon.devices.microphone import Microphone, SimulatedMicrophone
from jade_ribbon.devices.simulated import simulated
from jade_ribbon.formats.recording import read_recording

KINDS = sorted(SPECS)


def middle(kind: str) -> float:
    """A value well inside what an instrument reads."""
    spec = SPECS[kind]
    return spec.low + 0.6 * (spec.high - spec.low)


def readings(device: Instrument, near: float, count: int) -> list[Reading]:
    """So many readings, dropouts left out."""
    found: list[Reading] = []
    for _ in range(count):
        try:
            found.append(device.read(near))
        except DropoutError:
            continue
    return found


@pytest.mark.parametrize("kind", KINDS)
def test_a_reading_says_its_unit_and_that_it_is_simulated(kind: str) -> None:
    device: Instrument = simulated(kind)
    for reading in readings(device, middle(kind), 5):
        assert reading.simulated and reading.unit == SPECS[kind].unit
        assert reading.instrument == device.name == f"simulated {SPECS[kind].name}"


@pytest.mark.parametrize("kind", KINDS)
def test_zeroed_it_is_right_on_the_average_and_scatters(kind: str) -> None:
    device, near = simulated(kind, seed=4), middle(kind)
    device.zero()
    values = [r.value for r in readings(device, near, 200)]
    spread = statistics.stdev(values)
    assert spread > 0
    assert statistics.mean(values) == pytest.approx(near, abs=4 * spread / len(values) ** 0.5)


@pytest.mark.parametrize("kind", KINDS)
def test_before_it_is_zeroed_it_is_off_by_the_same_each_time(kind: str) -> None:
    near = middle(kind)
    offs = []
    for seed in range(6):
        raw, zeroed = simulated(kind, seed), simulated(kind, seed)
        zeroed.zero()
        off = [
            a.value - b.value
            for a, b in zip(readings(raw, near, 40), readings(zeroed, near, 40), strict=True)
        ]
        assert statistics.pstdev(off) <= SPECS[kind].resolves + 1e-9
        offs.append(abs(statistics.mean(off)))
    assert max(offs) > SPECS[kind].resolves


@pytest.mark.parametrize("kind", KINDS)
def test_it_shows_no_finer_than_it_resolves(kind: str) -> None:
    step = SPECS[kind].resolves
    for reading in readings(simulated(kind), middle(kind), 20):
        assert reading.value / step == pytest.approx(round(reading.value / step), abs=1e-6)


def refusals(device: Instrument, near: float, count: int) -> list[Exception]:
    """What an instrument says instead of a reading, over so many tries."""
    found: list[Exception] = []
    for _ in range(count):
        try:
            device.read(near)
        except (DropoutError, OutOfRangeError) as problem:
            found.append(problem)
    return found


@pytest.mark.parametrize("kind", KINDS)
def test_it_drops_out_now_and_then_and_says_try_again(kind: str) -> None:
    device = simulated(kind, seed=2)
    lost = refusals(device, middle(kind), 400)
    assert 1 <= len(lost) <= 40
    assert {str(p) for p in lost} == {f"The {device.name} gave no reading; try again."}


@pytest.mark.parametrize("kind", KINDS)
def test_beyond_its_range_it_gives_no_number(kind: str) -> None:
    device, spec = simulated(kind), SPECS[kind]
    said = refusals(device, spec.high * 3 + 1, 10)
    assert len(said) == 10
    beyond = [str(p) for p in said if isinstance(p, OutOfRangeError)]
    assert all(f"it reads {spec.low:g} to {spec.high:g} {spec.unit}" in words for words in beyond)
    assert len(beyond) >= 7


@pytest.mark.parametrize("kind", KINDS)
def test_the_same_seed_reads_the_same(kind: str) -> None:
    one, two = (readings(simulated(kind, 7), middle(kind), 10) for _ in range(2))
    assert one == two


def test_the_microphone_s_recording_sounds_about_the_note_it_is_held_to() -> None:
    device: Microphone = SimulatedMicrophone(1)
    notes = []
    for _ in range(5):
        sound = device.record(62.0)
        assert soundfile.info(io.BytesIO(sound)).format == "WAV"
        recording = read_recording(sound)
        notes.append(listen(recording.samples, recording.rate_Hz).frequency_Hz)
    assert device.simulated and len(set(notes)) == 5
    assert statistics.mean(notes) == pytest.approx(62.0, rel=0.015)
