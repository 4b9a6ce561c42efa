"""Requests taken in whole before anything works on them, a few at a time.

A body or header that comes in by halves waits on its own, and costs nobody else anything.
"""

import asyncio
import io
import sys
from collections.abc import Generator, Iterable, Sequence
from concurrent.futures import ThreadPoolExecutor
from functools import partial
from typing import Any

from flask import Flask
from werkzeug.test import run_wsgi_app

from jade_ribbon.api.doors.guard import DOOR
from jade_ribbon.api.same_origin import name_of
from jade_ribbon.api.streams import STREAMED
from jade_ribbon.server.opening import Opening

MOST_BYTES = 11 * 1024 * 1024
"""Over the largest body that any request may have; each operation has its own, smaller limit."""

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
