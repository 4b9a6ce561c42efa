"""How a sentence of the core leaves as JSON: said in metric units, or its quantities open.

Open, it is a list of words and quantities, which the interface says in the units it shows;
to every other program it is plain words. Which of the two, the context of the dump tells.
"""

from typing import Any

from pydantic import GetCoreSchemaHandler, GetJsonSchemaHandler, TypeAdapter
from pydantic_core import CoreSchema, core_schema

from jade_ribbon.core.quantities.words import Quantity, Said, Sentence

OPEN = "open"
"""Key of the serialisation context that asks for open quantities."""


def written(text: Said, *, is_open: bool) -> str | list[Any]:
    """A text as JSON carries it."""
    if isinstance(text, str):
        return text
    if not is_open or all(isinstance(p, str) for p in text.parts):
        return text.said()
    return [p if isinstance(p, str) else _quantity(p) for p in text.parts]


def _quantity(part: Quantity) -> dict[str, Any]:
    found: dict[str, Any] = {"value": part.value, "kind": part.kind}
    return found if part.high is None else found | {"high": part.high}


def _serialise(text: Sentence, info: core_schema.SerializationInfo) -> Any:
    asked = info.context
    return written(text, is_open=isinstance(asked, dict) and bool(asked.get(OPEN)))


def _core_schema(_cls: type, _source: Any, _handler: GetCoreSchemaHandler) -> CoreSchema:
    return core_schema.is_instance_schema(
        Sentence,
        serialization=core_schema.plain_serializer_function_ser_schema(_serialise, info_arg=True),
    )


def _json_schema(_cls: type, _schema: CoreSchema, _handler: GetJsonSchemaHandler) -> Any:
    quantity = TypeAdapter(Quantity).json_schema()["properties"]
    return {
        "anyOf": [
            {"type": "string"},
            {
                "type": "array",
                "items": {
                    "anyOf": [
                        {"type": "string"},
                        {
                            "type": "object",
                            "properties": {
                                "value": {"type": "number"},
                                "high": {"type": "number"},
                                "kind": {"type": "string", "enum": quantity["kind"]["enum"]},
                            },
                            "required": ["value", "kind"],
                            "additionalProperties": False,
                        },
                    ]
                },
            },
        ]
    }


def teach_pydantic() -> None:
    """Tell pydantic how a sentence is written; the core itself knows nothing of pydantic."""
    setattr(Sentence, "__get_pydantic_core_schema__", classmethod(_core_schema))  # noqa: B010
    setattr(Sentence, "__get_pydantic_json_schema__", classmethod(_json_schema))  # noqa: B010


teach_pydantic()
