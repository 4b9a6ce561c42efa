"""Files are read apart, and a reader that runs away is ended."""

import os
import time
import zlib

import numpy as np
import pytest

from jade_ribbon.core.quantities.errors import InputError, refuse
from jade_ribbon.formats import sandbox
from jade_ribbon.formats.outline import read_outline
from jade_ribbon.formats.sandbox import read_apart, work_apart


def wait(seconds: float) -> int:
    time.sleep(seconds)
    return os.getpid()


def spend(megabytes: int) -> float:
    return float(np.ones(megabytes * 1024 * 1024, dtype="uint8").sum())


def fail(words: str) -> None:
    raise refuse("x", words)


def stumble() -> None:
    raise zlib.error("invalid distance too far back")


def die() -> None:
    os._exit(3)


def test_it_is_another_process_that_reads() -> None:
    assert read_apart("x", wait, 0.0) != os.getpid()


def test_its_faults_come_back_whole() -> None:
    with pytest.raises(InputError) as refused:
        read_apart("x", fail, "no good")
    assert [(f.path, f.message) for f in refused.value.faults] == [("x", "no good")]


def test_whatever_a_reader_stumbles_over_is_told_in_words() -> None:
    with pytest.raises(InputError, match="is damaged and cannot be read"):
        read_apart("workbook", stumble)
    with pytest.raises(zlib.error):
        work_apart("pieces", stumble)


def test_time_memory_and_a_crash_end_the_reader_and_no_more(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    with pytest.raises(InputError, match="15 s and 640 MB; accepted: a simpler one"):
        read_apart("file", spend, 900)
    with pytest.raises(InputError, match="accepted: a simpler one"):
        read_apart("file", die)
    monkeypatch.setattr(sandbox, "MOST_SECONDS", 0.3)
    with pytest.raises(InputError, match=r"0\.3 s"):
        read_apart("file", wait, 30.0)
    monkeypatch.undo()
    drawing = (
        b'<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40">'
    )
    circle = drawing + b'<circle cx="20" cy="20" r="10"/></svg>'
    found = read_apart("file", read_outline, circle, "a.svg")
    assert found.min_radius_mm == pytest.approx(10, rel=1e-3)
