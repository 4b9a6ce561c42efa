"""Opening a shop's file: SQLite in WAL with foreign keys on, migrated, backed up before."""

import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from sqlalchemy import Engine, create_engine, event
from sqlalchemy.orm import Session, sessionmaker

BUSY_TIMEOUT_MS = 5000


def open_engine(file: Path) -> Engine:
    """An engine on a SQLite file. BEGIN is explicit, so that DDL rolls back too."""
    engine = create_engine(f"sqlite:///{file}", connect_args={"timeout": BUSY_TIMEOUT_MS / 1000})

    @event.listens_for(engine, "connect")
    def _on_connect(connection: Any, _record: Any) -> None:
        connection.isolation_level = None
        for pragma in (
            "journal_mode=WAL",
            "foreign_keys=ON",
            "synchronous=NORMAL",
            f"busy_timeout={BUSY_TIMEOUT_MS}",
        ):
            connection.execute(f"PRAGMA {pragma}")

    @event.listens_for(engine, "begin")
    def _on_begin(connection: Any) -> None:
        connection.exec_driver_sql("BEGIN IMMEDIATE" if _writes(connection) else "BEGIN")

    return engine


def _writes(connection: Any) -> bool:
    return bool(connection.get_execution_options().get("writes", False))


class Store:
    """A shop's file and the sessions on it."""

    def __init__(self, file: Path) -> None:
        self.file = file
        self.engine = open_engine(file)
        self._writing = sessionmaker(
            self.engine.execution_options(writes=True), expire_on_commit=False
        )
        self._reading = sessionmaker(self.engine, expire_on_commit=False)

    @contextmanager
    def write(self) -> Iterator[Session]:
        """One unit of work: committed whole at the end, or not at all."""
        with self._writing.begin() as session:
            yield session

    @contextmanager
    def read(self) -> Iterator[Session]:
        """A consistent view; nothing is written."""
        with self._reading() as session:
            yield session

    def checkpoint(self) -> None:
        """Bring everything in the write-ahead log into the file itself."""
        with self.engine.connect() as connection:
            raw = connection.connection.dbapi_connection
            assert raw is not None
            raw.execute("PRAGMA wal_checkpoint(TRUNCATE)")

    def close(self) -> None:
        self.engine.dispose()


def copy_database(source: Path, target: Path) -> None:
    """Copy a live SQLite file whole, through SQLite's own backup."""
    with closing(sqlite3.connect(source)) as live, closing(sqlite3.connect(target)) as copy:
        live.backup(copy)


def backup(source: Path, target: Path) -> None:
    """Write a backup to a file that must not exist. FileExistsError/FileNotFoundError."""
    if target.exists():
        raise FileExistsError(f"{target} exists already; give a new file")
    if not source.exists():
        raise FileNotFoundError(f"{source} does not exist: nothing to back up")
    copy_database(source, target)


def restore(source: Path, target: Path, *, over: bool = False) -> None:
    """Bring a backup back to a file; over an existing one only when asked.

    ValueError when the backup is not a sound database of this application.
    """
    if target.exists() and not over:
        raise FileExistsError(f"{target} exists already; give a new file, or ask with --over")
    check_sound(source)
    partial = target.with_name(target.name + ".partial")
    partial.unlink(missing_ok=True)
    copy_database(source, partial)
    for leftover in (f"{target.name}-wal", f"{target.name}-shm"):
        target.with_name(leftover).unlink(missing_ok=True)
    shutil.move(partial, target)


def check_sound(file: Path) -> None:
    """Refuse a file that is missing, not SQLite, damaged, or not ours."""
    if not file.exists():
        raise FileNotFoundError(f"{file} does not exist")
    try:
        with closing(sqlite3.connect(f"file:{file}?mode=ro", uri=True)) as connection:
            verdict = connection.execute("PRAGMA integrity_check").fetchone()[0]
            tables = {r[0] for r in connection.execute("SELECT name FROM sqlite_master")}
    except sqlite3.DatabaseError as problem:
        raise ValueError(f"{file} is not a sound database: {problem}") from problem
    if verdict != "ok":
        raise ValueError(f"{file} is damaged: {verdict}")
    if "alembic_version" not in tables or "band" not in tables:
        raise ValueError(f"{file} is not a shop's file of this application")


def backup_name(file: Path, at: datetime | None = None) -> Path:
    """Where the backup before a migration goes: beside the file, with the time."""
    stamp = (at or datetime.now(UTC)).strftime("%Y%m%d-%H%M%S")
    return file.with_name(f"{file.stem}.before-migration-{stamp}{file.suffix}")
