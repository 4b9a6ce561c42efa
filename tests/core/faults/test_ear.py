"""The ear: what grew louder since the last good run, and when it cannot tell."""

from dataclasses import replace

import numpy as np
import pytest

from jade_ribbon.core.faults.beats import Beats, beats_of
from jade_ribbon.core.faults.orders import Sounded, Turning, hear, louder_than_good
from jade_ribbon.core.faults.rotating import turners
from jade_ribbon.core.faults.tapping import name_tapped, tapped_rate
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.simulation.sounds import MADE, RATE_HZ, RunningSaw, sound_of

SAW = RunningSaw()
TURNING = Turning(
    SAW.speed_m_s, SAW.band_length_mm, SAW.pitch_mm, (SAW.wheel_mm, SAW.wheel_mm), SAW.motor_rpm
)


def heard(key: str, seed: int, saw: RunningSaw = SAW) -> Sounded:
    return hear(sound_of(key, saw, seed), RATE_HZ, TURNING)


GOOD = heard("good", 1)


@pytest.mark.parametrize(
    ("key", "named"),
    [("tick", "weld"), ("wheel_knock", "wheel_1"), ("vibration", "wheel_1"), ("hum", "mains")],
)
def test_what_grew_louder_is_named_by_its_order(key: str, named: str) -> None:
    for seed in range(2, 8):
        assert louder_than_good(heard(key, seed), GOOD).named == named, (key, seed)


def test_a_saw_in_order_raises_no_alarm() -> None:
    assert [s for s in range(10, 50) if louder_than_good(heard("good", s), GOOD).named] == []


def test_how_near_the_microphone_was_does_not_matter() -> None:
    near = hear(0.1 * sound_of("tick", SAW, 4), RATE_HZ, TURNING)
    change = louder_than_good(near, hear(0.9 * sound_of("good", SAW, 1), RATE_HZ, TURNING))
    assert change.named == "weld" and change.shift_dB < -12


def test_noise_and_a_voice_do_not_name_what_did_not_change() -> None:
    random = np.random.default_rng(2)
    t = SAW.times
    voice = np.sin(2 * np.pi * 180 * t * (1 + 0.02 * np.sin(2 * np.pi * 0.7 * t)))
    spoken = voice * (np.sin(2 * np.pi * 1.3 * t) > 0) * 0.2
    sound = sound_of("good", SAW, 9) + spoken + 0.05 * random.standard_normal(t.size)
    assert louder_than_good(hear(sound, RATE_HZ, TURNING), GOOD).named == ""
    ticked = sound_of("tick", SAW, 9) + spoken
    assert louder_than_good(hear(ticked, RATE_HZ, TURNING), GOOD).named == "weld"


def test_a_speed_off_by_a_hundredth_is_still_heard() -> None:
    fast = replace(SAW, speed_m_s=SAW.speed_m_s * 1.01)
    assert louder_than_good(heard("tick", 5, fast), GOOD).named == "weld"


def test_what_is_cut_off_names_nobody() -> None:
    sound = np.clip(4 * sound_of("tick", SAW, 3), -0.8, 0.8)
    found = hear(sound, RATE_HZ, TURNING)
    change = louder_than_good(found, GOOD)
    assert found.clipped and change.named == "" and "not to be trusted" in change.words
    with pytest.raises(InputError, match="cut off at its loudest"):
        hear(np.sign(np.sin(2 * np.pi * 100 * SAW.times)), RATE_HZ, TURNING)


def test_things_that_turn_alike_are_not_told_apart() -> None:
    alike = replace(TURNING, band_length_mm=np.pi * SAW.wheel_mm * 1.01)
    found = hear(sound_of("wheel_knock", SAW, 2), RATE_HZ, alike)
    change = louder_than_good(found, hear(sound_of("good", SAW, 1), RATE_HZ, alike))
    assert change.named == "" and change.words.startswith("Cannot tell between")


@pytest.mark.parametrize(
    ("samples", "words"),
    [
        (np.zeros(RATE_HZ * 5), "is silent"),
        (np.ones(RATE_HZ), "lasts 1.0 s; accepted: 3 s or more"),
    ],
)
def test_what_tells_nothing_is_refused(samples: np.ndarray, words: str) -> None:
    with pytest.raises(InputError, match=words):
        hear(samples, RATE_HZ, TURNING)


def test_rates_are_by_hand() -> None:
    rates = replace(TURNING, belt_length_mm=1200.0, pulley_mm=200.0).rates()
    assert rates["weld"] == pytest.approx(14.5 / 4.0)
    assert rates["wheel_1"] == pytest.approx(14500 / (np.pi * 400))
    assert rates["belt"] == pytest.approx(rates["wheel_1"] * np.pi * 200 / 1200)
    assert rates["motor"] == 47.5 and rates["mains"] == 100.0
    assert "wheel_2" not in rates


def test_every_sound_is_heard_without_clipping_and_alike_each_time() -> None:
    for key in MADE:
        once, again = sound_of(key, SAW, 3), sound_of(key, SAW, 3)
        assert np.array_equal(once, again) and 0.2 < np.abs(once).max() <= 0.8001, key


KNOWN = turners(speed_m_s=14.5, band_length_mm=4000.0, wheel_diameters_mm=(400.0, 400.0))


def taps(rate: float, count: int = 10, jitter: float = 0.01) -> list[float]:
    random = np.random.default_rng(4)
    return [i / rate + float(random.normal(0, jitter)) for i in range(count)]


def test_a_tapped_beat_is_named() -> None:
    found = name_tapped(taps(3.62), KNOWN)
    assert [m.key for m in found.matches] == ["weld"] and found.matches[0].stretched == ""
    assert found.outcome == "band"
    assert found.rate_Hz == pytest.approx(3.62, rel=0.02)


def test_every_second_beat_and_double_ones_are_considered() -> None:
    second = name_tapped(taps(3.625 / 2), KNOWN)
    assert [(m.key, m.stretched) for m in second.matches] == [
        ("weld", "every second beat was tapped")
    ]


def test_two_that_fit_are_not_chosen_between() -> None:
    alike = turners(speed_m_s=14.5, band_length_mm=2513.3, wheel_diameters_mm=(400.0, 800.0))
    found = name_tapped(taps(14.5 / 2.5133), alike)
    assert len(found.matches) > 1 and "cannot tell between" in str(found.words)
    assert found.outcome == ""


def test_what_fits_nothing_is_said() -> None:
    assert "none of what turns here" in str(name_tapped(taps(2.6), KNOWN).words)


@pytest.mark.parametrize(
    ("times", "words"),
    [([0.0, 1.0], "2 taps; accepted: 6 or more"), ([0, 0.1, 1, 1.1, 3, 3.2, 5], "keep no beat")],
)
def test_no_beat_is_no_rate(times: list[float], words: str) -> None:
    with pytest.raises(InputError, match=words):
        tapped_rate(times)


@pytest.mark.parametrize("seed", range(12))
def test_any_saw_s_knock_is_its_own_or_nobody_s(seed: int) -> None:
    """Saws of any size with a belt: never a part that did not knock."""
    random = np.random.default_rng(seed)
    saw = RunningSaw(
        speed_m_s=float(random.uniform(7, 25)),
        band_length_mm=float(random.uniform(2600, 6000)),
        pitch_mm=float(random.uniform(4, 20)),
        wheel_mm=float(random.uniform(300, 600)),
    )
    turning = Turning(
        saw.speed_m_s * float(random.uniform(0.985, 1.015)),
        saw.band_length_mm,
        saw.pitch_mm,
        (saw.wheel_mm, saw.wheel_mm),
        saw.motor_rpm,
        belt_length_mm=float(random.uniform(900, 1800)),
        pulley_mm=float(random.uniform(120, 300)),
    )
    good = hear(sound_of("good", saw, seed), RATE_HZ, turning)
    for key, own in (("tick", "weld"), ("wheel_knock", "wheel_1")):
        found = hear(sound_of(key, saw, seed + 50), RATE_HZ, turning)
        change = louder_than_good(found, good)
        assert change.named in (own, ""), (key, change.words)
        if not change.named:
            assert any(own in pair for pair in found.not_apart)


def test_a_rate_that_would_leave_lines_or_miss_multiples_is_not_named() -> None:
    """Lines at every multiple of 4 Hz are not of 8 Hz; lines at every one of 8 not of 4."""
    step, power = 0.1, np.ones(1000)

    def combed(rate: float) -> Beats:
        spectrum = power * np.random.default_rng(1).uniform(0.7, 1.3, power.size)
        spectrum[[round(h * rate / step) for h in range(1, 11)]] = 300.0
        return beats_of(spectrum, step, {"slow": 4.0, "fast": 8.0})

    assert set(combed(4.0).levels) == {"slow"} and set(combed(8.0).levels) == {"fast"}
    assert beats_of(power, step, {"slow": 4.0}).levels == {}
