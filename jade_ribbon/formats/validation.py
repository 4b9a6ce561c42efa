"""Pydantic's faults in our words: field, value, what is accepted."""

import dataclasses
import re
from collections.abc import Iterable, Mapping
from types import UnionType
from typing import Annotated, Any, Union, get_args, get_type_hints

from pydantic import (
    BaseModel,
    ConfigDict,
    Field,
    ValidationError,
    ValidationInfo,
    field_validator,
)
from pydantic_core import ErrorDetails

from jade_ribbon.core.quantities.errors import Fault, InputError
from jade_ribbon.core.quantities.input_limits import ENTRIES, Limit
from jade_ribbon.formats.plain_text import odd_sign
from jade_ribbon.reference.quantities import LEAST


def entry(name: str) -> Any:
    """The range of what a shop may enter of a quantity, as a field of a model has it."""
    accepted = ENTRIES[name]
    if accepted.open_low:
        return Field(gt=accepted.low + LEAST, le=accepted.high)
    return Field(ge=accepted.low, le=accepted.high)


class Strict(BaseModel):
    """Base of every record read from outside: no unknown keys, no coercion, no NaN."""

    model_config = ConfigDict(
        extra="forbid",
        strict=True,
        allow_inf_nan=False,
        json_schema_serialization_defaults_required=True,
    )

    @field_validator("*", mode="after")
    @classmethod
    def _plain_text(cls, value: Any, info: ValidationInfo) -> Any:
        """No sign that nobody sees is kept of what people write; documents have their readers."""
        metadata = cls.model_fields[str(info.field_name)].metadata
        if not any(getattr(m, "max_length", 0) >= DOCUMENT for m in metadata):
            _no_odd_signs(value)
        return value


def fields_of(record: type) -> dict[str, Any]:
    """The fields of a core record as a model takes them: each held to what may be entered of it."""
    hints = get_type_hints(record, include_extras=True)
    return {
        f.name: (
            _held(f.name, hints[f.name]),
            ... if f.default is dataclasses.MISSING else f.default,
        )
        for f in dataclasses.fields(record)
    }


def _held(name: str, kind: Any) -> Any:
    """A field's kind with the range of its quantity: the one it names, or that of its own name."""
    if isinstance(kind, UnionType):
        return Union[tuple(_held(name, k) for k in get_args(kind))]  # noqa: UP007
    limit = next((m for m in getattr(kind, "__metadata__", ()) if isinstance(m, Limit)), None)
    if limit is not None:
        return Annotated[get_args(kind)[0], entry(limit.quantity)]
    return Annotated[kind, entry(name)] if kind in (int, float) and name in ENTRIES else kind


DOCUMENT = 100_000
"""A text that may be so long is a file."""


def _no_odd_signs(value: Any) -> None:
    """ValueError for a sign that nobody sees, in a text or in what holds texts."""
    if isinstance(value, str):
        if odd := odd_sign(value):
            raise ValueError(f"holds {odd}, which nobody sees; accepted: letters, digits, signs")
    elif isinstance(value, Mapping):
        for key, inner in value.items():
            _no_odd_signs(key)
            _no_odd_signs(inner)
    elif isinstance(value, (list, tuple, set, frozenset)):
        for inner in value:
            _no_odd_signs(inner)


OF_A_UNION = re.compile(r"\[|^constrained-")
"""Steps that pydantic adds to a path for a field of several kinds."""
SIZED = ("too_short", "too_long")
"""Pydantic's names for a list or dictionary with too few or too many entries."""


def _bounds(context: Mapping[str, Any]) -> str:
    words = {
        "gt": "more than",
        "ge": "at least",
        "lt": "less than",
        "le": "at most",
        "min_length": "at least",
        "max_length": "at most",
    }
    told = {k: 0 if context[k] == LEAST else context[k] for k in words if k in context}
    return " and ".join(f"{words[k]} {value}" for k, value in told.items())


def _sentence(error: ErrorDetails, names: str) -> str:
    kind, context = error["type"], error.get("ctx", {})
    value = error.get("input")
    shown = repr(value) if isinstance(value, (str, int, float, bool)) or value is None else "this"
    if len(shown) > 60:
        shown = shown[:57] + "…"
    if kind == "missing":
        return "is missing"
    if kind in ("int_type", "int_from_float", "int_parsing"):
        return f"{shown} is not accepted; accepted: a whole number"
    if kind == "bool_type":
        return f"{shown} is not accepted; accepted: true or false"
    if kind == "string_pattern_mismatch" and not str(value).strip():
        return "is empty; accepted: some words"
    if kind in SIZED:
        return f"holds {context.get('actual_length', 'so many')}; accepted: {_bounds(context)}"
    if kind == "extra_forbidden":
        return f"is not a known key; accepted: {names}" if names else "is not a known key"
    if kind == "literal_error":
        return f"{shown} is not accepted; accepted: {context.get('expected')}"
    if kind in ("string_too_short", "string_too_long"):
        return f"{shown} is too short or long; accepted: {_bounds(context)} letters"
    if bounds := _bounds(context):
        return f"{shown} is out of range; accepted: {bounds}"
    if kind == "value_error":
        return str(context.get("error", error["msg"]))
    return f"{shown}: {error['msg'][0].lower()}{error['msg'][1:]}"


def faults_of(error: ValidationError, model: type[BaseModel] | None = None) -> tuple[Fault, ...]:
    """Every fault with its dotted path; steps pydantic adds for unions are left out."""
    return tuple(
        Fault(_path(e["loc"]), _sentence(e, _siblings(model, e["loc"])), e.get("input"))
        for e in error.errors(include_url=False)
    )


def _path(loc: Iterable[int | str]) -> str:
    return ".".join(str(p) for p in loc if not (isinstance(p, str) and OF_A_UNION.search(p)))


def _siblings(model: type[BaseModel] | None, loc: tuple[int | str, ...]) -> str:
    """Names accepted beside an unknown key."""
    for step in loc[:-1]:
        field = model.model_fields.get(str(step)) if model is not None else None
        found = field.annotation if field is not None else None
        model = found if isinstance(found, type) and issubclass(found, BaseModel) else None
    return ", ".join(model.model_fields) if model is not None else ""


def read_json(model: type["Strict"], text: str | bytes) -> Any:
    """Parse a document; InputError with all faults, or what is wrong with the JSON."""
    try:
        return model.model_validate_json(text)
    except ValidationError as error:
        raise InputError(faults_of(error, model)) from None


def checked(model: type["Strict"], values: Mapping[str, Any]) -> Any:
    """A record by its model. InputError with everything wrong in it."""
    try:
        return model.model_validate(dict(values))
    except ValidationError as error:
        raise InputError(faults_of(error, model)) from None
