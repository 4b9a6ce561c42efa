"""The interface itself: problems, protection, the document."""

import json
from pathlib import Path

import pytest
from flask.testing import FlaskClient

from jade_ribbon.api.document import document
from jade_ribbon.api.routes import OPERATIONS


def test_errors_are_problems_and_keep_their_headers(client: FlaskClient) -> None:
    for response, status in (
        (client.get("/api/nothing"), 404),
        (client.post("/api/shop"), 405),
        (client.post("/api/plan", data="x"), 415),
        (client.post("/api/plan", data="{", content_type="application/json"), 422),
        (client.get("/api/saws/99999999999999999999"), 404),
        (client.post("/api/plan", data=b"x" * 2_100_000, content_type="application/json"), 413),
    ):
        assert response.status_code == status
        assert response.mimetype == "application/problem+json"
        assert response.get_json()["status"] == status
    assert "PATCH" in client.post("/api/shop").headers["Allow"]


def test_pages_are_protected(client: FlaskClient) -> None:
    headers = client.get("/api/shop").headers
    scripts = headers["Content-Security-Policy"].split("script-src")[1].split(";")[0]
    # The reader of codes is compiled code of our own; nothing else may be made of text.
    assert scripts.strip() == "'self' 'wasm-unsafe-eval'"
    assert "microphone=(self)" in headers["Permissions-Policy"]


def test_an_unexpected_error_tells_nothing_inside(
    client: FlaskClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    from jade_ribbon.services.search import find

    def broken(*_: object) -> None:
        raise RuntimeError("secret")

    monkeypatch.setattr(find, "records_of", broken)
    response = client.get("/api/search?q=x")
    assert response.status_code == 500
    assert "secret" not in response.text


def test_the_document_is_committed_and_its_ids_are_unique() -> None:
    committed = json.loads((Path(__file__).parents[2] / "docs" / "openapi.json").read_text())
    assert committed == json.loads(json.dumps(document(OPERATIONS)))
    names = [op.name for op in OPERATIONS]
    assert len(names) == len(set(names))
    assert all(op.summary for op in OPERATIONS)
