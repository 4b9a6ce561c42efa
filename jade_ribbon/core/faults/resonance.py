"""What shakes: wheel, weld and tooth rates against the band's own notes."""

import math
from dataclasses import dataclass, replace

from jade_ribbon.core.mechanics.geometry import mass_per_length
from jade_ribbon.core.mechanics.tension import pluck_frequency
from jade_ribbon.core.quantities.constants import E_MPA, G_MPA
from jade_ribbon.core.quantities.formula_limits import within_limits
from jade_ribbon.core.quantities.words import Said, quantity, sentence

NEAR_SHARE = 0.05
"""Closer than this to a note, a rate feeds it."""
MULTIPLES = (1, 2, 3, 4)
MODES = (1, 2, 3)
SPEED_STEPS = (0.97, 1.03, 0.94, 1.06, 0.9, 1.1, 0.85, 1.15)


@dataclass(frozen=True)
class Rate:
    """Something that can shake, or does: its name and rate."""

    key: str
    name: str
    hertz: float


@dataclass(frozen=True)
class Meeting:
    """A rate that comes within five per cent of a note."""

    source: Rate
    note: Rate
    apart_share: float


@dataclass(frozen=True)
class Vibration:
    """Rates and notes of a band running at a speed, and where they meet."""

    wheel_Hz: float
    band_Hz: float
    tooth_Hz: float | None
    free_still_Hz: float | None
    free_running_Hz: float | None
    guide_bending_Hz: tuple[float, ...]
    guide_twisting_Hz: tuple[float, ...]
    meetings: tuple[Meeting, ...]
    pitch_varies: bool


def wave_speed(strand_N: float, mass_kg_m: float) -> float:
    """Speed of a wave along a strand at rest, m/s: c = sqrt(T/mu)."""
    return math.sqrt(strand_N / mass_kg_m)


def running_note(*, wave_m_s: float, speed_m_s: float, span_mm: float, tensioner: str) -> float:
    """First note (Hz) of a free span running at V: a travelling string.

    Fixed centres: (c2 - V2)/(2 l c), the tension at rest carrying the centrifugal pull.
    Spring, weight or air: c2/(2 l sqrt(c2 + V2)), since the strand gains that pull.
    Standing still both are c/(2 l). Zero when a fixed band runs as fast as its waves.
    """
    span = span_mm / 1000.0
    c, v = wave_m_s, speed_m_s
    if tensioner == "fixed":
        return max(c * c - v * v, 0.0) / (2.0 * span * c)
    return c * c / (2.0 * span * math.sqrt(c * c + v * v))


def bending_notes(
    *, strand_N: float, mass_kg_m: float, stiffness_N_m2: float, span_mm: float
) -> tuple[float, ...]:
    """Sideways notes (Hz) of the strip between the guides, pinned: string plus bending.

    f_n = n/(2 l) sqrt((T + EI (n pi/l)2)/mu).
    """
    span = span_mm / 1000.0
    return tuple(
        n
        / (2.0 * span)
        * math.sqrt((strand_N + stiffness_N_m2 * (n * math.pi / span) ** 2) / mass_kg_m)
        for n in MODES
    )


def twisting_notes(
    *, strand_N: float, mass_kg_m: float, body_mm: float, thickness_mm: float, span_mm: float
) -> tuple[float, ...]:
    """Twisting notes (Hz) of a thin strip in tension between the guides.

    Torsional stiffness GJ + T r2 over the polar inertia mu r2, r2 = (b2 + t2)/12:
    f_n = n/(2 l) sqrt((GJ + T r2)/(mu r2)).
    """
    span = span_mm / 1000.0
    torsion = G_MPA * body_mm * thickness_mm**3 / 3.0 * 1e-6
    gyration2 = (body_mm**2 + thickness_mm**2) / 12.0 * 1e-6
    wave = math.sqrt((torsion + strand_N * gyration2) / (mass_kg_m * gyration2))
    return tuple(n * wave / (2.0 * span) for n in MODES)


def _meetings(sources: list[Rate], notes: list[Rate]) -> tuple[Meeting, ...]:
    """Every low multiple of a source that stands within five per cent of a note."""
    found = []
    for source in sources:
        for times in MULTIPLES:
            rate = source.hertz * times
            for note in notes:
                apart = rate / note.hertz - 1.0
                if abs(apart) <= NEAR_SHARE:
                    name = source.name if times == 1 else f"{times} × {source.name}"
                    found.append(Meeting(Rate(source.key, name, rate), note, apart))
    return tuple(sorted(found, key=lambda m: abs(m.apart_share)))


@dataclass(frozen=True)
class Running:
    """A mounted band as far as its shaking goes: lengths mm, stress MPa, speed m/s."""

    stress_MPa: float
    width_mm: float
    gullet_depth_mm: float
    thickness_mm: float
    band_length_mm: float
    wheel_diameter_mm: float
    guide_span_mm: float
    pitch_mm: float | None
    pitch_varies: bool
    tensioner: str
    free_span_mm: float | None


@within_limits
def _free_span(
    band: Running, wave_m_s: float, speed_m_s: float
) -> tuple[float | None, float | None]:
    """The free span's note (Hz), standing still and running; None on three wheels."""
    if not band.free_span_mm:
        return None, None
    still = pluck_frequency(
        stress_MPa=band.stress_MPa,
        width_mm=band.width_mm,
        gullet_depth_mm=band.gullet_depth_mm,
        thickness_mm=band.thickness_mm,
        span_mm=band.free_span_mm,
    ).frequency_Hz
    string = running_note(
        wave_m_s=wave_m_s,
        speed_m_s=speed_m_s,
        span_mm=band.free_span_mm,
        tensioner=band.tensioner,
    )
    stiff = still - wave_m_s / (2.0 * band.free_span_mm / 1000.0)
    return still, string + stiff if string > 0 else 0.0


def vibration_of_band(band: Running, *, speed_m_s: float) -> Vibration:
    """The vibration card of a running band. Notes of the free span are None on three wheels.

    Standing still the free span sounds its plucked note; running, a string's, plus what the
    strip's own stiffness adds at rest.
    """
    body = band.width_mm - band.gullet_depth_mm
    mass = mass_per_length(
        width_mm=band.width_mm,
        gullet_depth_mm=band.gullet_depth_mm,
        thickness_mm=band.thickness_mm,
    )
    strand = band.stress_MPa * body * band.thickness_mm
    bending = E_MPA * body * band.thickness_mm**3 / 12.0 * 1e-6
    wave = wave_speed(strand, mass)
    wheel = speed_m_s / (math.pi * band.wheel_diameter_mm / 1000.0)
    turns = speed_m_s / (band.band_length_mm / 1000.0)
    tooth = speed_m_s / (band.pitch_mm / 1000.0) if band.pitch_mm else None
    still, running = _free_span(band, wave, speed_m_s)
    free = [Rate("free", "the free span", running)] if running else []
    bends = bending_notes(
        strand_N=strand, mass_kg_m=mass, stiffness_N_m2=bending, span_mm=band.guide_span_mm
    )
    twists = twisting_notes(
        strand_N=strand,
        mass_kg_m=mass,
        body_mm=body,
        thickness_mm=band.thickness_mm,
        span_mm=band.guide_span_mm,
    )
    between = [*_modes("bending", bends), *_modes("twisting", twists)]
    rates = [Rate("wheel", "wheel turns", wheel), Rate("weld", "weld passes", turns)]
    teeth = [Rate("tooth", "teeth", tooth)] if tooth else []
    return Vibration(
        wheel_Hz=wheel,
        band_Hz=turns,
        tooth_Hz=tooth,
        free_still_Hz=still,
        free_running_Hz=running,
        guide_bending_Hz=bends,
        guide_twisting_Hz=twists,
        meetings=_meetings(rates, free) + _meetings(teeth, between),
        pitch_varies=band.pitch_varies,
    )


def _modes(key: str, hertz: tuple[float, ...]) -> list[Rate]:
    """The notes of the strip between the guides by name: first, second, third way."""
    ways = ("", ", second way", ", third way")
    return [Rate(key, f"{key} between the guides{ways[n]}", f) for n, f in enumerate(hertz)]


def vibration_words(card: Vibration) -> str:
    """What a vibration card comes to, in a sentence."""
    if not card.meetings:
        return f"Nothing meets within {100 * NEAR_SHARE:.0f} %: run it."
    first = card.meetings[0]
    name = first.source.name
    return (
        f"{name[0].upper()}{name[1:]} at {first.source.hertz:.3g} Hz "
        f"meets {first.note.name} at {first.note.hertz:.3g} Hz."
    )


def remedies(band: Running, *, speed_m_s: float) -> tuple[Said, ...]:
    """What to change where rates and notes meet: the least change of speed or guide height.

    Each is tried in the same model; nothing is offered that does not clear every meeting.
    """
    now = vibration_of_band(band, speed_m_s=speed_m_s)
    if not now.meetings:
        return ()
    found: list[Said] = []
    for share in SPEED_STEPS:
        if not vibration_of_band(band, speed_m_s=speed_m_s * share).meetings:
            sign = "faster" if share > 1 else "slower"
            percent = abs(share - 1.0) * 100
            found.append(
                sentence(
                    f"{percent:.0f} % {sign}, ", quantity(speed_m_s * share, "speed"), ", clears it"
                )
            )
            break
    if any(m.source.key == "tooth" for m in now.meetings):
        for change in (-20.0, 20.0, -40.0, 40.0):
            span = band.guide_span_mm + change
            moved = replace(band, guide_span_mm=span) if span > 10 else band
            if moved is not band and not vibration_of_band(moved, speed_m_s=speed_m_s).meetings:
                way = "lower" if change < 0 else "higher"
                found.append(
                    sentence("the guides ", quantity(abs(change), "length"), f" {way} clear it")
                )
                break
        if not band.pitch_varies:
            found.append("a variable pitch spreads the tooth rate")
    return tuple(found) or ("no small change of speed or guides clears it: try another band",)
