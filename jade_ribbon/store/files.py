"""A shop's file as a file: whose it is, whether it is sound, who holds it, and copies of it.

A file in use is never opened but by SQLite: a plain open, once closed, drops every lock that this
process holds on it (POSIX), and another program then takes the file for its own.
"""

import os
import sqlite3
import tempfile
from collections.abc import Iterator
from contextlib import ExitStack, closing, contextmanager, suppress
from pathlib import Path

from filelock import FileLock, Timeout

BESIDE = ("-wal", "-shm")
"""What SQLite keeps beside a file in use."""
PRIVATE, PRIVATE_FOLDER = 0o600, 0o700
"""A shop's records are its own: nobody else on the machine reads its files."""
RESTORE_TRIES = 5


class UnusableFileError(ValueError):
    """A file that cannot be used, in a line for a person."""


def _locks() -> Path:
    """Where files are locked by device and inode, whatever name they are reached by."""
    folder = Path(tempfile.gettempdir()) / f"jade-ribbon-{os.getuid()}"
    folder.mkdir(mode=PRIVATE_FOLDER, exist_ok=True)
    return folder


def _lock(held: ExitStack, by: Path, file: Path) -> None:
    lock = FileLock(by, mode=PRIVATE)
    try:
        lock.acquire(timeout=0)
    except Timeout:
        raise UnusableFileError(f"{file} is being served already: stop that server first") from None
    held.callback(lock.release)


@contextmanager
def held(file: Path) -> Iterator[None]:
    """The file for one process alone, by its name's lock and its own (device and inode).

    A file that is not there yet is made, empty and private; it goes again, with its lock, when
    nothing came into it. UnusableFileError when another has it, or it has a second name.
    """
    real = file.resolve()
    by_name = real.with_name(f"{real.name}.lock")
    was_locked = by_name.exists()
    with ExitStack() as stack:
        _lock(stack, by_name, file)
        fresh = not real.exists()
        if fresh:
            real.touch(mode=PRIVATE)
        try:
            one = real.stat()
            if one.st_nlink > 1:
                raise UnusableFileError(
                    f"{file} has {one.st_nlink} names (hard links): keep one of them, by which "
                    "alone it is served"
                )
            _lock(stack, _locks() / f"{one.st_dev:x}-{one.st_ino:x}.lock", file)
            yield
        finally:
            if fresh and is_new(real):
                real.unlink(missing_ok=True)
                if not was_locked:
                    by_name.unlink(missing_ok=True)


def connected(file: Path, mode: str) -> sqlite3.Connection:
    """A connection to an existing file by its own name, whatever signs are in it."""
    return sqlite3.connect(f"{file.resolve().as_uri()}?mode={mode}", uri=True)


def is_new(file: Path) -> bool:
    """Whether there is nothing in a file yet."""
    return not file.exists() or file.stat().st_size == 0


def make_private(file: Path) -> None:
    """A file and what SQLite keeps beside it for their owner alone, where they are ours to set."""
    for name in (file.name, *(f"{file.name}{more}" for more in BESIDE)):
        with suppress(OSError):
            file.with_name(name).chmod(PRIVATE)


def check_ours(file: Path, *, quick: bool = False) -> None:
    """Refuse a file that is missing, empty, another program's, or damaged. UnusableFileError."""
    if not file.exists():
        raise FileNotFoundError(f"{file} does not exist")
    if not file.is_file():
        raise UnusableFileError(f"{file} is not a file")
    if is_new(file):
        raise UnusableFileError(f"{file} is empty")
    try:
        with closing(connected(file, "rw")) as connection:
            tables = {row[0] for row in connection.execute("SELECT name FROM sqlite_master")}
            check = "quick_check" if quick else "integrity_check"
            verdict = connection.execute(f"PRAGMA {check}").fetchone()[0]
    except sqlite3.Error as problem:
        raise UnusableFileError(f"{file} {_told(problem)}") from problem
    if "alembic_version" not in tables or "band" not in tables:
        raise UnusableFileError(f"{file} is not a shop's file of this application")
    if verdict != "ok":
        raise UnusableFileError(f"{file} is damaged: {verdict}; restore a backup")


def _told(problem: sqlite3.Error) -> str:
    """What SQLite says of a file it will not open, in our words."""
    said = str(problem)
    if "readonly" in said:
        return "or its folder cannot be written: give this user the right to, then start again"
    if "unable to open" in said:
        return "cannot be opened: is it, or its folder, readable by this user?"
    if "locked" in said or "busy" in said:
        return "is in use by another program just now: try again shortly"
    if "not a database" in said:
        return "is not a sound database: another program's file, left alone"
    return f"is not a sound database: {said}"


@contextmanager
def _arriving(target: Path) -> Iterator[Path]:
    """A private file to write to, put under the name wanted once it is whole and checked."""
    partial = target.with_name(f"{target.name}.partial")
    try:
        partial.unlink(missing_ok=True)
        partial.touch(mode=PRIVATE)
        yield partial
        check_ours(partial)
        os.replace(partial, target)
    except sqlite3.Error as problem:
        raise UnusableFileError(f"{target} cannot be written: {problem}") from problem
    finally:
        for name in (partial.name, *(f"{partial.name}{more}" for more in BESIDE)):
            partial.with_name(name).unlink(missing_ok=True)


def copy_of(live: sqlite3.Connection, target: Path) -> None:
    """A whole, checked copy of what a connection sees. UnusableFileError, or nothing there."""
    with _arriving(target) as partial, closing(sqlite3.connect(partial)) as copy:
        live.backup(copy)


def _copied(source: Path, target: Path) -> None:
    """A whole, checked copy under the name wanted, or nothing there at all."""
    try:
        with closing(connected(source, "rw")) as live:
            copy_of(live, target)
    except sqlite3.Error as problem:
        raise UnusableFileError(f"{source} {_told(problem)}") from problem


def backup(source: Path, target: Path, *, over: bool = False) -> None:
    """Copy a shop's file, live as it is, to a new file. FileExistsError, UnusableFileError.

    `over` replaces an older copy of the same name, once the new one is whole.
    """
    if target.exists() and not over:
        raise FileExistsError(f"{target} exists already; give a new file")
    check_ours(source, quick=True)
    _copied(source, target)


def restore(source: Path, target: Path, *, over: bool = False) -> None:
    """Bring a backup back to a file; over an existing one only when asked, never over a served one.

    FileExistsError, FileNotFoundError; UnusableFileError when the backup is not sound, or the
    target is in use.
    """
    check_ours(source)
    with held(target):
        if not is_new(target) and not over:
            raise FileExistsError(f"{target} exists already; give a new file, or ask with --over")
        if target.samefile(source):
            raise UnusableFileError(f"{target} is the backup itself")
        partial = target.with_name(f"{target.name}.restored")
        _copied(source, partial)
        real = target.resolve()
        for more in BESIDE:
            real.with_name(f"{real.name}{more}").unlink(missing_ok=True)
        os.replace(partial, real)


class OvertakenError(RuntimeError):
    """Somebody wrote to a file between the copy of it and its being written over."""


def write_over(source: Path, live: Path, before: Path, busy_ms: int) -> None:
    """Bring `source` over a file in use, in one transaction; what was there goes to `before`.

    Nothing is written to it between the two: where another program's write came between, the copy
    is taken anew. UnusableFileError, sqlite3.Error while it is busy.
    """
    for _ in range(RESTORE_TRIES):
        with (
            closing(connected(source, "rw")) as copy,
            closing(connected(live, "rw")) as target,
            closing(connected(live, "rw")) as watch,
        ):
            for pragma in (f"busy_timeout={busy_ms}", "synchronous=FULL"):
                target.execute(f"PRAGMA {pragma}")
            watch.execute("SELECT count(*) FROM sqlite_master").fetchone()  # counts from here
            as_it_was = _version(watch)
            copy_of(watch, before)

            def still_so(
                status: int, *_: int, was: int = as_it_was, by: sqlite3.Connection = watch
            ) -> None:
                # The first step took the lock: what was not written by now is not written any more.
                if status == sqlite3.SQLITE_OK and _version(by) != was:
                    raise OvertakenError

            try:
                copy.backup(target, pages=1, progress=still_so)
            except OvertakenError:
                before.unlink(missing_ok=True)
                continue
            return
    raise UnusableFileError(f"{live} is being written to all the time: try again shortly")


def _version(connection: sqlite3.Connection) -> int:
    """A number that differs once another connection has written."""
    return int(connection.execute("PRAGMA data_version").fetchone()[0])


def before_migration(file: Path, revision: str) -> Path:
    """Where the copy before a migration goes: beside the file, one for each revision."""
    return file.with_name(f"{file.stem}.before-migration-from-{revision}{file.suffix}")
