"""The OpenAPI document, made from the registered operations."""

import functools
from typing import Any

from flask import Response, current_app, jsonify
from pydantic import TypeAdapter

from jade_ribbon import __version__
from jade_ribbon.api.operation import CSV, JSON, PICTURE, SENDING, SOUND, Operation
from jade_ribbon.api.problems import PROBLEM, Problem
from jade_ribbon.api.respond import KEY_FORM, MOST_ID, MOST_NAME, PERSON, WRITE_KEY
from jade_ribbon.formats.job import JobFile

Operations = tuple[Operation, ...]
REF = "#/components/schemas/{model}"
MEANINGS = {
    "400": "The request is malformed",
    "401": "This device of the network has not joined",
    "403": "Not from this page, not by this name, or not for this device",
    "404": "No such record",
    "405": "Not with this method",
    "409": "Not possible as things stand",
    "413": "The body is over 2 MB",
    "415": "The body is not JSON",
    "429": "Too many wrong tries",
    "503": "The shop's file is busy, full or away",
    "422": "A field is missing, unknown or out of range",
}


def _schemas(operations: Operations) -> tuple[dict[tuple[str, str], Any], dict[str, Any]]:
    """JSON schemas of all bodies (as read) and answers (as written), with shared parts."""
    wanted: list[tuple[str, Any, TypeAdapter[Any]]] = [
        ("problem", "serialization", TypeAdapter(Problem)),
        ("job_file", "validation", TypeAdapter(JobFile)),
    ]
    for op in operations:
        wanted.append((op.name, "serialization", op.adapter))
        if op.body is not None:
            wanted.append((op.name, "validation", TypeAdapter(op.body)))
    refs, shared = TypeAdapter.json_schemas(wanted, ref_template=REF)
    return refs, shared.get("$defs", {})  # type: ignore[return-value]


def _query(op: Operation) -> list[dict[str, Any]]:
    if op.query is None:
        return []
    schema = op.query.model_json_schema(ref_template=REF)
    required = schema.get("required", [])
    return [
        {"name": name, "in": "query", "required": name in required, "schema": part}
        for name, part in schema["properties"].items()
    ]


def _path(op: Operation) -> list[dict[str, Any]]:
    return [
        {
            "name": name,
            "in": "path",
            "required": True,
            "schema": {"type": "integer", "minimum": 0, "maximum": MOST_ID},
        }
        for name in op.path_parameters
    ]


def _headers(op: Operation) -> list[dict[str, Any]]:
    """What a writer may say beside the body: its key of this write, and who is at the screen."""
    if not op.writes:
        return []
    return [
        {
            "name": WRITE_KEY,
            "in": "header",
            "schema": {"type": "string", "pattern": KEY_FORM.pattern},
        },
        {"name": PERSON, "in": "header", "schema": {"type": "string", "maxLength": MOST_NAME}},
    ]


def _responses(op: Operation, schema: Any) -> dict[str, Any]:
    codes = ["400", "401", "404", "405", "503"]
    if op.method != "GET":
        codes += ["403", "409"]
    if op.method in SENDING:
        codes += ["413", "415", "429"]
    if op.body is not None or op.raw_body or op.query is not None or op.method != "GET":
        codes += ["422"]
    answers: dict[str, Any] = {
        str(op.status): {"description": "Done", "content": {JSON: {"schema": schema}}}
    }
    return answers | {code: {"$ref": f"#/components/responses/{code}"} for code in codes}


def _problems(problem: Any) -> dict[str, Any]:
    """The error answers, told once: every one carries the same body."""
    return {
        code: {"description": meaning, "content": {PROBLEM: {"schema": problem}}}
        for code, meaning in MEANINGS.items()
    }


def _body_schema(op: Operation, refs: Any) -> Any:
    """What goes in: a model, a job file, or sound as bytes."""
    if op.media == CSV:
        return {"type": "string"}
    if op.media in (SOUND, PICTURE):
        return {"type": "string", "format": "binary"}
    return refs[(op.name, "validation") if op.body else ("job_file", "validation")]


@functools.cache
def document(operations: Operations) -> dict[str, Any]:
    """The whole OpenAPI 3.1 document, made once."""
    refs, shared = _schemas(operations)
    problem = refs[("problem", "serialization")]
    paths: dict[str, Any] = {}
    for op in operations:
        entry: dict[str, Any] = {
            "operationId": op.name,
            "summary": op.summary,
            "parameters": _path(op) + _query(op) + _headers(op),
            "responses": _responses(op, refs[(op.name, "serialization")]),
        }
        if op.body is not None or op.raw_body:
            schema = _body_schema(op, refs)
            entry["requestBody"] = {"required": True, "content": {op.media: {"schema": schema}}}
        paths.setdefault(op.openapi_path, {})[op.method.lower()] = entry
    return {
        "openapi": "3.1.0",
        "info": {"title": "Jade Ribbon", "version": __version__},
        "paths": paths,
        "components": {"responses": _problems(problem), "schemas": shared},
    }


def openapi() -> Response:
    """The document of the operations this application has."""
    return jsonify(document(current_app.extensions["operations"]))
