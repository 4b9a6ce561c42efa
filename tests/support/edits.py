"""Saving what was changed of a record, as the screens do: on the version it is of."""

from typing import Any

from flask.testing import FlaskClient
from werkzeug.test import TestResponse

NEVER_READ = 2**52
"""No record is of this version: a save on it tells the version that is."""
ONLY_TOLD = ("id", "clock_behind_s", "clock_ahead_s", "change_id", "pressures", "wear")
"""What an answer tells of a record and nobody saves."""


def saved(client: FlaskClient, path: str, changes: dict[str, Any]) -> TestResponse:
    """The answer to a save of some changed fields on the record as it is now."""
    told = {k: v for k, v in changes.items() if k not in ONLY_TOLD}
    refused = client.patch(path, json={**told, "version": NEVER_READ})
    if refused.status_code != 409:
        return refused
    return client.patch(path, json={**told, "version": refused.get_json()["current"]["version"]})
