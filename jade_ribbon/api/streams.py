"""Answers that go out as they are made."""

from collections.abc import Callable, Iterator

from flask import Response, request
from sqlalchemy.orm import Session

from jade_ribbon.store.database import Store

STREAMED = "jade.streamed"
"""Set in a request's environment when its answer is made while it is sent."""


def sent_in_parts(parts: Iterator[bytes], *, name: str, mimetype: str) -> Response:
    """A file to take away, never held whole."""
    request.environ[STREAMED] = True
    headers = {"Content-Disposition": f'attachment; filename="{name}"', "Cache-Control": "no-store"}
    return Response(parts, mimetype=mimetype, headers=headers)


def streamed(
    store: Store,
    make: Callable[[Session], Iterator[bytes | str]],
    *,
    name: str,
    mimetype: str,
) -> Response:
    """A file of the records, made while it is sent, from one view of them."""

    def parts() -> Iterator[bytes]:
        with store.read() as session:
            for part in make(session):
                yield part.encode() if isinstance(part, str) else part

    return sent_in_parts(parts(), name=name, mimetype=mimetype)
