"""Recordings of a plucked band: WAV (16, 24, 32-bit, float) or FLAC, with limits."""

import io
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np
from numpy.typing import NDArray

from jade_ribbon.core.faults.orders import Sounded, Turning, hear
from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.setup.tension.listening import Heard, listen

if TYPE_CHECKING:
    import soundfile

MOST_BYTES = 10 * 1024 * 1024
MOST_SECONDS = 30.0
LEAST_SECONDS = 0.3
RATES_HZ = (4_000, 384_000)
MOST_CHANNELS = 8
MOST_SAMPLES = 12_000_000
"""Frames times channels: what half a minute at 48 000 and eight channels has."""
KINDS = ("WAV", "WAVEX", "RF64", "W64", "FLAC")


LOUDEST = 100.0
"""Sound is from -1 to 1; a recorder may overdrive that, not a hundred times."""
BLOCK_FRAMES = 65_536
ENOUGH_HZ = 48_000
"""A band's highest useful partial needs no more frames a second: faster ones are averaged."""


@dataclass(frozen=True)
class Recording:
    """One channel, -1 to 1, and frames a second."""

    samples: NDArray[np.float64]
    rate_Hz: float


def _refuse(words: str) -> InputError:
    return InputError([Fault("recording", words)])


def _check(kind: str, rate: int, channels: int, frames: int) -> None:
    """The header against what is accepted, before anything of its size is read."""
    if kind not in KINDS:
        raise _refuse(f"is {kind}; accepted: WAV or FLAC")
    if not RATES_HZ[0] <= rate <= RATES_HZ[1]:
        raise _refuse(f"has {rate} frames a second; accepted: {RATES_HZ[0]} to {RATES_HZ[1]}")
    if not 1 <= channels <= MOST_CHANNELS:
        raise _refuse(f"has {channels} channels; accepted: 1 to {MOST_CHANNELS}")
    if frames * channels > MOST_SAMPLES:
        raise _refuse(
            f"has {frames * channels} samples; accepted: up to {MOST_SAMPLES} over all channels"
        )
    seconds = frames / rate
    if seconds > MOST_SECONDS:
        raise _refuse(f"lasts {seconds:.0f} s; accepted: up to {MOST_SECONDS:g} s")
    if seconds < LEAST_SECONDS:
        raise _refuse(f"lasts {seconds:.2f} s; accepted: at least {LEAST_SECONDS:g} s")


def _blocks(file: "soundfile.SoundFile", every: int) -> Iterator[NDArray[np.float64]]:
    """A file from its start, so many frames at a time, never more of it than is accepted."""
    file.seek(0)
    left = min(round(MOST_SECONDS * file.samplerate), MOST_SAMPLES // file.channels)
    size = BLOCK_FRAMES // every * every
    while left > 0:
        read = file.read(frames=min(size, left), dtype="float64", always_2d=True)
        block = np.asarray(read, dtype=np.float64)
        if block.shape[0] == 0:
            return
        if not (np.abs(block) < LOUDEST).all():
            raise _refuse("holds what is no sound; record it anew")
        left -= block.shape[0]
        yield block


def _mono(file: "soundfile.SoundFile", every: int) -> NDArray[np.float64]:
    """The strongest mix of the channels, `every` frames averaged to one, block by block.

    The mix is the first principal direction: a channel in antiphase does not cancel another.
    """
    count, total = 0, np.zeros(file.channels)
    squares = np.zeros((file.channels, file.channels))
    for block in _blocks(file, every):
        count += block.shape[0]
        total += block.sum(axis=0)
        squares += block.T @ block
    if count == 0:
        return np.zeros(0)
    mean = total / count
    _, vectors = np.linalg.eigh(squares - count * np.outer(mean, mean))
    mix = np.ones(1) if file.channels == 1 else vectors[:, -1]
    parts = []
    for block in _blocks(file, every):
        whole = block[: block.shape[0] // every * every] @ mix
        parts.append(whole.reshape(-1, every).mean(axis=1))
    return np.concatenate(parts)


def read_recording(data: bytes) -> Recording:
    """Read a recording. InputError, saying what is accepted, for anything else.

    What the header claims is never trusted beyond the limits: at most 30 s are read.
    """
    import soundfile  # loads a library: only where a recording is read

    if len(data) > MOST_BYTES:
        raise _refuse(f"is over {MOST_BYTES // 1024 // 1024} MB; accepted: up to that")
    try:
        with soundfile.SoundFile(io.BytesIO(data)) as file:
            _check(file.format, file.samplerate, file.channels, file.frames)
            every = max(1, round(file.samplerate / ENOUGH_HZ))
            samples = _mono(file, every)
            rate = float(file.samplerate) / every
    except InputError:
        raise
    except (soundfile.SoundFileError, TypeError, ValueError, OSError) as problem:
        raise _refuse("cannot be read as sound; accepted: a WAV or FLAC file") from problem
    if samples.shape[0] < LEAST_SECONDS * rate:
        raise _refuse(f"ends early; accepted: at least {LEAST_SECONDS:g} s of sound")
    return Recording(samples, rate)


def note_in(data: bytes) -> Heard:
    """The note of a pluck in a recording. InputError where there is no clear one."""
    sound = read_recording(data)
    return listen(sound.samples, sound.rate_Hz)


def sounded_in(data: bytes, turning: Turning) -> Sounded:
    """What turns in a recording of a running saw. InputError for what is no such sound."""
    sound = read_recording(data)
    return hear(sound.samples, sound.rate_Hz, turning)


def read_recording_file(file: Path) -> Recording:
    """Read a recording from a file, no more of it than is accepted."""
    with file.open("rb") as stream:
        return read_recording(stream.read(MOST_BYTES + 1))


def wav(samples: NDArray[np.float64], rate_Hz: int) -> bytes:
    """One channel, -1 to 1, as a WAV file of 16 bits."""
    import soundfile  # loads a library: only where a sound is made

    stream = io.BytesIO()
    soundfile.write(stream, np.clip(samples, -1, 1), rate_Hz, subtype="PCM_16", format="WAV")
    return stream.getvalue()
