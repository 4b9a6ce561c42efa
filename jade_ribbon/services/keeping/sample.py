"""The sample yard: made beside the shop's file when somebody wants to look round, and only read."""

import subprocess
import sys
import threading
from dataclasses import dataclass
from pathlib import Path
from typing import Literal

from jade_ribbon.services.errors import ConflictError
from jade_ribbon.store.database import Store
from jade_ribbon.store.files import BESIDE, is_new
from jade_ribbon.store.migrate import opened

LONGEST_S = 600.0
USUAL_S = 20.0
MADE_NOT = "The sample yard could not be made: {why}"
LEFT = (".making", ".making-wal", ".making-shm", *BESIDE)
"""What the making of it leaves when it is ended."""
State = Literal["none", "making", "ready", "failed"]


@dataclass(frozen=True)
class SampleAnswer:
    """How far the sample yard is, and about how long making it takes."""

    state: State
    usual_s: float
    words: str


class SampleYard:
    """A copy of the sample boatyard beside a shop's file; made once, in a program of its own."""

    def __init__(self, shop_file: Path) -> None:
        self.file = shop_file.with_name(f"{shop_file.stem}.sample-yard.sqlite")
        self._store: Store | None = None
        self._making: threading.Thread | None = None
        self._failure = ""
        self._work: subprocess.Popen[str] | None = None
        self._lock = threading.Lock()

    def answer(self) -> SampleAnswer:
        with self._lock:
            return SampleAnswer(self._state(), USUAL_S, self._failure)

    def _state(self) -> State:
        if self._making is not None and self._making.is_alive():
            return "making"
        if self._failure:
            return "failed"
        return "none" if is_new(self.file) else "ready"

    def begin(self) -> SampleAnswer:
        """Start making it where it is not there yet."""
        with self._lock:
            if self._state() in ("none", "failed"):
                self._failure = ""
                self._making = threading.Thread(target=self._make, daemon=True)
                self._making.start()
        return self.answer()

    def _make(self) -> None:
        """Made under another name and put in place whole."""
        partial = self.file.with_name(f"{self.file.name}.partial")
        command = (sys.executable, "-m", "jade_ribbon", "sample-yard", str(partial))
        try:
            partial.unlink(missing_ok=True)
            self._work = subprocess.Popen(  # noqa: S603 - our own program, with a path of ours
                command, stdout=subprocess.DEVNULL, stderr=subprocess.PIPE, text=True
            )
            _, told = self._work.communicate(timeout=LONGEST_S)
            if self._work.returncode == 0:
                partial.replace(self.file)
            else:
                self._failure = MADE_NOT.format(why=(told.strip() or "stopped").splitlines()[-1])
        except (OSError, subprocess.SubprocessError) as problem:
            self._failure = MADE_NOT.format(why=problem)
            self._end()
        finally:
            self._work = None
            for name in (partial.name, *(f"{partial.name}{more}" for more in LEFT)):
                partial.with_name(name).unlink(missing_ok=True)

    def _end(self) -> None:
        """End the making, where it is under way."""
        work = self._work
        if work is not None and work.poll() is None:
            work.kill()
            work.wait()

    def store(self) -> Store:
        """Its records. ConflictError while it is not ready."""
        with self._lock:
            if self._state() != "ready":
                raise ConflictError("The sample yard is not ready yet.")
            if self._store is None:
                self._store = opened(self.file)
            return self._store

    def close(self) -> None:
        """Let go of it; one being made is not made on without its server."""
        making = self._making
        self._end()
        if making is not None:
            making.join()
        with self._lock:
            if self._store is not None:
                self._store.close()
                self._store = None


def sample_yard(sample: SampleYard) -> SampleAnswer:
    """Whether the sample yard is there to look round in."""
    return sample.answer()


def make_sample_yard(sample: SampleYard) -> SampleAnswer:
    """Make the sample yard, where it is not there yet."""
    return sample.begin()
