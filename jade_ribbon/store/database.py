"""Opening a shop's file: SQLite in WAL with foreign keys on; what is committed is on the disk."""

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from sqlalchemy import URL, Engine, create_engine, event
from sqlalchemy.orm import Session, sessionmaker

BUSY_TIMEOUT_MS = 5000
PRAGMAS = (
    "journal_mode=WAL",
    "foreign_keys=ON",
    "synchronous=FULL",
    f"busy_timeout={BUSY_TIMEOUT_MS}",
)
"""How every connection works: what is committed is on the disk before it is acknowledged."""


def open_engine(file: Path) -> Engine:
    """An engine on a SQLite file. BEGIN is explicit, so that DDL rolls back too."""
    url = URL.create("sqlite", database=str(file))
    engine = create_engine(url, connect_args={"timeout": BUSY_TIMEOUT_MS / 1000})

    @event.listens_for(engine, "connect")
    def _on_connect(connection: Any, _record: Any) -> None:
        connection.isolation_level = None
        for pragma in PRAGMAS:
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
