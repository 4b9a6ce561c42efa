"""A stand-in for the microphone: the sound of a band plucked in a shop, as a WAV file."""

import io
from typing import Protocol

import numpy as np

from jade_ribbon.devices.shop_floor import Sense

RATE_HZ = 22_050
SECONDS = 1.8
ONSET_S = 0.3
DECAY_S = 0.5
PARTIALS = 8


class Microphone(Protocol):
    """What a driver must give: a WAV recording of one pluck."""

    name: str
    simulated: bool

    def record(self) -> bytes:
        """Two seconds of sound."""


class SimulatedMicrophone:
    """Plucks the strip it hears (its note by `sense`), with mains hum and hiss."""

    name = "simulated microphone"
    simulated = True

    def __init__(self, sense: Sense, seed: int = 0) -> None:
        self._sense = sense
        self._random = np.random.default_rng(seed)

    def record(self) -> bytes:
        import soundfile  # loads a library: only where a sound is made

        note = self._sense() * (1.0 + self._random.normal(0.0, 0.006))
        t = np.arange(round(SECONDS * RATE_HZ)) / RATE_HZ
        sound = 0.02 * self._random.standard_normal(t.size)
        sound += 0.05 * np.sin(2 * np.pi * 50.0 * t)
        since = np.clip(t - ONSET_S, 0.0, None)
        for n in range(1, PARTIALS + 1):
            level = 0.4 / n * (t > ONSET_S) * np.exp(-since * (1 + 0.3 * n) / DECAY_S)
            sound += level * np.sin(2 * np.pi * n * note * since)
        stream = io.BytesIO()
        soundfile.write(stream, np.clip(sound, -1, 1), RATE_HZ, subtype="PCM_16", format="WAV")
        return stream.getvalue()
