"""What is shipped is named with its license, and the front end's own too."""

import json
import re
from pathlib import Path

ROOT = Path(__file__).parents[1]
NOTICES = (ROOT / "NOTICES.md").read_text()


def test_every_locked_package_and_font_is_named_with_its_version() -> None:
    locked = re.findall(r"^([\w.-]+)==(\S+)", (ROOT / "requirements/run.txt").read_text(), re.M)
    front = json.loads((ROOT / "web/package.json").read_text())["dependencies"]
    assert len(locked) > 20 and "svelte" in front
    for name, version in (*locked, *front.items()):
        plain = re.escape(name).replace(r"\-", "[-_.]")
        assert re.search(rf"^### {plain} {re.escape(version)}$", NOTICES, re.M | re.I), name


def test_what_installs_the_rest_is_locked_too() -> None:
    text = (ROOT / "requirements/bootstrap.txt").read_text()
    assert re.search(r"^uv==", text, re.M) and "--hash=sha256:" in text
    assert "--require-hashes -r requirements/bootstrap.txt" in (ROOT / "Makefile").read_text()
