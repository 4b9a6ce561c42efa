"""A thin layer over Flask: parse, call a use case, answer; and the OpenAPI document of it.

Each view is registered as an Operation, from which both the route and its documentation
come, so that neither can drift from the other.
"""

import functools
import re
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from flask import Flask, Response, current_app, request
from pydantic import BaseModel, TypeAdapter, ValidationError
from werkzeug.exceptions import UnsupportedMediaType

from jade_ribbon.api.audience import wants_open
from jade_ribbon.core.quantities.errors import InputError
from jade_ribbon.formats import sentences
from jade_ribbon.formats.validation import Strict, faults_of, read_json
from jade_ribbon.services.errors import NotFoundError
from jade_ribbon.store.database import Store

MOST_ID = 2**53
JSON = "application/json"
SOUND = "audio/wav"
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
) -> Callable[[Callable[..., Any]], Callable[..., Any]]:
    """Register a view `(session, [body], [query], **path)` under its own name."""

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
            )
        )
        return view

    return register


@functools.cache
def _adapter(answer: Any) -> TypeAdapter[Any]:
    return TypeAdapter(answer)


def store() -> Store:
    """The shop's file of this application."""
    found: Store = current_app.extensions["store"]
    return found


def _arguments(op: Operation, path: dict[str, int]) -> dict[str, Any]:
    for name, value in path.items():
        if value > MOST_ID:
            raise NotFoundError(name.removesuffix("_id"), value)
    given: dict[str, Any] = dict(path)
    if op.method in ("POST", "PUT") and request.mimetype != op.media:
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


def _respond(op: Operation, **path: int) -> Response:
    given = _arguments(op, path)
    with store().write() if op.writes else store().read() as session:
        result = op.view(session, **given)
    text = _adapter(op.answer).dump_json(result, context={sentences.OPEN: wants_open()})
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
