"""Inspection's constants, each with a case whose answer moves when it does."""

import dataclasses
import math
from typing import Any

import pytest

from jade_ribbon.core.inspection import advice, evidence, face, trend, trial
from jade_ribbon.core.inspection.advice import FaceAdvice, SetFigures, advise_on
from jade_ribbon.core.inspection.evidence import FaceReading, PowerReading
from jade_ribbon.core.inspection.face import Face, FacePart, read_face
from jade_ribbon.reference.tables import materials
from tests.support.pins import Pin, held

CUT = PowerReading(
    power_W=1000.0,
    idle_W=200.0,
    drive_efficiency=0.8,
    kerf_mm=1.0,
    height_mm=100.0,
    feed_m_min=3.0,
    speed_m_s=20.0,
    pitch_mm=10.0,
    dullness=0.0,
)
"""640 W over 5 cm³/s: 128 MPa at a bite of 0.025 mm."""
NINE = [(x, y) for x in (0.0, 0.5, 1.0) for y in (-1.0, 0.0, 1.0)]


def advised(key: str, amount_mm: float, **more: float) -> FaceAdvice:
    """What is advised of one part over a tolerance of 0.8 mm, at 2 m/min without a size effect."""
    figures: dict[str, Any] = {
        "length_mm": 1000.0,
        "height_mm": 200.0,
        "tolerance_mm": 0.8,
        "feed_m_min": 2.0,
        "floor_m_min": 0.01,
        "size_exponent_m": 0.0,
        "dullness": 0.0,
        "stress_MPa": 100.0,
        "high_MPa": 100.0,
        "kerf_mm": 1.0,
    }
    part = FacePart(key, amount_mm, 0.01, 0.01, abs(amount_mm) / 0.8, "over")  # type: ignore[arg-type]
    whole = read_face([(x, y, 20.0) for x, y in NINE], tolerance_mm=0.8)
    over = Face(whole.map, (part,), 9, 5, 0.5, whole.relief_mm, "")
    found = advise_on(over, SetFigures(**(figures | more)))
    assert found is not None
    return found


def share_of(times: float) -> FaceReading:
    """A face that says so many times a usual share of 1: barrel 8 T / (H F)."""
    return FaceReading(times * 1000.0 / 8000.0, 10.0, 1000.0, 100.0)


def believed(times: float, count: int = 1) -> int:
    return len(evidence.believed([share_of(times)] * count))


def tapers(*degrees: float) -> trend.TaperTrend | None:
    lengths = [1000.0] * len(degrees)
    return trend.taper_trend([1000 * math.tan(math.radians(d)) for d in degrees], lengths)


def verdict(*degrees: float) -> str:
    found = tapers(*degrees)
    return "" if found is None else found.verdict


def words(*degrees: float) -> str:
    found = tapers(*degrees)
    return "" if found is None else found.words


def waves_of(residual: float) -> float:
    """Waves of nine readings, up and down by so much beside a flat face."""
    sign = [1, -1, 1, -1, 1, -1, 1, -1, 1]
    readings = [(x, y, 20.0 + s * residual) for (x, y), s in zip(NINE, sign, strict=True)]
    part = read_face(readings, tolerance_mm=0.8).part("waves")
    assert part is not None
    return part.doubt_mm


def nearest(pressure: float) -> bool:
    """Whether a wood so many times as stiff to cut is near."""
    oak = dataclasses.replace(materials()["white_oak_dry"], janka_N=None)
    pressed = oak.specific_cutting_pressure_MPa * pressure
    other = dataclasses.replace(oak, key="other", specific_cutting_pressure_MPa=pressed)
    found = trial.propose_trial(oak, [other])
    assert found is not None
    return found.near


PINS = (
    Pin(advice, "AIMED_SHARE", lambda: advised("barrel", 1.2).feed_m_min, 0.8),
    Pin(advice, "KEEN", lambda: "dull" in advised("barrel", 4.0, dullness=0.4).cause, True),
    Pin(advice, "EASED_LEAST", lambda: advised("barrel", 2.0).feed_m_min is None, False),
    Pin(
        advice,
        "EXPLAINED_TIMES",
        lambda: "More than" in advised("barrel", 1.0, push_barrel_mm=0.2).cause,
        True,
    ),
    Pin(
        advice,
        "ODD_SHARE",
        lambda: "so far off" in advised("thickness", 1.2, asked_mm=4.0).cause,
        True,
    ),
    Pin(
        evidence, "REFERENCE_BITE_MM", lambda: evidence.reference_pressure_MPa(CUT, 0.5, 0.0), 64.0
    ),
    Pin(
        evidence,
        "PRESSURE_SD_LN",
        lambda: evidence.pressure_by_watts(50.0, 0.25, [(100.0, False)]).K_ref_MPa,
        70.7107,
    ),
    Pin(
        evidence,
        "PRESSURE_BY_AMPS_SD_LN",
        lambda: evidence.pressure_by_watts(50.0, 0.45, [(100.0, True)]).K_ref_MPa,
        70.7107,
    ),
    Pin(evidence, "BELIEVED_ALONE", lambda: believed(5.0), 0),
    Pin(evidence, "BELIEVED_EVER", lambda: believed(25.0, 3), 0),
    Pin(evidence, "AGREEING", lambda: believed(5.0, 3), 3),
    Pin(face, "PEAK_TO_PEAK", lambda: round(waves_of(0.01), 4), 0.0401),
    Pin(trend, "LEAST_FACES", lambda: verdict(0.1, 0.1, 0.1, 0.1), "steady"),
    Pin(trend, "GROWING_DEG", lambda: verdict(0.1, 0.125, 0.15, 0.175), "growing"),
    Pin(trend, "LEAST_DEG", lambda: "the fence" in words(0.004, 0.004, 0.004, 0.004), True),
    Pin(trend, "SWINGS_DEG", lambda: words(0.04, -0.04, 0.04, -0.04) == trend.SWINGS, True),
    Pin(trial, "FAR", lambda: nearest(1.8), False),
)


@pytest.mark.parametrize("pin", PINS, ids=str)
def test_a_constant_moves_its_case(pin: Pin, monkeypatch: pytest.MonkeyPatch) -> None:
    held(pin, monkeypatch)
