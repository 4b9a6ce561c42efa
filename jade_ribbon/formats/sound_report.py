"""The sound of a running saw by what turns in it, as plain data."""

from typing import Any

from jade_ribbon.core.faults.orders import SoundChange, Sounded, Turning
from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.quantities.formula_limits import RANGES, fault_in


def turning_of(
    *,
    speed_m_s: float,
    band_length_mm: float,
    pitch_mm: float,
    wheels: str,
    motor_rpm: float | None,
) -> Turning:
    """What turns, of figures as typed; wheels parted by commas. InputError with every fault."""
    faults: list[Fault] = []
    diameters: list[float] = []
    for i, word in enumerate(wheels.split(",")):
        try:
            diameters.append(float(word))
        except ValueError:
            faults.append(Fault(f"wheels.{i}", f"{word!r} is not a number of mm", word))
    given = {
        "speed_m_s": speed_m_s,
        "band_length_mm": band_length_mm,
        "pitch_mm": pitch_mm,
        **({} if motor_rpm is None else {"motor_rpm": motor_rpm}),
    }
    found = [fault_in(name, value) for name, value in given.items() if name in RANGES]
    faults += [f for f in found if f is not None]
    for i, diameter in enumerate(diameters):
        if (fault := fault_in("wheel_diameter_mm", diameter)) is not None:
            faults.append(Fault(f"wheels.{i}", fault.message, diameter))
    if faults:
        raise InputError(faults)
    return Turning(speed_m_s, band_length_mm, pitch_mm, tuple(diameters), motor_rpm)


def sound_record(heard: Sounded, change: SoundChange | None) -> dict[str, Any]:
    """Orders with their level, and what changed against another recording."""
    record: dict[str, Any] = {
        "seconds": heard.seconds,
        "orders": [
            {
                "source": o.source,
                "frequency_Hz": o.frequency_Hz,
                "level_dB": o.level_dB,
                "heard": o.heard,
            }
            for o in heard.orders
        ],
        "clipped": heard.clipped,
        "not_apart": [list(pair) for pair in heard.not_apart],
    }
    if change is not None:
        record["changed"] = {
            "orders": [{"source": c.source, "rise_dB": c.rise_dB} for c in change.orders],
            "noise_from_Hz": list(change.noise_from_Hz),
            "shift_dB": change.shift_dB,
            "named": change.named or None,
            "words": change.words,
        }
    return record
