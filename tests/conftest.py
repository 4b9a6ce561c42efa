"""Shared fixtures: an empty shop, a small shop, and the sample boatyard."""

import gc
import json
import os
import shutil
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from flask import Flask
from flask.testing import FlaskClient
from hypothesis import Phase, settings

from jade_ribbon.api.app import make_app, open_file
from jade_ribbon.demo.world import make_world
from jade_ribbon.store.database import Store
from jade_ribbon.store.migrate import migrate
from tests.support.shop import BAND, JOB_FILE, OurClient

# As a served shop does: searched for garbage less often, in what is large and stays.
gc.set_threshold(100_000, 50, 100)

# A slow machine is no failure. The same examples are tried on every run; `make bench` asks for the
# other profile, which draws them anew.
# A failing example is shown as it was found: making it small takes minutes, `random` does it.
FOUND = [Phase.explicit, Phase.generate]
settings.register_profile("steady", deadline=None, max_examples=40, derandomize=True, phases=FOUND)
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


YARD = "JADE_RIBBON_TESTS_YARD"
"""Where the sample boatyard comes to be that is being made beside the first tests."""
MAKE_YARD = (
    "import sys; from pathlib import Path; from jade_ribbon.demo.world import make_world; "
    "make_world(Path(sys.argv[1]))"
)
YARD_S = 300.0


FIRST = (
    "tests/test_attacks",
    "tests/store/",
    "tests/test_server",
    "tests/api/test_answers_stand",
    "tests/services/",
    "tests/browser/test_access",
    "tests/browser/",
)
"""What takes longest, and waits most, begins first: no worker is left alone with it at the end."""


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Several processes take the modules in this order; `sort` keeps that of each one's tests."""

    def place(item: pytest.Item) -> int:
        return next((n for n, path in enumerate(FIRST) if item.nodeid.startswith(path)), len(FIRST))

    items.sort(key=place)


def pytest_configure(config: pytest.Config) -> None:
    """Where tests run in several processes, one more begins at once with what most wait for."""
    if hasattr(config, "workerinput") or not config.getoption("numprocesses", None):
        return
    folder = tempfile.TemporaryDirectory(prefix="yard-")
    file = Path(folder.name) / "yard.sqlite"
    making = subprocess.Popen([sys.executable, "-c", MAKE_YARD, str(file)])
    os.environ[YARD] = str(file)
    config.add_cleanup(folder.cleanup)

    def stop() -> None:
        making.terminate()
        making.wait()

    config.add_cleanup(stop)


@pytest.fixture(scope="session")
def yard_file(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The sample boatyard, made once: whole as soon as it is there."""
    if YARD not in os.environ:
        file = tmp_path_factory.getbasetemp() / "yard.sqlite"
        make_world(file)
        return file
    file, until = Path(os.environ[YARD]), time.monotonic() + YARD_S
    while not file.exists():
        assert time.monotonic() < until, "the sample boatyard is not made"
        time.sleep(0.2)
    return file


@pytest.fixture
def yard_copy(yard_file: Path, tmp_path: Path) -> Path:
    """A copy of it to change."""
    return Path(shutil.copy(yard_file, tmp_path / "yard.sqlite"))
