"""Does a test notice when a constant of the job is wrong? `python -m benchmarks.constants ROOM...`.

Numbers named at the top of a room's modules are changed by half, one at a time and at random, in a
copy of the tree; the room's own tests must then fail. What stays green is told by name.
"""

import argparse
import ast
import os
import random
import shutil
import subprocess
import sys
import tempfile
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from queue import Queue

ROOT = Path(__file__).parent.parent
COPIED = ("jade_ribbon", "tests", "docs", "pyproject.toml")
CHANGED_BY = 1.5
ALL = "tests/api/test_answers_stand.py"
"""Answers of every room, of a shop that stands."""
ALIVE_ALLOWED = 0.1
"""At most one in ten may stay unnoticed."""


@dataclass(frozen=True)
class Constant:
    """A number at the top of a module: where it stands, and what it says."""

    file: str
    name: str
    line: int
    column: int
    end: int
    value: float


def constants(room: str) -> list[Constant]:
    """Numbers named in capitals at the top of a room's modules."""
    found = []
    for path in sorted((ROOT / "jade_ribbon" / "core" / room).rglob("*.py")):
        for node in ast.parse(path.read_text()).body:
            if not isinstance(node, ast.Assign) or not isinstance(node.targets[0], ast.Name):
                continue
            name, value = node.targets[0].id, node.value
            number = isinstance(value, ast.Constant) and type(value.value) in (int, float)
            if name.isupper() and number and value.end_col_offset is not None:
                assert isinstance(value, ast.Constant) and isinstance(value.value, int | float)
                where = str(path.relative_to(ROOT))
                at = value.lineno, value.col_offset, value.end_col_offset
                found.append(Constant(where, name, *at, float(value.value)))
    return found


def changed(constant: Constant) -> str:
    """Its module with the number half as large again; a whole number by at least one."""
    lines = (ROOT / constant.file).read_text().splitlines(keepends=True)
    line = lines[constant.line - 1]
    old = line[constant.column : constant.end]
    whole = "." not in old and "e" not in old
    new = max(constant.value + 1, round(constant.value * CHANGED_BY)) if whole else None
    text = f"{int(new)}" if new is not None else f"{constant.value * CHANGED_BY!r}"
    lines[constant.line - 1] = line[: constant.column] + text + line[constant.end :]
    return "".join(lines)


def fails(tree: Path, tests: list[str]) -> bool:
    """Whether a tree's tests fail."""
    env = os.environ | {"PYTHONPATH": str(tree)}
    run = subprocess.run(
        [sys.executable, "-m", "pytest", "-q", "-x", "-n", "0", *tests],
        cwd=tree,
        env=env,
        capture_output=True,
        check=False,
    )
    return run.returncode != 0


def noticed(constant: Constant, tree: Path, tests: list[str]) -> bool:
    """Whether a test fails in a copy of the tree in which one number is wrong."""
    file = tree / constant.file
    whole = file.read_text()
    file.write_text(changed(constant))
    try:
        return fails(tree, [ALL]) or fails(tree, tests)
    finally:
        file.write_text(whole)


def unnoticed(tried: list[Constant], trees: list[Path], tests: list[str]) -> list[Constant]:
    """Which of some constants no test notices, sought in several trees at once."""
    free: Queue[Path] = Queue()
    for tree in trees:
        free.put(tree)

    def alive(constant: Constant) -> bool:
        tree = free.get()
        try:
            return not noticed(constant, tree, tests)
        finally:
            free.put(tree)

    with ThreadPoolExecutor(len(trees)) as pool:
        return [c for c, lives in zip(tried, pool.map(alive, tried), strict=True) if lives]


def main() -> None:
    """Say which constants of a room nobody pins, and fail where they are more than one in ten."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("rooms", nargs="+")
    parser.add_argument("--share", type=float, default=0.5)
    parser.add_argument("--seed", type=int, default=1)
    given = parser.parse_args()
    dice = random.Random(given.seed)
    too_many = False
    with tempfile.TemporaryDirectory() as folder:
        trees = [Path(folder) / str(n) for n in range(os.cpu_count() or 1)]
        for tree in trees:
            tree.mkdir()
            for name in COPIED:
                copy = shutil.copytree if (ROOT / name).is_dir() else shutil.copy
                copy(ROOT / name, tree / name)
        for room in given.rooms:
            known = constants(room)
            tried = dice.sample(known, max(1, round(given.share * len(known))))
            tests = [f"tests/core/{room}", "tests/core/test_calc.py"]
            if fails(trees[0], [ALL, *tests]):
                sys.exit("the tests fail with every number right: nothing can be said")
            alive = unnoticed(tried, trees, tests)
            for constant in alive:
                print(f"nobody notices {constant.name} in {constant.file}:{constant.line}")
            print(f"{room}: {len(alive)} of {len(tried)} unnoticed, of {len(known)}", flush=True)
            too_many |= len(alive) > ALIVE_ALLOWED * len(tried)
    sys.exit(too_many)


if __name__ == "__main__":
    main()
