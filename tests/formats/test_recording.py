"""Recordings in: every usual depth, limits, and hostile headers."""

import io
import struct
from pathlib import Path

import numpy as np
import pytest
import soundfile

from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.setup.tension.listening import listen
from jade_ribbon.formats.recording import MOST_BYTES, note_in, read_recording, read_recording_file
from tests.support.plucks import RATE, pluck


def wav(samples: np.ndarray, rate: int = RATE, subtype: str = "PCM_16", kind: str = "WAV") -> bytes:
    stream = io.BytesIO()
    soundfile.write(stream, samples, rate, subtype=subtype, format=kind)
    return stream.getvalue()


def header(
    *, channels: int = 1, rate: int = RATE, bits: int = 16, claims: int = 64_000, tag: int = 1
) -> bytes:
    """A WAV header that claims what it likes."""
    block = channels * bits // 8
    return (
        b"RIFF"
        + struct.pack("<I", (claims + 36) % 2**32)
        + b"WAVEfmt "
        + struct.pack(
            "<IHHIIHH", 16, tag, channels, rate, rate * block % 2**32, block % 2**16, bits
        )
        + b"data"
        + struct.pack("<I", claims)
    )


@pytest.mark.parametrize("subtype", ["PCM_U8", "PCM_16", "PCM_24", "PCM_32", "FLOAT", "DOUBLE"])
def test_every_depth_gives_the_same_note(subtype: str) -> None:
    recording = read_recording(wav(pluck(74.0), subtype=subtype))
    assert recording.rate_Hz == RATE
    assert listen(recording.samples, recording.rate_Hz).frequency_Hz == pytest.approx(74, rel=0.01)


@pytest.mark.parametrize("other", [0.2, -1.0, 0.0])
def test_stereo_and_flac_are_read_as_their_strongest_mix(other: float) -> None:
    both = np.stack([pluck(74.0), other * pluck(74.0)], axis=1)
    recording = read_recording(wav(both, subtype="PCM_24", kind="FLAC"))
    assert recording.samples.ndim == 1
    heard = listen(recording.samples, recording.rate_Hz)
    assert heard.frequency_Hz == pytest.approx(74, rel=0.01)


def test_a_fast_recording_is_averaged_down_to_what_is_heard() -> None:
    slow = pluck(74.0)
    fast = np.repeat(slow, 4)
    recording = read_recording(wav(fast, rate=4 * RATE))
    assert recording.rate_Hz <= 2 * 48_000
    heard = listen(recording.samples, recording.rate_Hz)
    assert heard.frequency_Hz == pytest.approx(74, rel=0.01)


def test_what_is_no_number_is_no_sound() -> None:
    broken = pluck(74.0)
    broken[1000] = np.nan
    with pytest.raises(InputError, match="no sound"):
        read_recording(wav(broken, subtype="DOUBLE"))


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"", "cannot be read as sound; accepted: a WAV or FLAC file"),
        (b"RIFF", "cannot be read as sound"),
        (b"hello, this is no sound at all" * 40, "cannot be read as sound"),
        (header(channels=0) + b"\0" * 64_000, "."),
        (header(rate=0) + b"\0" * 64_000, "."),
        (header(rate=3) + b"\0" * 64_000, "accepted: 4000 to 384000"),
        (header(rate=2**31 - 1) + b"\0" * 64_000, "accepted: 4000 to 384000"),
        (header(channels=60) + b"\0" * 64_000, "accepted: 1 to 8"),
        (header(bits=0) + b"\0" * 64_000, "."),
        (header(bits=63) + b"\0" * 64_000, "."),
        (header(tag=0x4242) + b"\0" * 64_000, "."),
        (header(claims=2**32 - 1) + b"\0" * 2_000, "."),
        (header(claims=0), "accepted: at least 0.3 s"),
        (header() + b"\0" * 100, "accepted: at least 0.3 s"),
        (wav(np.zeros(31 * 4000), rate=4000), "lasts 31 s; accepted: up to 30 s"),
        (wav(np.zeros(1000), rate=16_000), "lasts 0.06 s; accepted: at least 0.3 s"),
        (wav(np.zeros(8000), kind="OGG", subtype="VORBIS"), "is OGG; accepted: WAV or FLAC"),
        (b"\0" * (MOST_BYTES + 1), "is over 10 MB"),
    ],
)
def test_hostile_and_broken_recordings_are_refused(data: bytes, words: str) -> None:
    with pytest.raises(InputError, match=words) as refused:
        listen(read_recording(data).samples, RATE)
    assert refused.value.faults[0].path == "recording"


def test_a_recording_cut_off_in_the_middle_is_still_heard(tmp_path: Path) -> None:
    """The header claims all of it; what is there is enough."""
    whole = wav(pluck(74.0))
    file = tmp_path / "cut.wav"
    file.write_bytes(whole[: len(whole) * 9 // 10])
    recording = read_recording_file(file)
    assert listen(recording.samples, recording.rate_Hz).frequency_Hz == pytest.approx(74, rel=0.01)


def test_more_samples_than_half_a_minute_has_are_refused_before_they_are_read() -> None:
    """A silent file is small, and is not: eight channels at the fastest rate are 700 MB."""
    sound = io.BytesIO()
    silence = np.zeros((384_000 * 6, 8), dtype="int16")
    soundfile.write(sound, silence, 384_000, format="FLAC", subtype="PCM_16")
    assert len(sound.getvalue()) < 1_000_000
    with pytest.raises(InputError, match="samples; accepted: up to 12000000 over all channels"):
        read_recording(sound.getvalue())


@pytest.mark.parametrize("level", [0.0, 0.5, 1e-200])
def test_a_recording_without_any_swing_is_silent(level: float) -> None:
    with pytest.raises(InputError, match="is silent"):
        note_in(wav(np.full(RATE, level), subtype="DOUBLE"))
