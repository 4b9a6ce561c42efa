"""A thin layer over Flask: read what came in, call the use case, answer."""

import functools
import hashlib
import math
import re
from collections.abc import Sequence
from typing import Any
from urllib.parse import unquote

from flask import Flask, Response, current_app, g, request
from pydantic import BaseModel, ValidationError
from sqlalchemy.orm import Session
from werkzeug.exceptions import UnsupportedMediaType

from jade_ribbon.api.audience import wants_open
from jade_ribbon.api.operation import JSON, OURS, SENDING, Operation, Sheet
from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.quantities.input_limits import ENTRIES
from jade_ribbon.formats import sentences
from jade_ribbon.formats.validation import faults_of, read_json
from jade_ribbon.services.clock import waited
from jade_ribbon.services.errors import NotFoundError, ReadOnlyError
from jade_ribbon.services.idempotency import Answered, recall, remember
from jade_ribbon.services.keeping.sample import SampleYard
from jade_ribbon.services.records import begin_deed
from jade_ribbon.store.database import Store

MOST_ID = 2**53
YARD_COOKIE, SAMPLE = "jade_yard", "sample"
"""Set by the page of one who looks round the sample yard, and taken away on the way back."""
WRITE_KEY = "Idempotency-Key"
KEY_FORM = re.compile(r"[A-Za-z0-9_-]{8,64}")
PERSON = "Jade-Person"
WAITED = "Jade-Waited"
"""How many seconds a write waited to be sent; beside the body, which is the same at every try."""
MOST_NAME = 40
MOST_JSON_BYTES = 2 * 1024 * 1024
MOST_SOUND_BYTES = 10 * 1024 * 1024


def store() -> Store:
    """The file this request is about: the shop's, or the sample yard's for one looking round it."""
    if looks_round():
        sample: SampleYard = current_app.extensions["sample"]
        return sample.store()
    found: Store = current_app.extensions["store"]
    return found


def looks_round() -> bool:
    """Whether this request comes from one who looks round the sample yard."""
    return request.cookies.get(YARD_COOKIE) == SAMPLE


def _refuse_in_sample(op: Operation) -> None:
    """The sample yard is a copy to look round in: nothing is kept in it."""
    if op.writes and not op.beside and looks_round():
        raise ReadOnlyError("This is the sample yard, to look round in: nothing is kept here.")


def _check_numbers(path: dict[str, Any]) -> None:
    """NotFoundError for a number past every record's."""
    for name, value in path.items():
        if isinstance(value, int) and value > MOST_ID:
            raise NotFoundError(name.removesuffix("_id"), value)


def _query(op: Operation, model: type[BaseModel]) -> dict[str, Any]:
    try:
        return op.parameters_of(model.model_validate(request.args.to_dict()))
    except ValidationError as error:
        raise InputError(faults_of(error, model)) from None


def _arguments(op: Operation, path: dict[str, int]) -> dict[str, Any]:
    """What a use case is given of a request, but for its session."""
    _check_numbers(path)
    given: dict[str, Any] = dict(path)
    if op.method in SENDING and request.mimetype != op.media:
        # With a body or without: what a form can send, any page can.
        raise UnsupportedMediaType(f"Send {op.media}, also where there is no body.")
    if op.body is not None or op.raw_body:
        request.max_content_length = MOST_JSON_BYTES if op.media == JSON else MOST_SOUND_BYTES
        data = request.get_data()
        if op.body is not None:
            given |= op.parameters_of(read_json(op.body, data))
        if op.raw_body:
            given[op.raw_body] = data
    if op.query is not None:
        given |= _query(op, op.query)
    for name, (source, kind) in op.sources.items():
        if source == "ours":
            given[name] = current_app.extensions[OURS[kind]]
        elif source == "waited":
            given[name] = waited(waited_s())
    return given


def _answer(op: Operation, given: dict[str, Any], session: Session) -> Any:
    wants = {name: session for name, (source, _) in op.sources.items() if source == "session"}
    return op.use_case(**given, **wants)


def _rendered(op: Operation, answer: Any) -> str:
    return op.adapter.dump_json(answer, context={sentences.OPEN: wants_open()}).decode()


def _write_key() -> str | None:
    """The sender's key of one intended write."""
    key = request.headers.get(WRITE_KEY)
    if key is not None and not KEY_FORM.fullmatch(key):
        words = f"{key[:80]!r} is not accepted; accepted: 8 to 64 letters, digits, - or _"
        raise InputError([Fault(WRITE_KEY, words, key[:80])])
    return key


def waited_s() -> float | None:
    """How long this write waited to be sent. InputError for what is no such time."""
    given = request.headers.get(WAITED)
    if given is None:
        return None
    accepted = ENTRIES["waited_s"]
    try:
        seconds = float(given)
    except ValueError:
        seconds = math.nan
    if not accepted.holds(seconds):
        words = f"{given[:40]!r} is not accepted; accepted: {accepted.words()} seconds"
        raise InputError([Fault(WAITED, words, given[:40])])
    return seconds


def _person() -> str:
    """Who is at the screen, as the screen says."""
    name = unquote(request.headers.get(PERSON, "")).strip()
    if len(name) > MOST_NAME or not name.isprintable():
        words = f"{name[:80]!r} is not accepted; accepted: up to {MOST_NAME} letters"
        raise InputError([Fault(PERSON, words, name[:80])])
    return name


def _written(op: Operation, given: dict[str, Any]) -> Response:
    """Do a write once, and render its answer before it is committed: both, or neither."""
    key, person = _write_key(), _person()
    told = (request.method, request.full_path, request.get_data())
    asked = hashlib.sha256(repr(told).encode()).hexdigest()
    with store().write() as session:
        begin_deed(session, person, getattr(g, "role", "owner"))
        known = None if key is None else recall(session, key, asked)
        if known is not None:
            return Response(known.text, known.status, mimetype=JSON)
        text = _rendered(op, _answer(op, given, session))
        if key is not None:
            remember(session, key, asked, Answered(op.status, text))
    return Response(text, op.status, mimetype=JSON)


def _respond(op: Operation, **path: int) -> Response:
    given = _arguments(op, path)
    if op.beside:
        return Response(_rendered(op, op.use_case(**given)), op.status, mimetype=JSON)
    _refuse_in_sample(op)
    if op.writes:
        return _written(op, given)
    with store().read() as session:
        text = _rendered(op, _answer(op, given, session))
    return Response(text, op.status, mimetype=JSON)


def mount_operations(app: Flask, operations: Sequence[Operation]) -> None:
    """Give every operation its address."""
    for op in operations:
        app.add_url_rule(
            op.path,
            endpoint=op.name,
            view_func=functools.partial(_respond, op),
            methods=[op.method],
        )


def _sheet(sheet: Sheet, **path: Any) -> Response:
    _check_numbers(path)
    answer: Response = sheet.view(**path)
    return answer


def mount_sheets(app: Flask, sheets: Sequence[Sheet]) -> None:
    """Give every sheet its address."""
    for sheet in sheets:
        view = functools.partial(_sheet, sheet)
        app.add_url_rule(sheet.path, endpoint=sheet.name, view_func=view, methods=["GET"])
