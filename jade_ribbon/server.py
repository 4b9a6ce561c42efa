"""Running the application: requests are taken in whole before anything works on them.

A body or header that comes in by halves waits on its own, costs nobody else anything, and is
given up after a while; a few threads work on what has come in.
"""

import asyncio
import contextlib
import gc
import io
import logging
import os
import resource
import signal
import socket
import sqlite3
import sys
from collections import Counter
from collections.abc import Callable, Generator, Iterable, Iterator, Sequence
from concurrent.futures import ThreadPoolExecutor
from functools import partial
from pathlib import Path
from signal import SIGINT, SIGTERM
from types import FrameType
from typing import Any, ClassVar

import uvicorn
from flask import Flask
from sqlalchemy.exc import SQLAlchemyError
from uvicorn.protocols.http.h11_impl import H11Protocol
from werkzeug.test import run_wsgi_app

from jade_ribbon.api.answers import STREAMED
from jade_ribbon.api.app import make_app, open_file
from jade_ribbon.api.doors.guard import DOOR, NETWORK
from jade_ribbon.api.problems import PROBLEM, problem_body
from jade_ribbon.api.strangers import allow_hosts, name_of
from jade_ribbon.services.doors.network import Network
from jade_ribbon.services.warming import warm_up
from jade_ribbon.store.copies import DailyCopies
from jade_ribbon.store.files import PRIVATE_FOLDER, held

LOOPBACK = ("127.0.0.1", "::1")
THREADS = 4
REQUEST_S = 30.0
"""A request not wholly sent by then is given up."""
IDLE_S = 15
MOST_BYTES = 11 * 1024 * 1024
"""Over the largest body that any request may have; each operation has its own, smaller limit."""
SILENT_S, HANDSHAKE_S = 10.0, 5.0
"""One that says nothing at all is given up sooner, and sooner still before it is encrypted."""
MOST_CONNECTIONS = 1024
MOST_OF_AN_ADDRESS = 64
MOST_OF_THIS_MACHINE = 512
"""Connections at once: nobody on the network keeps the others out."""
YOUNG_OBJECTS = 100_000

Scope = dict[str, Any]


def environ_of(scope: Scope, body: bytes) -> dict[str, Any]:
    """A whole request as WSGI hands it on (PEP 3333)."""
    host, port = scope["server"] or ("", 0)
    environ: dict[str, Any] = {
        "REQUEST_METHOD": scope["method"],
        "SCRIPT_NAME": "",
        "PATH_INFO": scope["path"].encode().decode("latin-1"),
        "QUERY_STRING": scope["query_string"].decode("latin-1"),
        "SERVER_PROTOCOL": f"HTTP/{scope['http_version']}",
        "SERVER_NAME": host,
        "SERVER_PORT": str(port),
        "REMOTE_ADDR": (scope["client"] or ("", 0))[0],
        "wsgi.version": (1, 0),
        "wsgi.url_scheme": scope["scheme"],
        "wsgi.input": io.BytesIO(body),
        "wsgi.errors": sys.stderr,
        "wsgi.multithread": True,
        "wsgi.multiprocess": False,
        "wsgi.run_once": False,
    }
    for name, value in scope["headers"]:
        key = name.decode("latin-1").upper().replace("-", "_")
        key = key if key in ("CONTENT_TYPE", "CONTENT_LENGTH") else f"HTTP_{key}"
        text = value.decode("latin-1")
        environ[key] = f"{environ[key]},{text}" if key in environ else text
    environ["CONTENT_LENGTH"] = str(len(body))
    return environ


Told = tuple[int, Iterable[tuple[str, str]], bytes]
"""Status, headers and body of an answer."""


class Opening:
    """How far the shop's file is on its way to be served; told to whoever asks meanwhile."""

    def __init__(self) -> None:
        self.done, self.of = 0, 0
        self.is_open = False
        self.failed: Exception | None = None

    def came(self, done: int, of: int) -> None:
        self.done, self.of = done, of

    @property
    def words(self) -> str:
        far = f": {self.done} of {self.of} bands" if self.of else ""
        return f"The shop's records are being brought up to this version{far}."

    def told(self, path: str) -> Told:
        """The answer to a request that comes too early; a page asks again by itself."""
        kept = [("Retry-After", "1"), ("Cache-Control", "no-store")]
        if path.startswith("/api/"):
            body = problem_body(503, "opening", self.words)
            return 503, [*kept, ("Content-Type", PROBLEM)], body.encode()
        page = (
            "<!doctype html><meta charset=utf-8><meta http-equiv=refresh content=1>"
            f"<title>Jade Ribbon</title><p role=status>{self.words}</p>"
        )
        return 503, [*kept, ("Content-Type", "text/html; charset=utf-8")], page.encode()


class WholeRequests:
    """The application behind a door: whole requests in, whole answers out, a few at a time."""

    def __init__(
        self, app: Flask, threads: ThreadPoolExecutor, opening: Opening, door: str = "machine"
    ) -> None:
        self._app, self._threads, self._door = app, threads, door
        self._opening = opening

    async def __call__(self, scope: Scope, receive: Any, send: Any) -> None:
        parts: list[bytes] = []
        size, more = 0, True
        if not {b"content-length", b"transfer-encoding"} - {k for k, _ in scope["headers"]}:
            text = b"Its length is told in two ways.\n"
            await _answer(send, 400, [("Connection", "close")], text)
            return
        while more:
            message = await receive()
            if message["type"] != "http.request":
                return
            parts.append(message.get("body", b""))
            size += len(parts[-1])
            if size > MOST_BYTES:
                text = b"The body is over 11 MB.\n"
                await _answer(send, 413, [("Connection", "close")], text)
                return
            more = message.get("more_body", False)
        if not self._opening.is_open:
            await _answer(send, *self._opening.told(scope["path"]))
            return
        loop = asyncio.get_running_loop()
        environ = environ_of(scope, b"".join(parts)) | {DOOR: self._door}
        work = partial(self._work, environ)
        status, headers, body = await loop.run_in_executor(self._threads, work)
        if isinstance(body, bytes):
            await _answer(send, status, headers, body)
            return
        await _start(send, status, headers)
        try:
            # Sent as it is made: a large file is never held whole.
            while part := await loop.run_in_executor(self._threads, next, body, b""):
                await send({"type": "http.response.body", "body": part, "more_body": True})
            await send({"type": "http.response.body", "body": b""})
        finally:
            await loop.run_in_executor(self._threads, body.close)

    def _work(
        self, environ: dict[str, Any]
    ) -> tuple[int, Iterable[tuple[str, str]], bytes | Generator[bytes, None, None]]:
        """Status, headers and body of the application's answer: whole, or as it comes."""
        found, status, headers = run_wsgi_app(self._app, environ, buffered=False)
        kept = [(k, v) for k, v in headers if k.lower() != "date"]
        if STREAMED in environ:
            return int(status.split()[0]), kept, _closing(found)
        try:
            body = b"".join(found)
        finally:
            if hasattr(found, "close"):
                found.close()
        return int(status.split()[0]), kept, body


def _closing(found: Iterable[bytes]) -> Generator[bytes, None, None]:
    """The parts of an answer; what they were made from is closed with them."""
    try:
        yield from found
    finally:
        if hasattr(found, "close"):
            found.close()


async def _start(send: Any, status: int, headers: Iterable[tuple[str, str]]) -> None:
    plain = [(k.lower().encode("latin-1"), v.encode("latin-1")) for k, v in headers]
    await send({"type": "http.response.start", "status": status, "headers": plain})


async def _answer(send: Any, status: int, headers: Iterable[tuple[str, str]], body: bytes) -> None:
    await _start(send, status, headers)
    await send({"type": "http.response.body", "body": body})


class TimedRequests(H11Protocol):
    """A connection that is closed when a request on it takes too long to come in.

    Of one address there are so many at once, and no more.
    """

    _late: asyncio.TimerHandle | None = None
    _from: str | None = None
    _of: ClassVar[Counter[str]] = Counter()

    def connection_made(self, transport: Any) -> None:
        address = str((transport.get_extra_info("peername") or ("",))[0])
        most = MOST_OF_THIS_MACHINE if address in LOOPBACK else MOST_OF_AN_ADDRESS
        super().connection_made(transport)
        if self._of[address] >= most:
            transport.abort()
            return
        self._from = address
        self._of[address] += 1
        self._wait(SILENT_S)

    def data_received(self, data: bytes) -> None:
        super().data_received(data)
        if self.cycle is not None and not self.cycle.more_body:
            self._came_in()
        elif self._late is not None and self._silent:
            self._wait(REQUEST_S)

    def on_response_complete(self) -> None:
        super().on_response_complete()
        self._wait(REQUEST_S)

    def connection_lost(self, exc: Exception | None) -> None:
        self._came_in()
        if self._from is not None:
            self._of[self._from] -= 1
            self._from = None
        super().connection_lost(exc)

    def _wait(self, seconds: float) -> None:
        self._came_in()
        self._silent = seconds == SILENT_S
        self._late = self.loop.call_later(seconds, self._give_up)

    def _came_in(self) -> None:
        if self._late is not None:
            self._late.cancel()
            self._late = None

    def _give_up(self) -> None:
        if not self.transport.is_closing():
            self.transport.close()


class Loop(asyncio.SelectorEventLoop):
    """A loop on which a connection that does not begin to be encrypted is soon given up."""

    async def create_server(self, *args: Any, **kw: Any) -> Any:
        if kw.get("ssl"):
            kw["ssl_handshake_timeout"] = HANDSHAKE_S
        return await super().create_server(*args, **kw)


class OnwardsOnly:
    """Plain HTTP from the network: sent on to HTTPS under the name asked for, if it is ours."""

    def __init__(self, names: Sequence[str], https_port: int) -> None:
        self._names = frozenset(f"[{n}]" if ":" in n else n.lower() for n in names)
        self._port = https_port

    async def __call__(self, scope: Scope, receive: Any, send: Any) -> None:
        hosts = [v.decode("latin-1") for k, v in scope["headers"] if k == b"host"]
        name = name_of(hosts[0]) if hosts else ""
        if name not in self._names or scope["method"] not in ("GET", "HEAD"):
            await _answer(send, 403, [("Connection", "close")], b"Only HTTPS is answered here.\n")
            return
        asked = scope["raw_path"].decode("latin-1")
        if scope["query_string"]:
            asked += f"?{scope['query_string'].decode('latin-1')}"
        where = f"https://{name}:{self._port}{asked}"
        await _answer(send, 308, [("Location", where), ("Connection", "close")], b"")


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
