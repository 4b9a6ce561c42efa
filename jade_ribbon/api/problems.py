"""One error body for everything: application/problem+json (RFC 9457)."""

import json
import logging
import math
from dataclasses import dataclass, field
from typing import Any

from flask import Flask, Response
from sqlalchemy.exc import OperationalError
from werkzeug.exceptions import HTTPException

from jade_ribbon.api.audience import wants_open
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import Said, join, sentence
from jade_ribbon.formats.sentences import written
from jade_ribbon.services.doors.guesses import TooManyGuessesError
from jade_ribbon.services.errors import (
    ConflictError,
    NotAllowedError,
    NotFoundError,
    ReadOnlyError,
    StaleError,
)

LOG = logging.getLogger("jade_ribbon.api")
PROBLEM = "application/problem+json"


@dataclass(frozen=True)
class FaultBody:
    """One faulty field."""

    path: str
    message: Said


@dataclass(frozen=True)
class Problem:
    """What went wrong, for a program (`code`) and for a person (`detail`)."""

    type: str
    title: str
    status: int
    code: str
    detail: Said
    errors: list[FaultBody] = field(default_factory=list)
    current: dict[str, Any] | None = None
    """What a record is now that was saved by somebody else, its `version` among it."""


TITLES = {
    "input": "Something given cannot be used",
    "not_found": "Not found",
    "conflict": "Not possible as things stand",
    "stale": "Saved by somebody else meanwhile",
    "not_allowed": "Not for this device",
    "sample": "The sample yard is not changed",
    "internal": "Something went wrong here",
}


def answer(
    status: int,
    code: str,
    detail: Said,
    errors: list[FaultBody] | None = None,
    current: dict[str, Any] | None = None,
) -> Response:
    """Build the response of a problem."""
    is_open = wants_open()
    body = {
        "type": f"urn:jade-ribbon:problem:{code}",
        "title": TITLES.get(code, code.replace("_", " ").capitalize()),
        "status": status,
        "code": code,
        "detail": written(detail, is_open=is_open),
        "errors": [
            {"path": e.path, "message": written(e.message, is_open=is_open)} for e in errors or []
        ],
        "current": current,
    }
    return Response(json.dumps(body, ensure_ascii=False), status, mimetype=PROBLEM)


def _input(error: InputError) -> Response:
    faults = [FaultBody(f.path, f.message) for f in error.faults]
    detail = join("; ", (sentence(f"{f.path} " if f.path else "", f.message) for f in faults))
    return answer(422, "input", detail, faults)


def _stale(error: StaleError) -> Response:
    """Both are told: what was sent stays with the sender, what is kept comes back."""
    return answer(409, "stale", str(error), current=error.current | {"version": error.version})


def _http(error: HTTPException) -> Response:
    code = error.name.lower().replace(" ", "_")
    response = answer(error.code or 500, code, error.description or error.name)
    for name, value in error.get_headers():
        if name.lower() not in ("content-type", "content-length"):
            response.headers[name] = value
    return response


def _unexpected(error: Exception) -> Response:
    LOG.exception("unexpected error", exc_info=error)
    return answer(500, "internal", "An error on our side; it was logged. Nothing was saved.")


STORE_TROUBLE = (
    ("locked", "busy", "Somebody else is writing to the shop's file just now: try again shortly."),
    ("busy", "busy", "Somebody else is writing to the shop's file just now: try again shortly."),
    ("full", "full", "The disk is full: nothing was saved. Make room, then try again."),
    (
        "readonly",
        "read_only",
        "The shop's file or its folder cannot be written: nothing was saved.",
    ),
    ("unable to open", "unavailable", "The shop's file cannot be opened: is its disk there?"),
)
"""What SQLite says of a file that will not do just now, our code for it, and the words."""
TRY_AGAIN_S = "2"


def _store_trouble(error: OperationalError) -> Response:
    """A shop's file that is busy, full or away is no error of ours, and none of the reader's."""
    said = str(error.orig).lower()
    for words, code, told in STORE_TROUBLE:
        if words in said:
            response = answer(503, code, told)
            response.headers["Retry-After"] = TRY_AGAIN_S
            return response
    return _unexpected(error)


def _too_many(error: TooManyGuessesError) -> Response:
    response = answer(429, "too_many_guesses", str(error))
    response.headers["Retry-After"] = str(math.ceil(error.wait_s))
    return response


def handle_problems(app: Flask) -> None:
    """Every error leaves as a problem."""
    app.register_error_handler(InputError, _input)
    app.register_error_handler(NotFoundError, lambda e: answer(404, "not_found", str(e)))
    app.register_error_handler(StaleError, _stale)
    app.register_error_handler(TooManyGuessesError, _too_many)
    app.register_error_handler(NotAllowedError, lambda e: answer(403, "not_allowed", str(e)))
    app.register_error_handler(ReadOnlyError, lambda e: answer(403, "sample", str(e)))
    app.register_error_handler(ConflictError, lambda e: answer(409, "conflict", str(e)))
    app.register_error_handler(OperationalError, _store_trouble)
    app.register_error_handler(HTTPException, _http)
    app.register_error_handler(Exception, _unexpected)
