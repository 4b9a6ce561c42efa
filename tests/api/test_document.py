"""Requests made up from the OpenAPI document: no answer outside it, no server error."""

import json
import tempfile
from pathlib import Path
from typing import Any

import pytest
import schemathesis
from hypothesis import HealthCheck, given, settings
from schemathesis.specs.openapi.checks import positive_data_acceptance

from jade_ribbon.api import routes
from jade_ribbon.api.app import create_app
from tests.support.shop import BAND, JOB_FILE

FOLDER = tempfile.TemporaryDirectory()
APP = create_app(Path(FOLDER.name) / "shop.sqlite")
CLIENT = APP.test_client()
FILE = json.loads(JOB_FILE.read_text())
CLIENT.post("/api/saws", json=FILE["saw"])
CLIENT.post("/api/bands", json=BAND)
CLIENT.post("/api/jobs", json={**FILE["cut"], "saw_id": 1})
CLIENT.post("/api/setups", json={"job_id": 1, "band_id": 1})
schemathesis.serializer.alias("audio/wav", "application/octet-stream")
SCHEMA = schemathesis.openapi.from_wsgi("/api/openapi.json", APP)
FOUND: list[Any] = list(SCHEMA.get_all_operations())
OPERATIONS = [found.ok() for found in FOUND]


@pytest.mark.parametrize("made", OPERATIONS, ids=lambda o: o.label)
def test_answers_stay_within_the_document(made: Any) -> None:
    @given(case=made.as_strategy())
    @settings(
        max_examples=10,
        deadline=None,
        derandomize=True,
        suppress_health_check=list(HealthCheck),
    )
    def run(case: Any) -> None:
        # Rules between fields are not in the document: a refusal of those is no fault.
        plain = {"Accept-Encoding": "identity"}
        case.call_and_validate(headers=plain, excluded_checks=[positive_data_acceptance])

    run()


def test_every_operation_is_in_the_document() -> None:
    assert len(OPERATIONS) == len(routes.OPERATIONS)
