"""Instruments of the shop: one reading of a step, by whichever driver is chosen."""

from collections.abc import Callable
from dataclasses import dataclass

from sqlalchemy.orm import Session

from jade_ribbon.core.mechanics.speed import rim_speed
from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.setup.figures import free_span_of
from jade_ribbon.core.simulation import senses
from jade_ribbon.core.simulation.saw import SimulatedBand, SimulatedSaw
from jade_ribbon.devices.instrument import SPECS, DropoutError, Instrument, OutOfRangeError
from jade_ribbon.devices.microphone import SimulatedMicrophone
from jade_ribbon.devices.shop_floor import ShopFloor
from jade_ribbon.devices.simulated import simulated
from jade_ribbon.services.errors import ConflictError
from jade_ribbon.services.setup.cards import Open, open_card
from jade_ribbon.services.setup.inputs import ReadInput, ZeroInput
from jade_ribbon.services.setup.readings import ListenAnswer, listen_to_band
from jade_ribbon.services.setup.roles import read_setting_up


class Instruments:
    """The drivers of a running application, and the floor on which the stand-ins are held."""

    def __init__(self) -> None:
        self.floor = ShopFloor()
        self._drivers: dict[str, Instrument] = {k: simulated(k, self.floor.sense(k)) for k in SPECS}
        self.microphone = SimulatedMicrophone(self.floor.sense("microphone"))

    def driver(self, kind: str) -> Instrument:
        if kind not in self._drivers:
            words = f"{kind!r} is no instrument; accepted: {', '.join(self._drivers)}"
            raise InputError([Fault("kind", words, kind)])
        return self._drivers[kind]


def simulated_saw(found: Open) -> SimulatedSaw:
    """The saw of a card as the stand-ins meet it."""
    facts, saw = found.best.evaluation.facts, found.job.saw
    band = SimulatedBand(
        width_mm=facts.band.width_mm,
        body_width_mm=facts.body_width_mm,
        gullet_depth_mm=facts.gullet_depth_mm,
        thickness_mm=facts.band.thickness_mm,
        band_length_mm=facts.length_mm,
        free_span_mm=free_span_of(saw, facts.length_mm),
    )
    return SimulatedSaw(band, saw.wheel_diameters_mm[-1], seed=found.row.id)


@dataclass(frozen=True)
class InstrumentReading:
    """A reading in the unit of the step's own reading."""

    value: float
    unit: str
    simulated: bool
    instrument: str


@dataclass(frozen=True)
class _Held:
    """What an instrument is held against at a step: what it feels, and back to the step's unit."""

    what: str
    sense: Callable[[], float]
    to_reading: float = 1.0


def _wanted_gap(found: Open, reading: str) -> float:
    """What somebody sets a gap, height or spread (mm) towards."""
    card = found.card
    targets = {
        "side_mm": card.guides.side_gap_mm or 0.0,
        "thrust_mm": card.guides.thrust_gap_mm,
        "fore_aft_mm": 1.0,
        "height_mm": card.guides.guard_height_mm,
        "clear_mm": card.guides.guard_gap_mm,
        "spread_mm": (found.job.cut.tolerance_mm or 1.0) / 2.0,
        "off_line_mm": (found.job.cut.tolerance_mm or 1.0) / 2.0,
    }
    return targets.get(reading, 0.0)


def _hold(found: Open, saw: SimulatedSaw, given: ReadInput) -> _Held:
    """The place a step's instrument is held to, after somebody set it a little nearer."""
    card = found.card
    if given.kind == "strain_gauge":
        saw.adjust("stress_MPa", card.tension.stress_MPa, step=given.step)
        length = card.tension.gauge_length_mm
        return _Held("stress_MPa", lambda: senses.gauge_stretch_um(saw, gauge_length_mm=length))
    push = card.tension.side_push
    if given.kind == "push_scale" and push is not None:
        saw.adjust("stress_MPa", card.tension.stress_MPa, step=given.step)
        return _Held(
            "stress_MPa", lambda: senses.push_force_N(saw, deflection_mm=push.deflection_mm)
        )
    if given.kind == "tachometer":
        saw.adjust("speed_m_s", card.speed_m_s, step=given.step)
        per_rpm = rim_speed(wheel_diameter_mm=saw.wheel_diameter_mm, wheel_rpm=1.0)
        return _Held("speed_m_s", lambda: senses.wheel_rpm(saw), per_rpm)
    saw.adjust(given.reading, _wanted_gap(found, given.reading), step=given.step)
    return _Held(given.reading, lambda: senses.gap_mm(saw, given.reading))


def _check_chosen(session: Session, kind: str) -> None:
    if read_setting_up(session).instruments.get(kind) != "simulated":
        raise ConflictError(
            f"No {kind.replace('_', ' ')} is connected: type the reading, or choose the simulated "
            "one in Shop."
        )


def read_instrument(
    session: Session, instruments: Instruments, setup_id: int, given: ReadInput
) -> InstrumentReading:
    """One reading for a step. ConflictError for a dropout or out of range: read again."""
    driver = instruments.driver(given.kind)
    _check_chosen(session, given.kind)
    found = open_card(session, setup_id)
    saw = instruments.floor.saw(setup_id, lambda: simulated_saw(found))
    held = _hold(found, saw, given)
    instruments.floor.hold(given.kind, held.sense)
    try:
        reading = driver.read()
    except (DropoutError, OutOfRangeError) as problem:
        raise ConflictError(str(problem)) from problem
    saw.looked(held.what, step=given.step)
    return InstrumentReading(
        reading.value * held.to_reading, reading.unit, reading.simulated, reading.instrument
    )


@dataclass(frozen=True)
class Zeroed:
    """Which instrument was zeroed."""

    instrument: str


def zero_instrument(session: Session, instruments: Instruments, given: ZeroInput) -> Zeroed:
    """Zero an instrument: a gauge on the slack band, a caliper closed."""
    driver = instruments.driver(given.kind)
    _check_chosen(session, given.kind)
    driver.zero()
    return Zeroed(driver.name)


def record_pluck(session: Session, instruments: Instruments, setup_id: int) -> ListenAnswer:
    """Listen through the chosen microphone driver; the browser's own needs none of this."""
    _check_chosen(session, "microphone")
    found = open_card(session, setup_id)
    if found.card.tension.note_Hz is None:
        raise ConflictError("Three wheels have no single free span: use the gauge.")
    saw = instruments.floor.saw(setup_id, lambda: simulated_saw(found))
    saw.adjust("stress_MPa", found.card.tension.stress_MPa, step="note")
    instruments.floor.hold("microphone", lambda: senses.note_Hz(saw))
    heard = listen_to_band(session, setup_id, instruments.microphone.record())
    saw.looked("stress_MPa", step="note")
    return heard
