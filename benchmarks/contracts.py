"""Is every import contract able to fail? `python -m benchmarks.contracts`.

For each contract one import that it forbids is written into a copy of the tree, and
import-linter must then call that contract broken, and no other kept one by mistake.
"""

import shutil
import subprocess
import sys
import tempfile
import tomllib
from pathlib import Path
from typing import Any

ROOT = Path(__file__).parent.parent
COPIED = ("jade_ribbon", "benchmarks", "attacks", "tests", "pyproject.toml")
RUN = "from importlinter.cli import lint_imports_command as run; run()"


def contracts() -> list[dict[str, Any]]:
    """The contracts of pyproject.toml."""
    document = tomllib.loads((ROOT / "pyproject.toml").read_text())
    found: list[dict[str, Any]] = document["tool"]["importlinter"]["contracts"]
    return found


def module_of(package: str) -> str:
    """A module to import, or to write the import into: the package's first one, else itself."""
    folder = ROOT / package.replace(".", "/")
    if not folder.is_dir():
        return package
    plain = sorted(p for p in folder.glob("*.py") if not p.stem.startswith("__"))
    return f"{package}.{plain[0].stem}" if plain else package


def arrow(contract: dict[str, Any]) -> tuple[str, str]:
    """One import that a contract forbids: from, to."""
    if contract["type"] == "forbidden":
        return contract["source_modules"][0], contract["forbidden_modules"][-1].removesuffix(".*")
    if contract["type"] == "independence":
        return contract["modules"][0], contract["modules"][1]
    container = contract.get("containers", [""])[0]
    prefix = f"{container}." if container else ""
    low = contract["layers"][-1].split("|")[0].strip()
    high = contract["layers"][-3].split("|")[0].strip()
    return f"{prefix}{low}", f"{prefix}{high}"


def broken_with(source: str, target: str) -> str:
    """What import-linter says once `source` imports `target`."""
    with tempfile.TemporaryDirectory() as folder:
        copy = Path(folder)
        for name in COPIED:
            path = ROOT / name
            if path.is_dir():
                shutil.copytree(path, copy / name, ignore=shutil.ignore_patterns("static", "*.pyc"))
            else:
                shutil.copy(path, copy / name)
        module = copy / source.replace(".", "/")
        plain = module.with_suffix(".py")
        file = plain if plain.exists() else module / "__init__.py"
        file.write_text(f"{file.read_text()}\nimport {target}  # noqa\n")
        command = [sys.executable, "-c", RUN, "--no-cache"]
        return subprocess.run(command, cwd=copy, capture_output=True, text=True, check=False).stdout


def main() -> None:
    missed = 0
    for contract in contracts():
        source, target = (module_of(m) for m in arrow(contract))
        said = broken_with(source, target)
        seen = f"{contract['name']} BROKEN" in said
        missed += not seen
        print(
            f"{'seen to fail' if seen else 'DID NOT FAIL':<13} {contract['name']}: "
            f"{source} -> {target}"
        )
    raise SystemExit(min(missed, 1))


if __name__ == "__main__":
    main()
