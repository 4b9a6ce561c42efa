"""A live file beside other programs: nothing acknowledged is lost, and what is gone is noticed."""

import contextlib
import os
import shutil
import signal
import sqlite3
import stat
import subprocess
import sys
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import closing
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

import pytest
import requests

from jade_ribbon.demo.serving import free_port, wait_for
from tests.support.served import Forked, served_by

READER = "import sqlite3, sys; c = sqlite3.connect(sys.argv[1]); c.execute('SELECT count(*) FROM band').fetchone(); c.close()"  # noqa: E501
OURS = (sys.executable, "-m", "jade_ribbon")


@dataclass
class Served:
    """A shop served by a process of its own, and what it acknowledged."""

    file: Path
    process: Forked | subprocess.Popen[bytes]
    address: str
    labels: list[str] = field(default_factory=list)

    def ask(self, method: str, path: str, body: object = None) -> requests.Response:
        return requests.request(
            method, self.address + path, json=body if body is not None else {}, timeout=30
        )

    def write(self) -> int:
        """One band more; remembered once it is acknowledged."""
        label = f"W-{len(self.labels):03d}"
        band = {"label": label, "width_mm": 19, "thickness_mm": 0.8, "length_mm": 3360}
        teeth = {"tpi_lo": 3, "tpi_hi": 3, "form": "hook", "steel": "carbon_flexback"}
        answer = self.ask("POST", "/api/bands", band | teeth)
        if answer.status_code == 201:
            self.labels.append(label)
        return answer.status_code

    def locked(self) -> bool:
        """Whether the process holds SQLite's lock on the file, as the kernel tells."""
        inode = self.file.stat().st_ino
        lines = Path("/proc/locks").read_text().splitlines()
        mine = [x.split() for x in lines if "POSIX" in x and f":{inode} " in x]
        return any(int(x[4]) == self.process.pid for x in mine)


@pytest.fixture
def served(empty_file: Path, tmp_path: Path) -> Iterator[Served]:
    file, port = Path(shutil.copy(empty_file, tmp_path / "shop.sqlite")), free_port()
    with served_by(file, port) as process:
        yield Served(file, process, f"http://127.0.0.1:{port}")
        with contextlib.suppress(ProcessLookupError):
            process.kill()


def kept(file: Path) -> set[str]:
    with closing(sqlite3.connect(file)) as raw:
        assert raw.execute("PRAGMA integrity_check").fetchone() == ("ok",)
        return {row[0] for row in raw.execute("SELECT label FROM band")}


def other(*command: str) -> None:
    subprocess.run(command, check=True, capture_output=True, timeout=60)


COPIES: dict[str, Callable[[Served], Any]] = {
    "by hand": lambda s: s.ask("POST", "/api/copies"),
    "downloaded": lambda s: requests.get(s.address + "/shop.sqlite", timeout=30),
    "as CSV": lambda s: requests.get(s.address + "/export.zip", timeout=30),
    "by the command": lambda s: other(
        *OURS, "backup", str(s.file.with_name("copy.sqlite")), "--from", str(s.file)
    ),
}


@pytest.mark.parametrize("how", COPIES)
@pytest.mark.parametrize("end", [signal.SIGTERM, signal.SIGKILL])
def test_after_a_copy_and_an_outside_reader_every_write_is_there(
    served: Served, how: str, end: signal.Signals
) -> None:
    assert served.write() == 201
    COPIES[how](served)
    assert served.locked(), "the copy dropped the lock"
    other(sys.executable, "-c", READER, str(served.file))
    other(*OURS, "backup", str(served.file.with_name("again.sqlite")), "--from", str(served.file))
    for _ in range(5):
        assert served.write() == 201
    assert served.locked()
    served.process.send_signal(end)
    served.process.wait(20)
    if end == signal.SIGTERM:
        beside = {f.name for f in served.file.parent.glob(f"{served.file.name}-*")}
        assert beside == set(), "stopped, all of a shop is in its one file"
    assert set(served.labels) <= kept(served.file)


def test_a_restore_by_the_command_is_refused_and_changes_nothing(served: Served) -> None:
    copy = served.file.with_name("copy.sqlite")
    other(*OURS, "backup", str(copy), "--from", str(served.file))
    assert served.write() == 201
    command = (*OURS, "restore", str(copy), "--to", str(served.file), "--over")
    refused = subprocess.run(command, capture_output=True, text=True, timeout=60, check=False)
    assert refused.returncode == 1 and "is being served already" in refused.stderr
    assert served.write() == 201 and set(served.labels) <= kept(served.file)


@pytest.mark.parametrize("link", ["symbolic", "hard"])
def test_a_second_server_by_another_name_does_not_start(served: Served, link: str) -> None:
    name = served.file.with_name("other.sqlite")
    name.symlink_to(served.file) if link == "symbolic" else name.hardlink_to(served.file)
    command = (*OURS, "serve", "--file", str(name), "--port", str(free_port()))
    second = subprocess.run(command, capture_output=True, text=True, timeout=60, check=False)
    assert second.returncode == 1 and "Traceback" not in second.stderr
    assert "is being served already" in second.stderr or "hard links" in second.stderr
    name.unlink()
    assert served.write() == 201


def removed(file: Path) -> None:
    file.unlink()


def replaced(file: Path) -> None:
    newer = file.with_name("newer")
    shutil.copy(file, newer)
    os.replace(newer, file)


def without_its_log(file: Path) -> None:
    file.with_name(f"{file.name}-wal").unlink()


@pytest.mark.parametrize("harm", [removed, replaced, without_its_log])
def test_a_file_taken_away_is_noticed_and_what_was_open_is_rescued(
    served: Served, harm: Callable[[Path], None]
) -> None:
    assert served.write() == 201
    harm(served.file)
    answer = served.ask("POST", "/api/bands", {})
    assert served.write() == 503
    answer = requests.get(served.address + "/api/bands", timeout=30)
    assert answer.status_code == 503 and answer.json()["code"] == "gone"
    words = answer.json()["detail"]
    assert "The shop's file is gone" in words and "jade-ribbon restore" in words
    rescued = next(served.file.with_name("shop.copies").glob("*-rescued.sqlite"))
    assert str(rescued) in words and set(served.labels) <= kept(rescued)


def test_while_a_copy_is_brought_back_nothing_acknowledged_falls_between(served: Served) -> None:
    for _ in range(3):
        served.write()
    name = served.ask("POST", "/api/copies").json()["name"]
    stop, refused = threading.Event(), []

    def write_on() -> None:
        while not stop.is_set():
            status = served.write()
            if status == 503:
                refused.append(status)
            else:
                assert status in (201, 409), status

    writer = threading.Thread(target=write_on)
    writer.start()
    before = set()
    for _ in range(4):
        time.sleep(0.2)
        answer = served.ask("POST", "/api/copies/restore", {"name": name})
        assert answer.status_code == 200, answer.text
        before |= kept(served.file.with_name("shop.copies") / answer.json()["before"])
    stop.set()
    writer.join()
    assert set(served.labels) <= before | kept(served.file)
    assert served.locked()


def test_its_files_are_its_owner_s_alone(served: Served) -> None:
    served.write()
    served.ask("POST", "/api/copies")
    files = [f for f in served.file.parent.rglob("*") if f.is_file()]
    assert any("by-hand" in f.name for f in files) and any(f.name.endswith("-wal") for f in files)
    readable = {
        f.name: oct(f.stat().st_mode) for f in files if stat.S_IMODE(f.stat().st_mode) & 0o077
    }
    assert readable == {}


def test_a_port_that_is_taken_leaves_nothing_behind(served: Served, tmp_path: Path) -> None:
    port = served.address.rsplit(":", 1)[1]
    folder = tmp_path / "fresh"
    folder.mkdir()
    command = (*OURS, "serve", "--file", str(folder / "x.sqlite"), "--port", port)
    ended = subprocess.run(command, capture_output=True, text=True, timeout=60, check=False)
    assert ended.returncode == 1 and "is in use already" in ended.stderr
    assert list(folder.iterdir()) == []


def test_a_disk_that_takes_no_more_is_told_in_words(empty_file: Path, tmp_path: Path) -> None:
    """No file may grow past what it is: as a full disk, or a limit of the user's."""
    file, port = Path(shutil.copy(empty_file, tmp_path / "shop.sqlite")), free_port()
    code = (
        "import resource, sys; from pathlib import Path; import jade_ribbon.server as s\n"
        "n = Path(sys.argv[1]).stat().st_size - 8192\n"
        "def told(): resource.setrlimit(resource.RLIMIT_FSIZE, (n, n))\n"
        "s.serve(Path(sys.argv[1]), '127.0.0.1', int(sys.argv[2]), told)"
    )
    running = subprocess.Popen(
        [sys.executable, "-c", code, str(file), str(port)], stderr=subprocess.DEVNULL
    )
    try:
        shop = Served(file, running, f"http://127.0.0.1:{port}")
        wait_for(shop.address)
        until = time.monotonic() + 30
        while (status := shop.write()) == 201 and time.monotonic() < until:
            pass
        assert status == 503
        copy = shop.ask("POST", "/api/copies")
        assert copy.status_code == 503 and copy.json()["code"] in ("full", "disk", "unusable")
        assert requests.get(shop.address + "/api/bands", timeout=30).status_code == 200
    finally:
        running.kill()
        running.wait()
    assert set(shop.labels) <= kept(file)
