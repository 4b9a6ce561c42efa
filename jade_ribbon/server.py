"""Running the application: requests are taken in whole before anything works on them.

A body or header that comes in by halves waits on its own, costs nobody else anything, and is
given up after a while; a few threads work on what has come in.
"""

import asyncio
import contextlib
import gc
import io
import logging
import socket
import sys
from collections.abc import Callable, Iterable, Iterator, Sequence
from concurrent.futures import ThreadPoolExecutor
from functools import partial
from pathlib import Path
from types import FrameType
from typing import Any

import uvicorn
from flask import Flask
from uvicorn.protocols.http.h11_impl import H11Protocol
from werkzeug.test import run_wsgi_app

from jade_ribbon.api.app import create_app
from jade_ribbon.api.doors.guard import DOOR, NETWORK
from jade_ribbon.api.strangers import allow_hosts, name_of
from jade_ribbon.services.doors.network import Network
from jade_ribbon.store.copies import DailyCopies
from jade_ribbon.store.files import held

THREADS = 4
REQUEST_S = 30.0
"""A request not wholly sent by then is given up."""
IDLE_S = 15
MOST_BYTES = 11 * 1024 * 1024
"""Over the largest body that any request may have; each operation has its own, smaller limit."""
MOST_CONNECTIONS = 512
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


class WholeRequests:
    """The application behind a door: whole requests in, whole answers out, a few at a time."""

    def __init__(self, app: Flask, threads: ThreadPoolExecutor, door: str = "machine") -> None:
        self._app, self._threads, self._door = app, threads, door

    async def __call__(self, scope: Scope, receive: Any, send: Any) -> None:
        parts: list[bytes] = []
        size, more = 0, True
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
        loop = asyncio.get_running_loop()
        environ = environ_of(scope, b"".join(parts)) | {DOOR: self._door}
        work = partial(self._work, environ)
        await _answer(send, *await loop.run_in_executor(self._threads, work))

    def _work(self, environ: dict[str, Any]) -> tuple[int, Iterable[tuple[str, str]], bytes]:
        """Status, headers and body of the application's answer to a request."""
        found, status, headers = run_wsgi_app(self._app, environ, buffered=True)
        return int(status.split()[0]), list(headers), b"".join(found)


async def _answer(send: Any, status: int, headers: Iterable[tuple[str, str]], body: bytes) -> None:
    plain = [(k.lower().encode("latin-1"), v.encode("latin-1")) for k, v in headers]
    await send({"type": "http.response.start", "status": status, "headers": plain})
    await send({"type": "http.response.body", "body": body})


class TimedRequests(H11Protocol):
    """A connection that is closed when a request on it takes too long to come in."""

    _late: asyncio.TimerHandle | None = None

    def connection_made(self, transport: Any) -> None:
        super().connection_made(transport)
        self._wait()

    def data_received(self, data: bytes) -> None:
        super().data_received(data)
        if self.cycle is not None and not self.cycle.more_body:
            self._came_in()

    def on_response_complete(self) -> None:
        super().on_response_complete()
        self._wait()

    def connection_lost(self, exc: Exception | None) -> None:
        self._came_in()
        super().connection_lost(exc)

    def _wait(self) -> None:
        self._came_in()
        self._late = self.loop.call_later(REQUEST_S, self._give_up)

    def _came_in(self) -> None:
        if self._late is not None:
            self._late.cancel()
            self._late = None

    def _give_up(self) -> None:
        if not self.transport.is_closing():
            self.transport.close()


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

    def __init__(
        self,
        config: uvicorn.Config,
        listening: Callable[[], None],
        others: Sequence[uvicorn.Server] = (),
    ) -> None:
        super().__init__(config)
        self._listening, self._others = listening, others

    async def startup(self, sockets: list[socket.socket] | None = None) -> None:
        await super().startup(sockets=sockets)
        self._listening()

    def handle_exit(self, sig: int, frame: FrameType | None) -> None:
        super().handle_exit(sig, frame)
        for other in self._others:
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

    With a network, devices that joined reach it over HTTPS too.
    """
    logging.basicConfig(level=logging.WARNING)
    with held(file):
        app = create_app(file)
        on = network(app) if network is not None else None
        app.extensions["network"] = on
        copies = DailyCopies(app.extensions["copies"])
        copies.start()
        try:
            _serve(app, bound(host, port), host, listening, on)
        finally:
            copies.stop()


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
    app: Flask, threads: ThreadPoolExecutor, on: Network
) -> list[tuple[uvicorn.Server, socket.socket]]:
    """The servers of the network: HTTPS, and plain HTTP that only sends on to it."""
    secure = _config(
        WholeRequests(app, threads, NETWORK),
        ssl_certfile=str(on.certificate_file),
        ssl_keyfile=str(on.key_file),
    )
    plain = _config(OnwardsOnly(on.names, on.https_port))
    return [
        (Beside(secure), bound(on.host, on.https_port)),
        (Beside(plain), bound(on.host, on.http_port)),
    ]


async def _together(servers: Sequence[tuple[uvicorn.Server, socket.socket]]) -> None:
    await asyncio.gather(*(server.serve(sockets=[listener]) for server, listener in servers))


def _serve(
    app: Flask,
    listener: socket.socket,
    host: str,
    listening: Callable[[], None],
    on: Network | None,
) -> None:
    names = [f"[{name}]" if ":" in name else name for name in (host, *(on.names if on else ()))]
    allow_hosts(app, names)
    settle()
    threads = ThreadPoolExecutor(THREADS, thread_name_prefix="request")
    beside = _beside(app, threads, on) if on else []
    main = Server(_config(WholeRequests(app, threads)), listening, [s for s, _ in beside])
    asyncio.run(_together([(main, listener), *beside]))
