"""Shared fixtures: an empty shop, a small shop, and the sample boatyard."""

import gc
import json
import os
import shutil
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from filelock import FileLock
from flask import Flask
from flask.testing import FlaskClient
from hypothesis import settings

from jade_ribbon.api.app import make_app, open_file
from jade_ribbon.demo.world import make_world
from jade_ribbon.store.database import Store
from jade_ribbon.store.migrate import migrate
from tests.support.shop import BAND, JOB_FILE, OurClient

# As a served shop does: searched for garbage less often, in what is large and stays.
gc.set_threshold(100_000, 50, 100)

# A slow machine is no failure. The same examples are tried on every run; `make bench` asks for the
# other profile, which draws them anew.
settings.register_profile("steady", deadline=None, max_examples=40, derandomize=True)
settings.register_profile("random", deadline=None, max_examples=200, derandomize=False)
settings.load_profile(os.environ.get("HYPOTHESIS_PROFILE", "steady"))


@pytest.fixture
def job_file() -> dict[str, Any]:
    """The example job: larch resawn on a shop saw."""
    document: dict[str, Any] = json.loads(JOB_FILE.read_text())
    return document


@pytest.fixture(scope="session")
def empty_file(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """An empty shop's file, migrated once a session."""
    store = Store(tmp_path_factory.mktemp("empty") / "shop.sqlite")
    migrate(store)
    store.checkpoint()
    store.close()
    return store.file


@pytest.fixture(scope="session")
def app() -> Flask:
    """The application with its routes, made once a session; each test opens a file of its own."""
    app = make_app()
    app.test_client_class = OurClient
    return app


@pytest.fixture
def client(app: Flask, empty_file: Path, tmp_path: Path) -> Iterator[FlaskClient]:
    """The application on an empty shop."""
    open_file(app, Path(shutil.copy(empty_file, tmp_path / "shop.sqlite")))
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


@pytest.fixture(scope="session")
def yard_file(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The sample boatyard, made once."""
    shared = tmp_path_factory.getbasetemp()
    if os.environ.get("PYTEST_XDIST_WORKER"):
        shared = shared.parent  # all workers' own: the first to come makes it
    file = shared / "yard.sqlite"
    with FileLock(shared / "yard.lock"):
        if not file.exists():
            make_world(file)
    return file


@pytest.fixture
def yard_copy(yard_file: Path, tmp_path: Path) -> Path:
    """A copy of it to change."""
    return Path(shutil.copy(yard_file, tmp_path / "yard.sqlite"))
