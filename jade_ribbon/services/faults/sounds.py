"""Signs as the simulated saw sounds them, to be played."""

from functools import lru_cache

from jade_ribbon.core.simulation.sounds import MADE, RATE_HZ, sound_of
from jade_ribbon.formats.recording import wav
from jade_ribbon.services.errors import NotFoundError


@lru_cache(maxsize=len(MADE))
def sign_sound(key: str) -> bytes:
    """Five seconds as a WAV file. NotFoundError for a sign that makes no sound."""
    if key not in MADE:
        raise NotFoundError("sound", key)
    return wav(sound_of(key), RATE_HZ)
