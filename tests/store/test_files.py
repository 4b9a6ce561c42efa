"""A shop's file as a file: sound or refused in a line, held by one, copied whole or not at all."""

import multiprocessing
import shutil
import sqlite3
import subprocess
import sys
from contextlib import closing
from multiprocessing.connection import Connection
from pathlib import Path

import pytest

from jade_ribbon.store.database import Store
from jade_ribbon.store.files import (
    UnusableFileError,
    backup,
    before_migration,
    check_ours,
    held,
    restore,
)
from jade_ribbon.store.migrate import migrate, newest_revision, opened
from jade_ribbon.store.models import ShopRow

ODD_NAMES = ("plain.sqlite", "what?.sqlite", "no#1.sqlite", "half%41.sqlite", "a b.sqlite", "&=.db")


def named(file: Path) -> str:
    """The shop's name in a file."""
    with closing(sqlite3.connect(file)) as raw:
        return str(raw.execute("SELECT name FROM shop").fetchone()[0])


@pytest.fixture
def shop(empty_file: Path, tmp_path: Path) -> Path:
    """A shop called Here."""
    file = Path(shutil.copy(empty_file, tmp_path / "shop.sqlite"))
    store = Store(file)
    with store.write() as session:
        session.add(
            ShopRow(
                id=1,
                name="Here",
                units="metric",
                currency="€",
                gauge_length_mm=100,
                rules={},
                rates={},
                people=[],
            )
        )
    store.close()
    return file


def test_backup_and_restore_never_write_over_a_file_unasked(shop: Path, tmp_path: Path) -> None:
    copy, again = tmp_path / "copy.sqlite", tmp_path / "again.sqlite"
    backup(shop, copy)
    with pytest.raises(FileExistsError, match="give a new file"):
        backup(shop, copy)
    restore(copy, again)
    with pytest.raises(FileExistsError, match="--over"):
        restore(copy, again)
    restore(copy, again, over=True)
    assert named(again) == "Here"
    with pytest.raises(UnusableFileError, match="is the backup itself"):
        restore(again, again, over=True)


@pytest.mark.parametrize("name", ODD_NAMES)
def test_a_name_is_the_file_s_own_whatever_signs_are_in_it(shop: Path, name: str) -> None:
    file = Path(shutil.copy(shop, shop.with_name(f"own {name}")))
    store = opened(file)
    with store.write() as session:
        row = session.get(ShopRow, 1)
        assert row is not None
        row.name = name
    store.close()
    copy = file.with_name(f"copy {name}")
    backup(file, copy)
    assert named(file) == named(copy) == name
    made = {f.name for f in file.parent.iterdir() if "own" in f.name or "copy" in f.name}
    assert made <= {f"own {name}", f"copy {name}"} | {f"own {name}-wal", f"own {name}-shm"}


def rubbish(folder: Path) -> dict[str, Path]:
    """Files that are no shop's, by what is wrong with them."""
    found = {
        "does not exist": folder / "none",
        "is empty": folder / "empty",
        "not a sound database": folder / "rubbish",
        "not a shop's file": folder / "foreign",
        "is not a file": folder / "folder",
    }
    found["is empty"].write_bytes(b"")
    found["not a sound database"].write_bytes(b"not a database, but long enough to look at" * 40)
    found["is not a file"].mkdir()
    with closing(sqlite3.connect(found["not a shop's file"])) as raw:
        raw.execute("CREATE TABLE t (a)")
    return found


def test_what_is_no_shop_is_refused_and_leaves_nothing_behind(tmp_path: Path) -> None:
    for words, file in rubbish(tmp_path).items():
        for use in (backup, restore):
            with pytest.raises((UnusableFileError, FileNotFoundError), match=words):
                use(file, tmp_path / "target")
    left = {f.name for f in tmp_path.iterdir() if "target" in f.name}
    assert left <= {"target.lock"}


def test_another_program_s_file_is_not_touched(tmp_path: Path) -> None:
    foreign = rubbish(tmp_path)["not a shop's file"]
    before = foreign.read_bytes()
    with pytest.raises(UnusableFileError, match="not a shop's file"):
        opened(foreign)
    assert foreign.read_bytes() == before


def test_a_damaged_file_is_not_served(shop: Path) -> None:
    whole = bytearray(shop.read_bytes())
    whole[4096 : 4096 * 6] = b"\x5a" * 4096 * 5
    shop.write_bytes(whole)
    with pytest.raises(UnusableFileError, match=r"not a sound database|is damaged"):
        opened(shop)
    with pytest.raises(UnusableFileError):
        check_ours(shop)


def test_a_file_of_a_newer_version_is_refused(shop: Path) -> None:
    with closing(sqlite3.connect(shop)) as raw:
        raw.execute("UPDATE alembic_version SET version_num = '9999'")
        raw.commit()
    with pytest.raises(UnusableFileError, match="written by a newer version"):
        opened(shop)


def test_a_full_disk_leaves_no_half_copy(
    shop: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    def full(*_: object, **__: object) -> None:
        raise sqlite3.OperationalError("database or disk is full")

    monkeypatch.setattr("jade_ribbon.store.files.check_ours", lambda *_, **__: None)
    monkeypatch.setattr("jade_ribbon.store.files.os.replace", full)
    with pytest.raises(UnusableFileError, match="disk is full"):
        backup(shop, tmp_path / "copy.sqlite")
    assert not list(tmp_path.glob("copy.sqlite*"))


def test_migrations_keep_one_copy_a_revision(tmp_path: Path) -> None:
    store = Store(tmp_path / "shop.sqlite")
    migrate(store)
    newest = newest_revision() or ""
    for _ in range(3):
        migrate(store, "-1")
        migrate(store)
    store.close()
    copies = {f.name for f in tmp_path.glob("shop.before-*")}
    assert len(copies) == 2 and before_migration(store.file, newest).name in copies


def hold(file: Path, told: Connection) -> None:
    with held(file):
        told.send("held")
        told.recv()


def test_a_file_is_held_by_one_and_not_restored_over(shop: Path, tmp_path: Path) -> None:
    copy = tmp_path / "copy.sqlite"
    backup(shop, copy)
    here, there = multiprocessing.get_context("spawn").Pipe()
    other = multiprocessing.get_context("spawn").Process(target=hold, args=(shop, there))
    other.start()
    try:
        assert here.recv() == "held"
        with pytest.raises(UnusableFileError, match="is being served already"):
            restore(copy, shop, over=True)
        command = [sys.executable, "-m", "jade_ribbon", "serve", "--file", str(shop)]
        ended = subprocess.run(command, capture_output=True, text=True, timeout=60)
        assert ended.returncode == 1 and "is being served already" in ended.stderr
        assert "Traceback" not in ended.stderr
        backup(shop, tmp_path / "live.sqlite")
    finally:
        here.send("enough")
        other.join(20)
    restore(copy, shop, over=True)
    assert named(shop) == "Here"


@pytest.mark.parametrize("folder", ["a file/shop.sqlite", "/proc/nothing/shop.sqlite"])
def test_a_folder_that_cannot_be_is_told_in_a_line(tmp_path: Path, folder: str) -> None:
    (tmp_path / "a file").write_text("")
    command = [sys.executable, "-m", "jade_ribbon", "serve", "--port", "1", "--file"]
    ended = subprocess.run(
        [*command, str(tmp_path / folder)], capture_output=True, text=True, timeout=60
    )
    assert ended.returncode == 1 and ended.stderr.startswith("Error: ")
    assert "Traceback" not in ended.stderr


def test_what_is_committed_is_on_the_disk(shop: Path) -> None:
    """Two is FULL: written through before a commit is acknowledged."""
    with opened(shop).engine.connect() as connection:
        assert connection.exec_driver_sql("PRAGMA synchronous").scalar() == 2
