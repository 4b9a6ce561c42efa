"""A thin layer over Flask: parse, call a use case, answer; and the OpenAPI document of it.

Each view is registered as an Operation, from which both the route and its documentation
come, so that neither can drift from the other.
"""

import functools
import hashlib
import math
import re
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any
from urllib.parse import unquote

from flask import Flask, Response, current_app, g, request
from pydantic import BaseModel, TypeAdapter, ValidationError
from werkzeug.exceptions import UnsupportedMediaType

from jade_ribbon.api.audience import wants_open
from jade_ribbon.core.quantities.entries import ENTRIES
from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.formats import sentences
from jade_ribbon.formats.validation import Strict, faults_of, read_json
from jade_ribbon.services.answered import Answered, recall, remember
from jade_ribbon.services.errors import NotFoundError, ReadOnlyError
from jade_ribbon.services.keeping.sample import SampleYard
from jade_ribbon.services.records import begin_deed
from jade_ribbon.store.database import Store
from jade_ribbon.store.doors import Role

MOST_ID = 2**53
YARD_COOKIE, SAMPLE = "jade_yard", "sample"
"""Set by the page of one who looks round the sample yard, and taken away on the way back."""
WRITE_KEY = "Idempotency-Key"
KEY_FORM = re.compile(r"[A-Za-z0-9_-]{8,64}")
PERSON = "Jade-Person"
WAITED = "Jade-Waited"
"""How many seconds a write waited to be sent; beside the body, which is the same at every try."""
MOST_NAME = 40
SENDING = ("POST", "PATCH")
JSON = "application/json"
SOUND = "audio/wav"
CSV = "text/csv"
PICTURE = "application/octet-stream"
"""A photograph as a device took it: what it is, is seen from its bytes."""
MOST_JSON_BYTES = 2 * 1024 * 1024
MOST_SOUND_BYTES = 10 * 1024 * 1024


@dataclass(frozen=True)
class Operation:
    """One method on one path, with the models of what goes in and out."""

    method: str
    path: str
    name: str
    summary: str
    view: Callable[..., Any]
    answer: Any
    body: type[Strict] | None = None
    query: type[BaseModel] | None = None
    raw_body: bool = False
    status: int = 200
    media: str = JSON
    asks: bool = False
    """Answers a question put in a body: nothing is written."""
    role: Role = "anyone"
    """Who may: a device from the network must be let do so much."""
    beside: bool = False
    """Works beside the records (copies of the file, doors): it gets no session of theirs."""

    @property
    def writes(self) -> bool:
        return self.method != "GET" and not self.asks

    @property
    def path_parameters(self) -> list[str]:
        return re.findall(r"<int:(\w+)>", self.path)

    @property
    def openapi_path(self) -> str:
        return re.sub(r"<(?:int:)?(\w+)>", r"{\1}", self.path)


OPERATIONS: list[Operation] = []


def operation(
    method: str,
    path: str,
    *,
    answer: Any,
    body: type[Strict] | None = None,
    query: type[BaseModel] | None = None,
    raw_body: bool = False,
    status: int = 200,
    media: str = JSON,
    asks: bool = False,
    beside: bool = False,
    role: Role = "anyone",
) -> Callable[[Callable[..., Any]], Callable[..., Any]]:
    """Register a view `(session, [body], [query], **path)` under its own name.

    One that works `beside` the records gets no session.
    """

    def register(view: Callable[..., Any]) -> Callable[..., Any]:
        summary = (view.__doc__ or "").strip().split("\n")[0]
        OPERATIONS.append(
            Operation(
                method=method,
                path=path,
                name=view.__name__,
                summary=summary,
                view=view,
                answer=answer,
                body=body,
                query=query,
                raw_body=raw_body,
                status=status,
                media=media,
                asks=asks,
                beside=beside,
                role=role,
            )
        )
        return view

    return register


@functools.cache
def _adapter(answer: Any) -> TypeAdapter[Any]:
    return TypeAdapter(answer)


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


def _arguments(op: Operation, path: dict[str, int]) -> dict[str, Any]:
    for name, value in path.items():
        if value > MOST_ID:
            raise NotFoundError(name.removesuffix("_id"), value)
    given: dict[str, Any] = dict(path)
    if op.method in SENDING and request.mimetype != op.media:
        # With a body or without: what a form can send, any page can.
        raise UnsupportedMediaType(f"Send {op.media}, also where there is no body.")
    if op.body is not None or op.raw_body:
        request.max_content_length = MOST_JSON_BYTES if op.media == JSON else MOST_SOUND_BYTES
        data = request.get_data()
        given["body"] = data if op.body is None else read_json(op.body, data)
    if op.query is not None:
        try:
            given["query"] = op.query.model_validate(request.args.to_dict())
        except ValidationError as error:
            raise InputError(faults_of(error, op.query)) from None
    return given


def _rendered(op: Operation, result: Any) -> str:
    context = {sentences.OPEN: wants_open()}
    return _adapter(op.answer).dump_json(result, context=context).decode()


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
        text = _rendered(op, op.view(session, **given))
        if key is not None:
            remember(session, key, asked, Answered(op.status, text))
    return Response(text, op.status, mimetype=JSON)


def _respond(op: Operation, **path: int) -> Response:
    given = _arguments(op, path)
    if op.beside:
        return Response(_rendered(op, op.view(**given)), op.status, mimetype=JSON)
    _refuse_in_sample(op)
    if op.writes:
        return _written(op, given)
    with store().read() as session:
        text = _rendered(op, op.view(session, **given))
    return Response(text, op.status, mimetype=JSON)


def mount_operations(app: Flask) -> None:
    """Give every registered operation its route."""
    for op in OPERATIONS:
        app.add_url_rule(
            op.path,
            endpoint=op.name,
            view_func=functools.partial(_respond, op),
            methods=[op.method],
        )
