"""The ear: a running saw against its last good run at that speed; a tick tapped along with."""

import dataclasses
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.bands.facts import pitches_mm
from jade_ribbon.core.faults.orders import (
    BEAT_SIGNS,
    Order,
    SoundChange,
    Sounded,
    Turning,
    beat_of,
    louder_than_good,
    source_words,
)
from jade_ribbon.core.faults.rotating import turners
from jade_ribbon.core.faults.tapping import Tapped, name_tapped
from jade_ribbon.core.quantities.errors import refuse
from jade_ribbon.formats.recording import note_in, sounded_in
from jade_ribbon.formats.sandbox import read_apart
from jade_ribbon.reference.tables import tooth_forms
from jade_ribbon.services.clock import now
from jade_ribbon.services.faults.context import belt_of, scene_of, speed_of
from jade_ribbon.services.faults.inputs import EarQuery, TappedInput
from jade_ribbon.services.rack.edges import band_type
from jade_ribbon.services.records import get, log_change
from jade_ribbon.services.shop.saws import core_saw
from jade_ribbon.store.models import BandRow, SawRow, SoundRow

SAME_SPEED = 0.03


@dataclass(frozen=True)
class OrderLine:
    """What turns, in words, its level and by how much it rose since the last good run."""

    source: str
    words: str
    frequency_Hz: float
    level_dB: float
    heard: bool
    rise_dB: float | None


@dataclass(frozen=True)
class EarAnswer:
    """A running saw as heard; against the last good run where there is one."""

    seconds: float
    speed_m_s: float
    orders: list[OrderLine]
    clipped: bool
    against: datetime | None
    change: SoundChange | None
    words: str
    outcome: str
    """Whose beat it is, as the check of a tick answers; '' where nobody can tell."""
    sign: str
    """The sign to begin at, where something beats."""
    kept: bool


def mean_pitch_mm(band: BandRow) -> float:
    """The pitch that a band's teeth are heard by; of a continuous edge its nominal one."""
    return pitches_mm(band_type(band), tooth_forms()[band.form])[0]


def _turning(session: Session, saw_id: int, band_id: int, speed: float | None) -> Turning:
    """What turns in a saw with its band on. InputError where nobody said how fast."""
    scene = scene_of(session, saw_id, band_id, None)
    band: BandRow = get(session, "band", band_id)
    ran = speed or speed_of(scene)
    if ran is None:
        raise refuse("speed_m_s", "is missing: this saw has several speeds; say which it ran at")
    belt, pulley = belt_of(scene)
    return Turning(
        ran,
        band.length_mm,
        mean_pitch_mm(band),
        tuple(core_saw(scene.saw).wheel_diameters_mm),
        belt_length_mm=belt,
        pulley_mm=pulley,
    )


def _good(session: Session, saw_id: int, speed: float) -> SoundRow | None:
    """The last good run of a saw at about that speed."""
    return session.scalars(
        select(SoundRow)
        .where(
            SoundRow.saw_id == saw_id,
            SoundRow.speed_m_s.between(speed * (1 - SAME_SPEED), speed * (1 + SAME_SPEED)),
            SoundRow.deleted_at.is_(None),
        )
        .order_by(SoundRow.at.desc(), SoundRow.id.desc())
    ).first()


def kept_sound(heard: dict[str, Any]) -> Sounded:
    """A sound as a row keeps it."""
    return Sounded(
        heard["seconds"],
        tuple(Order(**o) for o in heard["orders"]),
        tuple(heard["noise_dB"]),
        heard["clipped"],
        tuple((a, b) for a, b in heard["not_apart"]),
    )


def _heard(session: Session, asked: EarQuery, recording: bytes) -> tuple[Sounded, Turning]:
    turning = _turning(session, asked.saw_id, asked.band_id, asked.speed_m_s)
    return read_apart("recording", sounded_in, recording, turning), turning


def hear_saw(session: Session, asked: EarQuery, recording: bytes) -> EarAnswer:
    """What turns in a recording, and what grew louder since the last good run."""
    heard, turning = _heard(session, asked, recording)
    good = _good(session, asked.saw_id, turning.speed_m_s)
    return _answer(heard, turning, good, kept=False)


def _answer(heard: Sounded, turning: Turning, good: SoundRow | None, *, kept: bool) -> EarAnswer:
    change = louder_than_good(heard, kept_sound(good.heard)) if good else None
    rises = {c.source: c.rise_dB for c in change.orders} if change else {}
    plain = "No good run of this saw is kept at this speed: nothing to hold it against."
    return EarAnswer(
        heard.seconds,
        turning.speed_m_s,
        [
            OrderLine(
                o.source,
                source_words(o.source),
                o.frequency_Hz,
                o.level_dB,
                o.heard,
                rises.get(o.source),
            )
            for o in heard.orders
        ],
        heard.clipped,
        good.at if good else None,
        change,
        change.words if change else plain,
        beat_of(heard, change),
        BEAT_SIGNS.get(beat_of(heard, change), ""),
        kept,
    )


def keep_good_sound(
    session: Session, asked: EarQuery, recording: bytes, *, who: str = ""
) -> EarAnswer:
    """Keep how a saw sounds while it runs well: levels only. InputError for a cut-off sound."""
    heard, turning = _heard(session, asked, recording)
    if heard.clipped:
        raise refuse("recording", "is cut off at its loudest; hold the microphone further away")
    row = SoundRow(
        saw_id=asked.saw_id,
        band_id=asked.band_id,
        speed_m_s=turning.speed_m_s,
        at=now(),
        heard=dataclasses.asdict(heard),
        who=who,
    )
    session.add(row)
    log_change(session, row, "add", None)
    return _answer(heard, turning, row, kept=True)


@dataclass(frozen=True)
class NoteHeard:
    """The note of a plucked band, and how much of the sound it explains."""

    frequency_Hz: float
    confidence: float
    note: str


def hear_pluck(recording: bytes) -> NoteHeard:
    """The note of a pluck in a recording. InputError where there is no clear one."""
    heard = read_apart("recording", note_in, recording)
    return NoteHeard(heard.frequency_Hz, heard.confidence, heard.note)


def name_tapped_tick(session: Session, given: TappedInput) -> Tapped:
    """What turns at the rate tapped."""
    saw: SawRow = get(session, "saw", given.saw_id)
    turning = _turning(session, saw.id, given.band_id, given.speed_m_s)
    known = turners(
        speed_m_s=turning.speed_m_s,
        band_length_mm=turning.band_length_mm,
        wheel_diameters_mm=turning.wheel_diameters_mm,
        belt_length_mm=turning.belt_length_mm,
        pulley_mm=turning.pulley_mm,
    )
    return name_tapped(given.times_s, known)
