"""The application on a file, in a process of its own, for pictures and browser tests."""

import contextlib
import os
import random
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

CHROMIUM = "/usr/bin/chromium-headless-shell"
"""Debian's own browser, which drives the pictures and the tests."""


PORTS = range(20_000, 32_000)
"""Below those the system gives to whoever calls out: one found free stays so until it is used."""

COMES_UP_S = 90.0
"""A busy machine starts several at once."""


def free_port() -> int:
    """A port nobody listens at."""
    for port in random.sample(PORTS, len(PORTS)):
        with socket.socket() as probe, contextlib.suppress(OSError):
            probe.bind(("127.0.0.1", port))
            return port
    raise OSError("no port is free")


@contextmanager
def running(file: Path, port: int, *more: str, **env: str) -> Iterator[subprocess.Popen[bytes]]:
    """The application on a file, in a process of its own, once it answers."""
    command = [sys.executable, "-m", "jade_ribbon", "serve", "--file", str(file)]
    server = subprocess.Popen(  # noqa: S603 - our own module
        [*command, "--port", str(port), *more],
        stdout=subprocess.DEVNULL,
        stderr=subprocess.DEVNULL,
        env=os.environ | env,
    )
    try:
        wait_for(f"http://127.0.0.1:{port}")
        yield server
    finally:
        server.terminate()
        server.wait(20)


@contextmanager
def serving(file: Path, port: int | None = None) -> Iterator[str]:
    """The application on a file; its address."""
    port = port or free_port()
    with running(file, port):
        yield f"http://127.0.0.1:{port}"


def wait_for(address: str) -> None:
    until = time.monotonic() + COMES_UP_S
    while time.monotonic() < until:
        try:
            urllib.request.urlopen(f"{address}/api/shop", timeout=5).read()  # noqa: S310 - our own address
        except OSError:
            time.sleep(0.2)
        else:
            return
    raise TimeoutError(f"nothing answers at {address}")
