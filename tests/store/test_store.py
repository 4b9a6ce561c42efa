"""The shop's file: migrations both ways, backups, and writes that are whole or absent."""

import json
import multiprocessing
import sqlite3
import time
from contextlib import closing
from datetime import UTC, datetime
from multiprocessing.connection import Connection
from pathlib import Path

import pytest
from alembic import command
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlalchemy.exc import IntegrityError

from jade_ribbon.store.database import Store
from jade_ribbon.store.migrate import config_for, current_revision, migrate, newest_revision
from jade_ribbon.store.models import BandEventRow, BandRow, Base


@pytest.fixture
def store(tmp_path: Path) -> Store:
    return Store(tmp_path / "shop.sqlite")


def test_migrations_go_up_down_and_up(store: Store) -> None:
    assert migrate(store) is None
    assert current_revision(store) == newest_revision()
    saved = migrate(store, "base")
    assert saved is not None and saved.exists()
    assert current_revision(store) is None
    migrate(store)
    assert current_revision(store) == newest_revision()


def test_models_and_migrations_agree(store: Store) -> None:
    migrate(store)
    with store.engine.connect() as connection:
        context = MigrationContext.configure(connection, opts={"compare_type": True})
        assert compare_metadata(context, Base.metadata) == []


def test_check_constraints_stand_in_the_file(store: Store) -> None:
    """Batch migrations can lose them unseen: try to break each."""
    migrate(store)
    with closing(sqlite3.connect(store.file)) as raw:
        for statement in (
            "INSERT INTO shop (id,name,units,currency,gauge_length_mm,rules,rates,people) "
            "VALUES (2,'x','metric','€',100,'{}','{}','[]')",
            "INSERT INTO band (label,width_mm,thickness_mm,form,steel,length_mm,place,state,note,"
            "arrived_at,sharpenings,edge_equivalent_m,edge_contact_m,total_contact_m,fouling,"
            "bending_share,runs) VALUES ('x',0,1,'a','b',1,'','rack','','2026-01-01',"
            "0,0,0,0,0,0,0)",
        ):
            with pytest.raises(sqlite3.IntegrityError, match="CHECK"):
                raw.execute(statement)


def test_wal_and_foreign_keys_are_on(store: Store) -> None:
    migrate(store)
    with store.engine.connect() as connection:
        assert connection.exec_driver_sql("PRAGMA journal_mode").scalar() == "wal"
        assert connection.exec_driver_sql("PRAGMA foreign_keys").scalar() == 1
    orphan = BandEventRow(band_id=99, at=datetime.now(UTC), kind="note")
    with pytest.raises(IntegrityError), store.write() as session:
        session.add(orphan)


def test_a_time_without_a_zone_is_refused(store: Store) -> None:
    migrate(store)
    late = BandEventRow(band_id=1, at=datetime(2026, 1, 1), kind="note")
    with pytest.raises(Exception, match="time without a zone"), store.write() as session:
        session.add(late)


def keep_writing(file: Path, name: str, started: Connection) -> None:
    """Write bands of forty events each, one unit of work a band, until killed."""
    store = Store(file)
    n = 0
    while True:
        n += 1
        now = datetime.now(UTC)
        with store.write() as session:
            sizes = {"width_mm": 1, "thickness_mm": 1, "length_mm": 1000}
            band = BandRow(label=f"{name}-{n}", form="hook", steel="x", arrived_at=now, **sizes)
            session.add(band)
            session.flush()
            for _ in range(40):
                session.add(BandEventRow(band_id=band.id, at=now, kind="note"))
                session.flush()
        if n == 1:
            started.send("writing")


def test_a_write_is_whole_or_absent_however_it_dies(store: Store) -> None:
    """Kill a process in the middle of writing, twenty times: each band has all its events."""
    migrate(store)
    store.close()
    fork = multiprocessing.get_context("fork")
    for round_ in range(20):
        heard, started = fork.Pipe()
        writer = fork.Process(target=keep_writing, args=(store.file, str(round_), started))
        writer.start()
        assert heard.poll(20) and heard.recv() == "writing"
        time.sleep(0.004 * (round_ % 7))
        writer.kill()
        writer.join(20)
        with closing(sqlite3.connect(store.file)) as raw:
            counts = raw.execute(
                "SELECT count(e.id) FROM band b LEFT JOIN band_event e ON e.band_id = b.id "
                "GROUP BY b.id"
            ).fetchall()
            assert raw.execute("PRAGMA integrity_check").fetchone() == ("ok",)
        assert {c for (c,) in counts} == {40}
    assert len(counts) >= 20


OLD_STEP = {
    "done": True,
    "left": {"stress_MPa": 130.0},
    "as_found": "slack",
    "skipped": "",
    "who": "Odda",
    "at": "2026-11-20T11:00:00+00:00",
}


def _old_card(store: Store) -> None:
    """A card with one step, as the format before 0006 kept it, and the change that made it."""
    with closing(sqlite3.connect(store.file)) as raw:
        raw.execute("PRAGMA foreign_keys=OFF")
        raw.execute(
            "INSERT INTO setup (id, job_id, saw_id, band_id, started_at, steps, acknowledged, "
            "figures) VALUES (7, 1, 1, 1, '2026-11-20 10:00:00', ?, '[]', '{}')",
            [json.dumps({"tension": OLD_STEP})],
        )
        raw.execute(
            'INSERT INTO change (at, noun, noun_id, action, "before", "after", undone) VALUES '
            "('2026-11-20 11:00:00', 'setup', 7, 'tension', ?, ?, 0)",
            [json.dumps({"steps": {}}), json.dumps({"steps": {"tension": OLD_STEP}})],
        )
        raw.commit()


def test_steps_of_old_cards_become_rows_and_go_back(store: Store) -> None:
    """What was found and left, by whom and when, and the change that undoes it, are carried."""
    migrate(store)
    migrate(store, "0005")
    _old_card(store)
    with store.engine.connect() as connection:
        raw = connection.connection.dbapi_connection
        assert raw is not None
        raw.execute("PRAGMA foreign_keys=OFF")
        with connection.begin():
            command.upgrade(config_for(connection), "head")
        step = connection.exec_driver_sql(
            'SELECT setup_id, "key", done, "left", note, who, at FROM setup_step'
        ).one()
        change = connection.exec_driver_sql('SELECT noun, "before" FROM change').one()
        connection.rollback()
    kept = (7, "tension", 1, '{"stress_MPa": 130.0}', "found slack", "Odda", "2026-11-20 11:00:00")
    assert tuple(step) == kept and tuple(change) == ("step", None)
    with store.engine.connect() as connection:
        raw = connection.connection.dbapi_connection
        assert raw is not None
        raw.execute("PRAGMA foreign_keys=OFF")
        with connection.begin():
            command.downgrade(config_for(connection), "0005")
        (steps,) = connection.exec_driver_sql("SELECT steps FROM setup").one()
    assert json.loads(steps)["tension"]["left"] == {"stress_MPa": 130.0}
    assert json.loads(steps)["tension"]["at"] == OLD_STEP["at"]
