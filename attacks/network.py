"""The shop's network attacked from it: guesses, made-up and stolen cookies, other origins, roles.

Everything goes to this machine's own loopback addresses, over HTTPS as a device would come.
"""

import http.client
import json
import random
import ssl
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from attacks.shop import make_shop, with_sample_yard
from jade_ribbon.api.doors.guard import COOKIE
from jade_ribbon.api.routes import OPERATIONS
from jade_ribbon.demo.serving import free_port, running

ADDRESS = "127.0.0.7"
WORDS = "copper kettle ninety"
SENDERS = 40
"""Addresses that guesses come from, each an honest-looking device."""
OTHERS = ("https://evil.example", "null", f"http://{ADDRESS}", f"https://{ADDRESS}:1")


@dataclass
class Told:
    """What the attacker saw."""

    looked_at: int = 0
    slowed: int = 0
    let_in: list[str] = field(default_factory=list)
    wrong: list[str] = field(default_factory=list)


class Wire:
    """HTTPS to the shop from any address, with what a browser would not let us send."""

    def __init__(self, port: int, authority: Path) -> None:
        self.port = port
        self.trust = ssl.create_default_context(cafile=str(authority))

    def ask(
        self, method: str, path: str, body: object = None, source: str = ADDRESS, **headers: str
    ) -> tuple[int, Any, str]:
        """Status, answer and the cookie that came with it."""
        wire = http.client.HTTPSConnection(
            ADDRESS, self.port, timeout=30, context=self.trust, source_address=(source, 0)
        )
        sent = {"Content-Type": "application/json"} | {
            name.replace("_", "-"): value for name, value in headers.items()
        }
        wire.request(method, path, None if body is None else json.dumps(body), sent)
        answer = wire.getresponse()
        data = answer.read()
        cookie = (answer.getheader("Set-Cookie") or "").split(";")[0]
        wire.close()
        kind = answer.getheader("Content-Type") or ""
        return answer.status, json.loads(data) if "json" in kind else data, cookie


def _guess(wire: Wire, dice: random.Random, told: Told, count: int) -> None:
    """Passphrases and codes, from many addresses in turn."""
    for n in range(count):
        source = f"127.0.1.{1 + n % SENDERS}"
        if n % 2:
            body: dict[str, str] = {"code": f"{dice.randrange(10**8):08d}"}
            path = "/api/door/join"
        else:
            body = {"passphrase": f"{WORDS[:-1]}{dice.randrange(10**6)}", "name": "x"}
            path = "/api/door/enter"
        status, _, cookie = wire.ask("POST", path, body, source)
        told.looked_at += status == 403
        told.slowed += status == 429
        if status == 200 or cookie:
            told.let_in.append(f"guess {body}")
        elif status not in (403, 429):
            told.wrong.append(f"{path}: {status}")


def _strangers(wire: Wire, dice: random.Random, told: Told, count: int) -> None:
    """Every operation with no cookie, a made-up one, or from another page."""
    closed = [op for op in OPERATIONS if not op.stranger]
    for _ in range(count):
        op = dice.choice(closed)
        path = op.path
        for name in op.path_parameters:
            path = path.replace(f"<int:{name}>", "1")
        headers = {
            "Cookie": f"{COOKIE}={dice.randbytes(32).hex()}" if dice.random() < 0.5 else "a=b",
            "X_Forwarded_For": "127.0.0.1",
        }
        if dice.random() < 0.3:
            headers["Origin"] = dice.choice(OTHERS)
        status, _, cookie = wire.ask(op.method, path, {} if op.writes else None, **headers)
        if status not in (401, 403) or cookie:
            told.let_in.append(f"{op.method} {path}: {status}")


def _beyond(wire: Wire, here: int, told: Told) -> int:
    """A device of anyone's use tries all that is not for it; shut out, it has nothing."""
    machine = http.client.HTTPConnection("127.0.0.1", here, timeout=30)

    def owner(path: str, body: object) -> Any:
        machine.request("POST", path, json.dumps(body), {"Content-Type": "application/json"})
        return json.loads(machine.getresponse().read())

    code = owner("/api/doors/code", {"name": "phone", "role": "anyone"})["code"]
    status, _, cookie = wire.ask("POST", "/api/door/join", {"code": code}, "127.0.2.1")
    if status != 200:
        told.wrong.append(f"a right code: {status}")
    tried = 0
    for op in OPERATIONS:
        if op.role == "anyone":
            continue
        path = op.path
        for name in op.path_parameters:
            path = path.replace(f"<int:{name}>", "1")
        tried += 1
        status, _, _ = wire.ask(op.method, path, {}, Cookie=cookie)
        if status != 403:
            told.let_in.append(f"beyond its role: {op.method} {path}: {status}")
    machine.request("GET", "/api/doors")
    for device in json.loads(machine.getresponse().read())["devices"]:
        owner("/api/doors/shut-out", {"id": device["id"]})
    status, _, _ = wire.ask("GET", "/api/bands", Cookie=cookie)
    if status != 401:
        told.let_in.append(f"a device shut out: {status}")
    machine.close()
    return tried


def _plain_http(port: int, told: Told) -> None:
    """Nothing is answered without HTTPS but where to go, and that for our own names only."""
    for host, method, wanted in (
        (f"{ADDRESS}:{port}", "GET", 308),
        ("evil.example", "GET", 403),
        (f"{ADDRESS}:{port}", "POST", 403),
    ):
        wire = http.client.HTTPConnection(ADDRESS, port, timeout=30)
        wire.request(method, "/api/bands", headers={"Host": host})
        answer = wire.getresponse()
        answer.read()
        if answer.status != wanted:
            told.let_in.append(f"plain HTTP as {host}: {answer.status}")


def attack(folder: Path, count: int) -> dict[str, object]:
    """So many guesses and so many requests of strangers; none may come in."""
    file = folder / "shop.sqlite"
    make_shop(file)
    with_sample_yard(file)
    here, secure, plain = free_port(), free_port(), free_port()
    ports = ("--https-port", str(secure), "--http-port", str(plain))
    told, dice = Told(), random.Random(1)
    more = ("--network", "--address", ADDRESS, *ports)
    with running(file, here, *more, JADE_RIBBON_PASSPHRASE=WORDS):
        wire = Wire(secure, folder / "shop.doors" / "authority.crt")
        beyond = _beyond(wire, here, told)
        _strangers(wire, dice, told, count)
        _plain_http(plain, told)
        _guess(wire, dice, told, count)
    return {
        "guesses": count,
        "guesses looked at": told.looked_at,
        "guesses slowed": told.slowed,
        "requests of strangers": count,
        "operations beyond a role": beyond,
        "let in": len(told.let_in),
        "first let in": told.let_in[:3],
        "gone wrong": len(told.wrong),
        "first gone wrong": told.wrong[:3],
    }
