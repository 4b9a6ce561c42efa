"""The application served to the tests at once: forked from where it is loaded already.

What starts it by its command has `jade_ribbon.demo.serving`.
"""

import contextlib
import multiprocessing
import os
import signal
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from jade_ribbon.demo.serving import free_port, wait_for

FORKS = multiprocessing.get_context("forkserver")
FORKS.set_forkserver_preload(["jade_ribbon.cli", "jade_ribbon.server"])


def _serve(arguments: list[str], env: dict[str, str]) -> None:
    from jade_ribbon.cli import main

    os.setsid()
    os.environ.update(env)
    nowhere = os.open(os.devnull, os.O_WRONLY)
    os.dup2(nowhere, 1)
    os.dup2(nowhere, 2)
    try:
        main(arguments, standalone_mode=False)
    finally:
        os._exit(0)  # what the library would wait for is ended with it


class Forked:
    """A served application, to be told and waited for as a process is."""

    def __init__(self, arguments: list[str], env: dict[str, str]) -> None:
        self._process = FORKS.Process(target=_serve, args=(arguments, env))
        self._process.start()
        self.pid = self._process.pid or 0

    def send_signal(self, number: signal.Signals) -> None:
        os.kill(self.pid, number)

    def kill(self) -> None:
        self._process.kill()

    def wait(self, seconds: float = 20) -> None:
        """Until it has ended; then whatever it started is ended too. TimeoutError."""
        self._process.join(seconds)
        if self._process.is_alive():
            raise TimeoutError(f"it still runs after {seconds:g} s")
        with contextlib.suppress(ProcessLookupError):
            os.killpg(self.pid, signal.SIGKILL)


@contextmanager
def served_by(file: Path, port: int, more: tuple[str, ...] = (), **env: str) -> Iterator[Forked]:
    """The application on a file, in a process of its own, once it answers."""
    server = Forked(["serve", "--file", str(file), "--port", str(port), *more], env)
    try:
        wait_for(f"http://127.0.0.1:{port}")
        yield server
    finally:
        with contextlib.suppress(ProcessLookupError):
            server.send_signal(signal.SIGTERM)
        server.wait()


@contextmanager
def served(
    file: Path, port: int | None = None, more: tuple[str, ...] = (), **env: str
) -> Iterator[str]:
    """The same; its address."""
    port = port or free_port()
    with served_by(file, port, more, **env):
        yield f"http://127.0.0.1:{port}"
