"""Shared fixtures: an empty shop, a small shop, and the sample boatyard."""

import json
import shutil
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient
from hypothesis import settings

from jade_ribbon.api.app import create_app
from jade_ribbon.demo.world import make_world

# A slow machine is no failure, and the same examples are tried everywhere.
settings.register_profile("steady", deadline=None, max_examples=60, derandomize=True)
settings.load_profile("steady")

JOB_FILE = Path(__file__).parent / "data" / "job.json"


@pytest.fixture
def job_file() -> dict[str, Any]:
    """The example job: larch resawn on a shop saw."""
    document: dict[str, Any] = json.loads(JOB_FILE.read_text())
    return document


@pytest.fixture
def client(tmp_path: Path) -> Iterator[FlaskClient]:
    """The application on an empty shop."""
    app = create_app(tmp_path / "shop.sqlite")
    yield app.test_client()
    app.extensions["store"].close()


@pytest.fixture
def shop(client: FlaskClient, job_file: dict[str, Any]) -> FlaskClient:
    """A shop with one saw, one band (id 1) and one job (id 1)."""
    assert client.post("/api/saws", json=job_file["saw"]).status_code == 201
    assert client.post("/api/bands", json=BAND).status_code == 201
    job = {**job_file["cut"], "saw_id": 1, "name": "Strakes", "slice_mm": 14}
    assert client.post("/api/jobs", json=job).status_code == 201
    return client


BAND = {
    "label": "K-07",
    "width_mm": 19,
    "thickness_mm": 0.81,
    "tpi_lo": 2,
    "tpi_hi": 2,
    "form": "hook",
    "steel": "silicon_steel",
    "length_mm": 3360,
}


@pytest.fixture(scope="session")
def yard_file(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The sample boatyard, made once."""
    file = tmp_path_factory.mktemp("yard") / "yard.sqlite"
    make_world(file)
    return file


@pytest.fixture
def yard_copy(yard_file: Path, tmp_path: Path) -> Path:
    """A copy of it to change."""
    return Path(shutil.copy(yard_file, tmp_path / "yard.sqlite"))
