"""A shop's file as a file: whose it is, whether it is sound, who holds it, and copies of it."""

import os
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from pathlib import Path

from filelock import FileLock, Timeout

HEADER = b"SQLite format 3\x00"
BESIDE = ("-wal", "-shm")
"""What SQLite keeps beside a file in use."""


class UnusableFileError(ValueError):
    """A file that cannot be used, in a line for a person."""


@contextmanager
def held(file: Path) -> Iterator[None]:
    """The file for one process alone, by a lock beside it.

    UnusableFileError when another has it.
    """
    lock = FileLock(file.with_name(f"{file.name}.lock"))
    try:
        lock.acquire(timeout=0)
    except Timeout:
        raise UnusableFileError(f"{file} is being served already: stop that server first") from None
    try:
        yield
    finally:
        lock.release()


def connected(file: Path, mode: str) -> sqlite3.Connection:
    """A connection to an existing file by its own name, whatever signs are in it."""
    return sqlite3.connect(f"{file.resolve().as_uri()}?mode={mode}", uri=True)


def is_new(file: Path) -> bool:
    """Whether there is nothing in a file yet."""
    return not file.exists() or file.stat().st_size == 0


def check_ours(file: Path, *, quick: bool = False) -> None:
    """Refuse a file that is missing, empty, another program's, or damaged. UnusableFileError."""
    if not file.exists():
        raise FileNotFoundError(f"{file} does not exist")
    if not file.is_file():
        raise UnusableFileError(f"{file} is not a file")
    if is_new(file):
        raise UnusableFileError(f"{file} is empty")
    with file.open("rb") as start:
        if start.read(len(HEADER)) != HEADER:
            raise UnusableFileError(
                f"{file} is not a sound database: another program's file, left alone"
            )
    try:
        with closing(connected(file, "rw")) as connection:
            tables = {row[0] for row in connection.execute("SELECT name FROM sqlite_master")}
            check = "quick_check" if quick else "integrity_check"
            verdict = connection.execute(f"PRAGMA {check}").fetchone()[0]
    except sqlite3.Error as problem:
        raise UnusableFileError(f"{file} is not a sound database: {problem}") from problem
    if "alembic_version" not in tables or "band" not in tables:
        raise UnusableFileError(f"{file} is not a shop's file of this application")
    if verdict != "ok":
        raise UnusableFileError(f"{file} is damaged: {verdict}; restore a backup")


def _copied(source: Path, target: Path) -> None:
    """A whole, checked copy under the name wanted, or nothing there at all."""
    partial = target.with_name(f"{target.name}.partial")
    try:
        partial.unlink(missing_ok=True)
        with (
            closing(connected(source, "rw")) as live,
            closing(sqlite3.connect(partial)) as copy,
        ):
            live.backup(copy)
        check_ours(partial)
        os.replace(partial, target)
    except sqlite3.Error as problem:
        raise UnusableFileError(f"{target} cannot be written: {problem}") from problem
    finally:
        for name in (partial.name, *(f"{partial.name}{more}" for more in BESIDE)):
            partial.with_name(name).unlink(missing_ok=True)


def backup(source: Path, target: Path, *, over: bool = False) -> None:
    """Copy a shop's file, live as it is, to a new file. FileExistsError, UnusableFileError.

    `over` replaces an older copy of the same name, once the new one is whole.
    """
    if target.exists() and not over:
        raise FileExistsError(f"{target} exists already; give a new file")
    check_ours(source)
    _copied(source, target)


def restore(source: Path, target: Path, *, over: bool = False) -> None:
    """Bring a backup back to a file; over an existing one only when asked, never over a served one.

    FileExistsError, FileNotFoundError; UnusableFileError when the backup is not sound, or the
    target is in use.
    """
    check_ours(source)
    with held(target):
        if target.exists() and not over:
            raise FileExistsError(f"{target} exists already; give a new file, or ask with --over")
        if target.exists() and target.samefile(source):
            raise UnusableFileError(f"{target} is the backup itself")
        partial = target.with_name(f"{target.name}.restored")
        _copied(source, partial)
        for more in BESIDE:
            target.with_name(f"{target.name}{more}").unlink(missing_ok=True)
        os.replace(partial, target)


def before_migration(file: Path, revision: str) -> Path:
    """Where the copy before a migration goes: beside the file, one for each revision."""
    return file.with_name(f"{file.stem}.before-migration-from-{revision}{file.suffix}")
