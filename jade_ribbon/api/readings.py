"""Readings at a set-up card, by hand and through instruments."""

from dataclasses import dataclass

from flask import current_app
from sqlalchemy.orm import Session

from jade_ribbon.api.operations import SOUND, operation
from jade_ribbon.core.slips import Slips
from jade_ribbon.core.ticks import TickVerdict
from jade_ribbon.core.tracking import TrackAdvice
from jade_ribbon.services import instruments, setup_reads
from jade_ribbon.services.setup_inputs import (
    DriftInput,
    ReadInput,
    SlipsInput,
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
    answer=setup_reads.TensionAnswer,
    body=TensionReadingInput,
    asks=True,
)
def read_tension(
    session: Session, setup_id: int, body: TensionReadingInput
) -> setup_reads.TensionAnswer:
    """Stress from a reading by any means, against the target."""
    return setup_reads.read_tension(session, setup_id, body)


@operation(
    "POST",
    "/api/setups/<int:setup_id>/listen",
    answer=setup_reads.ListenAnswer,
    raw_body=True,
    media=SOUND,
    asks=True,
)
def listen_to_band(session: Session, setup_id: int, body: bytes) -> setup_reads.ListenAnswer:
    """The note of the plucked band in a recording, and the stress it says."""
    return setup_reads.hear(session, setup_id, body)


@operation("GET", "/api/setups/<int:setup_id>/vibration", answer=setup_reads.VibrationAnswer)
def vibration_card(session: Session, setup_id: int) -> setup_reads.VibrationAnswer:
    """What shakes at this speed and guide height."""
    return setup_reads.shakes(session, setup_id)


@operation("POST", "/api/slips", answer=Slips, body=SlipsInput, asks=True)
def slips_for_gap(session: Session, body: SlipsInput) -> Slips:
    """How many slips of card or foil make a gap."""
    return setup_reads.slips(body)


@operation(
    "POST",
    "/api/setups/<int:setup_id>/drift",
    answer=setup_reads.DriftAnswer,
    body=DriftInput,
)
def read_drift(session: Session, setup_id: int, body: DriftInput) -> setup_reads.DriftAnswer:
    """What a freehand trial says; kept with the band when asked."""
    return setup_reads.read_drift(session, setup_id, body)


@operation("POST", "/api/setups/<int:setup_id>/tick", answer=TickVerdict, body=TickInput, asks=True)
def read_tick(session: Session, setup_id: int, body: TickInput) -> TickVerdict:
    """Which turning part a counted tick belongs to."""
    return setup_reads.read_tick(session, setup_id, body)


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


@operation("POST", "/api/setups/<int:setup_id>/record", answer=setup_reads.ListenAnswer, asks=True)
def record_pluck(session: Session, setup_id: int) -> setup_reads.ListenAnswer:
    """Listen through the chosen microphone driver."""
    return instruments.record(session, _drivers(), setup_id)


@operation(
    "POST", "/api/setups/<int:setup_id>/track", answer=TrackAdvice, body=TrackInput, asks=True
)
def read_tracking(session: Session, setup_id: int, body: TrackInput) -> TrackAdvice:
    """The next touch of the tracking knob."""
    return setup_reads.read_tracking(session, setup_id, body)
