"""An operation of the API: one method on one address, and the use case that answers it.

What goes in and out is read from the use case's own parameters, by their annotations:

- a number of the address by its name; a session; an instrument, the copies or the sample yard;
- a `Strict` model is the body, bytes are the body as it comes, a `Query` is what stands after `?`;
- any other parameter is a field of the body where one is sent and nothing else is it, else of
  the query; one after `*` is not for the outside;
- what is returned is the answer.
"""

import functools
import inspect
import re
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Literal, get_type_hints

from pydantic import BaseModel, TypeAdapter, create_model
from sqlalchemy.orm import Session

from jade_ribbon.formats.validation import Strict
from jade_ribbon.services.edits import Edit
from jade_ribbon.services.field_types import Query, Waited
from jade_ribbon.services.keeping.sample import SampleYard
from jade_ribbon.services.setup.instruments import Instruments
from jade_ribbon.store.copies import Copies
from jade_ribbon.store.doors import Role

SENDING = ("POST", "PATCH")
JSON = "application/json"
SOUND = "audio/wav"
CSV = "text/csv"
PICTURE = "application/octet-stream"
"""A photograph as a device took it: what it is, is seen from its bytes."""
OURS: dict[type, str] = {Copies: "copies", SampleYard: "sample", Instruments: "instruments"}
"""What a use case may be given of the application, and where it is kept."""
Source = Literal["session", "path", "ours", "waited", "body", "raw", "query", "field"]


@dataclass(frozen=True)
class Operation:
    """One method on one address, and what answers it."""

    method: str
    path: str
    use_case: Callable[..., Any]
    role: Role = "anyone"
    """Who may: a device from the network must be let do so much."""
    stranger: bool = False
    """Also for a device that has not joined: the page that joins, and nothing of the shop."""
    status: int = 200
    media: str = JSON
    asks: bool = False
    """Answers a question put in a body: nothing is written."""
    beside: bool = False
    """Works beside the records (copies of the file, doors): it gets no session of theirs."""
    edit: type[Edit] | None = None
    """The edit of a record that its use case takes."""

    @property
    def name(self) -> str:
        return self.use_case.__name__

    @property
    def summary(self) -> str:
        return (inspect.getdoc(self.use_case) or "").split("\n")[0]

    @property
    def writes(self) -> bool:
        return self.method != "GET" and not self.asks

    @property
    def path_parameters(self) -> list[str]:
        return re.findall(r"<int:(\w+)>", self.path)

    @property
    def openapi_path(self) -> str:
        return re.sub(r"<(?:int:)?(\w+)>", r"{\1}", self.path)

    @functools.cached_property
    def answer(self) -> Any:
        return get_type_hints(self.use_case, include_extras=True)["return"]

    @functools.cached_property
    def adapter(self) -> TypeAdapter[Any]:
        return TypeAdapter(self.answer)

    @functools.cached_property
    def sources(self) -> dict[str, tuple[Source, Any]]:
        """Where each of the use case's parameters comes from, and its annotation."""
        hints = get_type_hints(self.use_case, include_extras=True)
        found: dict[str, tuple[Source, Any]] = {}
        for name, parameter in inspect.signature(self.use_case).parameters.items():
            if parameter.kind is not inspect.Parameter.KEYWORD_ONLY:
                found[name] = (self._source(name, hints[name]), hints[name])
        return found

    def _source(self, name: str, kind: Any) -> Source:
        if name in self.path_parameters:
            return "path"
        if kind is Session:
            return "session"
        if kind in OURS:
            return "ours"
        if kind is bytes:
            return "raw"
        if isinstance(kind, type) and issubclass(kind, Query):
            return "query"
        if isinstance(kind, type) and issubclass(kind, Strict):
            return "body"
        return "waited" if kind == Waited else "field"

    def _named(self, source: Source) -> list[str]:
        return [name for name, (found, _) in self.sources.items() if found == source]

    @property
    def raw_body(self) -> str | None:
        """The parameter that takes the body as it comes."""
        return next(iter(self._named("raw")), None)

    @functools.cached_property
    def _fields(self) -> dict[str, Any]:
        """Parameters that are fields, each with its annotation and default."""
        parameters = inspect.signature(self.use_case).parameters
        return {
            name: (self.sources[name][1], _default(parameters[name].default))
            for name in self._named("field")
        }

    @property
    def _fields_are_body(self) -> bool:
        return self.method in SENDING and not (self._named("body") or self.raw_body)

    @functools.cached_property
    def body(self) -> type[Strict] | None:
        """What is sent, as a model."""
        if whole := self._named("body"):
            given: type[Strict] = self.sources[whole[0]][1]
            return self.edit or given
        if self._fields and self._fields_are_body:
            return create_model(_model_name(self.name, "Input"), __base__=Strict, **self._fields)
        return None

    @functools.cached_property
    def query(self) -> type[BaseModel] | None:
        """What may stand after the address, as a model."""
        if whole := self._named("query"):
            given: type[BaseModel] = self.sources[whole[0]][1]
            return given
        if self._fields and not self._fields_are_body:
            return create_model(_model_name(self.name, "Query"), __base__=Query, **self._fields)
        return None

    def parameters_of(self, model: BaseModel) -> dict[str, Any]:
        """A body or query as the use case takes it: whole, or by its fields."""
        whole = self._named("query" if isinstance(model, Query) else "body")
        if whole:
            return {whole[0]: model}
        return {name: getattr(model, name) for name in type(model).model_fields}


@dataclass(frozen=True)
class Sheet:
    """What is fetched by an address and is not JSON."""

    path: str
    view: Callable[..., Any]
    role: Role = "anyone"
    stranger: bool = False

    @property
    def name(self) -> str:
        return self.view.__name__


def _default(given: Any) -> Any:
    return ... if given is inspect.Parameter.empty else given


def _model_name(name: str, ending: str) -> str:
    return "".join(part.title() for part in name.split("_")) + ending


def get(path: str, use_case: Callable[..., Any], **more: Any) -> Operation:
    """A question put by its address."""
    return Operation("GET", path, use_case, **more)


def ask(path: str, use_case: Callable[..., Any], **more: Any) -> Operation:
    """A question put in a body."""
    return Operation("POST", path, use_case, asks=True, **more)


def post(path: str, use_case: Callable[..., Any], **more: Any) -> Operation:
    """Something is done."""
    return Operation("POST", path, use_case, **more)


def add(path: str, use_case: Callable[..., Any], **more: Any) -> Operation:
    """Something new is kept."""
    return Operation("POST", path, use_case, status=201, **more)


def edit(path: str, use_case: Callable[..., Any], model: type[Edit], **more: Any) -> Operation:
    """What was changed of a record is saved."""
    return Operation("PATCH", path, use_case, edit=model, **more)


def delete(path: str, use_case: Callable[..., Any], **more: Any) -> Operation:
    """Something is taken away; it can be undone."""
    return Operation("DELETE", path, use_case, **more)
