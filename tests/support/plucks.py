"""Synthetic plucks of a band."""

import numpy as np
from numpy.typing import NDArray

RATE = 16_000


def pluck(
    note: float,
    *,
    seed: int = 0,
    weak: float = 1.0,
    hum: float = 0.0,
    noise: float = 0.01,
    onset_s: float = 0.3,
    decay_s: float = 0.5,
    stiff: float = 1e-4,
) -> NDArray[np.float64]:
    """A stiff strip plucked once in a noisy shop."""
    random = np.random.default_rng(seed)
    t = np.arange(round((onset_s + 1.3) * RATE)) / RATE
    sound = noise * random.standard_normal(t.size) + hum * np.sin(2 * np.pi * 50 * t)
    since = np.clip(t - onset_s, 0, None)
    for n in range(1, 9):
        level = 0.4 / n * (weak if n == 1 else 1.0) * (t > onset_s)
        partial = np.sin(2 * np.pi * n * note * np.sqrt(1 + stiff * n * n) * since + n)
        sound += level * np.exp(-since * (1 + 0.3 * n) / decay_s) * partial
    return np.asarray(sound)
