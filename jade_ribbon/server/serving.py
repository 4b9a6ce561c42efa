"""A shop's file opened and served until it is stopped."""

import asyncio
import contextlib
import gc
import logging
import os
import resource
import signal
import socket
import sqlite3
from collections.abc import Callable, Iterator, Sequence
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from signal import SIGINT, SIGTERM
from types import FrameType
from typing import Any

import uvicorn
from flask import Flask
from sqlalchemy.exc import SQLAlchemyError

from jade_ribbon.api.app import make_app, open_file
from jade_ribbon.api.doors.guard import NETWORK
from jade_ribbon.api.same_origin import allow_hosts
from jade_ribbon.server.connections import Loop, TimedRequests
from jade_ribbon.server.opening import Opening
from jade_ribbon.server.whole_requests import OnwardsOnly, WholeRequests
from jade_ribbon.services.doors.network import Network
from jade_ribbon.services.warming import warm_up
from jade_ribbon.store.copies import DailyCopies
from jade_ribbon.store.files import PRIVATE_FOLDER, held

THREADS = 4
IDLE_S = 15
MOST_CONNECTIONS = 1024
YOUNG_OBJECTS = 100_000


class Server(uvicorn.Server):
    """Says when it listens; the first of several ends the others with it."""

    def __init__(self, config: uvicorn.Config, listening: Callable[[], None]) -> None:
        super().__init__(config)
        self._listening = listening
        self.others: Sequence[uvicorn.Server] = ()

    async def startup(self, sockets: list[socket.socket] | None = None) -> None:
        await super().startup(sockets=sockets)
        self._listening()

    @contextlib.contextmanager
    def capture_signals(self) -> Iterator[None]:
        """Told to stop it ends its work and returns: whoever serves has a file to close yet.

        (The library's own raises the signal anew, and the process ends on the spot.)
        """
        before = {sig: signal.signal(sig, self.handle_exit) for sig in (SIGINT, SIGTERM)}
        try:
            yield
        finally:
            for sig, handler in before.items():
                signal.signal(sig, handler)

    def handle_exit(self, sig: int, frame: FrameType | None) -> None:
        super().handle_exit(sig, frame)
        for other in self.others:
            other.should_exit = True


class Beside(uvicorn.Server):
    """A further server, ended by the first one."""

    @contextlib.contextmanager
    def capture_signals(self) -> Iterator[None]:
        yield


def settle() -> None:
    """Leave what was loaded at the start out of every later search for garbage.

    A plan makes some thousands of small records: searched for by age alone, they cost a tenth of
    each answer.
    """
    gc.collect()
    gc.freeze()
    gc.set_threshold(YOUNG_OBJECTS, 50, 100)


def bound(host: str, port: int) -> socket.socket:
    """A socket on an address. OSError when it cannot be had."""
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    listener = socket.socket(family, socket.SOCK_STREAM)
    listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listener.bind((host, port))
    except OSError:
        listener.close()
        raise
    return listener


def serve(
    file: Path,
    host: str,
    port: int,
    listening: Callable[[], None],
    network: Callable[[Flask], Network] | None = None,
) -> None:
    """Serve a shop's file until stopped; `listening` is called once it is to be reached.

    With a network, devices that joined reach it over HTTPS too. The port answers from the start,
    also while a file of an older version is brought up.
    """
    logging.basicConfig(level=logging.WARNING)
    os.umask(~PRIVATE_FOLDER & 0o777)
    _many_connections()
    listener = bound(host, port)
    with contextlib.closing(listener), held(file):
        app = make_app()
        app.extensions["network"] = None
        try:
            _serve(app, file, listener, host, listening, network)
        finally:
            let_go(app)


def let_go(app: Flask) -> None:
    """Close what an application has open: its shop's file, its sample yard.

    All of a shop is in its one file then, as whoever copies it by hand takes it.
    """
    if "store" in app.extensions:
        with contextlib.suppress(SQLAlchemyError, sqlite3.Error):
            app.extensions["store"].checkpoint()
    for name in ("sample", "store"):
        if name in app.extensions:
            app.extensions[name].close()


def _many_connections() -> None:
    """As many files open at once as this user may have: each connection is one."""
    _, most = resource.getrlimit(resource.RLIMIT_NOFILE)
    with contextlib.suppress(ValueError, OSError):
        resource.setrlimit(resource.RLIMIT_NOFILE, (most, most))


def _config(app: Any, **more: Any) -> uvicorn.Config:
    return uvicorn.Config(
        app,
        http=TimedRequests,
        loop="asyncio",
        lifespan="off",
        interface="asgi3",
        log_level="warning",
        access_log=False,
        server_header=False,
        timeout_keep_alive=IDLE_S,
        timeout_graceful_shutdown=5,
        limit_concurrency=MOST_CONNECTIONS,
        **more,
    )


def _beside(
    app: Flask, threads: ThreadPoolExecutor, opening: Opening, on: Network
) -> list[tuple[uvicorn.Server, socket.socket]]:
    """The servers of the network: HTTPS, and plain HTTP that only sends on to it."""
    secure = _config(
        WholeRequests(app, threads, opening, NETWORK),
        ssl_certfile=str(on.certificate_file),
        ssl_keyfile=str(on.key_file),
    )
    plain = _config(OnwardsOnly(on.names, on.https_port))
    return [
        (Beside(secure), bound(on.host, on.https_port)),
        (Beside(plain), bound(on.host, on.http_port)),
    ]


def _names(host: str, on: Network | None) -> list[str]:
    return [f"[{name}]" if ":" in name else name for name in (host, *(on.names if on else ()))]


class Serving:
    """A shop's file on its way to be served, and served."""

    def __init__(
        self,
        app: Flask,
        file: Path,
        host: str,
        listening: Callable[[], None],
        network: Callable[[Flask], Network] | None,
    ) -> None:
        self.app, self.file, self.host, self.network = app, file, host, network
        self.listening = listening
        self.opening = Opening()
        self.threads = ThreadPoolExecutor(THREADS, thread_name_prefix="request")
        self.copies: DailyCopies | None = None

    def open(self) -> Network | None:
        """Open the file, however long that takes; then the shop's network, if it is asked for."""
        open_file(self.app, self.file, self.opening.came)
        on = self.network(self.app) if self.network is not None else None
        self.app.extensions["network"] = on
        allow_hosts(self.app, _names(self.host, on))
        self.copies = DailyCopies(self.app.extensions["copies"])
        self.copies.start()
        settle()
        warm_up(self.app.extensions["store"])
        return on

    async def run(self, listener: socket.socket) -> None:
        """Serve on this machine from the start, on the network once the file is open."""
        listens = asyncio.Event()
        config = _config(WholeRequests(self.app, self.threads, self.opening))
        main = Server(config, listens.set)
        serving = asyncio.create_task(main.serve(sockets=[listener]))
        opens = asyncio.create_task(listens.wait())
        await asyncio.wait([serving, opens], return_when=asyncio.FIRST_COMPLETED)
        try:
            on = await asyncio.get_running_loop().run_in_executor(None, self.open)
            beside = _beside(self.app, self.threads, self.opening, on) if on else []
        except BaseException:
            main.should_exit = True
            await serving
            raise
        main.others = [server for server, _ in beside]
        self.opening.is_open = True
        self.listening()
        await asyncio.gather(serving, *(server.serve(sockets=[s]) for server, s in beside))


def _serve(
    app: Flask,
    file: Path,
    listener: socket.socket,
    host: str,
    listening: Callable[[], None],
    network: Callable[[Flask], Network] | None,
) -> None:
    serving = Serving(app, file, host, listening, network)
    try:
        with asyncio.Runner(loop_factory=Loop) as runner:
            runner.run(serving.run(listener))
    finally:
        if serving.copies is not None:
            serving.copies.stop()
