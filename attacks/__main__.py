"""`python -m attacks [NAME [COUNT]]`: attack a shop on this machine, and print what came of it."""

import sys
import tempfile
import time
from collections.abc import Callable
from functools import partial
from pathlib import Path

from attacks import clients, files, kills, network, phones, power, strangers

Attack = Callable[[Path, int], dict[str, object]]
ATTACKS: dict[str, tuple[Attack, int]] = {
    "power": (power.attack, 300),
    "phones": (phones.attack, 20),
    "strangers": (strangers.attack, 20_000),
    "network": (network.attack, 2_000),
    "files": (files.attack, 20_000),
    "kills": (kills.attack, 1_000),
    "clients": (lambda folder, seconds: clients.attack(folder, 32, seconds), 180),
}
"""Each attack, and how often it is made (the clients: for so many seconds)."""
MUST_BE_NONE = ("lost", "twice", "errors", "let in", "gone wrong", "over the limit", "too few")
MUST_BE_NONE_TOO = ("put elsewhere without asking",)


def held(came: dict[str, object]) -> bool:
    """Whether everything held that must."""
    return not any(came.get(key) for key in (*MUST_BE_NONE, *MUST_BE_NONE_TOO))


def run(name: str, count: int) -> bool:
    """Make an attack and print what came of it; whether the shop held."""
    attack = partial(ATTACKS[name][0])
    start = time.monotonic()
    with tempfile.TemporaryDirectory() as folder:
        came = attack(Path(folder), count)
    print(f"{name}: {'held' if held(came) else 'DID NOT HOLD'}, {time.monotonic() - start:.0f} s")
    for key, value in came.items():
        print(f"  {key}: {value}")
    return held(came)


def main(given: list[str]) -> int:
    names = given[:1] or list(ATTACKS)
    counts = {name: int(given[1]) if len(given) > 1 else ATTACKS[name][1] for name in names}
    came = [run(name, count) for name, count in counts.items()]
    return 0 if all(came) else 1


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
