"""One error body for everything: application/problem+json (RFC 9457)."""

import errno
import json
import logging
import math
import sqlite3
from dataclasses import dataclass, field
from datetime import UTC, datetime
from typing import Any

from flask import Flask, Response, current_app, request
from sqlalchemy.exc import DatabaseError, IntegrityError
from werkzeug.exceptions import HTTPException

from jade_ribbon.api.audience import wants_open
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.core.quantities.words import Said, join, sentence
from jade_ribbon.formats.sentences import written
from jade_ribbon.services.clock import wall
from jade_ribbon.services.doors.guesses import TooManyGuessesError
from jade_ribbon.services.errors import (
    ConflictError,
    KnownError,
    NotAllowedError,
    NotFoundError,
    ReadOnlyError,
    StaleError,
)
from jade_ribbon.store.copies import Copies
from jade_ribbon.store.database import FileGoneError, HeldError
from jade_ribbon.store.files import UnusableFileError

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
    "known": "Logged already, with other figures",
    "stale": "Saved by somebody else meanwhile",
    "not_allowed": "Not for this device",
    "sample": "The sample yard is not changed",
    "internal": "Something went wrong here",
}


def problem_answer(
    status: int,
    code: str,
    detail: Said,
    errors: list[FaultBody] | None = None,
    current: dict[str, Any] | None = None,
) -> Response:
    """Build the response of a problem."""
    text = problem_body(status, code, detail, errors, current, is_open=wants_open())
    return Response(text, status, mimetype=PROBLEM)


def problem_body(
    status: int,
    code: str,
    detail: Said,
    errors: list[FaultBody] | None = None,
    current: dict[str, Any] | None = None,
    *,
    is_open: bool = False,
) -> str:
    """The document of a problem."""
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
    return json.dumps(body, ensure_ascii=False)


def _input(error: InputError) -> Response:
    faults = [FaultBody(f.path, f.message) for f in error.faults]
    detail = join("; ", (sentence(f"{f.path} " if f.path else "", f.message) for f in faults))
    return problem_answer(422, "input", detail, faults)


def _stale(error: StaleError) -> Response:
    """Both are told: what was sent stays with the sender, what is kept comes back."""
    return problem_answer(
        409, "stale", str(error), current=error.current | {"version": error.version}
    )


def _http(error: HTTPException) -> Response:
    code = error.name.lower().replace(" ", "_")
    response = problem_answer(error.code or 500, code, error.description or error.name)
    for name, value in error.get_headers():
        if name.lower() not in ("content-type", "content-length"):
            response.headers[name] = value
    return response


def _unexpected(error: Exception) -> Response:
    LOG.error(
        "%s: unexpected error in %s",
        datetime.now(UTC).isoformat(timespec="seconds"),
        request.endpoint or request.method,
        exc_info=error,
    )
    return problem_answer(
        500, "internal", "An error on our side; it was logged. Nothing was saved."
    )


FULL = ("full", "The disk is full: nothing was saved. Make room, then try again.")
STORE_TROUBLE = (
    ("locked", "busy", "Somebody else is writing to the shop's file just now: try again shortly."),
    ("busy", "busy", "Somebody else is writing to the shop's file just now: try again shortly."),
    ("full", *FULL),
    (
        "readonly",
        "read_only",
        "The shop's file or its folder cannot be written: nothing was saved.",
    ),
    ("unable to open", "unavailable", "The shop's file cannot be opened: is its disk there?"),
    (
        "disk i/o",
        "disk",
        "The disk would not take it: nothing was saved. It may be full, failing, or no file may "
        "grow so large.",
    ),
    (
        "malformed",
        "damaged",
        "The shop's file is damaged: nothing was saved. Stop the server and bring back the newest "
        "copy.",
    ),
    (
        "not a database",
        "damaged",
        "The shop's file is damaged: nothing was saved. Stop the server and bring back the newest "
        "copy.",
    ),
)
"""What SQLite says of a file that will not do just now, our code for it, and the words."""
TRY_AGAIN_S = "2"


def _not_now(code: str, told: str) -> Response:
    """Nothing was saved, by no fault of what was sent: it may be sent again."""
    response = problem_answer(503, code, told)
    response.headers["Retry-After"] = TRY_AGAIN_S
    return response


def _store_trouble(error: DatabaseError | sqlite3.Error) -> Response:
    """A shop's file that is busy, full or away is no error of ours, and none of the reader's."""
    said = str(getattr(error, "orig", error)).lower()
    for words, code, told in STORE_TROUBLE:
        if words in said:
            return _not_now(code, told)
    return _unexpected(error)


def _disk_trouble(error: OSError) -> Response:
    """A disk that is full, or lets no file grow so large."""
    if error.errno in (errno.ENOSPC, errno.EDQUOT, errno.EFBIG):
        return _not_now(*FULL)
    if error.errno in (errno.EACCES, errno.EROFS, errno.EPERM):
        where = error.filename or "The folder of the shop's file"
        return _not_now("read_only", f"{where} cannot be written: nothing was saved.")
    return _unexpected(error)


def _held(error: HeldError) -> Response:
    del error
    return _not_now("held", "A copy is being brought back just now: try again in a moment.")


def _gone(error: FileGoneError) -> Response:
    """Nothing more goes into a file that is not there; what was open is saved beside it, once."""
    copies: Copies = current_app.extensions["copies"]
    newest = copies.rescue(wall())
    back = "There is no copy of it."
    if newest is not None:
        where = copies.folder / newest.name
        back = (
            f"All that was saved until then is in {where}. Stop the server, then: "
            f"jade-ribbon restore {where} --to {error} --over"
        )
    return _not_now(
        "gone",
        f"The shop's file is gone: {error} was taken away or replaced while it was open. Nothing "
        f"was saved. {back}",
    )


def _astray(error: IntegrityError) -> Response:
    """A record that points at none, or is there already: what was asked cannot be, whoever asks."""
    LOG.warning("%s: refused by the file: %s", request.endpoint, error.orig)
    return problem_answer(
        409,
        "conflict",
        "It belongs to a record that is not there, or one like it is there already: nothing was "
        "saved.",
    )


def _too_many(error: TooManyGuessesError) -> Response:
    response = problem_answer(429, "too_many_guesses", str(error))
    response.headers["Retry-After"] = str(math.ceil(error.wait_s))
    return response


def handle_problems(app: Flask) -> None:
    """Every error leaves as a problem."""
    app.register_error_handler(InputError, _input)
    app.register_error_handler(NotFoundError, lambda e: problem_answer(404, "not_found", str(e)))
    app.register_error_handler(StaleError, _stale)
    app.register_error_handler(
        KnownError, lambda e: problem_answer(409, "known", str(e), current=e.current)
    )
    app.register_error_handler(TooManyGuessesError, _too_many)
    app.register_error_handler(
        NotAllowedError, lambda e: problem_answer(403, "not_allowed", str(e))
    )
    app.register_error_handler(ReadOnlyError, lambda e: problem_answer(403, "sample", str(e)))
    app.register_error_handler(ConflictError, lambda e: problem_answer(409, "conflict", str(e)))
    app.register_error_handler(UnusableFileError, lambda e: _not_now("unusable", f"{e}."))
    app.register_error_handler(FileGoneError, _gone)
    app.register_error_handler(HeldError, _held)
    app.register_error_handler(OSError, _disk_trouble)
    app.register_error_handler(sqlite3.Error, _store_trouble)
    app.register_error_handler(IntegrityError, _astray)
    app.register_error_handler(DatabaseError, _store_trouble)
    app.register_error_handler(HTTPException, _http)
    app.register_error_handler(Exception, _unexpected)
