"""The product broken on purpose: `python -m attacks.mutations [NAME [KILLS]]` says what is noticed.

Each is put on just before a shop is served; an attack that holds over one of them notices nothing.
"""

import itertools
import sys
import tempfile
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from functools import partial
from pathlib import Path
from typing import Any

from sqlalchemy import event
from sqlalchemy.orm import Session

from attacks import kills, power
from attacks.__main__ import held
from attacks.shop import KINDS
from jade_ribbon.store import copies, files
from jade_ribbon.store.database import Gate, Store
from jade_ribbon.store.models import ChangeRow

KILLS, CUTS = 60, 40
NOUNS = {"run": "run", "place": "band", "note": "event", "mount": "saw", "trouble": "trouble"}


def _rolled_back(noun: str | None, each: int) -> None:
    """Every so many writes (of a noun) are taken back after their answer was made."""
    count = itertools.count(1)
    write = Store.write

    @contextmanager
    def forgetful(store: Store) -> Iterator[Session]:
        changed: list[str] = []
        with write(store) as session:

            @event.listens_for(session, "before_flush")
            def _seen(session: Session, *_: Any) -> None:
                changed.extend(x.noun for x in session.new if isinstance(x, ChangeRow))

            yield session
            mine = bool(changed) if noun is None else noun in changed
            if mine and next(count) % each == 0:
                session.rollback()

    setattr(Store, "write", forgetful)  # noqa: B010 - broken on purpose


def _lock_dropped() -> None:
    """The live file is opened beside SQLite, and closed."""
    check = files.check_ours

    def careless(file: Path, *, quick: bool = False) -> None:
        file.open("rb").close()
        check(file, quick=quick)

    for module in (files, copies):
        vars(module)["check_ours"] = careless


def _gate_open() -> None:
    """Writers are let through while a copy is brought back."""
    Gate.held = Gate.through  # type: ignore[method-assign]


def _copy_before_the_lock() -> None:
    """Nobody looks whether something was written between the copy and its being written over."""
    _gate_open()
    vars(files)["_version"] = lambda _: 0


MUTATIONS: dict[str, Callable[[], None]] = {
    **{f"every second {kind} rolled back": partial(_rolled_back, NOUNS[kind], 2) for kind in KINDS},
    "one write in thirty lost": partial(_rolled_back, None, 30),
    "the file opened beside SQLite": _lock_dropped,
    "restores without the write lock": _copy_before_the_lock,
}


def notices(name: str, count: int = KILLS) -> bool:
    """Whether the attack by so many kills notices a mutation."""
    with tempfile.TemporaryDirectory() as folder:
        came = kills.attack(Path(folder), count, broken=MUTATIONS[name])
    print(f"{name}: lost {came['lost']}, too few {came['too few']}, {came['gone wrong']} wrong")
    return not held(came)


def notices_unsynced() -> bool:
    """Whether the power cuts notice that commits are not synced."""
    vars(power)["PRAGMAS"] = ("journal_mode=WAL", "synchronous=OFF")
    with tempfile.TemporaryDirectory() as folder:
        came = power.attack(Path(folder), CUTS)
    print(f"synchronous=OFF: lost {came['lost']}")
    return not held(came)


def main(given: list[str]) -> int:
    count = int(given[1]) if len(given) > 1 else KILLS
    seen = [(name, notices(name, count)) for name in MUTATIONS if not given or given[0] in name]
    if not given:
        seen.append(("synchronous=OFF", notices_unsynced()))
    for name, noticed in seen:
        print(f"{'noticed' if noticed else 'NOT NOTICED'}: {name}")
    return 0 if all(noticed for _, noticed in seen) else 1


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
