"""Readings at a set-up card, by hand and through instruments."""

from dataclasses import dataclass

from flask import current_app
from sqlalchemy.orm import Session

from jade_ribbon.api.operations import SOUND, operation
from jade_ribbon.core.faults.rotating import TickVerdict
from jade_ribbon.core.setup.shims import Shims
from jade_ribbon.core.setup.tracking import TrackAdvice
from jade_ribbon.services.setup import instruments, readings
from jade_ribbon.services.setup.inputs import (
    DriftInput,
    ReadInput,
    ShimsInput,
    TensionReadingInput,
    TickInput,
    TrackInput,
    ZeroInput,
)


def _drivers() -> instruments.Instruments:
    found: instruments.Instruments = current_app.extensions["instruments"]
    return found


@operation(
    "POST",
    "/api/setups/<int:setup_id>/tension",
    answer=readings.TensionAnswer,
    body=TensionReadingInput,
    asks=True,
)
def read_tension(
    session: Session, setup_id: int, body: TensionReadingInput
) -> readings.TensionAnswer:
    """Stress from a reading by any means, against the target."""
    return readings.read_tension(session, setup_id, body)


@operation(
    "POST",
    "/api/setups/<int:setup_id>/listen",
    answer=readings.ListenAnswer,
    raw_body=True,
    media=SOUND,
    asks=True,
)
def listen_to_band(session: Session, setup_id: int, body: bytes) -> readings.ListenAnswer:
    """The note of the plucked band in a recording, and the stress it says."""
    return readings.hear(session, setup_id, body)


@operation("GET", "/api/setups/<int:setup_id>/vibration", answer=readings.VibrationAnswer)
def vibration_card(session: Session, setup_id: int) -> readings.VibrationAnswer:
    """What shakes at this speed and guide height."""
    return readings.shakes(session, setup_id)


@operation("POST", "/api/shims", answer=Shims, body=ShimsInput, asks=True)
def shims_for_gap(session: Session, body: ShimsInput) -> Shims:
    """How many slips of card or foil make a gap."""
    return readings.slips(body)


@operation(
    "POST",
    "/api/setups/<int:setup_id>/drift",
    answer=readings.DriftAnswer,
    body=DriftInput,
)
def read_drift(session: Session, setup_id: int, body: DriftInput) -> readings.DriftAnswer:
    """What a freehand trial says; kept with the band when asked."""
    return readings.read_drift(session, setup_id, body)


@operation("POST", "/api/setups/<int:setup_id>/tick", answer=TickVerdict, body=TickInput, asks=True)
def read_tick(session: Session, setup_id: int, body: TickInput) -> TickVerdict:
    """Which turning part a counted tick belongs to."""
    return readings.read_tick(session, setup_id, body)


@operation(
    "POST",
    "/api/setups/<int:setup_id>/read",
    answer=instruments.InstrumentReading,
    body=ReadInput,
    asks=True,
)
def read_instrument(
    session: Session, setup_id: int, body: ReadInput
) -> instruments.InstrumentReading:
    """One reading of a step through the chosen instrument."""
    return instruments.read(session, _drivers(), setup_id, body)


@dataclass(frozen=True)
class Zeroed:
    """Which instrument was zeroed."""

    instrument: str


@operation("POST", "/api/instruments/zero", answer=Zeroed, body=ZeroInput, asks=True)
def zero_instrument(session: Session, body: ZeroInput) -> Zeroed:
    """Zero an instrument: a gauge on the slack band, a caliper closed."""
    return Zeroed(instruments.zero(session, _drivers(), body.kind))


@operation("POST", "/api/setups/<int:setup_id>/record", answer=readings.ListenAnswer, asks=True)
def record_pluck(session: Session, setup_id: int) -> readings.ListenAnswer:
    """Listen through the chosen microphone driver."""
    return instruments.record(session, _drivers(), setup_id)


@operation(
    "POST", "/api/setups/<int:setup_id>/track", answer=TrackAdvice, body=TrackInput, asks=True
)
def read_tracking(session: Session, setup_id: int, body: TrackInput) -> TrackAdvice:
    """The next touch of the tracking knob."""
    return readings.read_tracking(session, setup_id, body)
