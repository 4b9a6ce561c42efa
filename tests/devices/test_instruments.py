"""One contract over every instrument: noise, zero error, dropouts, range, and its mark."""

import io
import statistics

import pytest
import soundfile

from jade_ribbon.core.mechanics.tension import (
    side_push_extra_MPa,
    stress_from_gauge,
    stress_from_pluck,
    stress_from_side_push,
)
from jade_ribbon.core.setup.tension.listening import listen
from jade_ribbon.core.simulation import senses
from jade_ribbon.core.simulation.saw import SimulatedBand, SimulatedSaw
from jade_ribbon.devices.instrument import SPECS, DropoutError, Instrument, OutOfRangeError, Reading
from jade_ribbon.devices.microphone import Microphone, SimulatedMicrophone
from jade_ribbon.devices.shop_floor import ShopFloor
from jade_ribbon.devices.simulated import SimulatedInstrument, simulated
from jade_ribbon.formats.recording import read_recording

KINDS = sorted(SPECS)


def middle(kind: str) -> float:
    """A value well inside what an instrument reads."""
    spec = SPECS[kind]
    return spec.low + 0.6 * (spec.high - spec.low)


def device_at(kind: str, value: float, seed: int = 0) -> SimulatedInstrument:
    """A stand-in held against something of a value."""
    return simulated(kind, lambda: value, seed)


def readings(device: Instrument, count: int) -> list[Reading]:
    """So many readings, dropouts left out."""
    found: list[Reading] = []
    for _ in range(count):
        try:
            found.append(device.read())
        except DropoutError:
            continue
    return found


@pytest.mark.parametrize("kind", KINDS)
def test_a_reading_says_its_unit_and_that_it_is_simulated(kind: str) -> None:
    device: Instrument = device_at(kind, middle(kind))
    for reading in readings(device, 5):
        assert reading.simulated and reading.unit == SPECS[kind].unit
        assert reading.instrument == device.name == f"simulated {SPECS[kind].name}"


@pytest.mark.parametrize("kind", KINDS)
def test_zeroed_it_is_right_on_the_average_and_scatters(kind: str) -> None:
    near = middle(kind)
    device = device_at(kind, near, seed=4)
    device.zero()
    values = [r.value for r in readings(device, 200)]
    spread = statistics.stdev(values)
    assert spread > 0
    assert statistics.mean(values) == pytest.approx(near, abs=4 * spread / len(values) ** 0.5)


@pytest.mark.parametrize("kind", KINDS)
def test_before_it_is_zeroed_it_is_off_by_the_same_each_time(kind: str) -> None:
    near = middle(kind)
    offs = []
    for seed in range(6):
        raw, zeroed = device_at(kind, near, seed), device_at(kind, near, seed)
        zeroed.zero()
        off = [
            a.value - b.value for a, b in zip(readings(raw, 40), readings(zeroed, 40), strict=True)
        ]
        assert statistics.pstdev(off) <= SPECS[kind].resolves + 1e-9
        offs.append(abs(statistics.mean(off)))
    assert max(offs) > SPECS[kind].resolves


@pytest.mark.parametrize("kind", KINDS)
def test_it_shows_no_finer_than_it_resolves(kind: str) -> None:
    step = SPECS[kind].resolves
    for reading in readings(device_at(kind, middle(kind)), 20):
        assert reading.value / step == pytest.approx(round(reading.value / step), abs=1e-6)


def refusals(device: Instrument, count: int) -> list[Exception]:
    """What an instrument says instead of a reading, over so many tries."""
    found: list[Exception] = []
    for _ in range(count):
        try:
            device.read()
        except (DropoutError, OutOfRangeError) as problem:
            found.append(problem)
    return found


@pytest.mark.parametrize("kind", KINDS)
def test_it_drops_out_now_and_then_and_says_try_again(kind: str) -> None:
    device = device_at(kind, middle(kind), seed=2)
    lost = refusals(device, 400)
    assert 1 <= len(lost) <= 40
    assert {str(p) for p in lost} == {f"The {device.name} gave no reading; try again."}


@pytest.mark.parametrize("kind", KINDS)
def test_beyond_its_range_it_gives_no_number(kind: str) -> None:
    spec = SPECS[kind]
    device = device_at(kind, spec.high * 3 + 1)
    said = refusals(device, 10)
    assert len(said) == 10
    beyond = [str(p) for p in said if isinstance(p, OutOfRangeError)]
    assert all(f"it reads {spec.low:g} to {spec.high:g} {spec.unit}" in words for words in beyond)
    assert len(beyond) >= 7


@pytest.mark.parametrize("kind", KINDS)
def test_the_same_seed_reads_the_same(kind: str) -> None:
    one, two = (readings(device_at(kind, middle(kind), 7), 10) for _ in range(2))
    assert one == two


def test_the_microphone_s_recording_sounds_about_the_note_it_is_held_to() -> None:
    device: Microphone = SimulatedMicrophone(lambda: 62.0, 1)
    notes = []
    for _ in range(5):
        sound = device.record()
        assert soundfile.info(io.BytesIO(sound)).format == "WAV"
        recording = read_recording(sound)
        notes.append(listen(recording.samples, recording.rate_Hz).frequency_Hz)
    assert device.simulated and len(set(notes)) == 5
    assert statistics.mean(notes) == pytest.approx(62.0, rel=0.015)


def test_a_stand_in_held_against_nothing_says_so() -> None:
    device = simulated("caliper", ShopFloor().sense("caliper"), seed=1)
    with pytest.raises(DropoutError, match="held against nothing"):
        device.read()


def test_all_means_feel_the_same_stress() -> None:
    """Gauge, push and note of one simulated saw tell one stress, by the inverse formulas."""
    band = SimulatedBand(19, 15, 4, 0.81, 3360, 1050)
    saw = SimulatedSaw(band, 400, state={"stress_MPa": 120.0})
    stretch = senses.gauge_stretch_um(saw, gauge_length_mm=100)
    gauge = stress_from_gauge(gauge_stretch_um=stretch, gauge_length_mm=100).stress_MPa
    note = stress_from_pluck(
        frequency_Hz=senses.note_Hz(saw),
        width_mm=19,
        gullet_depth_mm=4,
        thickness_mm=0.81,
        span_mm=1050,
    ).stress_MPa
    push = stress_from_side_push(
        side_force_N=senses.push_force_N(saw, deflection_mm=5),
        body_width_mm=15,
        thickness_mm=0.81,
        span_mm=1050,
        deflection_mm=5,
    ).stress_MPa
    push -= side_push_extra_MPa(span_mm=1050, deflection_mm=5)
    assert [gauge, note, push] == pytest.approx([120.0] * 3)


def test_somebody_adjusting_comes_nearer_with_each_look() -> None:
    saw = SimulatedSaw(SimulatedBand(19, 15, 4, 0.81, 3360, 1050), 400, seed=3)
    off = []
    for _ in range(4):
        off.append(abs(saw.adjust("stress_MPa", 120.0) - 120.0))
        saw.looked("stress_MPa")
    assert saw.adjust("stress_MPa", 120.0) == saw.adjust("stress_MPa", 120.0)
    assert off == sorted(off, reverse=True) and 0 < off[0] <= 24 and off[-1] < 2
