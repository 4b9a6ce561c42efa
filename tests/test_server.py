"""The server: nobody's half-sent request costs another anything."""

import shutil
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from pathlib import Path

import pytest

from jade_ribbon.demo.serving import free_port, wait_for
from tests.support.served import served

HEAD = b"POST /api/plan HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\n"
HALVES = (
    b"GET / HT",
    HEAD,
    HEAD + b"Content-Length: 500\r\n\r\n{",
    HEAD + b"Transfer-Encoding: chunked\r\n\r\n5\r\n{",
)


@pytest.fixture
def address(empty_file: Path, tmp_path: Path) -> Iterator[str]:
    with served(Path(shutil.copy(empty_file, tmp_path / "shop.sqlite"))) as at:
        yield at


def answered(address: str, path: str = "/api/shop") -> float:
    """Seconds until a whole request is answered."""
    start = time.perf_counter()
    with urllib.request.urlopen(f"{address}{path}", timeout=20) as answer:
        assert answer.status == 200 and answer.read()
    return time.perf_counter() - start


def opened(address: str) -> socket.socket:
    host, port = address.removeprefix("http://").split(":")
    return socket.create_connection((host, int(port)), timeout=10)


def test_half_sent_requests_cost_nobody_else_anything(address: str) -> None:
    halves = []
    for i in range(60):
        halves.append(opened(address))
        halves[-1].sendall(HALVES[i % len(HALVES)])
    assert max(answered(address) for _ in range(5)) < 2.0
    for half in halves:
        half.close()


def test_a_body_too_large_for_anything_is_refused_while_it_comes(address: str) -> None:
    with opened(address) as connection:
        connection.sendall(HEAD + b"Transfer-Encoding: chunked\r\n\r\n")
        chunk = b"100000\r\n" + b" " * 0x100000 + b"\r\n"
        try:
            for _ in range(12):
                connection.sendall(chunk)
        except OSError:
            pass  # it may hang up on us before the last
        assert b"413" in connection.recv(64)
    assert answered(address) < 2.0


def test_a_request_that_never_comes_in_is_given_up(empty_file: Path, tmp_path: Path) -> None:
    file, port = shutil.copy(empty_file, tmp_path / "shop.sqlite"), free_port()
    code = (
        "import sys; from pathlib import Path; from jade_ribbon.server import connections, serve; "
        "connections.REQUEST_S = 0.5; "
        "serve(Path(sys.argv[1]), '127.0.0.1', int(sys.argv[2]), lambda: None)"
    )
    running = subprocess.Popen([sys.executable, "-c", code, str(file), str(port)])
    try:
        address = f"http://127.0.0.1:{port}"
        wait_for(address)
        for half in HALVES:
            with opened(address) as connection:
                connection.sendall(half)
                start = time.perf_counter()
                connection.settimeout(10)
                while connection.recv(1000):
                    pass
                assert time.perf_counter() - start < 5.0
    finally:
        running.terminate()
        running.wait(20)


def test_a_port_in_use_is_told_in_a_line(address: str, tmp_path: Path) -> None:
    port = address.rsplit(":", 1)[1]
    command = [sys.executable, "-m", "jade_ribbon", "serve", "--file", str(tmp_path / "x.sqlite")]
    ended = subprocess.run([*command, "--port", port], capture_output=True, text=True, timeout=60)
    assert ended.returncode == 1 and "is in use already" in ended.stderr
    assert "Traceback" not in ended.stderr and ended.stdout == ""


def test_a_stranger_s_name_is_refused_by_the_server_too(address: str) -> None:
    with opened(address) as connection:
        connection.sendall(b"GET /api/shop HTTP/1.1\r\nHost: rebound.example\r\n\r\n")
        assert b" 403 " in connection.recv(200)
