"""Readings at a set-up card: tension, the note, what shakes, drift and ticks."""

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from jade_ribbon.core.bands.reach import span_mm
from jade_ribbon.core.faults.resonance import (
    Running,
    Vibration,
    remedies,
    vibration_of_band,
    vibration_words,
)
from jade_ribbon.core.faults.rotating import TickVerdict, name_tick, turners
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import Said, sentence
from jade_ribbon.core.setup.drift_verdict import DriftVerdict, drift_verdict, method_for
from jade_ribbon.core.setup.figures import free_span_of
from jade_ribbon.core.setup.shims import Shims, shims_for
from jade_ribbon.core.setup.tension.listening import Heard, Plucks, several
from jade_ribbon.core.setup.tension.note_names import note_name
from jade_ribbon.core.setup.tension.tension_reading import (
    Calibrated,
    StandVerdict,
    TensionBand,
    TensionReading,
    judged,
    tension_reading,
)
from jade_ribbon.core.setup.tracking import TrackAdvice, track_advice
from jade_ribbon.formats.recording import note_in
from jade_ribbon.formats.sandbox import read_apart
from jade_ribbon.services.clock import now
from jade_ribbon.services.records import log_change
from jade_ribbon.services.setup.cards import Open, open_card
from jade_ribbon.services.setup.inputs import (
    DriftInput,
    OneReadingInput,
    ShimsInput,
    TensionReadingInput,
    TickInput,
    TrackInput,
)
from jade_ribbon.services.setup.roles import calibrated, core_fittings
from jade_ribbon.store.models import DriftRow, SawRow

DRIFT_TRIALS = 6


def tension_band(found: Open) -> TensionBand:
    """The band of a card as readings of tension see it."""
    facts, saw = found.best.evaluation.facts, found.job.saw
    return TensionBand(
        width_mm=facts.band.width_mm,
        body_width_mm=facts.body_width_mm,
        gullet_depth_mm=facts.gullet_depth_mm,
        thickness_mm=facts.band.thickness_mm,
        band_length_mm=facts.length_mm,
        free_span_mm=free_span_of(saw, facts.length_mm),
        force_per_strand=saw.force_per_strand,
        wheel_force_max_N=saw.wheel_force_max_N,
        yield_MPa=facts.steel.yield_MPa,
    )


@dataclass(frozen=True)
class TensionAnswer:
    """A reading with how it stands to the target, and the plucks it was made of.

    Between least and most it lies nine times in ten; `agreement` holds it against one by
    another means, where one was given.
    """

    reading: TensionReading
    least_MPa: float
    most_MPa: float
    target_MPa: float
    low_MPa: float
    high_MPa: float
    verdict: StandVerdict
    words: Said
    plucks: Plucks | None
    agreement: Said


def _one(
    found: Open, given: OneReadingInput, known: Calibrated
) -> tuple[TensionReading, Plucks | None]:
    """A reading by its means; several plucks by their median."""
    plucks = several(given.values) if given.means == "pluck" else None
    value = plucks.median_Hz if plucks else sorted(given.values)[len(given.values) // 2]
    reading = tension_reading(
        tension_band(found),
        means=given.means,
        value=value,
        gauge_length_mm=found.snapshot.shop.gauge_length_mm,
        deflection_mm=given.deflection_mm,
        spread_share=plucks.spread_share if plucks else 0.0,
        known=known,
    )
    return reading, plucks


def read_tension(session: Session, setup_id: int, given: TensionReadingInput) -> TensionAnswer:
    """Stress from a reading by any means, against the card's target and another means."""
    found = open_card(session, setup_id)
    known = calibrated(session, found.saw)
    reading, plucks = _one(found, given, known)
    other = None if given.against is None else _one(found, given.against, known)[0]
    card = found.card.tension
    least, most = reading.interval_MPa
    stand, agreement = judged(
        reading,
        other,
        target=card.stress_MPa,
        low=card.low_MPa,
        high=card.high_MPa,
        shares=card.uncertainty,
    )
    return TensionAnswer(
        reading=reading,
        least_MPa=max(least, 0.0),
        most_MPa=most,
        target_MPa=card.stress_MPa,
        low_MPa=card.low_MPa,
        high_MPa=card.high_MPa,
        verdict=stand.verdict,
        words=stand.words,
        plucks=plucks,
        agreement=agreement,
    )


@dataclass(frozen=True)
class ListenAnswer:
    """What was heard, what was wanted, and the stress the note says."""

    heard: Heard
    wanted_Hz: float | None
    wanted_note: str | None
    reading: TensionReading | None
    why_no_stress: Said


def listen_to_band(session: Session, setup_id: int, recording: bytes) -> ListenAnswer:
    """The note in a recording, for the band and span of a card. InputError with no clear note."""
    found = open_card(session, setup_id)
    heard = read_apart("recording", note_in, recording)
    wanted = found.card.tension.note_Hz
    reading = None
    why: Said = ""
    try:
        reading = tension_reading(
            tension_band(found),
            means="pluck",
            value=heard.frequency_Hz,
            gauge_length_mm=found.snapshot.shop.gauge_length_mm,
        )
    except InputError as error:
        why = sentence(f"{error.faults[0].path} ", error.faults[0].message)
    return ListenAnswer(heard, wanted, note_name(wanted) if wanted else None, reading, why)


@dataclass(frozen=True)
class VibrationAnswer:
    """The vibration card at the card's speed, and what would clear a meeting."""

    speed_m_s: float
    guide_span_mm: float
    card: Vibration
    remedies: tuple[Said, ...]
    verdict: str


def vibration_card(session: Session, setup_id: int) -> VibrationAnswer:
    """What shakes at the speed and guide height of a card, at the tension as left."""
    found = open_card(session, setup_id)
    facts, saw = found.best.evaluation.facts, found.job.saw
    tensed = found.saw.tension_stress_MPa if found.saw.mounted_band_id == found.band.id else None
    running = Running(
        stress_MPa=tensed or found.card.tension.stress_MPa,
        width_mm=facts.band.width_mm,
        gullet_depth_mm=facts.gullet_depth_mm,
        thickness_mm=facts.band.thickness_mm,
        band_length_mm=facts.length_mm,
        wheel_diameter_mm=saw.smallest_wheel_mm,
        guide_span_mm=span_mm(facts, found.job),
        pitch_mm=facts.pitch_mm if facts.has_teeth else None,
        pitch_varies=facts.band.is_variable,
        tensioner=saw.tensioner,
        free_span_mm=free_span_of(saw, facts.length_mm),
    )
    speed = found.card.speed_m_s
    card = vibration_of_band(running, speed_m_s=speed)
    return VibrationAnswer(
        speed,
        running.guide_span_mm,
        card,
        remedies(running, speed_m_s=speed),
        vibration_words(card),
    )


def shims_for_gap(given: ShimsInput) -> Shims:
    """How many slips make a gap."""
    return shims_for(gap_mm=given.gap_mm, stack_mm=given.stack_mm)


@dataclass(frozen=True)
class DriftTrial:
    """One kept trial of a band."""

    id: int
    at: str
    saw_name: str
    angle_deg: float


@dataclass(frozen=True)
class DriftAnswer:
    """A trial's verdict, and the band's earlier trials, oldest first."""

    verdict: DriftVerdict
    earlier: list[DriftTrial]
    kept_id: int | None
    change_id: int | None


def drift_of_band(session: Session, band_id: int) -> list[DriftTrial]:
    """The last kept trials of a band, oldest first."""
    rows = session.execute(
        select(DriftRow, SawRow.name)
        .join(SawRow, DriftRow.saw_id == SawRow.id)
        .where(DriftRow.band_id == band_id, DriftRow.deleted_at.is_(None))
        .order_by(DriftRow.id.desc())
        .limit(DRIFT_TRIALS)
    ).all()
    return [
        DriftTrial(row.id, row.at.isoformat(), saw, row.angle_deg) for row, saw in reversed(rows)
    ]


def read_drift(session: Session, setup_id: int, given: DriftInput) -> DriftAnswer:
    """What a freehand trial says; kept with the band when asked."""
    found = open_card(session, setup_id)
    earlier = drift_of_band(session, found.band.id)
    method = method_for(core_fittings(found.saw).fence, found.snapshot.shop.rules["drift"])
    verdict = drift_verdict(
        offset_mm=given.offset_mm,
        run_mm=given.run_mm,
        fence_bolt_spacing_mm=core_fittings(found.saw).fence_bolt_spacing_mm,
        method=method,
        earlier_deg=[t.angle_deg for t in earlier],
    )
    if not given.keep:
        return DriftAnswer(verdict, earlier, None, None)
    row = DriftRow(
        saw_id=found.saw.id,
        band_id=found.band.id,
        setup_id=setup_id,
        at=now(),
        offset_mm=given.offset_mm,
        run_mm=given.run_mm,
        angle_deg=verdict.angle_deg,
        method=method,
        who=given.who,
    )
    session.add(row)
    change = log_change(session, row, "add", None)
    return DriftAnswer(verdict, earlier, row.id, change.id)


def read_tick(session: Session, setup_id: int, given: TickInput) -> TickVerdict:
    """Which turning part a counted tick belongs to, at the card's speed."""
    found = open_card(session, setup_id)
    fittings = core_fittings(found.saw)
    known = turners(
        speed_m_s=found.saw.speed_set_m_s or found.card.speed_m_s,
        band_length_mm=found.best.evaluation.facts.length_mm,
        wheel_diameters_mm=found.job.saw.wheel_diameters_mm,
        belt_length_mm=fittings.belt_length_mm,
        pulley_mm=fittings.wheel_pulley_mm,
    )
    return name_tick(ticks=given.ticks, seconds=given.seconds, known=known)


def read_tracking(session: Session, setup_id: int, given: TrackInput) -> TrackAdvice:
    """The next touch of the tracking knob on the saw of a card."""
    found = open_card(session, setup_id)
    return track_advice(
        position_mm=given.position_mm,
        creep_mm=given.creep_mm,
        turns=given.turns,
        knob=core_fittings(found.saw).knob,
    )
