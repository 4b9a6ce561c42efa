"""The use cases' own fixtures."""

from pathlib import Path

import pytest

from jade_ribbon.services.rack import bands
from jade_ribbon.services.records import begin_deed
from jade_ribbon.store.database import Store
from jade_ribbon.store.migrate import migrate
from tests.support.stores import GIVEN


@pytest.fixture
def store(tmp_path: Path) -> Store:
    found = Store(tmp_path / "shop.sqlite")
    migrate(found)
    with found.write() as session:
        begin_deed(session)
        bands.add_band(session, GIVEN)
    return found
