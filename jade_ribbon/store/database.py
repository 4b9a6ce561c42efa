"""Opening a shop's file: SQLite in WAL with foreign keys on; what is committed is on the disk."""

import os
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from sqlalchemy import URL, Connection, Engine, create_engine, event
from sqlalchemy.orm import Session, sessionmaker

from jade_ribbon.store.files import BESIDE, make_private
from jade_ribbon.store.memo import Memo

BUSY_TIMEOUT_MS = 5000
PRAGMAS = (
    "journal_mode=WAL",
    "foreign_keys=ON",
    "synchronous=FULL",
    f"busy_timeout={BUSY_TIMEOUT_MS}",
)
"""How every connection works: what is committed is on the disk before it is acknowledged."""
MEMO, COMMITTED = "memo", "committed"
"""Where a session has what was worked out before, and whether it sees what is committed only."""
WRITERS_S = 10.0
"""How long those at work on a write may take to end before the file is held."""


class FileGoneError(RuntimeError):
    """The shop's file, or its log beside it, was taken away or replaced while it was open."""


class HeldError(RuntimeError):
    """Nothing is written just now: a copy is being brought back."""


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


class Gate:
    """Lets writers through, and none while one thread holds it for itself."""

    def __init__(self) -> None:
        self._turn = threading.Condition()
        self._inside = 0
        self._holder: int | None = None

    @contextmanager
    def through(self) -> Iterator[None]:
        """HeldError while another thread holds it."""
        me = threading.get_ident()
        with self._turn:
            if self._holder not in (None, me):
                raise HeldError
            self._inside += 1
        try:
            yield
        finally:
            with self._turn:
                self._inside -= 1
                self._turn.notify_all()

    @contextmanager
    def held(self) -> Iterator[None]:
        """Nobody else writes from here on; those at it are waited for. HeldError."""
        with self._turn:
            if self._holder is not None:
                raise HeldError
            self._holder = threading.get_ident()
            if not self._turn.wait_for(lambda: self._inside == 0, WRITERS_S):
                self._holder = None
                raise HeldError
        try:
            yield
        finally:
            with self._turn:
                self._holder = None


def _which(file: Path) -> tuple[tuple[int, int], ...]:
    """A file and what SQLite keeps beside it, by device and inode. OSError where one is gone."""
    found = (os.stat(f"{file}{more}") for more in ("", *BESIDE))
    return tuple((one.st_dev, one.st_ino) for one in found)


class Store:
    """A shop's file and the sessions on it."""

    def __init__(self, file: Path) -> None:
        self.file = file.resolve()
        self.engine = open_engine(self.file)
        self.gate = Gate()
        self.memo = Memo()
        self._writing = sessionmaker(
            self.engine.execution_options(writes=True), expire_on_commit=False
        )
        self._reading = sessionmaker(self.engine, expire_on_commit=False)
        self._keeper: Connection | None = None
        self._opened: tuple[tuple[int, int], ...] | None = None

    def keep_open(self) -> None:
        """Hold the file from here on: its lock and its log stay, and that they do is looked at."""
        self._keeper = self.engine.connect()
        self._keeper.detach()  # its own, whatever becomes of the others
        self._keeper.exec_driver_sql("SELECT count(*) FROM sqlite_master").scalar()
        self._keeper.rollback()
        make_private(self.file)
        self._opened = _which(self.file)

    def check_there(self) -> None:
        """FileGoneError where the file held open is no more the one under its name."""
        if self._opened is None:
            return
        try:
            there = _which(self.file) == self._opened
        except OSError:
            there = False
        if not there:
            raise FileGoneError(str(self.file))

    @property
    def held_open(self) -> Any:
        """SQLite's own connection that holds the file, whatever was done to its name; or None."""
        return None if self._keeper is None else self._keeper.connection.dbapi_connection

    @contextmanager
    def write(self) -> Iterator[Session]:
        """One unit of work: committed whole at the end, or not at all.

        FileGoneError where it went into a file that is not there any more; HeldError.
        """
        with self.gate.through():
            self.check_there()
            with self._writing.begin() as session:
                session.info[MEMO] = self.memo
                yield session
            self.check_there()

    @contextmanager
    def read(self) -> Iterator[Session]:
        """A consistent view; nothing is written. FileGoneError."""
        self.check_there()
        with self._reading() as session:
            session.info.update({MEMO: self.memo, COMMITTED: True})
            yield session

    def checkpoint(self) -> None:
        """Bring everything in the write-ahead log into the file itself."""
        with self.engine.connect() as connection:
            raw = connection.connection.dbapi_connection
            assert raw is not None
            raw.execute("PRAGMA wal_checkpoint(TRUNCATE)")

    def renew(self) -> None:
        """New connections from here on; the file stays held meanwhile."""
        self.engine.dispose()
        self.memo.clear()

    def close(self) -> None:
        if self._keeper is not None:
            self._keeper.close()
            self._keeper, self._opened = None, None
        self.engine.dispose()
