"""Instruments of the shop: one reading of a step, by whichever driver is chosen."""

import random
from dataclasses import dataclass

from sqlalchemy.orm import Session

from jade_ribbon.core.errors import Fault, InputError
from jade_ribbon.core.speed import rim_speed
from jade_ribbon.devices.instrument import SPECS, DropoutError, Instrument, OutOfRangeError
from jade_ribbon.devices.microphone import SimulatedMicrophone
from jade_ribbon.devices.simulated import simulated
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.setting_up import read_setting_up
from jade_ribbon.services.setup_inputs import ReadInput
from jade_ribbon.services.setup_reads import ListenAnswer, hear
from jade_ribbon.services.setups import Open, open_card

FIRST_OFF_SHARE = 0.2
SETTLES = 0.35
"""What a stand-in is held against starts off by a fifth and is brought nearer between readings."""


class Instruments:
    """The drivers of a running application, and what the stand-ins are held against."""

    def __init__(self) -> None:
        self._drivers: dict[str, Instrument] = {k: simulated(k) for k in SPECS}
        self._microphone = SimulatedMicrophone()
        self._readings: dict[tuple[int, str, str], int] = {}

    def driver(self, kind: str) -> Instrument:
        if kind not in self._drivers:
            words = f"{kind!r} is no instrument; accepted: {', '.join(self._drivers)}"
            raise InputError([Fault("kind", words, kind)])
        return self._drivers[kind]

    def microphone(self) -> SimulatedMicrophone:
        return self._microphone

    def near(self, setup_id: int, step: str, reading: str, target: float) -> float:
        """Where somebody adjusting towards the target has come by this reading."""
        key = (setup_id, step, reading)
        taken = self._readings.get(key, 0)
        self._readings[key] = taken + 1
        start = random.Random(f"{key}").uniform(-1.0, 1.0)  # noqa: S311 - a stand-in's world
        off = FIRST_OFF_SHARE * (start if abs(start) > 0.3 else 0.6)
        scale = target if target else 0.5
        return float(target + scale * off * SETTLES**taken)


@dataclass(frozen=True)
class InstrumentReading:
    """A reading in the unit of the step's own reading."""

    value: float
    unit: str
    simulated: bool
    instrument: str


@dataclass(frozen=True)
class _Target:
    """What an instrument is held against at a step, in its own unit, and back to the step's."""

    near: float
    to_reading: float


def _target(found: Open, kind: str, step: str, reading: str) -> _Target:
    card = found.card
    if kind == "strain_gauge":
        return _Target(card.tension.forms.gauge_stretch_um, 1.0)
    if kind == "push_scale" and card.tension.side_push is not None:
        return _Target(card.tension.side_push.force_N, 1.0)
    if kind == "tachometer":
        wheel = found.job.saw.wheel_diameters_mm[-1]
        per_rpm = rim_speed(wheel_diameter_mm=wheel, wheel_rpm=1.0)
        return _Target(card.speed_m_s / per_rpm, per_rpm)
    targets = {
        "side_mm": card.guides.side_gap_mm or 0.0,
        "thrust_mm": card.guides.thrust_gap_mm,
        "fore_aft_mm": 1.0,
        "height_mm": card.guides.guard_height_mm,
        "clear_mm": card.guides.guard_gap_mm,
        "spread_mm": (found.job.cut.tolerance_mm or 1.0) / 2.0,
    }
    return _Target(targets.get(reading, 0.0), 1.0)


def _check_chosen(session: Session, kind: str) -> None:
    if read_setting_up(session).instruments.get(kind) != "simulated":
        raise ConflictError(
            f"No {kind.replace('_', ' ')} is connected: type the reading, or choose the simulated "
            "one in Shop."
        )


def read(
    session: Session, instruments: Instruments, setup_id: int, given: ReadInput
) -> InstrumentReading:
    """One reading for a step. ConflictError for a dropout or out of range: read again."""
    driver = instruments.driver(given.kind)
    _check_chosen(session, given.kind)
    found = open_card(session, setup_id)
    target = _target(found, given.kind, given.step, given.reading)
    near = instruments.near(setup_id, given.step, given.reading, target.near)
    try:
        reading = driver.read(near)
    except (DropoutError, OutOfRangeError) as problem:
        raise ConflictError(str(problem)) from problem
    return InstrumentReading(
        reading.value * target.to_reading, reading.unit, reading.simulated, reading.instrument
    )


def zero(session: Session, instruments: Instruments, kind: str) -> str:
    """Zero an instrument, on a slack band or closed jaws; what was zeroed."""
    driver = instruments.driver(kind)
    _check_chosen(session, kind)
    driver.zero()
    return driver.name


def record(session: Session, instruments: Instruments, setup_id: int) -> ListenAnswer:
    """Listen through the chosen microphone driver; the browser's own needs none of this."""
    _check_chosen(session, "microphone")
    found = open_card(session, setup_id)
    target = found.card.tension.note_Hz
    if target is None:
        raise ConflictError("Three wheels have no single free span: use the gauge.")
    near = instruments.near(setup_id, "tension", "note", target)
    return hear(session, setup_id, instruments.microphone().record(near))
